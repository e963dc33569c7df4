/** Triangulations: every point and forced edge in them, as good as Delaunay allows, and refusals where outlines are not clean. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { incircle } from 'robust-predicates';
import { inCircle, orient } from '../src/mesh/orient.ts';
import { triangulateFace } from '../src/mesh/face.ts';
import { regionArea, type Region } from '../src/mesh/region.ts';
import { repeated, type Block } from '../src/mesh/repeat.ts';
import { Rim } from '../src/mesh/rim.ts';
import { settled, transfer } from '../src/mesh/transfer.ts';
import { triangulate } from '../src/mesh/triangulate.ts';
import { NotTriangulable, Triangulation } from '../src/mesh/triangulation.ts';

function region(loops: [number, number][][]): Region {
  const points = loops.flat();
  const next: number[] = [];
  for (const points of loops) {
    const first = next.length;
    points.forEach((_, i) => next.push(first + ((i + 1) % points.length)));
  }
  const count = points.length;
  return {
    count,
    xs: Float64Array.from(points, (p) => p[0]),
    ys: Float64Array.from(points, (p) => p[1]),
    next: Uint32Array.from(next),
  };
}

const box = (x: number, y: number, w: number, h: number): [number, number][] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];

function areaOf(r: Region, triangles: Uint32Array): number {
  let area = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const twice = (r.xs[b]! - r.xs[a]!) * (r.ys[c]! - r.ys[a]!) - (r.ys[b]! - r.ys[a]!) * (r.xs[c]! - r.xs[a]!);
    expect(twice).toBeGreaterThan(0);
    area += twice / 2;
  }
  return area;
}

/** A wall with windows in a grid of cells, each of its own size and place within its cell. */
const anyWall = fc
  .array(
    fc.record({
      x: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
      y: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
      w: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
      h: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
    }),
    { minLength: 1, maxLength: 24 },
  )
  .map((windows) => {
    const columns = Math.ceil(Math.sqrt(windows.length));
    const rows = Math.ceil(windows.length / columns);
    const holes = windows.map(({ x, y, w, h }, i) => box((i % columns) + x, Math.floor(i / columns) + y, w, h));
    return {
      loops: [box(0, 0, columns, rows), ...holes.map((hole) => [...hole].reverse())],
      area: columns * rows - windows.reduce((sum, { w, h }) => sum + w * h, 0),
      holes: windows.length,
    };
  });

/** One that is missing (null), or out of its place. */
interface Odd {
  at: number;
  by: number | null;
}

/** A facade of windows and arches in rows and columns, some of them odd. */
interface Facade {
  columns: number;
  rows: number;
  across: number;
  upward: number;
  /** Every so many-eth is an arch; all are where it is 0. */
  every: number;
  ribEvery: number;
  odd: readonly Odd[];
}

const anyFacade: fc.Arbitrary<Facade> = fc.record({
  columns: fc.integer({ min: 12, max: 20 }),
  rows: fc.integer({ min: 10, max: 14 }),
  across: fc.double({ min: 1.4, max: 2.2, noNaN: true }),
  upward: fc.double({ min: 1.9, max: 3, noNaN: true }),
  every: fc.constantFrom(0, 2, 3),
  ribEvery: fc.double({ min: 0.7, max: 2, noNaN: true }),
  odd: fc.oneof(
    { weight: 2, arbitrary: fc.constant<readonly Odd[]>([]) },
    {
      weight: 3,
      arbitrary: fc.array<Odd>(
        fc.record({ at: fc.nat({ max: 119 }), by: fc.option(fc.double({ min: -0.1, max: 0.1, noNaN: true })) }),
        { maxLength: 6 },
      ),
    },
  ),
});

