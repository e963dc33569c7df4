/** Infill that follows a curve: closed, as much as it is by its mean radius, clear of the wall, and its leaves turn about their hinges. */
import { describe, expect, it } from '@jest/globals';
import type { Field, Part, Pattern, ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, type CutMesh, type PartInstance } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const glass: Field = { kind: 'glass', material: 'brick', thickness: 0.02 };

function curved(
  sweep: number,
  field: Field,
  more: Partial<Pattern> = {},
  over: Partial<NonNullable<Pattern['infill']>> = {},
): ProjectDocument {
  const p: Pattern = {
    id: 'p',
    name: 'Bow',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width: 1.4, height: 1.2 } } },
    reveal: { material: null },
    jambs: 'radial',
    infill: {
      seat: { from: 'outer', depth: 0.1 },
      gap: 0,
      curve: 'follows',
      frame: { width: 0.06, depth: 0.07, material: 'brick' },
      field,
      ...over,
    },
    ...more,
  };
  return project([wall({ length: 4, height: 3, sweep })], [opening('a', 'p', 1.2, 0.9)], { patterns: { p } });
}

const partsIn = (document: ProjectDocument): readonly PartInstance[] => cutModel(document).cuts.get('w1')!.parts;

describe('an infill on a curve', () => {
  it('follows it: closed, and larger or smaller as its mean radius is', () => {
    fc.assert(
      fc.property(fc.integer({ min: -100, max: 100 }), fc.boolean(), (sweep, divided) => {
        if (Math.abs(sweep) < 8) return;
        const field: Field = divided
          ? {
              kind: 'divided',
              way: 'mullions',
              bar: { width: 0.04, depth: 0.07, material: 'brick' },
              lights: { kind: 'equal', count: 3 },
              fields: [glass],
            }
          : glass;
        const document = curved(sweep, field);
        const [part] = partsIn(document) as [PartInstance];
        const flat = partsIn({ ...document, elements: { w1: { ...document.elements.w1!, sweep: 0 } as never } })[0]!;
        const proof = prove(part.part.mesh);
        expect(proof).toMatchObject({ closed: true, collapsed: 0 });
        // The centre is to the left of the way, and inward where the sweep is so.
        const radius = 4 / ((sweep * Math.PI) / 180);
        const expected = prove(flat.part.mesh).volume * (1 - (0.1 + 0.035) / radius);
        expect(Math.abs(proof.volume / expected - 1)).toBeLessThan(0.004);
      }),
      { numRuns: 30 },
    );
  });

  it('lies in nothing of the wall, and fills the reveal to its radial jambs', async () => {
    const kernel = await Module();
    kernel.setup();
    for (const sweep of [70, -55]) {
      const document = curved(sweep, { kind: 'glass', material: 'brick', thickness: 0.07 });
      const cut = cutModel(document).cuts.get('w1')!;
      const [part] = cut.parts as [PartInstance];
      const wallSolid = solidOf(kernel, cut.mesh);
      const infill = solidOf(kernel, part.part.mesh, part);
      expect(wallSolid.intersect(infill).volume()).toBeLessThan(1e-5);
      // Grown by a hair to either side it would reach into both jambs.
      const wider = solidOf(
        kernel,
        partsIn(
          curved(sweep, glass, { sizes: { a: { id: 'a', name: '', dimensions: { width: 1.404, height: 1.2 } } } }),
        )[0]!.part.mesh,
        part,
      );
      expect(wallSolid.intersect(wider).volume()).toBeGreaterThan(1e-5);
    }
  });

  it('has leaves that turn about their hinges on the curve; what slides aside is left out', () => {
    const leaf = (hung: 'left' | 'slides left'): Field => ({
      kind: 'leaf',
      frame: { width: 0.05, depth: 0.05, material: 'brick' },
      clearance: 0.002,
      hung,
      opens: 'inward',
      angle: 40,
      slid: 0.5,
      field: glass,
    });
    const stood = (angle: number): PartInstance =>
      partsIn({ ...curved(60, leaf('left')), openings: { a: { ...opening('a', 'p', 1.2, 0.9), open: angle } } })[1]!;
    const [shut, open] = [stood(0), stood(40)];
    expect(open.part).toBe(shut.part);
    shut.placement.origin.forEach((value, k) => expect(open.placement.origin[k]).toBeCloseTo(value, 9));
    expect(prove(shut.part.mesh).closed).toBe(true);
    expect(cutModel(curved(60, leaf('slides left'))).statuses.get('a')!.reason).toContain('slides aside');
  });

  it('shares one mesh among those that fold alike, and stands flat where it is not to follow', () => {
    const document = curved(60, glass);
    const other = { ...document, openings: { ...document.openings, b: opening('b', 'p', 1.2, 0.9) } };
    expect(new Set(partsIn(other).map(({ part }) => part)).size).toBe(1);
    const flat = partsIn(curved(60, glass, {}, { curve: undefined }))[0]!;
    const ys = flat.part.mesh.points.filter((_, i) => i % 3 === 1).map((y) => Math.round(y * 1e6));
    expect(new Set(ys)).toEqual(new Set([100_000, 125_000, 145_000, 170_000]));
  });

  it('and a surround planted on a curved face follow it', () => {
    const band: Part = {
      id: 'b',
      kind: 'surround',
      material: 'brick',
      width: 0.12,
      thickness: 0.03,
      sides: ['jamb-left', 'jamb-right', 'head'],
    };
    const [part] = partsIn(curved(-50, glass, { infill: undefined, parts: [band] })) as [PartInstance];
    expect(prove(part.part.mesh)).toMatchObject({ closed: true, collapsed: 0 });
    const proud = (0.12 * 2 * 1.2 + 0.12 * (1.4 + 0.24)) * 0.03;
    expect(Math.abs(prove(part.part.mesh).volume / proud - 1)).toBeLessThan(0.03);
  });
});

function solidOf(
  kernel: ManifoldToplevel,
  { points, triangles, vertices }: CutMesh,
  at?: PartInstance,
): InstanceType<ManifoldToplevel['Manifold']> {
  const vertProperties = new Float32Array(points.length);
  for (let i = 0; i < points.length; i += 3) {
    const own = [points[i]!, points[i + 1]!, points[i + 2]!];
    for (let k = 0; k < 3; k++) {
      const p = at?.placement;
      vertProperties[i + k] = p ? p.origin[k]! + p.x[k]! * own[0]! + p.y[k]! * own[1]! + p.z[k]! * own[2]! : own[k]!;
    }
  }
  return new kernel.Manifold(
    new kernel.Mesh({ numProp: 3, vertProperties, triVerts: triangles.map((corner) => vertices[corner]!) }),
  );
}
