/**
 * Triangulating again after an edit: only where loops have changed. A constrained Delaunay triangulation is the only one of its kind (ties are broken by place), and a triangle whose
 * circumcircle stays clear of all that has changed is in it before and after; so what is put together here is, triangle for triangle, what a triangulation from nothing gives.
 */
import { boxOf, circleThrough, type Box } from './box.ts';
import { triangulateFace } from './face.ts';
import type { Region } from './region.ts';
import type { Block } from './repeat.ts';
import { partOf, Rim } from './rim.ts';
import { inOrder } from './triangulate.ts';
import { NotTriangulable } from './triangulation.ts';
import { micrometre, relative } from '../tolerances.ts';

/** Some loops of a region, whose they are, and by what they are known to be unchanged. */
export interface Segment extends Block {
  name: string;
  of: object;
}

/** A region as it was triangulated before an edit. */
interface Before {
  region: Region;
  triangles: Uint32Array;
  segments: Segment[];
}

/**
 * Triangles of a region, made from those of the region before an edit; null where too much has changed for that to be of use.
 * @param ribs as for triangulateFace.
 */
export function retriangulate(
  before: Before,
  region: Region,
  segments: readonly Segment[],
  ribs: Float64Array | null,
): Uint32Array | null {
  const { now, changed, left } = compared(before, segments);
  if (changed.length === 0 && left.length === 0) return before.triangles;
  if (changed.length + left.length > 8) return null;
  const here = changed.map((segment) => boxOf(region, segment));
  const gone = left.map((segment) => boxOf(before.region, segment));
  if (ribs && ribs.length > 2) {
    toNeighbours(here, region, ribs);
    toNeighbours(gone, before.region, ribs);
  }
  const { affected, kept } = affectedBy(before, now, [...here, ...gone]);
  if (kept < affected.length / 2) return null;
  const loops = rimOf(before, { now, affected }, region).loops();
  if (!loops) return null;
  const { points, next } = loops;
  for (const { first, count } of changed) {
    const base = points.length;
    for (let i = 0; i < count; i++) {
      points.push(first + i);
      next.push(base + region.next[first + i]! - first);
    }
  }
  try {
    const made = triangulateFace(partOf(region, points, next), ribs);
    for (let i = 0; i < made.length; i++) made[i] = points[made[i]!]!;
    const whole = stayed(before.triangles, { now, affected, kept });
    // Where points have kept their order, so have triangles.
    return merged(rising(now) ? whole : inOrder(whole, region.count), inOrder(made, region.count));
  } catch (error) {
    if (error instanceof NotTriangulable) return null;
    throw error;
  }
}

/** Which segments have changed or come, which are left from before, and by point of before its place now, or −1 where it is gone or has changed. */
function compared(
  { region, segments: olds }: Before,
  segments: readonly Segment[],
): { now: Int32Array; changed: Segment[]; left: Segment[] } {
  const now = new Int32Array(region.count).fill(-1);
  const stays = new Uint8Array(olds.length);
  const changed: Segment[] = [];
  let byName: Map<string, number> | null = null;
  for (let k = 0; k < segments.length; k++) {
    const segment = segments[k]!;
    // Mostly all stand in their old order.
    const at =
      olds[k]?.name === segment.name
        ? k
        : ((byName ??= new Map(olds.map(({ name }, i) => [name, i]))).get(segment.name) ?? -1);
    const old = olds[at];
    if (old && old.of === segment.of) {
      for (let i = 0; i < segment.count; i++) now[old.first + i] = segment.first + i;
      stays[at] = 1;
    } else changed.push(segment);
  }
  return { now, changed, left: olds.filter((_, i) => !stays[i]) };
}

/** Which triangles of before have lost a point, or come near what has changed, and how many have not. */
function affectedBy(
  { region: { xs, ys }, triangles }: Before,
  now: Int32Array,
  boxes: readonly Box[],
): { affected: Uint8Array; kept: number } {
  const count = triangles.length / 3;
  const affected = new Uint8Array(count);
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const a = triangles[3 * i]!;
    const b = triangles[3 * i + 1]!;
    const c = triangles[3 * i + 2]!;
    if (now[a]! < 0 || now[b]! < 0 || now[c]! < 0 || meets(xs, ys, a, b, c, boxes)) affected[i] = 1;
    else kept += 1;
  }
  return { affected, kept };
}

