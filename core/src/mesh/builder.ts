/** Building a CutMesh piece by piece, in arrays that grow. */
import type { CutMesh, Run } from './cut-mesh.ts';

/** Tags of a run that is begun. */
export type Tags = Pick<Run, 'opening' | 'role' | 'layer' | 'material'>;

export class MeshBuilder {
  private positions = new Float64Array(3 << 10);
  private normals = new Float32Array(3 << 10);
  private uvs = new Float32Array(2 << 10);
  private vertices = new Uint32Array(1 << 10);
  private triangles = new Uint32Array(3 << 10);
  private polygonStart = new Uint32Array(1 << 10);
  private polygonCorners = new Uint32Array(4 << 10);
  private readonly runs: Run[] = [];
  private corners = 0;
  private triangleCount = 0;
  private polygons = 0;
  private polygonEnd = 0;
  private points = new Float64Array(3 << 10);
  vertexCount = 0;

  constructor(private readonly element: string) {}

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
  begin({ opening, role, layer, material }: Tags): void {
    this.end();
    const last = this.runs.at(-1);
    if (last && last.opening === opening && last.role === role && last.layer === layer && last.material === material) return;
    this.runs.push({ first: this.triangleCount, count: 0, firstPolygon: this.polygons, polygons: 0, element: this.element, opening, role, layer, material });
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
      this.positions = grown(this.positions, 3 * room);
      this.normals = grown(this.normals, 3 * room);
      this.uvs = grown(this.uvs, 2 * room);
    }
    const { positions, normals, uvs, points } = this;
    positions[3 * c] = points[3 * vertex]!;
    positions[3 * c + 1] = points[3 * vertex + 1]!;
    positions[3 * c + 2] = points[3 * vertex + 2]!;
    normals[3 * c] = nx;
    normals[3 * c + 1] = ny;
    normals[3 * c + 2] = nz;
    uvs[2 * c] = u;
    uvs[2 * c + 1] = v;
    this.vertices[c] = vertex;
    return c;
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
    if (this.polygonEnd + count > this.polygonCorners.length) this.polygonCorners = grown(this.polygonCorners, this.polygonEnd + count);
    for (let i = 0; i < count; i++) this.polygonCorners[this.polygonEnd++] = corners[from + i]!;
    this.polygons += 1;
    if (this.polygons >= this.polygonStart.length) this.polygonStart = grown(this.polygonStart, this.polygons + 1);
    this.polygonStart[this.polygons] = this.polygonEnd;
  }

  /** A polygon of corners that follow one another. */
  polygonFrom(first: number, count: number): void {
    if (this.polygonEnd + count > this.polygonCorners.length) this.polygonCorners = grown(this.polygonCorners, this.polygonEnd + count);
    for (let i = 0; i < count; i++) this.polygonCorners[this.polygonEnd++] = first + i;
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
      positions: this.positions.slice(0, 3 * this.corners),
      normals: this.normals.slice(0, 3 * this.corners),
      uvs: this.uvs.slice(0, 2 * this.corners),
      vertices: this.vertices.slice(0, this.corners),
      vertexCount: this.vertexCount,
      triangles: this.triangles.slice(0, 3 * this.triangleCount),
      polygonStart: this.polygonStart.slice(0, this.polygons + 1),
      polygonCorners: this.polygonCorners.slice(0, this.polygonEnd),
      runs: this.runs,
    };
  }
}

function grown<T extends Float64Array | Float32Array | Uint32Array>(array: T, least: number): T {
  const more = new (array.constructor as new (length: number) => T)(Math.max(least, Math.ceil(array.length * 1.7)));
  more.set(array as never);
  return more;
}
