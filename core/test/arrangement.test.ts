/** Arrangements and clipping by themselves: areas against a polygon library, windings, coincidence, and where they give up. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ManifoldToplevel } from 'manifold-3d';
import { arrange, origin, tolerance, TooTangled, type Loop } from '../src/mesh/arrangement.ts';
import { clip, type ClippedLoop } from '../src/cut/clip.ts';
import { solidLibrary } from '../src/cut/solid.ts';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

const loop = (points: [number, number][]): Loop => ({
  xs: Float64Array.from(points, (p) => p[0]),
  ys: Float64Array.from(points, (p) => p[1]),
  count: points.length,
});
const box = (x: number, y: number, w: number, h: number): Loop =>
  loop([
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ]);
const area = (loops: readonly ClippedLoop[]): number =>
  loops.reduce(
    (sum, { xs, ys }) =>
      sum + xs.reduce((twice, x, i) => twice + x * ys[(i + 1) % ys.length]! - xs[(i + 1) % xs.length]! * ys[i]!, 0) / 2,
    0,
  );

/** Convex outlines, boxes on a grid and off it, and turned regular figures. */
const anyLoop: fc.Arbitrary<Loop> = fc.oneof(
  fc
    .tuple(...[0, 0, 1, 1].map((min) => fc.integer({ min: min * 1, max: 8 })))
    .map(([x, y, w, h]) => box(x! / 2, y! / 2, w! / 2, h! / 2)),
  fc
    .record({
      x: fc.double({ min: -1, max: 5, noNaN: true }),
      y: fc.double({ min: -1, max: 5, noNaN: true }),
      r: fc.double({ min: 0.1, max: 2, noNaN: true }),
      n: fc.integer({ min: 3, max: 16 }),
      turn: fc.double({ min: 0, max: 6, noNaN: true }),
    })
    .map(({ x, y, r, n, turn }) =>
      loop(
        Array.from({ length: n }, (_, i): [number, number] => [
          x + r * Math.cos(turn + (2 * Math.PI * i) / n),
          y + r * Math.sin(turn + (2 * Math.PI * i) / n),
        ]),
      ),
    ),
);

describe('an arrangement', () => {
  it('winds as often round each patch as points in it say', () => {
    fc.assert(
      fc.property(fc.array(anyLoop, { minLength: 1, maxLength: 5 }), (loops) => {
        const a = arrange(loops);
        for (let h = 0; h < a.patch.length; h++) {
          const v = origin(a, h);
          const w = origin(a, h ^ 1);
          const [dx, dy] = [a.xs[w]! - a.xs[v]!, a.ys[w]! - a.ys[v]!];
          const length = Math.hypot(dx, dy);
          // A point just left of a long edge's middle lies in its patch, unless another edge is as near.
          if (length < 0.05) continue;
          const off = 1e-4;
          const [x, y] = [
            (a.xs[v]! + a.xs[w]!) / 2 - (dy / length) * off,
            (a.ys[v]! + a.ys[w]!) / 2 + (dx / length) * off,
          ];
          if (loops.some((other) => distance(other, x, y) < off * 0.9)) continue;
          // Of loops that all but run together, another one's edge may lie between.
          if (loops.filter((other) => distance(other, x, y) < off * 1.1).length > a.covers[h >> 1]!.length) continue;
          loops.forEach((other, k) => expect(a.winding[a.patch[h]!]!.get(k) ?? 0).toBe(inside(other, x, y) ? 1 : 0));
        }
      }),
      { numRuns: 150 },
    );
  });

  it('makes one edge of two that run together, and one point of two that all but meet', () => {
    const a = arrange([box(0, 0, 1, 1), box(1 + tolerance / 3, 0, 1, 1)]);
    expect(a.from).toHaveLength(7);
    expect(a.covers.filter((covers) => covers.length === 2)).toHaveLength(1);
  });

  it('keeps the points of what comes first to the last digit', () => {
    const a = arrange([box(0.1, 0.1, 0.7, 0.7), box(0.1 + 4e-7, 0.1 - 4e-7, 0.3, 0.3)]);
    expect(a.xs[0]).toBe(0.1);
    expect(a.ys[0]).toBe(0.1);
  });

  it('gives up in time where everything crosses everything', () => {
    const stars = Array.from({ length: 700 }, (_, i) => {
      const turn = (i / 700) * Math.PI;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      return loop([
        [-5 * c, -5 * s],
        [5 * c, 5 * s],
        [5 * c - 0.001 * s, 5 * s + 0.001 * c],
      ]);
    });
    expect(() => arrange(stars)).toThrow(TooTangled);
  });
});

