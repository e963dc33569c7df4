/** Meshes divided at upright planes and put where something folds: so that what was built flat follows a curve as its facets do. */
import { MeshBuilder } from './builder.ts';
import type { CutMesh } from './cut-mesh.ts';
import { atTrueScale, relaid } from './relaid.ts';
import { nanometre } from '../tolerances.ts';
import type { Vector } from '../vector.ts';

/** An upright plane at which something folds: so far along where y is 0, and by how much further for each metre of y. */
export interface Crease {
  along: number;
  lean: number;
}

/** Where points go, and normals at a point. */
export interface Fold {
  /** The planes at which it folds, in ascending order; none crosses another within what is folded. */
  at: readonly Crease[];
  point: (x: number, y: number, z: number) => Vector;
  normal: (at: Vector, way: Vector) => Vector;
}

/** How far a point is beyond a crease, along. */
const past = ({ along, lean }: Crease, [x, y]: Vector): number => x - along - lean * y;

/** A corner that is being cut: the vertex on which it stands, where that is, and what is drawn there. */
interface Cut {
  vertex: number;
  at: Vector;
  normal: Vector;
  uv: readonly [number, number];
}

/** The same mesh, folded, its texture laid anew. Vertices that were shared still are: each edge is divided in the same places for both its faces. */
export function folded(mesh: CutMesh, fold: Fold): CutMesh {
  const { points, vertices, triangles, normals, uvs } = mesh;
  const builder = new MeshBuilder('');
  const made = new Map<string, number>();
  const vertexAt = (key: string, at: Vector): number => {
    let vertex = made.get(key);
    if (vertex === undefined) {
      made.set(key, (vertex = builder.takeVertices(1)));
      builder.put(vertex, ...(fold.point(...at) as [number, number, number]));
    }
    return vertex;
  };
  const cornerOf = (corner: number): Cut => {
    const v = vertices[corner]!;
    const at: Vector = [points[3 * v]!, points[3 * v + 1]!, points[3 * v + 2]!];
    return {
      vertex: vertexAt(`${v}`, at),
      at,
      normal: [normals[3 * corner]!, normals[3 * corner + 1]!, normals[3 * corner + 2]!],
      uv: [uvs[2 * corner]!, uvs[2 * corner + 1]!],
    };
  };
  const between = (a: Cut, b: Cut, crease: Crease): Cut => {
    // Told from the same end for both faces of an edge.
    const [from, to] = a.vertex < b.vertex ? [a, b] : [b, a];
    const [before, after] = [past(crease, from.at), past(crease, to.at)];
    const share = before / (before - after);
    const mixed = (p: Vector, q: Vector): Vector =>
      [0, 1, 2].map((k) => p[k]! + (q[k]! - p[k]!) * share) as unknown as Vector;
    const [, y, z] = mixed(from.at, to.at);
    const at: Vector = [crease.along + crease.lean * y, y, z];
    return {
      vertex: vertexAt(`${from.vertex} ${to.vertex} ${crease.along}`, at),
      at,
      normal: mixed(from.normal, to.normal),
      uv: [from.uv[0] + (to.uv[0] - from.uv[0]) * share, from.uv[1] + (to.uv[1] - from.uv[1]) * share],
    };
  };
  const plain = atTrueScale(mesh);
  const toLay: boolean[] = [];
  const put = (piece: readonly Cut[], isPlain: boolean): void => {
    if (piece.length < 3) return;
    const corners = piece.map(({ vertex, at, normal, uv }) => {
      const [nx, ny, nz] = fold.normal(at, normal);
      const size = Math.hypot(nx, ny, nz) || 1;
      return builder.corner(vertex, nx / size, ny / size, nz / size, uv[0], uv[1]);
    });
    for (let i = 1; i + 1 < corners.length; i++) {
      builder.triangle(corners[0]!, corners[i]!, corners[i + 1]!);
      toLay.push(isPlain);
      builder.polygon([corners[0]!, corners[i]!, corners[i + 1]!]);
    }
  };
  for (const { first, count, material, role, layer, opening } of mesh.runs) {
    builder.begin({ opening, role, layer, material });
    for (let t = first; t < first + count; t++) {
      let rest = [0, 1, 2].map((k) => cornerOf(triangles[3 * t + k]!));
      for (const crease of fold.at) {
        if (rest.every(({ at }) => past(crease, at) <= nanometre)) break;
        if (rest.every(({ at }) => past(crease, at) >= -nanometre)) continue;
        const [before, after] = parted(rest, crease, between);
        put(before, plain[t]!);
        rest = after;
      }
      put(rest, plain[t]!);
    }
  }
  return relaid(builder.finish(), toLay);
}

/** A convex polygon on both sides of a plane. */
function parted(
  polygon: readonly Cut[],
  crease: Crease,
  between: (a: Cut, b: Cut, crease: Crease) => Cut,
): [Cut[], Cut[]] {
  const side = ({ at }: Cut): number => {
    const beyond = past(crease, at);
    return Math.abs(beyond) <= nanometre ? 0 : Math.sign(beyond);
  };
  const [before, after]: [Cut[], Cut[]] = [[], []];
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    const [p, q] = [side(a), side(b)];
    if (p <= 0) before.push(a);
    if (p >= 0) after.push(a);
    if (p * q >= 0) return;
    const cut = between(a, b, crease);
    before.push(cut);
    after.push(cut);
  });
  return [before, after];
}
