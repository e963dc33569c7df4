/** The sheets of a document: of every element as it stands among the others, its faces, each made under guard. The same for page, workers, server and shell. */
import {
  defaultChord,
  formOf,
  isInPlan,
  row,
  type Element,
  type FaceName,
  type ProjectDocument,
} from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import type { Fineness } from '../profile/flatten.ts';
import { troubleOf } from '../trouble.ts';
import { joinsOf } from './joins.ts';
import { nothingOf, sheetAnew, type Sheet, type WallEnds } from './sheet.ts';
import { turnedOver } from './turned-over.ts';

export interface Sheets {
  /** An element's sheet, of its outer face; null where the document has no such element. */
  of: (element: string) => Sheet | null;
  /** The sheet of a face. */
  on: (element: string, face: FaceName | undefined) => Sheet | null;
}

/** How finely a document's arcs are divided. */
export function finenessOf(document: ProjectDocument): Fineness {
  return { chord: document.chord ?? defaultChord };
}

/** Sheets by what they depend on, so that what an edit leaves alone is the very same object. */
const made = new LRUCache<string, Sheet>({ max: 4096 });

/** What a sheet depends on: all of its element that has a shape, how its ends are joined, and how finely arcs are divided. */
function keyOf(element: Element, ends: WallEnds | null, fineness: Fineness): string {
  const { id, layers, texture } = element;
  return JSON.stringify([
    id,
    element.kind,
    formOf(element),
    layers,
    texture,
    ends && [ends.start, ends.end, ends.notes],
    fineness,
  ]);
}

const square: WallEnds = { start: null, end: null };

function sheetIn(document: ProjectDocument, element: Element, fineness: Fineness): Sheet {
  try {
    const ends = isInPlan(element) && element.ends ? joinsOf(document, element) : null;
    const key = keyOf(element, ends, fineness);
    let sheet = made.get(key);
    if (!sheet) made.set(key, (sheet = sheetAnew(element, ends ?? square, fineness)));
    return sheet;
  } catch (error) {
    return nothingOf(element, troubleOf('it cannot be made', error));
  }
}

const ofDocuments = new WeakMap<ProjectDocument, Map<string, Sheets>>();

/** The sheets of a document; each is made when it is first asked for. @param fineness how finely arcs are divided, if not as the document says. */
export function sheetsOf(document: ProjectDocument, fineness: Fineness = finenessOf(document)): Sheets {
  let byFineness = ofDocuments.get(document);
  if (!byFineness) ofDocuments.set(document, (byFineness = new Map()));
  const key = JSON.stringify(fineness);
  let sheets = byFineness.get(key);
  if (!sheets) byFineness.set(key, (sheets = lazily(document, fineness)));
  return sheets;
}

function lazily(document: ProjectDocument, fineness: Fineness): Sheets {
  const known = new Map<string, Sheet>();
  const of = (id: string): Sheet | null => {
    const there = known.get(id);
    if (there) return there;
    const element = row(document, 'elements', id);
    if (!element) return null;
    const sheet = sheetIn(document, element, fineness);
    known.set(id, sheet);
    return sheet;
  };
  return {
    of,
    on: (id, face) => {
      const sheet = of(id);
      return sheet && face === 'inner' ? turnedOver(sheet).sheet : sheet;
    },
  };
}
