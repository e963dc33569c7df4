/** Charts: from (s, t, n) on an element's face to space. Flat ones are planes; bent ones follow a wall's course in plan, facet by facet, and stand upright. */
import { runsOf, type Wall } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../profile/flatten.ts';

export type Vector = readonly [number, number, number];

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
}

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

/** The chart of a wall that is curved or has several runs. */
export function bentChart(wall: Wall, fineness: Fineness): BentChart {
  const s = [0];
  const x = [wall.start.x];
  const y = [wall.start.y];
  const tangents: number[] = [];
  let angle = wall.turn;
  for (const run of runsOf(wall)) {
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
  const closed = ribs > 3 && Math.hypot(x[0]! - x[ribs - 1]!, y[0]! - y[ribs - 1]!) < 1e-6;
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
    origin: [wall.start.x, wall.start.y, wall.start.z],
    s: Float64Array.from(s),
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    mx,
    my,
    tangents: Float64Array.from(tangents),
  };
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
  return [ax + share * (bx - ax), ay + share * (by - ay), chart.origin[2] + t];
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
  return { along: [x / size, y / size, 0], up: [0, 0, 1], inward: [-y / size, x / size, 0] };
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
    if (shrink > 1e-12) least = Math.min(least, length / shrink);
  }
  return least;
}
