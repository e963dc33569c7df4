/** Smooth normals by a set angle: neighbouring faces that turn by no more than it are shaded as one, all others apart. */
import type { CutMesh } from './cut-mesh.ts';
import { parallel, relative, rounding } from '../tolerances.ts';

/**
 * The same mesh with normals by angle. At each vertex a polygon's corner takes the mean of its own normal and of those that are reached from it over edges that turn by no more than
 * the angle, each weighted by its angle at the vertex (Thürmer and Wüthrich, "Computing vertex normals from polygonal facets", J. Graphics Tools 3, 1998).
 * @param degrees greatest turn between two faces that are shaded as one.
 */
export function smoothed(mesh: CutMesh, degrees: number): CutMesh {
  const { points, vertices, polygonStart, polygonCorners, vertexCount } = mesh;
  const polygons = polygonStart.length - 1;
  const least = Math.cos((Math.min(degrees, 180) * Math.PI) / 180) - relative;
  /** The vertex at a place in `polygonCorners`. */
  const standing = (i: number): number => vertices[polygonCorners[i]!]!;
  const own = new Float64Array(3 * polygons);
  const weight = new Float64Array(polygonCorners.length);
  for (let p = 0; p < polygons; p++) {
    const [from, to] = [polygonStart[p]!, polygonStart[p + 1]!];
    const n = [0, 0, 0];
    for (let i = from; i < to; i++) {
      const [a, b] = [3 * standing(i), 3 * standing(i + 1 < to ? i + 1 : from)];
      for (let k = 0; k < 3; k++)
        n[k]! +=
          (points[a + ((k + 1) % 3)]! - points[b + ((k + 1) % 3)]!) *
          (points[a + ((k + 2) % 3)]! + points[b + ((k + 2) % 3)]!);
    }
    const size = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) own[3 * p + k] = n[k]! / size;
    for (let i = from; i < to; i++)
      weight[i] = angleAt(
        points,
        standing(i > from ? i - 1 : to - 1),
        standing(i),
        standing(i + 1 < to ? i + 1 : from),
      );
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

  // A corner that polygons share is divided where their normals differ now; the first of them keeps it.
  const normals = Array.from(mesh.normals);
  const uvs = Array.from(mesh.uvs);
  const standingOn = Array.from(vertices);
  const taken = new Uint8Array(vertices.length);
  const parts = new Map<number, number[]>();
  const given = new Uint32Array(polygonCorners.length);
  for (let v = 0; v < vertexCount; v++) {
    const around = at.subarray(start[v], start[v + 1]);
    for (const i of around) {
      const sum = [0, 0, 0];
      for (const j of reached(i, around))
        for (let k = 0; k < 3; k++) sum[k]! += weight[j]! * own[3 * polygonOf[j]! + k]!;
      const size = Math.hypot(...sum);
      const c = polygonCorners[i]!;
      const normal = size > rounding ? sum.map((x) => x / size) : [0, 1, 2].map((k) => mesh.normals[3 * c + k]!);
      given[i] = partOf(c, normal);
    }
  }
  return {
    ...mesh,
    normals: Float32Array.from(normals),
    uvs: Float32Array.from(uvs),
    vertices: Uint32Array.from(standingOn),
    polygonCorners: given,
    triangles: triangles(),
  };

  /** The part of a corner that has a normal. */
  function partOf(c: number, normal: readonly number[]): number {
    if (!taken[c]) {
      taken[c] = 1;
      for (let k = 0; k < 3; k++) normals[3 * c + k] = normal[k]!;
      return c;
    }
    const has = (d: number): boolean => normal.every((x, k) => Math.abs(normals[3 * d + k]! - x) < parallel);
    const found = has(c) ? c : parts.get(c)?.find(has);
    if (found !== undefined) return found;
    const part = standingOn.length;
    standingOn.push(vertices[c]!);
    normals.push(...normal);
    uvs.push(mesh.uvs[2 * c]!, mesh.uvs[2 * c + 1]!);
    parts.set(c, [...(parts.get(c) ?? []), part]);
    return part;
  }

  /** The triangles of each polygon, by its corners as they are given now. */
  function triangles(): Uint32Array {
    const out = mesh.triangles.slice();
    for (let p = 0, t = 0; p < polygons; p++) {
      const [from, to] = [polygonStart[p]!, polygonStart[p + 1]!];
      for (const end = t + 3 * (to - from - 2); t < end; t++) out[t] = given[polygonCorners.indexOf(out[t]!, from)]!;
    }
    return out;
  }

  /** The corners at a vertex that one is shaded with: from polygon to polygon that share an edge there and turn little. */
  function reached(from: number, around: Uint32Array): Set<number> {
    const found = new Set([from]);
    for (const i of found)
      for (const j of around) {
        if (found.has(j)) continue;
        const [p, q] = [3 * polygonOf[i]!, 3 * polygonOf[j]!];
        if (own[p]! * own[q]! + own[p + 1]! * own[q + 1]! + own[p + 2]! * own[q + 2]! >= least && shareEdge(i, j))
          found.add(j);
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
