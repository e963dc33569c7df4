/** Sections: how a side of the reveal departs from square through the depth, from its parameters to a polyline of (depth, offset). */
import type { Arris, Section } from '@yard-arch/document';
import type { Impossible, Side } from './profile.ts';
import { nanometre as same, rounding as nothing } from '../tolerances.ts';

/**
 * A side's section: point i is at depth n[i] (metres, 0 where the cut begins, rising to where it ends), where the outline is `offset[i]` metres wider than the
 * profile. Depths do not fall; two points at one depth are a step. `smooth[i]` tells that the surface is rounded across point i.
 */
export interface SectionLine {
  n: number[];
  offset: number[];
  smooth: boolean[];
}

/** What the section belongs to: a void right through, a recess with a back, or something raised or left standing, whose solid is inside the outline. */
export type SectionUse = 'through' | 'niche' | 'raised';

/** The plain section: square all through. */
export function squareSection(depth: number): SectionLine {
  return { n: [0, depth], offset: [0, 0], smooth: [false, false] };
}

const squares = new Map<number, Readonly<Record<Side, SectionLine>>>();

/** All sides square through a depth (metres); the same object for the same depth, so that what is cut by it is kept. */
export function squareSections(depth: number): Readonly<Record<Side, SectionLine>> {
  let made = squares.get(depth);
  if (!made) {
    const line = squareSection(depth);
    squares.set(depth, (made = { sill: line, head: line, 'jamb-left': line, 'jamb-right': line }));
  }
  return made;
}

/**
 * The section of a side over a depth (metres).
 * @param worded words a length for a refusal.
 * @returns the polyline, or why it cannot be made and what would mend it.
 */
export function sectionLine(
  section: Section | undefined,
  depth: number,
  use: SectionUse,
  worded: (metres: number) => string,
): SectionLine | Impossible {
  if (!section) return squareSection(depth);
  const checks = (section.checks ?? []).filter((check) => check.step !== 0).sort((a, b) => a.depth - b.depth);
  const outer = section.arris?.size ?? 0;
  const inner = section.innerArris?.size ?? 0;
  const deep = checks.find((check) => check.depth >= depth - same);
  if (deep)
    return {
      reason: `its check at ${worded(deep.depth)} is no less deep than the cut, which is ${worded(depth)} deep`,
      mend: `Put the check at less than ${worded(depth)}.`,
    };
  if (section.seat !== undefined && section.seat > depth + same)
    return {
      reason: `its seat at ${worded(section.seat)} lies beyond the cut, which is ${worded(depth)} deep`,
      mend: `Put the seat at ${worded(depth)} at most.`,
    };
  if (outer + inner > depth + same)
    return {
      reason: `its arris of ${worded(outer + inner)} is more than the reveal, which is ${worded(depth)} deep`,
      mend: `Give it an arris of at most ${worded(depth - (outer > 0 ? inner : 0))}.`,
    };
  const crowded = checks.find((check) => check.depth < outer - same || check.depth > depth - inner + same);
  if (crowded)
    return {
      reason: `its check at ${worded(crowded.depth)} lies within the arris`,
      mend: 'Make the arris smaller, or move the check away from the face.',
    };

  const [outSeat, inSeat] = [section.seat ?? depth, section.seat ?? 0];
  const outward = Math.tan(((section.splayOutside ?? 0) * Math.PI) / 180);
  const inward = Math.tan(((section.splayInside ?? 0) * Math.PI) / 180);
  /** Offset without arrises, just before a depth (−1) or just after it (+1). */
  const plain = (n: number, side: -1 | 1): number =>
    Math.max(0, outSeat - n) * outward +
    Math.max(0, n - inSeat) * inward +
    checks.reduce(
      (sum, check) => sum + (check.depth < n - same || (side === 1 && check.depth <= n + same) ? check.step : 0),
      0,
    );

  const line: SectionLine = { n: [], offset: [], smooth: [] };
  const add = (n: number, offset: number, smooth = false): void => {
    line.n.push(n);
    line.offset.push(offset);
    line.smooth.push(smooth);
  };
  // A convex arris takes solid away; in the corner at a niche's back it leaves some standing.
  const outerSign = use === 'raised' ? -1 : 1;
  const innerSign = use === 'through' ? 1 : -1;
  const start = section.arris ? rounding(section.arris) : [];
  // A check may lie where an arris ends: its step comes after the outer one, and before the inner one.
  for (const { n, offset, smooth } of start) add(outer * n, plain(outer * n, -1) + outerSign * outer * offset, smooth);
  if (start.length === 0) add(0, plain(0, 1));
  const middle = new Set<number>();
  if (outward !== 0 && outSeat > outer + same && outSeat < depth - inner - same) middle.add(outSeat);
  if (inward !== 0 && inSeat > outer + same && inSeat < depth - inner - same) middle.add(inSeat);
  for (const check of checks) middle.add(check.depth);
  for (const n of [...middle].sort((a, b) => a - b)) {
    const [before, after] = [plain(n, -1), plain(n, 1)];
    add(n, before);
    if (Math.abs(after - before) > same) add(n, after);
  }
  const end = section.innerArris ? rounding(section.innerArris).reverse() : [];
  for (const { n, offset, smooth } of end)
    add(depth - inner * n, plain(depth - inner * n, n === 1 ? 1 : -1) + innerSign * inner * offset, smooth);
  if (end.length === 0) add(depth, plain(depth, -1));
  return tidied(line);
}

