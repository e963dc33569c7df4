/**
 * Openings that touch another, or the sheet's own edge, in no more than a point: there the solid would hang together by a line of no width, an edge with four faces. They are joined by a hair's breadth: the opening
 * is moved so far towards what it touches. Kept apart by as little, a hair of a wall would be left, and triangles as thin.
 */
import Flatbush from 'flatbush';
import type { Sheet } from '../element/sheet.ts';
import { tolerance } from '../mesh/orient.ts';
import type { Placed } from '../setout/placed.ts';
import { hair, micrometre as along } from '../tolerances.ts';

/** Openings as they are cut, and for each that was joined, to what: another opening's id, or null for the sheet's edge. */
export interface Joined {
  openings: readonly Placed[];
  to: ReadonlyMap<string, string | null>;
}

/** Closed loops in (s, t): edge i runs from point i to next[i]. */
interface Loops {
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  before: Uint32Array;
  s: number;
  t: number;
}

const befores = new WeakMap<Uint32Array, Uint32Array>();

function loopsOf(
  { xs, ys, next }: { xs: Float64Array; ys: Float64Array; next: Uint32Array },
  s: number,
  t: number,
): Loops {
  let before = befores.get(next);
  if (!before) {
    before = new Uint32Array(next.length);
    for (let i = 0; i < next.length; i++) before[next[i]!] = i;
    befores.set(next, before);
  }
  return { xs, ys, next, before, s, t };
}

/** Joins openings to what they touch in a point. Those that touch nothing are the very same objects. */
export function joinedByHair(sheet: Sheet, openings: readonly Placed[]): Joined {
  const to = new Map<string, string | null>();
  if (openings.length === 0) return { openings: [], to };
  const index = new Flatbush(openings.length);
  for (const { s, t, profile } of openings) index.add(s, t, s + profile.width, t + profile.height);
  index.finish();
  const edge = loopsOf(sheet.outline, 0, 0);
  const loops = openings.map(({ outline, s, t }) => loopsOf(outline, s, t));
  /** By opening: its corners that touch something; hardly any has some. */
  const touches = new Map<number, Set<number>>();
  const touch = (k: number, v: number): void => void (touches.get(k)?.add(v) ?? touches.set(k, new Set([v])));
  const [length, height] = [Math.max(...sheet.outline.xs), Math.max(...sheet.outline.ys)];
  const plain = sheet.outline.xs.length === 4;
  openings.forEach(({ id, s, t, profile }, k) => {
    const box = [s - tolerance, t - tolerance, s + profile.width + tolerance, t + profile.height + tolerance] as const;
    const inside = plain && box[0] > 0 && box[1] > 0 && box[2] < length && box[3] < height;
    if (!inside)
      for (const v of touchesOf(loops[k]!, edge, true)) {
        touch(k, v);
        to.set(id, null);
      }
    for (const other of fewNear(index, box)) {
      if (other === k) continue;
      for (const v of touchesOf(loops[k]!, loops[other]!)) {
        // Of two corners that touch only one is moved.
        if (other > k && touchesOf(loops[other]!, loops[k]!).length > 0) continue;
        touch(k, v);
        if (!to.has(id)) to.set(id, openings[other]!.id);
      }
    }
  });
  if (touches.size === 0) return { openings, to };
  const out: Placed[] = [];
  const place = new Map(openings.map(({ id }, k) => [id, k]));
  openings.forEach((opening, k) => {
    const own = touches.get(k);
    if (!own) return void out.push(opening);
    const other = place.get(to.get(opening.id) ?? '') ?? -1;
    const before = out[other];
    out.push(
      moved(
        opening,
        loops[k]!,
        [...own],
        before ? [before.s - openings[other]!.s, before.t - openings[other]!.t] : [0, 0],
      ),
    );
  });
  return { openings: out, to };
}

/** More openings than this lie over one only where many are heaped up, of which most are not cut. */
const heaped = 250;

/** Those that a box meets; none where there are too many. */
function fewNear(index: Flatbush, box: readonly [number, number, number, number]): number[] {
  const found: number[] = [];
  // Once there are too many nothing more is looked for.
  return index.collides(...box, (other) => found.push(other) > heaped) ? [] : found;
}

