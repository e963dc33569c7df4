/** A region of a face: what is left solid, as closed loops of vertices that know where each of their edges comes from. */

/**
 * Vertex v is at (xs[v], ys[v]) (metres on the face), and its edge runs to vertex next[v] with the solid on the left. So outer
 * loops run counter-clockwise and loops round openings clockwise. The edge is a piece of edge `source[v]` of the outline of
 * operand `operand[v]`: operand 0 is the sheet itself, k is opening k − 1; `from[v]` and `to[v]` say from where to where on that edge,
 * 0 at its first point and 1 at its second.
 */
export interface Region {
  count: number;
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  operand: Int32Array;
  source: Int32Array;
  from: Float64Array;
  to: Float64Array;
  /** Whether two vertices may stand on the same point, as where two openings touch in a corner. */
  pinched: boolean;
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
