/**
 * Corners of a loop through the depth: where the lines of neighbouring edges meet at each station, and which edges have vanished there. An edge that a section eats up has no length from then on, and
 * its neighbours meet in its stead.
 */
import type { EdgeLoop, LoopEdge } from './loop.ts';
import { millimetre, nanometre as same, parallel, relative, touch } from '../tolerances.ts';

/** A depth, metres, at which corners are looked at. */
export interface Station {
  n: number;
  /** Just before a step (−1) or just after it (1), either where there is none; or where some sides step inward and others outward, between the two (0), when only the ones or only the others have stepped. */
  side: -1 | 0 | 1;
  /** Between the two: whether those have stepped that let what is on the left of the edges grow, or those that let it shrink. */
  grown?: boolean;
  /** Only there because an edge vanishes or appears: nothing else is divided. */
  minor?: boolean;
}

/** Raised where a section asks for more than the outline has, so that nothing of it would be left, or nothing clear. */
export class Collapsed extends Error {
  constructor(
    readonly edge: LoopEdge,
    /** Depth at which it happens, metres. */
    readonly depth: number,
    /** Whether it is eaten up there, or crosses another side. */
    readonly how: 'eaten up' | 'crossed' = 'eaten up',
  ) {
    super('a section eats up an edge of the outline');
  }
}

/** By corner, which is at the start of its edge, and station. */
export interface Corners {
  px: Float64Array[];
  py: Float64Array[];
}

type Offsets = (number[] | null)[];

/**
 * The corners of a loop.
 * @param stations in order of depth; where edges vanish between two of them, minor ones are put in, and rows of `offset` with them.
 * @param offset by edge and station, metres; null at joints.
 * @throws Collapsed
 */
export function cornersOf(loop: EdgeLoop, stations: Station[], offset: Offsets): Corners {
  const E = loop.length;
  const px: Float64Array[] = [];
  const py: Float64Array[] = [];
  const K = stations.length;
  for (let i = 0; i < E; i++) {
    px.push(new Float64Array(K));
    py.push(new Float64Array(K));
    for (let k = 0; k < K; k++) {
      const [x, y] = cornerAt(loop, offset, i, k, stations[k]!.n);
      px[i]![k] = x;
      py[i]![k] = y;
    }
  }
  for (let i = 0; i < E; i++) {
    const edge = loop[i]!;
    const j = (i + 1) % E;
    // Where both its ends go ways of their own it may turn any way.
    if (edge.joint || (edge.way && loop[j]!.way)) continue;
    for (let k = 0; k < K; k++)
      if ((px[j]![k]! - px[i]![k]!) * edge.dx + (py[j]![k]! - py[i]![k]!) * edge.dy < -same)
        return withEvents(loop, stations, offset, { edge, at: k });
  }
  if (offset.some((row) => row?.some((o) => o !== 0)))
    stations.forEach(({ n }, k) => refuseCrossing(loop, { px, py }, { k, n }));
  return { px, py };
}

/** @throws Collapsed where edges that are no neighbours cross one another at a station: the loop's own order says nothing of those. */
function refuseCrossing(
  loop: EdgeLoop,
  { px, py }: { px: readonly Float64Array[]; py: readonly Float64Array[] },
  { k, n }: { k: number; n: number },
): void {
  const E = loop.length;
  const order = loop
    .map((_, i) => i)
    .filter((i) => Math.abs(px[i]![k]! - px[(i + 1) % E]![k]!) + Math.abs(py[i]![k]! - py[(i + 1) % E]![k]!) > same);
  const least = (i: number): number => Math.min(px[i]![k]!, px[(i + 1) % E]![k]!);
  order.sort((a, b) => least(a) - least(b));
  const side = (i: number, v: number): number => {
    const j = (i + 1) % E;
    const [x, y] = [px[i]![k]!, py[i]![k]!];
    const [dx, dy] = [px[j]![k]! - x, py[j]![k]! - y];
    return (dx * (py[v]![k]! - y) - dy * (px[v]![k]! - x)) / Math.hypot(dx, dy);
  };
  /** How long the part is that lies beside both of two sides that are parallel. */
  const shared = (i: number, h: number): number => {
    const j = (h + 1) % E;
    const [x, y] = [px[h]![k]!, py[h]![k]!];
    const [dx, dy] = [px[j]![k]! - x, py[j]![k]! - y];
    const size = Math.hypot(dx, dy);
    const along = [i, (i + 1) % E].map((v) => (dx * (px[v]![k]! - x) + dy * (py[v]![k]! - y)) / size);
    return Math.min(size, Math.max(...along)) - Math.max(0, Math.min(...along));
  };
  let open: number[] = [];
  for (const i of order) {
    open = open.filter((h) => Math.max(px[h]![k]!, px[(h + 1) % E]![k]!) > least(i) - touch);
    for (const h of open) {
      const [p, q, r, s] = [side(h, i), side(h, (i + 1) % E), side(i, h), side(i, (h + 1) % E)];
      const across =
        ((p > touch && q < -touch) || (p < -touch && q > touch)) &&
        ((r > touch && s < -touch) || (r < -touch && s > touch));
      // Sides in one line that lie over one another: what was between them is gone.
      const over = Math.max(Math.abs(p), Math.abs(q)) < touch && shared(i, h) > millimetre / 10;
      if (across || over) throw new Collapsed(loop[i]!.joint ? loop[h]! : loop[i]!, n, 'crossed');
    }
    open.push(i);
  }
}

