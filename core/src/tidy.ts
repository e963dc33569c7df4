/** Figures as documents keep them. */

/** Rid of the last digits' noise: nothing finer than a nanometre is meant by anyone. */
export function tidy(metres: number): number {
  return Math.round(metres * 1e9) / 1e9 + 0;
}
