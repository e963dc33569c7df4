/** The solid path proper: booleans by a library on input whose every face is tagged, so that the result still knows which face came from what. */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { MeshBuilder } from '../mesh/builder.ts';
import { flatFacesAnew } from '../mesh/flat-faces.ts';
import { isClean, isClosed } from '../mesh/proof.ts';
import { cornerAt, type CutMesh, type Run } from '../mesh/cut-mesh.ts';
import type { Placed } from '../setout/placed.ts';
import { cutterPiece } from './piece.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Setting, Skin } from './setting.ts';
import { AtFault } from './skin.ts';
import type { SolidPath } from './solid-path.ts';
import { cross, dot, minus, type Vector } from '../vector.ts';
import { solidGrain as grain, solidMatched, solidSimplified, verticesAlike as thinnest } from '../tolerances.ts';

interface Source {
  mesh: CutMesh;
  /** For each face that the library knows, a triangle of it, and the run that it is in. */
  triangle: number[];
  run: Run[];
}

/** The solid path by a loaded library. */
export function taggedSolids(library: ManifoldToplevel): SolidPath {
  return (plain, setting, openings, others = []) => {
    const made: Manifold[] = [];
    const sources = new Map<number, Source>();
    const place = placeOf(plain, setting);
    const keep = <T extends Manifold>(solid: T): T => {
      made.push(solid);
      return solid;
    };
    try {
      const whole = (mesh: CutMesh, flip: boolean): Manifold => {
        const id = library.Manifold.reserveIDs(1);
        const source = sourceOf(mesh);
        sources.set(id, source.source);
        const points = place.local(mesh.points);
        const triVerts = Uint32Array.from(mesh.triangles, (c) => mesh.vertices[c]!);
        if (flip)
          for (let i = 0; i < triVerts.length; i += 3)
            [triVerts[i + 1], triVerts[i + 2]] = [triVerts[i + 2]!, triVerts[i + 1]!];
        return keep(
          new library.Manifold(
            new library.Mesh({
              numProp: 3,
              vertProperties: points,
              triVerts,
              runIndex: Uint32Array.from([0, triVerts.length]),
              runOriginalID: Uint32Array.from([id]),
              faceID: source.faces,
            }),
          ),
        );
      };
      let result = whole(plain, false);
      const asked = [{ setting, openings }, ...others].flatMap((one) =>
        one.openings.flatMap((opening) => cutterOf(one.setting, opening) ?? []),
      );
      // What is kept first, then what is added, then all that is taken away.
      for (const { mesh, use } of asked) if (use === 'keep') result = keep(result.intersect(whole(mesh, false)));
      for (const { mesh, use } of asked) if (use === 'add') result = keep(result.add(whole(mesh, false)));
      const voids = asked.filter(({ use }) => use === 'subtract').map(({ mesh }) => whole(mesh, true));
      if (voids.length > 0) result = keep(result.subtract(keep(library.Manifold.union(voids))));
      const element = plain.runs[0]?.element ?? '';
      const from = (solid: Manifold, tidy: boolean): CutMesh => tagged(solid, sources, element, { place, tidy });
      const clean = from(result, true);
      if (isClean(clean)) return clean;
      // The library smooths slivers away that rounding leaves, but now and then more than those.
      const smooth = keep(result.simplify(solidSimplified));
      const smoothed = from(smooth, true);
      if (isClean(smoothed) && Math.abs(smooth.volume() - result.volume()) < solidMatched) return smoothed;
      // Where joining what lies together would close a gap that is meant, the library's own vertices stand.
      return isClosed(clean) ? clean : from(result, false);
    } finally {
      for (const solid of made) solid.delete();
    }
  };
}

/** What openings take away or add, by the opening in its place, for the skin of a sheet in which it was made: after an edit most are asked for again. */
const cutters = new WeakMap<Placed, { sheet: Sheet; skin: Skin; made: ReturnType<typeof cutterPiece> }>();

/** What an opening takes away or adds. @throws AtFault */
function cutterOf(setting: Setting, opening: Placed): ReturnType<typeof cutterPiece> {
  const { sheet, skin } = setting;
  const known = cutters.get(opening);
  if (known && known.sheet === sheet && sameSkin(known.skin, skin)) return known.made;
  try {
    const made = cutterPiece(setting, opening);
    cutters.set(opening, { sheet, skin, made });
    return made;
  } catch (error) {
    throw new AtFault([opening], error);
  }
}

