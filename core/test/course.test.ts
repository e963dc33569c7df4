/** Courses of walls in plan: ends, arcs, splitting, joining and reversing, against each other and against the charts that are cut. */
import { describe, expect, it } from '@jest/globals';
import { extentOf, type Run, type Top, type Wall } from '@yard-arch/document';
import fc from 'fast-check';
import {
  acrossTo,
  alongCourse,
  arcBetween,
  bentTo,
  courseOf,
  cutModel,
  inPlan,
  joinedWalls,
  pointAt,
  prove,
  resolveOpening,
  reversedWall,
  splitWall,
  sweepLeaving,
  sweepThrough,
  topAt,
  withEnds,
  type Placed,
  type Point,
} from '../src/index.ts';
import { opening, project, wall, sheetOf } from './sample.ts';

const far = ([ax, ay]: Point, [bx, by]: Point): number => Math.hypot(ax - bx, ay - by);
const tenth = (min: number, max: number) => fc.integer({ min: min * 10, max: max * 10 }).map((n) => n / 10);
const run: fc.Arbitrary<Run> = fc.record({
  turn: fc.constantFrom(-60, -20, 0, 35, 90),
  length: tenth(1, 8),
  sweep: fc.option(fc.constantFrom(-70, -15, 40, 120), { nil: undefined }),
});
const anyWall = fc
  .record({
    turn: fc.integer({ min: -180, max: 180 }),
    length: tenth(1, 9),
    sweep: fc.option(fc.constantFrom(-80, 25, 130), { nil: undefined }),
    runs: fc.array(run, { maxLength: 3 }),
    x: tenth(-9, 9),
    y: tenth(-9, 9),
  })
  .map(({ x, y, ...rest }): Wall => wall({ ...rest, start: { x, y, z: 0 } }));

