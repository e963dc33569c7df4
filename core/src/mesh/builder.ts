/** Building a CutMesh piece by piece, in arrays that grow. */
import type { CutMesh, Run } from './cut-mesh.ts';
import { cornersAlike as alike } from '../tolerances.ts';

/** Tags of a run that is begun. */
export type Tags = Pick<Run, 'opening' | 'role' | 'layer' | 'material' | 'face'>;

/** Where a mesh that was made elsewhere is put: for which opening, or openings that it tells by their numbers, and how far along and up its texture goes, metres. */
export interface Place {
  opening: string;
  others?: readonly string[];
  u: number;
  v: number;
}

/** A place in a mesh that is being written: how many there are of each so far. */
export interface Mark {
  corner: number;
  triangle: number;
  polygon: number;
  polygonCorner: number;
  run: number;
}

export class MeshBuilder {
  private normals = new Float32Array(0);
  private uvs = new Float32Array(0);
  private vertices = new Uint32Array(0);
  private triangles = new Uint32Array(0);
  private polygonStart = new Uint32Array(1);
  private polygonCorners = new Uint32Array(0);
  private readonly runs: Run[] = [];
  private corners = 0;
  private triangleCount = 0;
  private polygons = 0;
  private polygonEnd = 0;
  private points = new Float64Array(0);
  /** By vertex its last shared corner, by corner the one before on its vertex, and the first corner of the run that is being written. */
  private readonly newest: number[] = [];
  private readonly older: number[] = [];
  private runCorner = 0;
  vertexCount = 0;

  constructor(private readonly element: string) {}

  /** Makes room for so many more of each, so that nothing has to be copied as they come. */
  reserve(vertices: number, corners: number, triangles: number, polygons: number, polygonCorners: number): void {
    const short = (array: { length: number }, need: number): boolean => need > array.length;
    const c = this.corners + corners;
    if (short(this.vertices, c)) {
      this.vertices = grown(this.vertices, c, 1);
      const room = this.vertices.length;
      this.normals = grown(this.normals, 3 * room, 1);
      this.uvs = grown(this.uvs, 2 * room, 1);
    }
    const t = 3 * (this.triangleCount + triangles);
    if (short(this.triangles, t)) this.triangles = grown(this.triangles, t, 1);
    const p = this.polygons + polygons + 1;
    if (short(this.polygonStart, p)) this.polygonStart = grown(this.polygonStart, p, 1);
    const e = this.polygonEnd + polygonCorners;
    if (short(this.polygonCorners, e)) this.polygonCorners = grown(this.polygonCorners, e, 1);
    const v = 3 * (this.vertexCount + vertices);
    if (short(this.points, v)) this.points = grown(this.points, v, 1);
  }

  /** Takes vertices that stand at given points, or so far from them. @returns the first of them. */
  takePoints(own: Float64Array, shift: { x: number; y: number; z: number } | null = null): number {
    const first = this.takeVertices(own.length / 3);
    if (!shift) this.points.set(own, 3 * first);
    else {
      const { points } = this;
      const { x, y, z } = shift;
      for (let i = 0, at = 3 * first; i < own.length; i += 3, at += 3) {
        points[at] = own[i]! + x;
        points[at + 1] = own[i + 1]! + y;
        points[at + 2] = own[i + 2]! + z;
      }
    }
    return first;
  }

  /** Where all vertices stand, x, y, z. */
  pointsOf(): Float64Array {
    return this.points.slice(0, 3 * this.vertexCount);
  }

