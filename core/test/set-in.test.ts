/** Parts let into the wall: the wall is less by just what they take, nothing lies in anything else, and what has no room is told of. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import {
  firstChoice,
  firstDimensions,
  type Part,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
} from '@yard-arch/document';
import fc from 'fast-check';
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { cutModel, meshIn, prove, type CutMesh, type ElementCut } from '../src/index.ts';
import { guarded } from '../src/infill/guarded.ts';
import { opening, project, wall } from './sample.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Module();
  kernel.setup();
});

const inFace = { id: 'q', material: 'stone', depth: 0.1, proud: 0 };
const lintel: Part = { ...inFace, kind: 'lintel', height: 0.2, bearing: 0.15 };
const ring: Part = { ...inFace, kind: 'arch ring', height: 0.22, stones: 9, joint: 0 };
const quoins: Part = { ...inFace, kind: 'quoins', height: 0.28, long: 0.3, short: 0.18, joint: 0 };
const stoneSill: Part = { ...inFace, kind: 'stone sill', height: 0.12, ends: 0.1, fall: 0, drip: false };

function withParts(
  parts: Part[],
  shape: ProfileShape,
  more: Partial<Pattern> = {},
  at: [number, number] = [4, 2],
): ProjectDocument {
  const pattern: Pattern = {
    id: 'p',
    name: 'Set about',
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
    reveal: { material: null },
    parts: parts.map((part, i) => ({ ...part, id: `q${i}` })),
    ...more,
  };
  return project([wall({ length: 12, height: 9 })], [opening('a', 'p', ...at)], { patterns: { p: pattern } });
}

const cutOf = (document: ProjectDocument): ElementCut => cutModel(document).cuts.get('w1')!;

function solids(mesh: CutMesh): InstanceType<ManifoldToplevel['Manifold']> {
  return new kernel.Manifold(
    new kernel.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(mesh.points.subarray(0, 3 * mesh.vertexCount)),
      triVerts: Uint32Array.from(mesh.triangles, (corner) => mesh.vertices[corner]!),
      tolerance: 1e-6,
    }),
  );
}

/** How much of an element and its parts lies in something else of it, cubic metres. */
function overlap({ mesh, parts }: ElementCut): number {
  const all = [
    solids(mesh),
    ...parts.flatMap(({ part, placement }) => solids(meshIn(placement, part.mesh)).decompose()),
  ];
  return all.reduce((sum, solid) => sum + solid.volume(), 0) - kernel.Manifold.union(all).volume();
}

const volumeOf = ({ parts }: ElementCut): number => parts.reduce((sum, { part }) => sum + prove(part.mesh).volume, 0);

const arches = ['semicircular-arch', 'segmental-arch', 'pointed-arch', 'cambered-arch', 'three-centred-arch'] as const;