/** The points of some loops that touch others from outside, in no more than a point each. What is on the left of either is what is taken away; of the sheet's own edge, what stays. */
function touchesOf(one: Loops, other: Loops, outward = false): number[] {
  const found: number[] = [];
  const near = edgesNear(one, other);
  if (near.length === 0) return found;
  for (let v = 0; v < one.xs.length; v++) {
    const [x, y] = [one.xs[v]! + one.s - other.s, one.ys[v]! + one.t - other.t];
    for (const i of near) {
      const j = other.next[i]!;
      const [ax, ay, bx, by] = [other.xs[i]!, other.ys[i]!, other.xs[j]!, other.ys[j]!];
      if (
        x < Math.min(ax, bx) - tolerance ||
        x > Math.max(ax, bx) + tolerance ||
        y < Math.min(ay, by) - tolerance ||
        y > Math.max(ay, by) + tolerance
      )
        continue;
      const [dx, dy] = [bx - ax, by - ay];
      const size = Math.hypot(dx, dy);
      if (size === 0 || Math.abs(dx * (y - ay) - dy * (x - ax)) / size > tolerance) continue;
      const share = ((x - ax) * dx + (y - ay) * dy) / size;
      // An end belongs to the edge that begins there.
      if (share > size - tolerance) continue;
      if (
        clear(
          sectorAt(one, v),
          share < tolerance ? sectorAt(other, i) : { from: Math.atan2(dy, dx), turn: Math.PI },
          outward,
        )
      )
        found.push(v);
    }
  }
  return found;
}

/** The edges of some loops that come into the box round others: of a long outline there are few beside any opening. */
function edgesNear(one: Loops, { xs, ys, next, s, t }: Loops): number[] {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let v = 0; v < one.xs.length; v++) {
    const [x, y] = [one.xs[v]! + one.s - s, one.ys[v]! + one.t - t];
    [left, low, right, high] = [Math.min(left, x), Math.min(low, y), Math.max(right, x), Math.max(high, y)];
  }
  const near: number[] = [];
  for (let i = 0; i < xs.length; i++) {
    const j = next[i]!;
    if (
      Math.max(xs[i]!, xs[j]!) >= left - tolerance &&
      Math.min(xs[i]!, xs[j]!) <= right + tolerance &&
      Math.max(ys[i]!, ys[j]!) >= low - tolerance &&
      Math.min(ys[i]!, ys[j]!) <= high + tolerance
    )
      near.push(i);
  }
  return near;
}

/** What lies on the left of the edges at a point: from a direction on, turning counter-clockwise by so much, radians. */
interface Sector {
  from: number;
  turn: number;
}

function sectorAt({ xs, ys, next, before }: Loops, v: number): Sector {
  const [n, b] = [next[v]!, before[v]!];
  const from = Math.atan2(ys[n]! - ys[v]!, xs[n]! - xs[v]!);
  return { from, turn: rest(Math.atan2(ys[b]! - ys[v]!, xs[b]! - xs[v]!) - from) };
}

const rest = (angle: number): number => ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);

/** Whether two sectors have nothing in common but their point, with something between them on either side. @param outward whether what the second takes away is on its right. */
function clear(a: Sector, b: Sector, outward: boolean): boolean {
  const second = outward ? { from: b.from + b.turn, turn: 2 * Math.PI - b.turn } : b;
  const gap = rest(second.from - (a.from + a.turn));
  return gap > along && gap + second.turn < 2 * Math.PI - a.turn - along;
}

/** The way out of what is taken away at a point, half way between its edges, a unit vector. */
function outwardAt({ xs, ys, next, before }: Loops, v: number): [number, number] {
  const unit = (w: number): [number, number] => {
    const [dx, dy] = [xs[w]! - xs[v]!, ys[w]! - ys[v]!];
    const size = Math.hypot(dx, dy);
    return [dx / size, dy / size];
  };
  const [[ax, ay], [bx, by]] = [unit(before[v]!), unit(next[v]!)];
  const [x, y] = [-(ax + bx), -(ay + by)];
  const size = Math.hypot(x, y);
  // On the right of the way where that goes straight on.
  if (size < along) return [by, -bx];
  // At a corner that juts in, the way out is where its edges go.
  const sign = ax * by - ay * bx > 0 ? -1 : 1;
  return [(sign * x) / size, (sign * y) / size];
}

/** An opening moved a hair towards what it touches. @param along how another one was moved before, which it touches. */
function moved(opening: Placed, loops: Loops, touches: readonly number[], along: readonly [number, number]): Placed {
  const ways = touches.map((v) => outwardAt(loops, v));
  let [x, y] = ways.reduce(([sx, sy], [wx, wy]) => [sx + wx, sy + wy], [0, 0]);
  // What it touches on opposite sides it cannot be moved to at once.
  if (Math.hypot(x, y) < 0.1) [x, y] = ways[0]!;
  const size = Math.hypot(x, y);
  // What it touches may itself have been moved: it goes with that.
  const [ds, dt] = along;
  return { ...opening, s: opening.s + ds + (hair * x) / size, t: opening.t + dt + (hair * y) / size };
}
