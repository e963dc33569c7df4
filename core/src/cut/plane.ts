/** Planes: where one slab ends and the next begins, the faces between what is solid on either side, and the vertices that both share. */
import type { MeshBuilder } from '../mesh/builder.ts';
import { giveNodes, type PlacedTube } from '../reveal/place.ts';
import { arrange, origin, type Loop } from './arrangement.ts';
import { boundaryOf } from './clip.ts';

/** A face on a plane across the depth, facing the outer (−1) or the inner side (1): loops of vertices, what is solid behind them on the left. */
export interface PlaneFace {
  facing: -1 | 1;
  loops: { vertices: number[]; xs: number[]; ys: number[] }[];
}

/**
 * Joins two slabs at the depth where one ends and the other begins. Vertices that fall together become one; where the loops of one cross those of the other, both are divided.
 * @param outside whether all about the loops is solid, in the slab before and in the slab after.
 */
export function planeBetween(
  before: PlacedTube,
  beforeVertices: number[],
  beforeOutside: boolean,
  after: PlacedTube,
  afterVertices: number[],
  afterOutside: boolean,
  builder: MeshBuilder,
): PlaneFace[] {
  const lower = loopOf(before.far, before);
  const upper = loopOf(after.near, after);
  const a = arrange([lower.loop, upper.loop]);
  const vertexOf = new Array<number>(a.xs.length).fill(-1);
  /** The arrangement's vertex at each point of an operand: that from which its edges leave. */
  const starts = [new Map<number, number>(), new Map<number, number>()];
  const chains = [new Map<number, { along: number; v: number }[]>(), new Map<number, { along: number; v: number }[]>()];
  const both = [lower, upper];
  a.covers.forEach((covers, e) => {
    for (const { operand, source } of covers) {
      const { loop } = both[operand]!;
      const next = loop.next![source]!;
      const [dx, dy] = [loop.xs[next]! - loop.xs[source]!, loop.ys[next]! - loop.ys[source]!];
      for (const v of [a.from[e]!, a.to[e]!]) {
        const along = ((a.xs[v]! - loop.xs[source]!) * dx + (a.ys[v]! - loop.ys[source]!) * dy) / (dx * dx + dy * dy);
        const chain = chains[operand]!.get(source);
        if (chain) {
          if (!chain.some((link) => link.v === v)) chain.push({ along, v });
        } else chains[operand]!.set(source, [{ along, v }]);
      }
    }
  });
  for (const operand of [0, 1])
    for (const [source, chain] of chains[operand]!) {
      chain.sort((p, q) => p.along - q.along);
      starts[operand]!.set(source, chain[0]!.v);
    }
  // The lower slab's vertices come first; the upper's become those where they stand on the same point.
  for (const [source, v] of starts[0]!) if (vertexOf[v] === -1) vertexOf[v] = beforeVertices[lower.nodes[source]!]!;
    else beforeVertices[lower.nodes[source]!] = vertexOf[v]!;
  for (const [source, v] of starts[1]!) {
    const node = upper.nodes[source]!;
    if (vertexOf[v] === -1) vertexOf[v] = afterVertices[node]!;
    else afterVertices[node] = vertexOf[v]!;
  }
  for (let v = 0; v < vertexOf.length; v++)
    if (vertexOf[v] === -1 && a.around[v]!.length > 0) vertexOf[v] = builder.takeVertices(1);
  insert(before, beforeVertices, lower, chains[0]!, a.xs, a.ys, vertexOf, builder);
  insert(after, afterVertices, upper, chains[1]!, a.xs, a.ys, vertexOf, builder);

  const solid = (patch: number, operand: number, outside: boolean): boolean => (outside ? 1 : 0) + (a.winding[patch]!.get(operand) ?? 0) > 0;
  const isLower = (patch: number): boolean => solid(patch, 0, beforeOutside);
  const isUpper = (patch: number): boolean => solid(patch, 1, afterOutside);
  const faces: PlaneFace[] = [];
  for (const facing of [-1, 1] as const) {
    const holds = facing === -1 ? (p: number) => isUpper(p) && !isLower(p) : (p: number) => isLower(p) && !isUpper(p);
    const loops = boundaryOf(a, holds).map((ring) => {
      const points = ring.map((h) => origin(a, h));
      return { vertices: points.map((v) => vertexOf[v]!), xs: points.map((v) => a.xs[v]!), ys: points.map((v) => a.ys[v]!) };
    });
    if (loops.length > 0) faces.push({ facing, loops });
  }
  return faces;
}

interface Operand {
  loop: Loop & { next: Uint32Array };
  nodes: number[];
}

function loopOf(rings: readonly number[][], placed: PlacedTube): Operand {
  const nodes = rings.flat();
  const next = new Uint32Array(nodes.length);
  let at = 0;
  for (const ring of rings) {
    ring.forEach((_, i) => (next[at + i] = at + ((i + 1) % ring.length)));
    at += ring.length;
  }
  return { nodes, loop: { xs: Float64Array.from(nodes, (v) => placed.u[v]!), ys: Float64Array.from(nodes, (v) => placed.v[v]!), count: nodes.length, next } };
}

/** Puts the plane's vertices into the patches along whose edges they lie. */
function insert(
  placed: PlacedTube,
  vertices: number[],
  { loop, nodes }: Operand,
  chains: ReadonlyMap<number, readonly { along: number; v: number }[]>,
  xs: readonly number[],
  ys: readonly number[],
  vertexOf: readonly number[],
  builder: MeshBuilder,
): void {
  const added = new Map<string, number[]>();
  for (const [source, chain] of chains) {
    if (chain.length <= 2) continue;
    const [p, q] = [nodes[source]!, nodes[loop.next[source]!]!];
    const made = chain.slice(1, -1).map(({ along, v }) => {
      const node = placed.u.length;
      placed.u.push(xs[v]!);
      placed.v.push(ys[v]!);
      placed.n.push(placed.n[p]!);
      placed.frame.push(placed.frame[p]!);
      for (let k = 0; k < 3; k++) placed.positions.push(placed.positions[3 * p + k]! + along * (placed.positions[3 * q + k]! - placed.positions[3 * p + k]!));
      vertices[node] = vertexOf[v]!;
      builder.put(vertexOf[v]!, placed.positions[3 * node]!, placed.positions[3 * node + 1]!, placed.positions[3 * node + 2]!);
      return node;
    });
    added.set(`${p} ${q}`, made);
    added.set(`${q} ${p}`, [...made].reverse());
  }
  if (added.size === 0) return;
  for (const patch of placed.patches) giveNodes(patch, (v, w) => added.get(`${v} ${w}`) ?? []);
}
