/** Single sheets from outside: meshes of one face become the outlines that they were made from, and are cut like any panel. */
import { describe, expect, it } from '@jest/globals';
import type { Element, FreeOutline, ProjectDocument, Wall } from '@yard-arch/document';
import fc from 'fast-check';
import {
  cornerAt,
  cutModel,
  elementsOfSheets,
  prove,
  singleSheetsOf,
  type FlatSheet,
  type ForeignMesh,
} from '../src/index.ts';
import { readFileSync } from 'node:fs';
import { readMesh, Unreadable, writeGlb } from '../src/format/index.ts';
import { project, sheetOf } from './sample.ts';

const layers = [{ thickness: 0.2, material: 'brick' }];
const square: FreeOutline = [
  { x: 0, y: 0 },
  { x: 5, y: 0 },
  { x: 5, y: 4 },
  { x: 0, y: 4 },
];
const bytes = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);

function documentOf(...elements: Element[]): ProjectDocument {
  return { ...project([], []), elements: Object.fromEntries(elements.map((element) => [element.id, element])) };
}

/** The outer face of an element, as a program without thickness would have drawn it. */
function faceOf(element: Element): ForeignMesh {
  const { mesh } = cutModel(documentOf(element)).cuts.get(element.id)!;
  const run = mesh.runs.find(({ role }) => role === 'outer face')!;
  const polygons = [];
  for (let i = run.first; i < run.first + run.count; i++)
    polygons.push([0, 1, 2].map((k) => mesh.vertices[mesh.triangles[3 * i + k]!]!));
  return { positions: [...mesh.points], polygons };
}

const star = fc.array(fc.integer({ min: 60, max: 100 }), { minLength: 3, maxLength: 12 }).map((radii): FreeOutline => {
  const points = radii.map((r, i) => ({
    x: (r / 25) * Math.cos((2 * Math.PI * i) / radii.length),
    y: (r / 25) * Math.sin((2 * Math.PI * i) / radii.length),
  }));
  return points.map(({ x, y }) => ({
    x: x - Math.min(...points.map((p) => p.x)),
    y: y - Math.min(...points.map((p) => p.y)),
  }));
});

