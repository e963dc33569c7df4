/** Placing a tube on its chart: where its nodes stand in space, and which of its edges cross lines on the face. */
import { directionsAt, facetAt, pointAt, ribAt, type BentChart, type Chart, type Vector } from '../element/chart.ts';
import { intoPatches, type PlacedTube } from './patches.ts';
import type { Tube } from './tube.ts';
import { developed as developedAlike, nanometre as same, relative, touch } from '../tolerances.ts';

const none = new Float64Array(0);
const nothing: number[] = [];

/** Raised where an opening reaches so far round a curve that it no longer looks at the face. */
export class BeyondCurve extends Error {}

/**
 * How nodes of one operand reach the face. Proportional nodes keep their distance along the outer face; a straight frame carries its outline square through the wall, along the inward
 * direction at `s`.
 */
export type Frame = { kind: 'proportional' } | StraightFrame;
export interface StraightFrame {
  kind: 'straight';
  /** Distance along the face at the outline's middle, metres, and that point in plan. */
  s: number;
  x: number;
  y: number;
  along: Vector;
  inward: Vector;
  /** By how much it rises a metre of way inward from that point. */
  slope: number;
}

/** The frame that looks square at a chart at a distance along it. */
export function straightFrame(chart: Chart, s: number): StraightFrame {
  const [x, y] = pointAt(chart, s, 0, 0);
  const { along, inward } = directionsAt(chart, s);
  return { kind: 'straight', s, x, y, along, inward, slope: 0 };
}

/** Whether two frames carry what is drawn to the same places: proportional ones, and straight ones that look the same way from places that differ as what they carry does. */
export function isCarriedAlike(a: Frame, b: Frame): boolean {
  if (a.kind === 'proportional' || b.kind === 'proportional') return a.kind === b.kind;
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const aside = dx * a.along[0] + dy * a.along[1];
  // Of what rises, it matters how far in it begins.
  const ahead = a.slope === 0 ? 0 : dx * a.inward[0] + dy * a.inward[1];
  return (
    Math.abs(a.along[0] * b.along[1] - a.along[1] * b.along[0]) < relative &&
    Math.abs(a.inward[0] - b.inward[0]) + Math.abs(a.inward[1] - b.inward[1]) < relative &&
    Math.abs(a.slope - b.slope) < relative &&
    Math.abs(aside - (b.s - a.s)) < same &&
    Math.abs(ahead) < same
  );
}

/** Lines on a face at which edges are divided: ribs of a bent chart, or rows and columns of quads. Ids are unique over both directions. */
export interface FaceLines {
  /** Distances along (metres, rising) of the upright lines, and heights of the level ones. Ribs of a bent chart are not listed: they are always divided at. */
  columns: Float64Array;
  rows: Float64Array;
}

/** Places a tube on a flat chart, at its own coordinates. */
export function placeFlat(tube: Tube, chart: Chart, lines: FaceLines | null): PlacedTube {
  const placed = begin(tube);
  for (let v = 0; v < tube.x.length; v++) {
    placed.positions.push(...pointAt(chart, tube.x[v]!, tube.y[v]!, tube.n[v]!));
    placed.u.push(tube.x[v]!);
    placed.v.push(tube.y[v]!);
  }
  const add = (x: number, y: number, n: number): number => {
    placed.positions.push(...pointAt(chart, x, y, n));
    placed.u.push(x);
    placed.v.push(y);
    placed.n.push(n);
    return placed.u.length - 1;
  };
  const lineOf = new Map<number, number[]>();
  const splits = new Map<number, number[]>();
  const between = (a: number, b: number): number[] => {
    if (!lines || Math.abs(placed.n[a]! - placed.n[b]!) > same) return [];
    const key = a < b ? a * 0x400000 + b : b * 0x400000 + a;
    let found = splits.get(key);
    if (!found) {
      const [p, q] = a < b ? [a, b] : [b, a];
      const [px, py, qx, qy] = [placed.u[p]!, placed.v[p]!, placed.u[q]!, placed.v[q]!];
      const cuts: { at: number; line: number }[] = [];
      within(lines.columns, px, qx, (i) => cuts.push({ at: (lines.columns[i]! - px) / (qx - px), line: i }));
      within(lines.rows, py, qy, (i) =>
        cuts.push({ at: (lines.rows[i]! - py) / (qy - py), line: lines.columns.length + i }),
      );
      cuts.sort((c, d) => c.at - d.at);
      found = [];
      let last = -1;
      for (const { at, line } of cuts) {
        if (last >= 0 && at - last < same) {
          lineOf.get(found.at(-1)!)!.push(line);
          continue;
        }
        const isColumn = line < lines.columns.length;
        const x = isColumn ? lines.columns[line]! : px + at * (qx - px);
        const y = isColumn ? py + at * (qy - py) : lines.rows[line - lines.columns.length]!;
        const v = add(x, y, placed.n[p]!);
        lineOf.set(v, [line]);
        found.push(v);
        last = at;
      }
      splits.set(key, found);
    }
    return a < b ? found : [...found].reverse();
  };
  const past = (line: number, v: number): number => {
    const { columns, rows } = lines!;
    return line < columns.length ? placed.u[v]! - columns[line]! : placed.v[v]! - rows[line - columns.length]!;
  };
  intoPatches(placed, between, lines ? { of: (v) => lineOf.get(v) ?? [], past } : null);
  return placed;
}