describe('parts that are let into the wall', () => {
  it.each([
    ['a lintel', [lintel], 'rectangle'],
    ['a level arch', [ring], 'rectangle'],
    ['quoins', [quoins], 'rectangle'],
    ['a sill of stone', [stoneSill], 'rectangle'],
    ['a lintel, quoins and a sill', [lintel, quoins, stoneSill], 'rectangle'],
    ...arches.map(
      (shape) => [`an arch ring, quoins and a sill about a ${shape}`, [ring, quoins, stoneSill], shape] as const,
    ),
  ] as [string, Part[], ProfileShape][])('%s takes just its own room out of it', (_, parts, shape) => {
    const bare = cutOf(withParts([], shape));
    const set = cutOf(withParts(parts, shape));
    expect(set.statuses[0]).toMatchObject({ state: 'cut', reason: null, unitedWith: [] });
    expect(set.parts).toHaveLength(parts.length);
    for (const { part } of set.parts) expect(prove(part.mesh)).toMatchObject({ closed: true, openEdges: 0 });
    expect(prove(set.mesh).closed).toBe(true);
    expect(prove(bare.mesh).volume - prove(set.mesh).volume).toBeCloseTo(volumeOf(set), 6);
    expect(overlap(set)).toBeLessThan(1e-6);
  });

  it('cuts openings that are set about alike each as it is by itself, in whatever direction its wall runs', () => {
    const one = withParts([ring, quoins, stoneSill], 'semicircular-arch', {}, [0, 0]);
    // Places whose differences are rounded in as many ways.
    const places = [
      [1.1, 0.9],
      [4.37, 1.3],
      [7.123456789, 1 / 3],
      [1.7, 4.9],
      [5.9, 5.2],
    ] as const;
    const document: ProjectDocument = {
      ...one,
      elements: { w1: wall({ length: 12, height: 9, start: { x: 3, y: -2, z: 0.7 }, turn: 37 }) },
      openings: Object.fromEntries(places.map(([s, t], k) => [`o${k}`, opening(`o${k}`, 'p', s, t)])),
    };
    const all = cutOf(document);
    expect(prove(all.mesh)).toMatchObject({ closed: true, flaps: 0, collapsed: 0 });
    expect(overlap(all)).toBeLessThan(1e-6);
    const whole = prove(cutOf({ ...document, openings: {} }).mesh).volume;
    const own = (mesh: CutMesh, id: string): string =>
      JSON.stringify(
        mesh.runs.filter((run) => run.opening === id).map(({ role, layer, count }) => [role, layer, count]),
      );
    let taken = 0;
    for (const id of Object.keys(document.openings)) {
      const alone = cutOf({ ...document, openings: { [id]: document.openings[id]! } });
      taken += whole - prove(alone.mesh).volume;
      expect(own(all.mesh, id)).toBe(own(alone.mesh, id));
      expect(own(all.mesh, id)).not.toBe('[]');
    }
    expect(whole - prove(all.mesh).volume).toBeCloseTo(taken, 9);
    expect(new Set(all.mesh.runs.map((run) => run.opening))).toEqual(
      new Set([null, ...Object.keys(document.openings)]),
    );
  });

  it.each([
    ['outwards, from outside', 60, undefined],
    ['inwards, from outside', -50, undefined],
    ['outwards, from inside', 45, 'inner'],
  ] as const)(
    'follow a wall that curves %s, where its jambs are radial and where they are parallel',
    (_, sweep, face) => {
      for (const jambs of ['radial', 'parallel'] as const)
        for (const [parts, shape] of [
          [[lintel, quoins, stoneSill], 'rectangle'],
          [[ring, quoins, stoneSill], 'semicircular-arch'],
          [[ring], 'segmental-arch'],
        ] as [Part[], ProfileShape][]) {
          const bowed = (of: Part[]): ElementCut => {
            const { openings, ...rest } = withParts(of, shape, { jambs });
            const w1 = wall({ length: 12, height: 9, sweep });
            return cutOf({ ...rest, elements: { w1 }, openings: { a: { ...openings.a!, ...(face && { face }) } } });
          };
          const [bare, set] = [bowed([]), bowed(parts)];
          expect(set.statuses[0]).toMatchObject({ state: 'cut', reason: null, unitedWith: [] });
          expect(set.parts).toHaveLength(parts.length);
          for (const { part } of set.parts) expect(prove(part.mesh)).toMatchObject({ closed: true, openEdges: 0 });
          expect(prove(set.mesh).closed).toBe(true);
          const taken = prove(bare.mesh).volume - prove(set.mesh).volume;
          // Faces that lean are warped by the curve, and divided otherwise in the wall than in what stands in it.
          expect(Math.abs(taken / volumeOf(set) - 1)).toBeLessThan(1e-3);
          expect(overlap(set)).toBeLessThan(2e-5);
        }
    },
  );

  it('of any figures lie in nothing else', () => {
    // To a tenth of a millimetre, as they are typed.
    const figures = (least: number, most: number) =>
      fc.double({ min: least, max: most, noNaN: true }).map((value) => Math.round(value * 1e4) / 1e4);
    fc.assert(
      fc.property(
        fc.constantFrom('rectangle' as const, 'ogee-arch' as const, ...arches),
        fc.record({
          height: figures(0.06, 0.4),
          stones: fc.integer({ min: 1, max: 31 }),
          joint: fc.constantFrom(0, 0.006),
          proud: fc.constantFrom(0, 0.03),
          rise: figures(0.01, 0.1),
          depth: figures(0.05, 0.2),
        }),
        fc.record({
          height: figures(0.1, 0.5),
          long: figures(0.2, 0.5),
          short: figures(0.1, 0.2),
          joint: fc.constantFrom(0, 0.006),
        }),
        fc.record({
          height: figures(0.06, 0.3),
          ends: figures(0, 0.2),
          fall: figures(0, 0.04),
          proud: fc.constantFrom(0, 0.05),
          drip: fc.boolean(),
        }),
        (shape, { rise, ...arch }, blocks, sill) => {
          const stones = arch.stones;
          const set = cutOf(
            withParts(
              [
                {
                  ...ring,
                  ...arch,
                  kind: 'arch ring',
                  mortar: 'brick',
                  ...(stones % 2 === 1 ? { keystone: { rise, proud: 0.01, material: 'stone' } } : {}),
                },
                { ...quoins, ...blocks, kind: 'quoins', mortar: 'brick', depth: arch.depth },
                { ...stoneSill, ...sill, kind: 'stone sill' },
              ],
              shape,
            ),
          );
          const left = 3 - set.parts.length;
          if (left > 0) expect(set.statuses[0]!.reason).toMatch(/its (arch|quoins|stone sill|jambs|head)/);
          expect(set.statuses[0]!.state).toBe('cut');
          for (const { part } of set.parts) expect(prove(part.mesh).closed).toBe(true);
          expect(overlap(set)).toBeLessThan(2e-6);
        },
      ),
      { numRuns: 60, endOnFailure: true },
    );
  });

  it('are left out, and told of, where they would run over the edge, into a neighbour, through the wall or behind a check', () => {
    const reason = (document: ProjectDocument): string => {
      const { statuses, cuts } = cutModel(document);
      expect(prove(cuts.get('w1')!.mesh).closed).toBe(true);
      expect(cuts.get('w1')!.parts).toHaveLength(0);
      return statuses.get('a')!.reason!;
    };
    expect(reason(withParts([lintel], 'rectangle', {}, [0.1, 2]))).toMatch(/its lintel would run over the wall’s edge/);
    const neighbours = withParts([lintel], 'rectangle');
    neighbours.openings.b = { ...opening('b', 'p', 5.25, 2) };
    expect(reason(neighbours)).toMatch(/its lintel would run into another opening/);
    expect(reason(withParts([{ ...lintel, depth: 1.5 }], 'rectangle'))).toMatch(
      /its lintel would go right through the wall/,
    );
    expect(
      reason(withParts([lintel], 'rectangle', { sections: { head: { checks: [{ depth: 0.05, step: 0.02 }] } } })),
    ).toMatch(/its lintel would reach behind the check/);
    expect(reason(withParts([lintel], 'semicircular-arch'))).toMatch(/its head is not level/);
    expect(reason(withParts([ring], 'ogee-arch'))).toMatch(/too sharp/);
    expect(
      reason(
        withParts(
          [{ ...ring, stones: 4, keystone: { rise: 0.05, proud: 0, material: 'stone' } } as Part],
          'semicircular-arch',
        ),
      ),
    ).toMatch(/even number of stones/);
  });

  it('are tagged as their opening’s where they show in the wall', () => {
    const set = cutOf(withParts([lintel, quoins], 'rectangle'));
    expect([...new Set(set.mesh.runs.map(({ opening }) => opening))]).toEqual(expect.arrayContaining([null, 'a']));
    expect(set.mesh.runs.every(({ opening }) => opening === null || opening === 'a')).toBe(true);
  });

  it('that fail for no reason that is known are left out, and the rest stands', () => {
    const told = guarded('lintel', (): string => {
      throw new Error('all points lie in one line');
    });
    expect(told).toBe('its lintel cannot be built, for no reason that is known (all points lie in one line)');
    // What has more figures than a number holds fails at once, not the model with it.
    const set = cutOf(withParts([{ ...lintel, height: NaN } as Part], 'rectangle'));
    expect(prove(set.mesh).closed).toBe(true);
  });

  it('stand on the inner face where their opening is set out from within', () => {
    const document = withParts([lintel], 'rectangle');
    document.openings.a = { ...document.openings.a!, face: 'inner' };
    const set = cutOf(document);
    expect(set.parts.map(({ face }) => face)).toEqual(['inner']);
    expect(overlap(set)).toBeLessThan(1e-6);
  });
});
