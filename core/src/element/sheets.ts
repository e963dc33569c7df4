/** The sheets of a document: of every element as it stands among the others, its faces, each made under guard. The same for page, workers, server and shell. */
import {
  defaultChord,
  formOf,
  type Form,
  isInPlan,
  row,
  type Element,
  type FaceName,
  type ProjectDocument,
  type RoofForm,
  type ShellForm,
} from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import type { Fault } from '../finding.ts';
import { finenessKey, type Fineness } from '../profile/flatten.ts';
import type { SectionLine } from '../profile/section.ts';
import { troubleOf } from '../trouble.ts';
import { joinsOf } from './joins.ts';
import { standsWithin } from './roof-check.ts';
import { roofBody, roofFromAbove, type RoofBody } from './roof-sheets.ts';
import { shellBody, shellFromAbove, shellPoint, type ShellBody } from './shell-sheets.ts';
import { boundariesOf, drawnFinely, edgePoints, nothingOf, sheetAnew, type Sheet, type WallEnds } from './sheet.ts';
import { turnedOver } from './turned-over.ts';
import { barrelOverhead, polygonsOverhead, roofOverhead, type Overhead } from './overhead.ts';
import { curtainOf, splitInSpace } from './splits.ts';
import { underRoof, type EndShift } from './under-roof.ts';

export interface Sheets {
  /** An element's sheet, of its outer face; null where the document has no such element. */
  of: (element: string) => Sheet | null;
  /** The sheet of a face; null where the element has none of that name. */
  on: (element: string, face: FaceName | undefined) => Sheet | null;
  /** The body of an element of many faces, which its sheets make together; null of any other, and where it cannot be made. */
  body: (element: string) => RoofBody | null;
  /** The body of a shell; null of any other element, and where it cannot be made. */
  shell: (element: string) => ShellBody | null;
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
    ends && [ends.start, ends.end, ends.notes, ends.top],
    fineness,
  ]);
}

const square: WallEnds = { start: null, end: null };

/** Bodies of many faces, by what they depend on. */
const bodies = new LRUCache<string, { from: RoofBody | Fault; above: Sheet }>({ max: 256 });

/** The same by the element itself: a document is never changed, so that most are asked for again and again. */
const bodiesOf = new WeakMap<Element, { from: RoofBody | Fault; above: Sheet }>();

function bodyOf(element: Element, form: RoofForm): { from: RoofBody | Fault; above: Sheet } {
  const there = bodiesOf.get(element);
  if (there) return there;
  const key = keyOf(element, null, {} as Fineness);
  let known = bodies.get(key);
  if (!known) {
    const from = roofBody(element, form);
    bodies.set(
      key,
      (known = { from, above: 'code' in from ? nothingOf(element, from) : roofFromAbove(from, element) }),
    );
  }
  bodiesOf.set(element, known);
  return known;
}

/** Shells, by what they depend on. */
const shells = new LRUCache<string, { from: ShellBody | Fault; above: Sheet }>({ max: 256 });

function shellOf(element: Element, form: ShellForm, fineness: Fineness): { from: ShellBody | Fault; above: Sheet } {
  const key = keyOf(element, null, fineness);
  let known = shells.get(key);
  if (!known) {
    const from = shellBody(element, form, fineness);
    const above = 'code' in from ? nothingOf(element, from) : shellFromAbove(from, element);
    shells.set(key, (known = { from, above }));
  }
  return known;
}

/** The underside of a roof or a vault, or why it has none; null of what is neither. */
function overheadOf(element: Element | undefined, fineness: Fineness): Overhead | Fault | null {
  const form = element && formOf(element);
  if (!element || !form) return null;
  if (form.form === 'roof') {
    const { from } = bodyOf(element, form);
    return 'code' in from ? from : (standsWithin(from) ?? roofOverhead(from));
  }
  if (form.form === 'shell') {
    const { from } = shellOf(element, form, fineness);
    if ('code' in from) return from;
    const { shell, boundaries } = from;
    return polygonsOverhead(from, () =>
      shell.surface(boundaries.at(-1)!).map((polygon) => polygon.map(({ at }) => shellPoint(from, at))),
    );
  }
  if (form.form !== 'course' || !form.lies) return null;
  const key = keyOf(element, null, fineness);
  let sheet = made.get(key);
  if (!sheet) made.set(key, (sheet = sheetAnew(element, square, fineness)));
  return sheet.fault ?? barrelOverhead(sheet);
}

/** How far a joined end goes on beyond where the wall is drawn to, on its outer and on its inner face, metres. */
const shiftOf = (end: SectionLine | null | undefined): EndShift =>
  end ? [end.offset[0]!, end.offset.at(-1)!] : [0, 0];