function within(values: Float64Array, a: number, b: number, take: (i: number) => void): void {
  const [low, high] = a < b ? [a, b] : [b, a];
  for (let i = 0; i < values.length; i++) if (values[i]! > low + touch && values[i]! < high - touch) take(i);
}

/**
 * Places a tube on a bent chart. A node at the corner of an opening goes with that opening's frame, one of the sheet's own in proportion.
 * @param frames by operand; frames[0] is the sheet's own.
 * @param ribsAt the chart's ribs as it is developed at a depth.
 * @throws BeyondCurve
 */
export function placeBent(
  tube: Tube,
  chart: BentChart,
  frames: readonly Frame[],
  { lines, ribsAt }: { lines: FaceLines | null; ribsAt: (n: number) => Float64Array },
): PlacedTube {
  const placed = begin(tube);
  const lineOf: number[][] = [];
  const across: number[] = [];
  /** Heights as drawn, before a frame that rises has lifted them. */
  const drawn: number[] = [];
  const facet: number[] = [];
  const onRib: boolean[] = [];
  const rows = lines?.rows ?? new Float64Array(0);
  for (let v = 0; v < tube.x.length; v++) {
    const frame = frames[placed.frame[v]!]!;
    const [n, x, y] = [tube.n[v]!, tube.x[v]!, tube.y[v]!];
    const developed = ribsAt(n);
    let f: number;
    let share: number;
    if (frame.kind === 'proportional') {
      f = facetAt(chart, x);
      share = (x - chart.s[f]!) / (chart.s[f + 1]! - chart.s[f]!);
      across.push(x);
    } else {
      [f, share] = cast(chart, frame, x - frame.s, n);
      across.push(x - frame.s);
    }
    if (Math.abs(share) < same) share = 0;
    if (Math.abs(share - 1) < same && f + 2 < chart.s.length) {
      f += 1;
      share = 0;
    }
    lineOf.push(share === 0 && f > 0 ? [f] : nothing);
    facet.push(f);
    onRib.push(share === 0 && f > 0);
    const ax = chart.x[f]! + n * chart.mx[f]!;
    const ay = chart.y[f]! + n * chart.my[f]!;
    const bx = chart.x[f + 1]! + n * chart.mx[f + 1]!;
    const by = chart.y[f + 1]! + n * chart.my[f + 1]!;
    const px = ax + share * (bx - ax);
    const py = ay + share * (by - ay);
    const t = y + lift(frame, px, py);
    placed.positions.push(px, py, chart.origin[2] + t);
    placed.u.push(developed[f]! + share * (developed[f + 1]! - developed[f]!));
    placed.v.push(t);
    drawn.push(y);
  }
  const splits = new Map<number, number[]>();
  const between = (a: number, b: number): number[] => {
    if (Math.abs(placed.n[a]! - placed.n[b]!) > same) return nothing;
    // Most edges lie within one facet.
    const [f, g] = [facet[a]!, facet[b]!];
    if (rows.length === 0 && (f === g || (f === g + 1 && onRib[a]) || (g === f + 1 && onRib[b]))) return nothing;
    const key = a < b ? a * 0x400000 + b : b * 0x400000 + a;
    let found = splits.get(key);
    if (!found) {
      const [p, q] = a < b ? [a, b] : [b, a];
      const n = placed.n[p]!;
      const developed = ribsAt(n);
      const [own, other] = [frames[placed.frame[p]!]!, frames[placed.frame[q]!]!];
      const frame = own === other ? own : null;
      const [pu, qu] = [placed.u[p]!, placed.u[q]!];
      found = [];
      // Lines that rise cross rows elsewhere than they were drawn to: the rows end there.
      const crossed = frame?.kind === 'straight' && frame.slope !== 0 ? none : rows;
      if (crossed.length === 0 && facetOf(developed, pu) === facetOf(developed, qu)) {
        splits.set(key, found);
        return found;
      }
      const [pv, qv] = [drawn[p]!, drawn[q]!];
      const cuts: { share: number; rib: number; row: number }[] = [];
      if (crossed.length > 0)
        within(crossed, pv, qv, (i) => cuts.push({ share: (rows[i]! - pv) / (qv - pv), rib: -1, row: i }));
      const [low, high] = pu < qu ? [pu, qu] : [qu, pu];
      for (let i = 1; i + 1 < developed.length; i++) {
        if (developed[i]! <= low + developedAlike || developed[i]! >= high - developedAlike) continue;
        let share = (developed[i]! - pu) / (qu - pu);
        const [rx, ry] = ribAt(chart, i, n);
        if (frame) {
          const at =
            frame.kind === 'proportional'
              ? chart.s[i]!
              : (rx - frame.x) * frame.along[0] + (ry - frame.y) * frame.along[1];
          share = (at - across[p]!) / (across[q]! - across[p]!);
        }
        cuts.push({ share, rib: i, row: -1 });
      }
      cuts.sort((a, b) => a.share - b.share);
      let last = -1;
      for (const { share, rib, row } of cuts) {
        if (last >= 0 && share - last < same) continue;
        last = share;
        const t = row >= 0 ? rows[row]! : pv + share * (qv - pv);
        const at = across[p]! + share * (across[q]! - across[p]!);
        let f = rib;
        let part = 0;
        if (rib < 0) {
          if (frame?.kind === 'straight') [f, part] = cast(chart, frame, at, n);
          else {
            const u = pu + share * (qu - pu);
            f = 0;
            while (f + 2 < developed.length && developed[f + 1]! <= u) f += 1;
            part = (u - developed[f]!) / (developed[f + 1]! - developed[f]!);
          }
        }
        const [ax, ay] = ribAt(chart, f, n);
        const [bx, by] = part === 0 ? [ax, ay] : ribAt(chart, f + 1, n);
        const [x, y] = [ax + part * (bx - ax), ay + part * (by - ay)];
        const level = t + (frame ? lift(frame, x, y) : 0);
        placed.positions.push(x, y, chart.origin[2] + level);
        drawn.push(t);
        placed.u.push(part === 0 ? developed[f]! : developed[f]! + part * (developed[f + 1]! - developed[f]!));
        placed.v.push(level);
        placed.n.push(n);
        placed.frame.push(placed.frame[p]!);
        across.push(at);
        // Rows are told from ribs by coming after them all.
        lineOf.push([rib >= 0 ? rib : chart.s.length + row]);
        found.push(placed.u.length - 1);
      }
      splits.set(key, found);
    }
    return a < b ? found : [...found].reverse();
  };
  const past = (line: number, v: number): number =>
    line < chart.s.length ? placed.u[v]! - ribsAt(placed.n[v]!)[line]! : drawn[v]! - rows[line - chart.s.length]!;
  // At ribs faces fold, so there they are divided wherever they can be.
  const firm = (line: number): boolean => line < chart.s.length;
  // Most faces lie within one facet.
  const clear = (nodes: readonly number[]): boolean => {
    if (rows.length > 0) return false;
    for (const v of nodes) if (facet[v] !== facet[nodes[0]!]) return false;
    return true;
  };
  intoPatches(placed, between, { of: (v) => lineOf[v]!, past, firm, clear });
  return placed;
}

