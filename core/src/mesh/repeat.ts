/**
 * Triangulating a face on which loops are repeated, as windows are: what stands alike about a loop and about others like it is triangulated once and copied to each. Only triangles are copied whose
 * circumcircle is known to be empty: those are in the face's Delaunay triangulation, whatever else it has. What they leave is triangulated by itself, and the whole is settled, so that
 * it is, triangle for triangle, what a triangulation from nothing gives.
 */
import Flatbush from 'flatbush';
import { boxAbout, boxOf, circleThrough, grownBy, type Box } from './box.ts';
import { ribLines, triangulateFace } from './face.ts';
import type { Region } from './region.ts';
import { partOf, Rim } from './rim.ts';
import { settled, twinsOf } from './transfer.ts';
import { NotTriangulable } from './triangulation.ts';
import { meshGrain as grain } from '../tolerances.ts';

/** Loops that stand clear of all others: their points, which follow each other in the region. */
export interface Block {
  first: number;
  count: number;
  /** What all share that have the same points in the same order but for their place. */
  like: object;
}

/** Fewer blocks are not worth it, nor are fewer points, however many blocks they make: they are triangulated as fast as likeness is found. */
const few = 100;
const fewPoints = 2000;
/** As many must stand alike, at least: about one there are as many to be triangulated with it. */
const least = 6;

/** Blocks about which all stands alike: for each, itself and those near it, in order of their places. */
interface Kind {
  /** By block about which it stands so: those near it, itself among them. */
  around: number[][];
  /** What tells the kind: for each near block how far it is along and up, in grains, and the number of what it is like. */
  signature: Float64Array;
}

/**
 * Triangles of a region; null where little of it is repeated.
 * @param segments its loops.
 * @param ribs as for triangulateFace.
 */
export function repeated(region: Region, segments: readonly Block[], ribs: Float64Array | null): Uint32Array | null {
  // Niches have no loops in an inner face.
  const blocks = segments.filter(({ count }) => count > 0);
  if (region.pinched !== false || region.xs.length !== region.count || blocks.length < few) return null;
  if (region.count < fewPoints) return null;
  const boxes = blocks.map((block) => boxOf(region, block));
  const whole = boxAbout(boxes);
  // So far from a block things are looked at: as far as from one to the next, were they spread evenly.
  const reach = Math.sqrt(((whole[2] - whole[0]) * (whole[3] - whole[1])) / blocks.length);
  const kinds = kindsOf(region, blocks, boxes, reach);
  if (!kinds) return null;

  try {
    const lists = ownTriangles(region, { blocks, boxes, kinds }, reach, ribs);
    const most = kinds.reduce((sum, { around }, k) => sum + around.length * lists[k]!.length, 0) / 2;
    if (most < 3 * 0.5 * region.count) return null;
    const kept = new Uint32Array(most);
    let at = 0;
    kinds.forEach(({ around }, k) => {
      const list = lists[k]!;
      for (const near of around)
        for (let i = 0; i < list.length; i += 2) {
          const block = blocks[near[list[i]!]!]!;
          kept[at++] = block.first + list[i + 1]!;
        }
    });
    return completed(region, kept, ribs);
  } catch (error) {
    if (error instanceof NotTriangulable) return null;
    throw error;
  }
}

