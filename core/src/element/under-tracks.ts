/** Folds of what is overhead, followed through the thickness of a flat part of a wall: in what order they stand at every depth, where, and how high. */
import type { Stretch } from './overhead.ts';
import { hair, micrometre } from '../tolerances.ts';

/** From where to where something reaches, metres. */
export type Span = readonly [from: number, to: number];

/** What is over a facet between two depths: pieces in order, and where each fold between two is at both depths. */
export interface Slab {
  pieces: readonly Stretch[];
  folds: readonly FoldIn[];
  /** Whether it lies about an edge alongside, across which all changes at once: no fold goes through it. */
  jump: boolean;
}

export interface FoldIn {
  left: Stretch;
  right: Stretch;
  /** The piece that is as high as it is; where the one ends above the other there is a fold of each. */
  on: Stretch;
  step: boolean;
  /** How far along the facet it is at the one depth and at the other, metres. */
  at: Span;
}

/** A fold through some slabs on end: from and to are numbers of depths; its places between them. */
interface Track {
  from: number;
  to: number;
  at: number[];
  folds: FoldIn[];
}

/** Where a facet begins and ends at a depth, by its number: metres along. */
export type Ends = (k: number) => Span;

/** Folds as they are followed, in the slabs that they go through. */
interface Followed {
  tracks: readonly Track[];
  slabs: readonly Slab[];
  ends: Ends;
}

export type Row = [n: number, s: number, t: number];

/** The number of a slab, or of the one before (−1) or after it (1) where folds do not go through it. */
export const beside = (slabs: readonly Slab[], k: number, way: 1 | -1): number => (slabs[k]!.jump ? k + way : k);

export const isSamePiece = (a: Stretch, b: Stretch): boolean =>
  Math.abs(a.along - b.along) < 1e-9 && Math.abs(a.through - b.through) < 1e-9 && Math.abs(a.at - b.at) < micrometre;

const goesOn = (a: FoldIn, b: FoldIn): boolean =>
  a.step === b.step && isSamePiece(a.left, b.left) && isSamePiece(a.right, b.right) && isSamePiece(a.on, b.on);

/** Folds followed through the slabs, in their order along the facet. */
export function tracksOf(slabs: readonly Slab[], ends: Ends): Track[] {
  const tracks: Track[] = [];
  slabs.forEach(({ folds }, k) => {
    const live = tracks.filter(({ to }) => to === k);
    let after = -1;
    for (const fold of folds) {
      const same = live.find((track) => tracks.indexOf(track) > after && goesOn(track.folds.at(-1)!, fold));
      if (same) {
        same.to = k + 1;
        same.at[same.at.length - 1] = (same.at.at(-1)! + fold.at[0]) / 2;
        same.at.push(fold.at[1]);
        same.folds.push(fold);
        after = tracks.indexOf(same);
        continue;
      }
      // A new one comes after what is gone and lies before it there. Of what is in one place with it: at the facet's end after it, at its start before it, so that each may follow the other.
      const [start, end] = ends(k);
      const atEnd = fold.at[0] - start > end - fold.at[0];
      let put = after + 1;
      for (; put < tracks.length && !folds.some((other) => tracks[put]!.folds.includes(other)); put++) {
        const before = fold.at[0] - placeOf(tracks[put]!, k, { tracks, slabs, ends });
        if (before < (atEnd ? -10 : 10) * hair) break;
      }
      tracks.splice(put, 0, { from: k, to: k + 1, at: [...fold.at], folds: [fold] });
      after = put;
    }
  });
  return tracks;
}

/** Where a track is at a depth: before it comes and after it is gone with what it comes from or goes into. */
function placeOf(track: Track, k: number, all: Followed): number {
  const { tracks, slabs, ends } = all;
  const { from, to, at } = track;
  if (k >= from && k <= to) return at[k - from]!;
  const gone = k > to ? to : from;
  if (slabs[k > to ? to : from - 1]!.jump) return placeBeyond(track, k, all);
  const here = at[gone - from]!;
  const near = tracks
    .filter((other) => (k > to ? other.from <= gone && other.to > gone : other.to >= gone && other.from < gone))
    .map((other) => ({ other, off: Math.abs(placeOf(other, gone, all) - here) }))
    .sort((a, b) => a.off - b.off)[0];
  const [toStart, toEnd] = ends(gone).map((end) => Math.abs(end - here)) as [number, number];
  if (near && near.off < Math.min(toStart, toEnd)) return placeOf(near.other, k, all);
  return ends(k)[toStart < toEnd ? 0 : 1];
}

