/** Exact orientation tests, with y up, and the tolerance of everything that is not exact. */
import { incircle, orient2d } from 'robust-predicates';

/** One micrometre: farther than rounding reaches, nearer than anything that is drawn. */
export const tolerance = 1e-6;

/** Positive when c lies left of the line from a to b, negative right of it, 0 exactly on it. */
export function orient(ax: number, ay: number, bx: number, by: number, cx: number, cy: number): number {
  return -orient2d(ax, ay, bx, by, cx, cy);
}

/** Positive when d lies inside the circle through a, b, c, which run counter-clockwise. */
export function inCircle(ax: number, ay: number, bx: number, by: number, cx: number, cy: number, dx: number, dy: number): number {
  return incircle(ax, ay, bx, by, cx, cy, dx, dy);
}
