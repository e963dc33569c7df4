/** Triangles of a region that is bounded by loops: no more of them, and none thinner, than its own vertices ask for. */
import type { Region } from './region.ts';
import { NotTriangulable, Triangulation } from './triangulation.ts';

const next = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);

/**
 * Triangulates a region.
 * @returns three vertices of the region a triangle, counter-clockwise. Where the region touches itself in a point, each triangle
 * there has the vertex of its own side of it.
 * @throws NotTriangulable where loops cross or a vertex lies on another loop's edge.
 */
export function triangulate(region: Region): Uint32Array {
  if (region.count === 0) return new Uint32Array(0);
  try {
    return triangulatedAsItLies(region, 0);
  } catch (error) {
    if (!(error instanceof NotTriangulable)) throw error;
    for (const turn of [0.7, 1.9, 2.8])
      try {
        return triangulatedAsItLies(inBox(region), turn);
      } catch (again) {
        if (!(again instanceof NotTriangulable)) throw again;
      }
    throw error;
  }
}

/** A region with four more points around it, so that none of its own is on the hull: points in one line but for rounding may be left off that. */
function inBox({ xs, ys, places, ...region }: Region): Region {
  const [left, right, low, high] = [least(xs, 1), -least(xs, -1), least(ys, 1), -least(ys, -1)];
  const far = Math.max(right - left, high - low);
  const all = xs.length;
  const grown = (list: ArrayLike<number>, more: readonly number[]): Float64Array => {
    const own = new Float64Array(all + 4);
    own.set(list);
    own.set(more, all);
    return own;
  };
  const last = places ? -least(places, -1) : 0;
  return {
    ...region,
    xs: grown(xs, [left - far, right + far, right + far, left - far]),
    ys: grown(ys, [low - far, low - far, high + far, high + far]),
    ...(places ? { places: grown(places, [last + 1, last + 2, last + 3, last + 4]) } : {}),
  };
}

function least(list: ArrayLike<number>, sign: 1 | -1): number {
  let found = Infinity;
  for (let i = 0; i < list.length; i++) found = Math.min(found, sign * list[i]!);
  return found;
}

function triangulatedAsItLies(region: Region, turn: number): Uint32Array {
  const { next: following, count } = region;
  const points = pointsOf(region);
  const mesh = new Triangulation(points.xs, points.ys, null, turn);
  if (turn !== 0 && !mesh.isSound) throw new NotTriangulable('points lie in one line');
  if (points.shared) for (let v = 0; v < count; v++) mesh.force(points.of[v]!, points.of[following[v]!]!);
  else for (let v = 0; v < count; v++) mesh.force(v, following[v]!);
  forceLines(mesh, points, region.lines);
  const side = sidesOf(mesh, points, following);
  // Only within: what lies outside is dropped, and there all chords of an arc lie on one circle.
  mesh.settle(side);
  return inOrder(trianglesWithin(mesh, points, side), region.xs.length);
}

function forceLines(mesh: Triangulation, { of }: Points, lines: Region['lines']): void {
  if (!lines) return;
  for (let i = 0; i < lines.length; i += 2)
    try {
      mesh.force(of[lines[i]!]!, of[lines[i + 1]!]!, 2);
    } catch (error) {
      // A line that meets an outline or a point otherwise than at its ends is left out: it divides, and bounds nothing.
      if (!(error instanceof NotTriangulable)) throw error;
    }
}

/** Which side of the outlines each triangle lies on: 1 is inside, 2 outside. The forced edges know, and from them it spreads. */
function sidesOf({ corner, twin, forced }: Triangulation, points: Points, following: Region['next']): Uint8Array {
  const side = new Uint8Array(corner.length / 3);
  const queue = new Uint32Array(side.length);
  let waiting = 0;
  for (let e = 0; e < corner.length; e++) {
    if (forced[e] !== 1) continue;
    const triangle = (e / 3) | 0;
    if (side[triangle] !== 0) continue;
    const p = corner[e]!;
    const q = corner[next(e)]!;
    const inner = points.shared ? points.leaving(p, q) >= 0 : following[p] === q;
    side[triangle] = inner ? 1 : 2;
    queue[waiting++] = triangle;
  }
  while (waiting > 0) {
    const triangle = queue[--waiting]!;
    for (let e = 3 * triangle; e < 3 * triangle + 3; e++) {
      const t = twin[e]!;
      if (forced[e] === 1 || t < 0) continue;
      const other = (t / 3) | 0;
      if (side[other] !== 0) continue;
      side[other] = side[triangle]!;
      queue[waiting++] = other;
    }
  }
  return side;
}

/** The vertices of the triangles inside. */
function trianglesWithin(mesh: Triangulation, points: Points, side: Uint8Array): Uint32Array {
  let inside = 0;
  for (const s of side) if (s === 1) inside += 1;
  const triangles = new Uint32Array(3 * inside);
  let at = 0;
  for (let triangle = 0; triangle < side.length; triangle++) {
    if (side[triangle] !== 1) continue;
    for (let e = 3 * triangle; e < 3 * triangle + 3; e++)
      triangles[at++] = points.shared ? vertexAt(mesh, points, e) : mesh.corner[e]!;
  }
  return triangles;
}

