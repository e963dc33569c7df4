/** Where a line of sight meets an element's outer face. */
import { placedIn, turnedIn, upright, type Chart, type Vector } from './chart.ts';
import { dot } from '../vector.ts';
import { rounding } from '../tolerances.ts';

/**
 * The place (s, t), metres on the face, at which a ray first meets a chart's outer face, its plane taken beyond the element's edges; null where it looks away from it.
 * @param from where the ray begins, metres in space.
 * @param way its direction, of any length.
 */
export function sightOn(chart: Chart, from: Vector, way: Vector): { s: number; t: number } | null {
  if (chart.kind === 'flat') {
    const { origin, along, up, inward } = chart;
    const off: Vector = [from[0] - origin[0], from[1] - origin[1], from[2] - origin[2]];
    const depth = dot(way, inward);
    if (Math.abs(depth) < rounding) return null;
    const far = -dot(off, inward) / depth;
    if (far <= 0) return null;
    const at: Vector = [off[0] + far * way[0], off[1] + far * way[1], off[2] + far * way[2]];
    return { s: dot(at, along), t: dot(at, up) };
  }
  if (chart.frame) return sightOn(upright(chart), placedIn(chart.frame, from), turnedIn(chart.frame, way));
  let best: { s: number; t: number; far: number } | null = null;
  const { s, x, y, origin } = chart;
  const last = s.length - 2;
  for (let i = 0; i <= last; i++) {
    const [dx, dy] = [x[i + 1]! - x[i]!, y[i + 1]! - y[i]!];
    const det = way[0] * -dy + way[1] * dx;
    if (Math.abs(det) < rounding) continue;
    const [ox, oy] = [x[i]! - from[0], y[i]! - from[1]];
    const far = (ox * -dy + oy * dx) / det;
    const share = (way[0] * oy - way[1] * ox) / det;
    // Beyond the ends the first and last facets go on.
    if (far <= 0 || (share < 0 && i > 0) || (share > 1 && i < last)) continue;
    if (best && best.far <= far) continue;
    best = { far, s: s[i]! + share * (s[i + 1]! - s[i]!), t: from[2] + far * way[2] - origin[2] };
  }
  return best && { s: best.s, t: best.t };
}
