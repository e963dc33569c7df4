/** Level openings of barrels: where what stands in them is put, upright between where head and sill meet the barrel's two faces; and how they lie on its sheet. */
import { hitsOn, placedIn, pointAt, turnedIn, type BentChart } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import { squareSections } from '../profile/section.ts';
import { micrometre, millimetre } from '../tolerances.ts';
import { dot, minus, plus, scaled, type Vector } from '../vector.ts';
import { levelAim } from './project.ts';
import type { Placed } from './placed.ts';
import { turnedOnce } from './shell-seat.ts';

/**
 * The upright sheet in which an opening that is carried level through a barrel has its seat, and the opening on it: from where both its head and its sill are within the barrel
 * to where the first of them comes out of it again. Null where one of them does not go through, as over the crown.
 * @param sheet of the face on which the opening is set out.
 */
export function levelSeat(sheet: Sheet, placed: Placed): { sheet: Sheet; placed: Placed } | null {
  const { chart, thickness } = sheet;
  if (chart.kind !== 'bent') return null;
  const aim = levelAim(sheet, placed);
  const { width, height } = placed.profile;
  const foot = aim.point;
  const head = plus(foot, scaled(aim.y, height));
  const reach = (n: number): number[] =>
    [foot, head].flatMap((from) => {
      const hit = nearest(chart, n, from, aim.direction);
      return hit ? [hit.at] : [];
    });
  const [near, far] = [reach(0), reach(thickness)];
  if (near.length < 2 || far.length < 2) return null;
  const front = Math.max(...near);
  const depth = Math.max(micrometre, Math.min(...far) - front);
  const middle = placed.s + width / 2;
  const at = [scaled(aim.direction, front), scaled(aim.x, -middle), scaled(aim.y, -placed.t)].reduce(plus, foot);
  const seat: Sheet = {
    ...sheet,
    chart: {
      kind: 'flat',
      origin: [at[0], at[1], at[2]],
      along: aim.x,
      up: aim.y,
      inward: aim.direction,
    },
    boundaries: Float64Array.of(0, depth),
    layers: sheet.layers.slice(0, 1),
    thickness: depth,
  };
  // What is set out from within is told on what is turned over to that side.
  return {
    sheet: placed.face === 'inner' ? turnedOver(seat).sheet : seat,
    placed: { ...placed, depth, sections: squareSections(depth) },
  };
}

/** A level opening as it lies on the outer face of its barrel: turned by a quarter, its head up the flank, and the taller the flatter that is there. As it is set out where it does not go through. */
export function seenLevel(sheet: Sheet, placed: Placed): Placed {
  const { chart } = sheet;
  if (chart.kind !== 'bent') return placed;
  const aim = levelAim(sheet, placed);
  const { width, height } = placed.profile;
  const [foot, head] = [aim.point, plus(aim.point, scaled(aim.y, height))].map((from) =>
    nearest(chart, 0, from, aim.direction),
  );
  if (!foot || !head || Math.abs(head.s - foot.s) < millimetre) return placed;
  const middle = placed.s + width / 2;
  const [low, high] = [pointAt(chart, middle, placed.t, 0), pointAt(chart, middle, placed.t + 1, 0)];
  const across = Math.sign(dot(aim.x, minus(high, low)));
  const up = (head.s - foot.s) / height;
  const { outline, left, low: base } = turnedOnce(placed.outline, [0, across, up, 0]);
  const level = placed.t + height / 2;
  return {
    ...placed,
    outline,
    s: foot.s + left,
    t: level - (across * width) / 2 + base,
    profile: { width: Math.max(...outline.xs), height: Math.max(...outline.ys), springing: null, edges: [] },
    leans: [0, across, up, 0, foot.s, level],
  };
}

/** Where a line from a point meets a face of the chart nearest to that; null where it passes it by. */
function nearest(chart: BentChart, n: number, from: Vector, way: Vector): { s: number; at: number } | null {
  const { frame } = chart;
  const [point, direction] = frame ? [placedIn(frame, from), turnedIn(frame, way)] : [from, way];
  return hitsOn(chart, n, point, [direction[0], direction[1]]).reduce<{ s: number; at: number } | null>(
    (best, hit) => (best === null || Math.abs(hit.at) < Math.abs(best.at) ? hit : best),
    null,
  );
}
