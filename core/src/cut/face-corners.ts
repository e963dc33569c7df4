/** Writing a face into a mesh: the corners of its vertices, and its triangles. */
import type { Texture } from '@yard-arch/document';
import type { MeshBuilder } from '../mesh/builder.ts';
import type { FaceLoops } from '../mesh/face.ts';
import type { Setting } from './setting.ts';
import { laidOut, plain } from './texture.ts';

/** A face to be written. */
export interface Facing {
  loops: FaceLoops;
  /** Three of the loops' points each, counter-clockwise as seen from outside; the first of them make so many pairs, each of which is a quad. */
  triangles: Uint32Array;
  pairs?: number;
  /** Its depth, metres, and whether it faces out (−1) or in (1). */
  n: number;
  facing: -1 | 1;
  texture: Texture | undefined;
  /** As standingOn tells it, where that is known already. */
  standing?: Standing | undefined;
}

/** Writes a face. Its texture is (u, v) = (along, up) in metres; seen from inside it runs on from the far end. */
export function writeFace(
  builder: MeshBuilder,
  { sheet, ribsAt }: Setting,
  { loops, triangles, n, facing, texture, pairs = 0, standing }: Facing,
): void {
  const { chart } = sheet;
  const { vertex } = loops;
  const { xs, ys } = loops.region;
  const lay = laidOut(texture);
  const ribs = ribsAt(n);
  const long = ribs ? ribs.at(-1)! : sheet.length;
  // Texture goes along from here: forwards on the outer face, back on the inner one.
  const from = facing < 0 ? 0 : sheet.length + sheet.thickness + long;
  const uv = (x: number, y: number): readonly [number, number] => lay(from - facing * x, y);
  if (chart.kind === 'flat' || !ribs) {
    const inward = chart.kind === 'flat' ? chart.inward : ([0, 0, 0] as const);
    const [nx, ny, nz] = [facing * inward[0], facing * inward[1], facing * inward[2]];
    let first = builder.cornerCount;
    if (lay === plain) first = builder.flatCorners(vertex, xs, ys, nx, ny, nz, from, facing < 0 ? 1 : -1);
    else
      for (let v = 0; v < vertex.length; v++) {
        const [a, b] = uv(xs[v]!, ys[v]!);
        builder.corner(vertex[v]!, nx, ny, nz, a, b);
      }
    builder.pairBlock(first, triangles, pairs, facing > 0);
    return;
  }
  const { tangents } = chart;
  const { own, second, facet } = standing ?? standingOn(xs, triangles, ribs);
  const first = builder.cornerCount;
  const put = (v: number, f: number): number => {
    const x = xs[v]!;
    const share = (x - ribs[f]!) / (ribs[f + 1]! - ribs[f]!);
    const tx = tangents[4 * f]! + share * (tangents[4 * f + 2]! - tangents[4 * f]!);
    const ty = tangents[4 * f + 1]! + share * (tangents[4 * f + 3]! - tangents[4 * f + 1]!);
    const size = Math.sqrt(tx * tx + ty * ty);
    if (lay === plain)
      return (
        builder.corner(vertex[v]!, (-facing * ty) / size, (facing * tx) / size, 0, from - facing * x, ys[v]!) - first
      );
    const [a, b] = uv(x, ys[v]!);
    return builder.corner(vertex[v]!, (-facing * ty) / size, (facing * tx) / size, 0, a, b) - first;
  };
  const corner = new Uint32Array(vertex.length);
  const other = new Uint32Array(vertex.length);
  for (let v = 0; v < vertex.length; v++) {
    if (own[v]! >= 0) corner[v] = put(v, own[v]!);
    if (second[v]! >= 0) other[v] = put(v, second[v]!);
  }
  const out = new Uint32Array(triangles.length);
  for (let t = 0, i = 0; t < facet.length; t++) {
    const f = facet[t]!;
    for (const end = i + 3; i < end; i++) {
      const v = triangles[i]!;
      out[i] = f === own[v] ? corner[v]! : other[v]!;
    }
  }
  builder.pairBlock(first, out, pairs, facing > 0);
}

/** On which facets of a bent face its vertices and triangles stand: a vertex on a rib on two, any other on one; −1 is none. */
export interface Standing {
  own: Int32Array;
  second: Int32Array;
  facet: Int32Array;
  /** How many corners that makes. */
  corners: number;
}

/** @param xs distance along, by vertex. @param ribs where the face is bent. */
export function standingOn(xs: Float64Array, triangles: Uint32Array, ribs: Float64Array): Standing {
  const own = new Int32Array(xs.length).fill(-1);
  const second = new Int32Array(xs.length).fill(-1);
  const facet = new Int32Array(triangles.length / 3);
  let corners = 0;
  let f = 0;
  for (let t = 0, i = 0; t < facet.length; t++, i += 3) {
    const middle = (xs[triangles[i]!]! + xs[triangles[i + 1]!]! + xs[triangles[i + 2]!]!) / 3;
    // Neighbours in order are mostly neighbours on the face.
    if (middle < ribs[f]! || middle >= ribs[f + 1]!) {
      let low = 0;
      let high = ribs.length - 2;
      while (low < high) {
        const m = (low + high + 1) >> 1;
        if (ribs[m]! <= middle) low = m;
        else high = m - 1;
      }
      f = low;
    }
    facet[t] = f;
    for (let k = i; k < i + 3; k++) {
      const v = triangles[k]!;
      const known = own[v]!;
      if (known === f || second[v] === f) continue;
      if (known === -1) own[v] = f;
      else second[v] = f;
      corners += 1;
    }
  }
  return { own, second, facet, corners };
}
