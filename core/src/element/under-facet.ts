/**
 * The top of one flat part of a wall under what is overhead. Through the thickness the pieces overhead follow one another along the wall in an order that only changes at certain depths; the folds between
 * them are followed from the outer face to the inner one, and each is a corner that goes its own way.
 */
import type { CourseForm } from '@yard-arch/document';
import { hair, micrometre, millimetre, relative } from '../tolerances.ts';
import { filled, splitsOf, stretchesUnder, type Overhead, type PlanLine, type Stretch } from './overhead.ts';
import type { CornerWay, UnderRoof } from './sheet.ts';
import {
  beside,
  highAt,
  isOneStep,
  isSamePiece,
  pieceOn,
  placesOf,
  riseOf,
  stepped,
  tracksOf,
  type Ends,
  type FoldIn,
  type Row,
  type Slab,
  type Span,
} from './under-tracks.ts';

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

const pieceAt = (pieces: readonly Stretch[], u: number): Stretch => pieces.find(({ to }) => u < to) ?? pieces.at(-1)!;

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
