/** Charts: from (s, t, n) on an element's face to space. Flat ones are planes; bent ones follow a course in plan, facet by facet, and stand upright, or where their frame puts them. */
import type { Run } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../profile/flatten.ts';
import { dot, type Vector } from '../vector.ts';
import { micrometre, relative, rounding } from '../tolerances.ts';

export type { Vector } from '../vector.ts';

/**
 * A flat chart: the point (s, t, n) is at origin + s·along + t·up + n·inward, all metres. The three directions are unit vectors
 * at right angles, and along × up = −inward.
 */
export interface FlatChart {
  kind: 'flat';
  origin: Vector;
  along: Vector;
  up: Vector;
  inward: Vector;
}

/**
 * A bent chart: facets between ribs, upright lines at which the face turns. At depth n rib i stands at (x[i] + n·mx[i], y[i] + n·my[i]) in plan, so that facets stay parallel to themselves and meet
 * in mitres. Between ribs a point goes in proportion, which on an arc is radially.
 */
export interface BentChart {
  kind: 'bent';
  origin: Vector;
  /** Distance along the outer face at each rib, arcs measured exactly. */
  s: Float64Array;
  x: Float64Array;
  y: Float64Array;
  mx: Float64Array;
  my: Float64Array;
  /** Unit tangents of the true course at each facet's start and end, for smooth normals: x, y of both, four figures a facet. */
  tangents: Float64Array;
  /** Where it stands, if it is not upright where it is drawn: all else is told in the frame's own directions. */
  frame?: Rigid | undefined;
}

/** A rigid frame: the point (x, y, z) in it is at origin + x·x + y·y + z·z, unit vectors at right angles, right-handed. */
export interface Rigid {
  origin: Vector;
  x: Vector;
  y: Vector;
  z: Vector;
}

/** A direction of a frame in space. */
export function turnedOut({ x, y, z }: Rigid, [a, b, c]: Vector): [number, number, number] {
  return [a * x[0] + b * y[0] + c * z[0], a * x[1] + b * y[1] + c * z[1], a * x[2] + b * y[2] + c * z[2]];
}

/** A direction in space as it is seen from a frame. */
export function turnedIn({ x, y, z }: Rigid, v: Vector): [number, number, number] {
  return [dot(x, v), dot(y, v), dot(z, v)];
}

/** A point in space as it is seen from a frame. */
export function placedIn(frame: Rigid, [x, y, z]: Vector): [number, number, number] {
  return turnedIn(frame, [x - frame.origin[0], y - frame.origin[1], z - frame.origin[2]]);
}

/** The same chart upright where it is drawn, without its frame. */
export function upright(chart: BentChart): BentChart {
  return chart.frame ? { ...chart, frame: undefined } : chart;
}

/** A point of space beside which an element stands, metres. */
export const originOf = (chart: Chart): Vector => (chart.kind === 'bent' && chart.frame?.origin) || chart.origin;

export type Chart = FlatChart | BentChart;

/** Cosine and sine of an angle in degrees, exact at whole quarter turns, so that square walls have square coordinates. */
export function turned(degrees: number): [number, number] {
  const quarter = degrees / 90;
  if (Number.isInteger(quarter)) {
    const i = ((quarter % 4) + 4) % 4;
    return [[1, 0, -1, 0][i] ?? 1, [0, 1, 0, -1][i] ?? 0];
  }
  const radians = (degrees * Math.PI) / 180;
  return [Math.cos(radians), Math.sin(radians)];
}

