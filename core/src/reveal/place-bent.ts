/** Placing a tube on a bent chart. */
import { facetAt, ribAt, type BentChart } from '../element/chart.ts';
import { cast, lift, type Frame } from './frame.ts';
import { intoPatches, type PlacedTube } from './patches.ts';
import { begin, Splits, within, type FaceLines } from './placed.ts';
import type { Tube } from './tube.ts';
import { developed as developedAlike, nanometre as same } from '../tolerances.ts';

const none = new Float64Array(0);
const nothing: number[] = [];

/** What a tube is placed on. */
interface Onto {
  lines: FaceLines | null;
  /** The chart's ribs as it is developed at a depth. */
  ribsAt: (n: number) => Float64Array;
}

/**
 * Places a tube on a bent chart. A node at the corner of an opening goes with that opening's frame, one of the sheet's own in proportion.
 * @param frames by operand; frames[0] is the sheet's own.
 * @throws BeyondCurve
 */
export function placeBent(tube: Tube, chart: BentChart, frames: readonly Frame[], onto: Onto): PlacedTube {
  const bending = new Bending(tube, chart, frames, onto);
  intoPatches(bending.placed, (a, b) => bending.between(a, b), {
    of: (v) => bending.lineOf[v]!,
    past: (line, v) => bending.past(line, v),
    // At ribs faces fold, so there they are divided wherever they can be.
    firm: (line) => line < chart.s.length,
    clear: (nodes) => bending.inOneFacet(nodes),
  });
  return bending.placed;
}

/** Where an edge is cut: by a rib, or by a row; the other is −1. */
interface Cut {
  share: number;
  rib: number;
  row: number;
}

/** A tube while it is placed. */
class Bending {
  readonly placed: PlacedTube;
  /** Lines that each node lies on. Rows are told from ribs by coming after them all. */
  readonly lineOf: number[][] = [];
  /** Distances along, in the frame of each node. */
  private readonly across: number[] = [];
  /** Heights as drawn, before a frame that rises has lifted them. */
  private readonly drawn: number[] = [];
  private readonly facet: number[] = [];
  private readonly onRib: boolean[] = [];
  private readonly rows: Float64Array;
  private readonly splits = new Splits();
  private readonly ribsAt: Onto['ribsAt'];

  constructor(
    tube: Tube,
    private readonly chart: BentChart,
    private readonly frames: readonly Frame[],
    { lines, ribsAt }: Onto,
  ) {
    this.placed = begin(tube);
    this.rows = lines?.rows ?? none;
    this.ribsAt = ribsAt;
    for (let v = 0; v < tube.x.length; v++) this.node(tube, v);
  }

  /** Places a node of the tube. */
  private node(tube: Tube, v: number): void {
    const { chart, placed } = this;
    const frame = this.frames[placed.frame[v]!]!;
    const [n, x, y] = [tube.n[v]!, tube.x[v]!, tube.y[v]!];
    const developed = this.ribsAt(n);
    let f: number;
    let share: number;
    if (frame.kind === 'proportional') {
      f = facetAt(chart, x);
      share = (x - chart.s[f]!) / (chart.s[f + 1]! - chart.s[f]!);
      this.across.push(x);
    } else {
      [f, share] = cast(chart, frame, x - frame.s, n);
      this.across.push(x - frame.s);
    }
    if (Math.abs(share) < same) share = 0;
    if (Math.abs(share - 1) < same && f + 2 < chart.s.length) {
      f += 1;
      share = 0;
    }
    const onRib = share === 0 && f > 0;
    this.lineOf.push(onRib ? [f] : nothing);
    this.facet.push(f);
    this.onRib.push(onRib);
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
    this.drawn.push(y);
  }

  /** The nodes at which an edge that lies level with the face crosses ribs and rows. */
  between(a: number, b: number): number[] {
    const { placed, facet, onRib } = this;
    if (Math.abs(placed.n[a]! - placed.n[b]!) > same) return nothing;
    // Most edges lie within one facet.
    const [f, g] = [facet[a]!, facet[b]!];
    if (this.rows.length === 0 && (f === g || (f === g + 1 && onRib[a]) || (g === f + 1 && onRib[b]))) return nothing;
    return this.splits.between(a, b, (p, q) => this.divided(p, q));
  }

  private divided(p: number, q: number): number[] {
    const { placed, frames } = this;
    const [own, other] = [frames[placed.frame[p]!]!, frames[placed.frame[q]!]!];
    const frame = own === other ? own : null;
    const found: number[] = [];
    let last = -1;
    for (const cut of this.cutsOf(p, q, frame)) {
      if (last >= 0 && cut.share - last < same) continue;
      last = cut.share;
      this.add(p, q, frame, cut);
      found.push(placed.u.length - 1);
    }
    return found;
  }

