/** Lines of sight on faces: a point of a face that is looked at from outside is where it is on the face. */
import { describe, expect, it } from '@jest/globals';
import type { Wall } from '@yard-arch/document';
import fc from 'fast-check';
import { directionsAt, pointAt, sightOn, type Vector } from '../src/index.ts';
import { wall, sheetOf } from './sample.ts';

const walls: Record<string, Wall> = {
  'a straight wall': wall({ turn: 37, start: { x: 2, y: -3, z: 1 } }),
  'a leaning wall': wall({ turn: -110, batter: 12 }),
  'a wall that bulges': wall({ sweep: 140, length: 9 }),
  'a wall with runs': wall({
    length: 4,
    runs: [
      { turn: 50, length: 3 },
      { turn: 0, length: 5, sweep: 60 },
    ],
  }),
};

describe.each(Object.entries(walls))('on %s', (_, w) => {
  it('what is looked at is found where it is', () => {
    const { chart, length } = sheetOf(w);
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        (share, t, aside) => {
          const s = share * length;
          const at = pointAt(chart, s, t, 0);
          const { along, inward } = directionsAt(chart, s);
          // From near enough that nothing else of the wall stands between.
          const from = at.map((value, k) => value - 0.3 * inward[k]! + 0.3 * aside * along[k]!) as unknown as Vector;
          const way = at.map((value, k) => 2 * (value - from[k]!)) as unknown as Vector;
          const seen = sightOn(chart, from, way)!;
          expect(seen.s).toBeCloseTo(s, 6);
          expect(seen.t).toBeCloseTo(t, 6);
        },
      ),
    );
  });

  it('what lies behind is not seen', () => {
    const { chart } = sheetOf(w);
    const { inward } = directionsAt(chart, 0.5);
    const at = pointAt(chart, 0.5, 1, 0);
    const from = at.map((value, k) => value - 50 * inward[k]!) as unknown as Vector;
    expect(sightOn(chart, from, inward.map((value) => -value) as unknown as Vector)).toBeNull();
  });
});