/** The chart of a course that is curved or has several runs. @param leaves the direction at its start, degrees. */
export function bentChart(
  start: { x: number; y: number; z: number },
  leaves: number,
  runs: readonly Run[],
  fineness: Fineness,
): BentChart {
  const s = [0];
  const x = [start.x];
  const y = [start.y];
  const tangents: number[] = [];
  let angle = leaves;
  for (const run of runs) {
    angle += run.turn;
    const sweep = run.sweep ?? 0;
    const [x0, y0, s0] = [x.at(-1)!, y.at(-1)!, s.at(-1)!];
    if (sweep === 0) {
      const [cos, sin] = turned(angle);
      s.push(s0 + run.length);
      x.push(x0 + cos * run.length);
      y.push(y0 + sin * run.length);
      tangents.push(cos, sin, cos, sin);
      continue;
    }
    const radians = (sweep * Math.PI) / 180;
    const radius = run.length / radians;
    const n = chordsOf(Math.abs(radius), radians, fineness);
    const [tx, ty] = turned(angle);
    // The centre is to the left of the way, by the signed radius.
    const [cx, cy] = [x0 - ty * radius, y0 + tx * radius];
    for (let i = 1; i <= n; i++) {
      const [bx, by] = turned(angle + (sweep * i) / n);
      const [ax, ay] = turned(angle + (sweep * (i - 1)) / n);
      s.push(s0 + (run.length * i) / n);
      x.push(cx + by * radius);
      y.push(cy - bx * radius);
      tangents.push(ax, ay, bx, by);
    }
    angle += sweep;
  }
  const ribs = s.length;
  const mx = new Float64Array(ribs);
  const my = new Float64Array(ribs);
  const inward = (facet: number): [number, number] => {
    const [dx, dy] = [x[facet + 1]! - x[facet]!, y[facet + 1]! - y[facet]!];
    const size = Math.hypot(dx, dy);
    return [-dy / size, dx / size];
  };
  const closed = ribs > 3 && Math.hypot(x[0]! - x[ribs - 1]!, y[0]! - y[ribs - 1]!) < micrometre;
  for (let i = 0; i < ribs; i++) {
    const before = i > 0 ? i - 1 : closed ? ribs - 2 : 0;
    const after = i < ribs - 1 ? i : closed ? 0 : ribs - 2;
    const [ax, ay] = inward(before);
    const [bx, by] = inward(after);
    const scale = 1 + ax * bx + ay * by;
    mx[i] = (ax + bx) / scale;
    my[i] = (ay + by) / scale;
  }
  return {
    kind: 'bent',
    origin: [start.x, start.y, start.z],
    s: Float64Array.from(s),
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    mx,
    my,
    tangents: Float64Array.from(tangents),
  };
}

/** The same with ends square to the true course, not to its last facets: those of an arc lie on its radii, so that a barrel sits level on its springings. */
export function withRadialEnds(chart: BentChart): BentChart {
  const [mx, my] = [chart.mx.slice(), chart.my.slice()];
  const last = chart.s.length - 1;
  for (const [rib, facet, at] of [
    [0, 0, 0],
    [last, last - 1, 2],
  ] as const) {
    const [tx, ty] = [chart.tangents[4 * facet + at]!, chart.tangents[4 * facet + at + 1]!];
    const [dx, dy] = [chart.x[facet + 1]! - chart.x[facet]!, chart.y[facet + 1]! - chart.y[facet]!];
    // The facet stays parallel to itself: its depth is that of the radius along its own normal.
    const scale = Math.hypot(dx, dy) / (tx * dx + ty * dy);
    mx[rib] = -ty * scale;
    my[rib] = tx * scale;
  }
  return { ...chart, mx, my };
}