describe('a course', () => {
  it('ends where the chart that is cut ends', () => {
    fc.assert(
      fc.property(anyWall, (w) => {
        const { chart, fault } = sheetOf(w);
        fc.pre(fault === null);
        const { length } = extentOf(w);
        const [x, y] = pointAt(chart, length, 0, 0);
        expect(far(courseOf(w).end, [x, y])).toBeLessThan(1e-6);
        expect(far(alongCourse(w, 0).at, courseOf(w).start)).toBeLessThan(1e-9);
        expect(far(alongCourse(w, length).at, courseOf(w).end)).toBeLessThan(1e-6);
      }),
    );
  });

  it('goes to other ends as a whole, its arcs keeping their sweeps', () => {
    fc.assert(
      fc.property(anyWall, tenth(-20, 20), tenth(-20, 20), (w, x, y) => {
        const { start, end } = courseOf(w);
        fc.pre(far(start, end) > 0.3 && far(start, [x, y]) > 0.3);
        const moved = withEnds(w, start, [x, y]) as Wall;
        expect(far(courseOf(moved).end, [x, y])).toBeLessThan(1e-6);
        expect(moved.sweep).toBe(w.sweep);
        const back = withEnds(moved, start, end) as Wall;
        expect(back.length).toBeCloseTo(w.length, 6);
      }),
    );
  });

  it('of an arc passes where it was drawn through, and leaves as the one before arrived', () => {
    fc.assert(
      fc.property(tenth(-9, 9), tenth(-9, 9), fc.constantFrom(-200, -90, -30, 20, 110, 250), (x, y, sweep) => {
        fc.pre(Math.hypot(x, y) > 0.5);
        const w = wall({ ...arcBetween([0, 0], [x, y], sweep), sweep, start: { x: 0, y: 0, z: 0 } });
        const course = courseOf(w);
        expect(far(course.end, [x, y])).toBeLessThan(1e-6);
        const middle = alongCourse(w, w.length / 2).at;
        expect(sweepThrough([0, 0], [x, y], middle)).toBeCloseTo(sweep, 5);
        if (Math.abs(sweep) < 180) expect(sweepLeaving([0, 0], w.turn, [x, y])).toBeCloseTo(sweep, 5);
        expect(courseOf(bentTo(w, 45) as Wall).end[0]).toBeCloseTo(x, 6);
      }),
    );
  });

  it('split at a place is two that follow it, and joined is what it was', () => {
    fc.assert(
      fc.property(anyWall, fc.integer({ min: 5, max: 95 }), (w, percent) => {
        const { length } = extentOf(w);
        const parts = splitWall(w, (length * percent) / 100, 'w2', 'Second');
        if ('reason' in parts) throw new Error(parts.reason);
        const [a, b] = parts;
        expect(extentOf(a).length + extentOf(b).length).toBeCloseTo(length, 6);
        for (let i = 0; i <= 10; i++) {
          const s = (length * i) / 10;
          const cut = extentOf(a).length;
          const at = s < cut ? alongCourse(a, s).at : alongCourse(b, s - cut).at;
          expect(far(at, alongCourse(w, s).at)).toBeLessThan(1e-6);
        }
        const one = joinedWalls(a, b);
        if ('reason' in one) throw new Error(one.reason);
        for (let i = 0; i <= 10; i++)
          expect(far(alongCourse(one, (length * i) / 10).at, alongCourse(w, (length * i) / 10).at)).toBeLessThan(1e-6);
      }),
    );
  });

  it.each<Top>([
    { kind: 'level' },
    { kind: 'raked', end: 2 },
    { kind: 'gabled', apex: 6, at: 0.4 },
    { kind: 'gabled', apex: 5, at: 0.7, end: 3 },
    {
      kind: 'stepped',
      steps: [
        { at: 0.2, height: 5 },
        { at: 0.7, height: 3 },
      ],
    },
  ])('with a $kind top keeps its height on both parts, when they are joined again, and when it is reversed', (top) => {
    const w = wall({ length: 10, top });
    for (const at of [2.5, 4, 5, 7, 9]) {
      const parts = splitWall(w, at, 'w2', 'Second');
      if ('reason' in parts) throw new Error(parts.reason);
      for (const s of [0.5, 1.9, 3.3, 5.5, 6.9, 8]) {
        const [part, on] = s < at ? [parts[0], s / at] : [parts[1], (s - at) / (10 - at)];
        expect(topAt(part, on)).toBeCloseTo(topAt(w, s / 10), 9);
        expect(topAt(reversedWall(w) as Wall, 1 - s / 10)).toBeCloseTo(topAt(w, s / 10), 9);
      }
      const one = joinedWalls(...parts) as Wall;
      expect(one.top.kind).toBe(top.kind);
      for (const s of [0.5, 1.9, 3.3, 5.5, 6.9, 8]) expect(topAt(one, s / 10)).toBeCloseTo(topAt(w, s / 10), 9);
    }
  });

  it('joins tops that go on into each other, and says which do not', () => {
    const next = (over: Partial<Wall>): Wall =>
      wall({ id: 'b', name: 'Other', start: { x: 10, y: 0, z: 0 }, length: 5, ...over });
    const first = (over: Partial<Wall>): Wall => wall({ length: 10, height: 4, ...over });
    expect(joinedWalls(first({}), next({ height: 4 }))).toMatchObject({ height: 4, top: { kind: 'level' } });
    expect(joinedWalls(first({}), next({ height: 3 }))).toMatchObject({
      height: 4,
      top: { kind: 'stepped', steps: [{ at: 2 / 3, height: 3 }] },
    });
    expect(
      joinedWalls(first({ top: { kind: 'raked', end: 6 } }), next({ height: 6, top: { kind: 'raked', end: 7 } })),
    ).toMatchObject({ top: { kind: 'raked', end: 7 } });
    expect(
      joinedWalls(first({ top: { kind: 'raked', end: 6 } }), next({ height: 6, top: { kind: 'raked', end: 4 } })),
    ).toMatchObject({ height: 4, top: { kind: 'gabled', apex: 6, at: 2 / 3 } });
    expect(joinedWalls(first({}), next({ height: 4, top: { kind: 'raked', end: 2 } }))).toMatchObject({
      top: { kind: 'gabled', apex: 4, end: 2 },
    });
    expect(
      joinedWalls(first({ top: { kind: 'raked', end: 6 } }), next({ height: 5, top: { kind: 'raked', end: 4 } })),
    ).toMatchObject({
      reason: expect.stringContaining('tops'),
      mend: expect.stringContaining('go on into each other'),
    });
    expect(joinedWalls(first({ top: { kind: 'gabled', apex: 6, at: 0.5 } }), next({ height: 4 }))).toHaveProperty(
      'mend',
    );
  });

  it('reversed about corners stands where it stood, and is what it was when it is reversed again', () => {
    const bent = fc.record({ turn: fc.constantFrom(-90, -45, -20, 30, 60, 90), length: tenth(20, 60) });
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        tenth(20, 60),
        fc.array(bent, { minLength: 1, maxLength: 3 }),
        (turn, length, runs) => {
          const w = wall({
            turn,
            length,
            runs,
            layers: [
              { thickness: 0.1, material: 'brick' },
              { thickness: 0.3, material: 'stone' },
            ],
          });
          const [a, over] = [sheetOf(w), reversedWall(w) as Wall];
          fc.pre(a.fault === null);
          const b = sheetOf(over);
          // Away from the corners, whose faces are not as long as each other, what lies across the thickness from a point lies there still.
          const ends = [
            0,
            length,
            ...runs.map((_, i) => length + runs.slice(0, i + 1).reduce((sum, run) => sum + run.length, 0)),
          ];
          for (const share of [0.21, 0.5, 0.79])
            ends.slice(1).forEach((end, i) => {
              const s = ends[i]! + share * (end - ends[i]!);
              const [here, there] = [alongCourse(w, s), alongCourse(over, b.length - acrossTo(w, s))];
              const way = (here.angle * Math.PI) / 180;
              expect(far([here.at[0] - 0.4 * Math.sin(way), here.at[1] + 0.4 * Math.cos(way)], there.at)).toBeLessThan(
                1e-6,
              );
            });
          const again = reversedWall(over) as Wall;
          expect(again.length).toBeCloseTo(w.length, 6);
          again.runs!.forEach((run, i) => {
            expect(run.turn).toBeCloseTo(runs[i]!.turn, 6);
            expect(run.length).toBeCloseTo(runs[i]!.length, 6);
          });
          expect(again.start.x).toBeCloseTo(w.start.x, 6);
          expect(again.start.y).toBeCloseTo(w.start.y, 6);
          // It is the same solid.
          const volume = (one: Wall): number => prove(cutModel(project([one], [])).cuts.get(one.id)!.mesh).volume;
          expect(volume(over)).toBeCloseTo(volume(w), 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('reversed stands where it stood', () => {
    fc.assert(
      fc.property(fc.integer({ min: -180, max: 180 }), tenth(1, 9), (turn, length) => {
        const w = wall({
          turn,
          length,
          start: { x: 2, y: -1, z: 0 },
          layers: [
            { thickness: 0.1, material: 'brick' },
            { thickness: 0.3, material: 'stone' },
          ],
        });
        const over = reversedWall(w) as Wall;
        const corners = (one: Wall): Point[] => inPlan(sheetOf(one), [], 1).body;
        for (const corner of corners(over))
          expect(Math.min(...corners(w).map((other) => far(corner, other)))).toBeLessThan(1e-6);
        for (const corner of corners(w))
          expect(Math.min(...corners(over).map((other) => far(corner, other)))).toBeLessThan(1e-6);
        expect(courseOf(reversedWall(over) as Wall).start[0]).toBeCloseTo(2, 9);
      }),
    );
  });

  it('reversed round a curve stands where it stood, and is what it was when it is reversed again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        tenth(20, 60),
        fc.integer({ min: -120, max: 120 }).filter((sweep) => sweep !== 0),
        fc.option(tenth(10, 40), { nil: null }),
        (turn, length, sweep, further) => {
          const w = wall({
            turn,
            length,
            sweep,
            ...(further === null ? {} : { runs: [{ turn: 0, length: further }] }),
          });
          const over = reversedWall(w) as Wall;
          const [a, b] = [sheetOf(w), sheetOf(over)];
          // What lies across the thickness from a point lies there still.
          for (const share of [0, 0.2, 0.5, 0.9, 1]) {
            const s = share * a.length;
            const there = pointAt(b.chart, b.length - acrossTo(w, s), 1, b.thickness);
            expect(Math.hypot(...pointAt(a.chart, s, 1, 0).map((x, k) => x - there[k]!))).toBeLessThan(0.008); // Each of the faces is as far from its arc as its chords are.
          }
          const again = reversedWall(over) as Wall;
          expect(again.length).toBeCloseTo(w.length, 6);
          expect(again.start.x).toBeCloseTo(w.start.x, 6);
          expect(again.start.y).toBeCloseTo(w.start.y, 6);
        },
      ),
      { seed: 7, numRuns: 300 },
    );
  });

  it('refuses what it cannot do, and says what would', () => {
    expect(splitWall(wall(), 0.001, 'b', 'B')).toMatchObject({ mend: expect.stringContaining('10 mm') });
    expect(reversedWall(wall({ runs: [{ turn: 40, length: 2, sweep: 30 }] }))).toMatchObject({
      mend: expect.stringContaining('Split it at that corner'),
    });
    expect(reversedWall(wall({ length: 1, sweep: 200 }))).toHaveProperty('reason');
    expect(joinedWalls(wall(), wall({ id: 'b', name: 'Other', start: { x: 9, y: 9, z: 0 } }))).toMatchObject({
      reason: 'Other does not begin where Courtyard wall ends',
    });
    expect(withEnds(wall(), [0, 0], [0, 0.001])).toMatchObject({ reason: expect.stringContaining('shorter than') });
  });
});

describe('in plan', () => {
  it('an opening at the level of the cut is a gap as wide as it is and as deep as it goes', () => {
    const document = project([wall()], [opening('a', 'arch', 1, 0), opening('b', 'window', 3.5, 2.5)]);
    const placed = Object.values(document.openings).map((o) => resolveOpening(document, o) as Placed);
    const { gaps, body, face } = inPlan(sheetOf(document.elements.w1!), placed, 1.4);
    expect(gaps).toEqual([
      {
        opening: 'a',
        blockedUp: false,
        body: [
          [1, 0],
          [2.5, 0],
          [2.5, 0.4],
          [1, 0.4],
        ],
      },
    ]);
    expect(body).toHaveLength(4);
    expect(face).toEqual([
      [0, 0],
      [6, 0],
    ]);
  });
});
