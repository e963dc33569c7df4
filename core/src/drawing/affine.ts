/** Places and ways of a drawing, and what moves them. */

export type Spot = readonly [x: number, y: number];

/** (a, b, c, d, e, f) takes x, y to a·x + c·y + e, b·x + d·y + f, as in SVG. */
export type Affine = readonly [number, number, number, number, number, number];

export const unmoved: Affine = [1, 0, 0, 1, 0, 0];

/** First the second, then the first. */
export const after = ([a, b, c, d, e, f]: Affine, [p, q, r, s, t, u]: Affine): Affine => [
  a * p + c * q,
  b * p + d * q,
  a * r + c * s,
  b * r + d * s,
  a * t + c * u + e,
  b * t + d * u + f,
];

export const at = ([a, b, c, d, e, f]: Affine, x: number, y: number): Spot => [a * x + c * y + e, b * x + d * y + f];

/** Turned by an angle in radians, counter-clockwise where y is up. */
export const turnedBy = (angle: number): Affine => {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos, sin, -sin, cos, 0, 0];
};

/** Whether a frame only turns, mirrors and scales alike, so that circles stay circles. */
export function keepsCircles([a, b, c, d]: Affine): boolean {
  const size = a * a + b * b + c * c + d * d;
  return Math.abs(a * a + b * b - c * c - d * d) < 1e-9 * size && Math.abs(a * c + b * d) < 1e-9 * size;
}

export const mirrors = ([a, b, c, d]: Affine): boolean => a * d - b * c < 0;
