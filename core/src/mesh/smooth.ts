/** Smooth normals by a set angle: neighbouring faces that turn by no more than it are shaded as one, all others apart. */
import type { CutMesh } from './cut-mesh.ts';
import { parallel, relative, rounding } from '../tolerances.ts';

/**
 * The same mesh with normals by angle. At each vertex a polygon's corner takes the mean of its own normal and of those that are reached from it over edges that turn by no more than
 * the angle, each weighted by its angle at the vertex (Thürmer and Wüthrich, "Computing vertex normals from polygonal facets", J. Graphics Tools 3, 1998).
 * @param degrees greatest turn between two faces that are shaded as one.
 */
export function smoothed(mesh: CutMesh, degrees: number): CutMesh {
  const { vertices, polygonCorners, vertexCount } = mesh;
  const around = new Around(mesh, Math.cos((Math.min(degrees, 180) * Math.PI) / 180) - relative);
  const corners = new Corners(mesh);
  const given = new Uint32Array(polygonCorners.length);
  for (let v = 0; v < vertexCount; v++)
    for (const i of around.places(v)) {
      const c = polygonCorners[i]!;
      const normal = around.normalAt(i, v) ?? [0, 1, 2].map((k) => mesh.normals[3 * c + k]!);
      given[i] = corners.with(c, normal, vertices[c]!);
    }
  return {
    ...mesh,
    normals: Float32Array.from(corners.normals),
    uvs: Float32Array.from(corners.uvs),
    vertices: Uint32Array.from(corners.vertices),
    polygonCorners: given,
    triangles: trianglesOf(mesh, given),
  };
}

/** The triangles of each polygon, by its corners as they are given now. */
function trianglesOf({ triangles, polygonStart, polygonCorners }: CutMesh, given: Uint32Array): Uint32Array {
  const out = triangles.slice();
  for (let p = 0, t = 0; p + 1 < polygonStart.length; p++) {
    const [from, to] = [polygonStart[p]!, polygonStart[p + 1]!];
    for (const end = t + 3 * (to - from - 2); t < end; t++) out[t] = given[polygonCorners.indexOf(out[t]!, from)]!;
  }
  return out;
}

/** The corners of a mesh: one that polygons share is divided where their normals differ now, and the first of them keeps it. */
class Corners {
  readonly normals: number[];
  readonly uvs: number[];
  readonly vertices: number[];
  private readonly taken: Uint8Array;
  private readonly parts = new Map<number, number[]>();

  constructor({ normals, uvs, vertices }: CutMesh) {
    this.normals = Array.from(normals);
    this.uvs = Array.from(uvs);
    this.vertices = Array.from(vertices);
    this.taken = new Uint8Array(vertices.length);
  }

  /** The part of a corner that has a normal. */
  with(c: number, normal: readonly number[], vertex: number): number {
    const { normals, uvs, taken } = this;
    if (!taken[c]) {
      taken[c] = 1;
      for (let k = 0; k < 3; k++) normals[3 * c + k] = normal[k]!;
      return c;
    }
    const has = (d: number): boolean => normal.every((x, k) => Math.abs(normals[3 * d + k]! - x) < parallel);
    const found = has(c) ? c : this.parts.get(c)?.find(has);
    if (found !== undefined) return found;
    const part = this.vertices.length;
    this.vertices.push(vertex);
    normals.push(...normal);
    uvs.push(uvs[2 * c]!, uvs[2 * c + 1]!);
    this.parts.set(c, [...(this.parts.get(c) ?? []), part]);
    return part;
  }
}

/** What lies around each vertex. Polygons' corners are told by their places in `polygonCorners`. */
class Around {
  /** Each polygon's own normal. */
  private readonly own: Float64Array;
  /** Each corner's angle. */
  private readonly weight: Float64Array;
  private readonly polygonOf: Uint32Array;
  private readonly start: Uint32Array;
  private readonly at: Uint32Array;

