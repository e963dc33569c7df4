/** Ribs under the groins of a bay: their tops lie on the soffit on either side of the groin, their sides are upright, their undersides follow the groin. */
import type { Ribs } from '@yard-arch/document';
import { newell, type Vector } from '../vector.ts';
import { heightAt, type BayPlan, type Row } from './bay-plan.ts';
import type { ShellPolygon } from './solid.ts';

type InPlan = readonly [number, number];

/** Each rib a closed solid, ended upright before the middle, where all of them would meet. */
export function ribsOf(
  bay: BayPlan,
  corners: readonly InPlan[],
  rows: readonly Row[],
  { width, depth }: Ribs,
): ShellPolygon[] {
  return corners.flatMap((corner) => rib(bay, corner, rows, width, depth));
}

function rib(bay: BayPlan, corner: InPlan, rows: readonly Row[], width: number, depth: number): ShellPolygon[] {
  const [dx, dy] = [bay.middle[0] - corner[0], bay.middle[1] - corner[1]];
  const length = Math.hypot(dx, dy);
  const [px, py] = [(-dy / length) * (width / 2), (dx / length) * (width / 2)];
  // Clear of the corner, where the soffit beside it is off the bay, and of the middle.
  const least = (0.75 * width) / length;
  const shares = rows.map(({ w }) => w).filter((w) => w > least && w < 1 - least);
  const places = [least, ...shares, 1 - least];
  const sections = places.map((share) => {
    const [x, y] = [corner[0] + share * dx, corner[1] + share * dy];
    const z = (ox: number, oy: number): number | null => heightAt(bay, rows, [x + ox, y + oy])?.z ?? null;
    const [left, right, groin] = [z(px, py), z(-px, -py), z(0, 0)];
    if (left === null || right === null || groin === null) return null;
    const at = (ox: number, oy: number, height: number): Vector => [x + ox, y + oy, height];
    const foot = Math.min(left, right, groin) - depth;
    return [at(-px, -py, foot), at(px, py, foot), at(px, py, left), at(0, 0, groin), at(-px, -py, right)];
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