/** Kinds of surroundings in which several blocks stand; null where hardly any do. */
function kindsOf(region: Region, blocks: readonly Block[], boxes: readonly Box[], reach: number): Kind[] | null {
  const { xs, ys, next } = region;
  // What is large bounds more than its own place, and is looked at edge by edge.
  const large = boxes.map((box) => box[2] - box[0] > 4 * reach || box[3] - box[1] > 4 * reach);
  const index = new Flatbush(blocks.reduce((sum, { count }, k) => sum + (large[k] ? count : 1), 0));
  /** By place in the index: the block, or −1 for an edge of a large one. */
  const items: number[] = [];
  blocks.forEach(({ first, count }, k) => {
    if (!large[k]) {
      items[index.add(...boxes[k]!)] = k;
      return;
    }
    for (let v = first; v < first + count; v++) {
      const w = next[v]!;
      items[
        index.add(
          Math.min(xs[v]!, xs[w]!),
          Math.min(ys[v]!, ys[w]!),
          Math.max(xs[v]!, xs[w]!),
          Math.max(ys[v]!, ys[w]!),
        )
      ] = -1;
    }
  });
  index.finish();

  const likeness = new Map<object, number>();
  const number = new Int32Array(blocks.length);
  blocks.forEach(({ like }, k) => {
    const known = likeness.get(like) ?? likeness.size;
    if (known === likeness.size) likeness.set(like, known);
    number[k] = known;
  });
  const byHash = new Map<number, Kind[]>();
  let signature = new Float64Array(64);
  let looked = 0;
  for (let k = 0; k < blocks.length; k++) {
    if (large[k]) continue;
    const box = boxes[k]!;
    const near = index.search(box[0] - reach, box[1] - reach, box[2] + reach, box[3] + reach);
    looked += near.length;
    // Too many about each: the blocks stand in heaps.
    if (looked > 64 * few + 24 * k) return null;
    if (signature.length < 3 * near.length) signature = new Float64Array(6 * near.length);
    if (!signed(k, near)) continue;
    const length = 3 * near.length;
    let hash = length;
    for (let i = 0; i < length; i++) hash = (Math.imul(hash, 31) + Math.imul(signature[i]!, 0x9e3779b1)) | 0;
    let known = byHash.get(hash);
    if (!known) byHash.set(hash, (known = []));
    const kind = known.find((other) => begins(other.signature, length));
    if (kind) kind.around.push(near);
    else known.push({ around: [near], signature: signature.slice(0, length) });
  }
  const kinds = [...byHash.values()].flat().filter(({ around }) => around.length >= least);
  return 2 * kinds.reduce((sum, { around }) => sum + around.length, 0) < blocks.length ? null : kinds;

  /** Puts what is near a block, given by items, in order of place, and writes what tells its kind; false where some of it is an edge of something large. */
  function signed(k: number, near: number[]): boolean {
    const { first } = blocks[k]!;
    for (let i = 0; i < near.length; i++) {
      const other = items[near[i]!]!;
      if (other < 0) return false;
      const start = blocks[other]!.first;
      const along = grains(xs[start]! - xs[first]!);
      const up = grains(ys[start]! - ys[first]!);
      let at = i;
      for (
        ;
        at > 0 && (signature[3 * at - 3]! > along || (signature[3 * at - 3] === along && signature[3 * at - 2]! > up));
        at--
      ) {
        near[at] = near[at - 1]!;
        for (let j = 3 * at + 2; j >= 3 * at; j--) signature[j] = signature[j - 3]!;
      }
      near[at] = other;
      signature[3 * at] = along;
      signature[3 * at + 1] = up;
      signature[3 * at + 2] = number[other]!;
    }
    return true;
  }

  function begins(other: Float64Array, length: number): boolean {
    if (other.length !== length) return false;
    for (let i = 0; i < length; i++) if (other[i] !== signature[i]) return false;
    return true;
  }
}

/** A distance in grains; the same whichever way it is taken. */
function grains(distance: number): number {
  return distance < 0 ? -Math.round(-distance / grain) : Math.round(distance / grain);
}

/**
 * Triangles about the first block of each kind that are sure to be in the triangulation of the whole. Those between blocks belong to the first of them by place.
 * @returns for each corner, which of the near blocks it is of, and its place in that.
 * @throws NotTriangulable
 */
function ownTriangles(
  region: Region,
  { blocks, boxes, kinds }: { blocks: readonly Block[]; boxes: readonly Box[]; kinds: readonly Kind[] },
  reach: number,
  ribs: Float64Array | null,
): Uint32Array[] {
  // All that is near the first of any kind at once: firsts often stand side by side.
  const chosen = [...new Set(kinds.flatMap(({ around }) => around[0]!))];
  const starts = new Int32Array(blocks.length);
  const owner: number[] = [];
  const points: number[] = [];
  const next: number[] = [];
  for (const k of chosen) {
    const { first, count } = blocks[k]!;
    const start = points.length;
    starts[k] = start;
    for (let v = first; v < first + count; v++) {
      next.push(start + region.next[v]! - first);
      points.push(v);
      owner.push(k);
    }
  }
  // A frame about all of them, in the place of whatever there is.
  const [left, bottom, right, top] = grownBy(boxAbout(chosen.map((k) => boxes[k]!)), 2 * reach);
  const n = points.length;
  const framed: Region = {
    count: n + 4,
    xs: new Float64Array(n + 4),
    ys: new Float64Array(n + 4),
    next: Uint32Array.from([...next, n + 1, n + 2, n + 3, n]),
    pinched: false,
  };
  const { xs, ys } = framed;
  for (let i = 0; i < n; i++) {
    xs[i] = region.xs[points[i]!]!;
    ys[i] = region.ys[points[i]!]!;
  }
  xs.set([left, right, right, left], n);
  ys.set([bottom, bottom, top, top], n);
  const within = ribs?.filter((x) => x > left && x < right) ?? new Float64Array(0);
  const triangles = triangulateFace(framed, Float64Array.of(-Infinity, ...within, Infinity));

  const clusters = clustersOf(framed, triangles, (i) => {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    // Ribs run on beyond what is looked at.
    return a < n && b < n && c < n && !across(within, xs[a]!, xs[b]!, xs[c]!);
  });
  /** By block, of those that are first of their kind: clusters that touch it. */
  const about: (Cluster[] | undefined)[] = [];
  for (const kind of kinds) about[firstOf(kind)] = [];
  for (const cluster of clusters)
    for (const k of new Set(cluster.corners.map((v) => owner[v]!))) about[k]?.push(cluster);
  /** By block: its place among those near the one that is looked at. */
  const slots = new Int32Array(blocks.length);
  return kinds.map((kind) => {
    const first = firstOf(kind);
    // Near blocks stand in the order of their places.
    kind.around[0]!.forEach((k, slot) => (slots[k] = slot));
    const own = slots[first]!;
    const sight = grownBy(boxes[first]!, reach - 100 * grain);
    const out: number[] = [];
    for (const { corners, circle } of about[first]!) {
      const [x, y, radius] = circle;
      if (!(x - radius > sight[0] && y - radius > sight[1] && x + radius < sight[2] && y + radius < sight[3])) continue;
      // All of them are near, since their corners are in sight.
      if (corners.some((v) => slots[owner[v]!]! < own)) continue;
      for (const v of corners) out.push(slots[owner[v]!]!, v - starts[owner[v]!]!);
    }
    return Uint32Array.from(out);
  });
}

