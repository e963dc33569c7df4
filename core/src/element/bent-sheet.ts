/** Upright sheets from outside that follow one another round corners and curves: together they are one wall. */
import type { Run, Wall } from '@yard-arch/document';
import { alongCourse, courseOf, tidyAngle } from './course.ts';
import type { BentSheet, FlatSheet } from './found-sheet.ts';
import { micrometre, rounding, sheetsMeet as meets } from '../tolerances.ts';

/** Turns that differ by no more are equal, degrees. */
const alike = 0.02;
/** Facets that turn by more than this are no curve but corners, degrees; by more than the second, they are two sides of something and no one wall. */
const roundest = 30;
const sharpest = 150;

/** An upright rectangle. */
interface Facet {
  sheet: FlatSheet;
  width: number;
  height: number;
  end: { x: number; y: number };
}

/**
 * The same sheets, but for those which together are walls: upright rectangles, equally high on one level, of which each begins where another ends. Where there is a curve among them they are one
 * wall; else each is one, mitred with the next.
 * @param tolerance how far a curve may stray from the corners of the facets that it stands for, metres.
 */
export function withBends(sheets: readonly FlatSheet[], tolerance: number): (FlatSheet | BentSheet)[] {
  const facets = sheets.flatMap((sheet) => facetOf(sheet) ?? []);
  const after = new Map<Facet, Facet>();
  const before = new Map<Facet, Facet>();
  for (const one of facets) {
    const [next, more] = facets.filter((other) => other !== one && follows(one, other));
    // Where three meet none goes on into another.
    if (!next || more || before.has(next)) continue;
    after.set(one, next);
    before.set(next, one);
  }
  const used = new Set<Facet>();
  const gone = new Set<FlatSheet>();
  const bent = new Map<FlatSheet, BentSheet[]>();
  for (const facet of facets) {
    if (used.has(facet)) continue;
    let first = facet;
    while (before.has(first) && before.get(first) !== facet) first = before.get(first)!;
    const chain = [first];
    for (let next = after.get(first); next && next !== first; next = after.get(next)) chain.push(next);
    chain.forEach((one) => used.add(one));
    const walls =
      chain.length < 2 ? [] : wallsOf(before.has(first) ? fromCorner(chain) : chain, before.has(first), tolerance);
    // Longer ones than a document can hold stay what they are.
    if (
      walls.length === 0 ||
      walls.some(({ runs }) => runs.length > 200 || Math.abs(runs.reduce((sum, { sweep = 0 }) => sum + sweep, 0)) > 360)
    )
      continue;
    chain.forEach(({ sheet }) => gone.add(sheet));
    bent.set(chain[0]!.sheet, walls);
  }
  return sheets.flatMap((sheet): (FlatSheet | BentSheet)[] => bent.get(sheet) ?? (gone.has(sheet) ? [] : [sheet]));
}

function facetOf(sheet: FlatSheet): Facet | null {
  const { outline, holes, tilt, turn, start } = sheet;
  if (holes.length > 0 || outline.length !== 4 || Math.abs(tilt - 90) > alike || outline.some(({ bulge }) => bulge))
    return null;
  const [width, height] = [Math.max(...outline.map(({ x }) => x)), Math.max(...outline.map(({ y }) => y))];
  if (outline.some(({ x, y }) => Math.min(x, width - x) > meets || Math.min(y, height - y) > meets)) return null;
  const way = (turn * Math.PI) / 180;
  return { sheet, width, height, end: { x: start.x + width * Math.cos(way), y: start.y + width * Math.sin(way) } };
}

function follows(one: Facet, other: Facet): boolean {
  const { start, turn } = other.sheet;
  return (
    Math.hypot(one.end.x - start.x, one.end.y - start.y) <= meets &&
    Math.abs(one.sheet.start.z - start.z) <= meets &&
    Math.abs(one.height - other.height) <= meets &&
    Math.abs(tidyAngle(turn - one.sheet.turn)) <= sharpest
  );
}

/** A ring from where its facets turn otherwise than before, if they do anywhere. */
function fromCorner(ring: readonly Facet[]): readonly Facet[] {
  const turn = (i: number): number =>
    tidyAngle(ring[i % ring.length]!.sheet.turn - ring[(i + ring.length - 1) % ring.length]!.sheet.turn);
  const at = ring.findIndex((_, i) => Math.abs(turn(i) - turn(i + 1)) > alike);
  return at < 0 ? ring : [...ring.slice(at), ...ring.slice(0, at)];
}

