/**
 * Tubes: the surfaces that line a cut through a range of depth. Loops of edges that move with the depth are followed from one end to the other; each edge sweeps plane faces,
 * which meet its neighbours' faces in the corners' paths. Vertices are shared along every edge, so a tube is closed but for its two ends.
 */
import { offsetAt } from '../profile/section.ts';
import { Collapsed, cornersOf, type Station } from './corners.ts';
import type { EdgeLoop, LoopEdge } from './loop.ts';
import { nanometre as same, touch } from '../tolerances.ts';

/** One face: what an edge sweeps from one break of its section or layer to the next. */
export interface TubeFace {
  /** Index of its edge in `Tube.edges`. */
  edge: number;
  /** Nodes, counter-clockwise as seen from outside the solid. The first is the edge's end at the lesser depth, its start there follows. */
  nodes: number[];
  /** Positions in `nodes` of the edge's start at the lesser depth (its end there is the first), and of its start and end at the greater depth. */
  startNear: number;
  startFar: number;
  endFar: number;
  /** Layer, counted from the outside. */
  layer: number;
  /** Direction of the section in (depth, offset), unit, at the lesser and at the greater depth: rounded where the section is smooth. */
  near: readonly [number, number];
  far: readonly [number, number];
}

/** A loop of nodes at an end of a tube, one at the start of each edge, and the edges. */
export interface Ring {
  nodes: number[];
  edges: number[];
}

export interface Tube {
  edges: LoopEdge[];
  /** Nodes: x and y on the face, and depth n, metres. */
  x: number[];
  y: number[];
  n: number[];
  /** By edge and by depth within an edge; `faces` of edge e are faceStart[e] … faceStart[e + 1] − 1. */
  faces: TubeFace[];
  faceStart: number[];
  near: Ring[];
  far: Ring[];
  /** For each edge the edge before and after it in its loop. */
  before: number[];
  after: number[];
}

/**
 * Follows loops from one depth to another (metres).
 * @param boundaries depths at which layers begin and end, in order; faces are divided there.
 * @param firstLayer the layer that holds `from`.
 * @throws Collapsed
 */
export function makeTube(
  loops: readonly EdgeLoop[],
  { from, to }: { from: number; to: number },
  boundaries: ArrayLike<number>,
  divide = true,
): Tube {
  const tube: Tube = {
    edges: [],
    x: [],
    y: [],
    n: [],
    faces: [],
    faceStart: [0],
    near: [],
    far: [],
    before: [],
    after: [],
  };
  const inner: number[] = [];
  if (divide)
    for (let i = 0; i < boundaries.length; i++)
      if (boundaries[i]! > from + same && boundaries[i]! < to - same) inner.push(boundaries[i]!);
  const layerAt = (n: number): number => {
    let layer = 0;
    while (layer + 2 < boundaries.length && boundaries[layer + 1]! < n) layer += 1;
    return layer;
  };
  for (const loop of loops) follow(tube, wayOf(loop, from, to, inner), layerAt);
  return tube;
}

/** Puts a station wherever the neighbours of a joint pass one another, so that its face is pinched off there and never crosses itself. */
function pinch(loop: EdgeLoop, stations: Station[], offset: (number[] | null)[]): void {
  loop.forEach((edge, i) => {
    if (!edge.joint) return;
    const a = offset[(i + loop.length - 1) % loop.length]!;
    const b = offset[(i + 1) % loop.length]!;
    for (let k = 0; k + 1 < stations.length; k++) {
      const [d, e] = [a[k]! - b[k]!, a[k + 1]! - b[k + 1]!];
      if (Math.abs(d) <= same || Math.abs(e) <= same || d > 0 === e > 0) continue;
      const share = d / (d - e);
      const [one, two] = [stations[k]!, stations[k + 1]!];
      stations.splice(k + 1, 0, { n: one.n === two.n ? one.n : one.n + share * (two.n - one.n), side: 1 });
      for (const row of offset) row?.splice(k + 1, 0, row[k]! + share * (row[k + 1]! - row[k]!));
      // What meets there meets exactly.
      b[k + 1] = a[k + 1]!;
    }
  });
}

/** How far an edge is moved at a station, to the right of its way. */
function movedAt({ section, sense }: LoopEdge, { n, side, grown }: Station): number {
  if (side !== 0) return sense * offsetAt(section, n, side);
  const [before, after] = [sense * offsetAt(section, n, -1), sense * offsetAt(section, n, 1)];
  return grown ? Math.max(before, after) : Math.min(before, after);
}

