/**
 * Triangulating a region by the triangles of another that is divided alike: the inner face of a wall by those of its outer one. They are taken over and made Delaunay where the other shape asks for
 * it. There is only one constrained Delaunay triangulation, so this is, triangle for triangle, what a triangulation from nothing gives.
 */
import { orient } from './orient.ts';
import type { Region } from './region.ts';
import { inOrder } from './triangulate.ts';
import { Triangulation } from './triangulation.ts';

const next = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);

/**
 * Triangles of a region, made from those of another; null where the two are not divided alike, or differ too much in shape.
 * @param triangles those of `from`.
 * @param lines further edges that must be there, as pairs of points.
 */
export function transfer(
  triangles: Uint32Array,
  from: Region,
  to: Region,
  lines: readonly number[],
): Uint32Array | null {
  if (
    from.count !== to.count ||
    from.xs.length !== from.count ||
    to.xs.length !== to.count ||
    from.pinched !== false ||
    to.pinched !== false
  )
    return null;
  for (let v = 0; v < from.count; v++) if (from.next[v] !== to.next[v]) return null;
  return settled(to, triangles.slice(), lines);
}

/**
 * The constrained Delaunay triangulation of a region, from any triangles that fill it; null where these do not, or `lines` are not edges of them.
 * @param corner three points each; taken over.
 * @param lines edges that must be there, as pairs of points.
 */
export function settled(region: Region, corner: Uint32Array, lines: readonly number[]): Uint32Array | null {
  const { xs, ys, count } = region;
  for (let i = 0; i < corner.length; i += 3) {
    const [a, b, c] = [corner[i]!, corner[i + 1]!, corner[i + 2]!];
    if (orient(xs[a]!, ys[a]!, xs[b]!, ys[b]!, xs[c]!, ys[c]!) <= 0) return null;
  }
  const twin = twinsOf(corner, count);
  if (!bounds(region, corner, twin)) return null;
  const mesh = new Triangulation(xs, ys, { corner, twin });
  const { forced } = mesh;
  for (let e = 0; e < corner.length; e++) if (twin[e]! < 0) forced[e] = 1;
  for (let i = 0; i < lines.length; i += 2) {
    const e = mesh.find(lines[i]!, lines[i + 1]!);
    if (e < 0 || twin[e]! < 0) return null;
    forced[e] = forced[twin[e]!] = 2;
  }
  mesh.settle(new Uint8Array(corner.length / 3).fill(1));
  return inOrder(mesh.corner, count);
}

/** Whether triangles have a region's edges for their boundary, and no other. Triangles that all turn one way then fill the region, each place of it once. */
function bounds({ count, next: following }: Region, corner: Uint32Array, twin: Int32Array): boolean {
  const seen = new Uint8Array(count);
  let open = 0;
  for (let e = 0; e < corner.length; e++) {
    const t = twin[e]!;
    if (t >= 0) {
      if (twin[t] !== e) return false;
      continue;
    }
    const p = corner[e]!;
    if (following[p] !== corner[next(e)] || seen[p]) return false;
    seen[p] = 1;
    open += 1;
  }
  return open === count;
}

/** The opposite of each half-edge, or −1; by lists of the half-edges that leave each point. */
export function twinsOf(corner: Uint32Array, points: number): Int32Array {
  const first = new Int32Array(points).fill(-1);
  const after = new Int32Array(corner.length);
  const twin = new Int32Array(corner.length).fill(-1);
  for (let i = 0; i < corner.length; i += 3) {
    let p = corner[i + 2]!;
    for (let k = 0; k < 3; k++) {
      // The half-edge from the corner before to this one; the one that leaves q for p may have come before.
      const e = k === 0 ? i + 2 : i + k - 1;
      const q = corner[i + k]!;
      let t = first[q]!;
      while (t >= 0 && corner[next(t)] !== p) t = after[t]!;
      if (t >= 0) {
        twin[e] = t;
        twin[t] = e;
      }
      after[e] = first[p]!;
      first[p] = e;
      p = q;
    }
  }
  return twin;
}