/** The same where edges vanish: found by letting the offsets grow from nothing to what they are, one edge vanishing after the other. */
function withEvents(
  loop: EdgeLoop,
  stations: Station[],
  offset: Offsets,
  { edge, at }: { edge: LoopEdge; at: number },
): Corners {
  const refused = new Collapsed(edge, stations[at]!.n);
  const { drift } = edge;
  // Where edges drift apart or are joined unlike their neighbours there is no one order in which they vanish.
  if (loop.some((other) => other.joint || other.drift[0] !== drift[0] || other.drift[1] !== drift[1])) throw refused;
  const rows = stations.map((_, k) => loop.map((_, i) => offset[i]![k]!));
  const nothing = loop.map(() => 0);
  const left = rows.map(
    (row) =>
      vanish(
        loop,
        { from: nothing, to: row },
        loop.map(() => true),
        refused,
      ).left,
  );

  // Between two stations edges vanish, or appear again, but not both.
  for (let k = 0; k + 1 < stations.length; k++) {
    const [a, b] = [left[k]!, left[k + 1]!];
    const [less, more] = [a.some((x, i) => !x && b[i]), a.some((x, i) => x && !b[i])];
    if (less && more) throw refused;
    if (!less && !more) continue;
    const [from, to] = more ? [k, k + 1] : [k + 1, k];
    const { left: reached, events } = vanish(loop, { from: rows[from]!, to: rows[to]! }, left[from]!, refused);
    if (reached.some((x, i) => x !== left[to]![i])) throw refused;
    const made = events.map(({ share, left: now }) => {
      const part = more ? share : 1 - share;
      const row = rows[k]!.map((o, i) => o + part * (rows[k + 1]![i]! - o));
      return { part, row, now, n: stations[k]!.n + part * (stations[k + 1]!.n - stations[k]!.n) };
    });
    made.sort((p, q) => p.part - q.part);
    const fresh = made.filter(({ part }) => part > relative && part < 1 - relative);
    stations.splice(k + 1, 0, ...fresh.map(({ n }): Station => ({ n, side: 1, minor: true })));
    rows.splice(k + 1, 0, ...fresh.map(({ row }) => row));
    left.splice(k + 1, 0, ...fresh.map(({ now }) => now));
    loop.forEach((_, i) => offset[i]!.splice(k + 1, 0, ...fresh.map(({ row }) => row[i]!)));
    k += fresh.length;
  }

  const px = loop.map(() => new Float64Array(stations.length));
  const py = loop.map(() => new Float64Array(stations.length));
  stations.forEach(({ n }, k) => {
    const corners = meetings(loop, rows[k]!, left[k]!);
    if (!corners) throw refused;
    loop.forEach((_, i) => {
      px[i]![k] = corners[i]![0] + n * drift[0];
      py[i]![k] = corners[i]![1] + n * drift[1];
    });
    refuseCrossing(loop, { px, py }, { k, n });
  });
  for (let k = 0; k < stations.length; k++)
    loop.forEach((edge, i) => {
      const j = (i + 1) % loop.length;
      if ((px[j]![k]! - px[i]![k]!) * edge.dx + (py[j]![k]! - py[i]![k]!) * edge.dy < -touch) throw refused;
    });
  return { px, py };
}

