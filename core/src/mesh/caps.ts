/** Caps: what closes a mesh that was split, bounded by the edges that the split left open and by the folds of the curtain. */
import { grouped } from '@yard-arch/document';
import type { Vector } from '../vector.ts';

/** An edge of what is kept that nothing is joined to. */
export interface OpenEdge {
  from: number;
  to: number;
  /** In which drape it lies. */
  drape: number;
  /** The layer of the face that it bounds; null where that is a reveal, lined by whatever lines it. */
  layer: number | null;
  /** Which of several solids it is of. */
  solid: number;
}

/** A flat face in a drape: directed edges with it on their left as it is seen from outside the solid, two vertices each. */
export interface Cap {
  drape: number;
  layer: number;
  solid: number;
  edges: number[];
}

/** What is left open does not close: a mesh that was not closed itself, or one that touches itself in the curtain. */
export class Unsplit extends Error {
  override name = 'Unsplit';
}

/** The caps of open edges: one in each drape for each solid, of its outermost layer. @throws Unsplit */
export function capEdges(open: readonly OpenEdge[], at: (v: number) => Vector): Cap[] {
  const caps = new Map<string, Cap>();
  for (const { from, to, drape, layer, solid } of open) {
    const key = `${drape} ${solid}`;
    let cap = caps.get(key);
    if (!cap) caps.set(key, (cap = { drape, layer: layer ?? Infinity, solid, edges: [] }));
    cap.layer = Math.min(cap.layer, layer ?? Infinity);
    cap.edges.push(to, from);
  }
  for (const cap of caps.values()) {
    if (cap.layer === Infinity) cap.layer = 0;
    fold(cap, at);
  }
  return [...caps.values()];
}

/** By vertex how many more edges leave it than come to it, where that is not as many. */
function unbalanced({ edges }: Cap): Map<number, number> {
  const more = new Map<number, number>();
  for (let i = 0; i < edges.length; i += 2) {
    more.set(edges[i]!, (more.get(edges[i]!) ?? 0) + 1);
    more.set(edges[i + 1]!, (more.get(edges[i + 1]!) ?? 0) - 1);
  }
  for (const [v, count] of more) if (count === 0) more.delete(v);
  return more;
}

/** Adds the edges along folds: between places where the skin goes through a fold, two and two from below. @throws Unsplit */
function fold(cap: Cap, at: (v: number) => Vector): void {
  const ends = [...unbalanced(cap)].flatMap(([v, count]) => Array<number>(Math.abs(count)).fill(count > 0 ? v : ~v));
  if (ends.length === 0) return;
  const vertex = (end: number): number => (end < 0 ? ~end : end);
  // Each fold is upright: by place in plan, then from below.
  const plan = (end: number): string => {
    const [x, y] = at(vertex(end));
    return `${Math.round(x * 1e6)} ${Math.round(y * 1e6)}`;
  };
  for (const list of grouped(ends, plan).values()) {
    list.sort((a, b) => at(vertex(a))[2] - at(vertex(b))[2]);
    for (let i = 0; i < list.length; i += 2) {
      const [a, b] = [list[i]!, list[i + 1]];
      if (b === undefined || a < 0 === b < 0) throw new Unsplit('what was split does not close');
      // To where edges leave from where they end.
      if (a >= 0) cap.edges.push(vertex(b), a);
      else cap.edges.push(vertex(a), b);
    }
  }
}