describe('a flat sheet without thickness', () => {
  it('becomes the very element that its face is of, wherever that stands and however it is divided', () => {
    let compared = 0;
    fc.assert(
      fc.property(
        star,
        fc.boolean(),
        fc.integer({ min: -179, max: 180 }),
        fc.integer({ min: 5, max: 175 }),
        fc.integer({ min: -50, max: 50 }),
        (outline, holed, turn, tilt, far) => {
          const hole: FreeOutline = [0, 1, 2, 3].map((i) => ({
            x: 2 + 0.1 * Math.cos((Math.PI * i) / 2) + Math.max(...outline.map(({ x }) => x)) / 2 - 2,
            y: Math.max(...outline.map(({ y }) => y)) / 2 + 0.1 * Math.sin((Math.PI * i) / 2),
          }));
          const given: Element = {
            id: 'p',
            name: 'Hoarding',
            kind: 'panel',
            start: { x: far, y: 3, z: -far / 2 },
            turn,
            tilt,
            outline,
            ...(holed ? { holes: [hole] } : {}),
            layers,
          };
          const whole = cutModel(documentOf(given)).cuts.get('p')!;
          if (whole.statuses.length > 0 || prove(whole.mesh).triangles === 0) return;
          compared += 1;
          const { sheets, closed } = singleSheetsOf(faceOf(given));
          expect({ count: sheets.length, closed, holes: (sheets[0] as FlatSheet).holes.length }).toEqual({
            count: 1,
            closed: 0,
            holes: holed ? 1 : 0,
          });
          const [made] = elementsOfSheets(sheets, layers, [{ id: 'p', name: 'Hoarding' }]);
          const again = cutModel(documentOf(made!)).cuts.get('p')!;
          expect(prove(again.mesh)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
          expect(prove(again.mesh).volume).toBeCloseTo(prove(whole.mesh).volume, 5);
          // Not only as large, but in the same place, facing the same way.
          const corners = (mesh: typeof again.mesh): string[] =>
            [
              ...new Set(
                Array.from(mesh.vertices, (_, c) =>
                  cornerAt(mesh, c)
                    .map((x) => (x + 1e-7).toFixed(3))
                    .join(' '),
                ),
              ),
            ].sort();
          const [a, b] = [corners(again.mesh), corners(whole.mesh)];
          expect(a).toHaveLength(b.length);
          for (let k = 0; k < 3; k++) {
            const sum = (list: string[]): number => list.reduce((total, text) => total + Number(text.split(' ')[k]), 0);
            expect(Math.abs(sum(a) - sum(b))).toBeLessThan(0.002 * a.length);
          }
        },
      ),
      { seed: 11, numRuns: 150 },
    );
    expect(compared).toBeGreaterThan(120);
  });

  it('that lies level and faces up becomes a slab, facing down a panel', () => {
    const up: ForeignMesh = { positions: [0, 0, 2, 3, 0, 2, 3, 1, 2, 0, 1, 2], polygons: [[0, 1, 2, 3]] };
    const down: ForeignMesh = { ...up, polygons: [[3, 2, 1, 0]] };
    const made = (mesh: ForeignMesh): Element =>
      elementsOfSheets(singleSheetsOf(mesh).sheets, layers, [{ id: 'p', name: 'Landing' }])[0]!;
    expect(made(up)).toMatchObject({ kind: 'slab', start: { x: 0, y: 0, z: 2 }, turn: 0 });
    const zs = (element: Element): number[] =>
      [...cutModel(documentOf(element)).cuts.get('p')!.mesh.points].filter((_, i) => i % 3 === 2);
    expect(Math.min(...zs(made(up)))).toBeCloseTo(1.8, 9);
    expect(made(down)).toMatchObject({ kind: 'panel', tilt: 180 });
    expect(Math.max(...zs(made(down)))).toBeCloseTo(2.2, 9);
  });

  it('drawn in triangles that look different ways, with points double, is one sheet all the same', () => {
    const positions = [0, 0, 0, 2, 0, 0, 2, 0, 3, 0, 0, 0, 2, 0, 3.00001, 0, 0, 3];
    const { sheets } = singleSheetsOf({
      positions,
      polygons: [
        [0, 1, 2],
        [5, 4, 3],
      ],
    });
    expect(sheets).toHaveLength(1);
    expect(sheets[0]).toMatchObject({ tilt: 90, turn: 0, area: expect.closeTo(6, 4) });
    expect((sheets[0] as FlatSheet).outline).toHaveLength(4);
  });

  it('is one of several where faces meet in an angle; solids are left', () => {
    const corner: ForeignMesh = {
      positions: [0, 0, 0, 2, 0, 0, 2, 0, 3, 0, 0, 3, 0, 4, 0, 0, 4, 3],
      polygons: [
        [0, 1, 2, 3],
        [4, 0, 3, 5],
      ],
    };
    expect(
      singleSheetsOf(corner)
        .sheets.map(({ area }) => Math.round(area))
        .sort(),
    ).toEqual([12, 6]);
    const box = cutModel(
      documentOf({
        id: 'p',
        name: 'Box',
        kind: 'panel',
        start: { x: 0, y: 0, z: 0 },
        turn: 0,
        tilt: 90,
        outline: square,
        layers,
      }),
    ).cuts.get('p')!.mesh;
    const polygons = Array.from({ length: box.triangles.length / 3 }, (_, i) =>
      [...box.triangles.slice(3 * i, 3 * i + 3)].map((c) => box.vertices[c]!),
    );
    expect(singleSheetsOf({ positions: [...box.points], polygons })).toEqual({
      sheets: [],
      closed: 1,
      leftOut: 0,
      bent: [],
    });
  });
});

describe('an upright sheet that is bent', () => {
  const named = (count: number) => Array.from({ length: count }, (_, i) => ({ id: `w${i}`, name: `Wall ${i}` }));
  /** An upright face over each way from point to point, its front on the right. */
  const over = (points: readonly (readonly [number, number])[], height = 3): ForeignMesh => ({
    positions: points.flatMap(([x, y]) => [x, y, 0, x, y, height]),
    polygons: points.slice(1).map((_, i) => [2 * i, 2 * i + 2, 2 * i + 3, 2 * i + 1]),
  });

  it('becomes the very wall that its face is of: straight runs, arcs and the corners between them', () => {
    const sweep: fc.Arbitrary<number> = fc.constantFrom(-120, -50, 40, 90, 200);
    const tenth = (min: number, max: number) => fc.integer({ min: min * 10, max: max * 10 }).map((n) => n / 10);
    fc.assert(
      fc.property(
        fc.integer({ min: -179, max: 180 }),
        tenth(3, 9),
        sweep,
        fc.array(
          fc.record({
            turn: fc.constantFrom(0, -40, 45, 80),
            length: tenth(4, 9),
            sweep: fc.option(sweep, { nil: undefined }),
          }),
          { maxLength: 2 },
        ),
        (turn, length, first, runs) => {
          const total = [first, ...runs.map((run) => run.sweep ?? 0)].reduce((sum, one) => sum + Math.abs(one), 0);
          fc.pre(total <= 360);
          const given: Wall = {
            id: 'p',
            name: 'Quay front',
            kind: 'wall',
            start: { x: 7, y: -3, z: 1 },
            turn,
            length,
            sweep: first,
            runs,
            height: 3,
            top: { kind: 'level' },
            layers,
          };
          // Where a run goes straight on from another it is part of it, or of an arc of another radius that its chords do not tell from it.
          fc.pre(
            runs.every((run, i) => run.turn !== 0 || (!run.sweep && (i === 0 || runs[i - 1]!.sweep !== undefined))) &&
              sheetOf(given).fault === null,
          );
          const { sheets } = singleSheetsOf(faceOf(given));
          expect(sheets).toHaveLength(1);
          const [made] = elementsOfSheets(sheets, layers, named(1)) as [Wall];
          expect(made.start).toEqual({ x: expect.closeTo(7, 3), y: expect.closeTo(-3, 3), z: expect.closeTo(1, 6) });
          expect(made.sweep).toBeCloseTo(first, 1);
          expect(made.length).toBeCloseTo(length, 3);
          expect(made.runs ?? []).toHaveLength(runs.length);
          (made.runs ?? []).forEach((run, i) => {
            expect(run.turn).toBeCloseTo(runs[i]!.turn, 1);
            expect(run.length).toBeCloseTo(runs[i]!.length, 3);
            expect(run.sweep ?? 0).toBeCloseTo(runs[i]!.sweep ?? 0, 1);
          });
          const volume = (element: Element): number =>
            prove(cutModel(documentOf(element)).cuts.get(element.id)!.mesh).volume;
          expect(volume(made) / volume(given)).toBeCloseTo(1, 3);
        },
      ),
      { seed: 5, numRuns: 60 },
    );
  });

  it('and goes right round is a ring, which closes', () => {
    const circle = Array.from({ length: 49 }, (_, i): [number, number] => [
      4 * Math.cos((i * Math.PI) / 24),
      4 * Math.sin((i * Math.PI) / 24),
    ]);
    const [drum] = elementsOfSheets(singleSheetsOf(over(circle)).sheets, layers, named(1)) as [Wall];
    expect(drum).toMatchObject({ kind: 'wall', sweep: 360, length: expect.closeTo(8 * Math.PI, 4), height: 3 });
    const proof = prove(cutModel(documentOf(drum)).cuts.get('w0')!.mesh);
    expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
    expect(proof.volume).toBeCloseTo(Math.PI * (16 - 3.8 ** 2) * 3, 1);
    // Two half circles with straight sides between them begin in the middle of one of these.
    const arc = (x: number, from: number): [number, number][] =>
      Array.from({ length: 13 }, (_, i) => [
        x + 2 * Math.cos(((from + 15 * i) * Math.PI) / 180),
        2 * Math.sin(((from + 15 * i) * Math.PI) / 180),
      ]);
    const round = [...arc(3, -90), ...arc(-3, 90)];
    const [long] = elementsOfSheets(singleSheetsOf(over([...round, round[0]!])).sheets, layers, named(1)) as [Wall];
    expect(long.runs).toHaveLength(4);
    expect(long.start.x).toBeCloseTo(0, 5);
    expect(prove(cutModel(documentOf(long)).cuts.get('w0')!.mesh).volume).toBeCloseTo(
      (12 * 0.2 + Math.PI * (4 - 1.8 ** 2)) * 3,
      1,
    );
  });

  it('and has corners only is as many walls, which are mitred and leave no gap', () => {
    const { sheets } = singleSheetsOf(
      over([
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
        [0, 0],
      ]),
    );
    const walls = elementsOfSheets(sheets, layers, named(4));
    expect(walls.map((element) => element.kind)).toEqual(['wall', 'wall', 'wall', 'wall']);
    const { cuts } = cutModel(documentOf(...walls));
    const volume = [...cuts.values()].reduce((sum, { mesh }) => sum + prove(mesh).volume, 0);
    expect(volume).toBeCloseTo((6 * 4 - 5.6 * 3.6) * 3, 6);
  });

  it('is left in flat sheets where three meet and where they are not equally high', () => {
    const kinds = (mesh: ForeignMesh): boolean[] => singleSheetsOf(mesh).sheets.map((sheet) => 'runs' in sheet);
    const stepped: ForeignMesh = {
      positions: [0, 0, 0, 4, 0, 0, 4, 0, 3, 0, 0, 3, 4, 5, 0, 4, 5, 4, 4, 0, 4],
      polygons: [
        [0, 1, 2, 3],
        [1, 4, 5, 6, 2],
      ],
    };
    expect(kinds(stepped)).toEqual([false, false]);
    const fork: ForeignMesh = {
      positions: [0, 0, 0, 0, 0, 3, 4, 0, 0, 4, 0, 3, 8, 1, 0, 8, 1, 3, 4, 5, 0, 4, 5, 3],
      polygons: [
        [0, 2, 3, 1],
        [2, 4, 5, 3],
        [2, 6, 7, 3],
      ],
    };
    expect(kinds(fork)).toEqual([false, false, false]);
  });
});

describe('a file from outside', () => {
  const obj = [
    '# made by hand',
    'o Front wall',
    'v 0 0 0',
    'v 4000 0 0',
    'v 4000 2500 0',
    'v 0 2500 0',
    'g one two',
    's off',
    'f 1/1/1 2/2/1 3/3/1 4/4/1',
    '',
  ].join('\r\n');

  it('in OBJ is read in the unit and with the axis that are said', async () => {
    const { sheets } = singleSheetsOf(await readMesh('front.OBJ', bytes(obj), { unit: 0.001, up: 'y' }));
    expect(sheets).toMatchObject([{ area: 10, tilt: 90, turn: 0, start: { x: 0, y: 0, z: 0 } }]);
    expect(singleSheetsOf(await readMesh('front.obj', bytes(obj), { unit: 0.001, up: 'z' })).sheets).toMatchObject([
      { area: 10, tilt: 0 },
    ]);
  });

  it('in GLB gives back every flat face of what was written', async () => {
    const document = documentOf({
      id: 'p',
      name: 'Slab',
      kind: 'slab',
      start: { x: 1, y: 2, z: 3 },
      turn: 30,
      outline: square,
      layers,
    });
    const mesh = await readMesh('slab.glb', await writeGlb(document, cutModel(document)), { unit: 1, up: 'z' });
    // It has a thickness, so it is none of ours to give one.
    expect(singleSheetsOf(mesh)).toMatchObject({ sheets: [], closed: 1 });
    // Without its underside it is open, and all of its faces are sheets.
    const open = {
      ...mesh,
      polygons: mesh.polygons.filter((polygon) => polygon.some((v) => mesh.positions[3 * v + 2]! > 2.9)),
    };
    expect(
      singleSheetsOf(open)
        .sheets.map(({ area }) => Math.round(area * 100) / 100)
        .sort((a, b) => a - b),
    ).toEqual([0.8, 0.8, 1, 1, 20]);
  });

  it.each([
    ['front.dwg', 'x', 'neither an OBJ nor a GLB'],
    ['front.obj', 'v 0 0 0\n', 'holds no faces'],
    ['front.obj', 'v 0 0 0\nv 1 0 0\nf 1 2 9\n', 'a corner that is not in the file'],
    ['front.obj', 'v 0 0 0\nv 1 0 0\nf 1 2\n', 'less than 3 vertices'],
    ['front.obj', 'v 0 0 zero\nv 1 0 0\nv 1 1 0\nf 1 2 3\n', 'cannot be read'],
    ['front.glb', 'not a glb at all, whatever it says', 'cannot be read as GLB'],
  ])('%s that holds %j is refused with the reason', async (name, text, reason) => {
    await expect(readMesh(name, bytes(text), { unit: 1, up: 'y' })).rejects.toThrow(Unreadable);
    await expect(readMesh(name, bytes(text), { unit: 1, up: 'y' })).rejects.toThrow(reason);
  });
});

describe('sheets that are not quite flat, or bend smoothly', () => {
  const readCase = (name: string): Promise<ForeignMesh> =>
    readMesh(name, new Uint8Array(readFileSync(new URL(`./cases/${name}`, import.meta.url))), { unit: 1, up: 'y' });

  it('are one flat sheet within a tolerance, and beyond it are told of, not shredded', async () => {
    const saddle = await readCase('saddle-slight.obj');
    const { sheets, bent } = singleSheetsOf(saddle, 0.001);
    expect(sheets).toEqual([]);
    expect(bent).toHaveLength(1);
    expect(bent[0]!.off).toBeGreaterThan(0.001);
    const within = singleSheetsOf(saddle, bent[0]!.off * 1.0001);
    expect([within.sheets.length, within.bent]).toEqual([1, []]);
    expect(within.sheets[0]!.area).toBeCloseTo(bent[0]!.area, 3);
  });

  it.each([0.001, 0.003, 0.01, 0.05])(
    'are one wall of arcs that no corner strays from by more than %d m',
    async (tolerance) => {
      const mesh = await readCase('s-curve.obj');
      const { sheets, bent } = singleSheetsOf(mesh, tolerance);
      expect([sheets.length, bent]).toEqual([1, []]);
      const [made] = elementsOfSheets(sheets, layers, [{ id: 'w', name: 'Garden wall' }]) as Wall[];
      expect(made!.runs!.length).toBeLessThan(20);
      const { chart } = sheetOf(made!, { chord: 1e-5 });
      if (chart.kind !== 'bent') throw new Error('it is straight');
      const { x, y } = chart;
      for (let i = 0; i < mesh.positions.length; i += 3) {
        const [px, py] = [mesh.positions[i]!, mesh.positions[i + 1]!];
        let nearest = Infinity;
        for (let f = 0; f + 1 < x.length; f++) {
          const [dx, dy] = [x[f + 1]! - x[f]!, y[f + 1]! - y[f]!];
          const share = Math.max(0, Math.min(1, ((px - x[f]!) * dx + (py - y[f]!) * dy) / (dx * dx + dy * dy)));
          nearest = Math.min(nearest, Math.hypot(px - x[f]! - share * dx, py - y[f]! - share * dy));
        }
        expect(nearest).toBeLessThan(tolerance + 1e-4);
      }
      expect(prove(cutModel(documentOf(made!)).cuts.get('w')!.mesh)).toMatchObject({
        openEdges: 0,
        nonManifoldEdges: 0,
      });
    },
  );
});

describe('broken files', () => {
  /** A GLB of a JSON part and a binary one. */
  function glb(json: object, binary = new Uint8Array(36)): Uint8Array<ArrayBuffer> {
    const text = bytes(JSON.stringify(json));
    const padded = new Uint8Array(Math.ceil(text.length / 4) * 4).fill(0x20);
    padded.set(text);
    const out = new Uint8Array(12 + 8 + padded.length + 8 + binary.length);
    const view = new DataView(out.buffer);
    [0x46546c67, 2, out.length, padded.length, 0x4e4f534a].forEach((word, i) => view.setUint32(4 * i, word, true));
    out.set(padded, 20);
    view.setUint32(20 + padded.length, binary.length, true);
    view.setUint32(24 + padded.length, 0x004e4942, true);
    out.set(binary, 28 + padded.length);
    return out;
  }
  const triangle = (over: object = {}, accessor: object = {}): object => ({
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    accessors: [
      { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 1], ...accessor },
    ],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    buffers: [{ byteLength: 36 }],
    ...over,
  });
  const chain = Array.from({ length: 100_000 }, (_, i) => ({ children: i + 1 < 100_000 ? [i + 1] : [] }));

  it.each<[string, () => Uint8Array<ArrayBuffer>, RegExp]>([
    ['more points than the file holds', () => glb(triangle({}, { count: 200_000_000 })), /says that it holds more/],
    [
      'sparse values without end',
      () =>
        glb(
          triangle(
            {},
            {
              sparse: {
                count: 2_000_000_000,
                indices: { bufferView: 0, componentType: 5125 },
                values: { bufferView: 0 },
              },
            },
          ),
        ),
      /says that it holds more/,
    ],
    [
      'a view beyond the file',
      () => glb(triangle({ bufferViews: [{ buffer: 0, byteOffset: 30, byteLength: 900 }] })),
      /says that it holds more/,
    ],
    ['nodes within nodes without end', () => glb(triangle({ nodes: chain })), /nodes within one another|more than/],
    [
      'nodes in a ring',
      () => glb(triangle({ nodes: [{ children: [1] }, { children: [0], mesh: 0 }] })),
      /nodes within one another/,
    ],
    [
      'indices of points that there are not',
      () =>
        glb(
          triangle({
            meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
            accessors: [
              { bufferView: 0, componentType: 5126, count: 2, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 1] },
              { bufferView: 1, componentType: 5125, count: 3, type: 'SCALAR' },
            ],
            bufferViews: [
              { buffer: 0, byteLength: 24 },
              { buffer: 0, byteOffset: 24, byteLength: 12 },
            ],
          }),
          new Uint8Array(Uint32Array.of(0, 0, 0, 0, 0, 0, 0, 1, 99).buffer),
        ),
      /corner that is not in the file/,
    ],
    ['no JSON', () => glb([]), /./],
    ['a header and nothing else', () => bytes('glTF'), /cannot be read as GLB/],
  ])('GLB with %s is refused with a plain message', async (_, make, words) => {
    await expect(readMesh('broken.glb', make(), { unit: 1, up: 'y' })).rejects.toThrow(Unreadable);
    await expect(readMesh('broken.glb', make(), { unit: 1, up: 'y' })).rejects.toThrow(words);
  });

  it.each<[string, () => string, RegExp]>([
    ['a line without end', () => `v 0 0 0\nf ${'1 '.repeat(5_000_000)}`, /a line of more than/],
    ['corners that are not there', () => 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n', /corner that is not in the file/],
    [
      'a corner that is no number',
      () => 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 x\n',
      /corner that is not in the file|cannot be read/,
    ],
  ])('OBJ with %s is refused with a plain message', async (_, make, words) => {
    await expect(readMesh('broken.obj', bytes(make()), { unit: 1, up: 'y' })).rejects.toThrow(words);
  });
});