/** Triangles side by side whose corners lie on one circle, but for roundings: which of their diagonals are drawn may be another about another block, so they go together. */
interface Cluster {
  /** Three points a triangle. */
  corners: number[];
  circle: readonly [x: number, y: number, radius: number];
}

/** Clusters of triangles. @param taken whether the triangle that begins there counts; clusters with others are left out. */
function clustersOf({ xs, ys }: Region, triangles: Uint32Array, taken: (i: number) => boolean): Cluster[] {
  const twin = twinsOf(triangles, xs.length);
  const seen = new Uint8Array(triangles.length / 3);
  const circle = new Float64Array(3);
  const out: Cluster[] = [];
  for (let start = 0; start < triangles.length; start += 3) {
    if (seen[start / 3]) continue;
    circleThrough(xs, ys, triangles[start]!, triangles[start + 1]!, triangles[start + 2]!, circle);
    const [x, y, radius] = [circle[0]!, circle[1]!, circle[2]!];
    const corners: number[] = [];
    const queue = [start];
    let whole = true;
    seen[start / 3] = 1;
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      whole &&= taken(i);
      for (let e = i; e < i + 3; e++) {
        corners.push(triangles[e]!);
        const t = twin[e]!;
        if (t < 0 || seen[(t / 3) | 0]) continue;
        const far = triangles[t % 3 === 0 ? t + 2 : t - 1]!;
        if (Math.abs(Math.hypot(xs[far]! - x, ys[far]! - y) - radius) > 10 * grain) continue;
        seen[(t / 3) | 0] = 1;
        queue.push(t - (t % 3));
      }
    }
    if (whole) out.push({ corners, circle: [x, y, radius] });
  }
  return out;
}

/** The block itself about which things stand so, the first of a kind. */
function firstOf({ around: [near], signature }: Kind): number {
  return near!.find((_, slot) => signature[3 * slot] === 0 && signature[3 * slot + 1] === 0)!;
}

/** Whether a triangle reaches across a rib. */
function across(ribs: Float64Array, a: number, b: number, c: number): boolean {
  if (ribs.length === 0) return false;
  const [west, east] = [Math.min(a, b, c), Math.max(a, b, c)];
  let low = 0;
  let high = ribs.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ribs[middle]! <= west) low = middle + 1;
    else high = middle;
  }
  return low < ribs.length && ribs[low]! < east;
}

/** All triangles of a region of which some are known; null where those do not go together. @throws NotTriangulable */
function completed(region: Region, kept: Uint32Array, ribs: Float64Array | null): Uint32Array | null {
  const { count, next } = region;
  const twin = twinsOf(kept, count);
  const rim = new Rim(region);
  const covered = new Uint8Array(count);
  for (let e = 0; e < kept.length; e++) {
    if (twin[e]! >= 0) continue;
    const p = kept[e]!;
    const q = kept[e % 3 === 2 ? e - 2 : e + 1]!;
    if (next[p] !== q) rim.add(q, p);
    else if (covered[p]) return null;
    else covered[p] = 1;
  }
  for (let v = 0; v < count; v++) if (!covered[v]) rim.add(v, next[v]!);
  const rest = rim.loops();
  if (!rest) return null;
  const { points } = rest;
  const made = triangulateFace(partOf(region, points, rest.next), ribs);
  const all = new Uint32Array(kept.length + made.length);
  all.set(kept);
  for (let i = 0; i < made.length; i++) all[kept.length + i] = points[made[i]!]!;
  return settled(region, all, ribLines(region, ribs));
}
