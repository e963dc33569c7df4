/**
 * An arrangement: closed outlines laid over each other, every crossing a vertex, every patch between edges knowing how often each
 * outline winds round it. It works to a tolerance: points nearer to each other than that become one, edges that pass a point
 * nearer than that are led through it, so that shared jambs and coincident edges are truly shared afterwards.
 */
import Flatbush from 'flatbush';
import { orient, tolerance } from './orient.ts';

export { tolerance };

/** The most crossings that one arrangement will work out before it gives up. */
const mostSplits = 400_000;

/** An outline to lay in: edge i runs from point i to next[i], or to point i + 1 and round to the first where `next` is left out; what it encloses is on the left. */
export interface Loop {
  xs: Float64Array;
  ys: Float64Array;
  count: number;
  next?: Uint32Array;
}

/** Raised where outlines are laid over each other so often that working them out would take too long. */
export class TooTangled extends Error {}

/** One outline's edge running along an edge of the arrangement: the same way (1) or the other way (−1). */
export interface Cover {
  operand: number;
  source: number;
  way: 1 | -1;
}

/** How often operands wind round a patch, by operand; never 0. */
export type Windings = Map<number, number>;

/** Half-edge 2e runs from `from[e]` to `to[e]`, half-edge 2e + 1 back. */
export interface Arrangement {
  xs: number[];
  ys: number[];
  from: number[];
  to: number[];
  covers: Cover[][];
  /** Half-edges leaving each vertex, counter-clockwise. */
  around: number[][];
  /** Position of each half-edge within `around` of the vertex that it leaves. */
  place: number[];
  /** The patch on the left of each half-edge. */
  patch: number[];
  /** For each patch, how often each operand winds round it; those that do not are left out. */
  winding: Windings[];
}

/** The vertex that a half-edge leaves. */
export function origin(a: Arrangement, h: number): number {
  return (h & 1) === 0 ? a.from[h >> 1]! : a.to[h >> 1]!;
}

/** How wide the cells are in which vertices are looked for. */
const cell = 4 * tolerance;
/** More than there are cells in a column, however far a face reaches. */
const column = 2 ** 27;

class Weld {
  readonly xs: number[] = [];
  readonly ys: number[] = [];
  /** The last vertex in each cell; `before` has those before it. */
  private readonly last = new Map<number, number>();
  private readonly before: number[] = [];

  /** The vertex at a point, an old one where there is one within the tolerance. */
  at(x: number, y: number): number {
    const [u, v] = [x / cell, y / cell];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    // Only where it is near a cell's border are its neighbours of concern.
    const [du, dv] = [u - i, v - j];
    const [left, right] = [du <= 0.26 ? i - 1 : i, du >= 0.74 ? i + 1 : i];
    const [low, high] = [dv <= 0.26 ? j - 1 : j, dv >= 0.74 ? j + 1 : j];
    let best = -1;
    let nearest = tolerance * tolerance;
    for (let a = left; a <= right; a++)
      for (let b = low; b <= high; b++)
        for (let w = this.last.get(a * column + b) ?? -1; w >= 0; w = this.before[w]!) {
          const d = (this.xs[w]! - x) ** 2 + (this.ys[w]! - y) ** 2;
          if (d < nearest || (d === nearest && (best < 0 || w > best))) {
            nearest = d;
            best = w;
          }
        }
    if (best >= 0) return best;
    const made = this.xs.length;
    this.xs.push(x);
    this.ys.push(y);
    const key = i * column + j;
    this.before.push(this.last.get(key) ?? -1);
    this.last.set(key, made);
    return made;
  }
}

/**
 * Lays closed outlines over each other. Points of earlier operands are kept to the last digit; later ones are moved to them where
 * they lie within the tolerance.
 * @throws TooTangled
 */
export function arrange(operands: readonly Loop[]): Arrangement {
  const weld = new Weld();
  let edges = joined(
    operands.flatMap((loop, operand) =>
      Array.from({ length: loop.count }, (_, i) => {
        const j = loop.next ? loop.next[i]! : (i + 1) % loop.count;
        return {
          a: weld.at(loop.xs[i]!, loop.ys[i]!),
          b: weld.at(loop.xs[j]!, loop.ys[j]!),
          covers: [{ operand, source: i, way: 1 as const }],
        };
      }),
    ),
  );
  for (let round = 0; ; round++) {
    const split = splitOnce(edges, weld);
    if (split === null) break;
    if (round > 40) throw new TooTangled('The outlines cross each other in too many places.');
    edges = joined(split);
  }
  return labelled(edges, weld);
}

