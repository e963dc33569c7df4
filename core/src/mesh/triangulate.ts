/** Triangles of a region that is bounded by loops: no more of them, and none thinner, than its own vertices ask for. */
import type { Region } from './region.ts';
import { Triangulation } from './triangulation.ts';

const next = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);

/**
 * Triangulates a region.
 * @returns three vertices of the region a triangle, counter-clockwise. Where the region touches itself in a point, each triangle
 * there has the vertex of its own side of it.
 * @throws NotTriangulable where loops cross or a vertex lies on another loop's edge.
 */
export function triangulate(region: Region): Uint32Array {
  const { xs, ys, next: following, count } = region;
  if (count === 0) return new Uint32Array(0);
  const points = pointsOf(region);
  const mesh = new Triangulation(points.xs, points.ys);
  const { corner, twin, forced } = mesh;
  if (points.shared) for (let v = 0; v < count; v++) mesh.force(points.of[v]!, points.of[following[v]!]!);
  else for (let v = 0; v < count; v++) mesh.force(v, following[v]!);

  // 1 is inside, 2 outside; begin at the forced edges, which know, and spread.
  const side = new Uint8Array(corner.length / 3);
  const queue: number[] = [];
  for (let e = 0; e < corner.length; e++) {
    if (!forced[e]) continue;
    const triangle = (e / 3) | 0;
    if (side[triangle] !== 0) continue;
    const p = corner[e]!;
    const q = corner[next(e)]!;
    const inner = points.shared ? points.leaving(p, q) >= 0 : following[p] === q;
    side[triangle] = inner ? 1 : 2;
    queue.push(triangle);
  }
  while (queue.length > 0) {
    const triangle = queue.pop()!;
    for (let e = 3 * triangle; e < 3 * triangle + 3; e++) {
      const t = twin[e]!;
      if (forced[e] || t < 0) continue;
      const other = (t / 3) | 0;
      if (side[other] !== 0) continue;
      side[other] = side[triangle]!;
      queue.push(other);
    }
  }

  let inside = 0;
  for (const s of side) if (s === 1) inside += 1;
  const triangles = new Uint32Array(3 * inside);
  let at = 0;
  for (let triangle = 0; triangle < side.length; triangle++) {
    if (side[triangle] !== 1) continue;
    for (let e = 3 * triangle; e < 3 * triangle + 3; e++) {
      triangles[at++] = points.shared ? vertexAt(e) : corner[e]!;
    }
  }
  return triangles;

  /** The vertex at a corner: of those on the same point, the one whose leaving edge comes first when turning clockwise. */
  function vertexAt(e: number): number {
    const p = corner[e]!;
    if (!points.shared!.has(p)) return points.first[p]!;
    let at = e;
    for (let turns = 0; turns <= corner.length; turns++) {
      if (forced[at]) {
        const v = points.leaving(p, corner[next(at)]!);
        if (v >= 0) return v;
      }
      at = next(twin[at]!);
    }
    return points.first[p]!;
  }

  function pointsOf(from: Region) {
    if (!from.pinched) {
      return {
        xs,
        ys,
        of: identity(count),
        first: null as unknown as Uint32Array,
        shared: null,
        leaving: (p: number, q: number): number => (following[p] === q ? p : -1),
      };
    }
    const byPlace = new Map<string, number>();
    const of = new Uint32Array(count);
    const first: number[] = [];
    const shared = new Map<number, number[]>();
    for (let v = 0; v < count; v++) {
      const key = `${xs[v]!} ${ys[v]!}`;
      const known = byPlace.get(key);
      if (known === undefined) {
        of[v] = first.length;
        byPlace.set(key, first.length);
        first.push(v);
      } else {
        of[v] = known;
        shared.set(known, [...(shared.get(known) ?? [first[known]!]), v]);
      }
    }
    return {
      xs: Float64Array.from(first, (v) => xs[v]!),
      ys: Float64Array.from(first, (v) => ys[v]!),
      of,
      first: Uint32Array.from(first),
      shared,
      leaving: (p: number, q: number): number => (shared.get(p) ?? [first[p]!]).find((v) => of[following[v]!] === q) ?? -1,
    };
  }
}

function identity(count: number): Uint32Array {
  const all = new Uint32Array(count);
  for (let i = 0; i < count; i++) all[i] = i;
  return all;
}
