/** Smooth normals by a set angle: neighbouring faces that turn by no more than it are shaded as one, all others apart. */
import type { CutMesh } from './cut-mesh.ts';

/**
 * The same mesh with normals by angle. At each vertex a polygon's corner takes the mean of its own normal and of those that are reached from it over edges that turn by no more than
 * the angle, each weighted by its angle at the vertex (Thürmer and Wüthrich, "Computing vertex normals from polygonal facets", J. Graphics Tools 3, 1998).
 * @param degrees greatest turn between two faces that are shaded as one.
 */
export function smoothed(mesh: CutMesh, degrees: number): CutMesh {
  const { points, vertices, polygonStart, polygonCorners, vertexCount } = mesh;
  const polygons = polygonStart.length - 1;
  const least = Math.cos((Math.min(degrees, 180) * Math.PI) / 180) - 1e-9;
  /** The vertex at a place in `polygonCorners`. */
  const standing = (i: number): number => vertices[polygonCorners[i]!]!;
  const own = new Float64Array(3 * polygons);
  const weight = new Float64Array(polygonCorners.length);
  for (let p = 0; p < polygons; p++) {
    const [from, to] = [polygonStart[p]!, polygonStart[p + 1]!];
    const n = [0, 0, 0];
    for (let i = from; i < to; i++) {
      const [a, b] = [3 * standing(i), 3 * standing(i + 1 < to ? i + 1 : from)];
      for (let k = 0; k < 3; k++) n[k]! += (points[a + ((k + 1) % 3)]! - points[b + ((k + 1) % 3)]!) * (points[a + ((k + 2) % 3)]! + points[b + ((k + 2) % 3)]!);
    }
    const size = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) own[3 * p + k] = n[k]! / size;
    for (let i = from; i < to; i++) weight[i] = angleAt(points, standing(i > from ? i - 1 : to - 1), standing(i), standing(i + 1 < to ? i + 1 : from));
  }

  // Places in `polygonCorners`, by vertex.
  const start = new Uint32Array(vertexCount + 1);
  for (const c of polygonCorners) start[vertices[c]! + 1]! += 1;
  for (let v = 0; v < vertexCount; v++) start[v + 1]! += start[v]!;
  const fill = start.slice();
  const at = new Uint32Array(polygonCorners.length);
  const polygonOf = new Uint32Array(polygonCorners.length);
  for (let p = 0; p < polygons; p++)
    for (let i = polygonStart[p]!; i < polygonStart[p + 1]!; i++) {
      polygonOf[i] = p;
      at[fill[vertices[polygonCorners[i]!]!]!++] = i;
    }

  const normals = mesh.normals.slice();
  const written = new Float64Array(normals.length);
  for (let v = 0; v < vertexCount; v++) {
    const around = at.subarray(start[v], start[v + 1]);
    for (const i of around) {
      const c = 3 * polygonCorners[i]!;
      for (const j of reached(i, around)) for (let k = 0; k < 3; k++) written[c + k]! += weight[j]! * own[3 * polygonOf[j]! + k]!;
    }
  }
  for (let c = 0; c < normals.length; c += 3) {
    const size = Math.hypot(written[c]!, written[c + 1]!, written[c + 2]!);
    if (size > 1e-12) for (let k = 0; k < 3; k++) normals[c + k] = written[c + k]! / size;
  }
  return { ...mesh, normals };

  /** The corners at a vertex that one is shaded with: from polygon to polygon that share an edge there and turn little. */
  function reached(from: number, around: Uint32Array): Set<number> {
    const found = new Set([from]);
    for (const i of found)
      for (const j of around) {
        if (found.has(j)) continue;
        const [p, q] = [3 * polygonOf[i]!, 3 * polygonOf[j]!];
        if (own[p]! * own[q]! + own[p + 1]! * own[q + 1]! + own[p + 2]! * own[q + 2]! >= least && shareEdge(i, j)) found.add(j);
      }
    return found;
  }

  /** Whether two polygons that meet at a vertex also have an edge there in common: the one's way on is the other's way back. */
  function shareEdge(i: number, j: number): boolean {
    return neighbour(i, 1) === neighbour(j, -1) || neighbour(i, -1) === neighbour(j, 1);
  }

  function neighbour(i: number, step: 1 | -1): number {
    const [from, to] = [polygonStart[polygonOf[i]!]!, polygonStart[polygonOf[i]! + 1]!];
    const k = i + step;
    return vertices[polygonCorners[k < from ? to - 1 : k >= to ? from : k]!]!;
  }
}

function angleAt(points: Float64Array, a: number, b: number, c: number): number {
  const u = [0, 1, 2].map((k) => points[3 * a + k]! - points[3 * b + k]!);
  const w = [0, 1, 2].map((k) => points[3 * c + k]! - points[3 * b + k]!);
  const dot = u[0]! * w[0]! + u[1]! * w[1]! + u[2]! * w[2]!;
  return Math.acos(Math.max(-1, Math.min(1, dot / (Math.hypot(...u) * Math.hypot(...w) || 1))));
}
