/** Spreading, snapping to equal piers and evening out: by hand, and as properties over random rows. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  broughtTo,
  followingLength,
  lineOf,
  mostThatFit,
  snap,
  snapPoint,
  spread,
  uneven,
  alignments,
  type Box,
  type Lines,
  type Spacing,
  type Spread,
} from '../src/index.ts';

const box = (id: string, s: number, t: number, width = 1, height = 2, springing: number | null = null): Box => ({
  id,
  mark: id.toUpperCase(),
  s,
  t,
  width,
  height,
  springing,
});
const lines: Lines = { length: 12, height: 6, datums: [], axes: [], say: (metres) => `${Math.round(metres * 1000)}` };
const widths = fc.array(
  fc.integer({ min: 300, max: 2500 }).map((mm) => mm / 1000),
  { minLength: 1, maxLength: 12 },
);
const margin = fc.option(
  fc.integer({ min: 0, max: 2000 }).map((mm) => mm / 1000),
  { nil: null },
);
const ends = fc.record({ start: margin, end: margin });

describe('spreading', () => {
  it('with equal piers leaves the same between all, and at ends that are not set', () => {
    fc.assert(
      fc.property(widths, ends, fc.integer({ min: 0, max: 20_000 }), (row, margins, extra) => {
        const total = row.reduce((sum, width) => sum + width, 0) + (margins.start ?? 0) + (margins.end ?? 0);
        const length = total + extra / 1000;
        const { lefts, piers } = spread(
          row,
          { from: 0, to: length },
          { kind: 'equal piers' },
          { margins, units: 'mm' },
        ) as Spread;
        expect(lefts).toHaveLength(row.length);
        const first = lefts[0]!;
        const last = length - lefts.at(-1)! - row.at(-1)!;
        const gaps = [...piers, ...(margins.start === null ? [first] : []), ...(margins.end === null ? [last] : [])];
        for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 7);
        if (row.length > 1) {
          if (margins.start !== null) expect(first).toBeCloseTo(margins.start, 7);
          if (margins.end !== null) expect(last).toBeCloseTo(margins.end, 7);
        }
        for (let i = 1; i < row.length; i++)
          expect(lefts[i]! - lefts[i - 1]! - row[i - 1]!).toBeCloseTo(piers[i - 1]!, 7);
      }),
    );
  });

  it('with equal centres puts them one step apart, and in the middle of bays where no margin is set', () => {
    const { lefts } = spread(
      [1, 2, 1],
      { from: 0, to: 12 },
      { kind: 'equal centres' },
      { margins: { start: null, end: null }, units: 'mm' },
    ) as Spread;
    expect(lefts).toEqual([1.5, 5, 9.5]);
    const set = spread(
      [1, 2, 1],
      { from: 0, to: 12 },
      { kind: 'equal centres' },
      { margins: { start: 0.5, end: 0.5 }, units: 'mm' },
    ) as Spread;
    expect(set.lefts).toEqual([0.5, 5, 10.5]);
  });

  it('with a given pier stands in the middle, or begins at a margin', () => {
    expect(
      (
        spread(
          [1, 1],
          { from: 0, to: 10 },
          { kind: 'given pier', pier: 2 },
          { margins: { start: null, end: null }, units: 'mm' },
        ) as Spread
      ).lefts,
    ).toEqual([3, 6]);
    expect(
      (
        spread(
          [1, 1],
          { from: 0, to: 10 },
          { kind: 'given pier', pier: 2 },
          { margins: { start: 1, end: null }, units: 'mm' },
        ) as Spread
      ).lefts,
    ).toEqual([1, 4]);
    expect(
      (
        spread(
          [1, 1],
          { from: 0, to: 10 },
          { kind: 'given pier', pier: 2 },
          { margins: { start: null, end: 1 }, units: 'mm' },
        ) as Spread
      ).lefts,
    ).toEqual([5, 8]);
  });

  it('that does not fit says how many would', () => {
    expect(
      spread(
        [1.4, 1.4, 1.4, 1.4, 1.4, 1.4],
        { from: 0, to: 8 },
        { kind: 'equal piers' },
        { margins: { start: 0, end: 0 }, units: 'mm' },
      ),
    ).toMatchObject({
      reason: expect.stringContaining('6 openings need'),
      mend: expect.stringMatching(/^5 would fit/),
    });
    expect(
      spread([3], { from: 0, to: 2 }, { kind: 'equal piers' }, { margins: { start: null, end: null }, units: 'mm' }),
    ).toMatchObject({
      mend: expect.stringContaining('Not even one'),
    });
    expect(
      spread(
        [1, 1, 1],
        { from: 0, to: 6 },
        { kind: 'given pier', pier: 2 },
        { margins: { start: null, end: null }, units: 'mm' },
      ),
    ).toMatchObject({
      mend: expect.stringMatching(/^2 would fit/),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 20 }),
        (width, length, pier) => {
          const n = mostThatFit([width], length, pier);
          expect(n * width + Math.max(0, n - 1) * pier).toBeLessThanOrEqual(length);
          expect((n + 1) * width + n * pier).toBeGreaterThan(length);
        },
      ),
    );
  });

  it('is kept by its intent when the wall grows or shrinks', () => {
    const kinds: Spacing[] = [{ kind: 'equal piers' }, { kind: 'equal centres' }, { kind: 'given pier', pier: 0.4 }];
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        ends,
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 20, max: 60 }),
        fc.integer({ min: 20, max: 60 }),
        (spacing, margins, count, before, after) => {
          const row = Array.from({ length: count }, () => 1);
          const at = (length: number): Spread =>
            spread(row, { from: 0, to: length }, spacing, { margins, units: 'mm' }) as Spread;
          const [now, longer, then] = [at(before), at(before + 1), at(after)];
          row.forEach((_, i) => {
            const along = followingLength(before, [now.lefts[i]!, longer.lefts[i]!]);
            const origin = {
              start: 0,
              middle: after / 2,
              end: after,
              fraction: after * (along.from === 'fraction' ? along.fraction : 0),
              axis: NaN,
              neighbour: NaN,
              between: NaN,
            }[along.from];
            expect(along.from === 'end' ? origin - along.distance : origin + along.distance).toBeCloseTo(
              then.lefts[i]!,
              6,
            );
          });
        },
      ),
    );
  });
});

describe('snapping', () => {
  it('finds the place where the piers beside it come out alike, and says how wide they are', () => {
    const row = [box('a', 1, 0), box('b', 9, 0)];
    expect(snap(box('x', 5.03, 0.8), row, { ...lines, length: 11.4 }, 0.05)).toMatchObject({
      s: 5,
      along: { reason: 'equal piers, 3000' },
    });
  });

  it('goes on with the pier before, or after', () => {
    const row = [box('a', 1, 0), box('b', 3.2, 0)];
    expect(snap(box('x', 5.37, 0.9), row, lines, 0.05)).toMatchObject({ along: { reason: 'pier as before B, 1200' } });
    expect(snap(box('x', 5.37, 0.9), row, lines, 0.05).s).toBeCloseTo(5.4, 12);
  });

  it('falls to a course of the brick where nothing else is near', () => {
    expect(snap(box('x', 5, 0.93, 1, 2.01), [], { ...lines, course: 0.075 }, 0.04).up).toEqual({
      at: expect.closeTo(2.925, 9),
      reason: 'head on course 39',
      hold: { up: { from: 'course', distance: expect.closeTo(2.925, 9) }, level: 'head' },
    });
    expect(snap(box('x', 5, 0.02), [], { ...lines, course: 0.075 }, 0.04).up).toMatchObject({ reason: 'on the base' });
  });

  it('of a point goes to corners first, then to lines', () => {
    expect(snapPoint({ s: 2.03, t: 1.96 }, [box('a', 1, 0)], lines, 0.1)).toEqual({
      s: 2,
      t: 2,
      reason: 'A, head, right',
    });
    expect(snapPoint({ s: 4, t: 2.04 }, [box('a', 1, 0)], lines, 0.1)).toMatchObject({
      s: 4,
      t: 2,
      reason: 'on that level',
    });
    expect(snapPoint({ s: 11.95, t: 0.02 }, [], lines, 0.1)).toMatchObject({ s: 12, t: 0 });
  });
});

describe('lining up', () => {
  it('brings each line to its place and moves along or up only', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...alignments),
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: -20, max: 60 }),
        (by, s, t, to) => {
          const before = box('a', s / 10, t / 10, 1.3, 2.1, 1.4);
          const place = broughtTo(before, by, to / 10);
          expect(lineOf({ ...before, ...place }, by)).toBeCloseTo(to / 10, 8);
          expect(place.s === before.s || place.t === before.t).toBe(true);
        },
      ),
    );
  });

  it('finds what almost agrees, where most of them are', () => {
    const groups = uneven([box('a', 1, 0.9), box('b', 3, 0.903), box('c', 5, 0.9), box('d', 7, 1.5)], 0.01);
    expect(groups).toEqual([
      {
        by: 'sills',
        to: 0.9,
        openings: [
          expect.objectContaining({ id: 'a' }),
          expect.objectContaining({ id: 'c' }),
          expect.objectContaining({ id: 'b', at: 0.903 }),
        ],
      },
    ]);
  });

  it('tells heads only where evened sills do not bring them into line', () => {
    const groups = uneven([box('a', 1, 0.9, 1, 2), box('b', 3, 0.905, 1, 2.005)], 0.02);
    expect(groups.map(({ by }) => by)).toEqual(['sills', 'heads']);
  });

  it('leaves alone what agrees, and what is farther apart than the tolerance', () => {
    expect(uneven([box('a', 1, 1), box('b', 3, 1), box('c', 5, 1.2)], 0.02)).toEqual([]);
  });
});