/**
 * Where at a depth neighbours step opposite ways: which of them must step first, lest their ledges come to lie on each other. At a corner that juts out of what is on the left that is to shrink first, at one that
 * juts into it to grow. Null where none do, or where corners disagree.
 */
function stepsBothWays(loop: EdgeLoop, n: number): boolean | null {
  const step = (edge: LoopEdge): number =>
    edge.joint ? 0 : edge.sense * (offsetAt(edge.section, n, 1) - offsetAt(edge.section, n, -1));
  let grown: boolean | null = null;
  for (const [i, edge] of loop.entries()) {
    const before = loop[(i + loop.length - 1) % loop.length]!;
    const [a, b] = [step(before), step(edge)];
    if (!(Math.min(a, b) < -same && Math.max(a, b) > same)) continue;
    const juts = before.dx * edge.dy - before.dy * edge.dx < 0;
    if (grown !== null && grown !== juts) return null;
    grown = juts;
  }
  return grown;
}

function stationsOf(loop: EdgeLoop, from: number, to: number, inner: readonly number[]): Station[] {
  const sections = [...new Set(loop.map((edge) => edge.section))];
  const depths = [from, to, ...inner];
  for (const section of sections) for (const n of section.n) if (n > from + same && n < to - same) depths.push(n);
  for (const { way } of loop) for (const [n] of way?.at ?? []) if (n > from + same && n < to - same) depths.push(n);
  depths.sort((a, b) => a - b);
  const stations: Station[] = [];
  let last = -Infinity;
  for (const n of depths) {
    if (n - last <= same) continue;
    last = n;
    const inside = n > from + same && n < to - same;
    const steps =
      inside && sections.some((section) => Math.abs(offsetAt(section, n, 1) - offsetAt(section, n, -1)) > same);
    const grown = steps ? stepsBothWays(loop, n) : null;
    if (grown !== null) stations.push({ n, side: -1 }, { n, side: 0, grown }, { n, side: 1 });
    else if (steps) stations.push({ n, side: -1 }, { n, side: 1 });
    else stations.push({ n, side: n >= to - same ? -1 : 1 });
  }
  return stations;
}

/** A break in what an edge sweeps: the stations at which it ends at the edge's start and at its end. */
interface Break {
  start: number;
  end: number;
  n: number;
}

/** A loop as it goes from one depth to the other: its corners at each station. */
interface Way {
  loop: EdgeLoop;
  from: number;
  to: number;
  inner: readonly number[];
  stations: Station[];
  /** How far each edge is moved, by station; joints have none of their own. */
  offset: (number[] | null)[];
  px: Float64Array[];
  py: Float64Array[];
  /** The last station. */
  K: number;
  /** Whether two corners are in one place at a station. */
  together: (i: number, j: number, k: number) => boolean;
}

function wayOf(loop: EdgeLoop, from: number, to: number, inner: readonly number[]): Way {
  const stations = stationsOf(loop, from, to, inner);
  const offset = loop.map((edge) => (edge.joint ? null : stations.map((station) => movedAt(edge, station))));
  pinch(loop, stations, offset);
  const { px, py } = cornersOf(loop, stations, offset);
  const together = (i: number, j: number, k: number): boolean =>
    Math.hypot(px[j]![k]! - px[i]![k]!, py[j]![k]! - py[i]![k]!) <= same;
  return { loop, from, to, inner, stations, offset, px, py, K: stations.length - 1, together };
}

/** A side that stays in its place while its ends step past one another: what is behind them is closed off from what is before them, by two faces back to back. */
function refuseSteppedOver({ loop, stations, offset, px, py, K, together }: Way): void {
  loop.forEach((edge, i) => {
    if (edge.joint) return;
    const along = (c: number, k: number): number => px[c]![k]! * edge.dx + py[c]![k]! * edge.dy;
    const j = (i + 1) % loop.length;
    for (let k = 0; k < K; k++) {
      // Where it has vanished there is no side left to be stepped over.
      const stays = stations[k]!.n === stations[k + 1]!.n && !stepsHere(offset[i]!, k, k + 1);
      if (!stays || together(i, j, k) || together(i, j, k + 1)) continue;
      if (Math.max(along(i, k), along(i, k + 1)) > Math.min(along(j, k), along(j, k + 1)) + touch)
        throw new Collapsed(edge, stations[k]!.n, 'crossed');
    }
  });
}

