/** Edits of datums and axes. Openings held to a line move with it; when it is removed they stay where they stand. */
import { axesOn, datumsOn, lengthOf, sheetsOf } from '@yard-arch/core';
import {
  isManyFaced,
  newId,
  omit,
  putting,
  removing,
  type Axis,
  type Change,
  type ChangeSet,
  type Datum,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { nanometre } from '@yard-arch/core';

/** A setting-out line. */
export type Line = { kind: 'datum'; datum: Datum } | { kind: 'axis'; axis: Axis };

const whole = (metres: number): number => Math.round(metres * 1000) / 1000;

/** Openings that are held to a line. */
export function heldTo(document: ProjectDocument, line: Line): Opening[] {
  return Object.values(document.openings).filter((opening) =>
    line.kind === 'datum'
      ? opening.up.from === 'datum' && opening.up.datum === line.datum.id
      : opening.along.from === 'axis' && opening.along.axis === line.axis.id,
  );
}

/** A new datum for the whole building, in the widest gap between those that show on an element's face. */
export function addDatum(document: ProjectDocument, element: Element): { changeSet: ChangeSet; id: string } {
  const { z } = element.start;
  const height = sheetsOf(document).of(element.id)!.height;
  const taken = datumsOn(document, element).map(({ level }) => level - z);
  const level = whole(z + widestGap(taken, height));
  const names = new Set(Object.values(document.datums).map(({ name }) => name));
  const datum: Datum = { id: newId('d'), name: firstFree('Datum', names), level, element: null };
  return { id: datum.id, changeSet: edit(`add ${datum.name}`, putting('datums', datum)) };
}

/** A new axis, in the widest gap between those of an element, with the next letter. */
export function addAxis(
  document: ProjectDocument,
  element: Element,
  face: FaceName = 'outer',
): { changeSet: ChangeSet; id: string } {
  const many = isManyFaced(element) && face !== 'outer';
  const own = axesOn(document, element, many ? face : 'outer');
  const names = new Set(own.map(({ name }) => name));
  const letters = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
  const name = letters.find((letter) => !names.has(letter)) ?? firstFree('A', names);
  const along = whole(
    widestGap(
      own.map((axis) => axis.along),
      lengthOf(document, element, many ? face : 'outer'),
    ),
  );
  const axis: Axis = { id: newId('x'), name, element: element.id, ...(many ? { face } : {}), along };
  return { id: axis.id, changeSet: edit(`add axis ${name}`, putting('axes', axis)) };
}

function firstFree(name: string, taken: ReadonlySet<string>): string {
  let n = 1;
  while (taken.has(`${name} ${n}`)) n++;
  return `${name} ${n}`;
}

function widestGap(taken: readonly number[], length: number): number {
  const marks = [0, ...taken.filter((at) => at > 0 && at < length).sort((a, b) => a - b), length];
  let best = 0;
  for (let i = 0; i + 1 < marks.length; i++)
    if (marks[i + 1]! - marks[i]! > marks[best + 1]! - marks[best]! + nanometre) best = i;
  return (marks[best]! + marks[best + 1]!) / 2;
}

/** Elements whose level goes up and down with datums. */
export const standingOn = (document: ProjectDocument, datums: readonly string[]): Element[] =>
  Object.values(document.elements).filter(({ stands }) => stands !== undefined && datums.includes(stands));

/** Lets an element stand on a datum, at its level; or by itself again, where it is. */
export function standOn(document: ProjectDocument, element: Element, id: string | null): ChangeSet {
  const datum = id === null ? undefined : document.datums[id];
  return datum
    ? edit(
        `stand ${element.name} on ${datum.name}`,
        putting('elements', { ...element, start: { ...element.start, z: datum.level }, stands: datum.id }),
      )
    : edit(`let ${element.name} stand by itself`, putting('elements', byItself(element)));
}

/** The same element, that goes up and down with nothing. */
export const byItself = (element: Element): Element => omit(element, 'stands') as Element;

/** Elements that stood on datums, by themselves where they are. */
export const stoodFree = (document: ProjectDocument, datums: readonly string[]): Change[] =>
  standingOn(document, datums).map((element) => putting('elements', byItself(element)));

/** Moves a line to a level (above the origin) or a distance along its element, metres; what is held to it follows. */
export function moveLine(document: ProjectDocument, line: Line, to: number): ChangeSet {
  const held = heldTo(document, line).length;
  const told = held > 0 ? ` with ${held} opening${held === 1 ? '' : 's'}` : '';
  return line.kind === 'datum'
    ? edit(
        `move ${line.datum.name}${told}`,
        putting('datums', { ...line.datum, level: to }),
        ...standingOn(document, [line.datum.id]).map((element) =>
          putting('elements', {
            ...element,
            start: { ...element.start, z: tidy(element.start.z + to - line.datum.level) },
          }),
        ),
      )
    : edit(`move axis ${line.axis.name}${told}`, putting('axes', { ...line.axis, along: to }));
}

export function renameLine(line: Line, name: string): ChangeSet {
  return line.kind === 'datum'
    ? edit(`rename ${line.datum.name}`, putting('datums', { ...line.datum, name }))
    : edit(`rename axis ${line.axis.name}`, putting('axes', { ...line.axis, name }));
}

/**
 * Lets a datum be used on one element only, or (null) in the whole building. Openings elsewhere that were held to it stay where they stand.
 */
export function confineDatum(document: ProjectDocument, datum: Datum, element: string | null): ChangeSet {
  const elsewhere =
    element === null ? [] : heldTo(document, { kind: 'datum', datum }).filter((opening) => opening.element !== element);
  return edit(
    `change what ${datum.name} is for`,
    ...elsewhere.map((opening) => letGo(document, opening, { kind: 'datum', datum })),
    putting('datums', { ...datum, element }),
  );
}

/** Says what a datum is the line of. */
export function setDatumKind(datum: Datum, kind: Datum['kind'] | null): ChangeSet {
  return edit(`say what ${datum.name} is`, putting('datums', { ...datum, kind: kind ?? undefined }));
}

/** Removes a line. What was held to it stays where it stands, placed from the base or the start instead. */
export function removeLine(document: ProjectDocument, line: Line): ChangeSet {
  const loose = heldTo(document, line).map((opening) => letGo(document, opening, line));
  return line.kind === 'datum'
    ? edit(
        `remove ${line.datum.name}`,
        ...loose,
        ...stoodFree(document, [line.datum.id]),
        removing('datums', line.datum.id),
      )
    : edit(`remove axis ${line.axis.name}`, ...loose, removing('axes', line.axis.id));
}

function letGo(document: ProjectDocument, opening: Opening, line: Line): Change {
  const z = document.elements[opening.element]?.start.z ?? 0;
  return putting(
    'openings',
    line.kind === 'datum'
      ? { ...opening, up: { from: 'base', distance: tidy(line.datum.level - z + opening.up.distance) } }
      : { ...opening, along: { from: 'start', distance: tidy(line.axis.along + opening.along.distance) } },
  );
}

/** Without the last bits of a sum. */
const tidy = (metres: number): number => Number(metres.toPrecision(15));