/** The underside of an element as it is split: where its own splits keep it, or those of another that is shaped as it is, as the other part of what was split in two. */
function overheadIn(document: ProjectDocument, id: string, fineness: Fineness): Overhead | Fault | null {
  const element = row(document, 'elements', id);
  const over = overheadOf(element, fineness);
  if (!over || 'code' in over || !element!.splits) return over;
  const shape = shapeKey(element!);
  const parts = Object.values(document.elements).filter(
    (other) => other.splits && other.kind === element!.kind && (other === element || shapeKey(other) === shape),
  );
  const curtains = parts.map(({ splits, start, turn }) =>
    splits!.flatMap((split) => curtainOf(splitInSpace(split, { start, turn })) ?? []),
  );
  const key = JSON.stringify(parts.map(({ splits, start, turn }) => [splits, start, turn]));
  let byParts = splitOverheads.get(over);
  if (!byParts) splitOverheads.set(over, (byParts = new LRUCache({ max: 16 })));
  let made = byParts.get(key);
  if (!made) byParts.set(key, (made = { ...over, kept: curtains }));
  return made;
}

const splitOverheads = new WeakMap<Overhead, LRUCache<string, Overhead>>();

/** All that says where an element's underside is, but for its splits. */
const shapeKey = (element: Element): string =>
  JSON.stringify([formOf(element), element.layers.map(({ thickness }) => thickness)]);

/** Facets of a wall times pieces overhead: of more it does not follow. */
const mostFollowed = 4e5;

/** What others make of an element's edges: the walls that it is joined to, the roof that it is under. */
function endsOf(document: ProjectDocument, element: Element, form: Form, fineness: Fineness): WallEnds | null {
  if (!isInPlan(element) || form.form !== 'course') return null;
  const joins = element.ends ? joinsOf(document, element) : null;
  if (element.top.kind !== 'under') return joins;
  const over = overheadIn(document, element.top.roof, fineness);
  const drawn = drawnFinely(edgePoints(form, fineness), fineness);
  const tooMuch = over && !('code' in over) && edgePoints(form, drawn) * over.pieces.length > mostFollowed;
  const top =
    over && !('code' in over) && !tooMuch
      ? underRoof(form, over, {
          boundaries: [...boundariesOf(element.layers)],
          fineness: drawn,
          start: shiftOf(joins?.start),
          end: shiftOf(joins?.end),
        })
      : null;
  const ends: WallEnds = joins ?? square;
  if (top) return { ...ends, top };
  const why = !over
    ? 'the roof that its top is to follow is not there'
    : 'code' in over
      ? 'the roof that its top is to follow cannot be made'
      : tooMuch
        ? 'it has so many facets, and so many are over it, that following them would take too long'
        : 'only walls that stand plumb can follow a roof or a vault';
  return {
    ...ends,
    notes: [
      ...(ends.notes ?? []),
      { code: 'not-under', reason: `${why}: it is level`, mend: 'Mend the roof, or give the wall another top.' },
    ],
  };
}

function sheetIn(document: ProjectDocument, element: Element, fineness: Fineness): Sheet {
  try {
    const form = formOf(element);
    if (form.form === 'roof') return bodyOf(element, form).above;
    if (form.form === 'shell') return shellOf(element, form, fineness).above;
    const ends = endsOf(document, element, form, fineness);
    const key = keyOf(element, ends, fineness);
    let sheet = made.get(key);
    if (!sheet) made.set(key, (sheet = sheetAnew(element, ends ?? square, fineness)));
    return sheet;
  } catch (error) {
    return nothingOf(element, troubleOf('it cannot be made', error));
  }
}

const ofDocuments = new WeakMap<ProjectDocument, Map<number, Sheets>>();

/** The sheets of a document; each is made when it is first asked for. @param fineness how finely arcs are divided, if not as the document says. */
export function sheetsOf(document: ProjectDocument, fineness: Fineness = finenessOf(document)): Sheets {
  let byFineness = ofDocuments.get(document);
  if (!byFineness) ofDocuments.set(document, (byFineness = new Map()));
  const key = finenessKey(fineness);
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
  const bodied = new Map<string, RoofBody | null>();
  const body = (id: string): RoofBody | null => {
    let made = bodied.get(id);
    if (made === undefined) bodied.set(id, (made = bodyIn(id)));
    return made;
  };
  const bodyIn = (id: string): RoofBody | null => {
    const element = row(document, 'elements', id);
    const form = element && formOf(element);
    if (form?.form !== 'roof' || of(id)?.fault) return null;
    const { from } = bodyOf(element!, form);
    return 'code' in from ? null : from;
  };
  const shell = (id: string): ShellBody | null => {
    const element = row(document, 'elements', id);
    const form = element && formOf(element);
    if (form?.form !== 'shell' || of(id)?.fault) return null;
    const { from } = shellOf(element!, form, fineness);
    return 'code' in from ? null : from;
  };
  return {
    of,
    body,
    shell,
    on: (id, face) => {
      const sheet = of(id);
      if (!sheet || face === undefined || face === 'outer') return sheet;
      const whole = body(id);
      if (whole) return whole.planes.find((plane) => plane.face === face)?.sheet ?? null;
      return face === 'inner' ? turnedOver(sheet).sheet : null;
    },
  };
}
