/**
 * Zipping: where both neighbours of a joint step at one depth, the outline of the joint's face runs along one line to and fro. There it has no area: the faces on either side are given each other's
 * vertices, so that they meet along the line, and the joint's face falls into the parts that have area.
 */
import { giveNodes, type Patch, type PlacedTube } from './patches.ts';
import { nanometre as same } from '../tolerances.ts';

/** Takes whatever has no area out of the joints of a placed tube. */
export function zip(placed: PlacedTube): void {
  const { tube } = placed;
  if (!tube.edges.some(({ joint }) => joint)) return;
  mergeTwins(placed);
  const parts = new Map<Patch, Patch[]>();
  for (const patch of [...placed.patches]) {
    if (!tube.edges[tube.faces[patch.face]!.edge]!.joint) continue;
    const added = onEdges(placed, patch.nodes);
    const whole = withAdded(patch.nodes, added);
    const left = cancelled(whole);
    if (added.size === 0 && left.length === whole.length) continue;
    for (const other of placed.patches) if (other !== patch) giveNodes(other, (v, w) => betweenOf(v, w, added));
    placed.near = placed.near.map((loop) => withAdded(loop, added));
    placed.far = placed.far.map((loop) => withAdded(loop, added));
    parts.set(
      patch,
      cycles(left).map((nodes) => part(placed, patch, nodes)),
    );
  }
  if (parts.size === 0) return;
  const { patches, patchStart } = placed;
  const starts: number[] = [0];
  for (const patch of patches) starts.push(starts.at(-1)! + (parts.get(patch)?.length ?? 1));
  for (let e = 0; e < patchStart.length; e++) patchStart[e] = starts[patchStart[e]!]!;
  placed.patches = patches.flatMap((patch) => parts.get(patch) ?? [patch]);
}

/** Where a line crosses a joint's outline on its way to and on its way fro at one place, it has left a node for each: they become one. */
function mergeTwins(placed: PlacedTube): void {
  const { tube, positions } = placed;
  const own = tube.x.length;
  const kept = new Map<number, number>();
  for (const { face, nodes } of placed.patches) {
    if (!tube.edges[tube.faces[face]!.edge]!.joint || nodes.every((v) => v < own)) continue;
    const rising = [...new Set(nodes)].sort((v, w) => v - w);
    for (const v of rising) {
      if (v < own || kept.has(v)) continue;
      const twin = rising.find(
        (w) =>
          w < v &&
          !kept.has(w) &&
          [0, 1, 2].every((k) => Math.abs(positions[3 * v + k]! - positions[3 * w + k]!) < same),
      );
      if (twin !== undefined) kept.set(v, twin);
    }
  }
  if (kept.size === 0) return;
  const merged = (nodes: number[]): number[] => nodes.map((v) => kept.get(v) ?? v);
  for (const patch of placed.patches) patch.nodes = merged(patch.nodes);
  placed.near = placed.near.map(merged);
  placed.far = placed.far.map(merged);
}

const key = (v: number, w: number): string => `${Math.min(v, w)} ${Math.max(v, w)}`;

/** For each edge of an outline the nodes of it that lie upon that edge, in order from its lesser node. */
function onEdges({ positions }: PlacedTube, nodes: readonly number[]): Map<string, number[]> {
  const added = new Map<string, number[]>();
  nodes.forEach((a, i) => {
    const b = nodes[(i + 1) % nodes.length]!;
    const [p, q] = a < b ? [a, b] : [b, a];
    const way = [0, 1, 2].map((k) => positions[3 * q + k]! - positions[3 * p + k]!);
    const length = Math.hypot(...way);
    const found: { v: number; at: number }[] = [];
    for (const v of new Set(nodes)) {
      if (v === p || v === q) continue;
      const to = [0, 1, 2].map((k) => positions[3 * v + k]! - positions[3 * p + k]!);
      const at = (to[0]! * way[0]! + to[1]! * way[1]! + to[2]! * way[2]!) / length;
      if (at <= same || at >= length - same) continue;
      if (Math.hypot(...to.map((x, k) => x - (at / length) * way[k]!)) < same) found.push({ v, at });
    }
    if (found.length > 0)
      added.set(
        key(p, q),
        found.sort((x, y) => x.at - y.at).map(({ v }) => v),
      );
  });
  return added;
}

function betweenOf(v: number, w: number, added: ReadonlyMap<string, readonly number[]>): readonly number[] {
  const between = added.get(key(v, w)) ?? [];
  return v < w ? between : [...between].reverse();
}

function withAdded(nodes: readonly number[], added: ReadonlyMap<string, readonly number[]>): number[] {
  return nodes.flatMap((v, i) => [v, ...betweenOf(v, nodes[(i + 1) % nodes.length]!, added)]);
}

/** The edges of an outline that are not also walked the other way. */
function cancelled(nodes: readonly number[]): [number, number][] {
  const left = new Map<string, [number, number]>();
  nodes.forEach((v, i) => {
    const w = nodes[(i + 1) % nodes.length]!;
    if (!left.delete(`${w} ${v}`)) left.set(`${v} ${w}`, [v, w]);
  });
  return [...left.values()];
}

/** Closed ways made of edges, each as short as can be. */
function cycles(edges: readonly [number, number][]): number[][] {
  const next = new Map<number, number[]>();
  for (const [v, w] of edges) next.set(v, [...(next.get(v) ?? []), w]);
  const out: number[][] = [];
  for (const [first] of edges) {
    while (next.get(first)?.length) {
      const way: number[] = [first];
      for (let at = first; ;) {
        at = next.get(at)!.pop()!;
        const seen = way.indexOf(at);
        if (seen >= 0) {
          out.push(way.splice(seen));
          if (way.length === 0) break;
        }
        way.push(at);
      }
    }
  }
  return out;
}

function part(placed: PlacedTube, { face }: Patch, nodes: number[]): Patch {
  const least = nodes.reduce((best, v, i) => (placed.n[v]! < placed.n[nodes[best]!]! ? i : best), 0);
  const turned = [...nodes.slice(least), ...nodes.slice(0, least)];
  const far = turned.reduce((best, v, i) => (placed.n[v]! > placed.n[turned[best]!]! ? i : best), 0);
  return { face, nodes: turned, startNear: 0, startFar: far, endFar: far, endNear: 0 };
}
