/** Copies of openings: along and up, in rows, mirrored, to other walls and floors; whole walls and whole setting-outs. */
import {
  datumsOn,
  followingLength,
  gripOffset,
  lengthOf,
  resolveOpening,
  spread,
  tidy,
  type Impossible,
  type Margins,
  type Spacing,
} from '@yard-arch/core';
import {
  facesOf,
  newId,
  omit,
  parentsOf,
  putting,
  type Change,
  type ChangeSet,
  type Element,
  type FaceName,
  type Opening,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { called, edit } from './make.ts';
import { marks } from './placing.ts';
import { boxesOf, faceOf, putTo, type Move } from './many.ts';
import { wouldBe } from './opening.ts';

/** A change set that makes openings, and their ids. */
export interface Made {
  changeSet: ChangeSet;
  ids: string[];
}

/** Whether copies keep the pattern that they have in common with their originals, or get one of their own. */
export type Link = 'linked' | 'own patterns';

/** New openings like others, with new ids and marks; those measured from one another are measured from each other's copies. */
function copied(
  document: ProjectDocument,
  openings: readonly Opening[],
  link: Link,
): { document: ProjectDocument; changes: Change[]; copies: Opening[] } {
  const mark = marks(document);
  const changes: Change[] = [];
  const patterns = new Map<string, Pattern>();
  if (link === 'own patterns')
    for (const id of new Set(openings.map(({ pattern }) => pattern))) {
      const names = new Set(Object.values(document.patterns).map(({ name }) => name));
      const from = document.patterns[id]!;
      let name = `${from.name} copy`;
      for (let n = 2; names.has(name); n++) name = `${from.name} copy ${n}`;
      const pattern = { ...from, id: newId('p'), name };
      patterns.set(id, pattern);
      changes.push(putting('patterns', pattern));
    }
  const ids = new Map(openings.map(({ id }) => [id, newId('o')]));
  const copies = openings.map((opening): Opening => {
    return {
      ...opening,
      id: ids.get(opening.id)!,
      mark: mark(document.patterns[opening.pattern]!),
      pattern: patterns.get(opening.pattern)?.id ?? opening.pattern,
      along: alongOwn(opening.along, ids),
      up: upOwn(opening.up, ids),
    };
  });
  const all = { ...document.patterns };
  for (const pattern of patterns.values()) all[pattern.id] = pattern;
  return { document: withOpenings({ ...document, patterns: all }, copies), changes, copies };
}

/** What is measured from openings that are copied too, measured from their copies. */
function alongOwn(along: Opening['along'], ids: ReadonlyMap<string, string>): Opening['along'] {
  const own = (id: string | null): string | null => (id === null ? null : (ids.get(id) ?? id));
  if (along.from === 'neighbour') return { ...along, opening: own(along.opening)! };
  return along.from === 'between' ? { ...along, left: own(along.left), right: own(along.right) } : along;
}

function upOwn(up: Opening['up'], ids: ReadonlyMap<string, string>): Opening['up'] {
  return up.from === 'neighbour' ? { ...up, opening: ids.get(up.opening) ?? up.opening } : up;
}

function withOpenings(document: ProjectDocument, openings: Iterable<Opening>): ProjectDocument {
  const all = { ...document.openings };
  for (const opening of openings) all[opening.id] = opening;
  return { ...document, openings: all };
}

/** Copies openings so many times, each as far from the one before, metres along and up as it is seen on a face. */
export function copyBy(
  document: ProjectDocument,
  openings: readonly Opening[],
  { ds, dt, times = 1, link = 'linked', face = faceOf(openings) }: Omit<Move, 'what'> & { times?: number; link?: Link },
): Made {
  let scratch = document;
  let last = openings;
  const changes: Change[] = [];
  const ids: string[] = [];
  for (let n = 0; n < times; n++) {
    const made = copied(scratch, last, n === 0 ? link : 'linked');
    const places = new Map(
      boxesOf(made.document, made.copies, face).map((box) => [box.id, { s: box.s + ds, t: box.t + dt, face }]),
    );
    const puts = putTo(made.document, places);
    last = puts.map((change) => (change as { value: Opening }).value);
    changes.push(...made.changes, ...puts);
    scratch = withOpenings(made.document, last);
    ids.push(...last.map(({ id }) => id));
  }
  return { ids, changeSet: edit(`copy ${called(openings)}${times > 1 ? ` ${times} times` : ''}`, ...changes) };
}

/** Mirrors openings about an upright line, metres along: themselves, or copies of them. */
export function mirrorAll(
  document: ProjectDocument,
  openings: readonly Opening[],
  at: number,
  copies: Link | null,
): Made {
  const turned = (on: ProjectDocument, list: readonly Opening[]): Change[] => {
    // Held by the other side, so that the jamb that was measured is measured still.
    const swapped = list.map((opening): Opening => ({
      ...opening,
      grip: {
        ...opening.grip,
        across: ({ left: 'right', centre: 'centre', right: 'left' } as const)[opening.grip.across],
      },
    }));
    const face = faceOf(list);
    const places = new Map(boxesOf(on, list).map((box) => [box.id, { s: 2 * at - box.s - box.width, t: box.t, face }]));
    return putTo(withOpenings(on, swapped), places);
  };
  if (copies === null)
    return {
      ids: openings.map(({ id }) => id),
      changeSet: edit(`mirror ${called(openings)}`, ...turned(document, openings)),
    };
  const made = copied(document, openings, copies);
  return {
    ids: made.copies.map(({ id }) => id),
    changeSet: edit(`mirror a copy of ${called(openings)}`, ...made.changes, ...turned(made.document, made.copies)),
  };
}

/** Where copies go: other walls, and the levels at which they are to stand instead, by the datum that they hang on. */
export interface Destination {
  elements: readonly string[];
  /** For openings held to one datum, those that copies are held to; openings held otherwise are copied as they are. */
  datums: ReadonlyMap<string, readonly string[]>;
}

/**
 * Copies openings to walls and floors with the intent that they have: what is 2 m from the end is 2 m from the end there. An axis that the other wall has under the same name is held to there; without
 * one the copy is measured from the start.
 */
export function copyTo(
  document: ProjectDocument,
  openings: readonly Opening[],
  { elements, datums }: Destination,
): Made {
  const mark = marks(document);
  const changes: Change[] = [];
  const ids: string[] = [];
  for (const id of elements) {
    const element = document.elements[id]!;
    const usable = new Set(datumsOn(document, element).map((datum) => datum.id));
    const same = new Map(openings.map((opening) => [opening.id, newId('o')]));
    for (const opening of openings) {
      const levels = opening.up.from === 'datum' ? (datums.get(opening.up.datum) ?? [opening.up.datum]) : [null];
      for (const [i, level] of levels.entries()) {
        // What stands there already is not doubled.
        if (id === opening.element && (level === null || (opening.up.from === 'datum' && level === opening.up.datum)))
          continue;
        const copy: Opening = {
          ...onFacesOf(element, opening),
          id: i === 0 ? same.get(opening.id)! : newId('o'),
          mark: mark(document.patterns[opening.pattern]!),
          element: id,
          along: alongOn(document, opening, element, same),
          up: upOn(document, opening, { element, level, usable, same }),
        };
        changes.push(putting('openings', copy));
        ids.push(copy.id);
      }
    }
  }
  return {
    ids,
    changeSet: edit(
      `copy ${called(openings)} to ${elements.length === 1 ? document.elements[elements[0]!]!.name : `${elements.length} walls`}`,
      ...changes,
    ),
  };
}

/** An opening without what only its own element has: a face, or planes to be cut, that another does not; there it is set out on the first. */
function onFacesOf(element: Element, opening: Opening): Opening {
  const names = new Set<string>(facesOf(element).map(({ name }) => name));
  const { face, planes } = opening;
  const here = planes?.filter((plane) => names.has(plane)) ?? [];
  return {
    ...omit(opening, 'face', 'planes'),
    ...(face !== undefined && names.has(face) ? { face } : {}),
    ...(here.length > 0 ? { planes: here } : {}),
  };
}

function alongOn(
  document: ProjectDocument,
  opening: Opening,
  element: Element,
  same: ReadonlyMap<string, string>,
): Opening['along'] {
  const { along } = opening;
  if (element.id === opening.element) return along;
  const parents = parentsOf(opening, 'along');
  if (parents.every((id) => same.has(id)) && along.from !== 'axis') return alongOwn(along, same);
  if (along.from === 'axis') {
    const name = document.axes[along.axis]?.name;
    const there = Object.values(document.axes).find((axis) => axis.element === element.id && axis.name === name);
    if (there) return { ...along, axis: there.id };
  }
  const placed = resolveOpening(document, opening);
  return {
    from: 'start',
    distance: 'outline' in placed ? placed.s + gripOffset(placed.profile, opening.grip)[0] : along.distance,
  };
}

/** What an opening's level can be told by where it is copied to. */
interface Levels {
  element: Element;
  /** The datum that stands for its own; null where it is held to none. */
  level: string | null;
  usable: ReadonlySet<string>;
  same: ReadonlyMap<string, string>;
}

function upOn(document: ProjectDocument, opening: Opening, { element, level, usable, same }: Levels): Opening['up'] {
  if (opening.up.from === 'neighbour' && element.id !== opening.element && !same.has(opening.up.opening)) {
    const placed = resolveOpening(document, opening);
    return {
      from: 'base',
      distance:
        'outline' in placed ? tidy(placed.t + gripOffset(placed.profile, opening.grip)[1]) : opening.up.distance,
    };
  }
  if (opening.up.from !== 'datum') return element.id === opening.element ? opening.up : upOwn(opening.up, same);
  const datum = level ?? opening.up.datum;
  if (usable.has(datum)) return { ...opening.up, datum };
  return { from: 'base', distance: (document.datums[datum]?.level ?? 0) - element.start.z + opening.up.distance };
}

/** What of a wall's setting-out is pasted on to another. */
export function pasteSettingOut(document: ProjectDocument, from: Element, to: Element): Made {
  const changes: Change[] = [];
  const taken = new Set(
    Object.values(document.axes)
      .filter((axis) => axis.element === to.id)
      .map(({ name }) => name),
  );
  const axes = { ...document.axes };
  for (const axis of Object.values(document.axes)) {
    if (axis.element !== from.id || taken.has(axis.name)) continue;
    const copy = { ...axis, id: newId('x'), element: to.id };
    axes[copy.id] = copy;
    changes.push(putting('axes', copy));
  }
  const datums = { ...document.datums };
  const own = new Map<string, readonly string[]>();
  for (const datum of Object.values(document.datums)) {
    if (datum.element !== from.id) continue;
    const copy = { ...datum, id: newId('d'), element: to.id };
    datums[copy.id] = copy;
    own.set(datum.id, [copy.id]);
    changes.push(putting('datums', copy));
  }
  const scratch = { ...document, axes, datums };
  const openings = Object.values(document.openings).filter((opening) => opening.element === from.id);
  const made = copyTo(scratch, openings, { elements: [to.id], datums: own });
  return {
    ids: made.ids,
    changeSet: edit(`paste the setting-out of ${from.name} on to ${to.name}`, ...changes, ...made.changeSet.changes),
  };
}

/** A second element like one, beside it, with everything that is on it. */
export function duplicateElement(document: ProjectDocument, element: Element): { changeSet: ChangeSet; id: string } {
  const id = newId(element.kind.charAt(0));
  const names = new Set(Object.values(document.elements).map(({ name }) => name));
  let name = `${element.name} copy`;
  for (let n = 2; names.has(name); n++) name = `${element.name} copy ${n}`;
  const thickness = element.layers.reduce((sum, layer) => sum + layer.thickness, 0);
  // Two metres clear in front of its face.
  const turn = ((element.turn - 90) * Math.PI) / 180;
  const off = thickness + 2;
  const copy: Element = {
    ...element,
    id,
    name,
    start: {
      ...element.start,
      x: tidy(element.start.x + Math.cos(turn) * off),
      y: tidy(element.start.y + Math.sin(turn) * off),
    },
  };
  const pasted = pasteSettingOut({ ...document, elements: { ...document.elements, [id]: copy } }, element, copy);
  return { id, changeSet: edit(`duplicate ${element.name}`, putting('elements', copy), ...pasted.changeSet.changes) };
}

/** How a face is to be filled with bays. */
export interface FillWish {
  pattern: string;
  size: string;
  face?: FaceName | undefined;
  columns: number;
  spacing: Spacing;
  margins: Margins;
  /** Sill levels of the rows: datums, or heights above the base (metres). */
  rows: readonly ({ datum: string } | { base: number })[];
}

/** Fills a face with openings in columns and rows. The columns are spread as openings are, and keep so when the face grows longer. */
export function fillFace(document: ProjectDocument, element: Element, wish: FillWish): Made | Impossible {
  const mark = marks(document);
  const pattern = document.patterns[wish.pattern]!;
  const placed = wouldBe(document, element, wish, wish.face);
  if (!('outline' in placed)) return placed;
  const { width } = placed.profile;
  const widths = Array.from({ length: wish.columns }, () => width);
  const length = lengthOf(document, element, wish.face);
  const now = spread(widths, { from: 0, to: length }, wish.spacing, { margins: wish.margins, units: document.units });
  if ('reason' in now) return now;
  const longer = spread(widths, { from: 0, to: length + 1 }, wish.spacing, {
    margins: wish.margins,
    units: document.units,
  });
  const changes: Change[] = [];
  const ids: string[] = [];
  for (const row of wish.rows)
    for (let i = 0; i < wish.columns; i++) {
      const at = now.lefts[i]! + width / 2;
      const id = newId('o');
      ids.push(id);
      changes.push(
        putting('openings', {
          id,
          mark: mark(pattern),
          element: element.id,
          ...(wish.face && wish.face !== 'outer' ? { face: wish.face } : {}),
          pattern: wish.pattern,
          size: wish.size,
          grip: { across: 'centre', level: 'sill' },
          blockedUp: false,
          along:
            'reason' in longer
              ? { from: 'start', distance: at }
              : followingLength(length, [at, longer.lefts[i]! + width / 2]),
          up: 'datum' in row ? { from: 'datum', datum: row.datum, distance: 0 } : { from: 'base', distance: row.base },
        }),
      );
    }
  return { ids, changeSet: edit(`fill ${element.name} with ${ids.length} openings`, ...changes) };
}