  /**
   * Writes all of another mesh, its vertices from `vertex` on, which stand in their places already.
   * @param place for which opening, and how far along and up its texture goes, metres.
   */
  append(mesh: CutMesh, vertex: number, place?: Place): void {
    const { vertices, triangles, polygonStart, polygonCorners } = mesh;
    const polygons = polygonStart.length - 1;
    const count = vertices.length;
    this.reserve(0, count, triangles.length / 3, polygons, polygonCorners.length);
    this.end();
    const c = this.corners;
    const { uvs } = this;
    this.normals.set(mesh.normals, 3 * c);
    if (place) {
      const { u, v } = place;
      const own = mesh.uvs;
      for (let i = 0, at = 2 * c; i < 2 * count; i += 2, at += 2) {
        uvs[at] = own[i]! + u;
        uvs[at + 1] = own[i + 1]! + v;
      }
    } else uvs.set(mesh.uvs, 2 * c);
    shifted(vertices, vertex, this.vertices, c);
    shifted(triangles, c, this.triangles, 3 * this.triangleCount);
    const e = this.polygonEnd;
    shifted(polygonCorners, c, this.polygonCorners, e);
    shifted(polygonStart, e, this.polygonStart, this.polygons);
    this.corners += vertices.length;
    this.polygonEnd += polygonCorners.length;
    const { element, runs } = this;
    for (const run of mesh.runs) {
      const { count, role, layer, material, face } = run;
      // Runs of an opening's own do not go on with those of another.
      if (place)
        runs.push({
          first: this.triangleCount,
          count,
          firstPolygon: this.polygons,
          polygons: run.polygons,
          element,
          opening: place.others && run.opening !== null ? place.others[Number(run.opening)]! : place.opening,
          role,
          layer,
          material,
          ...(face === undefined ? {} : { face }),
        });
      else this.begin(run);
      this.triangleCount += count;
      this.polygons += run.polygons;
    }
  }

  /** Where writing has come to. */
  mark(): Mark {
    this.end();
    return {
      corner: this.corners,
      triangle: this.triangleCount,
      polygon: this.polygons,
      polygonCorner: this.polygonEnd,
      run: this.runs.length,
    };
  }

  /**
   * Writes what stands in another mesh between two marks, which begins and ends with runs of its own.
   * @param by how much higher its vertices are numbered here.
   */
  carry(mesh: CutMesh, from: Mark, to: Mark, by: number): void {
    this.end();
    const [c, t, p, e] = [this.corners, this.triangleCount, this.polygons, this.polygonEnd];
    this.reserve(
      0,
      to.corner - from.corner,
      to.triangle - from.triangle,
      to.polygon - from.polygon,
      to.polygonCorner - from.polygonCorner,
    );
    this.normals.set(mesh.normals.subarray(3 * from.corner, 3 * to.corner), 3 * c);
    this.uvs.set(mesh.uvs.subarray(2 * from.corner, 2 * to.corner), 2 * c);
    shifted(mesh.vertices.subarray(from.corner, to.corner), by, this.vertices, c);
    const corners = c - from.corner;
    shifted(mesh.triangles.subarray(3 * from.triangle, 3 * to.triangle), corners, this.triangles, 3 * t);
    shifted(mesh.polygonCorners.subarray(from.polygonCorner, to.polygonCorner), corners, this.polygonCorners, e);
    shifted(mesh.polygonStart.subarray(from.polygon, to.polygon + 1), e - from.polygonCorner, this.polygonStart, p);
    for (let i = from.run; i < to.run; i++) {
      // Field by field: spreading one is slower by far, and there are many.
      const { first, count, firstPolygon, polygons, element, opening, role, layer, material, face } = mesh.runs[i]!;
      this.runs.push({
        first: first + t - from.triangle,
        count,
        firstPolygon: firstPolygon + p - from.polygon,
        polygons,
        element,
        opening,
        role,
        layer,
        material,
        ...(face === undefined ? {} : { face }),
      });
    }
    this.corners += to.corner - from.corner;
    this.triangleCount += to.triangle - from.triangle;
    this.polygons += to.polygon - from.polygon;
    this.polygonEnd += to.polygonCorner - from.polygonCorner;
  }

  /** Writes all of another closed mesh that stands by itself, in its own place. */
  add(mesh: CutMesh): void {
    this.append(mesh, this.takePoints(mesh.points));
  }