/** Where the sweep of an edge is divided. */
function breaksOf(way: Way, i: number): Break[] {
  const { from, to, stations, K } = way;
  const found: Break[] = [{ start: 0, end: 0, n: from }];
  for (let k = 1; k < K; k++) if (!stations[k]!.minor) breakAt(way, i, k, found);
  found.push({ start: K, end: K, n: to });
  return found;
}

/** The stations at one depth with a station: the last of them, and whether one goes before. */
function pairOf(
  stations: readonly Station[],
  k: number,
  K: number,
): { last: number; earlier: number; second: boolean } {
  const { n } = stations[k]!;
  let last = k;
  while (last < K && stations[last + 1]!.n === n) last += 1;
  while (stations[last]!.minor) last -= 1;
  let earlier = k - 1;
  while (stations[earlier]!.minor) earlier -= 1;
  return { last, earlier, second: stations[earlier]!.n === n };
}

/** Whether a corner of an edge, both of which go ways of their own, turns at a depth. */
const bends = ({ way: a }: LoopEdge, { way: b }: LoopEdge, n: number): boolean =>
  a !== undefined && b !== undefined && [...a.at, ...b.at].some(([m]) => Math.abs(m - n) <= same);

/** Divides the sweep of an edge at a station where that is called for. */
function breakAt(way: Way, i: number, k: number, found: Break[]): void {
  const { loop, inner, stations, offset, K, together } = way;
  const edge = loop[i]!;
  const { n } = stations[k]!;
  const { last, earlier, second } = pairOf(stations, k, K);
  const j = (i + 1) % loop.length;
  const moves = !edge.joint && (edge.section.n.some((m) => Math.abs(m - n) <= same) || bends(edge, loop[j]!, n));
  if (edge.joint && together(i, j, k)) {
    // Where its ends have come together a joint's face is pinched off, and nowhere else at that depth.
    const before = found.at(-1)!;
    if (before.n !== n) found.push({ start: k, end: k, n });
    else if (before.start !== before.end || !together(i, j, before.start))
      found[found.length - 1] = { start: k, end: k, n };
    return;
  }
  const steps = !edge.joint && stepsHere(offset[i]!, k, last);
  // Where neighbours step opposite ways, one waits for the other, so that none of their ledges comes to lie on the other's.
  const waits = steps && stations[k + 1]?.side === 0 && !stepsHere(offset[i]!, k, k + 1);
  const waited = second && stations[k]!.side === 0 && steps;
  if (second) {
    if (moves && (waited || stepsHere(offset[i]!, earlier, k))) found.push({ start: k, end: k, n });
    return;
  }
  // Where it waits its ledge begins between the two.
  if (waits || !(moves || inner.includes(n))) return;
  if (last === k || steps) found.push({ start: k, end: k, n });
  else found.push(narrower(way, i, k, last));
}

/** A neighbour steps here and this edge does not: each face ends where the narrower of the two does, so that neither folds back on itself. */
function narrower({ loop, stations, px, py }: Way, i: number, k: number, last: number): Break {
  const { dx, dy, joint } = loop[i]!;
  const j = (i + 1) % loop.length;
  const sign = joint && (px[j]![k]! - px[i]![k]!) * dx + (py[j]![k]! - py[i]![k]!) * dy < 0 ? -1 : 1;
  const along = (c: number, q: number): number => sign * (px[c]![q]! * dx + py[c]![q]! * dy);
  return {
    start: along(i, last) > along(i, k) ? last : k,
    end: along(j, last) < along(j, k) ? last : k,
    n: stations[k]!.n,
  };
}

/** At which stations each corner needs a node. */
function neededAt({ loop, stations, K, together }: Way, breaks: readonly Break[][]): Uint8Array[] {
  const E = loop.length;
  const needed = loop.map(() => new Uint8Array(K + 1));
  breaks.forEach((list, i) => {
    for (const b of list) {
      needed[i]![b.start] = 1;
      needed[(i + 1) % E]![b.end] = 1;
    }
  });
  if (stations.some(({ minor }) => minor) || loop.some((edge, i) => !edge.joint && together(i, (i + 1) % E, 0)))
    shareNodes(needed, stations, together);
  return needed;
}

