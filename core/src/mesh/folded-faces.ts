/** Faces that lie on each other and look opposite ways, as a solid-boolean library leaves them where two voids meet: nothing is between them. */
import {
  boundOf,
  countOf,
  laidInPlane,
  trianglesWithin,
  type FlatFace,
  type Making,
  type Point,
} from './plane-bounds.ts';
import type { Region } from './region.ts';
import { Rim } from './rim.ts';
import { dot } from '../vector.ts';
import { relative } from '../tolerances.ts';

/** Takes from two faces what they have in common where they lie on each other and look opposite ways: nothing is between them. */
export function cancelFolded(made: number[][], faces: readonly FlatFace[], { kept, point }: Making): void {
  for (const [f, g] of foldedPairs(made, faces, kept)) {
    const { normal } = faces[f]!;
    const left = boundOf([...made[f]!, ...made[g]!]);
    const edges = [...left].flatMap(([from, list]) => list.map((to): [number, number] => [from, to]));
    const parts = edges.length === 0 ? { own: [], other: [] } : partedByWay(edges, normal, point);
    if (!parts) continue;
    const own = trianglesWithin(parts.own, normal, point);
    const other = trianglesWithin(parts.other, faces[g]!.normal, point);
    if (own && other) [made[f], made[g]] = [own, other];
  }
}

/** Pairs of faces that are folded on to each other along an edge. */
function foldedPairs(
  made: readonly (readonly number[])[],
  faces: readonly FlatFace[],
  kept: readonly boolean[],
): [number, number][] {
  const most = countOf(made);
  const faceOn = new Map<number, number>();
  const pairs = new Map<number, [number, number]>();
  made.forEach((triangles, f) => {
    if (kept[f]) return;
    for (let i = 0; i < triangles.length; i += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [triangles[i + k]!, triangles[i + ((k + 1) % 3)]!];
        faceOn.set(a * most + b, f);
        const g = faceOn.get(b * most + a);
        if (g === undefined || g === f || dot(faces[f]!.normal, faces[g]!.normal) > -1 + relative) continue;
        pairs.set(Math.min(f, g) * made.length + Math.max(f, g), [f, g]);
      }
  });
  return [...pairs.values()];
}

type Edges = [number, number][];

/** Edges in a plane, parted into those of the loops that run counter-clockwise and their holes, and those of the loops that run clockwise and theirs; null where they make no loops. */
function partedByWay(edges: Edges, normal: Point, point: (v: number) => Point): { own: Edges; other: Edges } | null {
  const { region, vertices, place } = laidInPlane([...new Set(edges.flat())], normal, point);
  const rim = new Rim(region);
  for (const [from, to] of edges) rim.add(place.get(from)!, place.get(to)!);
  const found = rim.loops();
  if (!found) return null;
  const loops: { points: number[]; area: number }[] = [];
  for (let first = 0; first < found.points.length;) {
    const points: number[] = [];
    for (let at = first; points.length === 0 || at !== first; at = found.next[at]!) points.push(found.points[at]!);
    loops.push({ points, area: areaWithin(points, region) });
    first += points.length;
  }
  const parts: { own: Edges; other: Edges } = { own: [], other: [] };
  for (const { points, area } of loops) {
    // What runs the other way within a loop is a hole of that.
    const isHole = loops.some(
      (loop) => loop.area * area < 0 && Math.abs(loop.area) > Math.abs(area) && isWithin(points, loop.points, region),
    );
    const list = area > 0 !== isHole ? parts.own : parts.other;
    points.forEach((at, i) => list.push([vertices[at]!, vertices[points[(i + 1) % points.length]!]!]));
  }
  return parts;
}

function areaWithin(points: readonly number[], { xs, ys }: Region): number {
  let twice = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length]!;
    twice += xs[p]! * ys[q]! - xs[q]! * ys[p]!;
  });
  return twice / 2;
}

/** Whether a loop lies within another: by the first of its points that is none of the other's. */
function isWithin(points: readonly number[], loop: readonly number[], { xs, ys }: Region): boolean {
  const p = points.find((at) => !loop.includes(at));
  if (p === undefined) return true;
  const [x, y] = [xs[p]!, ys[p]!];
  let inside = false;
  loop.forEach((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    if (ys[a]! > y !== ys[b]! > y && x < xs[a]! + ((y - ys[a]!) / (ys[b]! - ys[a]!)) * (xs[b]! - xs[a]!))
      inside = !inside;
  });
  return inside;
}
