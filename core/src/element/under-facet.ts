/**
 * The top of one flat part of a wall under what is overhead. Through the thickness the pieces overhead follow one another along the wall in an order that only changes at certain depths; the folds between
 * them are followed from the outer face to the inner one, and each is a corner that goes its own way.
 */
import type { CourseForm } from '@yard-arch/document';
import { hair, micrometre, millimetre, relative } from '../tolerances.ts';
import { filled, splitsOf, stretchesUnder, type Overhead, type PlanLine, type Stretch } from './overhead.ts';
import type { CornerWay, UnderRoof } from './sheet.ts';

/** From where to where something reaches, metres. */
export type Span = readonly [from: number, to: number];

/**
 * A flat part of a wall in plan, in its own directions: along its outer face from where its chart's facet begins, and square inward. Ends are straight between the faces.
 */
export interface Facet {
  x: number;
  y: number;
  way: readonly [number, number];
  /** From where to where it reaches on the outer and on the inner face. */
  outer: Span;
  inner: Span;
  /** The same of its facet of the chart, and the distances along the chart there. */
  chart: { outer: Span; inner: Span; s: Span };
}

export interface UnderFacet {
  over: Overhead;
  /** The depths at which the wall's layers begin and end, and its thickness, metres. */
  boundaries: readonly number[];
  thickness: number;
  wall: CourseForm;
}

/** The corners of a facet's top from its start to its end, and how each piece between two goes through the thickness. */
export interface FacetTop {
  corners: CornerWay[];
  sections: UnderRoof['sections'][number][];
  /** How high it is where the outer face of the chart's facet begins and ends. */
  drawn: Span;
}

/** What is over a facet between two depths: pieces in order, and where each fold between two is at both depths. */
interface Slab {
  pieces: readonly Stretch[];
  folds: readonly FoldIn[];
  /** Whether it lies about an edge alongside, across which all changes at once: no fold goes through it. */
  jump: boolean;
}

