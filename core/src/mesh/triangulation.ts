/**
 * A constrained Delaunay triangulation on half-edges: Delaunay first (delaunator), then each missing edge forced in by flips
 * (S. W. Sloan, "A fast algorithm for generating constrained Delaunay triangulations", Computers & Structures 47, 1993), with exact
 * predicates throughout.
 */
import Delaunator from 'delaunator';
import { inCircle, orient } from './orient.ts';
import { sureSign as sure } from '../tolerances.ts';

const next = (e: number): number => (e % 3 === 2 ? e - 2 : e + 1);
const previous = (e: number): number => (e % 3 === 0 ? e + 2 : e - 1);

/** Raised where an edge cannot be forced in: it meets a point or another forced edge. The outlines given were not clean. */
export class NotTriangulable extends Error {}

/** Triangles run counter-clockwise; half-edge e runs from `corner[e]` to `corner[next(e)]`, `twin[e]` is the same edge the other way, or -1. */
export class Triangulation {
  readonly corner: Uint32Array;
  readonly twin: Int32Array;
  readonly forced: Uint8Array;
  private readonly outgoing: Int32Array;

  /**
   * Delaunay triangulation of points (metres), which must be distinct and not all in line.
   * @param made triangles that there are already, counter-clockwise, with their twins.
   * @param turn radians by which the points are turned before they are looked at: what rounding makes of them is then another matter.
   */
  constructor(
    readonly xs: Float64Array,
    readonly ys: Float64Array,
    made?: { corner: Uint32Array; twin: Int32Array } | null,
    turn = 0,
  ) {
    if (made) {
      this.corner = made.corner;
      this.twin = made.twin;
      this.forced = new Uint8Array(made.corner.length);
      this.outgoing = new Int32Array(xs.length).fill(-1);
      for (let e = 0; e < made.corner.length; e++) this.outgoing[made.corner[e]!] = e;
      return;
    }
    const flat = new Float64Array(2 * xs.length);
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    // Mirrored, since delaunator's triangles run clockwise with y up.
    for (let i = 0; i < xs.length; i++) {
      flat[2 * i] = turn === 0 ? xs[i]! : cos * xs[i]! - sin * ys[i]!;
      flat[2 * i + 1] = turn === 0 ? -ys[i]! : -sin * xs[i]! - cos * ys[i]!;
    }
    const delaunay = new Delaunator(flat);
    this.corner = delaunay.triangles;
    this.twin = delaunay.halfedges;
    if (this.corner.length === 0) throw new NotTriangulable('all points lie in one line');
    this.forced = new Uint8Array(this.corner.length);
    this.outgoing = new Int32Array(xs.length).fill(-1);
    for (let e = 0; e < this.corner.length; e++) this.outgoing[this.corner[e]!] = e;
  }

  /** Whether all triangles run counter-clockwise: of points almost in one line and far apart it may be that some do not. */
  get isSound(): boolean {
    const { corner, xs, ys } = this;
    for (let e = 0; e < corner.length; e += 3) {
      const [a, b, c] = [corner[e]!, corner[e + 1]!, corner[e + 2]!];
      if (orient(xs[a]!, ys[a]!, xs[b]!, ys[b]!, xs[c]!, ys[c]!) <= 0) return false;
    }
    return true;
  }

  /** The half-edge between two points, whichever way it runs, or -1. */
  find(p: number, q: number): number {
    const { corner, twin } = this;
    const start = this.outgoing[p]!;
    if (start < 0) return -1;
    let e = start;
    for (;;) {
      if (corner[next(e)] === q) return e;
      const back = previous(e);
      if (corner[back] === q) return back;
      e = twin[back]!;
      if (e === start) return -1;
      if (e < 0) break;
    }
    // Came to the hull: turn the other way round from the start.
    e = twin[start]!;
    while (e >= 0) {
      e = next(e);
      if (corner[next(e)] === q) return e;
      e = twin[e]!;
    }
    return -1;
  }

