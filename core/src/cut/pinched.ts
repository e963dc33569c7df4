/** Whether loops touch themselves or one another in a point. */
import { touch } from '../tolerances.ts';
import type { PieceLoop } from './piece.ts';

/** Whether two points of loops stand on one place, or so near that putting them elsewhere may bring them there. */
export function touchInPoints(loops: readonly PieceLoop[]): boolean {
  const points = loops.flatMap(({ xs, ys }) => Array.from(xs, (x, i): [number, number] => [x, ys[i]!]));
  points.sort((a, b) => a[0] - b[0]);
  for (let first = 0, i = 1; i <= points.length; i++) {
    if (i < points.length && points[i]![0] - points[i - 1]![0] < touch) continue;
    if (i - first > 1 && touchInColumn(points.slice(first, i))) return true;
    first = i;
  }
  return false;
}

/** The same of points that stand above each other. */
function touchInColumn(points: [number, number][]): boolean {
  points.sort((a, b) => a[1] - b[1]);
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length && points[j]![1] - points[i]![1] < touch; j++)
      if (Math.abs(points[j]![0] - points[i]![0]) < touch) return true;
  return false;
}
