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
  const from = Uint32Array.from(triangles, (c) => vertices[c]!);
  const to = new Uint32Array(count);
  const [low, high] = [new Uint32Array(count), new Uint32Array(count)];
  for (let h = 0; h < count; h++) {
    const [a, b] = [from[h]!, from[h % 3 === 2 ? h - 2 : h + 1]!];
    to[h] = b;
    low[h] = a < b ? a : b;
    high[h] = a < b ? b : a;
  }
  // The lesser key first; the second pass leaves the order of equals as it is.
  return { order: sorted(sorted(Uint32Array.from(triangles, (_, h) => h), high, vertexCount), low, vertexCount), from, to };
}

/** Numbers in the order of their keys, which are less than a limit; equals as they were (a counting sort). */
function sorted(numbers: Uint32Array, key: Uint32Array, limit: number): Uint32Array {
  const place = new Uint32Array(limit + 1);
  for (const k of key) place[k + 1]! += 1;
  for (let k = 0; k < limit; k++) place[k + 1]! += place[k]!;
  const out = new Uint32Array(numbers.length);
  for (const h of numbers) out[place[key[h]!]!++] = h;
  return out;
}

/** Whether two half-edges run along one edge, either way. */
export function sameEdge({ from, to }: HalfEdges, g: number, h: number): boolean {
  return (from[g] === from[h] && to[g] === to[h]) || (from[g] === to[h] && to[g] === from[h]);
}
