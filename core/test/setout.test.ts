/** Snapping and dimension strings. */
import { describe, expect, it } from '@jest/globals';
import { rowOf, snap, stringAlong, type Box, type Lines } from '../src/index.ts';

const box = (id: string, s: number, t: number, width = 1, height = 2, springing: number | null = null): Box => ({
  id,
  mark: id.toUpperCase(),
  s,
  t,
  width,
  height,
  springing,
});
const lines: Lines = {
  length: 10,
  height: 6,
  datums: [{ id: 'd', name: 'First sill', t: 3 }],
  axes: [{ id: 'x', name: 'C', s: 7 }],
};

describe('snapping', () => {
  it('brings heads level, naming all that agree', () => {
    const snapped = snap(
      box('x', 4.2, 0.57, 1, 1.5),
      [box('a', 1, 0.1), box('b', 8, 0.1)],
      { ...lines, axes: [] },
      0.05,
    );
    expect(snapped.t + 1.5).toBeCloseTo(2.1, 12);
    expect(snapped.up).toMatchObject({ at: 2.1, reason: 'head level with A, B' });
  });

  it('takes the nearest of several, and leaves alone what is out of reach', () => {
    expect(snap(box('x', 6.48, 2.98), [], lines, 0.05)).toMatchObject({
      s: 6.5,
      t: 3,
      along: { reason: 'centred on axis C' },
      up: { reason: 'sill on datum First sill' },
    });
    expect(snap(box('x', 2.2, 1.6), [], lines, 0.05)).toEqual({ s: 2.2, t: 1.6, along: null, up: null });
  });

  it('never snaps an opening to itself', () => {
    const self = box('x', 2.2, 1.6);
    expect(snap(self, [self], { ...lines, datums: [] }, 0.05).up).toBeNull();
  });
});

describe('a dimension string', () => {
  it('alternates piers and openings and adds up to the wall', () => {
    const string = stringAlong([box('b', 6, 0), box('a', 1, 0, 2)], 10);
    expect(string.map((m) => [m.kind, m.from, m.to])).toEqual([
      ['pier', 0, 1],
      ['opening', 1, 3],
      ['pier', 3, 6],
      ['opening', 6, 7],
      ['pier', 7, 10],
    ]);
    expect(string[2]).toMatchObject({ before: 'a', after: 'b' });
  });

  it('measures what overlaps and what hangs over the ends once, from end to end', () => {
    const string = stringAlong([box('a', -1, 0, 3), box('b', 1, 0, 3), box('c', 1.5, 0, 0.5), box('d', 9, 0, 5)], 10);
    expect(string[0]!.from).toBe(0);
    expect(string.at(-1)!.to).toBe(10);
    for (let i = 1; i < string.length; i++) expect(string[i]!.from).toBe(string[i - 1]!.to);
    expect(string.map((m) => m.opening)).toEqual(['a', 'b', null, 'd']);
  });

  it('leaves out what is off the wall', () => {
    expect(stringAlong([box('a', 12, 0), box('b', -3, 0)], 10)).toEqual([
      { from: 0, to: 10, kind: 'pier', opening: null, before: null, after: null },
    ]);
  });

  it('is of the row of the chosen opening, or of the fullest one', () => {
    const boxes = [box('a', 0, 0), box('b', 2, 0.5), box('c', 4, 3)];
    expect(rowOf(boxes, boxes[2]!).map((b) => b.id)).toEqual(['c']);
    expect(rowOf(boxes, null).map((b) => b.id)).toEqual(['a', 'b']);
  });
});
