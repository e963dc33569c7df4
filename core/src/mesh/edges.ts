/** Edges of a mesh: its half-edges gathered by the lower of the two vertices that they join, so that all that run along one edge are found at once. */
import type { CutMesh } from './cut-mesh.ts';

/** Half-edge 3i + k leaves corner k of triangle i for the next. */
export interface HalfEdges {
  /** Those whose lower vertex is v are order[start[v]] … order[start[v + 1] − 1]. */
  start: Uint32Array;
  order: Uint32Array;
  /** The vertex that each leaves, and the one to which it leads. */
  from: Uint32Array;
  to: Uint32Array;
}

export function halfEdgesOf({ triangles, vertices, vertexCount }: CutMesh): HalfEdges {
  const count = triangles.length;
  const from = new Uint32Array(count);
  const to = new Uint32Array(count);
  const start = new Uint32Array(vertexCount + 2);
  for (let h = 0; h < count; h += 3) {
    const a = vertices[triangles[h]!]!;
    const b = vertices[triangles[h + 1]!]!;
    const c = vertices[triangles[h + 2]!]!;
    from[h] = to[h + 2] = a;
    from[h + 1] = to[h] = b;
    from[h + 2] = to[h + 1] = c;
  }
  // Counted two places on, then one: after filling, each start is where it should be.
  for (let h = 0; h < count; h++) start[(from[h]! < to[h]! ? from[h]! : to[h]!) + 2]! += 1;
  for (let v = 2; v < start.length; v++) start[v]! += start[v - 1]!;
  const order = new Uint32Array(count);
  for (let h = 0; h < count; h++) order[start[(from[h]! < to[h]! ? from[h]! : to[h]!) + 1]!++] = h;
  return { start: start.subarray(0, vertexCount + 1), order, from, to };
}
