/** Where a point in plan comes into line with what there is: ends of walls, lines of faces, directions in steps of 15°. Metres. */
import { courseOf, directionOf, tidy, type Point } from '@yard-arch/core';
import type { Wall } from '@yard-arch/document';

/** A point in plan that was snapped to, and why. */
export interface SnappedInPlan {
  at: Point;
  reason: string | null;
  /** A line to be shown, from and to. */
  guide: readonly [Point, Point] | null;
}

interface Ask {
  at: Point;
  walls: readonly Wall[];
  /** What a wall is drawn or moved from: directions are in whole steps from there. */
  from: Point | null;
  /** How far it may be pulled, metres. */
  reach: number;
  free: boolean;
}

/** The step in which directions turn, degrees. */
const step = 15;

export function snapInPlan({ at, walls, from, reach, free }: Ask): SnappedInPlan {
  const whole = ([x, y]: Point): Point => [Math.round(x * 1000) / 1000, Math.round(y * 1000) / 1000];
  if (free) return { at: whole(at), reason: null, guide: null };
  const ends = walls.flatMap((wall) => {
    const { start, end } = courseOf(wall);
    return [
      { at: start, of: `start of ${wall.name}` },
      { at: end, of: `end of ${wall.name}` },
    ];
  });
  let best: (typeof ends)[number] | null = null;
  let near = reach;
  for (const end of ends) {
    const far = Math.hypot(end.at[0] - at[0], end.at[1] - at[1]);
    if (far <= near && !(from && Math.hypot(end.at[0] - from[0], end.at[1] - from[1]) < 0.01))
      [best, near] = [end, far];
  }
  if (best) return { at: best.at, reason: best.of, guide: null };
  if (from) {
    const [dx, dy] = [at[0] - from[0], at[1] - from[1]];
    const length = Math.hypot(dx, dy);
    const turn = Math.round(directionOf([0, 0], [dx, dy]) / step) * step;
    const along = turn * (Math.PI / 180);
    let reached = length * Math.cos(Math.atan2(dy, dx) - along);
    // As far as to stand level with another end.
    let reason = `${((turn % 360) + 360) % 360}°`;
    let guide: SnappedInPlan['guide'] = null;
    const [cos, sin] = [exact(Math.cos(along)), exact(Math.sin(along))];
    let nearest = reach;
    for (const end of ends)
      for (const [axis, share] of [
        [0, cos],
        [1, sin],
      ] as const) {
        if (Math.abs(share) < 0.2) continue;
        const to = (end.at[axis]! - from[axis]!) / share;
        if (Math.abs(to - reached) >= nearest || to < 0.01) continue;
        nearest = Math.abs(to - reached);
        guide = [end.at, [from[0] + cos * to, from[1] + sin * to]];
        reason = `${((turn % 360) + 360) % 360}°, in line with the ${end.of}`;
      }
    reached = guide ? Math.hypot(guide[1][0] - from[0], guide[1][1] - from[1]) : Math.round(reached * 100) / 100;
    return { at: [tidy(from[0] + cos * reached), tidy(from[1] + sin * reached)], reason, guide };
  }
  const out: [number, number] = [Math.round(at[0] * 100) / 100, Math.round(at[1] * 100) / 100];
  let reason: string | null = null;
  let guide: SnappedInPlan['guide'] = null;
  for (const axis of [0, 1] as const) {
    const close = ends
      .filter((end) => Math.abs(end.at[axis] - at[axis]) <= reach)
      .sort((a, b) => Math.abs(a.at[axis] - at[axis]) - Math.abs(b.at[axis] - at[axis]))[0];
    if (!close) continue;
    out[axis] = close.at[axis];
    reason = `in line with the ${close.of}`;
    guide = [close.at, out];
  }
  return { at: out, reason, guide };
}

const exact = (value: number): number => (Math.abs(value) < 1e-12 ? 0 : value);
