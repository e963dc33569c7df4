/** Exact orientation tests, with y up, and the tolerance of everything that is not exact. */
import { incircle, orient2d } from 'robust-predicates';
import { micrometre } from '../tolerances.ts';

/** One micrometre: farther than rounding reaches, nearer than anything that is drawn. */
export const tolerance = micrometre;

/** Positive when c lies left of the line from a to b, negative right of it, 0 exactly on it. */
export function orient(ax: number, ay: number, bx: number, by: number, cx: number, cy: number): number {
  return -orient2d(ax, ay, bx, by, cx, cy);
}

/** Positive when d lies inside the circle through a, b, c, which run counter-clockwise. */
export function inCircle(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): number {
  // Rows of openings give four points in two lines over and over, often on one circle, where the general test is at its dearest.
  if (cy === dy) {
    if (ay === by && ay !== cy) return onTwoLines(ax, bx, cx, dx);
  } else if (ay === dy && by === cy) return onTwoLines(bx, cx, ax, dx);
  else if (by === dy && ay === cy) return onTwoLines(ax, cx, bx, dx);
  return incircle(ax, ay, bx, by, cx, cy, dx, dy);
}

/** For points a, b on one level line and c, d on another: a circle about the midpoint of a and b passes c and its mirror image, and d is within where it lies between them. */
function onTwoLines(a: number, b: number, c: number, d: number): number {
  const towards = compareSums(c, d, a, b);
  return c < d ? -towards : towards;
}

/** Sign of (p + q) − (r + s), exactly: rounded sums are in the order of the true ones, and what rounding took is compared where they are equal. */
function compareSums(p: number, q: number, r: number, s: number): number {
  const [first, second] = [p + q, r + s];
  if (first !== second) return first - second;
  return roundedOff(p, q, first) - roundedOff(r, s, second);
}

/** What is missing in a rounded sum (D. E. Knuth, The Art of Computer Programming 2, 4.2.2, theorem B). */
function roundedOff(a: number, b: number, sum: number): number {
  const part = sum - a;
  return a - (sum - part) + (b - part);
}
