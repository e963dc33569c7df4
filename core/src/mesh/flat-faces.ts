/**
 * Faces of a closed mesh triangulated anew: what a solid-boolean library leaves of a flat face may be folded over itself, or divided by vertices on straight edges that nobody asked for. What bounds the face
 * is what is left of its triangles' edges once those that run both ways are struck out, and within that it is triangulated from nothing.
 */
import { cancelFolded } from './folded-faces.ts';
import { boundBy, boundOf, trianglesWithin, type Bound, type FlatFace, type Point } from './plane-bounds.ts';
import { turnShared } from './shared-edges.ts';
import { dot, minus } from '../vector.ts';
import { verticesAlike as near } from '../tolerances.ts';

export type { FlatFace };

/**
 * Triangulates the faces of a closed mesh anew; those that are not flat, or whose edges bound nothing, are left as they are.
 * @param point where a vertex stands, metres.
 */
export function flatFacesAnew(faces: readonly FlatFace[], point: (v: number) => Point): number[][] {
  const kept = faces.map((face) => face.fixed === true || !isFlat(face, point));
  for (;;) {
    const bounds = faces.map(({ triangles, edges }) => (edges ? boundBy(edges) : boundOf(triangles)));
    const idle = idleVertices(bounds, kept, point);
    let failed = false;
    const made = faces.map((face, i) => {
      if (kept[i]) return face.triangles;
      const triangles = trianglesWithin(straightened(bounds[i]!, idle), face.normal, point);
      if (triangles) return triangles;
      kept[i] = failed = true;
      return face.triangles;
    });
    // Where one stays as it is, its neighbours must keep the vertices that it has.
    if (failed) continue;
    cancelFolded(made, faces, { kept, point });
    turnShared(made, faces, { kept, point });
    return made;
  }
}

function isFlat({ triangles, normal, edges }: FlatFace, point: (v: number) => Point): boolean {
  if (edges) return true;
  const [first] = triangles;
  const origin = point(first!);
  return triangles.every((v) => Math.abs(dot(minus(point(v), origin), normal)) < 4 * near);
}

/** Vertices that only divide straight edges: two edges meet there, in one line, and all faces there are to be made anew. */
function idleVertices(bounds: readonly Bound[], kept: readonly boolean[], point: (v: number) => Point): Set<number> {
  const around = new Map<number, Set<number>>();
  const needed = new Set<number>();
  bounds.forEach((bound, i) => {
    for (const [from, list] of bound)
      for (const to of list)
        for (const [v, w] of [
          [from, to],
          [to, from],
        ] as const) {
          if (kept[i]) needed.add(v);
          const set = around.get(v);
          if (set) set.add(w);
          else around.set(v, new Set([w]));
        }
  });
  const idle = new Set<number>();
  for (const [v, ends] of around) {
    if (needed.has(v) || ends.size !== 2) continue;
    const [a, b] = [...ends].map(point) as [Point, Point];
    const [p, way] = [minus(point(v), a), minus(b, a)];
    const share = dot(p, way) / dot(way, way);
    if (
      share > 0 &&
      share < 1 &&
      Math.hypot(p[0] - share * way[0], p[1] - share * way[1], p[2] - share * way[2]) < near
    )
      idle.add(v);
  }
  return idle;
}

/** Edges with idle vertices passed over. */
function straightened(bound: Bound, idle: ReadonlySet<number>): [number, number][] {
  const out: [number, number][] = [];
  for (const [from, list] of bound) {
    if (idle.has(from)) continue;
    for (const first of list) {
      let to = first;
      for (let steps = 0; idle.has(to) && steps < bound.size; steps++) to = bound.get(to)?.[0] ?? to;
      if (to !== from) out.push([from, to]);
    }
  }
  return out;
}
