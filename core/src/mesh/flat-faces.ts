/**
 * Faces of a closed mesh triangulated anew: what a solid-boolean library leaves of a flat face may be folded over itself, or divided by vertices on straight edges that nobody asked for. What bounds the face
 * is what is left of its triangles' edges once those that run both ways are struck out, and within that it is triangulated from nothing.
 */
import { triangulateFace } from './face.ts';
import { fewTriangles } from './few.ts';
import type { Region } from './region.ts';
import { partOf, Rim } from './rim.ts';
import { NotTriangulable } from './triangulation.ts';
import { cross, dot, minus } from '../vector.ts';
import { verticesAlike as near } from '../tolerances.ts';

type Point = readonly [number, number, number];

/** A flat face: three vertices a triangle, and its normal, of unit length. */
export interface FlatFace {
  triangles: number[];
  normal: Point;
  /** What bounds it, where it has no triangles yet: directed edges with it on their left, two vertices each. */
  edges?: readonly number[];
  /** Whether it is to be left as it is. */
  fixed?: boolean;
}

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
    if (!failed) return made;
  }
}

function isFlat({ triangles, normal, edges }: FlatFace, point: (v: number) => Point): boolean {
  if (edges) return true;
  const [first] = triangles;
  const origin = point(first!);
  return triangles.every((v) => Math.abs(dot(minus(point(v), origin), normal)) < 4 * near);
}

/** Directed edges that are left of triangles' edges, by where they begin. */
type Bound = Map<number, number[]>;

function boundOf(triangles: readonly number[]): Bound {
  const bound: Bound = new Map();
  const strike = (from: number, to: number): boolean => {
    const list = bound.get(from);
    const at = list?.indexOf(to) ?? -1;
    if (at < 0) return false;
    list!.splice(at, 1);
    return true;
  };
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[i + k]!, triangles[i + ((k + 1) % 3)]!];
      if (strike(b, a)) continue;
      const list = bound.get(a);
      if (list) list.push(b);
      else bound.set(a, [b]);
    }
  return bound;
}

function boundBy(edges: readonly number[]): Bound {
  const bound: Bound = new Map();
  for (let i = 0; i < edges.length; i += 2) {
    const list = bound.get(edges[i]!);
    if (list) list.push(edges[i + 1]!);
    else bound.set(edges[i]!, [edges[i + 1]!]);
  }
  return bound;
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

/** The triangles within edges in a plane; null where they bound nothing. */
function trianglesWithin(
  edges: readonly [number, number][],
  normal: Point,
  point: (v: number) => Point,
): number[] | null {
  if (edges.length === 0) return [];
  const round = edges.length <= 4 ? roundOf(edges) : null;
  const vertices = round ?? [...new Set(edges.flat())];
  const [across, up] = inPlane(normal);
  const origin = point(vertices[0]!);
  const xs = new Float64Array(vertices.length);
  const ys = new Float64Array(vertices.length);
  vertices.forEach((v, i) => {
    const from = minus(point(v), origin);
    xs[i] = dot(from, across);
    ys[i] = dot(from, up);
  });
  const few = round && fewTriangles(xs, ys);
  if (few) return few.map((at) => vertices[at]!);
  const place = new Map(vertices.map((v, i) => [v, i]));
  const region: Region = { count: vertices.length, xs, ys, next: new Uint32Array(vertices.length) };
  const rim = new Rim(region);
  for (const [from, to] of edges) rim.add(place.get(from)!, place.get(to)!);
  const loops = rim.loops();
  if (!loops) return null;
  try {
    const { points, next } = loops;
    const made = triangulateFace(partOf({ ...region, pinched: false }, points, next), null);
    return Array.from(made, (at) => vertices[points[at]!]!);
  } catch (error) {
    if (error instanceof NotTriangulable) return null;
    throw error;
  }
}

/** The vertices of edges that are one round, in their order. */
function roundOf(edges: readonly [number, number][]): number[] | null {
  const round = [edges[0]![0]];
  for (let at = edges[0]![1]; at !== round[0];) {
    const on = edges.find(([from]) => from === at);
    if (!on || round.length === edges.length) return null;
    round.push(at);
    at = on[1];
  }
  return round.length === edges.length ? round : null;
}

/** Two directions in a plane, square to each other, counter-clockwise about its normal. */
function inPlane(normal: Point): [Point, Point] {
  const [x, y, z] = normal.map(Math.abs) as [number, number, number];
  const axis: Point = x <= y && x <= z ? [1, 0, 0] : y <= z ? [0, 1, 0] : [0, 0, 1];
  const across = cross(axis, normal);
  const size = Math.hypot(...across);
  const first: Point = [across[0] / size, across[1] / size, across[2] / size];
  return [first, cross(normal, first)];
}
