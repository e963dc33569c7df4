/** Patches: what the faces of a tube fall into where lines on the face cross them. */
import type { Ring, Tube } from './tube.ts';
import { nanometre as same, touch as reaching } from '../tolerances.ts';

/** A patch: a face or a part of one between two lines. Corners counter-clockwise as seen from outside. */
export interface Patch {
  /** Index of the face in the tube. */
  face: number;
  nodes: number[];
  /** Positions in `nodes`: the edge's start and end, near and far. */
  startNear: number;
  startFar: number;
  endFar: number;
  endNear: number;
}

/** Puts nodes into a patch between those that follow one another. @param between the nodes on the way from one to another. */
export function giveNodes(patch: Patch, between: (v: number, w: number) => readonly number[]): void {
  const out: number[] = [];
  const place: number[] = [];
  patch.nodes.forEach((v, i) => {
    place.push(out.length);
    out.push(v, ...between(v, patch.nodes[(i + 1) % patch.nodes.length]!));
  });
  if (out.length === patch.nodes.length) return;
  patch.nodes = out;
  patch.startNear = place[patch.startNear]!;
  patch.startFar = place[patch.startFar]!;
  patch.endFar = place[patch.endFar]!;
  patch.endNear = place[patch.endNear]!;
}

/** A tube in its place. Nodes that were added at lines follow the tube's own. */
export interface PlacedTube {
  tube: Tube;
  /** Positions of nodes, x, y, z, metres. */
  positions: number[];
  /** Each node as its face is developed at its own depth: distance along and height, metres. */
  u: number[];
  v: number[];
  n: number[];
  patches: Patch[];
  /** Patches of edge e are patchStart[e] … patchStart[e + 1] − 1, in order of depth, and within a face along the edge. */
  patchStart: number[];
  near: number[][];
  far: number[][];
  /** By the operand whose frame each node has. */
  frame: number[];
}

/** The lines at which faces are divided. */
export interface Dividers {
  /** Those that a node lies on. */
  of: (v: number) => readonly number[];
  /** How far a node lies beyond a line, metres, negative before it. */
  past: (line: number, v: number) => number;
  /** Whether a face is divided at a line even where a side reaches it: only one that goes beyond and comes back keeps it from that. */
  firm?: (line: number) => boolean;
  /** Whether a face surely lies between lines, by its nodes; only to spare looking closer. */
  clear?: (nodes: readonly number[]) => boolean;
}

/** Divides the faces and the rings of a placed tube at lines. @param between the nodes at which an edge is divided, from one of its nodes to the other. @param dividers null where nothing divides. */
export function intoPatches(
  placed: PlacedTube,
  between: (a: number, b: number) => number[],
  dividers: Dividers | null,
): void {
  const { tube } = placed;
  const ringOf = (ring: Ring): number[] => {
    const out: number[] = [];
    ring.nodes.forEach((a, i) => {
      const b = ring.nodes[(i + 1) % ring.nodes.length]!;
      out.push(a, ...(dividers ? between(a, b) : []));
    });
    return out;
  };
  placed.near = tube.near.map(ringOf);
  placed.far = tube.far.map(ringOf);
  tube.edges.forEach((_, e) => {
    placed.patchStart.push(placed.patches.length);
    for (let f = tube.faceStart[e]!; f < tube.faceStart[e + 1]!; f++) {
      const { nodes, startNear, startFar, endFar } = tube.faces[f]!;
      if (!dividers) {
        placed.patches.push({ face: f, nodes, startNear: Math.min(startNear, startFar), startFar, endFar, endNear: 0 });
        continue;
      }
      divide(placed, { face: f, own: nodes, startNear, startFar, endFar }, between, dividers);
    }
  });
  placed.patchStart.push(placed.patches.length);
}

/** Divides a face where its near and its far edge cross the same line, from the edge's start to its end. */
function divide(
  placed: PlacedTube,
  {
    face,
    own,
    startNear,
    startFar,
    endFar,
  }: { face: number; own: readonly number[]; startNear: number; startFar: number; endFar: number },
  between: (a: number, b: number) => number[],
  { of: lineOf, past, firm, clear: isClear }: Dividers,
): void {
  let whole = true;
  for (let i = isClear?.(own) ? own.length : 0; whole && i < own.length; i++)
    whole = between(own[i]!, own[(i + 1) % own.length]!).length === 0;
  if (whole) {
    placed.patches.push({
      face,
      nodes: own as number[],
      startNear: Math.min(startNear, startFar),
      startFar,
      endFar,
      endNear: 0,
    });
    return;
  }
  const nodes: number[] = [];
  const place = new Array<number>(own.length);
  for (let i = 0; i < own.length; i++) {
    place[i] = nodes.length;
    nodes.push(own[i]!);
    for (const v of between(own[i]!, own[(i + 1) % own.length]!)) nodes.push(v);
  }
  const M = nodes.length;
  // Near from the start back to the end is nodes[startNear … 0]; far is from startFar on to endFar.
  const startNearAt = Math.min(place[startNear]!, place[startFar]!);
  const [farFrom, farTo] = [place[startFar]!, endFar === 0 ? M : place[endFar]!];
  // A side may reach as far as a line that its ends stay clear of, or beyond it: then the line ends there.
  const clear = (line: number): boolean => {
    const sign = Math.sign(past(line, nodes[startNearAt]!));
    const least = firm?.(line) ? -reaching : same;
    for (let k = startNearAt + 1; k < farFrom; k++) if (sign * past(line, nodes[k]!) < least) return false;
    for (let k = farTo + 1; k < M; k++) if (sign * past(line, nodes[k]!) > -least) return false;
    return true;
  };
  const cuts: { near: number; far: number }[] = [];
  // Where the far edge first comes upon each line.
  const firstFar = new Map<number, number>();
  for (let j = farTo - 1; j > farFrom; j--) for (const line of lineOf(nodes[j]!)) firstFar.set(line, j);
  for (let i = startNearAt - 1; i > 0; i--)
    for (const line of lineOf(nodes[i]!)) {
      const j = firstFar.get(line);
      if (j === undefined || !clear(line)) continue;
      const last = cuts.at(-1);
      if (!last || (i < last.near && j > last.far)) cuts.push({ near: i, far: j });
    }
  let [near, far] = [startNearAt, farFrom];
  cuts.forEach((cut, i) => {
    // From the cut's near node along to the old near node, across to the old far node (at first by way of the start's side), along to the cut's far node.
    const part =
      i === 0
        ? nodes.slice(cut.near, cut.far + 1)
        : [...nodes.slice(cut.near, near + 1), ...nodes.slice(far, cut.far + 1)];
    placed.patches.push({
      face,
      nodes: part,
      startNear: near - cut.near,
      startFar: part.length - 1 - (cut.far - far),
      endFar: part.length - 1,
      endNear: 0,
    });
    [near, far] = [cut.near, cut.far];
  });
  if (cuts.length === 0)
    placed.patches.push({ face, nodes, startNear: startNearAt, startFar: farFrom, endFar: farTo % M, endNear: 0 });
  else {
    const part = [...nodes.slice(0, near + 1), ...nodes.slice(far)];
    placed.patches.push({
      face,
      nodes: part,
      startNear: near,
      startFar: near + 1,
      endFar: (near + 1 + (farTo - far)) % part.length,
      endNear: 0,
    });
  }
}
