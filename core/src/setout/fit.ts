/** Whether openings still fit on their elements, and the ways in which one that does not could. Metres on the face. */
import { dimensionNames, type Dimensions, type Element, type Opening, type ProjectDocument } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { sheetsOf } from '../element/sheets.ts';
import { isImpossible, profileOf } from '../profile/shapes.ts';
import { tidy } from '../tidy.ts';
import { resolveOpening } from './resolve.ts';
import type { Placed } from './placed.ts';
import { micrometre, nanometre } from '../tolerances.ts';

/** An opening that reaches beyond its element, and how it could be mended; a way that cannot be is null. */
export interface Misfit {
  opening: Opening;
  placed: Placed;
  /** By how much it reaches beyond the start, the end, the base or the top at most, in words like "the end". */
  beyond: string;
  by: number;
  /** Where it would stand if it were slid in. */
  slid: { s: number; t: number } | null;
  /** A smaller size of its pattern that fits where it stands, or else dimensions of its own. */
  smaller: { size: string } | { own: Dimensions; s: number; t: number } | null;
}

const known = new WeakMap<ProjectDocument, Map<Element, readonly Misfit[]>>();

/** The openings of an element that reach beyond its start, end, base or top. Those that have no place at all are not among them: they say so themselves. */
export function misfitsOn(document: ProjectDocument, element: Element): readonly Misfit[] {
  let ofDocument = known.get(document);
  if (!ofDocument) known.set(document, (ofDocument = new Map()));
  let found = ofDocument.get(element);
  if (!found) ofDocument.set(element, (found = findMisfits(document, element)));
  return found;
}

function findMisfits(document: ProjectDocument, element: Element): Misfit[] {
  const sheets = sheetsOf(document);
  const found: Misfit[] = [];
  for (const opening of Object.values(document.openings)) {
    if (opening.element !== element.id) continue;
    const placed = resolveOpening(document, opening);
    if (!('outline' in placed) || placed.carrier) continue;
    const sheet = sheets.on(element.id, opening.face)!;
    const over = overreach(sheet, placed);
    if (over)
      found.push({
        opening,
        placed,
        ...over,
        slid: slidIn(sheet, placed),
        smaller: shrunk(document, sheet, opening, placed),
      });
  }
  return found;
}

interface Rectangle {
  s: number;
  t: number;
  profile: { width: number; height: number };
}

/** By how much a rectangle reaches beyond a sheet, where it does so most; null where it does not. */
function overreach(
  sheet: Sheet,
  { s, t, profile: { width, height } }: Rectangle,
): { beyond: string; by: number } | null {
  let most: { beyond: string; by: number } | null = null;
  const look = (beyond: string, by: number): void => {
    if (by > (most?.by ?? micrometre)) most = { beyond, by };
  };
  look('the start', -s);
  look('the end', s + width - sheet.length);
  look('the base', -t);
  look('the top', t + height - lowestTop(sheet, s, s + width));
  return most;
}

/** The lowest point of a sheet's top between two places along; the sheet's own height where its outline is free. */
function lowestTop(sheet: Sheet, from: number, to: number): number {
  const { xs, ys, next, names } = sheet.outline;
  let lowest = Infinity;
  const take = (y: number): void => {
    lowest = Math.min(lowest, y);
  };
  names.forEach((name, i) => {
    if (name !== 'top') return;
    const j = next[i]!;
    const [x0, y0, x1, y1] = [xs[i]!, ys[i]!, xs[j]!, ys[j]!];
    if (Math.max(x0, x1) <= from + nanometre || Math.min(x0, x1) >= to - nanometre) return;
    for (const x of [Math.max(from, Math.min(x0, x1)), Math.min(to, Math.max(x0, x1))])
      take(x0 === x1 ? Math.min(y0, y1) : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0));
  });
  return lowest === Infinity ? sheet.height : lowest;
}

/** The nearest place at which an opening fits: along first, then down from the top. */
function slidIn(sheet: Sheet, placed: Rectangle): { s: number; t: number } | null {
  const { width, height } = placed.profile;
  if (width > sheet.length + nanometre) return null;
  const s = tidy(Math.min(Math.max(placed.s, 0), sheet.length - width));
  const t = tidy(Math.min(Math.max(placed.t, 0), lowestTop(sheet, s, s + width) - height));
  return t < -nanometre ? null : { s, t: Math.max(0, t) };
}

/** The largest smaller size that fits with the opening held where it is; without one, dimensions cut down to what is left of it on the face. */
function shrunk(document: ProjectDocument, sheet: Sheet, opening: Opening, placed: Placed): Misfit['smaller'] {
  const pattern = document.patterns[opening.pattern]!;
  let best: { size: string; area: number } | null = null;
  for (const size of Object.values(pattern.sizes)) {
    const other = resolveOpening(document, { ...opening, size: size.id, own: undefined });
    if (!('outline' in other) || overreach(sheet, other)) continue;
    const area = other.profile.width * other.profile.height;
    if (area < placed.profile.width * placed.profile.height && (!best || area > best.area))
      best = { size: size.id, area };
  }
  if (best) return { size: best.size };
  const [left, right] = [Math.max(0, placed.s), Math.min(sheet.length, placed.s + placed.profile.width)];
  const [low, high] = [
    Math.max(0, placed.t),
    Math.min(lowestTop(sheet, left, right), placed.t + placed.profile.height),
  ];
  const [width, height] = [Math.floor((right - left) * 1000) / 1000, Math.floor((high - low) * 1000) / 1000];
  if (!(width > 0.05 && height > 0.05)) return null;
  const now = opening.own ?? pattern.sizes[opening.size]!.dimensions;
  const share = Math.min(1, width / placed.profile.width);
  const own = Object.fromEntries(
    dimensionNames(pattern.profile.shape).map((name) => {
      const value = now[name]!;
      if (name === 'width' || name === 'span') return [name, Math.min(value, width)];
      if (name === 'height') return [name, Math.min(value, height)];
      if (name === 'diameter') return [name, Math.min(value, width, height)];
      return [name, tidy(value * share)];
    }),
  );
  const profile = profileOf(pattern.profile, own, document.units);
  if (isImpossible(profile) || profile.width > width + micrometre || profile.height > height + micrometre) return null;
  return { own, s: tidy(left), t: tidy(low) };
}
