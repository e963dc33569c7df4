/** Clipping: what a cluster of openings that meet each other or the sheet's edge leaves of the sheet, and what became of each. */
import { arrange, origin, type Arrangement, type Loop } from '../mesh/arrangement.ts';

/** A closed piece of boundary, by arrays: see Region, whose vertices these become. */
export interface ClippedLoop {
  xs: number[];
  ys: number[];
  operand: number[];
  source: number[];
}

/** What became of one operand in a cluster. */
export interface ClippedOpening {
  /** Whether any of it lies within the sheet. */
  inside: boolean;
  /** Whether the sheet would have anything left, were it cut by this one alone. */
  leaves: boolean;
  /** The sheet's edges that it runs over or along. */
  over: number[];
  /** Operands with which it is united: those that it overlaps, or touches along an edge. */
  with: number[];
  /** Whether any of the outline that is left is its own. */
  shows: boolean;
  /** Area of it within the sheet, square metres. */
  area: number;
}

export interface Clipped {
  loops: ClippedLoop[];
  /** By operand; the sheet's own (0) says nothing. */
  openings: ClippedOpening[];
}

/** What an operand does: takes away, is all that is kept, or is what is added where nothing else is solid. */
export type Part = 'void' | 'keep' | 'raised';

/**
 * Clips a cluster. Operand 0 is the sheet's outline (or null where the cluster lies well within it), the others openings.
 * Solid is what the sheet winds round, every `keep` holds, some `raised` holds where there are any, and no `void` does.
 * @throws TooTangled
 */
export function clip(
  sheet: Loop | null,
  openings: readonly Loop[],
  parts: readonly Part[] = openings.map(() => 'void'),
): Clipped {
  const none: Loop = { xs: new Float64Array(0), ys: new Float64Array(0), count: 0 };
  const a = arrange([sheet ?? none, ...openings]);
  const keeps: number[] = [];
  const raised: number[] = [];
  parts.forEach((part, k) => {
    if (part === 'keep') keeps.push(k + 1);
    if (part === 'raised') raised.push(k + 1);
  });
  const holds = (patch: number, operand: number): boolean => (a.winding[patch]!.get(operand) ?? 0) > 0;
  const inSheet = (patch: number): boolean =>
    (sheet === null || holds(patch, 0)) &&
    keeps.every((k) => holds(patch, k)) &&
    (raised.length === 0 || raised.some((k) => holds(patch, k)));
  const isVoid = (operand: number): boolean => parts[operand - 1] === 'void';
  const solid = a.winding.map((_, patch) => inSheet(patch) && within(a, patch).every((k) => !isVoid(k)));
  const report = reportOn(a, openings.length, { inSheet, clipped: sheet !== null || keeps.length > 0, isVoid });
  return { loops: boundary(a, solid, { inSheet, report, isVoid }), openings: report };
}

/** Where more openings than this lie on each other, they are no longer named to one another. */
const mostNamed = 64;

/** The openings that hold a patch. */
function within(a: Arrangement, patch: number): number[] {
  const found: number[] = [];
  for (const [operand, times] of a.winding[patch]!) if (operand > 0 && times > 0) found.push(operand);
  return found;
}

function reportOn(
  a: Arrangement,
  count: number,
  {
    inSheet,
    clipped,
    isVoid,
  }: { inSheet: (patch: number) => boolean; clipped: boolean; isVoid: (operand: number) => boolean },
): ClippedOpening[] {
  const report: ClippedOpening[] = Array.from({ length: count + 1 }, () => ({
    inside: false,
    leaves: !clipped,
    over: [],
    with: [],
    shows: false,
    area: 0,
  }));
  const united = report.map(() => new Set<number>());
  const over = report.map(() => new Set<number>());
  const covered = new Float64Array(count + 1);
  let patches = 0;
  a.winding.forEach((_, patch) => {
    if (!inSheet(patch)) return;
    patches += 1;
    const here = within(a, patch).filter(isVoid);
    for (const k of here) {
      report[k]!.inside = true;
      covered[k]! += 1;
      if (here.length <= mostNamed) for (const other of here) if (other !== k) united[k]!.add(other);
    }
  });
  for (let k = 1; k <= count; k++) report[k]!.leaves = !clipped || covered[k]! < patches;
  for (let h = 0; h < a.patch.length; h++) {
    const patch = a.patch[h]!;
    const beyond = a.patch[h ^ 1]!;
    if (!inSheet(patch)) continue;
    const v = origin(a, h);
    const w = origin(a, h ^ 1);
    const half = (a.xs[v]! * a.ys[w]! - a.xs[w]! * a.ys[v]!) / 2;
    for (const k of within(a, patch).filter(isVoid)) {
      report[k]!.area += half;
      if (!inSheet(beyond)) {
        for (const cover of a.covers[h >> 1]!) if (cover.operand === 0) over[k]!.add(cover.source);
      } else if (!a.winding[beyond]!.has(k) && within(a, beyond).length <= mostNamed) {
        for (const other of within(a, beyond).filter(isVoid))
          if (!a.winding[patch]!.has(other)) {
            united[k]!.add(other);
            united[other]!.add(k);
          }
      }
    }
  }
  report.forEach((opening, k) => {
    opening.with = [...united[k]!].sort((x, y) => x - y);
    opening.over = [...over[k]!].sort((x, y) => x - y);
  });
  return report;
}