function laidOut(
  { columns, rows, across, upward, every, ribEvery, odd }: Facade,
  bent: boolean,
): { region: Region; blocks: Block[]; ribs: Float64Array | null } {
  const [length, height] = [columns * across, rows * upward];
  const ribs: number[] = [0];
  while (bent && ribs.at(-1)! + ribEvery < length) ribs.push(ribs.at(-1)! + ribEvery);
  ribs.push(length);
  // Points where an edge crosses a rib.
  const divided = (loop: [number, number][]): [number, number][] =>
    loop.flatMap(([x, y], i) => {
      const [u, v] = loop[(i + 1) % loop.length]!;
      const crossed = ribs
        .filter((rib) => rib > Math.min(x, u) && rib < Math.max(x, u))
        .map((rib): [number, number] => [rib, y + ((rib - x) / (u - x)) * (v - y)]);
      return [[x, y] as [number, number], ...(u > x ? crossed : crossed.reverse())];
    });
  const arch = Array.from({ length: 17 }, (_, i): [number, number] => [
    0.5 + 0.5 * Math.cos((Math.PI * i) / 16),
    1.2 + 0.5 * Math.sin((Math.PI * i) / 16),
  ]);
  const shapes: [number, number][][] = [box(0, 0, 1, 1.6), [[0, 0], [1, 0], ...arch]];
  const likes = new Map<string, object>();
  const loops: [number, number][][] = [divided(box(0, 0, length, height))];
  const blocks: Block[] = [{ first: 0, count: loops[0]!.length, like: {} }];
  for (let i = 0, first = loops[0]!.length; i < columns * rows; i++) {
    const strays = odd.find(({ at }) => at === i);
    if (strays?.by === null) continue;
    const [column, kind] = [i % columns, every === 0 || i % every === 1 ? 1 : 0];
    const [x, y] = [0.25 + column * across + (strays?.by ?? 0), 0.4 + Math.floor(i / columns) * upward];
    const key = bent ? `${kind} ${x}` : `${kind}`;
    const like = likes.get(key) ?? {};
    likes.set(key, like);
    const loop = divided(shapes[kind]!.map(([u, v]): [number, number] => [x + u, y + v])).reverse();
    loops.push(loop);
    blocks.push({ first, count: loop.length, like });
    first += loop.length;
  }
  return { region: { ...region(loops), pinched: false }, blocks, ribs: bent ? Float64Array.from(ribs) : null };
}

