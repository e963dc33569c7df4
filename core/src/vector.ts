/** Vectors in space. */

export type Vector = readonly [number, number, number];

export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const scaled = (v: Vector, by: number): Vector => [v[0] * by, v[1] * by, v[2] * by];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** A polygon's normal, as long as twice its area: right however its points lie (Newell's method, about the first of them). */
export function newell(points: readonly Vector[]): Vector {
  let [x, y, z] = [0, 0, 0];
  const o = points[0]!;
  points.forEach((point, i) => {
    const [cx, cy, cz] = cross(minus(point, o), minus(points[(i + 1) % points.length]!, o));
    [x, y, z] = [x + cx, y + cy, z + cz];
  });
  return [x, y, z];
}