/** Where a track that ends, or begins, at an edge alongside is on the other side of that: where the piece on its right begins there, or that on its left ends. */
function placeBeyond(track: Track, k: number, all: Followed): number {
  const { tracks, slabs, ends } = all;
  const later = k > track.to;
  const { left, right } = track.folds.at(later ? -1 : 0)!;
  const { pieces, folds } = slabs[later ? track.to + 1 : track.from - 2]!;
  const [l, r] = [left, right].map((own) => pieces.findIndex((piece) => isSamePiece(piece, own))) as [number, number];
  const before = r >= 0 ? r : l + 1;
  if (before === 0 || before === pieces.length) return ends(k)[before === 0 ? 0 : 1];
  const fold = folds.find((one) => one.left === pieces[before - 1])!;
  const other = tracks.find((one) => one.folds.some((own) => own.at === fold.at));
  // One that is only now being found has no place but there.
  return other ? placeOf(other, k, all) : fold.at[later ? 0 : 1];
}

/** The places of all tracks at all depths, in order, a hair apart at least. */
export function placesOf(all: Followed, depths: readonly number[]): number[][] {
  const { tracks, ends } = all;
  const places = tracks.map((track) => depths.map((_, k) => placeOf(track, k, all)));
  for (const [k, n] of depths.entries()) {
    const [start, end] = ends(k);
    // The two sides of a step are in one place, where it has any height.
    const apart = (i: number): number => {
      const [a, b] = [tracks[i]!, tracks[i + 1]!];
      if (!isOneStep(a, b) || k < a.from || k > a.to) return hair;
      return Math.abs(riseOf(a.folds[0]!, a.at[k - a.from]!, n)) > hair ? 0 : hair;
    };
    const onward = (i: number): void => {
      const least = i === 0 ? start + hair : places[i - 1]![k]! + apart(i - 1);
      places[i]![k] = Math.max(places[i]![k]!, least);
    };
    const back = (i: number): void => {
      const most = i === places.length - 1 ? end - hair : places[i + 1]![k]! - apart(i);
      places[i]![k] = Math.min(places[i]![k]!, most);
    };
    // First those give way that are not there at that depth.
    const order = tracks.map((_, i) => i);
    const absent = order.filter((i) => k < tracks[i]!.from || k > tracks[i]!.to);
    [...absent].reverse().forEach(back);
    absent.forEach(onward);
    order.forEach(onward);
    [...order].reverse().forEach(back);
  }
  return places;
}

/** The piece that is as high as a track, by its number, is at a depth: its own, or once it is gone, or before it comes, the one that is there in its order. */
export function pieceOn(i: number, k: number, { tracks, slabs }: Pick<Followed, 'tracks' | 'slabs'>): Stretch {
  const { from, to, folds } = tracks[i]!;
  if (k >= from && k <= to) return folds[Math.min(k, to - 1) - from]!.on;
  const { pieces, folds: there } = slabs[k > to ? beside(slabs, k - 1, 1) : beside(slabs, k, -1)]!;
  const passed = tracks.slice(0, i).flatMap((track) => track.folds);
  return pieces[there.filter((fold) => !(fold.step && fold.on === fold.left) && passed.includes(fold)).length]!;
}

export const highAt = ({ at, along, through }: Stretch, u: number, n: number): number => at + along * u + through * n;

/** How much higher it is on the right of a fold than on its left, at a place and a depth. */
export const riseOf = ({ left, right }: Pick<FoldIn, 'left' | 'right'>, u: number, n: number): number =>
  highAt(right, u, n) - highAt(left, u, n);

/** Whether two tracks are the one and the other side of one step. */
export const isOneStep = (a: Track, b: Track): boolean =>
  a.from === b.from && a.to === b.to && a.folds[0]!.step && b.folds[0]!.step && a.folds[0]!.at === b.folds[0]!.at;

/** The two sides of a step, of which one stays the higher: where it has no height, a hair beside its place either may seem to be. */
export function stepped(left: readonly Row[], right: readonly Row[]): [Row[], Row[]] {
  const rises = left.map(([, , t], k) => right[k]![2] - t);
  const most = rises.reduce((best, rise) => (Math.abs(rise) > Math.abs(best) ? rise : best), 0);
  const level = rises.map((rise) => rise * most < 0 && Math.abs(rise) < 10 * hair);
  const low = (row: Row, k: number): Row => (level[k] ? [row[0], row[1], Math.min(left[k]![2], right[k]![2])] : row);
  return [left.map(low), right.map(low)];
}
