/**
 * Tubes: the surfaces that line a cut through a range of depth. Loops of edges that move with the depth are followed from one end to the other; each edge sweeps plane faces,
 * which meet its neighbours' faces in the corners' paths. Vertices are shared along every edge, so a tube is closed but for its two ends.
 */
import type { SectionLine } from '../profile/section.ts';
import type { EdgeLoop, LoopEdge } from './loop.ts';

/** Two depths, or two points, nearer than this are one, metres. */
const same = 1e-9;

/** Raised where an edge would shrink to less than nothing: the section asks for more than the outline has. */
export class Collapsed extends Error {
  constructor(
    readonly edge: LoopEdge,
    /** Depth at which it happens, metres. */
    readonly depth: number,
  ) {
    super('a section eats up an edge of the outline');
  }
}

/** One face: what an edge sweeps from one break of its section or layer to the next. */
export interface TubeFace {
  /** Index of its edge in `Tube.edges`. */
  edge: number;
  /** Nodes, counter-clockwise as seen from outside the solid. The first is the edge's end at the lesser depth, the second its start there. */
  nodes: number[];
  /** Positions in `nodes` of the edge's start and end at the greater depth. */
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

interface Station {
  n: number;
  /** Just before a step (−1) or just after it (1); either where there is none. */
  side: -1 | 1;
}

/** The section's offset at a depth, just before or just after it. */
export function offsetAt(section: SectionLine, n: number, side: -1 | 1): number {
  const { n: ns, offset } = section;
  const last = ns.length - 1;
  if (side === -1) {
    for (let i = 0; i <= last; i++) {
      if (Math.abs(ns[i]! - n) <= same) return offset[i]!;
      if (ns[i]! > n) return between(section, i - 1, n);
    }
    return offset[last]!;
  }
  for (let i = last; i >= 0; i--) {
    if (Math.abs(ns[i]! - n) <= same) return offset[i]!;
    if (ns[i]! < n) return between(section, i, n);
  }
  return offset[0]!;
}

function between(section: SectionLine, i: number, n: number): number {
  const { n: ns, offset } = section;
  if (i < 0) return offset[0]!;
  if (i >= ns.length - 1) return offset[ns.length - 1]!;
  return offset[i]! + ((offset[i + 1]! - offset[i]!) * (n - ns[i]!)) / (ns[i + 1]! - ns[i]!);
}

/**
 * Follows loops from one depth to another (metres).
 * @param boundaries depths at which layers begin and end, in order; faces are divided there.
 * @param firstLayer the layer that holds `from`.
 * @throws Collapsed
 */
export function makeTube(loops: readonly EdgeLoop[], from: number, to: number, boundaries: ArrayLike<number>, divide = true): Tube {
  const tube: Tube = { edges: [], x: [], y: [], n: [], faces: [], faceStart: [0], near: [], far: [], before: [], after: [] };
  const inner: number[] = [];
  if (divide) for (let i = 0; i < boundaries.length; i++) if (boundaries[i]! > from + same && boundaries[i]! < to - same) inner.push(boundaries[i]!);
  const layerAt = (n: number): number => {
    let layer = 0;
    while (layer + 2 < boundaries.length && boundaries[layer + 1]! < n) layer += 1;
    return layer;
  };
  for (const loop of loops) follow(tube, loop, from, to, inner, layerAt);
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

function stationsOf(loop: EdgeLoop, from: number, to: number, inner: readonly number[]): Station[] {
  const sections = [...new Set(loop.map((edge) => edge.section))];
  const depths = [from, to, ...inner];
  for (const section of sections) for (const n of section.n) if (n > from + same && n < to - same) depths.push(n);
  depths.sort((a, b) => a - b);
  const stations: Station[] = [];
  let last = -Infinity;
  for (const n of depths) {
    if (n - last <= same) continue;
    last = n;
    const inside = n > from + same && n < to - same;
    const steps = inside && sections.some((section) => Math.abs(offsetAt(section, n, 1) - offsetAt(section, n, -1)) > same);
    if (steps) stations.push({ n, side: -1 }, { n, side: 1 });
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

function follow(tube: Tube, loop: EdgeLoop, from: number, to: number, inner: readonly number[], layerAt: (n: number) => number): void {
  const E = loop.length;
  const stations = stationsOf(loop, from, to, inner);
  const base = tube.edges.length;
  const offset = loop.map((edge) => (edge.joint ? null : stations.map(({ n, side }) => edge.sense * offsetAt(edge.section, n, side))));
  pinch(loop, stations, offset);
  const K = stations.length - 1;
  // Corner i is at the start of edge i.
  const px: Float64Array[] = [];
  const py: Float64Array[] = [];
  for (let i = 0; i < E; i++) {
    px.push(new Float64Array(K + 1));
    py.push(new Float64Array(K + 1));
    for (let k = 0; k <= K; k++) {
      const [x, y] = cornerAt(loop, offset, i, k, stations[k]!.n);
      px[i]![k] = x;
      py[i]![k] = y;
    }
  }
  for (let i = 0; i < E; i++) {
    const edge = loop[i]!;
    if (edge.joint) continue;
    const j = (i + 1) % E;
    for (let k = 0; k <= K; k++) {
      const length = (px[j]![k]! - px[i]![k]!) * edge.dx + (py[j]![k]! - py[i]![k]!) * edge.dy;
      if (length < -same) throw new Collapsed(edge, stations[k]!.n);
    }
  }

  // Where each edge's sweep is divided.
  const breaks: Break[][] = loop.map((edge, i) => {
    const j = (i + 1) % E;
    const found: Break[] = [{ start: 0, end: 0, n: from }];
    const own = edge.joint ? [] : edge.section.n;
    const { dx, dy } = edge;
    for (let k = 1; k < K; k++) {
      const { n } = stations[k]!;
      let last = k;
      while (last < K && stations[last + 1]!.n === n) last += 1;
      const paired = last > k;
      const second = stations[k - 1]!.n === n;
      const moves = own.some((m) => Math.abs(m - n) <= same);
      if (edge.joint && Math.hypot(px[j]![k]! - px[i]![k]!, py[j]![k]! - py[i]![k]!) <= same) {
        // Where its ends have come together a joint's face is pinched off.
        if (found.at(-1)!.n !== n) found.push({ start: k, end: k, n });
        continue;
      }
      const steps = !edge.joint && stepsHere(offset[i]!, k, last);
      if (second) {
        if (moves && stepsHere(offset[i]!, k - 1, k)) found.push({ start: k, end: k, n });
      } else if (moves || inner.includes(n)) {
        if (!paired || steps) found.push({ start: k, end: k, n });
        else {
          // A neighbour steps here and this edge does not: each face ends where the narrower of the two does, so that neither folds back on itself.
          const sign = edge.joint && (px[j]![k]! - px[i]![k]!) * dx + (py[j]![k]! - py[i]![k]!) * dy < 0 ? -1 : 1;
          const along = (c: number, q: number): number => sign * (px[c]![q]! * dx + py[c]![q]! * dy);
          found.push({ start: along(i, last) > along(i, k) ? last : k, end: along(j, last) < along(j, k) ? last : k, n });
        }
      }
    }
    found.push({ start: K, end: K, n: to });
    return found;
  });

  const needed = loop.map(() => new Uint8Array(K + 1));
  loop.forEach((_, i) => {
    const j = (i + 1) % E;
    for (const b of breaks[i]!) {
      needed[i]![b.start] = 1;
      needed[j]![b.end] = 1;
    }
  });
  const node: Int32Array[] = loop.map(() => new Int32Array(K + 1).fill(-1));
  for (let i = 0; i < E; i++)
    for (let k = 0, last = -1; k <= K; k++) {
      if (!needed[i]![k]) continue;
      if (last >= 0 && stations[last]!.n === stations[k]!.n && Math.hypot(px[i]![k]! - px[i]![last]!, py[i]![k]! - py[i]![last]!) <= same) node[i]![k] = node[i]![last]!;
      else {
        node[i]![k] = tube.x.length;
        tube.x.push(px[i]![k]!);
        tube.y.push(py[i]![k]!);
        tube.n.push(stations[k]!.n);
      }
      last = k;
    }
  // Corners that have come together are one vertex.
  const parent = new Map<number, number>();
  const root = (v: number): number => {
    while (parent.has(v)) v = parent.get(v)!;
    return v;
  };
  for (let i = 0; i < E; i++) {
    const j = (i + 1) % E;
    for (let k = 0; k <= K; k++) {
      const [a, b] = [node[i]![k]!, node[j]![k]!];
      if (a < 0 || b < 0 || Math.hypot(px[j]![k]! - px[i]![k]!, py[j]![k]! - py[i]![k]!) > same) continue;
      const [ra, rb] = [root(a), root(b)];
      if (ra !== rb) parent.set(Math.max(ra, rb), Math.min(ra, rb));
    }
  }
  if (parent.size > 0) for (const row of node) for (let k = 0; k <= K; k++) if (row[k]! >= 0) row[k] = root(row[k]!);

  for (let i = 0; i < E; i++) {
    const j = (i + 1) % E;
    tube.edges.push(loop[i]!);
    tube.before.push(base + ((i + E - 1) % E));
    tube.after.push(base + j);
    const list = breaks[i]!;
    for (let b = 0; b + 1 < list.length; b++) {
      const [one, two] = [list[b]!, list[b + 1]!];
      const nodes: number[] = [node[j]![one.end]!];
      const push = (v: number): void => {
        if (v >= 0 && nodes.at(-1) !== v) nodes.push(v);
      };
      for (let k = one.start; k <= two.start; k++) push(node[i]![k]!);
      const startFar = nodes.length - 1;
      let endFar = -1;
      for (let k = two.end; k > one.end; k--) {
        push(node[j]![k]!);
        if (endFar < 0) endFar = nodes.length - 1;
      }
      if (nodes.length > 1 && nodes.at(-1) === nodes[0]) nodes.pop();
      if (new Set(nodes).size < 3) continue;
      const [near, far] = directionsOf(loop[i]!, one.n, two.n);
      tube.faces.push({
        edge: base + i,
        nodes,
        startFar: Math.min(startFar, nodes.length - 1),
        endFar: endFar < 0 ? 0 : endFar % nodes.length,
        layer: layerAt((one.n + two.n) / 2 + (one.n === two.n ? (near[1] * loop[i]!.sense > 0 ? -same : same) : 0)),
        near,
        far,
      });
    }
    tube.faceStart.push(tube.faces.length);
  }
  const ring = (k: number): Ring => {
    const nodes: number[] = [];
    const edges: number[] = [];
    for (let i = 0; i < E; i++) {
      // An edge that has no length there has no place in the ring.
      if (node[i]![k] === node[(i + 1) % E]![k]) continue;
      nodes.push(node[i]![k]!);
      edges.push(base + i);
    }
    return { nodes, edges };
  };
  tube.near.push(ring(0));
  tube.far.push(ring(K));
}

function stepsHere(offset: readonly number[] | null, k: number, l: number): boolean {
  return offset !== null && Math.abs(offset[k]! - offset[l]!) > same;
}

/** Where the lines of two neighbours meet. */
function cornerAt(loop: EdgeLoop, offset: readonly (number[] | null)[], i: number, k: number, n: number): [number, number] {
  const own = loop[i]!.drift;
  const other = loop[(i + loop.length - 1) % loop.length]!.drift;
  if (own[0] === other[0] && own[1] === other[1]) {
    // Whatever drifts alike drifts whole.
    const [x, y] = cornerStill(loop, offset, i, k);
    return [x + n * own[0], y + n * own[1]];
  }
  const [a, b] = [loop[(i + loop.length - 1) % loop.length]!, loop[i]!];
  const moved = (edge: LoopEdge, o: number): number => o + n * (edge.dy * edge.drift[0] - edge.dx * edge.drift[1]);
  const p = moved(a, offset[(i + loop.length - 1) % loop.length]?.[k] ?? 0);
  const q = moved(b, offset[i]?.[k] ?? 0);
  const det = b.dy * a.dx - a.dy * b.dx;
  if (Math.abs(det) < 1e-6) return [b.x + b.dy * q, b.y - b.dx * q];
  return [b.x + (q * a.dx - p * b.dx) / det, b.y + (q * a.dy - p * b.dy) / det];
}

/** Where the lines of two neighbours meet that do not drift. */
function cornerStill(loop: EdgeLoop, offset: readonly (number[] | null)[], i: number, k: number): [number, number] {
  const E = loop.length;
  let h = (i + E - 1) % E;
  let j = i;
  const { x, y } = loop[i]!;
  // At a joint each neighbour's end slides along the joint's line, so that the joint's own face is flat.
  if (loop[h]!.joint || loop[i]!.joint) {
    const slider = loop[i]!.joint ? h : i;
    if (loop[i]!.joint) j = (i + 1) % E;
    else h = (i + E - 2) % E;
    const [p, q] = [offset[h]![k]!, offset[j]![k]!];
    if (Math.abs(p - q) > same) {
      const edge = loop[slider]!;
      const joint = loop[i]!.joint ? loop[i]! : loop[(i + E - 1) % E]!;
      const o = offset[slider]![k]! / (joint.dx * edge.dy - joint.dy * edge.dx);
      return [x + joint.dx * o, y + joint.dy * o];
    }
  }
  const [a, b] = [loop[h]!, loop[j]!];
  const [p, q] = [offset[h]![k]!, offset[j]![k]!];
  if (p === 0 && q === 0) return [x, y];
  const [ax, ay, bx, by] = [a.dy, -a.dx, b.dy, -b.dx];
  const dot = ax * bx + ay * by;
  if (Math.abs(p - q) <= same && dot > -0.999) return [x + ((ax + bx) * p) / (1 + dot), y + ((ay + by) * p) / (1 + dot)];
  const det = ax * by - ay * bx;
  if (Math.abs(det) < 1e-6) return [x + ((ax + bx) * (p + q)) / 4, y + ((ay + by) * (p + q)) / 4];
  return [x + (p * by - q * ay) / det, y + (q * ax - p * bx) / det];
}

/** The section's direction from one depth to the next, rounded at either end where it is smooth there. */
function directionsOf(edge: LoopEdge, one: number, two: number): [readonly [number, number], readonly [number, number]] {
  if (edge.joint) return [[1, 0], [1, 0]];
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