/** The edges between what is affected and what is not, the affected side on their left. */
function rimOf(
  { region: { count: total }, triangles }: Before,
  { now, affected }: { now: Int32Array; affected: Uint8Array },
  region: Region,
): Rim {
  const inner = new Set<number>();
  for (let i = 0; i < affected.length; i++)
    if (affected[i]) {
      const [a, b, c] = [triangles[3 * i]!, triangles[3 * i + 1]!, triangles[3 * i + 2]!];
      // Of an edge and its opposite both of which are here neither stays.
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a],
      ] as const)
        if (!inner.delete(q * total + p)) inner.add(p * total + q);
    }
  const rim = new Rim(region);
  for (const key of inner) {
    const [a, b] = [Math.floor(key / total), key % total];
    // Edges of loops that are gone bound nothing any more.
    if (now[a]! >= 0 && now[b]! >= 0) rim.add(now[a]!, now[b]!);
  }
  return rim;
}

/** The triangles of before that are not affected, by their points' places now. */
function stayed(
  triangles: Uint32Array,
  { now, affected, kept }: { now: Int32Array; affected: Uint8Array; kept: number },
): Uint32Array {
  const whole = new Uint32Array(3 * kept);
  for (let i = 0, o = 0; i < triangles.length; i += 3) {
    if (affected[i / 3]) continue;
    whole[o++] = now[triangles[i]!]!;
    whole[o++] = now[triangles[i + 1]!]!;
    whole[o++] = now[triangles[i + 2]!]!;
  }
  return whole;
}

/** Whether points that stay, in the order of before, stand in that order now. */
function rising(now: Int32Array): boolean {
  let last = -1;
  for (let v = 0; v < now.length; v++) {
    if (now[v]! < 0) continue;
    if (now[v]! < last) return false;
    last = now[v]!;
  }
  return true;
}

/** Two lists of triangles that are in order (see inOrder), as one. */
function merged(a: Uint32Array, b: Uint32Array): Uint32Array {
  const out = new Uint32Array(a.length + b.length);
  let i = 0;
  let o = 0;
  for (let j = 0; j < b.length; j += 3) {
    const from = i;
    while (i < a.length && (a[i]! < b[j]! || (a[i] === b[j] && a[i + 1]! < b[j + 1]!))) i += 3;
    out.set(a.subarray(from, i), o);
    o += i - from;
    for (let k = 0; k < 3; k++) out[o++] = b[j + k]!;
  }
  out.set(a.subarray(i), o);
  return out;
}

/** Ribs run from loop to loop, so with a loop those change that end on it: boxes are made as high and as deep as to where they lead. */
function toNeighbours(boxes: readonly Box[], { xs, ys, count }: Region, ribs: Float64Array): void {
  for (const box of boxes) {
    const crossing = Array.from(ribs).filter((x) => x >= box[0] && x <= box[2]);
    const above = new Float64Array(crossing.length).fill(Infinity);
    const below = new Float64Array(crossing.length).fill(-Infinity);
    for (let v = 0; v < count; v++) {
      const x = xs[v]!;
      if (x < box[0] || x > box[2]) continue;
      const i = crossing.indexOf(x);
      if (i < 0) continue;
      const y = ys[v]!;
      if (y > box[3]) above[i] = Math.min(above[i]!, y);
      else if (y < box[1]) below[i] = Math.max(below[i]!, y);
    }
    box[1] = Math.min(box[1], ...below);
    box[3] = Math.max(box[3], ...above);
  }
}

const circle = new Float64Array(3);

/** Whether a triangle's circumcircle comes near any of some boxes. */
function meets(xs: Float64Array, ys: Float64Array, a: number, b: number, c: number, boxes: readonly Box[]): boolean {
  circleThrough(xs, ys, a, b, c, circle);
  const x = circle[0]!;
  const y = circle[1]!;
  const r = circle[2]! * (1 + relative) + micrometre;
  if (!(r < 1e9)) return true;
  for (let i = 0; i < boxes.length; i++) {
    const box = boxes[i]!;
    const dx = x < box[0] ? box[0] - x : x > box[2] ? x - box[2] : 0;
    const dy = y < box[1] ? box[1] - y : y > box[3] ? y - box[3] : 0;
    if (dx * dx + dy * dy <= r * r) return true;
  }
  return false;
}
