/** Planes: where one slab ends and the next begins, the faces between what is solid on either side, and the vertices that both share. */
import type { MeshBuilder } from '../mesh/builder.ts';
import { giveNodes, type PlacedTube } from '../reveal/patches.ts';
import { arrange, origin, type Arrangement, type Loop } from '../mesh/arrangement.ts';
import { boundaryOf } from './clip.ts';

/** A face on a plane across the depth, facing the outer (−1) or the inner side (1): loops of vertices, what is solid behind them on the left. */
export interface PlaneFace {
  facing: -1 | 1;
  loops: { vertices: number[]; xs: number[]; ys: number[] }[];
}

/** A slab that meets another: its tube, its vertices in the mesh, and whether all about its loops is solid. */
export interface Joined {
  tube: PlacedTube;
  vertices: number[];
  outside: boolean;
}

/** Joins two slabs at the depth where one ends and the other begins. Vertices that fall together become one; where the loops of one cross those of the other, both are divided. */
export function planeBetween(
  { tube: before, vertices: beforeVertices, outside: beforeOutside }: Joined,
  { tube: after, vertices: afterVertices, outside: afterOutside }: Joined,
  builder: MeshBuilder,
): PlaneFace[] {
  const lower = loopOf(before.far, before);
  const upper = loopOf(after.near, after);
  const a = arrange([lower.loop, upper.loop]);
  /** The arrangement's vertex at each point of an operand: that from which its edges leave. */
  const starts = [new Map<number, number>(), new Map<number, number>()] as const;
  const chains = [
    new Map<number, { along: number; v: number }[]>(),
    new Map<number, { along: number; v: number }[]>(),
  ] as const;
  const both = [lower, upper] as const;
  a.covers.forEach((covers, e) => {
    for (const { operand, source } of covers) {
      const { loop } = both[operand as 0 | 1];
      const next = loop.next![source]!;
      const [dx, dy] = [loop.xs[next]! - loop.xs[source]!, loop.ys[next]! - loop.ys[source]!];
      for (const v of [a.from[e]!, a.to[e]!]) {
        const along = ((a.xs[v]! - loop.xs[source]!) * dx + (a.ys[v]! - loop.ys[source]!) * dy) / (dx * dx + dy * dy);
        const chain = chains[operand as 0 | 1].get(source);
        if (chain) {
          if (!chain.some((link) => link.v === v)) chain.push({ along, v });
        } else chains[operand as 0 | 1].set(source, [{ along, v }]);
      }
    }
  });
  for (const operand of [0, 1] as const)
    for (const [source, chain] of chains[operand]) {
      chain.sort((p, q) => p.along - q.along);
      starts[operand].set(source, chain[0]!.v);
    }
  const solid = (patch: number, operand: number, outside: boolean): boolean =>
    (outside ? 1 : 0) + (a.winding[patch]!.get(operand) ?? 0) > 0;
  const isLower = (patch: number): boolean => solid(patch, 0, beforeOutside);
  const isUpper = (patch: number): boolean => solid(patch, 1, afterOutside);
  const corners = new Corners(a, [isLower, isUpper]);
  // The lower slab's vertices come first; the upper's become those where they stand on the same corner.
  for (const operand of [0, 1] as const) {
    const { nodes } = both[operand];
    const vertices = operand === 0 ? beforeVertices : afterVertices;
    for (const [source, v] of starts[operand]) {
      const node = nodes[source]!;
      vertices[node] = corners.claim(corners.along(v, operand, source), operand, vertices[node]!);
    }
  }
  const vertexAt = (h: number, operand: 0 | 1): number => corners.vertex(h, operand, () => builder.takeVertices(1));
  // Where edges of the one cross those of the other there are no nodes yet.
  const along = (which: 0 | 1, placed: PlacedTube, vertices: number[]): Onto => ({
    placed,
    vertices,
    operand: both[which],
    chains: chains[which],
    vertexAt: (v, source) => vertexAt(corners.along(v, which, source), which),
  });
  insert(along(0, before, beforeVertices), a, builder);
  insert(along(1, after, afterVertices), a, builder);

  const faces: PlaneFace[] = [];
  for (const facing of [-1, 1] as const) {
    const behind = facing === -1 ? 1 : 0;
    const holds = facing === -1 ? (p: number) => isUpper(p) && !isLower(p) : (p: number) => isLower(p) && !isUpper(p);
    const loops = boundaryOf(a, holds).map((ring) => {
      const points = ring.map((h) => origin(a, h));
      return {
        vertices: ring.map((h) => vertexAt(h, behind)),
        xs: points.map((v) => a.xs[v]!),
        ys: points.map((v) => a.ys[v]!),
      };
    });
    if (loops.length > 0) faces.push({ facing, loops });
  }
  return faces;
}