/** By how much a frame that rises lifts what is drawn in it, at a point in plan. */
function lift(frame: Frame, x: number, y: number): number {
  return frame.kind === 'straight' && frame.slope !== 0
    ? frame.slope * ((x - frame.x) * frame.inward[0] + (y - frame.y) * frame.inward[1])
    : 0;
}

/** The facet in which a distance lies on a developed face; of two that meet there, the later one. */
function facetOf(developed: Float64Array, u: number): number {
  let low = 0;
  let high = developed.length - 2;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (developed[middle]! <= u + developedAlike) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Where a ray of a straight frame, so far across from its middle, meets the face at a depth: facet and share of it. */
function cast(chart: BentChart, frame: StraightFrame, across: number, n: number): [number, number] {
  const at = (i: number): number =>
    (chart.x[i]! + n * chart.mx[i]! - frame.x) * frame.along[0] +
    (chart.y[i]! + n * chart.my[i]! - frame.y) * frame.along[1];
  const last = chart.s.length - 2;
  let f = facetAt(chart, frame.s);
  let [left, right] = [at(f), at(f + 1)];
  while (across > right + same && f < last) {
    f += 1;
    left = right;
    right = at(f + 1);
    if (right <= left + same) throw new BeyondCurve();
  }
  while (across < left - same && f > 0) {
    f -= 1;
    right = left;
    left = at(f);
    if (right <= left + same) throw new BeyondCurve();
  }
  const share = (across - left) / (right - left);
  // Beyond the wall's own end its last facet runs on, to be clipped there.
  return [f, share];
}

function begin(tube: Tube): PlacedTube {
  return {
    tube,
    positions: [],
    u: [],
    v: [],
    n: [...tube.n],
    patches: [],
    patchStart: [],
    near: [],
    far: [],
    frame: operandsOf(tube),
  };
}

/** Whose frame each node has: that of the greatest operand of the edges that meet there. */
function operandsOf(tube: Tube): number[] {
  const frame = new Array<number>(tube.x.length).fill(0);
  for (const { edge, nodes } of tube.faces) {
    const { operand } = tube.edges[edge]!;
    for (const v of nodes) frame[v] = Math.max(frame[v]!, operand);
  }
  for (const ring of [...tube.near, ...tube.far])
    ring.nodes.forEach((v, i) => {
      const before = ring.edges[(i + ring.edges.length - 1) % ring.edges.length]!;
      frame[v] = Math.max(frame[v]!, tube.edges[ring.edges[i]!]!.operand, tube.edges[before]!.operand);
    });
  return frame;
}
