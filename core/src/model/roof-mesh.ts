/** The mesh of a roof: its planes as they were cut, joined where they meet, and the upright sides between its surfaces. */
import type { Layer, Trims } from '@yard-arch/document';
import type { RoofBody } from '../element/roof-sheets.ts';
import { buriedOf, uprightsOf, type Upright } from '../element/roof-sides.ts';
import { trimsOf, type Trim } from '../element/roof-trims.ts';
import { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { cross, minus, dot, newell, type Vector } from '../vector.ts';
import type { Skin } from '../cut/setting.ts';

/** Joins the planes of one skin, each with its rim's vertices first, to a closed mesh. @param planes in the order of the body's */
export function roofMesh(
  body: RoofBody,
  { id, layers }: { id: string; layers: readonly Layer[] },
  planes: readonly CutMesh[],
  skin: Skin,
): CutMesh {
  const builder = new MeshBuilder(id);
  const joints = new Map<string, number>();
  const same = new Map<number, number>();
  const join = (vertex: number, point: readonly number[]): void => {
    const key = point.join(' ');
    const known = joints.get(key);
    if (known === undefined) joints.set(key, vertex);
    else same.set(vertex, known);
  };
  makeRoom(builder, planes);
  planes.forEach((mesh, i) => {
    const { outer, inner } = body.planes[i]!.sheet.rim!(skin.from, skin.to);
    const base = builder.takePoints(mesh.points);
    builder.append(mesh, base);
    let vertex = base;
    for (const { points } of [...outer, ...inner]) for (const point of points) join(vertex++, point);
  });
  const write = (flat: Upright, role: 'edge' | 'outer face' | 'inner face'): void => {
    const base = builder.takePoints(Float64Array.from(flat.points.flat()));
    flat.points.forEach((point, k) => join(base + k, point));
    writeFlat(builder, flat, base, { role, material: layers[flat.layer]!.material });
  };
  for (const upright of uprightsOf(body, skin.from, skin.to)) write(upright, 'edge');
  for (const flat of buriedOf(body, skin.from, skin.to)) write(flat, flat.role);
  return joined(builder.finish(), same);
}

/** Room for meshes and for what stands between them, so that nothing has to be copied as they come. */
function makeRoom(builder: MeshBuilder, meshes: readonly CutMesh[]): void {
  const sum = (count: (mesh: CutMesh) => number): number => meshes.reduce((so, mesh) => so + count(mesh), 0);
  const between = 64 * meshes.length;
  builder.reserve(
    sum(({ vertexCount }) => vertexCount) + between,
    sum(({ vertices }) => vertices.length) + between,
    sum(({ triangles }) => triangles.length / 3) + between,
    sum(({ polygonStart }) => polygonStart.length) + between,
    sum(({ polygonCorners }) => polygonCorners.length) + 3 * between,
  );
}

/** The trims of a roof, each a closed solid of its own. */
export const trimMesh = (body: RoofBody, id: string, trims: Trims): CutMesh => solidsMesh(id, trimsOf(body, trims));

/** Solids of flat polygons as one mesh. */
export function solidsMesh(id: string, solids: readonly Trim[]): CutMesh {
  const builder = new MeshBuilder(id);
  for (const { points, polygons, material } of solids) {
    const base = builder.takePoints(Float64Array.from(points.flat()));
    builder.begin({ opening: null, role: 'part', layer: 0, material });
    for (const polygon of polygons) writePolygon(builder, points, polygon, base);
  }
  return builder.finish();
}

/** A flat polygon, its texture along its longest side. */
function writePolygon(builder: MeshBuilder, points: readonly Vector[], polygon: readonly number[], base: number): void {
  const at = polygon.map((v) => points[v]!);
  const normal = newell(at);
  const out = normal.map((v) => v / Math.sqrt(dot(normal, normal))) as unknown as Vector;
  let along: Vector = [1, 0, 0];
  let most = 0;
  at.forEach((a, i) => {
    const side = minus(at[(i + 1) % at.length]!, a);
    const size = Math.sqrt(dot(side, side));
    if (size > most) [most, along] = [size, side.map((v) => v / size) as unknown as Vector];
  });
  const up = cross(out, along);
  const [xs, ys] = [at.map((p) => dot(along, p)), at.map((p) => dot(up, p))];
  const triangles = triangulate({
    count: at.length,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(at, (_, i) => (i + 1) % at.length),
  });
  const first = builder.cornerCount;
  at.forEach((_, i) => builder.corner(base + polygon[i]!, out[0], out[1], out[2], xs[i]!, ys[i]!));
  const quad = at.length === 4 ? quadOf(triangles) : null;
  if (quad) builder.pairBlock(first, quad, 1, false);
  else builder.triangleBlock(first, triangles, false);
}

function writeFlat(
  builder: MeshBuilder,
  { points, xs, ys, layer }: Upright,
  base: number,
  { role, material }: { role: 'edge' | 'outer face' | 'inner face'; material: string },
): void {
  const count = points.length;
  const triangles = triangulate({
    count,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(xs, (_, i) => (i + 1) % count),
  });
  const normal = facing(points, triangles);
  builder.begin({ opening: null, role, layer, material });
  const first = builder.cornerCount;
  for (let i = 0; i < count; i++) builder.corner(base + i, ...normal, xs[i]!, ys[i]!);
  // Two triangles over the same four corners are a quad.
  const quad = count === 4 && triangles.length === 6 ? quadOf(triangles) : null;
  if (quad) builder.pairBlock(first, quad, 1, false);
  else builder.triangleBlock(first, triangles, false);
}

/** Two triangles as p, q, r and p, r, s. */
function quadOf(triangles: Uint32Array): number[] {
  const [a, b] = [[...triangles.subarray(0, 3)], [...triangles.subarray(3, 6)]];
  const q = a.findIndex((v) => !b.includes(v));
  const [p, r] = [a[(q + 2) % 3]!, a[(q + 1) % 3]!];
  const s = b.find((v) => !a.includes(v))!;
  return [p, a[q]!, r, p, r, s];
}

function facing(points: readonly Vector[], triangles: Uint32Array): [number, number, number] {
  let best: Vector = [0, 0, 1];
  let most = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => points[triangles[i + k]!]!) as [Vector, Vector, Vector];
    const normal = cross(minus(b, a), minus(c, a));
    const size = Math.sqrt(dot(normal, normal));
    if (size > most) [most, best] = [size, normal];
  }
  return best.map((v) => v / (most || 1)) as [number, number, number];
}

/** A mesh with vertices that are the same made one. */
function joined(mesh: CutMesh, same: ReadonlyMap<number, number>): CutMesh {
  if (same.size === 0) return mesh;
  const { vertexCount } = mesh;
  const to = new Uint32Array(vertexCount);
  const points = new Float64Array(3 * (vertexCount - same.size));
  const gone = [...same.keys()].sort((a, b) => a - b);
  let count = 0;
  let from = 0;
  // Between two that go, all move up by as much.
  for (const end of [...gone, vertexCount]) {
    points.set(mesh.points.subarray(3 * from, 3 * end), 3 * count);
    for (let v = from; v < end; v++) to[v] = count++;
    from = end + 1;
  }
  for (const v of gone) to[v] = to[same.get(v)!]!;
  const vertices = new Uint32Array(mesh.vertices.length);
  for (let c = 0; c < vertices.length; c++) vertices[c] = to[mesh.vertices[c]!]!;
  return { ...mesh, points, vertexCount: count, vertices };
}
