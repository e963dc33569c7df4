/** A sheet turned over: its inner face, seen from within, as a sheet of its own, and what is where on both. */
import { backwards } from '../profile/flatten.ts';
import { offsetAt, type SectionLine } from '../profile/section.ts';
import { ribAt, type BentChart, type Chart, type FlatChart } from './chart.ts';
import type { CornerWay, Sheet, SheetEdge, SheetOutline } from './sheet.ts';
import { rounding } from '../tolerances.ts';

/** A sheet's other side. Distances along are true on either: on a curve they are not the same. */
export interface TurnedOver {
  sheet: Sheet;
  /** From a distance along the one face to that along the other, either way; beyond the ends as at them. */
  toInner: (s: number) => number;
  toOuter: (s: number) => number;
}

const known = new WeakMap<Sheet, TurnedOver>();

/** Turns a sheet over. Along is counted from where the inner face begins as seen from within: from the outer end, or the corner that a joined end leaves there. */
export function turnedOver(sheet: Sheet): TurnedOver {
  let made = known.get(sheet);
  if (!made) known.set(sheet, (made = anew(sheet)));
  return made;
}

function anew(sheet: Sheet): TurnedOver {
  const { chart, thickness } = sheet;
  const reach = Math.max(sheet.length, 0) + endAt(sheet, 'end');
  const [outer, inner] =
    chart.kind === 'bent'
      ? ribsOf(chart, thickness)
      : [
          [0, reach],
          [reach, 0],
        ];
  const toInner = (s: number): number => between(outer!, inner!, s);
  const toOuter = (s: number): number => between([...inner!].reverse(), [...outer!].reverse(), s);
  const outline = outlineFrom(sheet, toInner);
  return {
    toInner,
    toOuter,
    sheet: {
      ...sheet,
      chart: chart.kind === 'flat' ? flatFrom(chart, reach, thickness) : bentFrom(chart, inner!, thickness),
      length: chart.kind === 'bent' ? inner![0]! : reach + endAt(sheet, 'start'),
      height: outline.ys.length > 0 ? Math.max(...outline.ys) : 0,
      outline,
      boundaries: sheet.boundaries.map((n) => thickness - n).reverse(),
      layers: [...sheet.layers].reverse(),
      texture: sheet.texture && { ...sheet.texture, outer: sheet.texture.inner, inner: sheet.texture.outer },
    },
  };
}

/** How far the inner face goes on beyond the outer one at an end, metres. */
function endAt({ outline, thickness }: Sheet, end: SheetEdge): number {
  const i = outline.names.indexOf(end);
  const line = i < 0 ? null : outline.sections[i];
  return line ? offsetAt(line, thickness, 1) : 0;
}

/** Ribs of a bent chart along its outer face, rising, and along its inner one as seen from within, falling; arcs as long as they are, not as their chords. */
function ribsOf(chart: BentChart, thickness: number): [number[], number[]] {
  const outer = [...chart.s];
  const inner = new Array<number>(outer.length).fill(0);
  const chord = (i: number, n: number): number => {
    const [ax, ay] = ribAt(chart, i, n);
    const [bx, by] = ribAt(chart, i + 1, n);
    return Math.hypot(bx - ax, by - ay);
  };
  for (let i = outer.length - 2; i >= 0; i--)
    inner[i] = inner[i + 1]! + ((outer[i + 1]! - outer[i]!) * chord(i, thickness)) / chord(i, 0);
  return [outer, inner];
}

/** Goes over from one scale to another, by parts; the first rises. */
function between(from: readonly number[], to: readonly number[], value: number): number {
  let i = 0;
  while (i + 2 < from.length && value > from[i + 1]!) i += 1;
  const span = from[i + 1]! - from[i]!;
  return span === 0 ? to[i]! : to[i]! + ((value - from[i]!) * (to[i + 1]! - to[i]!)) / span;
}

function flatFrom({ origin, along, up, inward }: FlatChart, reach: number, thickness: number): Chart {
  const back = (v: FlatChart['along']): FlatChart['along'] => [0 - v[0], 0 - v[1], 0 - v[2]];
  const at = (k: 0 | 1 | 2): number => origin[k] + reach * along[k] + thickness * inward[k];
  return { kind: 'flat', origin: [at(0), at(1), at(2)], along: back(along), up, inward: back(inward) };
}

