/** The ways in which an opening's place can be told: what it may be measured from, along and up, as choices of a list. */
import { alongAt, axesOn, courseOn, datumsOn, gripOffset, lengthOf, rowOf, upAt, type Box } from '@yard-arch/core';
import {
  measuredFrom,
  type Along,
  type Element,
  type Opening,
  type ProjectDocument,
  type Up,
  isManyFaced,
} from '@yard-arch/document';
import { boxesOf, openingsOf } from '@yard-arch/edit';

export interface Way {
  value: string;
  label: string;
}

interface Told {
  document: ProjectDocument;
  opening: Opening;
  element: Element;
  /** Where it is now; null where it has no place. */
  box: Box | null;
}

/** The choice that an intent along is. */
export function alongNow(along: Along): string {
  if (along.from === 'axis') return `axis ${along.axis}`;
  if (along.from === 'neighbour') return `neighbour ${along.opening} ${along.edge}`;
  return along.from === 'between' ? `between ${along.left ?? '-'} ${along.right ?? '-'}` : along.from;
}

/** The choice that an intent up is. */
export function upNow(up: Up): string {
  if (up.from === 'datum') return `datum ${up.datum}`;
  return up.from === 'neighbour' ? `neighbour ${up.opening} ${up.edge}` : up.from;
}

export function waysAlong(document: ProjectDocument, opening: Opening, box: Box | null): Way[] {
  const { along } = opening;
  return [
    { value: 'start', label: 'from the start' },
    { value: 'middle', label: 'from the middle' },
    { value: 'end', label: 'back from the end' },
    {
      value: 'fraction',
      label:
        along.from === 'fraction'
          ? `from ${Math.round(along.fraction * 1e4) / 100} % of the length`
          : 'from a share of the length',
    },
    ...axesOn(document, document.elements[opening.element]!, opening.face).map(({ id, name }) => ({
      value: `axis ${id}`,
      label: `from axis ${name}`,
    })),
    ...(along.from === 'between' ? [{ value: alongNow(along), label: 'from half way between' }] : []),
    ...(box ? neighboursOf(document, opening, box) : []),
  ];
}

export function waysUp(document: ProjectDocument, opening: Opening, element: Element, box: Box | null): Way[] {
  const onCourse = opening.up.from === 'course' || courseOn(document, element) !== null;
  return [
    { value: 'base', label: 'from the base' },
    { value: 'top', label: 'down from the top' },
    ...datumsOn(document, element, opening.face).map(({ id, name }) => ({
      value: `datum ${id}`,
      label: `from ${name}`,
    })),
    ...(onCourse ? [{ value: 'course', label: 'on the nearest course' }] : []),
    ...(box ? levelsBeside(document, opening, box) : []),
  ];
}

/** The intent of a choice along; `measured` is the same for one that has no place yet, with its distance. */
export function alongTold(value: string, told: Told): { along: Along; measured: () => Along } {
  const { document, opening, element } = told;
  const along = alongFrom(value, told);
  return {
    along,
    measured: () => ({ ...along, distance: alongAt(document, element, along, opening.face) ?? 0 }),
  };
}

function alongFrom(value: string, { document, opening, element, box }: Told): Along {
  const [from, id = '', edge = ''] = value.split(' ');
  const distance = 0;
  const whole = (share: number): number => Math.round(share * 1e4) / 1e4;
  switch (from) {
    case 'axis':
      return { from, axis: id, distance };
    case 'neighbour':
      return { from, opening: id, edge: edge as 'left', distance };
    case 'between':
      return { from, left: id === '-' ? null : id, right: edge === '-' ? null : edge, distance };
    case 'fraction': {
      const at = box ? box.s + gripOffset(box, opening.grip)[0] : null;
      const fraction = at === null ? 0.5 : whole(at / lengthOf(document, element, opening.face));
      return { from, fraction, distance };
    }
    default:
      return { from: value as 'start', distance };
  }
}

/** The intent of a choice up. */
export function upTold(value: string, { document, opening, element }: Told): { up: Up; measured: () => Up } {
  const [from, id = '', edge = ''] = value.split(' ');
  const up: Up =
    from === 'datum'
      ? { from, datum: id, distance: 0 }
      : from === 'neighbour'
        ? { from, opening: id, edge: edge as 'sill', distance: 0 }
        : { from: value as 'base', distance: 0 };
  return { up, measured: () => ({ ...up, distance: upAt(document, element, up, opening.face) ?? 0 }) };
}

/** Whether another opening is where one can be measured from it: on the same element, and of many faces on the same. */
const isBeside = (document: ProjectDocument, { id, element, face }: Opening, other: Opening): boolean =>
  other.element === element && other.id !== id && (other.face === face || !isManyFaced(document.elements[element]!));

/** The jambs and centres of openings beside one that it can be measured from, nearest first; the one that it is measured from now among them. */
function neighboursOf(document: ProjectDocument, opening: Opening, box: Box): Way[] {
  const others = Object.values(document.openings).filter((other) => isBeside(document, opening, other));
  const row = rowOf(boxesOf(document, others, opening.face ?? 'outer'), box).sort(
    (a, b) => Math.abs(a.s - box.s) - Math.abs(b.s - box.s),
  );
  const { along } = opening;
  const near = row.slice(0, 6).map(({ id }) => id);
  if (along.from === 'neighbour' && !near.includes(along.opening)) near.push(along.opening);
  const its = measuredFrom(document, opening.id);
  return near
    .filter((id) => !its.has(id))
    .flatMap((id) =>
      (['right', 'centre', 'left'] as const).map((edge) => ({
        value: `neighbour ${id} ${edge}`,
        label: `from ${document.openings[id]?.mark}, ${edge === 'centre' ? 'centre' : `${edge} jamb`}`,
      })),
    );
}

/** Sills, springing lines and heads of openings beside one from which its level can be measured. */
function levelsBeside(document: ProjectDocument, opening: Opening, box: Box): Way[] {
  const others = Object.values(document.openings).filter((other) => isBeside(document, opening, other));
  const near = boxesOf(document, others, opening.face ?? 'outer')
    .sort((a, b) => Math.hypot(a.s - box.s, a.t - box.t) - Math.hypot(b.s - box.s, b.t - box.t))
    .slice(0, 6);
  const { up } = opening;
  if (up.from === 'neighbour' && !near.some(({ id }) => id === up.opening))
    near.push(...boxesOf(document, openingsOf(document, [up.opening])));
  const its = measuredFrom(document, opening.id, 'up');
  return near
    .filter(({ id }) => !its.has(id))
    .flatMap(({ id, mark, springing }) =>
      (['sill', 'head', ...(springing === null ? [] : ['springing'])] as const).map((edge) => ({
        value: `neighbour ${id} ${edge}`,
        label: `from the ${edge} of ${mark}`,
      })),
    );
}
