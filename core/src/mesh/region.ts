/** A region of a face: closed loops of vertices with the solid on their left, and lines within it that its triangles must keep to. */

/**
 * Vertex v is at (xs[v], ys[v]) (metres on the face), and its edge runs to vertex next[v] with the region on the left. So outer
 * loops run counter-clockwise and loops round openings clockwise. Points from `count` on stand free within the region.
 */
export interface Region {
  count: number;
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  /** Whether two points may stand on one place; they may unless it is said that they do not. */
  pinched?: boolean;
  /** Where that is known: by point, a number that only those on the same place share. */
  places?: ArrayLike<number>;
  /** Pairs of points between which an edge must run. */
  lines?: readonly number[];
}

/** The area of a region in square metres. */
export function regionArea(region: Region): number {
  let twice = 0;
  for (let v = 0; v < region.count; v++) {
    const w = region.next[v]!;
    twice += region.xs[v]! * region.ys[w]! - region.xs[w]! * region.ys[v]!;
  }
  return twice / 2;
}

/** Whether a point lies within loops: whether a line from it crosses them an odd number of times. */
export function holdsPoint(
  { count, xs, ys, next }: Pick<Region, 'count' | 'next'> & { xs: ArrayLike<number>; ys: ArrayLike<number> },
  x: number,
  y: number,
): boolean {
  let inside = false;
  for (let i = 0; i < count; i++) {
    const j = next[i]!;
    if (ys[i]! > y !== ys[j]! > y && x < ((xs[j]! - xs[i]!) * (y - ys[i]!)) / (ys[j]! - ys[i]!) + xs[i]!)
      inside = !inside;
  }
  return inside;
}

/** The number of loops of a region that run counter-clockwise, which is that of its pieces. */
export function piecesOf(region: Region): number {
  const seen = new Uint8Array(region.count);
  let pieces = 0;
  for (let first = 0; first < region.count; first++) {
    if (seen[first]) continue;
    let twice = 0;
    for (let v = first; !seen[v]; v = region.next[v]!) {
      seen[v] = 1;
      const w = region.next[v]!;
      twice += region.xs[v]! * region.ys[w]! - region.xs[w]! * region.ys[v]!;
    }
    if (twice > 0) pieces += 1;
  }
  return pieces;
}

/** A region of loops of points. */
export function regionOf(
  loops: readonly (readonly number[])[],
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
): { region: Region; points: number[] } {
  const points = loops.flat();
  const next = new Uint32Array(points.length);
  let at = 0;
  for (const loop of loops) {
    for (let i = 0; i < loop.length; i++) next[at + i] = at + ((i + 1) % loop.length);
    at += loop.length;
  }
  return {
    region: {
      count: points.length,
      xs: Float64Array.from(points, (v) => xs[v]!),
      ys: Float64Array.from(points, (v) => ys[v]!),
      next,
    },
    points,
  };
}