interface Edge {
  a: number;
  b: number;
  covers: Cover[];
}

/** Drops edges of no length and makes one of those that run between the same two vertices. */
function joined(edges: readonly Edge[]): Edge[] {
  const byEnds = new Map<string, Edge>();
  for (const edge of edges) {
    if (edge.a === edge.b) continue;
    const flip = edge.a > edge.b;
    const [a, b] = flip ? [edge.b, edge.a] : [edge.a, edge.b];
    const covers = flip ? edge.covers.map((c): Cover => ({ ...c, way: c.way === 1 ? -1 : 1 })) : edge.covers;
    const key = `${a} ${b}`;
    const known = byEnds.get(key);
    if (known) known.covers.push(...covers);
    else byEnds.set(key, { a, b, covers: [...covers] });
  }
  return [...byEnds.values()];
}

/** Splits every edge where another crosses it or a vertex lies on it; null when there is nothing to split. */
function splitOnce(edges: readonly Edge[], weld: Weld): Edge[] | null {
  if (edges.length === 0) return null;
  const { xs, ys } = weld;
  const index = new Flatbush(edges.length);
  for (const { a, b } of edges)
    index.add(
      Math.min(xs[a]!, xs[b]!) - tolerance,
      Math.min(ys[a]!, ys[b]!) - tolerance,
      Math.max(xs[a]!, xs[b]!) + tolerance,
      Math.max(ys[a]!, ys[b]!) + tolerance,
    );
  index.finish();
  const cuts = new Map<number, Set<number>>();
  let splits = 0;
  const cut = (edge: number, v: number): void => {
    if (v === edges[edge]!.a || v === edges[edge]!.b) return;
    const set = cuts.get(edge);
    if (set) set.add(v);
    else cuts.set(edge, new Set([v]));
    if (++splits > mostSplits) throw new TooTangled('The outlines cross each other in too many places.');
  };
  edges.forEach(({ a, b }, i) => {
    const near = index.search(
      Math.min(xs[a]!, xs[b]!),
      Math.min(ys[a]!, ys[b]!),
      Math.max(xs[a]!, xs[b]!),
      Math.max(ys[a]!, ys[b]!),
    );
    for (const j of near) {
      if (j <= i) continue;
      const c = edges[j]!.a;
      const d = edges[j]!.b;
      const onI = [c, d].filter((v) => v !== a && v !== b && passes(xs, ys, a, b, v));
      const onJ = [a, b].filter((v) => v !== c && v !== d && passes(xs, ys, c, d, v));
      for (const v of onI) cut(i, v);
      for (const v of onJ) cut(j, v);
      if (onI.length > 0 || onJ.length > 0 || a === c || a === d || b === c || b === d) continue;
      const sideC = orient(xs[a]!, ys[a]!, xs[b]!, ys[b]!, xs[c]!, ys[c]!);
      const sideD = orient(xs[a]!, ys[a]!, xs[b]!, ys[b]!, xs[d]!, ys[d]!);
      const sideA = orient(xs[c]!, ys[c]!, xs[d]!, ys[d]!, xs[a]!, ys[a]!);
      const sideB = orient(xs[c]!, ys[c]!, xs[d]!, ys[d]!, xs[b]!, ys[b]!);
      if (sideC > 0 === sideD > 0 || sideA > 0 === sideB > 0) continue;
      const at = sideC / (sideC - sideD);
      const v = weld.at(xs[c]! + at * (xs[d]! - xs[c]!), ys[c]! + at * (ys[d]! - ys[c]!));
      cut(i, v);
      cut(j, v);
    }
  });
  if (cuts.size === 0) return null;
  return edges.flatMap((edge, i) => {
    const set = cuts.get(i);
    if (!set) return [edge];
    const { a, b, covers } = edge;
    const dx = xs[b]! - xs[a]!;
    const dy = ys[b]! - ys[a]!;
    const along = (v: number): number => (xs[v]! - xs[a]!) * dx + (ys[v]! - ys[a]!) * dy;
    const chain = [a, ...[...set].sort((v, w) => along(v) - along(w) || v - w), b];
    return chain.slice(1).map((v, k) => ({ a: chain[k]!, b: v, covers }));
  });
}

/** Whether the segment from a to b passes vertex v within the tolerance, between its ends. */
function passes(xs: number[], ys: number[], a: number, b: number, v: number): boolean {
  const dx = xs[b]! - xs[a]!;
  const dy = ys[b]! - ys[a]!;
  const px = xs[v]! - xs[a]!;
  const py = ys[v]! - ys[a]!;
  const squared = dx * dx + dy * dy;
  const along = px * dx + py * dy;
  if (along <= 0 || along >= squared) return false;
  const across = px * dy - py * dx;
  return across * across <= tolerance * tolerance * squared;
}