/**
 * An arris of size 1, from the face inward: a quarter circle tangent to face and reveal, n = 1 − cos φ, offset = 1 − sin φ, or its chord. Its first point lies on the face.
 */
function rounding(arris: Arris): { n: number; offset: number; smooth: boolean }[] {
  if (arris.kind === 'chamfered')
    return [
      { n: 0, offset: 1, smooth: false },
      { n: 1, offset: 0, smooth: false },
    ];
  const segments = arris.segments ?? 3;
  return Array.from({ length: segments + 1 }, (_, i) => {
    const phi = (Math.PI / 2) * (i / segments);
    return i === segments
      ? { n: 1, offset: 0, smooth: true }
      : { n: i === 0 ? 0 : 1 - Math.cos(phi), offset: 1 - Math.sin(phi), smooth: i > 0 };
  });
}

/** Drops points that repeat the one before, or lie on the straight line between their neighbours. */
function tidied(line: SectionLine): SectionLine {
  const out: SectionLine = { n: [], offset: [], smooth: [] };
  const last = line.n.length - 1;
  for (let i = 0; i <= last; i++) {
    const [n, offset] = [line.n[i]!, line.offset[i]!];
    const k = out.n.length - 1;
    if (k >= 0 && Math.abs(out.n[k]! - n) < same && Math.abs(out.offset[k]! - offset) < same) continue;
    if (k >= 1) {
      const [ax, ay, bx, by] = [
        out.n[k]! - out.n[k - 1]!,
        out.offset[k]! - out.offset[k - 1]!,
        n - out.n[k]!,
        offset - out.offset[k]!,
      ];
      if (Math.abs(ax * by - ay * bx) < nothing && ax * bx + ay * by > 0) {
        out.n.pop();
        out.offset.pop();
        out.smooth.pop();
      }
    }
    out.n.push(n);
    out.offset.push(offset);
    out.smooth.push(line.smooth[i]!);
  }
  return out;
}

/** A section mirrored in depth: what was at its end comes first. */
export function reversedSection(line: SectionLine): SectionLine {
  const depth = line.n.at(-1)!;
  return {
    n: line.n.map((n) => depth - n).reverse(),
    offset: [...line.offset].reverse(),
    smooth: [...line.smooth].reverse(),
  };
}

/** The part of a section between two depths, with what it steps at them left out. */
export function sectionWithin({ n, offset, smooth }: SectionLine, from: number, to: number): SectionLine {
  const out: SectionLine = { n: [], offset: [], smooth: [] };
  const add = (depth: number, value: number, round: boolean): void => {
    out.n.push(depth);
    out.offset.push(value);
    out.smooth.push(round);
  };
  for (let i = 0; i + 1 < n.length; i++) {
    const [a, b] = [Math.max(from, n[i]!), Math.min(to, n[i + 1]!)];
    // A step stays where it lies within.
    if (n[i + 1]! - n[i]! < same ? n[i]! < from + same || n[i]! > to - same : b - a < same) continue;
    const at = (depth: number): number =>
      n[i + 1]! - n[i]! < same
        ? offset[i]!
        : offset[i]! + ((offset[i + 1]! - offset[i]!) * (depth - n[i]!)) / (n[i + 1]! - n[i]!);
    if (out.n.length === 0) add(a, at(a), smooth[i]!);
    add(b, n[i + 1]! - n[i]! < same ? offset[i + 1]! : at(b), smooth[i + 1]!);
  }
  return out.n.length > 0 ? out : { n, offset, smooth };
}

/** The section's offset at a depth, just before or just after it. */
export function offsetAt(section: SectionLine, n: number, side: -1 | 1): number {
  const { n: ns, offset } = section;
  const last = ns.length - 1;
  if (side === -1) {
    for (let i = 0; i <= last; i++) {
      if (Math.abs(ns[i]! - n) <= same) return offset[i]!;
      if (ns[i]! > n) return between(section, i - 1, n);
    }
    return offset[last]!;
  }
  for (let i = last; i >= 0; i--) {
    if (Math.abs(ns[i]! - n) <= same) return offset[i]!;
    if (ns[i]! < n) return between(section, i, n);
  }
  return offset[0]!;
}

function between(section: SectionLine, i: number, n: number): number {
  const { n: ns, offset } = section;
  if (i < 0) return offset[0]!;
  if (i >= ns.length - 1) return offset[ns.length - 1]!;
  return offset[i]! + ((offset[i + 1]! - offset[i]!) * (n - ns[i]!)) / (ns[i + 1]! - ns[i]!);
}