function boundary(
  a: Arrangement,
  solid: readonly boolean[],
  {
    inSheet,
    report,
    isVoid,
  }: { inSheet: (patch: number) => boolean; report: ClippedOpening[]; isVoid: (operand: number) => boolean },
): ClippedLoop[] {
  const rings = boundaryOf(a, (patch) => solid[patch]!);
  const uses = new Uint32Array(a.xs.length);
  for (const ring of rings) for (const h of ring) uses[origin(a, h)]! += 1;
  return rings.map((ring) => {
    const tags = ring.map((h) => tag(a, h, inSheet, isVoid));
    for (const [operand] of tags) report[operand]!.shows = true;
    const keep = ring.map((h, i) => {
      const [operand, source] = tags[i]!;
      const [operandBefore, sourceBefore] = tags[(i + ring.length - 1) % ring.length]!;
      return operand !== operandBefore || source !== sourceBefore || uses[origin(a, h)]! > 1;
    });
    const loop: ClippedLoop = { xs: [], ys: [], operand: [], source: [] };
    ring.forEach((h, i) => {
      if (!keep[i]) return;
      const v = origin(a, h);
      loop.xs.push(a.xs[v]!);
      loop.ys.push(a.ys[v]!);
      loop.operand.push(tags[i]![0]);
      loop.source.push(tags[i]![1]);
    });
    return loop;
  });
}

/** The rings of half-edges that bound some patches, those on their left. */
export function boundaryOf(a: Arrangement, holds: (patch: number) => boolean): number[][] {
  const isBoundary = (h: number): boolean => holds(a.patch[h]!) && !holds(a.patch[h ^ 1]!);
  const taken = new Uint8Array(a.patch.length);
  const rings: number[][] = [];
  for (let h = 0; h < a.patch.length; h++) {
    if (taken[h] || !isBoundary(h)) continue;
    const ring: number[] = [];
    let at = h;
    do {
      taken[at] = 1;
      ring.push(at);
      // Turning clockwise from the way back keeps the patches on the left, so that pieces touching in a point stay apart.
      const back = at ^ 1;
      const out = a.around[origin(a, back)]!;
      let place = a.place[back]!;
      do place = (place + out.length - 1) % out.length;
      while (!isBoundary(out[place]!));
      at = out[place]!;
    } while (at !== h);
    rings.push(ring);
  }
  return rings;
}

/** Whose edge a piece of boundary is: the sheet's, or what is kept or raised, where that ends there; else that of the first opening beyond it. */
function tag(
  a: Arrangement,
  h: number,
  inSheet: (patch: number) => boolean,
  isVoid: (operand: number) => boolean,
): [number, number] {
  const beyond = a.patch[h ^ 1]!;
  const covers = a.covers[h >> 1]!;
  let best: [number, number] = [covers[0]!.operand, covers[0]!.source];
  let found = false;
  for (const cover of covers) {
    const holds = (a.winding[beyond]!.get(cover.operand) ?? 0) > 0;
    const takes = cover.operand > 0 && isVoid(cover.operand);
    const fits = inSheet(beyond) ? takes && holds : !takes && !holds;
    if (fits && (!found || cover.operand < best[0])) {
      best = [cover.operand, cover.source];
      found = true;
    }
  }
  return best;
}
