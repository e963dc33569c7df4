/** Writing a face into a mesh: the corners of its vertices, and its triangles. */
import type { Texture } from '@yard-arch/document';
import type { MeshBuilder } from '../mesh/builder.ts';
import type { FaceLoops } from '../mesh/face.ts';
import type { Setting } from './piece.ts';
import { laidOut } from './texture.ts';

/**
 * Writes a face at depth n (metres), facing out (−1) or in (1). Its texture is (u, v) = (along, up) in metres; seen from inside it runs on from the far end.
 * @param triangles three of the loops' points each, counter-clockwise as seen from outside; the first of them make so many pairs, each of which is a quad.
 */
export function writeFace(builder: MeshBuilder, { sheet, ribsAt }: Setting, loops: FaceLoops, triangles: Uint32Array, n: number, facing: -1 | 1, texture: Texture | undefined, pairs = 0): void {
  const { chart } = sheet;
  const { vertex } = loops;
  const { xs, ys } = loops.region;
  const lay = laidOut(texture);
  const ribs = ribsAt(n);
  const long = ribs ? ribs.at(-1)! : sheet.length;
  const uv = (x: number, y: number): readonly [number, number] => lay(facing < 0 ? x : sheet.length + sheet.thickness + (long - x), y);
  if (chart.kind === 'flat' || !ribs) {
    const inward = chart.kind === 'flat' ? chart.inward : ([0, 0, 0] as const);
    const first = builder.cornerCount;
    for (let v = 0; v < vertex.length; v++) {
      const [a, b] = uv(xs[v]!, ys[v]!);
      builder.corner(vertex[v]!, facing * inward[0], facing * inward[1], facing * inward[2], a, b);
    }
    builder.pairBlock(first, triangles, pairs, facing > 0);
    return;
  }
  // On a bent face a vertex has a corner for each facet that it stands on.
  const { tangents } = chart;
  // A vertex on a rib stands on two facets, any other on one.
  const facet = [new Int32Array(vertex.length).fill(-1), new Int32Array(vertex.length).fill(-1)] as const;
  const corner = [new Int32Array(vertex.length), new Int32Array(vertex.length)] as const;
  const cornerAt = (v: number, f: number): number => {
    const which = facet[0][v] === f || facet[0][v] === -1 ? 0 : 1;
    if (facet[which][v] === f) return corner[which][v]!;
    const x = xs[v]!;
    const share = (x - ribs[f]!) / (ribs[f + 1]! - ribs[f]!);
    const [tx, ty] = [tangents[4 * f]! + share * (tangents[4 * f + 2]! - tangents[4 * f]!), tangents[4 * f + 1]! + share * (tangents[4 * f + 3]! - tangents[4 * f + 1]!)];
    const size = Math.hypot(tx, ty);
    const [a, b] = uv(x, ys[v]!);
    const c = builder.corner(vertex[v]!, (-facing * ty) / size, (facing * tx) / size, 0, a, b);
    facet[which][v] = f;
    corner[which][v] = c;
    return c;
  };
  const out = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i += 3) {
    const middle = (xs[triangles[i]!]! + xs[triangles[i + 1]!]! + xs[triangles[i + 2]!]!) / 3;
    let [low, high] = [0, ribs.length - 2];
    while (low < high) {
      const m = (low + high + 1) >> 1;
      if (ribs[m]! <= middle) low = m;
      else high = m - 1;
    }
    for (let k = 0; k < 3; k++) out[i + k] = cornerAt(triangles[i + k]!, low);
  }
  builder.pairBlock(0, out, pairs, facing > 0);
}
