/** Triangles of three or four points: what most faces have, and need no search. */

/**
 * Triangles of a polygon of three points, or of four that is plainly hollow nowhere; null where there is more to it.
 * @param xs @param ys where its points are, counter-clockwise.
 */
export function fewTriangles(xs: ArrayLike<number>, ys: ArrayLike<number>): readonly number[] | null {
  const count = xs.length;
  if (count !== 3 && count !== 4) return null;
  const sines = [0, 0, 0, 0];
  const cosines = [0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const [a, c] = [i === 0 ? count - 1 : i - 1, i + 1 === count ? 0 : i + 1];
    const [px, py] = [xs[c]! - xs[i]!, ys[c]! - ys[i]!];
    const [qx, qy] = [xs[a]! - xs[i]!, ys[a]! - ys[i]!];
    const sine = px * qy - py * qx;
    const cosine = px * qx + py * qy;
    // Almost straight, turned back, or the other way round.
    if (sine < 1e-9 + 1e-6 * Math.abs(cosine)) return null;
    sines[i] = sine;
    cosines[i] = cosine;
  }
  if (count === 3) return three;
  // Delaunay's choice: across from the corners whose angles make less than half a turn.
  return sines[1]! * cosines[3]! + cosines[1]! * sines[3]! >= 0 ? fromFirst : fromSecond;
}

const three = [0, 1, 2];
const fromFirst = [0, 1, 2, 0, 2, 3];
const fromSecond = [1, 2, 3, 1, 3, 0];
