/** Edges of a mesh: its half-edges put in an order in which all that run along one edge follow one another. */
import type { CutMesh } from './cut-mesh.ts';

/** Half-edge 3i + k leaves corner k of triangle i for the next. */
export interface HalfEdges {
  /** All of them, by the lower and then the higher of the two vertices that they join; along one edge as they stand in the mesh. */
  order: Uint32Array;
  /** The vertex that each leaves, and the one to which it leads. */
  from: Uint32Array;
  to: Uint32Array;
}

export function halfEdgesOf({ triangles, vertices, vertexCount }: CutMesh): HalfEdges {
  const count = triangles.length;
  const [from, to, low, high, numbers] = [
    new Uint32Array(count),
    new Uint32Array(count),
    new Uint32Array(count),
    new Uint32Array(count),
    new Uint32Array(count),
  ];
  for (let first = 0; first < count; first += 3) {
    let a = vertices[triangles[first + 2]!]!;
    // The last of the three leaves for the first: each is told where it leads by the one before it.
    for (let k = 0, before = first + 2; k < 3; before = first + k++) {
      const h = first + k;
      const b = vertices[triangles[h]!]!;
      from[h] = b;
      to[before] = b;
      low[before] = a < b ? a : b;
      high[before] = a < b ? b : a;
      numbers[h] = h;
      a = b;
    }
  }
  // The lesser key first; the second pass leaves the order of equals as it is.
  return { order: sorted(sorted(numbers, high, vertexCount), low, vertexCount), from, to };
}

/** Numbers in the order of their keys, which are less than a limit; equals as they were (a counting sort). */
function sorted(numbers: Uint32Array, key: Uint32Array, limit: number): Uint32Array {
  const place = new Uint32Array(limit + 1);
  for (let h = 0; h < key.length; h++) place[key[h]! + 1]! += 1;
  for (let k = 0; k < limit; k++) place[k + 1]! += place[k]!;
  const out = new Uint32Array(numbers.length);
  for (let i = 0; i < numbers.length; i++) {
    const h = numbers[i]!;
    out[place[key[h]!]!++] = h;
  }
  return out;
}

/** Whether two half-edges run along one edge, either way. */
export function sameEdge({ from, to }: HalfEdges, g: number, h: number): boolean {
  return (from[g] === from[h] && to[g] === to[h]) || (from[g] === to[h] && to[g] === from[h]);
}