  /** Where an edge crosses ribs and rows, in order. */
  private cutsOf(p: number, q: number, frame: Frame | null): Cut[] {
    const { placed, drawn } = this;
    const [pu, qu] = [placed.u[p]!, placed.u[q]!];
    const n = placed.n[p]!;
    const developed = this.ribsAt(n);
    // Lines that rise cross rows elsewhere than they were drawn to: the rows end there.
    const rows = frame?.kind === 'straight' && frame.slope !== 0 ? none : this.rows;
    if (rows.length === 0 && facetOf(developed, pu) === facetOf(developed, qu)) return [];
    const [pv, qv] = [drawn[p]!, drawn[q]!];
    const cuts: Cut[] = [];
    if (rows.length > 0)
      within(rows, pv, qv, (i) => cuts.push({ share: (rows[i]! - pv) / (qv - pv), rib: -1, row: i }));
    const [low, high] = pu < qu ? [pu, qu] : [qu, pu];
    for (let i = 1; i + 1 < developed.length; i++) {
      const rib = developed[i]!;
      if (rib <= low + developedAlike || rib >= high - developedAlike) continue;
      const share = frame ? this.shareAt(p, q, frame, { rib: i, n }) : (rib - pu) / (qu - pu);
      cuts.push({ share, rib: i, row: -1 });
    }
    return cuts.sort((a, b) => a.share - b.share);
  }

  /** The share of an edge within one frame at which it crosses a rib. */
  private shareAt(p: number, q: number, frame: Frame, { rib, n }: { rib: number; n: number }): number {
    const { chart, across } = this;
    let at = chart.s[rib]!;
    if (frame.kind === 'straight') {
      const [x, y] = ribAt(chart, rib, n);
      at = (x - frame.x) * frame.along[0] + (y - frame.y) * frame.along[1];
    }
    return (at - across[p]!) / (across[q]! - across[p]!);
  }

  /** Makes the node at which an edge is cut. */
  private add(p: number, q: number, frame: Frame | null, { share, rib, row }: Cut): void {
    const { chart, placed, drawn, across, rows } = this;
    const n = placed.n[p]!;
    const developed = this.ribsAt(n);
    const t = row >= 0 ? rows[row]! : drawn[p]! + share * (drawn[q]! - drawn[p]!);
    const at = across[p]! + share * (across[q]! - across[p]!);
    let [f, part] = [rib, 0];
    if (rib < 0)
      [f, part] =
        frame?.kind === 'straight'
          ? cast(chart, frame, at, n)
          : partAt(developed, placed.u[p]! + share * (placed.u[q]! - placed.u[p]!));
    const [ax, ay] = ribAt(chart, f, n);
    const [bx, by] = part === 0 ? [ax, ay] : ribAt(chart, f + 1, n);
    const [x, y] = [ax + part * (bx - ax), ay + part * (by - ay)];
    const level = t + (frame ? lift(frame, x, y) : 0);
    placed.positions.push(x, y, chart.origin[2] + level);
    placed.u.push(part === 0 ? developed[f]! : developed[f]! + part * (developed[f + 1]! - developed[f]!));
    placed.v.push(level);
    placed.n.push(n);
    placed.frame.push(placed.frame[p]!);
    drawn.push(t);
    across.push(at);
    this.lineOf.push([rib >= 0 ? rib : chart.s.length + row]);
  }

  /** How far a node lies beyond a line. */
  past(line: number, v: number): number {
    const { chart, placed } = this;
    return line < chart.s.length
      ? placed.u[v]! - this.ribsAt(placed.n[v]!)[line]!
      : this.drawn[v]! - this.rows[line - chart.s.length]!;
  }

  /** Whether nothing divides a face, as most lie within one facet. */
  inOneFacet(nodes: readonly number[]): boolean {
    if (this.rows.length > 0) return false;
    for (const v of nodes) if (this.facet[v] !== this.facet[nodes[0]!]) return false;
    return true;
  }
}

/** The facet in which a distance lies on a developed face, and the share of it. */
function partAt(developed: Float64Array, u: number): [number, number] {
  let f = 0;
  while (f + 2 < developed.length && developed[f + 1]! <= u) f += 1;
  return [f, (u - developed[f]!) / (developed[f + 1]! - developed[f]!)];
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