/** The nodes of each corner, by station; −1 where it needs none. */
function nodesOf(tube: Tube, way: Way, needed: readonly Uint8Array[]): Int32Array[] {
  const { loop, stations, px, py, K } = way;
  const node: Int32Array[] = loop.map(() => new Int32Array(K + 1).fill(-1));
  for (let i = 0; i < loop.length; i++)
    for (let k = 0, last = -1; k <= K; k++) {
      if (!needed[i]![k]) continue;
      if (
        last >= 0 &&
        stations[last]!.n === stations[k]!.n &&
        Math.hypot(px[i]![k]! - px[i]![last]!, py[i]![k]! - py[i]![last]!) <= same
      )
        node[i]![k] = node[i]![last]!;
      else {
        node[i]![k] = tube.x.length;
        tube.x.push(px[i]![k]!);
        tube.y.push(py[i]![k]!);
        tube.n.push(stations[k]!.n);
      }
      last = k;
    }
  mergeNodes(way, node);
  return node;
}

/** Corners that have come together are one vertex. */
function mergeNodes({ loop, K, together }: Way, node: readonly Int32Array[]): void {
  const parent = new Map<number, number>();
  const root = (v: number): number => {
    while (parent.has(v)) v = parent.get(v)!;
    return v;
  };
  for (let i = 0; i < loop.length; i++) {
    const j = (i + 1) % loop.length;
    for (let k = 0; k <= K; k++) {
      const [a, b] = [node[i]![k]!, node[j]![k]!];
      if (a < 0 || b < 0 || !together(i, j, k)) continue;
      const [ra, rb] = [root(a), root(b)];
      if (ra !== rb) parent.set(Math.max(ra, rb), Math.min(ra, rb));
    }
  }
  if (parent.size > 0) for (const row of node) for (let k = 0; k <= K; k++) if (row[k]! >= 0) row[k] = root(row[k]!);
}

/** A face between two breaks of an edge, from the chains of its ends; null where there is none. */
function faceBetween(
  start: number[],
  end: number[],
): Pick<TubeFace, 'nodes' | 'startNear' | 'startFar' | 'endFar'> | null {
  // Where the edge has vanished its ends go the same way, and there is no face between them.
  while (start.length > 1 && end.length > 1 && start[0] === end[0] && start[1] === end[1]) {
    start.shift();
    end.shift();
  }
  while (start.length > 1 && end.length > 1 && start.at(-1) === end.at(-1) && start.at(-2) === end.at(-2)) {
    start.pop();
    end.pop();
  }
  const startNear = start[0] === end[0] ? 0 : 1;
  const nodes = startNear === 0 ? [...start] : [end[0]!, ...start];
  const startFar = nodes.length - 1;
  if (end.length > 1 && end.at(-1) !== start.at(-1)) nodes.push(end.at(-1)!);
  else if (end.length === 1 && nodes.length > 1 && nodes.at(-1) === end[0]) nodes.pop();
  const endFar = end.length > 1 ? nodes.length - 1 : 0;
  for (let k = end.length - 2; k > 0; k--) nodes.push(end[k]!);
  if (new Set(nodes).size < 3) return null;
  return { nodes, startNear, startFar: Math.min(startFar, nodes.length - 1), endFar };
}

/** The nodes and edges about the loop at a station. */
function ringAt({ loop }: Way, node: readonly Int32Array[], base: number, k: number): Ring {
  const ring: Ring = { nodes: [], edges: [] };
  for (let i = 0; i < loop.length; i++) {
    // An edge that has no length there has no place in the ring.
    if (node[i]![k] === node[(i + 1) % loop.length]![k]) continue;
    ring.nodes.push(node[i]![k]!);
    ring.edges.push(base + i);
  }
  return ring;
}

function follow(tube: Tube, way: Way, layerAt: (n: number) => number): void {
  const { loop, K } = way;
  const E = loop.length;
  const base = tube.edges.length;
  refuseSteppedOver(way);
  const breaks = loop.map((_, i) => breaksOf(way, i));
  const node = nodesOf(tube, way, neededAt(way, breaks));
  for (let i = 0; i < E; i++) {
    const edge = loop[i]!;
    const j = (i + 1) % E;
    tube.edges.push(edge);
    tube.before.push(base + ((i + E - 1) % E));
    tube.after.push(base + j);
    const list = breaks[i]!;
    for (let b = 0; b + 1 < list.length; b++) {
      const [one, two] = [list[b]!, list[b + 1]!];
      for (const [start, end] of apart(chain(node[i]!, one.start, two.start), chain(node[j]!, one.end, two.end))) {
        const face = faceBetween(start, end);
        if (!face) continue;
        const [near, far] = directionsOf(edge, one.n, two.n);
        const beside = one.n === two.n ? (near[1] * edge.sense > 0 ? -same : same) : 0;
        tube.faces.push({ edge: base + i, ...face, layer: layerAt((one.n + two.n) / 2 + beside), near, far });
      }
    }
    tube.faceStart.push(tube.faces.length);
  }
  tube.near.push(ringAt(way, node, base, 0));
  tube.far.push(ringAt(way, node, base, K));
}

