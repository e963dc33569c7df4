/** Dormers at random: closed solids that stand on the plane and in nothing of one another, at any slope; or a reason in words. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { dormerForms, type Dormer, type Infill, type ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import type { ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, type Placed } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { dormerOf } from '../src/infill/dormer.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await solidLibrary();
});

const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const dormer: fc.Arbitrary<Dormer> = fc.record(
  {
    id: fc.constant('d'),
    kind: fc.constant('dormer' as const),
    form: fc.constantFrom(...dormerForms),
    material: fc.constant('wall'),
    wall: figure(0.05, 0.3),
    height: figure(0.6, 2.4),
    pitch: figure(3, 65),
    roof: fc.record({ material: fc.constant('roof'), thickness: figure(0.04, 0.25), over: figure(0, 0.5) }),
    window: fc.record({
      shape: fc.constantFrom('rectangle' as const, 'circle' as const),
      sill: figure(0.15, 0.6),
      dimensions: fc.constant<Record<string, number>>({}),
    }),
  },
  { requiredKeys: ['id', 'kind', 'form', 'material', 'wall', 'height', 'pitch', 'roof'] },
);

describe('dormers', () => {
  it('are closed, stand on their plane and in nothing of one another, or say why they cannot be', () => {
    let made = 0;
    const seen = new Set<string>();
    fc.assert(
      fc.property(
        dormer,
        figure(0.7, 2.6),
        figure(0.4, 1.8),
        figure(18, 62),
        figure(0.3, 0.8),
        (own, width, height, slope, size) => {
          const dimensions: Record<string, number> =
            own.window?.shape === 'circle' ? { diameter: size } : { width: size, height: 0.9 * size };
          const window = own.window && { ...own.window, dimensions };
          const radians = (slope * Math.PI) / 180;
          const one: Dormer = window ? { ...own, window } : own;
          const built = dormerOf(one, { profile: { width, height } as Placed['profile'], slope: radians }, 'mm');
          if (typeof built === 'string') return expect(built).toMatch(/^(it|its) \S+/);
          made += 1;
          seen.add(one.form);
          const { mesh } = built.part;
          const { closed, flaps, collapsed } = prove(mesh);
          expect({ form: one.form, closed, flaps, collapsed }).toEqual({
            form: one.form,
            closed: true,
            flaps: 0,
            collapsed: 0,
          });
          // Into the plane goes y: nothing of it does.
          for (let i = 0; i < mesh.points.length; i += 3) expect(mesh.points[i + 1]!).toBeLessThan(1e-6);
          const solids = new kernel.Manifold(
            new kernel.Mesh({
              numProp: 3,
              vertProperties: Float32Array.from(mesh.points),
              triVerts: Uint32Array.from(mesh.triangles, (c) => mesh.vertices[c]!),
              tolerance: 1e-6,
            }),
          ).decompose();
          const sum = solids.reduce((all, solid) => all + solid.volume(), 0);
          expect(sum - kernel.Manifold.union(solids).volume()).toBeLessThan(5e-5);
        },
      ),
      { numRuns: Number(process.env.DORMER_ROUNDS ?? 120), endOnFailure: true },
    );
    expect(made).toBeGreaterThan(20);
    expect(seen.size).toBeGreaterThan(3);
  });

  it('stand on a roof, follow its pitch, carry their windows, and say where they reach over its ridge', () => {
    const whole = granary();
    const roof = Object.values(whole.elements).find(({ name }) => name === 'Main roof')!;
    const window = Object.values(whole.openings).find(
      ({ element, face }) => element === roof.id && face !== undefined,
    )!;
    const infill: Infill = {
      seat: { from: 'outer', depth: 0.03 },
      gap: 0.004,
      frame: { width: 0.05, depth: 0.06, material: 'oak' },
      field: { kind: 'glass', material: 'glass', thickness: 0.006 },
    };
    const part: Dormer = {
      id: 'd',
      kind: 'dormer',
      form: 'gabled',
      material: 'oak',
      wall: 0.12,
      height: 1.3,
      pitch: 35,
      roof: { material: 'slate', thickness: 0.1, over: 0.2 },
      window: { shape: 'rectangle', dimensions: { width: 0.7, height: 0.9 }, sill: 0.25, infill },
    };
    const document = (over: Partial<Dormer>, up: number): ProjectDocument => ({
      ...whole,
      elements: { [roof.id]: roof },
      patterns: {
        p: {
          id: 'p',
          name: 'Dormer',
          profile: { shape: 'rectangle' },
          sizes: { s: { id: 's', name: '', dimensions: { width: 1.2, height: 1.2 } } },
          reveal: { material: null },
          onSlope: 'plumb',
          parts: [{ ...part, ...over }],
        },
      },
      openings: {
        o: {
          ...window,
          id: 'o',
          pattern: 'p',
          size: 's',
          up: { from: 'base', distance: up },
          grip: { across: 'centre', level: 'sill' },
        },
      },
    });
    const told = (over: Partial<Dormer>, up: number): string[] =>
      cutModel(document(over, up))
        .statuses.get('o')!
        .findings.map(({ reason }) => reason);
    expect(told({}, 1.2)).toEqual([]);
    const { parts, mesh } = cutModel(document({}, 1.2)).cuts.get(roof.id)!;
    expect(parts.map(({ part: { name } }) => name).sort()).toEqual(['dormer', 'infill']);
    expect(prove(mesh).closed).toBe(true);
    // The window stands upright, the dormer square to the plane.
    const stands = (name: string) => parts.find(({ part: own }) => own.name === name)!.placement.z;
    expect(stands('infill')[2]).toBeCloseTo(1, 9);
    expect(stands('dormer')[2]).toBeCloseTo(Math.sin((40 * Math.PI) / 180), 9);
    expect(told({}, 4.6)).toEqual([expect.stringMatching(/reaches over the plane’s edge/)]);
    expect(told({ height: 0.4 }, 1.2)).toEqual([expect.stringMatching(/make the dormer higher/)]);
    expect(told({ form: 'lean-to', pitch: 50 }, 1.2)).toEqual([expect.stringMatching(/as steep as the plane/)]);
  });
});
