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
import { nanometre, relative, verticesAlike as near } from '../tolerances.ts';

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
    if (failed) continue;
    cancelFolded(made, faces, { kept, point });
    turnShared(made, faces, { kept, uses: new Uses(made), point });
    return made;
  }
}

/** How many vertices there are at least where the last is one of these. */
const countOf = (faces: readonly (readonly number[])[]): number =>
  faces.reduce((most, triangles) => triangles.reduce((a, b) => Math.max(a, b), most), 0) + 1;

/** How often the edges of faces' triangles are run along, either way. */
class Uses {
  private readonly counts = new Map<number, number>();
  private readonly most: number;

  constructor(faces: readonly (readonly number[])[]) {
    this.most = countOf(faces);
    for (const triangles of faces)
      for (let i = 0; i < triangles.length; i += 3)
        for (let k = 0; k < 3; k++) this.add(triangles[i + k]!, triangles[i + ((k + 1) % 3)]!, 1);
  }

  private key(a: number, b: number): number {
    return a < b ? a * this.most + b : b * this.most + a;
  }

  of(a: number, b: number): number {
    return this.counts.get(this.key(a, b)) ?? 0;
  }

  add(a: number, b: number, more: number): void {
    this.counts.set(this.key(a, b), this.of(a, b) + more);
  }
}

/** Takes from two faces what they have in common where they lie on each other and look opposite ways: nothing is between them. */
function cancelFolded(made: number[][], faces: readonly FlatFace[], { kept, point }: Omit<Shared, 'uses'>): void {
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

/** Turns edges within faces that lie on an edge of others, where four triangles would meet: a vertex that is almost on a line between two others is cut off by both faces that it bounds. */
function turnShared(made: readonly number[][], faces: readonly FlatFace[], { kept, uses, point }: Shared): void {
  made.forEach((triangles, f) => {
    if (kept[f]) return;
    const { normal } = faces[f]!;
    // Both are to be triangles still.
    const turns = (p: number, q: number, r: number): boolean =>
      dot(cross(minus(point(q), point(p)), minus(point(r), point(p))), normal) > nanometre * nanometre;
    for (let i = 0; i < triangles.length; i += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b, c] = [0, 1, 2].map((j) => triangles[i + ((k + j) % 3)]!) as [number, number, number];
        if (uses.of(a, b) <= 2) continue;
        const across = acrossEdge(triangles, a, b);
        const d = across && triangles[across.other]!;
        if (!across || d === null || uses.of(c, d) > 0 || !turns(a, d, c) || !turns(d, b, c)) continue;
        triangles.splice(i, 3, a, d, c);
        triangles.splice(across.first, 3, d, b, c);
        uses.add(a, b, -2);
        uses.add(c, d, 2);
      }
  });
}

interface Shared {
  kept: readonly boolean[];
  uses: Uses;
  point: (v: number) => Point;
}

/** The triangle of a face that has an edge the other way round: where it begins, and where its third vertex is told. */
function acrossEdge(triangles: readonly number[], a: number, b: number): { first: number; other: number } | null {
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++)
      if (triangles[i + k] === b && triangles[i + ((k + 1) % 3)] === a) return { first: i, other: i + ((k + 2) % 3) };
  return null;
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
function laidInPlane(
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