/** Where edges have vanished, corners that are together have vertices together; and there is one where an edge vanishes. */
function shareNodes(
  needed: readonly Uint8Array[],
  stations: readonly Station[],
  together: (i: number, j: number, k: number) => boolean,
): void {
  const E = needed.length;
  stations.forEach(({ minor }, k) => {
    for (let turn = 0; turn < 2 * E; turn++) {
      const [i, j] = [turn % E, (turn + 1) % E];
      if (!together(i, j, k)) continue;
      const vanishes = minor && !(together(i, j, k - 1) && together(i, j, k + 1));
      if (vanishes || needed[i]![k] || needed[j]![k]) needed[i]![k] = needed[j]![k] = 1;
    }
    for (let turn = 2 * E - 1; turn >= 0; turn--) {
      const [i, j] = [turn % E, (turn + 1) % E];
      if (together(i, j, k) && needed[j]![k]) needed[i]![k] = 1;
    }
  });
}

/** The paths of an edge's two ends, part by part: an edge that vanishes and appears again has a face before and one behind, which only touch. */
function apart(start: number[], end: number[]): [start: number[], end: number[]][] {
  const parts: [number[], number[]][] = [];
  let [i, j] = [0, 0];
  for (let k = 1; k + 1 < start.length; k++) {
    const meets = end.indexOf(start[k]!, j + 1);
    if (meets < 0 || meets + 1 >= end.length) continue;
    parts.push([start.slice(i, k + 1), end.slice(j, meets + 1)]);
    [i, j] = [k, meets];
  }
  parts.push([start.slice(i), end.slice(j)]);
  return parts;
}

/** The nodes of a corner's path from one station to another. */
function chain(nodes: Int32Array, from: number, to: number): number[] {
  const out: number[] = [];
  for (let k = from; k <= to; k++) {
    const v = nodes[k]!;
    if (v >= 0 && out.at(-1) !== v) out.push(v);
  }
  return out;
}

function stepsHere(offset: readonly number[] | null, k: number, l: number): boolean {
  return offset !== null && Math.abs(offset[k]! - offset[l]!) > same;
}

/** The section's direction from one depth to the next, rounded at either end where it is smooth there. */
function directionsOf(
  edge: LoopEdge,
  one: number,
  two: number,
): [readonly [number, number], readonly [number, number]] {
  if (edge.joint)
    return [
      [1, 0],
      [1, 0],
    ];
  const { n, offset, smooth } = edge.section;
  const flat = two - one <= same;
  const unit = (dn: number, d: number): [number, number] => {
    const size = Math.hypot(dn, d) || 1;
    return [dn / size, d / size];
  };
  const own = flat
    ? unit(0, offsetAt(edge.section, one, 1) - offsetAt(edge.section, one, -1))
    : unit(two - one, offsetAt(edge.section, two, -1) - offsetAt(edge.section, one, 1));
  const rounded = (at: number): readonly [number, number] => {
    const i = n.findIndex((m) => Math.abs(m - at) <= same);
    if (i < 0 || !smooth[i]) return own;
    // The first and last points of a quarter circle are tangent to face and reveal; those between turn half way.
    const before = i > 0 ? unit(n[i]! - n[i - 1]!, offset[i]! - offset[i - 1]!) : null;
    const after = i + 1 < n.length ? unit(n[i + 1]! - n[i]!, offset[i + 1]! - offset[i]!) : null;
    if (!before || !after) return own;
    if (before[0] * after[0] + before[1] * after[1] < 0.5) return own;
    return unit(before[0] + after[0], before[1] + after[1]);
  };
  const [a, b] = [rounded(one), rounded(two)];
  return a === own && b === own ? [own, own] : [a, b];
}