interface FoldIn {
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

export function facetTop(facet: Facet, setting: UnderFacet): FacetTop {
  const { thickness } = setting;
  const { depths, slabs } = slabbed(facet, setting);
  const ends: Ends = (k) => [endAt(facet, 0, depths[k]! / thickness), endAt(facet, 1, depths[k]! / thickness)];
  const tracks = tracksOf(slabs, ends);
  const places = placesOf({ tracks, slabs, ends }, depths);
  const rib = (end: 0 | 1): CornerWay =>
    straightened(
      depths.map((n, k) => {
        const on = slabs[beside(slabs, Math.min(k, slabs.length - 1), -1)]!.pieces.at(-end)!;
        const u = endAt(facet, end, n / thickness);
        return [n, placeIn(facet, thickness, u, n), highAt(on, u, n)];
      }),
    );
  const followed = tracks.map((_, i) =>
    depths.map((n, k): Row => {
      const u = places[i]![k]!;
      return [n, placeIn(facet, thickness, u, n), highAt(pieceOn(i, k, { tracks, slabs }), u, n)];
    }),
  );
  tracks.slice(1).forEach((track, i) => {
    if (isOneStep(tracks[i]!, track)) [followed[i], followed[i + 1]] = stepped(followed[i]!, followed[i + 1]!);
  });
  const ways = followed.map(straightened);
  const first = slabs[0]!.pieces;
  const sections = new Map(first.map((own) => [own, sectionOf(own, facet, thickness)]));
  const starts = [facet.outer[0], ...places.map((row) => row[0]!), facet.outer[1]];
  return {
    corners: [rib(0), ...ways, rib(1)],
    sections: starts.slice(1).map((to, i) => sections.get(pieceAt(first, (starts[i]! + to) / 2))!),
    drawn: [highAt(first[0]!, facet.chart.outer[0], 0), highAt(first.at(-1)!, facet.chart.outer[1], 0)],
  };
}

/** What is over a facet through its thickness. Where an end of it comes under something else all at once there are two depths, before that and after it. */
function slabbed(facet: Facet, setting: UnderFacet): { depths: number[]; slabs: Slab[] } {
  const slabsAt = (depths: readonly number[]): Slab[] =>
    depths.slice(1).map((to, k): Slab => {
      const jump = to - depths[k]! < 3 * hair;
      return jump ? { pieces: [], folds: [], jump } : slabOf(facet, setting, depths[k]!, to);
    });
  let depths = depthsOf(facet, setting);
  let slabs = slabsAt(depths);
  const turned = slabs
    .flatMap(({ folds }, k) => folds.map((fold) => turningAt(fold, depths[k]!, depths[k + 1]!)))
    .filter((n) => depths.every((depth) => Math.abs(n - depth) > millimetre));
  if (turned.length > 0) {
    depths = [...depths, ...new Set(turned)].sort((a, b) => a - b);
    slabs = slabsAt(depths);
  }
  const isAbrupt = (n: number, k: number): boolean => {
    const [before, after] = [slabs[k - 1], slabs[k]];
    if (!before || !after || before.jump || after.jump || setting.boundaries.includes(n)) return false;
    return ([0, 1] as const).some((end) => {
      const u = endAt(facet, end, n / setting.thickness);
      return Math.abs(highAt(before.pieces.at(-end)!, u, n) - highAt(after.pieces.at(-end)!, u, n)) > hair;
    });
  };
  if (!depths.some(isAbrupt)) return { depths, slabs };
  const parted = depths.flatMap((n, k) => (isAbrupt(n, k) ? [n - hair, n + hair] : [n]));
  return { depths: parted, slabs: slabsAt(parted) };
}

/** The depth at which of a step between two depths the other side becomes the higher one; not a number where none does. */
function turningAt(fold: FoldIn, from: number, to: number): number {
  const [a, b] = [riseOf(fold, fold.at[0], from), riseOf(fold, fold.at[1], to)];
  return fold.step && a * b < 0 ? from + ((to - from) * a) / (a - b) : NaN;
}

/** The depths at which what is over a facet changes its order: where corners of pieces lie over it, and where their edges go over its ends. Metres, with those at which layers begin and end. */
function depthsOf(facet: Facet, { over, boundaries, thickness, wall }: UnderFacet): number[] {
  const { origin, x: ex, y: ey } = over.frame;
  const { x, y, way } = facet;
  const local = ([px, py]: readonly number[]): Spot => {
    const [dx, dy] = [origin[0] + px! * ex[0] + py! * ey[0] - x, origin[1] + px! * ex[1] + py! * ey[1] - y];
    return [dx * way[0] + dy * way[1], dy * way[0] - dx * way[1]];
  };
  /** How far a place is beyond an end, metres along. */
  const beyond = ([u, n]: Spot, end: 0 | 1): number => u - endAt(facet, end, n / thickness);
  const found: number[] = [];
  const put = (place: Spot): void => {
    if (beyond(place, 0) > 0 && beyond(place, 1) < 0) found.push(place[1]);
  };
  /** Of edges that run along the wall within it. */
  const alongside: number[] = [];
  const overlaps = (a: Spot, b: Spot): boolean =>
    ([0, 1] as const).every(
      (end) => (end === 0 ? 1 : -1) * (end === 0 ? Math.max : Math.min)(beyond(a, end), beyond(b, end)) > 0,
    );
  for (const piece of over.pieces) {
    const chords = piece.loops.flatMap((loop) => loop.map((a, i) => [a, loop[(i + 1) % loop.length]!] as const));
    const splits = splitsOf(over, piece, [x, y, wall.start.z]);
    const lines = [...chords, ...splits].map(([a, b]) => [local(a), local(b)] as const);
    lines.forEach(([a, b], i) => {
      put(a);
      if (Math.abs(a[1] - b[1]) < micrometre && overlaps(a, b)) alongside.push(a[1]);
      for (const end of [0, 1] as const) {
        const [p, q] = [beyond(a, end), beyond(b, end)];
        if (p > 0 !== q > 0) found.push(a[1] + ((b[1] - a[1]) * p) / (p - q));
      }
      // Where it is split it has corners of its own.
      if (i >= chords.length) for (const other of lines.slice(0, i)) crossing([a, b], other, put);
    });
  }
  const depths = [...boundaries];
  const isApart = (n: number): boolean => depths.every((depth) => Math.abs(n - depth) > millimetre);
  // At an edge alongside all that is over the wall changes at once: before it, and after it.
  for (const n of alongside) if (isApart(n)) depths.push(n - hair, n + hair);
  for (const n of found) if (isApart(n)) depths.push(n);
  return depths.filter((n) => n >= 0 && n <= thickness).sort((a, b) => a - b);
}

/** A place of a facet: along it, and square inward, metres. */
type Spot = readonly [u: number, n: number];

function crossing([a, b]: readonly [Spot, Spot], [c, d]: readonly [Spot, Spot], put: (place: Spot) => void): void {
  const [dx, dy, ex, ey] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const det = dx * ey - dy * ex;
  const [s, t] = [(c[0] - a[0]) * ey - (c[1] - a[1]) * ex, (c[0] - a[0]) * dy - (c[1] - a[1]) * dx];
  if (det === 0 || s / det < 0 || s / det > 1 || t / det < 0 || t / det > 1) return;
  put([a[0] + (s / det) * dx, a[1] + (s / det) * dy]);
}

/** The pieces over a facet at a depth, told as heights over its own directions. */
function piecesOver(facet: Facet, n: number, { over, wall, thickness }: UnderFacet): Stretch[] {
  const { x, y, way } = facet;
  const [from, to] = [endAt(facet, 0, n / thickness), endAt(facet, 1, n / thickness)];
  const line: PlanLine = {
    start: [x + from * way[0] - n * way[1], y + from * way[1] + n * way[0], wall.start.z],
    way,
    length: to - from,
  };
  return filled(stretchesUnder(line, over), to - from, wall.height).map((own) => ({
    ...own,
    from: own.from + from,
    to: own.to + from,
    at: own.at - own.along * from - own.through * n,
  }));
}

/** What is over a facet between two depths, looked at at two places between them: folds run straight there. */
function slabOf(facet: Facet, setting: UnderFacet, from: number, to: number): Slab {
  const near = piecesOver(facet, from + (to - from) / 4, setting);
  const far = piecesOver(facet, to - (to - from) / 4, setting);
  // Between them only what is thinner than a hair comes or goes.
  const both = inBoth(near, far);
  const pairs = both.length > 0 ? both : near.map((own) => [own, own] as const);
  const pieces = pairs.map(([own]) => own);
  const folds = pieces.slice(1).flatMap((right, i): FoldIn[] => {
    const left = pieces[i]!;
    const [p, q] = [right.from, pairs[i + 1]![1].from];
    const at: Span = [p - (q - p) / 2, q + (q - p) / 2];
    const fold = { left, right, at };
    const step = [riseOf(fold, at[0], from), riseOf(fold, at[1], to)].some((rise) => Math.abs(rise) > micrometre);
    return step
      ? [
          { ...fold, on: left, step },
          { ...fold, on: right, step },
        ]
      : [{ ...fold, on: left, step }];
  });
  return { pieces, folds, jump: false };
}

/** The number of a slab, or of the one before (−1) or after it (1) where folds do not go through it. */
const beside = (slabs: readonly Slab[], k: number, way: 1 | -1): number => (slabs[k]!.jump ? k + way : k);

/** The most pieces that two rows have in one order, of each as it is in the one and in the other: one that is level may come more than once. */
function inBoth(near: readonly Stretch[], far: readonly Stretch[]): (readonly [Stretch, Stretch])[] {
  const best: (readonly [Stretch, Stretch])[][] = Array.from({ length: far.length + 1 }, () => []);
  for (const a of near) {
    let before = best[0]!;
    far.forEach((b, j) => {
      const here = best[j + 1]!;
      const more = isSamePiece(a, b) ? [...before, [a, b] as const] : here;
      before = here;
      best[j + 1] = [more, here, best[j]!].reduce((most, row) => (row.length > most.length ? row : most));
    });
  }
  return best.at(-1)!;
}

const isSamePiece = (a: Stretch, b: Stretch): boolean =>
  Math.abs(a.along - b.along) < 1e-9 && Math.abs(a.through - b.through) < 1e-9 && Math.abs(a.at - b.at) < micrometre;

const goesOn = (a: FoldIn, b: FoldIn): boolean =>
  a.step === b.step && isSamePiece(a.left, b.left) && isSamePiece(a.right, b.right) && isSamePiece(a.on, b.on);

/** Folds followed through the slabs, in their order along the facet. */
function tracksOf(slabs: readonly Slab[], ends: Ends): Track[] {
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

/** Where a facet begins and ends at a depth, by its number: metres along. */
type Ends = (k: number) => Span;

/** Folds as they are followed, in the slabs that they go through. */
interface Followed {
  tracks: readonly Track[];
  slabs: readonly Slab[];
  ends: Ends;
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
function placeBeyond(track: Track, k: number, { tracks, slabs, ends }: Followed): number {
  const later = k > track.to;
  const { left, right } = track.folds.at(later ? -1 : 0)!;
  const { pieces, folds } = slabs[later ? track.to + 1 : track.from - 2]!;
  const [l, r] = [left, right].map((own) => pieces.findIndex((piece) => isSamePiece(piece, own))) as [number, number];
  const before = r >= 0 ? r : l + 1;
  if (before === 0 || before === pieces.length) return ends(k)[before === 0 ? 0 : 1];
  const fold = folds.find((one) => one.left === pieces[before - 1])!;
  const other = tracks.find((one) => one.folds.some((own) => own.at === fold.at));
  // One that is only now being found has no place but there.
  return other && k >= other.from && k <= other.to ? other.at[k - other.from]! : fold.at[later ? 0 : 1];
}

/** The places of all tracks at all depths, in order, a hair apart at least. */
function placesOf(all: Followed, depths: readonly number[]): number[][] {
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
function pieceOn(i: number, k: number, { tracks, slabs }: Pick<Followed, 'tracks' | 'slabs'>): Stretch {
  const { from, to, folds } = tracks[i]!;
  if (k >= from && k <= to) return folds[Math.min(k, to - 1) - from]!.on;
  const { pieces, folds: there } = slabs[k > to ? beside(slabs, k - 1, 1) : beside(slabs, k, -1)]!;
  const passed = tracks.slice(0, i).flatMap((track) => track.folds);
  return pieces[there.filter((fold) => !(fold.step && fold.on === fold.left) && passed.includes(fold)).length]!;
}

const pieceAt = (pieces: readonly Stretch[], u: number): Stretch => pieces.find(({ to }) => u < to) ?? pieces.at(-1)!;

const highAt = ({ at, along, through }: Stretch, u: number, n: number): number => at + along * u + through * n;

/** How much higher it is on the right of a fold than on its left, at a place and a depth. */
const riseOf = ({ left, right }: Pick<FoldIn, 'left' | 'right'>, u: number, n: number): number =>
  highAt(right, u, n) - highAt(left, u, n);

type Row = [n: number, s: number, t: number];

/** Whether two tracks are the one and the other side of one step. */
const isOneStep = (a: Track, b: Track): boolean =>
  a.from === b.from && a.to === b.to && a.folds[0]!.step && b.folds[0]!.step && a.folds[0]!.at === b.folds[0]!.at;

/** The two sides of a step, of which one stays the higher: where it has no height, a hair beside its place either may seem to be. */
function stepped(left: readonly Row[], right: readonly Row[]): [Row[], Row[]] {
  const rises = left.map(([, , t], k) => right[k]![2] - t);
  const most = rises.reduce((best, rise) => (Math.abs(rise) > Math.abs(best) ? rise : best), 0);
  const level = rises.map((rise) => rise * most < 0 && Math.abs(rise) < 10 * hair);
  const low = (row: Row, k: number): Row => (level[k] ? [row[0], row[1], Math.min(left[k]![2], right[k]![2])] : row);
  return [left.map(low), right.map(low)];
}

/** A way without what lies straight between the rest. */
function straightened(way: CornerWay): CornerWay {
  const rows = [...way];
  for (let i = 1; i + 1 < rows.length;) {
    const [[m, s0, t0], [n, s, t], [o, s1, t1]] = [rows[i - 1]!, rows[i]!, rows[i + 1]!];
    const share = (n - m) / (o - m);
    const off = Math.max(Math.abs(s0 + share * (s1 - s0) - s), Math.abs(t0 + share * (t1 - t0) - t));
    if (off > micrometre) i += 1;
    else rows.splice(i, 1);
  }
  return rows;
}

/** Where an end of a facet is at a share of the depth. */
const endAt = ({ outer, inner }: Facet, end: 0 | 1, share: number): number =>
  outer[end] + share * (inner[end] - outer[end]);

/** How far along the chart a place of a facet is. */
function placeIn({ chart: { outer, inner, s } }: Facet, thickness: number, u: number, n: number): number {
  const [from, to] = ([0, 1] as const).map((end) => outer[end] + (n / thickness) * (inner[end] - outer[end]));
  return s[0] + ((u - from!) / (to! - from!)) * (s[1] - s[0]);
}

/** How a piece goes through the thickness of a straight wall: it moves up by so much for each metre of depth, and out of it is square to it. */
function sectionOf({ along, through }: Stretch, { chart }: Facet, thickness: number): UnderRoof['sections'][number] {
  if (chart.inner !== chart.outer) return null;
  const out = (through * thickness) / Math.hypot(1, along);
  return Math.abs(out) < relative ? null : { n: [0, thickness], offset: [0, out], smooth: [false, false] };
}
