/**
 * What a cut depends on, told in one place: an element is cut anew when one of these has become another, and otherwise kept.
 *
 * All is compared by what it says, never by which object it is. Where that is an object that is asked for again and again it
 * is kept by a content key, so that the same question gives the same object and comparing the two is quick:
 * - a sheet by its element's shape, build-up, joints and the fineness of arcs (`element/sheets.ts`),
 * - an outline by its profile's choice, dimensions, units and fineness (`outlineOf` in `setout/resolve.ts`),
 * - the sections of an opening's sides by the pattern's sections, kind, depth and units (`sectionsOf`, there too),
 * - an outline carried to another sheet by that sheet's chart and the aim (`setout/project.ts`),
 * - the mesh of a part by all that it is made of (`infill/parts.ts`).
 */
import { omit, sameValue, type Element, type Pattern, type ProjectDocument } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';

export interface Inputs {
  element: Element;
  /** Its own openings, those that land on it from elsewhere, and what is taken out for layers of other walls. */
  resolved: readonly (Placed | Unplaced)[];
  units: ProjectDocument['units'];
  sheet: Sheet;
}

/** Whether two cuts come out alike. */
export function cutAlike(a: Inputs, b: Inputs): boolean {
  const same = comparing(cutOfPattern);
  return (
    a.units === b.units &&
    a.sheet === b.sheet &&
    elementsAlike(a.element, b.element) &&
    listsAlike(a.resolved, b.resolved, (x, y) => same(x, y, notCut))
  );
}

/** Whether openings carry the same parts in the same places, told by the same marks. */
export function dressedAlike(a: Dressed, b: Dressed): boolean {
  const same = comparing(dressOfPattern);
  return (
    listsAlike(a.openings, b.openings, (x, y) => same(x, y, nothing)) &&
    sameValue(a.marks, b.marks) &&
    sameValue(a.unlet, b.unlet)
  );
}

/** What stands in and about an element's openings depends on this, and on its cut. */
export interface Dressed {
  openings: readonly Placed[];
  /** What each of them is called. */
  marks: readonly string[];
  /** Why parts are not let in, by opening and part. */
  unlet: readonly (readonly [string, string])[];
}

type Told = Placed | Unplaced;

/** What of an opening its hole does not depend on: how far its leaves are open. Whatever is not named here counts, so that a new field can make a cut slower, but never wrong. */
const notCut: ReadonlySet<string> = new Set<keyof Placed>(['open', 'slid']);
const nothing: ReadonlySet<string> = new Set();

/** What of a pattern matters to a hole: all but the name, what it is found by, what it follows, what stands in and about it, and the sizes: that which an opening is of is in its outline. */
const cutOfPattern = (pattern: Pattern): unknown => omit(pattern, 'name', 'sizes', 'tags', 'shelf', 'infill', 'parts');

/** What of a pattern matters to what stands in and about its openings. */
const dressOfPattern = (pattern: Pattern): unknown => omit(pattern, 'name', 'sizes', 'tags', 'shelf');

/** Compares openings field by field, but for some of them. @param ofPattern what of a pattern counts; asked for once for each two patterns. */
function comparing(ofPattern: (pattern: Pattern) => unknown): (x: Told, y: Told, but: ReadonlySet<string>) => boolean {
  const known = new Map<Pattern, Map<Pattern, boolean>>();
  const patternsAlike = (a: Pattern, b: Pattern): boolean => {
    if (a === b) return true;
    const of = known.get(a) ?? new Map<Pattern, boolean>();
    known.set(a, of);
    const same = of.get(b) ?? sameValue(ofPattern(a), ofPattern(b));
    of.set(b, same);
    return same;
  };
  return (x, y, but) => {
    if (x === y) return true;
    const [p, q] = [x as unknown as Record<string, unknown>, y as unknown as Record<string, unknown>];
    for (const key in p) if (!(key in q) && p[key] !== undefined && !but.has(key)) return false;
    for (const key in q) {
      if (p[key] === q[key] || but.has(key)) continue;
      const same =
        key === 'pattern' && p[key] !== undefined
          ? patternsAlike(p[key] as Pattern, q[key] as Pattern)
          : // An outline is kept by what it is made of: another object is another outline.
            key !== 'outline' && sameValue(p[key], q[key]);
      if (!same) return false;
    }
    return true;
  };
}

const listsAlike = <T>(a: readonly T[], b: readonly T[], alike: (x: T, y: T) => boolean): boolean =>
  a.length === b.length && a.every((x, i) => alike(x, b[i]!));

/** Everything but the name. */
const elementsAlike = (a: Element, b: Element): boolean => a === b || sameValue({ ...a, name: '' }, { ...b, name: '' });