/** Which edges are left when offsets go from one row to another, and in what order the others vanish: each with the share of the way at which it does, and what is left then. */
function vanish(
  loop: EdgeLoop,
  { from, to }: { from: readonly number[]; to: readonly number[] },
  first: readonly boolean[],
  refused: Collapsed,
): { left: boolean[]; events: { share: number; left: boolean[] }[] } {
  let left = [...first];
  const events: { share: number; left: boolean[] }[] = [];
  let share = 0;
  for (;;) {
    const row = (at: number): number[] => from.map((o, i) => o + at * (to[i]! - o));
    const [before, after] = [lengthsOf(loop, row(share), left), lengthsOf(loop, to, left)];
    if (!before || !after) throw refused;
    let next = Infinity;
    const at = loop.map((_, i) => {
      if (!left[i] || after[i]! >= -same) return Infinity;
      // Lengths are linear in the share as long as the same edges are left.
      const here = share + ((1 - share) * Math.max(0, before[i]!)) / (Math.max(0, before[i]!) - after[i]!);
      next = Math.min(next, here);
      return here;
    });
    if (next === Infinity) return { left, events };
    share = next;
    left = left.map((x, i) => x && !(at[i]! <= next + same));
    if (left.filter(Boolean).length < 3) throw refused;
    events.push({ share, left });
  }
}

/** Length of each edge that is left, metres, less than nothing where it has turned about; null where two that must meet run alongside one another. */
function lengthsOf(loop: EdgeLoop, row: readonly number[], left: readonly boolean[]): number[] | null {
  const corners = meetings(loop, row, left);
  return (
    corners &&
    loop.map(({ dx, dy }, i) => {
      const [a, b] = [corners[i]!, corners[(i + 1) % loop.length]!];
      return (b[0] - a[0]) * dx + (b[1] - a[1]) * dy;
    })
  );
}

/** Corner i: where the last edge that is left before edge i meets the first that is left from it on. */
function meetings(loop: EdgeLoop, row: readonly number[], left: readonly boolean[]): [number, number][] | null {
  const E = loop.length;
  const out: [number, number][] = [];
  for (let i = 0; i < E; i++) {
    let h = (i + E - 1) % E;
    while (!left[h]) h = (h + E - 1) % E;
    let j = i;
    while (!left[j]) j = (j + 1) % E;
    const [a, b] = [loop[h]!, loop[j]!];
    // On line a lie the points that are so far out along its normal (dy, −dx).
    const p = a.dy * a.x - a.dx * a.y + row[h]!;
    const q = b.dy * b.x - b.dx * b.y + row[j]!;
    const det = b.dy * a.dx - a.dy * b.dx;
    if (Math.abs(det) < parallel) {
      if (h !== (j + E - 1) % E) return null;
      out.push([b.x + b.dy * row[j]!, b.y - b.dx * row[j]!]);
    } else out.push([(q * a.dx - p * b.dx) / det, (q * a.dy - p * b.dy) / det]);
  }
  return out;
}

/** Where a way is at a depth: straight between the depths that it tells of. */
export function placeOn(way: readonly (readonly [number, number, number])[], n: number): [number, number] {
  let i = 0;
  while (i + 2 < way.length && n > way[i + 1]![0]) i += 1;
  const [[from, ax, ay], [to, bx, by]] = [way[i]!, way[i + 1]!];
  const share = (n - from) / (to - from);
  return [ax + share * (bx - ax), ay + share * (by - ay)];
}

/** Where the lines of two neighbours meet. */
function cornerAt(
  loop: EdgeLoop,
  offset: readonly (number[] | null)[],
  i: number,
  k: number,
  n: number,
): [number, number] {
  const before = loop[(i + loop.length - 1) % loop.length]!;
  const { way, operand } = loop[i]!;
  if (way && before.operand === operand && before.source === way.after) return placeOn(way.at, n);
  const own = loop[i]!.drift;
  const other = before.drift;
  if (own[0] === other[0] && own[1] === other[1]) {
    // Whatever drifts alike drifts whole.
    const [x, y] = cornerStill(loop, offset, i, k);
    return [x + n * own[0], y + n * own[1]];
  }
  const [a, b] = [before, loop[i]!];
  const moved = (edge: LoopEdge, o: number): number => o + n * (edge.dy * edge.drift[0] - edge.dx * edge.drift[1]);
  const p = moved(a, offset[(i + loop.length - 1) % loop.length]?.[k] ?? 0);
  const q = moved(b, offset[i]?.[k] ?? 0);
  const det = b.dy * a.dx - a.dy * b.dx;
  if (Math.abs(det) < parallel) return [b.x + b.dy * q, b.y - b.dx * q];
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
  if (Math.abs(p - q) <= same && dot > -0.999)
    return [x + ((ax + bx) * p) / (1 + dot), y + ((ay + by) * p) / (1 + dot)];
  const det = ax * by - ay * bx;
  if (Math.abs(det) < parallel) return [x + ((ax + bx) * (p + q)) / 4, y + ((ay + by) * (p + q)) / 4];
  return [x + (p * by - q * ay) / det, y + (q * ax - p * bx) / det];
}
