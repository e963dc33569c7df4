/** Ribs under the groins of a bay: their tops lie on the soffit on either side of the groin, their sides are upright, their undersides follow the groin. */
import type { Ribs } from '@yard-arch/document';
import { newell, type Vector } from '../vector.ts';
import { heightAt, type BayPlan, type Row } from './bay-plan.ts';
import type { ShellPolygon } from './solid.ts';

type InPlan = readonly [number, number];

/** Each rib a closed solid, ended upright before the middle, where all of them would meet, and before the corners along the sides. */
export function ribsOf(
  bay: BayPlan,
  corners: readonly InPlan[],
  rows: readonly Row[],
  { width, depth, sides }: Ribs,
): ShellPolygon[] {
  const under = { bay, rows, depth };
  return corners.flatMap((corner, i) => [
    // Clear of the corner, where the soffit beside it is off the bay, and of the middle.
    ...rib(under, { from: corner, to: bay.middle, left: width / 2, right: width / 2, clear: 0.75 * width }),
    ...(sides && bay.groin ? alongSide(under, corner, corners[(i + 1) % corners.length]!, width / 2) : []),
  ]);
}

interface Under {
  bay: BayPlan;
  rows: readonly Row[];
  depth: number;
}

/** A way under the soffit, how far a rib reaches to the left and right of it, and how far from its ends it stops. */
interface Way {
  from: InPlan;
  to: InPlan;
  left: number;
  right: number;
  clear: number;
}

/** A rib along a side, within the bay: it goes up to the groins. */
const alongSide = (under: Under, from: InPlan, to: InPlan, wide: number): ShellPolygon[] =>
  rib(under, { from, to, left: wide, right: 0, clear: 1.05 * wide }, crownOf(under.bay, from, to));

/** Where along a side its crown is, as a share of it. */
function crownOf({ halves }: BayPlan, from: InPlan, to: InPlan): number {
  const own = halves.find(({ corner, hand }) => hand === 1 && corner[0] === from[0] && corner[1] === from[1])!;
  return Math.hypot(own.foot[0] - from[0], own.foot[1] - from[1]) / Math.hypot(to[0] - from[0], to[1] - from[1]);
}

/** @param crown where what rows are told of as they rise turns to fall again, as a share of the way: 1 where it rises all along */
function rib({ bay, rows, depth }: Under, { from, to, left: far, right: near, clear }: Way, crown = 1): ShellPolygon[] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy);
  const across = (by: number): InPlan => [(-dy / length) * by, (dx / length) * by];
  const [left, right] = [across(far), across(-near)];
  const least = clear / length;
  // Between corner and middle there is no room for one.
  if (least > 0.49) return [];
  const rising = rows.map(({ w }) => w * crown);
  const falling = crown < 1 ? rows.map(({ w }) => 1 - w * (1 - crown)).reverse() : [];
  const shares = [...rising, ...falling].filter((share) => share > least && share < 1 - least);
  const places = [least, ...shares.filter((share, i) => share - (shares[i - 1] ?? -1) > 1e-9), 1 - least];
  const sections = places.map((share) => {
    const [x, y] = [from[0] + share * dx, from[1] + share * dy];
    const z = ([ox, oy]: InPlan): number | null => heightAt(bay, rows, [x + ox, y + oy])?.z ?? null;
    const [zl, zr, groin] = [z(left), z(right), z([0, 0])];
    if (zl === null || zr === null || groin === null) return null;
    const at = ([ox, oy]: InPlan, height: number): Vector => [x + ox, y + oy, height];
    const foot = Math.min(zl, zr, groin) - depth;
    const upper = near > 0 ? [at(left, zl), at([0, 0], groin), at(right, zr)] : [at(left, zl), at(right, zr)];
    return [at(right, foot), at(left, foot), ...upper];
  });
  const whole = sections.filter((section) => section !== null);
  if (whole.length < 2) return [];
  const polygons: Vector[][] = [[...whole[0]!].reverse(), whole.at(-1)!];
  for (let i = 0; i + 1 < whole.length; i++) {
    const [a, b] = [whole[i]!, whole[i + 1]!];
    a.forEach((point, k) => {
      const next = (k + 1) % a.length;
      // Twisted a little where the soffit is: in triangles.
      polygons.push([point, a[next]!, b[next]!], [point, b[next]!, b[k]!]);
    });
  }
  return polygons.map((points) => dressed(points));
}

/** A flat polygon with the texture along its longest side. */
function dressed(points: readonly Vector[]): ShellPolygon {
  const long = newell(points);
  const size = Math.hypot(...long) || 1;
  const normal: Vector = [long[0] / size, long[1] / size, long[2] / size];
  let along: Vector = [1, 0, 0];
  let most = 0;
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length]!;
    const way: Vector = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const own = Math.hypot(...way);
    if (own > most) [along, most] = [[way[0] / own, way[1] / own, way[2] / own], own];
  });
  const up: Vector = [
    normal[1] * along[2] - normal[2] * along[1],
    normal[2] * along[0] - normal[0] * along[2],
    normal[0] * along[1] - normal[1] * along[0],
  ];
  const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  return points.map((at) => ({ at, normal, uv: [dot(at, along), dot(at, up)] as const }));
}