  /** Writes triangles of corners, of which the first make pairs (p, q, r), (p, r, s) that are polygons p, q, r, s. */
  pairBlock(first: number, triangles: ArrayLike<number>, pairs: number, flip: boolean): void {
    const order = flip ? [0, 3, 2, 1] : [0, 1, 2, 3];
    for (let i = 0; i < 6 * pairs; i += 6) {
      const round = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!, triangles[i + 5]!].map((c) => first + c);
      const [p, q, r, s] = order.map((k) => round[k]!) as [number, number, number, number];
      this.triangle(p, q, r);
      this.triangle(p, r, s);
      this.polygon([p, q, r, s]);
    }
    this.triangleBlock(first, pairs > 0 ? Array.from(triangles).slice(6 * pairs) : triangles, flip);
  }

  /** Writes triangles of corners, each a polygon of its own. */
  triangleBlock(first: number, triangles: ArrayLike<number>, flip: boolean): void {
    const count = triangles.length / 3;
    this.reserve(0, 0, count, count, 3 * count);
    const t = 3 * this.triangleCount;
    const e = this.polygonEnd;
    const { polygonStart, polygons, triangles: own } = this;
    const [second, third] = flip ? [2, 1] : [1, 2];
    for (let i = 0; i < triangles.length; i += 3) {
      own[t + i] = first + triangles[i]!;
      own[t + i + 1] = first + triangles[i + second]!;
      own[t + i + 2] = first + triangles[i + third]!;
    }
    this.polygonCorners.set(own.subarray(t, t + 3 * count), e);
    for (let p = 1; p <= count; p++) polygonStart[polygons + p] = e + 3 * p;
    this.triangleCount += count;
    this.polygons += count;
    this.polygonEnd += 3 * count;
  }

  /** Takes so many new vertices. @returns the first of them. */
  takeVertices(count: number): number {
    const first = this.vertexCount;
    this.vertexCount += count;
    if (3 * this.vertexCount > this.points.length) this.points = grown(this.points, 3 * this.vertexCount);
    return first;
  }

  /** Says where a vertex stands. */
  put(vertex: number, x: number, y: number, z: number): void {
    this.points[3 * vertex] = x;
    this.points[3 * vertex + 1] = y;
    this.points[3 * vertex + 2] = z;
  }

  /** Begins a run, or goes on with the last where all tags agree. */
  begin({ opening, role, layer, material, face }: Tags): void {
    this.end();
    const last = this.runs.at(-1);
    if (
      last &&
      last.opening === opening &&
      last.role === role &&
      last.layer === layer &&
      last.material === material &&
      last.face === face
    )
      return;
    this.runCorner = this.corners;
    this.runs.push({
      first: this.triangleCount,
      count: 0,
      firstPolygon: this.polygons,
      polygons: 0,
      element: this.element,
      opening,
      role,
      layer,
      material,
      ...(face === undefined ? {} : { face }),
    });
  }

  private end(): void {
    const last = this.runs.at(-1);
    if (!last) return;
    last.count = this.triangleCount - last.first;
    last.polygons = this.polygons - last.firstPolygon;
    if (last.count === 0) this.runs.pop();
  }

  /** A corner on a vertex, with a normal and texture. */
  corner(vertex: number, nx: number, ny: number, nz: number, u: number, v: number): number {
    const c = this.corners++;
    if (c >= this.vertices.length) {
      this.vertices = grown(this.vertices, this.corners);
      const room = this.vertices.length;
      this.normals = grown(this.normals, 3 * room);
      this.uvs = grown(this.uvs, 2 * room);
    }
    const { normals, uvs } = this;
    normals[3 * c] = nx;
    normals[3 * c + 1] = ny;
    normals[3 * c + 2] = nz;
    uvs[2 * c] = u;
    uvs[2 * c + 1] = v;
    this.vertices[c] = vertex;
    return c;
  }

  /** A corner on a vertex, with a normal and texture: one that the run has there already, or a new one. */
  sharedCorner(vertex: number, nx: number, ny: number, nz: number, u: number, v: number): number {
    const { normals, uvs } = this;
    for (let c = this.newest[vertex] ?? -1; c >= this.runCorner; c = this.older[c]!) {
      const turn =
        Math.abs(normals[3 * c]! - nx) + Math.abs(normals[3 * c + 1]! - ny) + Math.abs(normals[3 * c + 2]! - nz);
      if (turn < alike && Math.abs(uvs[2 * c]! - u) + Math.abs(uvs[2 * c + 1]! - v) < alike) return c;
    }
    const c = this.corner(vertex, nx, ny, nz, u, v);
    this.older[c] = this.newest[vertex] ?? -1;
    this.newest[vertex] = c;
    return c;
  }

  /** Corners on vertices of a flat face: one normal, texture that goes along x (from `u` on, forwards or back) and up y. @returns the first of them. */
  flatCorners(
    vertices: Uint32Array,
    xs: Float64Array,
    ys: Float64Array,
    nx: number,
    ny: number,
    nz: number,
    u: number,
    forward: 1 | -1,
  ): number {
    const count = vertices.length;
    this.reserve(0, count, 0, 0, 0);
    const first = this.corners;
    const { normals, uvs } = this;
    this.vertices.set(vertices, first);
    for (let i = 0, at = 3 * first, uv = 2 * first; i < count; i++, at += 3, uv += 2) {
      normals[at] = nx;
      normals[at + 1] = ny;
      normals[at + 2] = nz;
      uvs[uv] = u + forward * xs[i]!;
      uvs[uv + 1] = ys[i]!;
    }
    this.corners += count;
    return first;
  }

  triangle(a: number, b: number, c: number): void {
    const at = 3 * this.triangleCount++;
    if (at + 3 > this.triangles.length) this.triangles = grown(this.triangles, at + 3);
    const { triangles } = this;
    triangles[at] = a;
    triangles[at + 1] = b;
    triangles[at + 2] = c;
  }

  /** A polygon of corners, whose triangles have been given or will be. */
  polygon(corners: ArrayLike<number>, from = 0, count = corners.length): void {
    if (this.polygonEnd + count > this.polygonCorners.length)
      this.polygonCorners = grown(this.polygonCorners, this.polygonEnd + count);
    for (let i = 0; i < count; i++) this.polygonCorners[this.polygonEnd++] = corners[from + i]!;
    this.polygons += 1;
    if (this.polygons >= this.polygonStart.length) this.polygonStart = grown(this.polygonStart, this.polygons + 1);
    this.polygonStart[this.polygons] = this.polygonEnd;
  }

  get cornerCount(): number {
    return this.corners;
  }

  finish(): CutMesh {
    this.end();
    return {
      points: trimmed(this.points, 3 * this.vertexCount),
      normals: trimmed(this.normals, 3 * this.corners),
      uvs: trimmed(this.uvs, 2 * this.corners),
      vertices: trimmed(this.vertices, this.corners),
      vertexCount: this.vertexCount,
      triangles: trimmed(this.triangles, 3 * this.triangleCount),
      polygonStart: trimmed(this.polygonStart, this.polygons + 1),
      polygonCorners: trimmed(this.polygonCorners, this.polygonEnd),
      runs: this.runs,
    };
  }
}

/** Copies whole numbers to another array from a place on, each made greater by as much. */
function shifted(from: Uint32Array, by: number, to: Uint32Array, at: number): void {
  if (by === 0) return to.set(from, at);
  const count = from.length;
  for (let i = 0; i < count; i++) to[at + i] = from[i]! + by;
}

function grown<T extends Float64Array | Float32Array | Uint32Array>(array: T, least: number, factor = 1.7): T {
  const more = new (array.constructor as new (length: number) => T)(
    Math.max(
      least,
      factor === 1 ? 0 : 16,
      Math.ceil(array.length * (factor === 1 && least > 2 * array.length ? 1 : 1.7)),
    ),
  );
  more.set(array as never);
  return more;
}

/** The used part of an array: itself where all of it is used. */
function trimmed<T extends Float64Array | Float32Array | Uint32Array>(array: T, count: number): T {
  return array.length === count ? array : (array.slice(0, count) as T);
}

/** Solids as one mesh; the very same where there is one. */
export function together(id: string, solids: readonly CutMesh[]): CutMesh {
  if (solids.length === 1) return solids[0]!;
  const builder = new MeshBuilder(id);
  for (const one of solids) builder.add(one);
  return builder.finish();
}
