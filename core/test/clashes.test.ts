/** What runs into what: leaves into reveals, by closed forms; parts of neighbours into each other, by solid booleans. */
import { describe, expect, it } from '@jest/globals';
import type { Leaf, Part, Pattern, ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { book } from '@yard-arch/demo';
import { shipped } from '@yard-arch/edit';
import { cutModel, patternFront, type PartInstance } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const seat = 0.05;
const [width, frame, clearance] = [1, 0.05, 0.002];

function told(document: ProjectDocument): string[] {
  return [...cutModel(document).statuses.values()].flatMap(({ findings }) =>
    findings.filter(({ code }) => code === 'runs-into').map(({ reason }) => reason),
  );
}

function withLeaf(over: Partial<Leaf>, pattern: Partial<Pattern> = {}): ProjectDocument {
  const p: Pattern = {
    id: 'p',
    name: 'Door',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width, height: 2 } } },
    reveal: { material: null },
    infill: {
      seat: { from: 'outer', depth: seat },
      gap: 0,
      frame: { width: frame, depth: 0.05, material: 'brick' },
      field: {
        kind: 'leaf',
        frame: { width: 0.08, depth: 0.05, material: 'brick' },
        clearance,
        hung: 'left',
        opens: 'inward',
        angle: 0,
        field: { kind: 'empty' },
        ...over,
      },
    },
    ...pattern,
  };
  return project([wall({ length: 6, height: 4 })], [opening('a', 'p', 2, 0.5)], { patterns: { p } });
}

describe('a leaf that stands open', () => {
  it('is told of once it stands in the jamb, and not before', () => {
    // From a right angle on its hinge’s side goes toward the jamb: by its length within the wall, or all of it.
    const thick = 0.4;
    const hinge = frame + clearance;
    const long = Math.min(width - 2 * (frame + clearance), thick - seat - 0.05);
    const most = 90 + (Math.asin(hinge / long) * 180) / Math.PI;
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 175 }), fc.constantFrom('left', 'right'), (angle, hung) => {
        if (Math.abs(angle - most) < 6) return;
        expect([angle, told(withLeaf({ angle, hung })).length]).toEqual([angle, angle > most ? 1 : 0]);
      }),
      { numRuns: 40 },
    );
  });

  it('with a round head runs into it where it opens within the reveal, but not where it stands at the face behind', () => {
    const arched: Partial<Pattern> = {
      profile: { shape: 'semicircular-arch' },
      sizes: { a: { id: 'a', name: '', dimensions: { span: width, height: 2 } } },
    };
    expect(told(withLeaf({ angle: 80 }, arched))).toEqual(['its leaf runs into the reveal as it stands open']);
    const document = withLeaf({ angle: 80 }, arched);
    const { infill } = document.patterns.p!;
    const behind = { ...document.patterns.p!, infill: { ...infill!, seat: { from: 'inner' as const, depth: 0 } } };
    expect(told({ ...document, patterns: { p: behind } })).toEqual([]);
  });

  it('that slides, or is shut, runs into nothing', () => {
    expect(told(withLeaf({ hung: 'slides left', slid: 0.9 }))).toEqual([]);
    expect(told(withLeaf({}))).toEqual([]);
  });
});

/** How much room two parts share where they stand, cubic metres, by solid booleans. */
function shareOf(kernel: ManifoldToplevel, a: PartInstance, b: PartInstance): number {
  const [one, other] = [a, b].map(({ part: { mesh }, placement: { origin, x, y, z } }) => {
    const vertProperties = new Float32Array(mesh.points.length);
    for (let i = 0; i < mesh.points.length; i += 3)
      for (let k = 0; k < 3; k++)
        vertProperties[i + k] =
          origin[k]! + x[k]! * mesh.points[i]! + y[k]! * mesh.points[i + 1]! + z[k]! * mesh.points[i + 2]!;
    const triVerts = mesh.triangles.map((corner) => mesh.vertices[corner]!);
    return new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties, triVerts }));
  }) as [InstanceType<ManifoldToplevel['Manifold']>, InstanceType<ManifoldToplevel['Manifold']>];
  const common = one.intersect(other);
  const volume = common.volume();
  for (const made of [one, other, common]) made.delete();
  return volume;
}