function labelled(edges: readonly Edge[], weld: Weld): Arrangement {
  const { xs, ys } = weld;
  const a: Arrangement = {
    xs,
    ys,
    from: edges.map((edge) => edge.a),
    to: edges.map((edge) => edge.b),
    covers: edges.map((edge) => edge.covers),
    around: xs.map(() => []),
    place: [],
    patch: new Array<number>(2 * edges.length).fill(-1),
    winding: [],
  };
  const halves = 2 * edges.length;
  const angle = new Float64Array(halves);
  for (let h = 0; h < halves; h++) {
    const v = origin(a, h);
    const w = origin(a, h ^ 1);
    angle[h] = Math.atan2(ys[w]! - ys[v]!, xs[w]! - xs[v]!);
    a.around[v]!.push(h);
  }
  for (const out of a.around) {
    out.sort((g, h) => angle[g]! - angle[h]!);
    out.forEach((h, i) => (a.place[h] = i));
  }

  // Trace the patch boundaries: at the far end, turn clockwise from the way back.
  const cycles: number[] = [];
  for (let h = 0; h < halves; h++) {
    if (a.patch[h] !== -1) continue;
    for (let at = h; a.patch[at] === -1; at = following(a, at)) a.patch[at] = cycles.length;
    cycles.push(h);
  }
  a.winding = new Array<Windings>(cycles.length);

  const component = components(a);
  const outer = new Map<number, number>();
  for (let v = 0; v < xs.length; v++) {
    if (a.around[v]!.length === 0) continue;
    const known = outer.get(component[v]!);
    if (known === undefined || xs[v]! < xs[known]! || (xs[v] === xs[known] && ys[v]! < ys[known]!))
      outer.set(component[v]!, v);
  }
  for (const [part, v] of outer) {
    // At the leftmost vertex the last half-edge counter-clockwise has the outside on its left.
    const h = a.around[v]!.at(-1)!;
    const winding: Windings = new Map();
    for (let e = 0; e < edges.length; e++) if (component[a.from[e]!] !== part) count(a, e, xs[v]!, ys[v]!, winding);
    spread(a, h, winding);
  }
  return a;
}

/** The half-edge after h round the patch on its left. */
export function following(a: Arrangement, h: number): number {
  const back = h ^ 1;
  const out = a.around[origin(a, back)]!;
  return out[(a.place[back]! + out.length - 1) % out.length]!;
}

function components(a: Arrangement): Int32Array {
  const parent = Int32Array.from(a.xs, (_, v) => v);
  const root = (v: number): number => {
    while (parent[v] !== v) v = parent[v] = parent[parent[v]!]!;
    return v;
  };
  a.from.forEach((v, e) => {
    parent[root(v)] = root(a.to[e]!);
  });
  return parent.map((_, v) => root(v));
}

/** Adds what edge e contributes to the windings round a point: its crossings of the ray from there to the right. */
function count(a: Arrangement, e: number, x: number, y: number, winding: Windings): void {
  const v = a.from[e]!;
  const w = a.to[e]!;
  const below = a.ys[v]! <= y;
  if (below === a.ys[w]! <= y) return;
  const side = orient(a.xs[v]!, a.ys[v]!, a.xs[w]!, a.ys[w]!, x, y);
  if (below ? side <= 0 : side >= 0) return;
  for (const cover of a.covers[e]!) add(winding, cover.operand, (below ? 1 : -1) * cover.way);
}

function add(winding: Windings, operand: number, by: number): void {
  const sum = (winding.get(operand) ?? 0) + by;
  if (sum === 0) winding.delete(operand);
  else winding.set(operand, sum);
}

/** From one patch with known windings to all that its component holds: crossing an edge to its left adds what runs along it. */
function spread(a: Arrangement, h: number, winding: Windings): void {
  a.winding[a.patch[h]!] = winding;
  const queue = [h];
  while (queue.length > 0) {
    const start = queue.pop()!;
    let at = start;
    do {
      const across = at ^ 1;
      if (a.winding[a.patch[across]!] === undefined) {
        const there: Windings = new Map(a.winding[a.patch[at]!]!);
        for (const cover of a.covers[at >> 1]!) add(there, cover.operand, -cover.way * ((at & 1) === 0 ? 1 : -1));
        a.winding[a.patch[across]!] = there;
        queue.push(across);
      }
      at = following(a, at);
    } while (at !== start);
  }
}