  /** Forces the edge from p to q into the triangulation, as one of a kind: 1 bounds, 2 divides. @throws NotTriangulable */
  force(p: number, q: number, kind: 1 | 2 = 1): void {
    const found = this.find(p, q);
    if (found >= 0) return this.mark(found, kind);
    const crossing = this.crossings(p, q);
    const made: number[] = [];
    const { corner, xs, ys } = this;
    let patience = 64 + 16 * crossing.length * crossing.length;
    // Pairs of points rather than half-edges, because flips move half-edges about.
    for (let head = 0; head < crossing.length; head += 2) {
      if (patience-- < 0) throw new NotTriangulable('an edge could not be forced in');
      const a = crossing[head]!;
      const b = crossing[head + 1]!;
      const e = this.find(a, b);
      const t = this.twin[e]!;
      const from = corner[e]!;
      const to = corner[next(e)]!;
      const left = corner[previous(e)]!;
      const right = corner[previous(t)]!;
      const convex =
        orient(xs[right]!, ys[right]!, xs[to]!, ys[to]!, xs[left]!, ys[left]!) > 0 &&
        orient(xs[left]!, ys[left]!, xs[from]!, ys[from]!, xs[right]!, ys[right]!) > 0;
      if (!convex) {
        crossing.push(a, b);
        continue;
      }
      this.flip(e);
      const ends = (left === p && right === q) || (left === q && right === p);
      if (!ends && left !== p && left !== q && right !== p && right !== q && this.opposite(p, q, left, right))
        crossing.push(left, right);
      else if (!ends) made.push(left, right);
    }
    this.mark(this.find(p, q), kind);
    this.restore(made);
  }

  private mark(e: number, kind: 1 | 2): void {
    if (this.forced[e] === 1) return;
    this.forced[e] = kind;
    const t = this.twin[e]!;
    if (t >= 0) this.forced[t] = kind;
  }

  private opposite(p: number, q: number, a: number, b: number): boolean {
    const { xs, ys } = this;
    const sideA = orient(xs[p]!, ys[p]!, xs[q]!, ys[q]!, xs[a]!, ys[a]!);
    const sideB = orient(xs[p]!, ys[p]!, xs[q]!, ys[q]!, xs[b]!, ys[b]!);
    return (sideA > 0 && sideB < 0) || (sideA < 0 && sideB > 0);
  }

  /** The edges that cross the segment from p to q, in order from p, two points each. */
  private crossings(p: number, q: number): number[] {
    const { corner, twin, xs, ys } = this;
    const side = (v: number): number => orient(xs[p]!, ys[p]!, xs[q]!, ys[q]!, xs[v]!, ys[v]!);
    let e = this.wedgeTowards(p, q);
    const found: number[] = [];
    for (;;) {
      if (this.forced[e]) throw new NotTriangulable('two outlines cross');
      found.push(corner[e]!, corner[next(e)]!);
      const t = twin[e]!;
      if (t < 0) throw new NotTriangulable('an edge leaves the hull');
      const apex = corner[previous(t)]!;
      if (apex === q) return found;
      const where = side(apex);
      if (where === 0) throw new NotTriangulable('an edge runs through a point');
      // e runs from the right of the segment to its left; so must the edge by which the segment leaves the next triangle.
      e = where > 0 ? next(t) : previous(t);
    }
  }

  /** The half-edge opposite p in the triangle at p through which the way to q leads. */
  private wedgeTowards(p: number, q: number): number {
    const { corner, twin, xs, ys } = this;
    const start = this.outgoing[p]!;
    const towards = (e: number): boolean => {
      const b = corner[next(e)]!;
      const c = corner[previous(e)]!;
      return (
        orient(xs[p]!, ys[p]!, xs[b]!, ys[b]!, xs[q]!, ys[q]!) > 0 &&
        orient(xs[p]!, ys[p]!, xs[q]!, ys[q]!, xs[c]!, ys[c]!) > 0
      );
    };
    let e = start;
    do {
      if (towards(e)) return next(e);
      e = twin[previous(e)]!;
    } while (e >= 0 && e !== start);
    if (e < 0) {
      e = twin[start]!;
      while (e >= 0) {
        e = next(e);
        if (towards(e)) return next(e);
        e = twin[e]!;
      }
    }
    throw new NotTriangulable('an edge runs through a point');
  }

  /**
   * Flips edges until every one that is not forced is Delaunay by the exact test, and where four points lie on one circle has the first of them, by place, at one end. That leaves one triangulation
   * only, whatever the order in which points and edges came.
   * @param side by triangle; only triangles with 1 are looked at.
   */
  settle(side: Uint8Array): void {
    const { corner, twin, forced } = this;
    const queue: number[] = [];
    let patience = 64 + 64 * corner.length;
    /** @param passed the last half-edge that the loop below has come to. */
    const look = (e: number, passed: number): void => {
      const t = twin[e]!;
      if (!this.turns(e, t)) return;
      this.flip(e);
      // The four edges about the two triangles, those that the loop has yet to come to left to it.
      for (const edge of [e, next(e), t, next(t)])
        if (!forced[edge] && twin[edge]! >= 0 && (edge <= passed || twin[edge]! <= passed)) queue.push(edge);
    };
    for (let first = 0; first < corner.length; first += 3) {
      if (side[(first / 3) | 0] !== 1) continue;
      for (let e = first; e < first + 3; e++) {
        const t = twin[e]!;
        if (e >= t || forced[e]) continue;
        look(e, e);
      }
      while (queue.length > 0 && patience-- > 0) {
        const e = queue.pop()!;
        if (twin[e]! >= 0 && !forced[e]) look(e, first + 2);
      }
    }
  }