/** The walls that a chain of facets is. */
function wallsOf(chain: readonly Facet[], ring: boolean, tolerance: number): BentSheet[] {
  const { start, turn } = chain[0]!.sheet;
  const { height } = chain[0]!;
  const exact = bentOf(chain, ring);
  const whole = isUneven(exact) ? fitted(chain, tolerance) : exact;
  const { runs } = whole;
  if (runs.some(({ sweep }) => sweep)) return [ring && runs.length > 1 ? seamed(whole) : whole];
  // Each leaves where the one before it has led.
  let [x, y, way] = [start.x, start.y, turn];
  return runs.map((run) => {
    way = tidyAngle(way + run.turn);
    const made: BentSheet = {
      start: { x, y, z: start.z },
      turn: way,
      runs: [{ turn: 0, length: run.length }],
      height,
      area: run.length * height,
      mitred: true,
    };
    [x, y] = [
      tidied(x + run.length * Math.cos((way * Math.PI) / 180)),
      tidied(y + run.length * Math.sin((way * Math.PI) / 180)),
    ];
    return made;
  });
}

/** A ring with its ends in the middle of its longest straight run, where they close on each other. */
function seamed(ring: BentSheet): BentSheet {
  const { runs } = ring;
  const longest = runs.reduce(
    (best, { length, sweep }, i) => (!sweep && (best < 0 || length > runs[best]!.length) ? i : best),
    -1,
  );
  if (longest < 0) return ring;
  const whole: Wall = { ...asWall(ring), id: 'ring', name: 'ring', layers: [] };
  const half = runs[longest]!.length / 2;
  const { at, angle } = alongCourse(whole, runs.slice(0, longest).reduce((sum, { length }) => sum + length, 0) + half);
  // The first run's turn is that by which it leaves the last one.
  const closing = snapped(ring.turn - courseOf(whole).reaches);
  const turned = [
    { turn: 0, length: half },
    ...runs.slice(longest + 1),
    { ...runs[0]!, turn: closing },
    ...runs.slice(1, longest),
    { ...runs[longest]!, length: half },
  ];
  return {
    ...ring,
    start: { x: tidied(at[0]), y: tidied(at[1]), z: ring.start.z },
    turn: tidyAngle(angle),
    runs: longest === 0 ? [{ turn: 0, length: half }, ...runs.slice(1), { turn: closing, length: half }] : turned,
  };
}

/** What of a wall a bent sheet is. */
export function asWall({
  start,
  turn,
  runs,
  height,
  mitred,
}: BentSheet): Pick<Wall, 'kind' | 'start' | 'turn' | 'length' | 'sweep' | 'runs' | 'height' | 'top' | 'ends'> {
  const [first, ...rest] = runs;
  return {
    kind: 'wall',
    start,
    turn,
    length: first!.length,
    ...(first!.sweep ? { sweep: first!.sweep } : {}),
    ...(rest.length > 0 ? { runs: rest } : {}),
    height,
    top: { kind: 'level' },
    ...(mitred ? { ends: { start: 'mitred', end: 'mitred' } } : {}),
  };
}

/** A chain of facets as runs: straight ones, and arcs where at least three equally long ones turn equally. */
function bentOf(chain: readonly Facet[], ring: boolean): BentSheet {
  const turns = chain.map((facet, i) => (i === 0 ? 0 : tidyAngle(facet.sheet.turn - chain[i - 1]!.sheet.turn)));
  const runs: Run[] = [];
  // By how much a run's direction at its end is ahead of its last facet's.
  let ahead = 0;
  let leaves = chain[0]!.sheet.turn;
  for (let i = 0; i < chain.length;) {
    const { width } = chain[i]!;
    const turn = turns[i + 1];
    let count = 1;
    if (turn !== undefined && Math.abs(turn) > 10 * alike && Math.abs(turn) <= roundest)
      while (
        i + count < chain.length &&
        Math.abs(turns[i + count]! - turn) <= alike &&
        Math.abs(chain[i + count]!.width - width) <= meets
      )
        count += 1;
    const round = count >= 3;
    if (!round) count = 1;
    const half = round ? turn! / 2 : 0;
    // A ring without corners is a full circle.
    const swept = !round ? 0 : ring && count === chain.length ? 360 * Math.sign(turn!) : tidied(count * turn!);
    const begins = i === 0 ? 0 : snapped(turns[i]! - half - ahead);
    if (i === 0) leaves = tidyAngle(leaves - half);
    // All corners of the facets lie on the arc: its radius from chord and turn.
    const length = round
      ? tidied((width / 2 / Math.abs(Math.sin((half * Math.PI) / 180))) * ((Math.abs(swept) * Math.PI) / 180))
      : width;
    const last = runs.at(-1);
    if (last && !round && !last.sweep && begins === 0) last.length = tidied(last.length + length);
    else runs.push({ turn: begins, length, ...(round ? { sweep: swept } : {}) });
    ahead = half;
    i += count;
  }
  return {
    start: chain[0]!.sheet.start,
    turn: leaves,
    runs,
    height: chain[0]!.height,
    area: chain.reduce((sum, { sheet }) => sum + sheet.area, 0),
    mitred: false,
  };
}

