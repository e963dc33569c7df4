/**
 * Openings that touch another, or the sheet's own edge, in no more than a point: there the solid would hang together by a line of no width, an edge with four faces. They are kept apart by a hair's
 * breadth: the corner that touches is taken off.
 */
import Flatbush from 'flatbush';
import type { Sheet } from '../element/sheet.ts';
import { tolerance } from '../mesh/orient.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from '../setout/resolve.ts';

/** How far apart they are kept, metres: the least that can be made. */
export const hair = 1e-4;

/** Directions that differ by less run along each other, radians. */
const along = 1e-6;

/** Openings as they are cut, and for each that was kept apart, from what: another opening's id, or null for the sheet's edge. */
export interface KeptApart {
  openings: Placed[];
  from: ReadonlyMap<string, string | null>;
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

function loopsOf({ xs, ys, next }: { xs: Float64Array; ys: Float64Array; next: Uint32Array }, s: number, t: number): Loops {
  let before = befores.get(next);
  if (!before) {
    before = new Uint32Array(next.length);
    for (let i = 0; i < next.length; i++) before[next[i]!] = i;
    befores.set(next, before);
  }
  return { xs, ys, next, before, s, t };
}

/** Keeps openings apart that touch in a point. Those that touch nothing are the very same objects. */
export function keptApart(sheet: Sheet, openings: readonly Placed[]): KeptApart {
  const from = new Map<string, string | null>();
  if (openings.length === 0) return { openings: [], from };
  const index = new Flatbush(openings.length);
  for (const { s, t, profile } of openings) index.add(s, t, s + profile.width, t + profile.height);
  index.finish();
  const edge = loopsOf(sheet.outline, 0, 0);
  const loops = openings.map(({ outline, s, t }) => loopsOf(outline, s, t));
  const nicks = openings.map(() => new Set<number>());
  const [length, height] = [Math.max(...sheet.outline.xs), Math.max(...sheet.outline.ys)];
  const plain = sheet.outline.xs.length === 4;
  openings.forEach(({ id, s, t, profile }, k) => {
    const box = [s - tolerance, t - tolerance, s + profile.width + tolerance, t + profile.height + tolerance] as const;
    const inside = plain && box[0] > 0 && box[1] > 0 && box[2] < length && box[3] < height;
    if (!inside)
      for (const v of touchesOf(loops[k]!, edge, true)) {
        nicks[k]!.add(v);
        from.set(id, null);
      }
    for (const other of fewNear(index, box)) {
      if (other === k) continue;
      for (const v of touchesOf(loops[k]!, loops[other]!)) {
        // Of two corners that touch only one is taken off.
        if (other > k && touchesOf(loops[other]!, loops[k]!).length > 0) continue;
        nicks[k]!.add(v);
        if (!from.has(id)) from.set(id, openings[other]!.id);
      }
    }
  });
  return { openings: openings.map((opening, k) => (nicks[k]!.size === 0 ? opening : { ...opening, outline: nicked(opening.outline, [...nicks[k]!].sort((a, b) => a - b)) })), from };
}

/** More openings than this lie over one only where many are heaped up, of which most are not cut. */
const heaped = 250;

/** Those that a box meets; none where there are too many. */
function fewNear(index: Flatbush, box: readonly [number, number, number, number]): number[] {
  const found: number[] = [];
  index.search(...box, (other) => {
    // Once there are too many nothing more is looked for.
    if (found.length <= heaped) found.push(other);
    return false;
  });
  return found.length > heaped ? [] : found;
}

/** The points of some loops that touch others from outside, in no more than a point each. What is on the left of either is what is taken away; of the sheet's own edge, what stays. */
function touchesOf(one: Loops, other: Loops, outward = false): number[] {
  const found: number[] = [];
  for (let v = 0; v < one.xs.length; v++) {
    const [x, y] = [one.xs[v]! + one.s - other.s, one.ys[v]! + one.t - other.t];
    for (let i = 0; i < other.xs.length; i++) {
      const j = other.next[i]!;
      const [ax, ay, bx, by] = [other.xs[i]!, other.ys[i]!, other.xs[j]!, other.ys[j]!];
      if (x < Math.min(ax, bx) - tolerance || x > Math.max(ax, bx) + tolerance || y < Math.min(ay, by) - tolerance || y > Math.max(ay, by) + tolerance) continue;
      const [dx, dy] = [bx - ax, by - ay];
      const size = Math.hypot(dx, dy);
      if (size === 0 || Math.abs(dx * (y - ay) - dy * (x - ax)) / size > tolerance) continue;
      const share = ((x - ax) * dx + (y - ay) * dy) / size;
      // An end belongs to the edge that begins there.
      if (share > size - tolerance) continue;
      if (clear(sectorAt(one, v), share < tolerance ? sectorAt(other, i) : { from: Math.atan2(dy, dx), turn: Math.PI }, outward)) found.push(v);
    }
  }
  return found;
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

const kept = new WeakMap<Outline, Map<string, Outline>>();

/** An outline with corners taken off, so far that each stays a hair's breadth from where it was; the same object for the same question. */
function nicked(outline: Outline, corners: readonly number[]): Outline {
  let known = kept.get(outline);
  if (!known) kept.set(outline, (known = new Map()));
  const key = corners.join(' ');
  let made = known.get(key);
  if (!made) known.set(key, (made = nickedAnew(outline, new Set(corners))));
  return made;
}

function nickedAnew({ count, xs, ys, next, loops, side, arcs }: Outline, corners: ReadonlySet<number>): Outline {
  const before = new Uint32Array(count);
  for (let i = 0; i < count; i++) before[next[i]!] = i;
  const out: Outline = { count: 0, xs: new Float64Array(0), ys: new Float64Array(0), next: new Uint32Array(0), loops: [], side: [], arcs: [] };
  const points: [number, number][] = [];
  const onward: number[] = [];
  const put = (point: [number, number], at: number, arc: Outline['arcs'][number]): void => {
    points.push(point);
    out.side.push(side[at]!);
    out.arcs.push(arc);
    onward.push(points.length);
  };
  for (const first of loops) {
    const start = points.length;
    out.loops.push(start);
    let v = first;
    do {
      if (!corners.has(v)) put([xs[v]!, ys[v]!], v, arcs[v]!);
      else {
        const [p, q] = [before[v]!, next[v]!];
        const towards = (w: number): [number, number, number] => {
          const [dx, dy] = [xs[w]! - xs[v]!, ys[w]! - ys[v]!];
          const size = Math.hypot(dx, dy);
          return [dx / size, dy / size, size];
        };
        const [[ax, ay, a], [bx, by, b]] = [towards(p), towards(q)];
        // The line across lies a hair from the corner.
        const half = Math.sqrt(Math.max(1e-6, (1 + ax * bx + ay * by) / 2));
        const far = Math.min(hair / half, 0.4 * a, 0.4 * b);
        put([xs[v]! + far * ax, ys[v]! + far * ay], v, null);
        put([xs[v]! + far * bx, ys[v]! + far * by], v, arcs[v]!);
      }
      v = next[v]!;
    } while (v !== first);
    onward[points.length - 1] = start;
  }
  return { ...out, count: points.length, xs: Float64Array.from(points, ([x]) => x), ys: Float64Array.from(points, ([, y]) => y), next: Uint32Array.from(onward) };
}