/** The facet in which a distance along the outer face lies; the first or last one beyond the ends. */
export function facetAt(chart: BentChart, s: number): number {
  const last = chart.s.length - 2;
  let low = 0;
  let high = last;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (chart.s[middle]! <= s) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The point (s, t, n) of a chart in space, metres. */
export function pointAt(chart: Chart, s: number, t: number, n: number): [number, number, number] {
  if (chart.kind === 'flat') {
    const { origin, along, up, inward } = chart;
    return [
      origin[0] + s * along[0] + t * up[0] + n * inward[0],
      origin[1] + s * along[1] + t * up[1] + n * inward[1],
      origin[2] + s * along[2] + t * up[2] + n * inward[2],
    ];
  }
  const f = facetAt(chart, s);
  const share = (s - chart.s[f]!) / (chart.s[f + 1]! - chart.s[f]!);
  const [ax, ay] = ribAt(chart, f, n);
  const [bx, by] = ribAt(chart, f + 1, n);
  const point: Vector = [ax + share * (bx - ax), ay + share * (by - ay), chart.origin[2] + t];
  const { frame } = chart;
  if (!frame) return point as [number, number, number];
  const [px, py, pz] = turnedOut(frame, point);
  return [frame.origin[0] + px, frame.origin[1] + py, frame.origin[2] + pz];
}

/** Where a rib stands in plan at a depth. */
export function ribAt(chart: BentChart, i: number, n: number): [number, number] {
  return [chart.x[i]! + n * chart.mx[i]!, chart.y[i]! + n * chart.my[i]!];
}

/** The directions at (s, n): along the face, up, and inward, unit vectors. On an arc they turn with it, as the true curve does. */
export function directionsAt(chart: Chart, s: number): { along: Vector; up: Vector; inward: Vector } {
  if (chart.kind === 'flat') return chart;
  const f = facetAt(chart, s);
  const share = Math.max(0, Math.min(1, (s - chart.s[f]!) / (chart.s[f + 1]! - chart.s[f]!)));
  const [ax, ay, bx, by] = chart.tangents.subarray(4 * f, 4 * f + 4) as unknown as [number, number, number, number];
  const [x, y] = [ax + share * (bx - ax), ay + share * (by - ay)];
  const size = Math.hypot(x, y);
  const own = {
    along: [x / size, y / size, 0],
    up: [0, 0, 1],
    inward: [-y / size, x / size, 0],
  } as const satisfies Record<string, Vector>;
  const { frame } = chart;
  return frame ? { along: turnedOut(frame, own.along), up: frame.z, inward: turnedOut(frame, own.inward) } : own;
}

/** Distances of the ribs along the face at a depth, as it is developed there: the facets' own lengths one after the other. */
export function developedAt(chart: BentChart, n: number): Float64Array {
  const out = new Float64Array(chart.s.length);
  for (let i = 1; i < out.length; i++) {
    const [ax, ay] = ribAt(chart, i - 1, n);
    const [bx, by] = ribAt(chart, i, n);
    out[i] = out[i - 1]! + Math.hypot(bx - ax, by - ay);
  }
  return out;
}

/** The depth at which some facet of a bent chart has shrunk to nothing, or Infinity. */
export function deepest(chart: BentChart): number {
  let least = Infinity;
  for (let i = 0; i + 1 < chart.s.length; i++) {
    const [dx, dy] = [chart.x[i + 1]! - chart.x[i]!, chart.y[i + 1]! - chart.y[i]!];
    const length = Math.hypot(dx, dy);
    const shrink = -((chart.mx[i + 1]! - chart.mx[i]!) * dx + (chart.my[i + 1]! - chart.my[i]!) * dy) / length;
    if (shrink > rounding) least = Math.min(least, length / shrink);
  }
  return least;
}

/** Where a level line in plan meets a bent face at a depth, all of it upright: how far along the face, and how far along the line from its point, metres. */
export function hitsOn(
  chart: BentChart,
  n: number,
  [px, py]: readonly number[],
  [wx, wy]: readonly [number, number],
): { s: number; at: number }[] {
  const found: { s: number; at: number }[] = [];
  for (let f = 0; f + 1 < chart.s.length; f++) {
    const [ax, ay] = ribAt(chart, f, n);
    const [bx, by] = ribAt(chart, f + 1, n);
    const det = (bx - ax) * wy - (by - ay) * wx;
    if (Math.abs(det) < rounding) continue;
    const share = ((px! - ax) * wy - (py! - ay) * wx) / det;
    if (share < -relative || share >= 1 - (f + 2 < chart.s.length ? relative : -relative)) continue;
    found.push({
      s: chart.s[f]! + share * (chart.s[f + 1]! - chart.s[f]!),
      at: (ax + share * (bx - ax) - px!) * wx + (ay + share * (by - ay) - py!) * wy,
    });
  }
  return found;
}
