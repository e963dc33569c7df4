/** Flattening: from an exact profile to the straight edges that are cut, with what their reveals need to know. */
import { arcPoint, type ArcEdge, type Profile, type Side } from './profile.ts';

/** How finely arcs are divided: by the greatest distance of a chord from its arc (metres), or into a number of chords a half circle. */
export type Fineness = { chord: number } | { segmentsPerHalfCircle: number };

/** One millimetre, the fineness that is used unless another is asked for. */
export const defaultFineness: Fineness = { chord: 0.001 };

/** The most chords that one arc is ever divided into. */
const mostChords = 512;

/** What is known of one end of an edge that is a chord of an arc. */
export interface ArcEnd {
  /** Unit normal of the reveal, into the opening. */
  nx: number;
  ny: number;
  /** Texture coordinates on the outer arris, metres. */
  u: number;
  v: number;
}

/** A chord's reveal: its two ends, and the direction in which texture runs with the depth. */
export interface Unrolled {
  from: ArcEnd;
  to: ArcEnd;
  /** Texture coordinates gained a metre of depth. */
  du: number;
  dv: number;
}

/**
 * A flattened outline. Edge i runs from point i to point i + 1 (the last one back to point 0), counter-clockwise, the opening
 * on its left.
 */
export interface Outline {
  count: number;
  xs: Float64Array;
  ys: Float64Array;
  side: Side[];
  /** How the reveal of an edge that is a chord is rounded and unrolled; null for a straight edge. */
  arcs: (Unrolled | null)[];
}

/**
 * Into how many chords an arc of a circle is divided. For a sagitta s and radius r one chord may span 2 acos(1 − s / r); the
 * number is even, so that a crown is always a point, and at least four a half circle.
 */
export function chordsOf(radius: number, sweep: number, fineness: Fineness): number {
  const halves = Math.abs(sweep) / Math.PI;
  if ('segmentsPerHalfCircle' in fineness) return Math.max(2, Math.min(mostChords, Math.ceil(fineness.segmentsPerHalfCircle * halves - 1e-9)));
  const step = 2 * Math.acos(Math.max(-1, 1 - Math.min(fineness.chord / radius, 1)));
  const even = 2 * Math.ceil(Math.abs(sweep) / step / 2 - 1e-9);
  return Math.max(2, Math.ceil(4 * halves), Math.min(mostChords, even));
}

/** Unit normal of an arc's reveal, into the opening: the gradient of its ellipse, turned inward where the arc is hollow. */
function normalAt(arc: ArcEdge, angle: number): [number, number] {
  const sense = arc.to > arc.from ? -1 : 1;
  const [x, y] = arcPoint({ ...arc, cx: 0, cy: 0, rx: 1 / arc.rx, ry: 1 / arc.ry }, angle);
  const length = Math.hypot(x, y);
  return [(sense * x) / length, (sense * y) / length];
}

/** Divides a profile's arcs into chords. The points of an arc lie on it; its ends are the ends of the edges beside it. */
export function flatten(profile: Profile, fineness: Fineness = defaultFineness): Outline {
  const xs: number[] = [];
  const ys: number[] = [];
  const outline: Outline = { count: 0, xs: new Float64Array(0), ys: new Float64Array(0), side: [], arcs: [] };
  // An affine image of a circle strays from its chord by no more than its longer radius allows.
  const chords = profile.edges.map((edge) => (edge.kind === 'line' ? 1 : chordsOf(Math.max(edge.rx, edge.ry), edge.to - edge.from, fineness)));
  profile.edges.forEach((edge, e) => {
    const n = chords[e]!;
    for (let i = 0; i < n; i++) {
      outline.side.push(edge.side);
      if (edge.kind === 'line') {
        xs.push(edge.ax);
        ys.push(edge.ay);
        outline.arcs.push(null);
        continue;
      }
      const at = (k: number): number => edge.from + ((edge.to - edge.from) * k) / n;
      const [x, y] = arcPoint(edge, at(i));
      xs.push(x);
      ys.push(y);
      const [ax, ay] = normalAt(edge, at(i));
      const [bx, by] = normalAt(edge, at(i + 1));
      outline.arcs.push({ from: { nx: ax, ny: ay, u: 0, v: 0 }, to: { nx: bx, ny: by, u: 0, v: 0 }, du: 0, dv: 0 });
    }
  });
  outline.count = xs.length;
  outline.xs = Float64Array.from(xs);
  outline.ys = Float64Array.from(ys);
  unroll(profile, outline, chords);
  return outline;
}

/**
 * Lays texture on the rounded reveals. Arcs that follow one another are unrolled in one piece from their left end, the seam: there
 * texture runs on from the straight reveal before them, or where there is none, as though the face itself ran on along the arc.
 */
function unroll(profile: Profile, outline: Outline, chords: readonly number[]): void {
  const { count, xs, ys, arcs } = outline;
  const begins = new Set<number>();
  let at = 0;
  profile.edges.forEach((edge, e) => {
    if (edge.kind === 'arc' && (edge.seam || profile.edges[(e + profile.edges.length - 1) % profile.edges.length]!.kind === 'line')) begins.add(at);
    at += chords[e]!;
  });
  // All of it rounded and nowhere a seam, as when a rounded square has become a circle.
  if (begins.size === 0 && arcs[0]) begins.add(0);
  for (const first of begins) {
    const run: number[] = [];
    for (let i = first; arcs[i] && (run.length === 0 || !begins.has(i)) && run.length < count; i = (i + 1) % count) run.push(i);
    const last = run.at(-1)!;
    const end = (last + 1) % count;
    const fromEnd = xs[end]! < xs[first]! - 1e-9;
    const seam = fromEnd ? end : first;
    // The way along the boundary from the seam, and the normal into the opening there.
    const before = fromEnd ? end : (first + count - 1) % count;
    let nx: number;
    let ny: number;
    if (arcs[before] === null) {
      const [a, b] = [before, (before + 1) % count];
      const length = Math.hypot(xs[b]! - xs[a]!, ys[b]! - ys[a]!);
      [nx, ny] = [-(ys[b]! - ys[a]!) / length, (xs[b]! - xs[a]!) / length];
    } else {
      const tip = fromEnd ? arcs[last]!.to : arcs[first]!.from;
      [nx, ny] = [tip.nx, tip.ny];
    }
    // Counter-clockwise the way is the normal turned back a quarter; from the end it is the other way.
    const [wx, wy] = fromEnd ? [-ny, nx] : [ny, -nx];
    let length = 0;
    for (const i of fromEnd ? run.reverse() : run) {
      const j = (i + 1) % count;
      const arc = arcs[i]!;
      const chord = Math.hypot(xs[j]! - xs[i]!, ys[j]! - ys[i]!);
      const [near, far] = fromEnd ? [arc.to, arc.from] : [arc.from, arc.to];
      [near.u, near.v] = [xs[seam]! + wx * length, ys[seam]! + wy * length];
      length += chord;
      [far.u, far.v] = [xs[seam]! + wx * length, ys[seam]! + wy * length];
      [arc.du, arc.dv] = [nx, ny];
    }
  }
}

/** The area within a flattened outline (square metres), by the shoelace formula. */
export function outlineArea(outline: Outline): number {
  let twice = 0;
  for (let i = 0, j = outline.count - 1; i < outline.count; j = i++)
    twice += (outline.xs[j] ?? 0) * (outline.ys[i] ?? 0) - (outline.xs[i] ?? 0) * (outline.ys[j] ?? 0);
  return twice / 2;
}