const sameSkin = (a: Skin, b: Skin): boolean => a.from === b.from && a.to === b.to && a.whole === b.whole;

/** Where the library works: near the origin 32-bit figures are fine enough, and along a flat face's own directions faces that lie on each other have the very same ones. */
interface Place {
  local: (points: Float64Array) => Float32Array;
  world: (x: number, y: number, z: number) => [number, number, number];
}

function placeOf(plain: CutMesh, { sheet: { chart } }: Setting): Place {
  const flat = chart.kind === 'flat';
  const [ox, oy, oz] = flat
    ? chart.origin
    : ([plain.points[0] ?? 0, plain.points[1] ?? 0, plain.points[2] ?? 0] as const);
  const [a, b, c] = flat
    ? [chart.along, chart.inward, chart.up]
    : ([
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as const);
  const rounded = (value: number): number => Math.round(value / grain) * grain;
  return {
    local: (points) => {
      const out = new Float32Array(points.length);
      for (let i = 0; i < points.length; i += 3) {
        const [x, y, z] = [points[i]! - ox, points[i + 1]! - oy, points[i + 2]! - oz];
        out[i] = rounded(x * a[0] + y * a[1] + z * a[2]);
        out[i + 1] = rounded(x * b[0] + y * b[1] + z * b[2]);
        out[i + 2] = rounded(x * c[0] + y * c[1] + z * c[2]);
      }
      return out;
    },
    world: (x, y, z) => [
      ox + x * a[0] + y * b[0] + z * c[0],
      oy + x * a[1] + y * b[1] + z * c[1],
      oz + x * a[2] + y * b[2] + z * c[2],
    ],
  };
}

/** Faces that the library is to keep apart: each polygon of a reveal, and each plane of a face. */
function sourceOf(mesh: CutMesh): { source: Source; faces: Uint32Array } {
  const faces = new Uint32Array(mesh.triangles.length / 3);
  const source: Source = { mesh, triangle: [], run: [] };
  for (const run of mesh.runs) {
    const planes = new Map<string, number>();
    const flat =
      run.role === 'outer face' || run.role === 'inner face' || run.role === 'back' || run.role === 'boss face';
    const polygon = polygonOf(mesh, run);
    for (let i = run.first; i < run.first + run.count; i++) {
      // A polygon that is not quite flat is a face for each way that it faces.
      const [x, y, z] = facing(mesh, i);
      const key = `${flat ? '' : polygon[i - run.first]!} ${Math.round(x * 1e5)} ${Math.round(y * 1e5)} ${Math.round(z * 1e5)}`;
      let face = planes.get(key);
      if (face === undefined) {
        face = source.triangle.length;
        planes.set(key, face);
        source.triangle.push(i);
        source.run.push(run);
      } else if (areaOf(mesh, i) > areaOf(mesh, source.triangle[face]!)) source.triangle[face] = i;
      faces[i] = face;
    }
  }
  return { source, faces };
}

/** The polygon of each triangle of a run: they come in the same order, each polygon's triangles two fewer than its corners. */
function polygonOf(mesh: CutMesh, run: Run): number[] {
  const out: number[] = [];
  for (let p = run.firstPolygon; p < run.firstPolygon + run.polygons; p++)
    for (let k = mesh.polygonStart[p + 1]! - mesh.polygonStart[p]! - 2; k > 0; k--) out.push(p);
  return out;
}

function corners(mesh: CutMesh, i: number): [Vector, Vector, Vector] {
  const at = (k: number): Vector => cornerAt(mesh, mesh.triangles[3 * i + k]!);
  return [at(0), at(1), at(2)];
}

/** Twice a triangle's area along its normal. */
function crossOf(mesh: CutMesh, i: number): Vector {
  const [a, b, c] = corners(mesh, i);
  return cross(minus(b, a), minus(c, a));
}

const areaOf = (mesh: CutMesh, i: number): number => size(...crossOf(mesh, i)) / 2;

function facing(mesh: CutMesh, i: number): Vector {
  const [x, y, z] = crossOf(mesh, i);
  const long = size(x, y, z) || 1;
  return [x / long, y / long, z / long];
}

/** The library's result as a CutMesh: each triangle with the tags, normals and texture of the face that it came from. */
function tagged(
  solid: Manifold,
  sources: ReadonlyMap<number, Source>,
  element: string,
  { place, tidy }: { place: Place; tidy: boolean },
): CutMesh {
  const mesh = solid.getMesh();
  const { vertProperties, triVerts, numProp, faceID, runIndex, runOriginalID, mergeFromVert, mergeToVert } = mesh;
  const builder = new MeshBuilder(element);
  const count = vertProperties.length / numProp;
  builder.takeVertices(count);
  for (let v = 0; v < count; v++)
    builder.put(
      v,
      ...place.world(vertProperties[v * numProp]!, vertProperties[v * numProp + 1]!, vertProperties[v * numProp + 2]!),
    );
  const same = Uint32Array.from({ length: count }, (_, v) => v);
  mergeFromVert?.forEach((from, i) => (same[from] = mergeToVert[i]!));
  if (tidy) weld(same, triVerts, vertProperties, numProp);
  const pieces: Piece[] = [];
  for (let r = 0; r < runOriginalID.length; r++) {
    const source = sources.get(runOriginalID[r]!)!;
    for (let i = runIndex[r]! / 3; i < runIndex[r + 1]! / 3; i++) {
      const at = (k: number): number => same[triVerts[3 * i + k]!]!;
      const own: Piece['corners'] = [at(0), at(1), at(2)];
      if (own[0] !== own[1] && own[1] !== own[2] && own[2] !== own[0])
        pieces.push({ corners: own, source, face: faceID[i]! });
    }
  }
  const figure = (v: number, k: number): number => vertProperties[v * numProp + k]!;
  const point = (v: number): number[] => [figure(v, 0), figure(v, 1), figure(v, 2)];
  const world = (v: number): [number, number, number] => place.world(figure(v, 0), figure(v, 1), figure(v, 2));
  const byRun = new Map<Run, Face[]>();
  for (const face of tidy ? tidied(facesOf(withoutNeedles(pieces, point)), world) : facesOf(pieces)) {
    const run = face.source.run[face.face]!;
    const list = byRun.get(run);
    if (list) list.push(face);
    else byRun.set(run, [face]);
  }
  for (const [run, list] of byRun) {
    builder.begin(run);
    for (const { triangles, source, face } of list) {
      const dressed = dressing(source.mesh, source.triangle[face]!);
      const corner = (v: number): number => builder.corner(v, ...dressed(...world(v)));
      const corners = new Map<number, number>();
      const cornerOf = (v: number): number => corners.get(v) ?? corners.set(v, corner(v)).get(v)!;
      for (let i = 0; i < triangles.length; i += 3) {
        const own = [cornerOf(triangles[i]!), cornerOf(triangles[i + 1]!), cornerOf(triangles[i + 2]!)] as const;
        builder.triangle(...own);
        builder.polygon([...own]);
      }
    }
  }
  return builder.finish();
}

/** What is left of one face of a source: three vertices a triangle. */
interface Face {
  source: Source;
  face: number;
  triangles: number[];
}

function facesOf(pieces: readonly Piece[]): Face[] {
  const bySource = new Map<Source, Map<number, Face>>();
  const out: Face[] = [];
  for (const { source, face, corners: own } of pieces) {
    let known = bySource.get(source);
    if (!known) bySource.set(source, (known = new Map()));
    let made = known.get(face);
    if (!made) {
      known.set(face, (made = { source, face, triangles: [] }));
      out.push(made);
    }
    made.triangles.push(...own);
  }
  return out;
}

/** Faces triangulated anew, as clean as the sheet path leaves them. */
function tidied(faces: readonly Face[], point: (v: number) => [number, number, number]): Face[] {
  const anew = flatFacesAnew(
    faces.map(({ source, face, triangles }) => ({
      triangles,
      normal: facing(source.mesh, source.triangle[face]!),
    })),
    point,
  );
  return faces.map((face, i) => ({ ...face, triangles: anew[i]! }));
}

/** Makes one of the two ends of edges so short that they are only what rounding to 32-bit figures has left. @param at figures of vertices, `width` for each, the first three where it stands */
function weld(same: Uint32Array, triangles: Uint32Array, at: ArrayLike<number>, width: number): void {
  const root = (v: number): number => {
    while (same[v] !== v) v = same[v]!;
    return v;
  };
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [root(triangles[i + k]!), root(triangles[i + ((k + 1) % 3)]!)];
      if (a === b) continue;
      const [p, q] = [a * width, b * width];
      if (size(at[q]! - at[p]!, at[q + 1]! - at[p + 1]!, at[q + 2]! - at[p + 2]!) < solidMatched)
        same[Math.max(a, b)] = Math.min(a, b);
    }
  for (let v = 0; v < same.length; v++) same[v] = root(v);
}