describe('a region with holes', () => {
  it('is covered exactly, by as few triangles as its corners ask for', () => {
    fc.assert(
      fc.property(anyWall, ({ loops, area, holes }) => {
        const r = region(loops);
        const triangles = triangulate(r);
        expect(areaOf(r, triangles)).toBeCloseTo(area, 9);
        expect(triangles.length / 3).toBe(r.count + 2 * holes - 2);
      }),
      { numRuns: 120 },
    );
  });

  it('has all its edges, and no diagonal that could be better', () => {
    fc.assert(
      fc.property(anyWall, ({ loops }) => {
        const r = region(loops);
        const mesh = new Triangulation(r.xs, r.ys);
        for (let v = 0; v < r.count; v++) mesh.force(v, r.next[v]!);
        for (let v = 0; v < r.count; v++) expect(mesh.forced[mesh.find(v, r.next[v]!)]).toBe(1);
        const { corner, twin, forced } = mesh;
        const after = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);
        for (let e = 0; e < corner.length; e++) {
          const t = twin[e]!;
          if (t < 0 || forced[e]) continue;
          const [a, b, c, d] = [corner[e]!, corner[after(e)]!, corner[after(after(e))]!, corner[after(after(t))]!];
          const p = (v: number): [number, number] => [r.xs[v]!, r.ys[v]!];
          const strays = inCircle(...p(a), ...p(b), ...p(c), ...p(d));
          // The library that begins is not exact: what it lets pass is as good as on the circle.
          const scale = Math.max(...[a, b, c, d].flatMap(p).map(Math.abs), 1) ** 4;
          expect(strays / scale).toBeLessThan(1e-9);
          expect(orient(...p(a), ...p(b), ...p(c))).toBeGreaterThan(0);
        }
      }),
      { numRuns: 80 },
    );
  });

  it('by the triangles of another that is divided alike has the very triangles that it has from nothing', () => {
    fc.assert(
      fc.property(anyWall, fc.double({ min: 0.15, max: 4, noNaN: true }), ({ loops }, stretch) => {
        const r = region(loops);
        const long: Region = { ...r, xs: r.xs.map((x) => x * stretch), pinched: false };
        expect(transfer(triangulate(r), { ...r, pinched: false }, long, [])).toEqual(triangulate(long));
      }),
      { numRuns: 120 },
    );
  });

  it.each<[string, boolean]>([
    ['flat', false],
    ['bent', true],
  ])(
    'on which windows are repeated has the very triangles that it has from nothing, though most are copied (%s)',
    (_, bent) => {
      const check = (facade: Facade): boolean => {
        const { region: r, blocks, ribs } = laidOut(facade, bent);
        const triangles = repeated(r, blocks, ribs);
        if (triangles) expect(triangles).toEqual(triangulateFace(r, ribs));
        return triangles !== null;
      };
      // On a bent face only what stands one above the other is alike.
      const rows = bent ? 24 : 12;
      expect(check({ columns: 14, rows, across: 1.7, upward: 2.2, every: 0, ribEvery: 1.1, odd: [] })).toBe(true);
      expect(
        check({
          columns: 14,
          rows,
          across: 1.7,
          upward: 2.2,
          every: 0,
          ribEvery: 1.1,
          odd: [
            { at: 50, by: 0.05 },
            { at: 80, by: null },
          ],
        }),
      ).toBe(true);
      fc.assert(
        fc.property(
          anyFacade,
          (facade) =>
            void check({ ...facade, columns: bent ? 10 : facade.columns, rows: bent ? 2 * facade.rows : facade.rows }),
        ),
        { numRuns: 15 },
      );
    },
  );

  it('on which windows stand in even rows is put together from copies wherever it lies, though roundings choose its diagonals', () => {
    const like = {};
    const loops: [number, number][][] = [box(0, 0, 40 * 2.37, 12 * 3.1)];
    // The last row is left half empty, so that what stands below its end is of another kind than all others.
    for (let i = 0; i < 460; i++) {
      const [x, y] = [0.6 + 2.37 * (i % 40), 0.7 + 3.1 * Math.floor(i / 40)];
      const arch = Array.from({ length: 25 }, (_, k): [number, number] => [
        x + 0.6 - 0.6 * Math.cos((Math.PI * k) / 24),
        y + 1.4 + 0.6 * Math.sin((Math.PI * k) / 24),
      ]);
      loops.push([[x, y], ...arch, [x + 1.2, y]]);
    }
    loops.forEach((loop) => loop.forEach((point) => (point[0] += 864)));
    const blocks = loops.map((loop, i) => ({
      first: i === 0 ? 0 : 4 + 27 * (i - 1),
      count: loop.length,
      like: i === 0 ? {} : like,
    }));
    const r: Region = { ...region(loops), pinched: false };
    expect(repeated(r, blocks, null)).toEqual(triangulateFace(r, null));
  });

  it('with windows that only seem to be alike, or may touch, is not put together from copies', () => {
    const regular = laidOut({ columns: 14, rows: 12, across: 2.4, upward: 3.1, every: 0, ribEvery: 1, odd: [] }, false);
    const pinched = repeated({ ...regular.region, pinched: true }, regular.blocks, null);
    expect(pinched).toBeNull();
    // Said to be alike, but every third has a point more to one side.
    const xs = regular.region.xs.slice();
    regular.blocks.forEach(({ first }, i) => i > 0 && i % 3 === 0 && (xs[first + 1]! += 0.3 + 0.001 * i));
    const uneven: Region = { ...regular.region, xs };
    expect(repeated(regular.region, regular.blocks, null)).not.toBeNull();
    expect(repeated(uneven, regular.blocks, null)).toBeNull();
  });

  it('is settled only from triangles that fill it, each place once', () => {
    fc.assert(
      fc.property(anyWall, fc.nat(), ({ loops }, any) => {
        const r: Region = { ...region(loops), pinched: false };
        const triangles = triangulate(r);
        const at = 3 * (any % (triangles.length / 3));
        expect(settled(r, triangles.slice(), [])).toEqual(triangles);
        const without = Uint32Array.from([...triangles.subarray(0, at), ...triangles.subarray(at + 3)]);
        const twice = Uint32Array.from([...triangles, ...triangles.subarray(at, at + 3)]);
        const turned = triangles.slice();
        [turned[at], turned[at + 1]] = [turned[at + 1]!, turned[at]!];
        for (const wrong of [without, twice, turned]) expect(settled(r, wrong, [])).toBeNull();
      }),
      { numRuns: 60 },
    );
  });

  it('has a rim that is followed loop by loop, also where two of them touch in a point', () => {
    const r = region([box(0, 0, 1, 1), box(1, 1, 1, 1)]);
    // The last point of the first box and the first of the second are one here.
    const rim = new Rim(r);
    const name = (v: number): number => (v === 4 ? 2 : v);
    for (let v = 0; v < r.count; v++) rim.add(name(v), name(r.next[v]!));
    const { points, next } = rim.loops()!;
    const loops: number[][] = [];
    for (let i = 0; i < points.length; i += loops.at(-1)!.length) {
      const loop = [points[i]!];
      for (let j = next[i]!; j !== i; j = next[j]!) loop.push(points[j]!);
      loops.push(loop.sort((p, q) => p - q));
    }
    expect(loops).toEqual([
      [0, 1, 2, 3],
      [2, 5, 6, 7],
    ]);
    const open = new Rim(r);
    open.add(0, 1);
    expect(open.loops()).toBeNull();
  });

  it('with a long edge through many Delaunay ones has it forced in', () => {
    // A comb: teeth whose tips are nearer to each other than to their roots.
    const teeth: [number, number][] = [];
    for (let i = 0; i < 40; i++) teeth.push([i * 0.1 + 0.05, 5], [i * 0.1 + 0.06, 0.01]);
    const loop: [number, number][] = [[0, 0], [4.2, 0], [4.2, 6], ...teeth.reverse(), [0, 6]];
    const r = region([loop]);
    expect(triangulate(r).length / 3).toBe(r.count - 2);
  });

  it('is covered though corners a tenth of a millimetre apart lie in one line but for rounding', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, share, (at, up, down) => {
        // Under two slopes, with three corners close together at either end of each.
        const high = (x: number): number => 3 + (x < 2.5 ? up * x : up * 2.5 - down * (x - 2.5));
        const hair = 1e-4;
        const xs = [5, 5 - hair, 5 - 2 * hair, 2.5 + hair, 2.5, 2.5 - hair, 2 * hair, hair, 0];
        const top = xs.map((x): [number, number] => [6 * at + x, high(x)]);
        const r = region([[[6 * at, 0], [6 * at + 5, 0], ...top]]);
        const triangles = triangulate(r);
        expect(triangles.length / 3).toBe(r.count - 2);
        expect(areaOf(r, triangles)).toBeCloseTo(regionArea(r), 9);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('a region that touches itself in a point', () => {
  it('has two vertices there, each with the triangles of its own side', () => {
    const r = region([box(0, 0, 1, 1), box(1, 1, 1, 1)]);
    const triangles = triangulate(r);
    expect(triangles).toHaveLength(12);
    for (let i = 0; i < 12; i += 3) {
      const sides = new Set([triangles[i]! < 4, triangles[i + 1]! < 4, triangles[i + 2]! < 4]);
      expect(sides.size).toBe(1);
    }
  });
});

describe('outlines that are not clean', () => {
  it.each<[string, [number, number][][]]>([
    ['cross', [box(0, 0, 4, 4), [...box(3, 1, 2, 2)].reverse()]],
    [
      'have a vertex on another’s edge',
      [
        box(0, 0, 4, 4),
        [
          [1, 1],
          [1, 3],
          [2, 0],
        ] as [number, number][],
      ],
    ],
    [
      'lie all in one line',
      [
        [
          [0, 0],
          [1, 0],
          [2, 0],
        ] as [number, number][],
      ],
    ],
  ])('are refused where they %s', (_, loops) => {
    expect(() => triangulate(region(loops))).toThrow(NotTriangulable);
  });
});

describe('The in-circle test', () => {
  it('agrees on four points in two level lines with the library, exactly', () => {
    const step = fc.oneof(
      fc.integer({ min: -40, max: 40 }),
      fc.integer({ min: -4e8, max: 4e8 }).map((n) => n / 1e7),
    );
    const row = fc.tuple(step, step, step, step, step, step, fc.nat(2));
    fc.assert(
      fc.property(row, ([x1, x2, x3, nudge, low, high, how]) => {
        fc.pre(x1 !== x2 && low !== high);
        // On the circle, as near to it as doubles come, and anywhere.
        const x4 = how === 0 ? x1 + x2 - x3 : how === 1 ? x1 + x2 - x3 + 1e-15 * nudge : nudge;
        fc.pre(x4 !== x3);
        const rows = [
          [x1, low],
          [x2, low],
          [x3, high],
          [x4, high],
        ] as const;
        for (const [i, j, k, l] of [
          [0, 1, 2, 3],
          [0, 2, 1, 3],
          [0, 2, 3, 1],
          [2, 0, 3, 1],
          [2, 3, 0, 1],
          [1, 3, 0, 2],
        ] as const) {
          let [a, b] = [rows[i], rows[j]];
          const [c, d] = [rows[k], rows[l]];
          if (orient(...a, ...b, ...c) < 0) [a, b] = [b, a];
          expect(Math.sign(inCircle(...a, ...b, ...c, ...d)) + 0).toBe(Math.sign(incircle(...a, ...b, ...c, ...d)) + 0);
        }
      }),
      { numRuns: 2000 },
    );
  });
});
