/** Flattening: from an exact profile to the straight edges that are cut, with what their reveals need to know. */
import type { ArcEdge, Profile, Side } from './profile.ts';

/** How finely arcs are divided: by the greatest distance of a chord from its arc (metres), or into a number of chords a half circle. */
export type Fineness = { chord: number } | { segmentsPerHalfCircle: number };

/** One millimetre, the fineness that is used unless another is asked for. */
export const defaultFineness: Fineness = { chord: 0.001 };

/** The most chords that one arc is ever divided into. */
const mostChords = 512;

/**
 * A flattened outline. Edge i runs from point i to point i + 1 (the last one back to point 0), counter-clockwise, the opening
 * on its left. Arrays by edge hold what its reveal needs; those of a straight edge that are for arcs only hold 0.
 */
export interface Outline {
  count: number;
  xs: Float64Array;
  ys: Float64Array;
  side: Side[];
  /** 1 where the edge is a chord of an arc. */
  curved: Uint8Array;
  /** Arc's centre. */
  cx: Float64Array;
  cy: Float64Array;
  /** Unrolled texture coordinates on the outer arris: u is constant along an arc, v runs from vFrom to vTo along the edge. */
  u: Float64Array;
  vFrom: Float64Array;
  vTo: Float64Array;
}

/**
 * Into how many chords an arc is divided. For a sagitta s and radius r one chord may span 2 acos(1 − s / r); a half circle is
 * always divided evenly, and into at least four.
 */
export function chordsOf(radius: number, sweep: number, fineness: Fineness): number {
  const halves = sweep / Math.PI;
  if ('segmentsPerHalfCircle' in fineness) return Math.max(2, Math.min(mostChords, Math.ceil(fineness.segmentsPerHalfCircle * halves - 1e-9)));
  const step = 2 * Math.acos(Math.max(-1, 1 - Math.min(fineness.chord / radius, 1)));
  const even = 2 * Math.ceil(sweep / step / 2 - 1e-9);
  return Math.max(Math.ceil(4 * halves), Math.min(mostChords, even));
}

function arcPoint(arc: ArcEdge, angle: number): [number, number] {
  return [arc.cx + arc.radius * exactCos(angle), arc.cy + arc.radius * exactSin(angle)];
}

/** Cosine, exact at whole quarter turns, so that springing and crown lie where the dimensions say. */
function exactCos(angle: number): number {
  const quarter = angle / (Math.PI / 2);
  return Math.abs(quarter - Math.round(quarter)) < 1e-12 ? ([1, 0, -1, 0][((Math.round(quarter) % 4) + 4) % 4] ?? 0) : Math.cos(angle);
}

function exactSin(angle: number): number {
  return exactCos(angle - Math.PI / 2);
}

/** Divides a profile's arcs into chords. The points of an arc lie on it; its ends are the ends of the edges beside it. */
export function flatten(profile: Profile, fineness: Fineness = defaultFineness): Outline {
  const chords = profile.edges.map((edge) => (edge.kind === 'line' ? 1 : chordsOf(edge.radius, edge.to - edge.from, fineness)));
  const count = chords.reduce((sum, n) => sum + n, 0);
  const outline: Outline = {
    count,
    xs: new Float64Array(count),
    ys: new Float64Array(count),
    side: new Array<Side>(count),
    curved: new Uint8Array(count),
    cx: new Float64Array(count),
    cy: new Float64Array(count),
    u: new Float64Array(count),
    vFrom: new Float64Array(count),
    vTo: new Float64Array(count),
  };
  let at = 0;
  profile.edges.forEach((edge, e) => {
    const n = chords[e] ?? 1;
    if (edge.kind === 'line') {
      outline.xs[at] = edge.ax;
      outline.ys[at] = edge.ay;
      outline.side[at] = edge.side;
      at += 1;
      return;
    }
    const step = (edge.to - edge.from) / n;
    const chord = 2 * edge.radius * Math.sin(step / 2);
    const [seamX, seamY] = arcPoint(edge, edge.seam === 'from' ? edge.from : edge.to);
    for (let i = 0; i < n; i++) {
      const [x, y] = arcPoint(edge, edge.from + i * step);
      outline.xs[at] = x;
      outline.ys[at] = y;
      outline.side[at] = edge.side;
      outline.curved[at] = 1;
      outline.cx[at] = edge.cx;
      outline.cy[at] = edge.cy;
      outline.u[at] = seamX;
      const before = edge.seam === 'from' ? i : n - i;
      const after = edge.seam === 'from' ? i + 1 : n - i - 1;
      outline.vFrom[at] = seamY + edge.rise * chord * before;
      outline.vTo[at] = seamY + edge.rise * chord * after;
      at += 1;
    }
  });
  return outline;
}

/** The area within a flattened outline (square metres), by the shoelace formula. */
export function outlineArea(outline: Outline): number {
  let twice = 0;
  for (let i = 0, j = outline.count - 1; i < outline.count; j = i++)
    twice += (outline.xs[j] ?? 0) * (outline.ys[i] ?? 0) - (outline.xs[i] ?? 0) * (outline.ys[j] ?? 0);
  return twice / 2;
}
