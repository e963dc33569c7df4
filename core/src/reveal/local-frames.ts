/** Patches laid flat: each in its own plane, and where it is not quite flat unfolded there, triangle by triangle. */
import { cutUp } from './ears.ts';
import type { Patch, PlacedTube } from './patches.ts';
import { nanometre as same, parallel } from '../tolerances.ts';

/** The triangles of patches that are not quite flat, or join what is unlike. These patches are unfolded: from here on their corners lie in their planes as their triangles do side by side, at true scale. */
export function cutsOf(placed: PlacedTube, local: LocalFrames, cornerStart: Uint32Array): Map<number, number[]> {
  const { tube, patches } = placed;
  const cuts = new Map<number, number[]>();
  patches.forEach((patch, p) => {
    if (local.flat[p] && !tube.edges[tube.faces[patch.face]!.edge]!.joint) return;
    const triangles: number[] = [];
    cutUp(patch, cornerStart[p]!, local.a, local.l, triangles);
    unfold(triangles, { patch, first: cornerStart[p]! }, placed, local);
    cuts.set(p, triangles);
  });
  return cuts;
}

/** Lays the triangles of a patch side by side at true scale, beginning with the first as it lies. */
function unfold(
  triangles: readonly number[],
  { patch, first }: { patch: Patch; first: number },
  { positions }: PlacedTube,
  { a, l }: LocalFrames,
): void {
  const far = (p: number, q: number): number => {
    const [v, w] = [3 * patch.nodes[p - first]!, 3 * patch.nodes[q - first]!];
    return Math.hypot(
      positions[w]! - positions[v]!,
      positions[w + 1]! - positions[v + 1]!,
      positions[w + 2]! - positions[v + 2]!,
    );
  };
  const laid = new Set<number>();
  /** In (a, −l) triangles run counter-clockwise, as they do in texture: r lies on the left of the way from p to q. */
  const put = (p: number, q: number, r: number): void => {
    const [d, e, b] = [far(p, q), far(p, r), far(q, r)];
    const x = (e * e - b * b + d * d) / (2 * d);
    const y = Math.sqrt(Math.max(0, e * e - x * x));
    const [ca, cl] = [(a[q]! - a[p]!) / d, (l[q]! - l[p]!) / d];
    a[r] = a[p]! + ca * x + cl * y;
    l[r] = l[p]! + cl * x - ca * y;
  };
  for (let round = 0; round < patch.nodes.length && laid.size < patch.nodes.length; round++)
    for (let i = 0; i < triangles.length; i += 3) {
      const own = triangles.slice(i, i + 3);
      if (laid.size === 0) {
        const [p, q] = own as [number, number, number];
        // The first edge keeps its direction and takes its true length.
        const [da, dl] = [a[q]! - a[p]!, l[q]! - l[p]!];
        const scale = far(p, q) / (Math.hypot(da, dl) || 1);
        a[q] = a[p]! + da * scale;
        l[q] = l[p]! + dl * scale;
        laid.add(p).add(q);
      }
      const free = own.filter((c) => !laid.has(c));
      if (free.length !== 1) continue;
      const k = own.indexOf(free[0]!);
      put(own[(k + 1) % 3]!, own[(k + 2) % 3]!, free[0]!);
      laid.add(free[0]!);
    }
}

/** Patches in their own planes. */
export interface LocalFrames {
  /** By corner: how far along the edge, and how far down the section, from the patch's startNear. */
  a: Float64Array;
  l: Float64Array;
  /** By patch: its normal. */
  normal: Float64Array;
  /** By patch: whether all its corners lie in its plane, to a micrometre. */
  flat: Uint8Array;
}

/** Each patch in its own plane. */
export function localFrames(placed: PlacedTube): LocalFrames {
  const { patches, positions } = placed;
  const corners = patches.reduce((sum, patch) => sum + patch.nodes.length, 0);
  const out: LocalFrames = {
    a: new Float64Array(corners),
    l: new Float64Array(corners),
    normal: new Float64Array(3 * patches.length),
    flat: new Uint8Array(patches.length).fill(1),
  };
  let c = 0;
  for (let p = 0; p < patches.length; p++) {
    const { nodes, startNear, endNear, startFar, endFar } = patches[p]!;
    const count = nodes.length;
    const o = 3 * nodes[startNear]!;
    const ox = positions[o]!;
    const oy = positions[o + 1]!;
    const oz = positions[o + 2]!;
    // The normal by Newell's method, about the origin corner.
    let nx = 0;
    let ny = 0;
    let nz = 0;
    let before = 3 * nodes[count - 1]!;
    let ax = positions[before]! - ox;
    let ay = positions[before + 1]! - oy;
    let az = positions[before + 2]! - oz;
    for (let i = 0; i < count; i++) {
      before = 3 * nodes[i]!;
      const bx = positions[before]! - ox;
      const by = positions[before + 1]! - oy;
      const bz = positions[before + 2]! - oz;
      nx += ay * bz - az * by;
      ny += az * bx - ax * bz;
      nz += ax * by - ay * bx;
      ax = bx;
      ay = by;
      az = bz;
    }
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    nx /= size;
    ny /= size;
    nz /= size;
    out.normal[3 * p] = nx;
    out.normal[3 * p + 1] = ny;
    out.normal[3 * p + 2] = nz;
    // Along the edge, by its longer end.
    const [i, j, k, l] = [3 * nodes[startNear]!, 3 * nodes[endNear]!, 3 * nodes[startFar]!, 3 * nodes[endFar]!];
    let ex = positions[j]! - positions[i]!;
    let ey = positions[j + 1]! - positions[i + 1]!;
    let ez = positions[j + 2]! - positions[i + 2]!;
    const gx = positions[l]! - positions[k]!;
    const gy = positions[l + 1]! - positions[k + 1]!;
    const gz = positions[l + 2]! - positions[k + 2]!;
    if (gx * gx + gy * gy + gz * gz > ex * ex + ey * ey + ez * ez) {
      ex = gx;
      ey = gy;
      ez = gz;
    }
    if (ex * ex + ey * ey + ez * ez < same * same) {
      // A face that has no length at either end runs along its side instead.
      const m = 3 * nodes[(startNear + 1) % count]!;
      ex = positions[m]! - ox;
      ey = positions[m + 1]! - oy;
      ez = positions[m + 2]! - oz;
    }
    const inPlane = ex * nx + ey * ny + ez * nz;
    ex -= inPlane * nx;
    ey -= inPlane * ny;
    ez -= inPlane * nz;
    const long = Math.sqrt(ex * ex + ey * ey + ez * ez) || 1;
    ex /= long;
    ey /= long;
    ez /= long;
    // The face is seen with the edge's end first, so the section runs along e × n.
    const fx = ey * nz - ez * ny;
    const fy = ez * nx - ex * nz;
    const fz = ex * ny - ey * nx;
    for (let at = 0; at < count; at++) {
      const v = 3 * nodes[at]!;
      const x = positions[v]! - ox;
      const y = positions[v + 1]! - oy;
      const z = positions[v + 2]! - oz;
      out.a[c] = x * ex + y * ey + z * ez;
      out.l[c] = x * fx + y * fy + z * fz;
      if (Math.abs(x * nx + y * ny + z * nz) > parallel) out.flat[p] = 0;
      c += 1;
    }
  }
  return out;
}