  private turns(e: number, t: number): boolean {
    const { corner, xs, ys } = this;
    const p = corner[e]!;
    const q = corner[next(e)]!;
    const r = corner[previous(e)]!;
    const s = corner[previous(t)]!;
    // The determinant of the in-circle test about s, and what it is measured by.
    const sx = xs[s]!;
    const sy = ys[s]!;
    const px = xs[p]! - sx;
    const py = ys[p]! - sy;
    const qx = xs[q]! - sx;
    const qy = ys[q]! - sy;
    const rx = xs[r]! - sx;
    const ry = ys[r]! - sy;
    const pp = px * px + py * py;
    const qq = qx * qx + qy * qy;
    const rr = rx * rx + ry * ry;
    let inside = px * (qy * rr - qq * ry) - py * (qx * rr - qq * rx) + pp * (qx * ry - qy * rx);
    const size =
      Math.abs(px) * (Math.abs(qy) * rr + qq * Math.abs(ry)) +
      Math.abs(py) * (Math.abs(qx) * rr + qq * Math.abs(rx)) +
      pp * (Math.abs(qx * ry) + Math.abs(qy * rx));
    if (Math.abs(inside) <= sure * size)
      inside = inCircle(xs[p]!, ys[p]!, xs[q]!, ys[q]!, xs[r]!, ys[r]!, xs[s]!, ys[s]!);
    if (inside < 0) return false;
    if (inside > 0) return true;
    const own = this.before(p, q) ? p : q;
    const other = this.before(r, s) ? r : s;
    // Points on one circle are in convex position unless some of them are in line.
    return (
      this.before(other, own) &&
      orient(xs[r]!, ys[r]!, xs[s]!, ys[s]!, xs[q]!, ys[q]!) > 0 &&
      orient(xs[s]!, ys[s]!, xs[r]!, ys[r]!, xs[p]!, ys[p]!) > 0
    );
  }

  /** Whether one point comes before another by place. */
  private before(a: number, b: number): boolean {
    const { xs, ys } = this;
    return xs[a]! < xs[b]! || (xs[a] === xs[b] && ys[a]! < ys[b]!);
  }

  /** Turns the diagonal of the two triangles at half-edge a. */
  private flip(a: number): void {
    const { corner, twin, forced, outgoing } = this;
    const b = twin[a]!;
    const aNext = next(a);
    const aBack = previous(a);
    const bNext = next(b);
    const bBack = previous(b);
    const p = corner[a]!;
    const q = corner[b]!;
    const r = corner[aBack]!;
    const s = corner[bBack]!;
    const beyondA = twin[aBack]!;
    const beyondB = twin[bBack]!;
    corner[a] = s;
    corner[b] = r;
    twin[a] = beyondB;
    if (beyondB >= 0) twin[beyondB] = a;
    twin[b] = beyondA;
    if (beyondA >= 0) twin[beyondA] = b;
    twin[aBack] = bBack;
    twin[bBack] = aBack;
    forced[a] = forced[bBack]!;
    forced[b] = forced[aBack]!;
    forced[aBack] = 0;
    forced[bBack] = 0;
    outgoing[p] = bNext;
    outgoing[q] = aNext;
    outgoing[r] = b;
    outgoing[s] = a;
  }

  /** Makes edges (two points each) Delaunay again as far as forced edges allow. */
  private restore(edges: number[]): void {
    const { corner, twin, xs, ys } = this;
    let patience = 64 + 64 * edges.length * edges.length;
    while (edges.length > 0 && patience-- > 0) {
      const b = edges.pop()!;
      const a = edges.pop()!;
      const e = this.find(a, b);
      if (e < 0 || this.forced[e] || twin[e]! < 0) continue;
      const from = corner[e]!;
      const to = corner[next(e)]!;
      const left = corner[previous(e)]!;
      const right = corner[previous(twin[e]!)]!;
      if (inCircle(xs[from]!, ys[from]!, xs[to]!, ys[to]!, xs[left]!, ys[left]!, xs[right]!, ys[right]!) <= 0) continue;
      this.flip(e);
      edges.push(from, left, left, to, to, right, right, from);
    }
  }
}