const band: Part = {
  id: 'b',
  kind: 'surround',
  material: 'brick',
  width: 0.15,
  thickness: 0.03,
  sides: ['jamb-left', 'jamb-right', 'head'],
};

describe('parts of neighbours', () => {
  it('are told of just where they share room', async () => {
    const kernel = await Module();
    kernel.setup();
    const sill = (horns: number): Part => ({
      id: 's',
      kind: 'sill board',
      material: 'brick',
      thickness: 0.05,
      nosing: 0.06,
      horns,
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: -300, max: 300 }),
        (gap, horns, up) => {
          const pattern = (id: string, part: Part): Pattern => ({
            id,
            name: id,
            profile: { shape: 'rectangle' },
            sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1 } } },
            reveal: { material: null },
            parts: [part],
          });
          const document = project(
            [wall({ length: 6, height: 4 })],
            [opening('a', 'p', 1, 1), opening('b', 'q', 1.8 + gap / 1000, 1 + up / 1000)],
            { patterns: { p: pattern('p', sill(horns / 1000)), q: pattern('q', band) } },
          );
          const parts = cutModel(document).cuts.get('w1')!.parts;
          const shared = shareOf(kernel, parts[0]!, parts[1]!);
          // What only touches, or shares a hair, may be told or not.
          if (shared > 0 && shared < 1e-5) return;
          expect([gap, horns, up, told(document).length]).toEqual([gap, horns, up, shared > 0 ? 1 : 0]);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('parts of one opening', () => {
  it('are told of just where they share room, each pair once', async () => {
    const kernel = await Module();
    kernel.setup();
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 10, max: 300 }),
        fc.integer({ min: 0, max: 90 }),
        (horns, reach, angle) => {
          const board: Part = {
            id: 's',
            kind: 'sill board',
            material: 'brick',
            thickness: 0.06,
            nosing: 0.05,
            horns: horns / 1000,
            reach: reach / 1000,
          };
          const document = withLeaf({ angle, opens: 'outward' }, { parts: [board, band] });
          const parts = cutModel(document).cuts.get('w1')!.parts;
          const own = ({ id }: PartInstance): string => (id.startsWith('leaf') ? 'infill' : id);
          const pairs = parts.flatMap((a, i) => parts.slice(i + 1).map((b) => [a, b] as const));
          const shared = pairs
            .filter(([a, b]) => own(a) !== own(b))
            .map(([a, b]) => [`its ${a.part.name} runs into its ${b.part.name}`, shareOf(kernel, a, b)] as const);
          if (shared.some(([, volume]) => volume > 0 && volume < 1e-5)) return;
          const words = told(document).filter((reason) => !reason.includes('reveal'));
          expect([horns, reach, angle, words.join('; ')]).toEqual([
            horns,
            reach,
            angle,
            shared.flatMap(([reason, volume]) => (volume > 0 ? [reason] : [])).join('; '),
          ]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('that ship lie in nothing of one another, in any of their sizes', async () => {
    const kernel = await Module();
    kernel.setup();
    const whole = book();
    let looked = 0;
    for (const cut of cutModel(whole).cuts.values())
      cut.parts.forEach((a, i) =>
        cut.parts.slice(i + 1).forEach((b) => {
          if (a.opening !== b.opening) return;
          looked += 1;
          expect([whole.openings[a.opening]!.mark, a.part.name, b.part.name, shareOf(kernel, a, b) < 1e-7]).toEqual([
            whole.openings[a.opening]!.mark,
            a.part.name,
            b.part.name,
            true,
          ]);
        }),
      );
    expect(looked).toBeGreaterThan(100);
    for (const pattern of shipped)
      for (const { dimensions } of Object.values(pattern.sizes))
        expect([pattern.name, patternFront(pattern, dimensions, 'mm').reason]).toEqual([pattern.name, null]);
  });
});
