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
import type { Element, Pattern, ProjectDocument } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { sameCarrier, type Placed, type Unplaced } from '../setout/placed.ts';

export interface Inputs {
  element: Element;
  /** Its own openings, those that land on it from elsewhere, and what is taken out for layers of other walls. */
  resolved: readonly (Placed | Unplaced)[];
  units: ProjectDocument['units'];
  sheet: Sheet;
}

/** Whether two cuts come out alike. */
export function cutAlike(a: Inputs, b: Inputs): boolean {
  return (
    a.units === b.units &&
    a.sheet === b.sheet &&
    a.resolved.length === b.resolved.length &&
    elementsAlike(a.element, b.element) &&
    a.resolved.every((x, i) => openingsAlike(x, b.resolved[i]!))
  );
}

function openingsAlike(x: Placed | Unplaced, y: Placed | Unplaced): boolean {
  if ('outline' in x && 'outline' in y)
    return (
      x.id === y.id &&
      x.s === y.s &&
      x.t === y.t &&
      x.outline === y.outline &&
      x.blockedUp === y.blockedUp &&
      x.planes === y.planes &&
      patternsAlike(x.pattern, y.pattern) &&
      sameCarrier(x.carrier, y.carrier)
    );
  return !('outline' in x) && !('outline' in y) && x.id === y.id && x.reason === y.reason && x.mend === y.mend;
}

/** Everything but the name. */
function elementsAlike(a: Element, b: Element): boolean {
  return a === b || JSON.stringify({ ...a, name: '' }) === JSON.stringify({ ...b, name: '' });
}

/** Everything but the name, what it is found by, what it follows, what stands in and about it, and the sizes: that which an opening is of is in its outline. */
function patternsAlike(a: Pattern, b: Pattern): boolean {
  const told = (pattern: Pattern): string =>
    JSON.stringify({ ...pattern, name: '', sizes: {}, tags: [], shelf: null, infill: null, parts: null });
  return a === b || told(a) === told(b);
}

/** Whether openings carry the same parts in the same places: what is in and about them depends on no more than this. */
export function dressedAlike(a: readonly Placed[], b: readonly Placed[]): boolean {
  return (
    a.length === b.length &&
    a.every((x, i) => {
      const y = b[i]!;
      return (
        x === y ||
        (x.id === y.id &&
          x.s === y.s &&
          x.t === y.t &&
          x.outline === y.outline &&
          x.sections === y.sections &&
          x.depth === y.depth &&
          x.face === y.face &&
          x.open === y.open &&
          x.slid === y.slid &&
          JSON.stringify(x.flank) === JSON.stringify(y.flank) &&
          carriedAlike(x.pattern, y.pattern))
      );
    })
  );
}

function carriedAlike(a: Pattern, b: Pattern): boolean {
  const told = ({ infill, parts, sections }: Pattern): string => JSON.stringify([infill, parts, sections]);
  return a === b || told(a) === told(b);
}