/** The vertex at a corner: of those on the same point, the one whose leaving edge comes first when turning clockwise. */
function vertexAt({ corner, twin, forced }: Triangulation, { shared, first, leaving }: Points, e: number): number {
  const p = corner[e]!;
  if (!shared!.has(p)) return first[p]!;
  let at = e;
  for (let turns = 0; turns <= corner.length; turns++) {
    if (forced[at] === 1) {
      const v = leaving(p, corner[next(at)]!);
      if (v >= 0) return v;
    }
    at = next(twin[at]!);
  }
  return first[p]!;
}

/** The points that a region's vertices stand on. */
interface Points {
  xs: Region['xs'];
  ys: Region['ys'];
  /** The point of each vertex. */
  of: Uint32Array;
  /** The first vertex on each point. */
  first: Uint32Array;
  /** The vertices of those points that several stand on; null where there are none. */
  shared: ReadonlyMap<number, readonly number[]> | null;
  /** The vertex on a point whose outline goes on from there to another point; −1 where there is none. */
  leaving: (p: number, q: number) => number;
}

function pointsOf(region: Region): Points {
  const { xs, ys, next: following, count } = region;
  const all = xs.length;
  if (region.pinched === false) return apart(region, upTo(all));
  const of = new Uint32Array(all);
  const first: number[] = [];
  const shared = new Map<number, number[]>();
  const place = region.places ? numbered(region.places) : byCoordinates(region, first);
  for (let v = 0; v < all; v++) {
    const known = place(v, first.length);
    if (known < 0) {
      of[v] = first.length;
      first.push(v);
    } else {
      of[v] = known;
      const list = shared.get(known);
      if (list) list.push(v);
      else shared.set(known, [first[known]!, v]);
    }
  }
  if (shared.size === 0) return apart(region, of);
  return {
    xs: Float64Array.from(first, (v) => xs[v]!),
    ys: Float64Array.from(first, (v) => ys[v]!),
    of,
    first: Uint32Array.from(first),
    shared,
    leaving: (p, q) => (shared.get(p) ?? [first[p]!]).find((v) => v < count && of[following[v]!] === q) ?? -1,
  };
}

function upTo(count: number): Uint32Array {
  const numbers = new Uint32Array(count);
  for (let v = 0; v < count; v++) numbers[v] = v;
  return numbers;
}

/** The points of a region of which each has a point of its own. */
const apart = ({ xs, ys, next: following }: Region, of: Uint32Array): Points => ({
  xs,
  ys,
  of,
  first: of,
  shared: null,
  leaving: (p, q) => (following[p] === q ? p : -1),
});

/** Points on one place are found by the bits of their coordinates; what only looks alike is told apart by comparing. @param first the first point on each place. */
function byCoordinates({ xs, ys }: Region, first: readonly number[]): Places {
  const byPlace = new Map<number, number>();
  return (v, number) => {
    let key = hash(xs[v]!, ys[v]!);
    let known = byPlace.get(key);
    while (known !== undefined && (xs[first[known]!] !== xs[v] || ys[first[known]!] !== ys[v]))
      known = byPlace.get((key += 1));
    if (known !== undefined) return known;
    byPlace.set(key, number);
    return -1;
  };
}

/** Tells, of points asked for one after the other, which have stood on their places before; −1 is none, and then they are known by a number from now on. */
type Places = (v: number, number: number) => number;

function numbered(places: ArrayLike<number>): Places {
  let most = -1;
  for (let v = 0; v < places.length; v++) most = Math.max(most, places[v]!);
  const known = new Int32Array(most + 1).fill(-1);
  return (v, number) => {
    const place = places[v]!;
    if (known[place]! >= 0) return known[place]!;
    known[place] = number;
    return -1;
  };
}

/** Triangles in the one order that does not depend on how they were found: each begins with its least vertex, and they follow each other by that one and the next. */
export function inOrder(triangles: Uint32Array, vertices: number): Uint32Array {
  const start = new Uint32Array(vertices + 2);
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    if (b < a && b < c) {
      triangles[i] = b;
      triangles[i + 1] = c;
      triangles[i + 2] = a;
    } else if (c < a && c < b) {
      triangles[i] = c;
      triangles[i + 1] = a;
      triangles[i + 2] = b;
    }
    start[triangles[i]! + 1]! += 1;
  }
  for (let v = 1; v < start.length; v++) start[v]! += start[v - 1]!;
  const fill = start.slice();
  const out = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i += 3) {
    // Within its vertex's share, put in its place by the second vertex.
    const first = start[triangles[i]!]!;
    let at = fill[triangles[i]!]!++;
    while (at > first && out[3 * at - 2]! > triangles[i + 1]!) {
      out[3 * at] = out[3 * at - 3]!;
      out[3 * at + 1] = out[3 * at - 2]!;
      out[3 * at + 2] = out[3 * at - 1]!;
      at -= 1;
    }
    out[3 * at] = triangles[i]!;
    out[3 * at + 1] = triangles[i + 1]!;
    out[3 * at + 2] = triangles[i + 2]!;
  }
  return out;
}

const bits = new Float64Array(2);
const words = new Uint32Array(bits.buffer);

/** A number that points on one place share and few others do. */
function hash(x: number, y: number): number {
  bits[0] = x + 0;
  bits[1] = y + 0;
  let h = Math.imul(words[0]! ^ (words[1]! >>> 3), 0x9e3779b1) ^ Math.imul(words[2]! ^ (words[3]! << 5), 0x85ebca77);
  h ^= h >>> 15;
  h = Math.imul(h ^ words[1]!, 0xc2b2ae3d) ^ words[3]!;
  return (h >>> 0) * 64;
}
