/** Rational B-splines, by de Boor's algorithm. */
import type { Spot } from './affine.ts';

export interface Spline {
  /** Control points with their weights. */
  points: readonly (readonly [x: number, y: number, weight: number])[];
  knots: readonly number[];
  degree: number;
}

/** The spans between knots that are not nothing, by the index of the knot at which each begins. */
export function spansOf({ points, knots, degree }: Spline): number[] {
  const spans: number[] = [];
  for (let k = degree; k < points.length; k++) if (knots[k + 1]! > knots[k]!) spans.push(k);
  return spans;
}

/** A point of a span, from 0 at its beginning to 1 at its end. Source: de Boor, A Practical Guide to Splines, 1978, chapter X. */
export function spanOf({ points, knots, degree }: Spline, k: number, t: number): Spot {
  const x = knots[k]! + (knots[k + 1]! - knots[k]!) * t;
  const d = Array.from({ length: degree + 1 }, (_, j): [number, number, number] => {
    const [px, py, w] = points[j + k - degree]!;
    return [px * w, py * w, w];
  });
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const low = knots[j + k - degree]!;
      const share = (x - low) / (knots[j + 1 + k - r]! - low);
      for (const i of [0, 1, 2]) d[j]![i] = (1 - share) * d[j - 1]![i]! + share * d[j]![i]!;
    }
  const [px, py, w] = d[degree]!;
  return [px / w, py / w];
}
