/** Spacing openings along a face: equal piers, equal centres, or piers of a given width. All lengths in metres. */
import type { Along, Units } from '@yard-arch/document';
import type { Impossible } from '../profile/profile.ts';
import { tidy } from '../tidy.ts';
import { worded } from './placed.ts';
import { nanometre, relative } from '../tolerances.ts';

export type Spacing = { kind: 'equal piers' } | { kind: 'equal centres' } | { kind: 'given pier'; pier: number };

/** What is left at each end, between the stretch's end and the first jamb; null leaves as much as there is between openings. */
export interface Margins {
  start: number | null;
  end: number | null;
}

export interface Spread {
  /** Where each opening's left jamb comes to stand. */
  lefts: number[];
  /** The piers between them, in order; there is one less than openings. */
  piers: number[];
}

/**
 * Spreads openings of given widths, in order, over a stretch of a face.
 * Equal piers share what the openings and set margins leave; a margin that is not set is one of them. With equal centres a margin that is not set is such that every opening stands in the middle of a bay
 * of the same width. Given piers fill from the start margin, or stand in the middle of the stretch.
 */
export function spread(
  widths: readonly number[],
  { from, to }: { from: number; to: number },
  spacing: Spacing,
  { margins, units }: { margins: Margins; units: Units },
): Spread | Impossible {
  const count = widths.length;
  const length = to - from;
  const total = widths.reduce((sum, width) => sum + width, 0);
  if (count === 0) return { lefts: [], piers: [] };
  const set = (margins.start ?? 0) + (margins.end ?? 0);
  const short = (needed: number, room: number): Impossible => {
    const fit = mostThatFit(widths, room, spacing.kind === 'given pier' ? spacing.pier : 0);
    return {
      reason: `${count} openings need ${worded(needed, units)}, and there ${room > 0 ? `are ${worded(room, units)}` : 'is nothing'} between the margins`,
      mend:
        fit > 0
          ? `${fit} would fit. Take fewer, narrower ones, or smaller margins.`
          : 'Not even one fits. Take a narrower size or smaller margins.',
    };
  };
  if (spacing.kind === 'given pier') {
    const needed = total + (count - 1) * spacing.pier;
    if (needed > length - set + nanometre) return short(needed, length - set);
    const rest = length - needed;
    const first = margins.start ?? (margins.end !== null ? rest - margins.end : rest / 2);
    return laid(widths, from + first, () => spacing.pier);
  }
  if (spacing.kind === 'equal piers') {
    const gaps = count - 1 + (margins.start === null ? 1 : 0) + (margins.end === null ? 1 : 0);
    const rest = length - set - total;
    if (rest < -nanometre) return short(total, length - set);
    // One opening between two set margins has nothing to share out: it stands in the middle of what is left.
    const pier = gaps > 0 ? Math.max(0, rest) / gaps : 0;
    const first = gaps > 0 ? (margins.start ?? pier) : (margins.start ?? 0) + rest / 2;
    return laid(widths, from + first, () => pier);
  }
  const [firstWidth, lastWidth] = [widths[0]!, widths.at(-1)!];
  let [first, step] = [0, 0];
  if (margins.start !== null && margins.end !== null) {
    first = margins.start + firstWidth / 2;
    step = count > 1 ? (length - margins.end - lastWidth / 2 - first) / (count - 1) : 0;
    if (count === 1) first = (margins.start + length - margins.end) / 2;
  } else if (margins.start !== null) {
    first = margins.start + firstWidth / 2;
    step = (length - first) / (count - 0.5);
  } else if (margins.end !== null) {
    step = (length - margins.end - lastWidth / 2) / (count - 0.5);
    first = step / 2;
  } else {
    step = length / count;
    first = step / 2;
  }
  const centres = widths.map((_, i) => first + i * step);
  const lefts = centres.map((centre, i) => tidy(from + centre - widths[i]! / 2));
  const piers = lefts.slice(1).map((left, i) => tidy(left - lefts[i]! - widths[i]!));
  if (
    piers.some((pier) => pier < -nanometre) ||
    lefts[0]! < from - nanometre ||
    lefts.at(-1)! + lastWidth > to + nanometre
  )
    return short(total, length - set);
  return { lefts, piers };
}

function laid(widths: readonly number[], first: number, pierAfter: (i: number) => number): Spread {
  const lefts: number[] = [];
  const piers: number[] = [];
  let at = first;
  widths.forEach((width, i) => {
    lefts.push(tidy(at));
    if (i < widths.length - 1) piers.push(tidy(pierAfter(i)));
    at += width + pierAfter(i);
  });
  return { lefts, piers };
}

/** How many openings, of the given widths in order and then of the last one's, fit into a length with at least so much between them. */
export function mostThatFit(widths: readonly number[], length: number, pier: number): number {
  let count = 0;
  let used = 0;
  for (; count < 10_000; count++) {
    const width = widths[Math.min(count, widths.length - 1)]!;
    const next = used + (count > 0 ? pier : 0) + width;
    if (next > length + nanometre || width <= 0) break;
    used = next;
  }
  return count;
}

/**
 * The intent that keeps a place which depends evenly on the face's length: from the start, the end, or a fraction of the length.
 * @param at the place on the face as it is, and on one that is a metre longer.
 */
export function followingLength(length: number, at: readonly [number, number]): Along {
  const share = at[1] - at[0];
  if (Math.abs(share) < relative) return { from: 'start', distance: tidy(at[0]) };
  if (Math.abs(share - 1) < relative) return { from: 'end', distance: tidy(length - at[0]) };
  if (Math.abs(share - 0.5) < relative) return { from: 'middle', distance: tidy(at[0] - length / 2) };
  if (share < 0 || share > 1) return { from: 'start', distance: tidy(at[0]) };
  return { from: 'fraction', fraction: share, distance: tidy(at[0] - share * length) };
}
