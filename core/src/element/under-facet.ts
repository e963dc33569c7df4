/**
 * The top of one flat part of a wall under what is overhead. Through the thickness the pieces overhead follow one another along the wall in an order that only changes at certain depths; the folds between
 * them are followed from the outer face to the inner one, and each is a corner that goes its own way.
 */
import type { CourseForm } from '@yard-arch/document';
import { hair, micrometre, millimetre, relative } from '../tolerances.ts';
import { filled, stretchesUnder, type Overhead, type PlanLine, type Stretch } from './overhead.ts';
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
  const depths = depthsOf(facet, setting);
  const slabs = depths.slice(1).map((to, k) => slabOf(facet, setting, depths[k]!, to));
  const ends: Ends = (k) => [endAt(facet, 0, depths[k]! / thickness), endAt(facet, 1, depths[k]! / thickness)];
  const tracks = tracksOf(slabs, ends);
  const places = placesOf(tracks, ends, depths.length);
  const rib = (end: 0 | 1): CornerWay =>
    straightened(
      depths.map((n, k) => {
        const on = slabs[Math.min(k, slabs.length - 1)]!.pieces.at(-end)!;
        const u = endAt(facet, end, n / thickness);
        return [n, placeIn(facet, thickness, u, n), highAt(on, u, n)];
      }),
    );
  const followed = tracks.map((track, i) =>
    depths.map((n, k): Row => {
      const u = places[i]![k]!;
      return [n, placeIn(facet, thickness, u, n), highAt(pieceOn(track, k, u, slabs), u, n)];
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

/** The depths at which what is over a facet changes its order: where corners of pieces lie over it, and where their edges go over its ends. Metres, with those at which layers begin and end. */
function depthsOf(facet: Facet, { over, boundaries, thickness }: UnderFacet): number[] {
  const { frame, pieces } = over;
  const { x, y, way } = facet;
  const found: number[] = [];
  const local = ([px, py]: readonly number[]): readonly [u: number, n: number] => {
    const [dx, dy] = [
      frame.origin[0] + px! * frame.x[0] + py! * frame.y[0] - x,
      frame.origin[1] + px! * frame.x[1] + py! * frame.y[1] - y,
    ];
    return [dx * way[0] + dy * way[1], dy * way[0] - dx * way[1]];
  };
  /** How far a place is beyond an end, metres along. */
  const beyond = ([u, n]: readonly [number, number], end: 0 | 1): number => u - endAt(facet, end, n / thickness);
  for (const { loops } of pieces)
    for (const loop of loops) {
      const places = loop.map(local);
      places.forEach((a, i) => {
        const b = places[(i + 1) % places.length]!;
        if (beyond(a, 0) > 0 && beyond(a, 1) < 0) found.push(a[1]);
        for (const end of [0, 1] as const) {
          const [p, q] = [beyond(a, end), beyond(b, end)];
          if (p > 0 !== q > 0) found.push(a[1] + ((b[1] - a[1]) * p) / (p - q));
        }
      });
    }
  const depths = [...boundaries];
  for (const n of found) if (depths.every((depth) => Math.abs(n - depth) > millimetre)) depths.push(n);
  return depths.filter((n) => n >= 0 && n <= thickness).sort((a, b) => a - b);
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
  const both = near.filter((a) => far.some((b) => isSamePiece(a, b)));
  const pieces = both.length > 0 ? both : near;
  const folds = pieces.slice(1).flatMap((right, i): FoldIn[] => {
    const left = pieces[i]!;
    const [p, q] = [right.from, (far.find((b) => isSamePiece(b, right)) ?? right).from];
    const at: Span = [p - (q - p) / 2, q + (q - p) / 2];
    const fold = { left, right, at };
    const step = Math.abs(highAt(left, at[0], from) - highAt(right, at[0], from)) > micrometre;
    return step
      ? [
          { ...fold, on: left, step },
          { ...fold, on: right, step },
        ]
      : [{ ...fold, on: left, step }];
  });
  return { pieces, folds };
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
        const before = fold.at[0] - placeOf(tracks[put]!, k, tracks, ends);
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

/** Where a track is at a depth: before it comes and after it is gone with what it comes from or goes into. */
function placeOf(track: Track, k: number, tracks: readonly Track[], ends: Ends): number {
  const { from, to, at } = track;
  if (k >= from && k <= to) return at[k - from]!;
  const gone = k > to ? to : from;
  const here = at[gone - from]!;
  const near = tracks
    .filter((other) => (k > to ? other.from <= gone && other.to > gone : other.to >= gone && other.from < gone))
    .map((other) => ({ other, off: Math.abs(placeOf(other, gone, tracks, ends) - here) }))
    .sort((a, b) => a.off - b.off)[0];
  const [toStart, toEnd] = ends(gone).map((end) => Math.abs(end - here)) as [number, number];
  if (near && near.off < Math.min(toStart, toEnd)) return placeOf(near.other, k, tracks, ends);
  return ends(k)[toStart < toEnd ? 0 : 1];
}

/** The places of all tracks at all depths, in order, a hair apart at least. */
function placesOf(tracks: readonly Track[], ends: Ends, count: number): number[][] {
  const depths = Array.from({ length: count }, (_, k) => k);
  const places = tracks.map((track) => depths.map((k) => placeOf(track, k, tracks, ends)));
  for (const k of depths) {
    const [start, end] = ends(k);
    const apart = (i: number): number => {
      const [a, b] = [tracks[i]!, tracks[i + 1]!];
      const both = a.folds[0]!.step && b.folds[0]!.step && a.from === b.from && a.to === b.to;
      return both && k >= a.from && k <= a.to ? 0 : hair;
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

/** The piece that is as high as a track at a depth: its own, or once it is gone, or before it comes, the one that is there. */
function pieceOn({ from, to, folds }: Track, k: number, u: number, slabs: readonly Slab[]): Stretch {
  if (k >= from && k <= to) return folds[Math.min(k, to - 1) - from]!.on;
  const { pieces, folds: there } = slabs[k > to ? k - 1 : k]!;
  const which = there.filter(({ at, step, on, left }) => at[k > to ? 1 : 0] < u && !(step && on === left)).length;
  return pieces[which]!;
}

const pieceAt = (pieces: readonly Stretch[], u: number): Stretch => pieces.find(({ to }) => u < to) ?? pieces.at(-1)!;

const highAt = ({ at, along, through }: Stretch, u: number, n: number): number => at + along * u + through * n;

type Row = [n: number, s: number, t: number];

/** Whether two tracks are the one and the other side of one step. */
const isOneStep = (a: Track, b: Track): boolean =>
  a.from === b.from && a.to === b.to && a.folds[0]!.step && b.folds[0]!.step && a.folds[0]!.at === b.folds[0]!.at;

/** The two sides of a step, of which one stays the higher: where it has no height, a hair beside its place either may seem to be. */
function stepped(left: readonly Row[], right: readonly Row[]): [Row[], Row[]] {
  const rises = left.map(([, , t], k) => right[k]![2] - t);
  const most = rises.reduce((best, rise) => (Math.abs(rise) > Math.abs(best) ? rise : best), 0);
  const level = rises.map((rise) => rise * most < 0 && Math.abs(rise) < 10 * hair);
  const low = (row: Row, k: number): Row =>
    level[k] ? [row[0], row[1], Math.min(left[k]![2], right[k]![2])] : row;
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
