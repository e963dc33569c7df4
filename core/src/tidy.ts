/** Figures as documents keep them. */

/** Rid of the last digits' noise: nothing finer than a nanometre is meant by anyone. */
export function tidy(metres: number): number {
  return Math.round(metres * 1e9) / 1e9 + 0;
}

/** Rid of what sums and turns leave behind: a length or an angle to a tenth of a micrometre or of a millionth of a degree. What is told alike by it is one and the same part, and files carry no more. */
export function rounded(value: number): number {
  return Math.round(value * 1e7) / 1e7 + 0;
}
