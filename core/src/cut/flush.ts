/** Sides of an opening that lie flush on an edge of the sheet: for the solid path they are drawn out beyond it, so that no face of what is taken away lies on a face of what it is taken from. */
import type { Sheet } from '../element/sheet.ts';
import { offsetAt, type SectionLine } from '../profile/section.ts';
import type { EdgeLoop, LoopEdge } from '../reveal/loop.ts';
import { micrometre as on, relative } from '../tolerances.ts';

/** How far sides are drawn out, metres. */
const beyond = 0.01;

/** The loops of a void, with what lies flush on the sheet's edges drawn out beyond them. */
export function drawnOut(loops: readonly EdgeLoop[], sheet: Sheet): EdgeLoop[] {
  return loops.map((loop) =>
    loop.map((edge) => (edge.joint || edge.sense === 1 ? edge : { ...edge, section: outAtEdges(edge, sheet) })),
  );
}

function outAtEdges(edge: LoopEdge, { outline, thickness }: Sheet): SectionLine {
  let { section } = edge;
  for (let v = 0; v < outline.xs.length; v++) {
    const distance = distanceTo(edge, outline, v);
    if (!distance) continue;
    const own: LoopEdge = { ...edge, section };
    const lies = section.n.some(
      (n, i) => n >= -on && n <= thickness + on && Math.abs(section.offset[i]! - distance(n)) < on,
    );
    if (lies && clearBeyond(own, outline, Math.min(distance(0), distance(thickness)), v))
      section = raisedFrom(section, distance);
  }
  return section;
}

/** How far a side must move into the solid at a depth to lie on one of the sheet's edges; null where it does not look at it. */
function distanceTo(
  { x, y, dx, dy, length, drift }: LoopEdge,
  { xs, ys, next, sections }: Sheet['outline'],
  v: number,
): ((n: number) => number) | null {
  const w = next[v]!;
  const [ex, ey] = [xs[w]! - xs[v]!, ys[w]! - ys[v]!];
  const size = Math.hypot(ex, ey);
  // Each has the solid on its left, so they run opposite ways.
  if (Math.abs(ex * dy - ey * dx) > relative * size || ex * dx + ey * dy > 0) return null;
  const along = [v, w].map((p) => (xs[p]! - x) * dx + (ys[p]! - y) * dy);
  if (Math.max(...along) < on || Math.min(...along) > length - on) return null;
  const still = -(xs[v]! - x) * dy + (ys[v]! - y) * dx;
  const drifts = -drift[0] * dy + drift[1] * dx;
  const section = sections[v];
  return (n) => still + (section ? offsetAt(section, Math.max(0, n), 1) : 0) - drifts * n;
}

/** Whether nothing of the sheet's outline lies where a side is drawn out to. */
function clearBeyond(
  { x, y, dx, dy, length, section }: LoopEdge,
  { xs, ys, next }: Sheet['outline'],
  distance: number,
  own: number,
): boolean {
  const margin = Math.max(0, ...section.offset.map(Math.abs)) + 2 * beyond;
  for (let v = 0; v < xs.length; v++) {
    const ends = [v, next[v]!].map(
      (p) => [(xs[p]! - x) * dx + (ys[p]! - y) * dy, -(xs[p]! - x) * dy + (ys[p]! - y) * dx - distance] as const,
    );
    const [[a, d], [b, e]] = ends as [readonly [number, number], readonly [number, number]];
    if (
      v === own ||
      Math.max(a, b) < -margin ||
      Math.min(a, b) > length + margin ||
      Math.min(d, e) > 2 * beyond ||
      Math.max(d, e) < on
    )
      continue;
    return false;
  }
  return true;
}

/** A section with all of it that lies at a distance or farther moved on; where that begins or ends, it steps. */
function raisedFrom({ n, offset, smooth }: SectionLine, distance: (n: number) => number): SectionLine {
  const out: SectionLine = { n: [], offset: [], smooth: [] };
  const add = (i: number, raised: boolean): void => {
    const value = offset[i]! + (raised ? beyond : 0);
    if (out.n.at(-1) === n[i] && out.offset.at(-1) === value) return;
    out.n.push(n[i]!);
    out.offset.push(value);
    out.smooth.push(smooth[i]!);
  };
  for (let i = 0; i + 1 < n.length; i++) {
    const raised = offset[i]! > distance(n[i]!) - on && offset[i + 1]! > distance(n[i + 1]!) - on;
    add(i, raised);
    add(i + 1, raised);
  }
  return out;
}