/** A triangle of the result, and the face of a source that it is part of. */
interface Piece {
  corners: [number, number, number];
  source: Source;
  face: number;
}

const size = (x: number, y: number, z: number): number => Math.sqrt(x * x + y * y + z * z);

/**
 * Turns the longest edge of triangles whose corners have come to lie in one line, so that the neighbour across it is divided instead: rounding to 32-bit figures leaves such needles along shared edges.
 */
function withoutNeedles(pieces: Piece[], point: (v: number) => number[]): Piece[] {
  const height = ({ corners: [a, b, c] }: Piece): number => {
    const [p, q, r] = [point(a), point(b), point(c)] as [number[], number[], number[]];
    const [ux, uy, uz] = [q[0]! - p[0]!, q[1]! - p[1]!, q[2]! - p[2]!];
    const [vx, vy, vz] = [r[0]! - p[0]!, r[1]! - p[1]!, r[2]! - p[2]!];
    const twice = size(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
    const longest = Math.max(size(ux, uy, uz), size(vx, vy, vz), size(ux - vx, uy - vy, uz - vz));
    return longest > 0 ? twice / longest : 0;
  };
  const queue = pieces.filter((piece) => height(piece) < thinnest);
  if (queue.length === 0) return pieces;
  const byEdge = new Map<string, Piece>();
  const edges = (piece: Piece): string[] => [0, 1, 2].map((k) => `${piece.corners[k]!} ${piece.corners[(k + 1) % 3]!}`);
  for (const piece of pieces) for (const edge of edges(piece)) byEdge.set(edge, piece);
  let patience = 64 + 16 * queue.length;
  while (queue.length > 0 && patience-- > 0) {
    const piece = queue.shift()!;
    if (height(piece) >= thinnest) continue;
    const lengths = piece.corners.map((v, k) =>
      Math.hypot(...point(v).map((x, j) => x - point(piece.corners[(k + 1) % 3]!)[j]!)),
    );
    const k = lengths.indexOf(Math.max(...lengths));
    const [a, b, c] = [0, 1, 2].map((i) => piece.corners[(k + i) % 3]!) as [number, number, number];
    const other = byEdge.get(`${b} ${a}`);
    const d = other?.corners.find((v) => v !== a && v !== b);
    // An edge that is there already cannot be made again.
    if (!other || d === undefined || d === c || byEdge.has(`${c} ${d}`) || byEdge.has(`${d} ${c}`)) continue;
    for (const edge of [...edges(piece), ...edges(other)]) byEdge.delete(edge);
    // From (a, b, c) and (b, a, d) to (a, d, c) and (d, b, c), both of the neighbour's face.
    piece.corners = [a, d, c];
    other.corners = [d, b, c];
    piece.source = other.source;
    piece.face = other.face;
    for (const made of [piece, other]) {
      for (const edge of edges(made)) byEdge.set(edge, made);
      if (height(made) < thinnest) queue.push(made);
    }
  }
  return pieces;
}

/** Normal and texture of a face at points, carried on from one of its triangles in barycentric coordinates: three figures and two. */
function dressing(
  mesh: CutMesh,
  triangle: number,
): (x: number, y: number, z: number) => [number, number, number, number, number] {
  const [a, b, c] = corners(mesh, triangle);
  const [u, v] = [minus(b, a), minus(c, a)];
  const [uu, uv, vv] = [dot(u, u), dot(u, v), dot(v, v)];
  const det = uu * vv - uv * uv;
  const [i, j, k] = [0, 1, 2].map((at) => mesh.triangles[3 * triangle + at]!) as [number, number, number];
  const { normals, uvs } = mesh;
  return (x, y, z) => {
    const w: Vector = [x - a[0], y - a[1], z - a[2]];
    const [wu, wv] = [dot(w, u), dot(w, v)];
    const s = (wu * vv - wv * uv) / det;
    const t = (wv * uu - wu * uv) / det;
    const mix = (array: ArrayLike<number>, width: number, at: number): number => {
      const own = array[width * i + at]!;
      return own + s * (array[width * j + at]! - own) + t * (array[width * k + at]! - own);
    };
    const [nx, ny, nz] = [mix(normals, 3, 0), mix(normals, 3, 1), mix(normals, 3, 2)];
    const long = size(nx, ny, nz);
    const [fx, fy, fz] = long > 0.2 ? [nx / long, ny / long, nz / long] : facing(mesh, triangle);
    return [fx!, fy!, fz!, mix(uvs, 2, 0), mix(uvs, 2, 1)];
  };
}
