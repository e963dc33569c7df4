/** What bounds faces in a plane, and the triangles within. */
import { triangulateFace } from './face.ts';
import { fewTriangles } from './few.ts';
import type { Region } from './region.ts';
import { partOf, Rim } from './rim.ts';
import { NotTriangulable } from './triangulation.ts';
import { cross, dot, minus } from '../vector.ts';

export type Point = readonly [number, number, number];

/** A flat face: three vertices a triangle, and its normal, of unit length. */
export interface FlatFace {
  triangles: number[];
  normal: Point;
  /** What bounds it, where it has no triangles yet: directed edges with it on their left, two vertices each. */
  edges?: readonly number[];
  /** Whether it is to be left as it is. */
  fixed?: boolean;
}

/** Faces being triangulated: which of them stay as they are, and where vertices stand, metres. */
export interface Making {
  kept: readonly boolean[];
  point: (v: number) => Point;
}

/** How many vertices there are at least where the last is one of these. */
export const countOf = (faces: readonly (readonly number[])[]): number =>
  faces.reduce((most, triangles) => triangles.reduce((a, b) => Math.max(a, b), most), 0) + 1;

/** Directed edges that are left of triangles' edges, by where they begin. */
export type Bound = Map<number, number[]>;

export function boundOf(triangles: readonly number[]): Bound {
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

export function boundBy(edges: readonly number[]): Bound {
  const bound: Bound = new Map();
  for (let i = 0; i < edges.length; i += 2) {
    const list = bound.get(edges[i]!);
    if (list) list.push(edges[i + 1]!);
    else bound.set(edges[i]!, [edges[i + 1]!]);
  }
  return bound;
}

/** The triangles within edges in a plane; null where they bound nothing. */
export function trianglesWithin(
  edges: readonly [number, number][],
  normal: Point,
  point: (v: number) => Point,
): number[] | null {
  if (edges.length === 0) return [];
  const round = edges.length <= 4 ? roundOf(edges) : null;
  const { region, vertices, place } = laidInPlane(round ?? [...new Set(edges.flat())], normal, point);
  const few = round && fewTriangles(region.xs, region.ys);
  if (few) return few.map((at) => vertices[at]!);
  const rim = new Rim(region);
  for (const [from, to] of edges) rim.add(place.get(from)!, place.get(to)!);
  const loops = rim.loops();
  if (!loops) return null;
  try {
    const { points, next } = loops;
    const made = triangulateFace(partOf({ ...region, pinched: false }, points, next), null);
    // Of what is all but a line nothing comes that could be used.
    if (made.some((at) => at >= points.length)) return null;
    return Array.from(made, (at) => vertices[points[at]!]!);
  } catch (error) {
    if (error instanceof NotTriangulable) return null;
    throw error;
  }
}

/** Vertices where they are in a plane, and by vertex its place among them. */
export function laidInPlane(
  vertices: readonly number[],
  normal: Point,
  point: (v: number) => Point,
): { region: Region; vertices: readonly number[]; place: Map<number, number> } {
  const [across, up] = inPlane(normal);
  const origin = point(vertices[0]!);
  const xs = new Float64Array(vertices.length);
  const ys = new Float64Array(vertices.length);
  vertices.forEach((v, i) => {
    const from = minus(point(v), origin);
    xs[i] = dot(from, across);
    ys[i] = dot(from, up);
  });
  const region: Region = { count: vertices.length, xs, ys, next: new Uint32Array(vertices.length) };
  return { region, vertices, place: new Map(vertices.map((v, i) => [v, i])) };
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