  /** @param least the cosine of the greatest turn between two polygons that are shaded as one */
  constructor(
    private readonly mesh: CutMesh,
    private readonly least: number,
  ) {
    const { vertices, polygonStart, polygonCorners, vertexCount } = mesh;
    const polygons = polygonStart.length - 1;
    this.own = new Float64Array(3 * polygons);
    this.weight = new Float64Array(polygonCorners.length);
    this.polygonOf = new Uint32Array(polygonCorners.length);
    this.start = new Uint32Array(vertexCount + 1);
    this.at = new Uint32Array(polygonCorners.length);
    for (let p = 0; p < polygons; p++) this.measure(p);
    for (const c of polygonCorners) this.start[vertices[c]! + 1]! += 1;
    for (let v = 0; v < vertexCount; v++) this.start[v + 1]! += this.start[v]!;
    const fill = this.start.slice();
    for (let i = 0; i < polygonCorners.length; i++) this.at[fill[vertices[polygonCorners[i]!]!]!++] = i;
  }

  /** A polygon's normal, and the angles of its corners. */
  private measure(p: number): void {
    const { points, polygonStart } = this.mesh;
    const [from, to] = [polygonStart[p]!, polygonStart[p + 1]!];
    const n = [0, 0, 0];
    for (let i = from; i < to; i++) {
      this.polygonOf[i] = p;
      const [before, v, after] = [
        this.standing(i > from ? i - 1 : to - 1),
        this.standing(i),
        this.standing(i + 1 < to ? i + 1 : from),
      ];
      this.weight[i] = angleAt(points, before, v, after);
      const [a, b] = [3 * v, 3 * after];
      for (let k = 0; k < 3; k++)
        n[k]! +=
          (points[a + ((k + 1) % 3)]! - points[b + ((k + 1) % 3)]!) *
          (points[a + ((k + 2) % 3)]! + points[b + ((k + 2) % 3)]!);
    }
    const size = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) this.own[3 * p + k] = n[k]! / size;
  }

  private standing(i: number): number {
    return this.mesh.vertices[this.mesh.polygonCorners[i]!]!;
  }

  places(vertex: number): Uint32Array {
    return this.at.subarray(this.start[vertex], this.start[vertex + 1]);
  }

  /** The mean normal of all that a corner is shaded with; null where they cancel out. */
  normalAt(i: number, vertex: number): number[] | null {
    const sum = [0, 0, 0];
    for (const j of this.reached(i, this.places(vertex)))
      for (let k = 0; k < 3; k++) sum[k]! += this.weight[j]! * this.own[3 * this.polygonOf[j]! + k]!;
    const size = Math.hypot(...sum);
    return size > rounding ? sum.map((x) => x / size) : null;
  }

  /** The corners at a vertex that one is shaded with: from polygon to polygon that share an edge there and turn little. */
  private reached(from: number, around: Uint32Array): Set<number> {
    const { own, polygonOf } = this;
    const found = new Set([from]);
    for (const i of found)
      for (const j of around) {
        if (found.has(j)) continue;
        const [p, q] = [3 * polygonOf[i]!, 3 * polygonOf[j]!];
        const turn = own[p]! * own[q]! + own[p + 1]! * own[q + 1]! + own[p + 2]! * own[q + 2]!;
        if (turn >= this.least && this.shareEdge(i, j)) found.add(j);
      }
    return found;
  }

  /** Whether two polygons that meet at a vertex also have an edge there in common: the one's way on is the other's way back. */
  private shareEdge(i: number, j: number): boolean {
    return this.neighbour(i, 1) === this.neighbour(j, -1) || this.neighbour(i, -1) === this.neighbour(j, 1);
  }

  private neighbour(i: number, step: 1 | -1): number {
    const { polygonStart } = this.mesh;
    const [from, to] = [polygonStart[this.polygonOf[i]!]!, polygonStart[this.polygonOf[i]! + 1]!];
    const k = i + step;
    return this.standing(k < from ? to - 1 : k >= to ? from : k);
  }
}

function angleAt(points: Float64Array, a: number, b: number, c: number): number {
  const u = [0, 1, 2].map((k) => points[3 * a + k]! - points[3 * b + k]!);
  const w = [0, 1, 2].map((k) => points[3 * c + k]! - points[3 * b + k]!);
  const dot = u[0]! * w[0]! + u[1]! * w[1]! + u[2]! * w[2]!;
  return Math.acos(Math.max(-1, Math.min(1, dot / (Math.hypot(...u) * Math.hypot(...w) || 1))));
}
