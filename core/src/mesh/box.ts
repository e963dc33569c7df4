/** Boxes about points, and circles through them. */

/** Left, bottom, right, top. */
export type Box = [number, number, number, number];

/** The box about some points that follow each other. */
export function boxOf(
  { xs, ys }: { xs: ArrayLike<number>; ys: ArrayLike<number> },
  { first, count }: { first: number; count: number },
): Box {
  let [left, bottom, right, top] = nowhere;
  for (let i = first; i < first + count; i++) {
    left = Math.min(left, xs[i]!);
    bottom = Math.min(bottom, ys[i]!);
    right = Math.max(right, xs[i]!);
    top = Math.max(top, ys[i]!);
  }
  return [left, bottom, right, top];
}

const nowhere: Box = [Infinity, Infinity, -Infinity, -Infinity];

/** The box about some boxes. */
export function boxAbout(boxes: readonly Box[]): Box {
  return boxes.reduce(
    (all, box) => [
      Math.min(all[0], box[0]),
      Math.min(all[1], box[1]),
      Math.max(all[2], box[2]),
      Math.max(all[3], box[3]),
    ],
    nowhere,
  );
}

/** A box that reaches further by so much on every side. */
export function grownBy([left, bottom, right, top]: Box, by: number): Box {
  return [left - by, bottom - by, right + by, top + by];
}

/** The circle through three points: x and y of its middle and its radius are written to `out`; infinite or NaN where they are in line. */
export function circleThrough(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  a: number,
  b: number,
  c: number,
  out: Float64Array,
): void {
  const ax = xs[a]!;
  const ay = ys[a]!;
  const bx = xs[b]! - ax;
  const by = ys[b]! - ay;
  const cx = xs[c]! - ax;
  const cy = ys[c]! - ay;
  const d = 2 * (bx * cy - by * cx);
  const bb = bx * bx + by * by;
  const cc = cx * cx + cy * cy;
  const ux = (cy * bb - by * cc) / d;
  const uy = (bx * cc - cx * bb) / d;
  out[0] = ax + ux;
  out[1] = ay + uy;
  out[2] = Math.sqrt(ux * ux + uy * uy);
}
