/** Outlines carried on to straight and curved walls: held against prisms that a solid-boolean library takes out of the bare wall. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Manifold, ManifoldToplevel, Mesh } from 'manifold-3d';
import type { ProjectDocument, Wall } from '@yard-arch/document';
import { cutModel, elementsAlong, prove, resolveOpening, type CutMesh, type Placed } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { opening, patterns, project, wall } from './sample.ts';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

function solidOf(mesh: CutMesh): Manifold {
  return library.Manifold.ofMesh({
    numProp: 3,
    vertProperties: Float32Array.from(mesh.points),
    triVerts: mesh.triangles.map((c) => mesh.vertices[c]!),
  } as unknown as Mesh);
}

/** What is left of a wall when the outline of an opening, drawn upright at a point in the plane whose x axis is given, is swept along a direction both ways. */
function swept(
  bare: CutMesh,
  { outline, profile }: Placed,
  point: readonly number[],
  x: readonly number[],
  direction: readonly number[],
): number {
  const ring = Array.from({ length: outline.count }, (_, i): [number, number] => [
    outline.xs[i]! - profile.width / 2,
    outline.ys[i]!,
  ]);
  const far = 8;
  const [dx, dy, dz] = direction as [number, number, number];
  const matrix = [
    x[0]!,
    x[1]!,
    0,
    0,
    0,
    0,
    1,
    0,
    dx,
    dy,
    dz,
    0,
    point[0]! - far * dx,
    point[1]! - far * dy,
    point[2]! - far * dz,
    1,
  ];
  const sweep = new library.CrossSection([ring], 'Positive').extrude(2 * far).transform(matrix as never);
  return solidOf(bare).subtract(sweep).volume();
}

const drum: Wall = wall({
  id: 'w1',
  length: 6,
  sweep: 80,
  layers: [
    { thickness: 0.2, material: 'brick' },
    { thickness: 0.15, material: 'stone' },
  ],
});
const inDrum = (turn: number, rise?: number): ProjectDocument =>
  project([drum], [opening('a', 'arch', 2.4, 0.9, { aim: { turn, ...(rise ? { rise } : {}) } })]);
const bare = (document: ProjectDocument, id: string): CutMesh =>
  cutModel({ ...document, openings: {} }).cuts.get(id)!.mesh;

describe('an outline carried through a curved wall', () => {
  for (const turn of [100, 130, 150])
    for (const rise of [0, 12, -20])
      it(`in the direction ${turn}°, rising by ${rise}°, takes out the prism`, () => {
        const document = inDrum(turn, rise);
        const model = cutModel(document);
        const cut = model.cuts.get('w1')!;
        expect(model.statuses.get('a')).toMatchObject({ state: 'cut' });
        const proof = prove(cut.mesh);
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
        expect(proof.density[0]).toBeGreaterThan(0.99);
        expect(proof.density[1]).toBeLessThan(1.01);
        const [placed] = cut.placed;
        const { x, y, along } = placed!.carrier!;
        const [a, e] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
        const wanted = swept(bare(document, 'w1'), placed!, [x, y, 0.9], along, [
          Math.cos(a) * Math.cos(e),
          Math.sin(a) * Math.cos(e),
          Math.sin(e),
        ]);
        expect(proof.volume).toBeCloseTo(wanted, 4);
      });
});

describe('a straight wall’s opening', () => {
  const front = wall({ id: 'w0', start: { x: 0, y: -2, z: 0 }, layers: [{ thickness: 0.3, material: 'brick' }] });
  const behind = { ...front, start: { x: 6, y: 5, z: 0 }, turn: 180 };
  for (const [name, own, s] of [
    ['before it', front, 2.2],
    ['behind it, from within', behind, 2.6],
  ] as const)
    it(`cuts the curved wall that stands ${name}, if asked`, () => {
      const document = project(
        [own, { ...drum, height: 3.4 }],
        [opening('a', 'arch', s, 0.4, { element: 'w0', further: ['w1'] })],
      );
      const placed = resolveOpening(document, document.openings.a!) as Placed;
      expect(elementsAlong(document, document.openings.a!, placed).map(({ element }) => element)).toEqual(['w1']);
      const model = cutModel(document);
      expect(model.statuses.get('a')).toMatchObject({
        state: 'cut',
        further: [{ element: 'w1', state: 'cut', reason: null }],
      });
      const proof = prove(model.cuts.get('w1')!.mesh);
      expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
      const middle = s + placed.profile.width / 2;
      const point = own === front ? [middle, -2, 0.4] : [6 - middle, 5, 0.4];
      const [x, direction] =
        own === front
          ? [
              [1, 0],
              [0, 1, 0],
            ]
          : [
              [-1, 0],
              [0, -1, 0],
            ];
      expect(proof.volume).toBeCloseTo(swept(bare(document, 'w1'), placed, point, x!, direction!), 4);
    });

  it('says where it misses a curved wall', () => {
    const document = project(
      [{ ...front, start: { x: -20, y: -2, z: 0 } }, drum],
      [opening('a', 'arch', 2, 0.4, { element: 'w0', further: ['w1'] })],
    );
    expect(cutModel(document).statuses.get('a')!.further![0]).toMatchObject({
      state: 'not cut',
      reason: expect.stringContaining('passes by'),
    });
  });
});

describe('a pattern’s side that leans out of the drawing plane', () => {
  it('of a slab cannot be carried on to a curved wall', () => {
    const slab = {
      id: 's',
      kind: 'slab' as const,
      name: 'Floor',
      start: { x: 0, y: 0, z: 3 },
      turn: 0,
      outline: [
        { x: 0, y: 0 },
        { x: 6, y: 0 },
        { x: 6, y: 4 },
        { x: 0, y: 4 },
      ],
      layers: [{ thickness: 0.3, material: 'brick' }],
    };
    const base = project([drum], [opening('a', 'window', 1, 1, { element: 's', further: ['w1'] })]);
    const status = cutModel({ ...base, elements: { ...base.elements, s: slab }, patterns }).statuses.get('a')!;
    expect(status.further![0]).toMatchObject({ state: 'not cut', reason: expect.stringContaining('upright') });
  });
});

describe('outlines that are alike at first', () => {
  it('are not taken for one another, however long they stay alike', () => {
    const ring = (last: number): { x: number; y: number }[] => [
      ...Array.from({ length: 9 }, (_, i) => ({ x: i / 10, y: i % 2 === 0 ? 0 : 0.05 })),
      { x: 0.8, y: 1 },
      { x: 0.4, y: last },
      { x: 0, y: 1 },
    ];
    const volume = (last: number): number => {
      const free = {
        ...patterns.window!,
        id: 'free',
        profile: { shape: 'free' as const, outline: ring(last) },
        sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1 } } },
      };
      const document = {
        ...project([wall()], [opening('a', 'free', 2, 1, { aim: { turn: 75 } })]),
        patterns: { ...patterns, free },
      } as ProjectDocument;
      return prove(cutModel(document).cuts.get('w1')!.mesh).volume;
    };
    // The notch at the top is half as deep in the second; its direction is 15° off the wall’s.
    expect(volume(0.6) - volume(0.8)).toBeCloseTo((0.5 * 0.8 * 0.2 * 0.4) / Math.cos(Math.PI / 12), 6);
  });
});