describe('clipping', () => {
  it('leaves the area that a polygon library leaves', () => {
    fc.assert(
      fc.property(fc.array(anyLoop, { minLength: 1, maxLength: 6 }), (openings) => {
        const sheet = box(0, 0, 4, 3);
        const { loops, openings: report } = clip(sheet, openings);
        const section = (l: Loop) =>
          new library.CrossSection([Array.from(l.xs, (x, i): [number, number] => [x, l.ys[i]!])]);
        const wanted = section(sheet).subtract(library.CrossSection.union(openings.map(section)));
        expect(Math.abs(area(loops) - wanted.area())).toBeLessThan(1e-5);
        openings.forEach((opening, k) =>
          expect(Math.abs(report[k + 1]!.area - section(sheet).intersect(section(opening)).area())).toBeLessThan(1e-5),
        );
      }),
      { numRuns: 200 },
    );
  });

  it('never leaves a vertex on a straight edge, save where the edge changes hands', () => {
    const { loops } = clip(box(0, 0, 10, 5), [box(1, 0, 1, 2), box(4, 0, 1, 2), box(7, 3, 1, 2)]);
    expect(loops).toHaveLength(1);
    expect(loops[0]!.xs).toHaveLength(4 + 3 * 4);
  });

  it('names what is united, what runs over which edge, and what is hidden', () => {
    const { openings } = clip(box(0, 0, 10, 5), [
      box(1, -1, 2, 3),
      box(2, 1, 2, 2),
      box(2.5, 1.2, 0.3, 0.3),
      box(6, 1, 1, 1),
      box(7, 1, 1, 1),
      box(8, 2, 1, 1),
    ]);
    expect(openings[1]).toMatchObject({ over: [0], with: [2, 3], shows: true });
    expect(openings[3]).toMatchObject({ shows: false, with: [1, 2] });
    expect(openings[4]!.with).toEqual([5]);
    // Touching in a corner only is not being united.
    expect(openings[5]!.with).toEqual([4]);
    expect(openings[6]!.with).toEqual([]);
  });

  it('tells which opening alone would leave nothing', () => {
    const { openings } = clip(box(0, 0, 2, 2), [box(-1, -1, 4, 4), box(0, 0, 1, 2)]);
    expect(openings[1]!.leaves).toBe(false);
    expect(openings[2]!.leaves).toBe(true);
  });
});

function inside(l: Loop, x: number, y: number): boolean {
  let found = false;
  for (let i = 0, j = l.count - 1; i < l.count; j = i++)
    if (
      l.ys[i]! > y !== l.ys[j]! > y &&
      x < ((l.xs[j]! - l.xs[i]!) * (y - l.ys[i]!)) / (l.ys[j]! - l.ys[i]!) + l.xs[i]!
    )
      found = !found;
  return found;
}

function distance(l: Loop, x: number, y: number): number {
  let nearest = Infinity;
  for (let i = 0; i < l.count; i++) {
    const j = (i + 1) % l.count;
    const [dx, dy] = [l.xs[j]! - l.xs[i]!, l.ys[j]! - l.ys[i]!];
    const along = Math.max(0, Math.min(1, ((x - l.xs[i]!) * dx + (y - l.ys[i]!) * dy) / (dx * dx + dy * dy)));
    nearest = Math.min(nearest, Math.hypot(x - l.xs[i]! - along * dx, y - l.ys[i]! - along * dy));
  }
  return nearest;
}
