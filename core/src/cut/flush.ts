/** Sides of an opening that lie flush on an edge of the sheet: for the solid path they are drawn out beyond it, so that no face of what is taken away lies on a face of what it is taken from. */
import type { Sheet } from '../element/sheet.ts';
import type { SectionLine } from '../profile/section.ts';
import type { EdgeLoop, LoopEdge } from '../reveal/loop.ts';

/** Nearer than this a side lies on an edge, metres. */
const on = 1e-6;
/** How far sides are drawn out, metres. */
const beyond = 0.01;

/** The loops of a void, with what lies flush on the sheet's edges drawn out beyond them. */
export function drawnOut(loops: readonly EdgeLoop[], sheet: Sheet): EdgeLoop[] {
  return loops.map((loop) => loop.map((edge) => (edge.joint || edge.sense === 1 ? edge : { ...edge, section: outAtEdges(edge, sheet) })));
}

function outAtEdges(edge: LoopEdge, { outline }: Sheet): SectionLine {
  let { section } = edge;
  for (let v = 0; v < outline.xs.length; v++) {
    if (outline.sections[v]) continue;
    const distance = flushAt(edge, outline, v);
    if (distance !== null && clearBeyond(edge, outline, distance)) section = raisedFrom(section, distance);
  }
  return section;
}

/** How far a side must move into the solid to lie on one of the sheet's edges; null where it never does. */
function flushAt({ x, y, dx, dy, length, section }: LoopEdge, { xs, ys, next }: Sheet['outline'], v: number): number | null {
  const w = next[v]!;
  const size = Math.hypot(xs[w]! - xs[v]!, ys[w]! - ys[v]!);
  if (Math.abs((xs[w]! - xs[v]!) * dy - (ys[w]! - ys[v]!) * dx) > 1e-9 * size) return null;
  const along = [v, w].map((p) => (xs[p]! - x) * dx + (ys[p]! - y) * dy);
  if (Math.max(...along) < on || Math.min(...along) > length - on) return null;
  const distance = -(xs[v]! - x) * dy + (ys[v]! - y) * dx;
  return section.offset.some((offset) => Math.abs(offset - distance) < on) ? distance : null;
}

/** Whether nothing of the sheet's outline lies where a side is drawn out to. */
function clearBeyond({ x, y, dx, dy, length, section }: LoopEdge, { xs, ys, next }: Sheet['outline'], distance: number): boolean {
  const margin = Math.max(0, ...section.offset.map(Math.abs)) + 2 * beyond;
  for (let v = 0; v < xs.length; v++) {
    const ends = [v, next[v]!].map((p) => [(xs[p]! - x) * dx + (ys[p]! - y) * dy, -(xs[p]! - x) * dy + (ys[p]! - y) * dx - distance] as const);
    const [[a, d], [b, e]] = ends as [readonly [number, number], readonly [number, number]];
    if (Math.max(a, b) < -margin || Math.min(a, b) > length + margin || Math.min(d, e) > 2 * beyond || Math.max(d, e) < on) continue;
    return false;
  }
  return true;
}

/** A section with all of it that lies at a distance or farther moved on; where that begins or ends, it steps. */
function raisedFrom({ n, offset, smooth }: SectionLine, distance: number): SectionLine {
  const out: SectionLine = { n: [], offset: [], smooth: [] };
  const add = (i: number, raised: boolean): void => {
    const value = offset[i]! + (raised ? beyond : 0);
    if (out.n.at(-1) === n[i] && out.offset.at(-1) === value) return;
    out.n.push(n[i]!);
    out.offset.push(value);
    out.smooth.push(smooth[i]!);
  };
  for (let i = 0; i + 1 < n.length; i++) {
    const raised = offset[i]! > distance - on && offset[i + 1]! > distance - on;
    add(i, raised);
    add(i + 1, raised);
  }
  return out;
}