function bentFrom(chart: BentChart, inner: readonly number[], thickness: number): Chart {
  const last = chart.s.length - 1;
  const from = <T>(make: (i: number) => T): T[] => Array.from({ length: last + 1 }, (_, j) => make(last - j));
  const tangents: number[] = [];
  for (let f = last - 1; f >= 0; f--) {
    const [ax, ay, bx, by] = chart.tangents.subarray(4 * f, 4 * f + 4);
    tangents.push(0 - bx!, 0 - by!, 0 - ax!, 0 - ay!);
  }
  return {
    ...chart,
    s: Float64Array.from(from((i) => inner[i]!)),
    x: Float64Array.from(from((i) => ribAt(chart, i, thickness)[0])),
    y: Float64Array.from(from((i) => ribAt(chart, i, thickness)[1])),
    mx: Float64Array.from(from((i) => 0 - chart.mx[i]!)),
    my: Float64Array.from(from((i) => 0 - chart.my[i]!)),
    tangents: Float64Array.from(tangents),
  };
}

const otherEnd: Partial<Record<SheetEdge, SheetEdge>> = { start: 'end', end: 'start' };

/** The outline where it comes out on the inner face: each edge moved as its section says, then turned over. */
function outlineFrom({ outline, thickness }: Sheet, toInner: (s: number) => number): SheetOutline {
  const { next, loops } = outline;
  const before = backwards(next);
  const [xs, ys] = movedIn(outline, before, thickness);
  const section = (line: SectionLine | null): SectionLine | null => {
    if (!line) return null;
    const out = offsetAt(line, thickness, 1);
    return {
      n: line.n.map((n) => thickness - n).reverse(),
      offset: line.offset.map((offset) => offset - out).reverse(),
      smooth: [...line.smooth].reverse(),
    };
  };
  // Turned over, edge i leaves point i towards the point before it: it is the one that came from there.
  const edge = <T>(make: (e: number) => T): T[] => Array.from(before, (e) => make(e));
  return {
    xs: xs.map(toInner),
    ys,
    next: before,
    loops,
    names: edge((e) => otherEnd[outline.names[e]!] ?? outline.names[e]!),
    sections: edge((e) => section(outline.sections[e] ?? null)),
    ...(outline.ways ? { ways: outline.ways.map((way) => way && wayBack(way, thickness, toInner)) } : {}),
    chords: edge((e) => {
      const chord = outline.chords[e];
      return chord ? { ax: -chord.bx, ay: chord.by, bx: -chord.ax, by: chord.ay } : null;
    }),
  };
}

/** A corner's way as it goes from the inner face outward. */
const wayBack = (way: CornerWay, thickness: number, toInner: (s: number) => number): CornerWay =>
  [...way].reverse().map(([n, s, t]) => [thickness - n, toInner(s), t]);

/** Corners of an outline where its edges have gone to at a depth, each parallel to itself. */
function movedIn(outline: SheetOutline, before: Uint32Array, depth: number): [Float64Array, Float64Array] {
  const [xs, ys] = [outline.xs.slice(), outline.ys.slice()];
  const by = outline.sections.map((line) => (line ? offsetAt(line, depth, 1) : 0));
  outline.ways?.forEach((way, i) => {
    if (way) [, xs[i], ys[i]] = way.at(-1) as [number, number, number];
  });
  if (by.every((offset) => offset === 0)) return [xs, ys];
  // A line of an edge: a·x + b·y = c, its normal out of the sheet.
  const line = (e: number): [number, number, number] => {
    const j = outline.next[e]!;
    const [dx, dy] = [outline.xs[j]! - outline.xs[e]!, outline.ys[j]! - outline.ys[e]!];
    const size = Math.hypot(dx, dy);
    const [a, b] = [dy / size, -dx / size];
    return [a, b, a * outline.xs[e]! + b * outline.ys[e]! + by[e]!];
  };
  for (let i = 0; i < xs.length; i++) {
    if (outline.ways?.[i]) continue;
    const [a, b, c] = line(before[i]!);
    const [d, e, f] = line(i);
    const det = a * e - b * d;
    if (Math.abs(det) < rounding) continue;
    xs[i] = (c * e - b * f) / det;
    ys[i] = (a * f - c * d) / det;
  }
  return [xs, ys];
}