/**
 * Which vertex stands at which corner of the solid. Mostly one at each point; where parts of the solid touch in a point only, before the plane and
 * behind it, each part has a vertex of its own, lest the edge that runs on through the depth from there belong to four faces.
 */
class Corners {
  /** By point where there is more than one corner: the corner of each sector round it, before the plane and behind it. */
  private readonly parted = new Map<number, [Int32Array, Int32Array]>();
  private readonly taken = new Map<number, number[]>();

  constructor(
    private readonly a: Arrangement,
    private readonly isSolid: readonly [(patch: number) => boolean, (patch: number) => boolean],
  ) {
    for (let v = 0; v < a.xs.length; v++) if (a.around[v]!.length > 2) this.part(v);
  }

  /** Joins the sectors round a point that are solid side by side, or one behind the other. */
  private part(v: number): void {
    const out = this.a.around[v]!;
    const count = out.length;
    const holds = this.isSolid.map((is) => out.map((h) => is(this.a.patch[h]!)));
    const parent = Int32Array.from({ length: 2 * count }, (_, i) => i);
    const root = (i: number): number => (parent[i] === i ? i : (parent[i] = root(parent[i]!)));
    for (let i = 0; i < count; i++) {
      const next = (i + 1) % count;
      for (const k of [0, 1] as const)
        if (holds[k]![i] && holds[k]![next]) parent[root(k * count + i)] = root(k * count + next);
      if (holds[0]![i] && holds[1]![i]) parent[root(i)] = root(count + i);
    }
    const roots = new Set<number>();
    for (const k of [0, 1] as const) holds[k]!.forEach((is, i) => is && roots.add(root(k * count + i)));
    if (roots.size < 2) return;
    const order = [...roots];
    const named = (k: 0 | 1): Int32Array => Int32Array.from(out, (_, i) => order.indexOf(root(k * count + i)));
    this.parted.set(v, [named(0), named(1)]);
  }

  /** The half-edge that leaves a point along an outline's edge. */
  along(v: number, operand: 0 | 1, source: number): number {
    const { around, covers } = this.a;
    return around[v]!.find((h) =>
      covers[h >> 1]!.some((c) => c.operand === operand && c.source === source && c.way === ((h & 1) === 0 ? 1 : -1)),
    )!;
  }

  private slot(h: number, operand: 0 | 1): { at: number[]; corner: number } {
    const v = origin(this.a, h);
    let at = this.taken.get(v);
    if (!at) this.taken.set(v, (at = []));
    return { at, corner: this.parted.get(v)?.[operand][this.a.place[h]!] ?? 0 };
  }

  /** The vertex at the corner on the left of a half-edge's start; the one given where it has none yet. */
  claim(h: number, operand: 0 | 1, vertex: number): number {
    const { at, corner } = this.slot(h, operand);
    return (at[corner] ??= vertex);
  }

  /** The same, made where it has none yet. */
  vertex(h: number, operand: 0 | 1, make: () => number): number {
    const { at, corner } = this.slot(h, operand);
    return (at[corner] ??= make());
  }
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
  return {
    nodes,
    loop: {
      xs: Float64Array.from(nodes, (v) => placed.u[v]!),
      ys: Float64Array.from(nodes, (v) => placed.v[v]!),
      count: nodes.length,
      next,
    },
  };
}

/** A tube on whose edges a plane's vertices lie: which, by the edge, and the vertex in the mesh at each. */
interface Onto {
  placed: PlacedTube;
  vertices: number[];
  operand: Operand;
  chains: ReadonlyMap<number, readonly { along: number; v: number }[]>;
  vertexAt: (v: number, source: number) => number;
}

/** Puts the plane's vertices into the patches along whose edges they lie. */
function insert(
  { placed, vertices, operand: { loop, nodes }, chains, vertexAt }: Onto,
  { xs, ys }: Arrangement,
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
      for (let k = 0; k < 3; k++)
        placed.positions.push(
          placed.positions[3 * p + k]! + along * (placed.positions[3 * q + k]! - placed.positions[3 * p + k]!),
        );
      const vertex = (vertices[node] = vertexAt(v, source));
      builder.put(
        vertex,
        placed.positions[3 * node]!,
        placed.positions[3 * node + 1]!,
        placed.positions[3 * node + 2]!,
      );
      return node;
    });
    added.set(`${p} ${q}`, made);
    added.set(`${q} ${p}`, [...made].reverse());
  }
  if (added.size === 0) return;
  for (const patch of placed.patches) giveNodes(patch, (v, w) => added.get(`${v} ${w}`) ?? []);
}