/** Whether at least three straight runs follow one another that turn as a curve does: it is a smooth bend that is no one arc. */
function isUneven({ runs }: BentSheet): boolean {
  let row = 0;
  return runs.some(({ sweep, turn }, i) => {
    row = !sweep && i > 0 && Math.abs(turn) <= roundest ? row + 1 : 0;
    return row >= 2;
  });
}

type Point = readonly [number, number];

/** An arc or a straight line from one corner of a chain to another. */
interface Fit {
  to: number;
  /** Degrees; 0 for a straight line. */
  sweep: number;
}

/** A chain of facets as the fewest lines and arcs, one after the other as long as each stays within the tolerance, through corners of the chain. */
function fitted(chain: readonly Facet[], tolerance: number): BentSheet {
  const corners: Point[] = [
    [chain[0]!.sheet.start.x, chain[0]!.sheet.start.y],
    ...chain.map(({ end }): Point => [end.x, end.y]),
  ];
  const runs: Run[] = [];
  let [leaves, reaches] = [0, 0];
  for (let i = 0; i + 1 < corners.length;) {
    const { to, sweep } = longestFit(corners, i, tolerance);
    const [[ax, ay], [bx, by]] = [corners[i]!, corners[to]!];
    const chord = Math.hypot(bx - ax, by - ay);
    const way = (Math.atan2(by - ay, bx - ax) * 180) / Math.PI;
    const begins = tidyAngle(way - sweep / 2);
    const half = (Math.abs(sweep) * Math.PI) / 360;
    const length = tidied(sweep === 0 ? chord : (chord * half) / Math.sin(half));
    if (runs.length === 0) leaves = begins;
    runs.push({
      turn: runs.length === 0 ? 0 : tidied(tidyAngle(begins - reaches)),
      length,
      ...(sweep === 0 ? {} : { sweep: tidied(sweep) }),
    });
    reaches = begins + sweep;
    i = to;
  }
  return {
    start: chain[0]!.sheet.start,
    turn: tidied(leaves),
    runs,
    height: chain[0]!.height,
    area: chain.reduce((sum, { sheet }) => sum + sheet.area, 0),
    mitred: false,
  };
}

function longestFit(corners: readonly Point[], from: number, tolerance: number): Fit {
  let best: Fit = { to: from + 1, sweep: 0 };
  for (let to = from + 2; to < corners.length; to++) {
    const sweep = sweepThrough(corners, from, to, tolerance);
    // Once a few more corners do not fit nothing longer will.
    if (sweep !== null) best = { to, sweep };
    else if (to > best.to + 3) break;
  }
  return best;
}

/** By how much the line or the arc turns that leads from one corner to another within the tolerance of all between, degrees; null where none does. */
function sweepThrough(corners: readonly Point[], from: number, to: number, tolerance: number): number | null {
  const [[ax, ay], [bx, by]] = [corners[from]!, corners[to]!];
  const chord = Math.hypot(bx - ax, by - ay);
  if (chord < micrometre) return null;
  const [ux, uy] = [(bx - ax) / chord, (by - ay) / chord];
  const between = corners
    .slice(from + 1, to)
    .map(([x, y]): Point => [(x - ax) * ux + (y - ay) * uy, (y - ay) * ux - (x - ax) * uy]);
  if (between.every(([, y]) => Math.abs(y) <= tolerance)) return 0;
  // Of all arcs over the chord the one through the corner farthest from it.
  const [mx, my] = between.reduce((far, point) => (Math.abs(point[1]) > Math.abs(far[1]) ? point : far));
  const centre = (mx * mx + my * my - chord * mx) / (2 * my);
  const radius = Math.hypot(chord / 2, centre);
  if (
    between.some(
      ([x, y]) =>
        Math.abs(Math.hypot(x - chord / 2, y - centre) - radius) > tolerance || Math.sign(y) === -Math.sign(my),
    )
  )
    return null;
  // The arc bulges to the side of its middle, and turns the other way.
  const half = Math.asin(Math.min(1, chord / 2 / radius));
  const more = Math.sign(centre) === Math.sign(my) && Math.abs(centre) > rounding;
  return (-Math.sign(my) * 2 * (more ? Math.PI - half : half) * 180) / Math.PI;
}

/** What is reckoned from points that were read is no surer than a micrometre, or as little of a degree. */
const tidied = (value: number): number => Math.round(value * 1e6) / 1e6;
const snapped = (turn: number): number => (Math.abs(turn) <= alike ? 0 : tidyAngle(turn));
