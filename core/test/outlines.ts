/** Outlines of made-up buildings, for tests with random input. */
import fc from 'fast-check';

export type Place = [x: number, y: number];

/** Lengths between two, in steps of 50 mm; metres. */
export const near = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: Math.round(min * 20), max: Math.round(max * 20) }).map((n) => n / 20);

/** An L: a range along x with a wing at its start, as wide as the range is deep; corners counter-clockwise, metres. */
export const ell = (wide: number, deep: number): Place[] => [
  [0, 0],
  [wide + 4, 0],
  [wide + 4, deep],
  [deep, deep],
  [deep, deep + 4],
  [0, deep + 4],
];

/** A T: a range along x with a wing at its back; corners counter-clockwise, metres. */
export const tee = (wide: number, deep: number): Place[] => [
  [0, 0],
  [wide + 5, 0],
  [wide + 5, deep],
  [wide, deep],
  [wide, deep + 3],
  [3, deep + 3],
  [3, deep],
  [0, deep],
];
