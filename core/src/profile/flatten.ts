/** Flattening: from an exact profile to the straight edges that are cut, with what their reveals need to know. */
import { arcPoint, type ArcEdge, type Profile, type Side } from './profile.ts';
import { relative } from '../tolerances.ts';

/** How finely arcs are divided: by the greatest distance of a chord from its arc (metres), or into a number of chords a half circle. */
export type Fineness = { chord: number } | { segmentsPerHalfCircle: number };

/** A fineness as one number, which tells it from all others. */
export const finenessKey = (fineness: Fineness): number =>
  'chord' in fineness ? fineness.chord : -fineness.segmentsPerHalfCircle;

/** One millimetre, the fineness that is used unless another is asked for. */
export const defaultFineness: Fineness = { chord: 0.001 };

/** The most chords that one arc is ever divided into. */
const mostChords = 512;

/** The exact normals of the reveal at both ends of a chord, unit vectors into the opening, and whether texture begins anew at the chord's start. */
export interface Chord {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  seam: boolean;
}

/**
 * A flattened outline of closed loops. Edge i runs from point i to point next[i], the opening on its left: outer loops run counter-clockwise, islands clockwise.
 */
export interface Outline {
  count: number;
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  /** First point of each loop. */
  loops: number[];
  side: Side[];
  /** What is known of an edge that is a chord of an arc; null for a straight edge. */
  arcs: (Chord | null)[];
}

/**
 * Into how many chords an arc of a circle is divided. For a sagitta s and radius r one chord may span 2 acos(1 − s / r); the
 * number is even, so that a crown is always a point, and at least four a half circle.
 */
export function chordsOf(radius: number, sweep: number, fineness: Fineness): number {
  const halves = Math.abs(sweep) / Math.PI;
  if ('segmentsPerHalfCircle' in fineness)
    return Math.max(2, Math.min(mostChords, Math.ceil(fineness.segmentsPerHalfCircle * halves - relative)));
  const step = 2 * Math.acos(Math.max(-1, 1 - Math.min(fineness.chord / radius, 1)));
  const even = 2 * Math.ceil(Math.abs(sweep) / step / 2 - relative);
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
  const side: Side[] = [];
  const arcs: (Chord | null)[] = [];
  const starts = profile.loops ?? [0];
  const loops: number[] = [];
  const next: number[] = [];
  profile.edges.forEach((edge, e) => {
    if (starts.includes(e)) {
      close();
      loops.push(xs.length);
    }
    // An affine image of a circle strays from its chord by no more than its longer radius allows.
    const n = edge.kind === 'line' ? 1 : chordsOf(Math.max(edge.rx, edge.ry), edge.to - edge.from, fineness);
    for (let i = 0; i < n; i++) {
      side.push(edge.side);
      next.push(xs.length + 1);
      if (edge.kind === 'line') {
        xs.push(edge.ax);
        ys.push(edge.ay);
        arcs.push(null);
        continue;
      }
      const at = (k: number): number => edge.from + ((edge.to - edge.from) * k) / n;
      const [x, y] = arcPoint(edge, at(i));
      xs.push(x);
      ys.push(y);
      const [ax, ay] = normalAt(edge, at(i));
      const [bx, by] = normalAt(edge, at(i + 1));
      arcs.push({ ax, ay, bx, by, seam: i === 0 && edge.seam === true });
    }
  });
  close();
  return {
    count: xs.length,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(next),
    loops,
    side,
    arcs,
  };

  function close(): void {
    if (loops.length > 0) next[xs.length - 1] = loops.at(-1)!;
  }
}

/** The area within a flattened outline (square metres), by the shoelace formula. */
export function outlineArea(outline: Outline): number {
  let twice = 0;
  const { xs, ys, next, count } = outline;
  for (let i = 0; i < count; i++) twice += xs[i]! * ys[next[i]!]! - xs[next[i]!]! * ys[i]!;
  return twice / 2;
}

/** Points of loops by the point that each leads to: the same loops gone round the other way. */
export function backwards(next: Uint32Array): Uint32Array {
  const before = new Uint32Array(next.length);
  next.forEach((to, from) => (before[to] = from));
  return before;
}
