/** Where the intents of openings lead on the face that they are on: along it and up it, from whatever they are measured. */
import {
  extentOf,
  isManyFaced,
  isShell,
  isUpright,
  parentsOf,
  row,
  type Along,
  type Axis,
  type Datum,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
  type Up,
  type Way,
} from '@yard-arch/document';
import { sheetsOf } from '../element/sheets.ts';
import { turnedOver } from '../element/turned-over.ts';
import type { Profile } from '../profile/profile.ts';
import { tidy } from '../tidy.ts';
import { micrometre } from '../tolerances.ts';
import { courseHeightOf } from './courses.ts';
import { profileOfOpening } from './outlined.ts';
import { gripOffset } from './placed.ts';

/** Where an intent along an element leads, metres from its start; null when it names an axis or an opening that is gone, or leads back to itself. */
export function alongAt(
  document: ProjectDocument,
  element: Element,
  along: Along,
  face: FaceName = 'outer',
): number | null {
  const length = along.from === 'start' ? 0 : lengthOf(document, element, face);
  switch (along.from) {
    case 'start':
      return along.distance;
    case 'middle':
      return length / 2 + along.distance;
    case 'end':
      return length - along.distance;
    case 'axis': {
      const axis = row(document, 'axes', along.axis);
      return axis ? axisOn(document, element, axis.along, face) + along.distance : null;
    }
    case 'fraction':
      return length * along.fraction + along.distance;
    case 'neighbour': {
      const left = edgeOf(document, element, along.opening, face);
      return left && left.at + { left: 0, centre: left.width / 2, right: left.width }[along.edge] + along.distance;
    }
    case 'between': {
      const [before, after] = [
        along.left === null ? { at: 0, width: 0 } : edgeOf(document, element, along.left, face),
        along.right === null ? { at: length } : edgeOf(document, element, along.right, face),
      ];
      return before && after && (before.at + before.width + after.at) / 2 + along.distance;
    }
  }
}

/** Where an opening's left side is along its element, and how wide it is. */
interface Left {
  at: number;
  width: number;
}

/** Where an opening's sill is above its element's base, and how high its springing line and head are above that. */
interface Low {
  at: number;
  springing: number;
  height: number;
}

/** Places of openings that others are measured from; null where one has none. A document is never changed, so what was found of it stays. */
const lefts = new WeakMap<ProjectDocument, Map<string, Left | null>>();
const lows = new WeakMap<ProjectDocument, Map<string, Low | null>>();

/** The same as seen on a face, whichever the opening's own. */
function edgeOf(document: ProjectDocument, element: Element, id: string, face: FaceName): Left | null {
  const left = placeIn(lefts, document, id, {
    way: 'along',
    place: (opening, profile) => {
      const grip = alongAt(document, element, opening.along, opening.face);
      return grip === null ? null : { at: grip - gripOffset(profile, opening.grip)[0], width: profile.width };
    },
  });
  const own = row(document, 'openings', id)?.face ?? 'outer';
  if (!left || own === face) return left;
  if (!isSide(own) || !isSide(face)) return null;
  const [a, b] = [left.at + left.width, left.at].map((s) => overTo(document, element, s, face)) as [number, number];
  return { at: a, width: b - a };
}

/** A distance along the one face as one along the other. @param face the face to which it goes over. */
export function overTo(document: ProjectDocument, element: Element, s: number, face: FaceName): number {
  const sheet = sheetsOf(document).of(element.id);
  if (!sheet) return s;
  const over = turnedOver(sheet);
  return face === 'inner' ? over.toInner(s) : over.toOuter(s);
}

/** Whether a face is one of a sheet's two, and not one of many. */
const isSide = (face: FaceName): boolean => face === 'outer' || face === 'inner';

/** How long a face is for setting out, metres. */
export function lengthOf(document: ProjectDocument, element: Element, face: FaceName = 'outer'): number {
  return face === 'outer' && !isManyFaced(element) && !isShell(element)
    ? extentOf(element).length
    : (sheetsOf(document).on(element.id, face)?.length ?? 0);
}

/** How high a face is, metres: as far up its slope as it reaches. */
const heightOf = (document: ProjectDocument, element: Element, face: FaceName): number =>
  isSide(face) && !isManyFaced(element) && !isShell(element)
    ? extentOf(element).height
    : (sheetsOf(document).on(element.id, face)?.height ?? 0);

/** How far up a face a level is, metres; null where that is no height on it. @param level metres above nothing */
export function levelOn(
  document: ProjectDocument,
  element: Element,
  level: number,
  face: FaceName = 'outer',
): number | null {
  if (isSide(face)) return level - element.start.z;
  const chart = sheetsOf(document).on(element.id, face)?.chart;
  return chart?.kind === 'flat' ? (level - chart.origin[2]) / chart.up[2] : null;
}

/** The same the other way: how far along the outer face something is that is there on a face. */
export const axisFrom = (document: ProjectDocument, element: Element, s: number, face: FaceName): number =>
  face === 'inner' ? overTo(document, element, s, 'outer') : s;

/** Where an axis is on a face. @param along metres along the outer one. */
export const axisOn = (document: ProjectDocument, element: Element, along: number, face: FaceName): number =>
  face === 'inner' ? overTo(document, element, along, face) : along;

const lowOf = (document: ProjectDocument, element: Element, id: string): Low | null =>
  placeIn(lows, document, id, {
    way: 'up',
    place: (opening, profile) => {
      const grip = upAt(document, element, opening.up, opening.face);
      return grip === null
        ? null
        : {
            at: grip - gripOffset(profile, opening.grip)[1],
            springing: profile.springing ?? profile.height,
            height: profile.height,
          };
    },
  });

/** The place of an opening that another is measured from. However long the chain of those that each is measured from, it is gone along once, from its far end: of a ring none has a place. */
function placeIn<T>(
  places: WeakMap<ProjectDocument, Map<string, T | null>>,
  document: ProjectDocument,
  id: string,
  { way, place }: { way: Way; place: (opening: Opening, profile: Profile) => T | null },
): T | null {
  let known = places.get(document);
  if (!known) places.set(document, (known = new Map<string, T | null>()));
  if (known.has(id)) return known.get(id)!;
  const waiting = [id];
  const begun = new Set<string>();
  while (waiting.length > 0) {
    const at = waiting.at(-1)!;
    const opening = row(document, 'openings', at);
    const parents = opening ? parentsOf(opening, way).filter((parent) => !known.has(parent) && !begun.has(parent)) : [];
    if (opening && !begun.has(at) && parents.length > 0) {
      begun.add(at);
      waiting.push(...parents);
      continue;
    }
    waiting.pop();
    if (known.has(at)) continue;
    const profile =
      opening && parentsOf(opening, way).every((parent) => known.has(parent))
        ? profileOfOpening(document, opening)
        : null;
    known.set(at, opening && profile ? place(opening, profile) : null);
  }
  return known.get(id)!;
}

/** Where an intent up an element leads, metres above its base; null when it names a datum that is gone. */
export function upAt(document: ProjectDocument, element: Element, up: Up, face: FaceName = 'outer'): number | null {
  switch (up.from) {
    case 'base':
      return up.distance;
    case 'top':
      return heightOf(document, element, face) - up.distance;
    case 'datum': {
      const datum = row(document, 'datums', up.datum);
      const t = datum && levelOn(document, element, datum.level, face);
      return t === null || t === undefined ? null : t + up.distance;
    }
    case 'neighbour': {
      const low = lowOf(document, element, up.opening);
      return low && low.at + { sill: 0, springing: low.springing, head: low.height }[up.edge] + up.distance;
    }
    case 'course':
      return onCourse(courseOn(document, element, face), up.distance);
  }
}

/** Height of a course of a face's masonry, metres; null where it has none. */
export function courseOn(document: ProjectDocument, element: Element, face: FaceName = 'outer'): number | null {
  const layer = element.layers.at(face === 'inner' ? -1 : 0)!;
  return courseHeightOf(row(document, 'materials', layer.material)?.texture);
}

/** The nearest course to a height. */
function onCourse(course: number | null, t: number): number {
  return course === null ? t : tidy(Math.round(t / course) * course);
}

/** The same intent with the distance that leads to `s` metres from the element's start. */
export function alongTo(
  document: ProjectDocument,
  element: Element,
  along: Along,
  { s, face }: { s: number; face?: FaceName | undefined },
): Along {
  const origin = alongAt(document, element, { ...along, distance: 0 }, face) ?? 0;
  return { ...along, distance: tidy(along.from === 'end' ? origin - s : s - origin) };
}

/** The same intent with the distance that leads to `t` metres above the element's base. */
export function upTo(
  document: ProjectDocument,
  element: Element,
  up: Up,
  { t, face }: { t: number; face?: FaceName | undefined },
): Up {
  // What does not lie on a course is held to none.
  if (up.from === 'course')
    return Math.abs(onCourse(courseOn(document, element, face), t) - t) < micrometre
      ? { from: 'course', distance: tidy(t) }
      : { from: 'base', distance: tidy(t) };
  const origin = upAt(document, element, { ...up, distance: 0 }, face) ?? 0;
  return { ...up, distance: tidy(up.from === 'top' ? origin - t : t - origin) };
}

/** The axes on a face; those of a sheet are on both of its sides. */
export const axesOn = (document: ProjectDocument, element: Element, face: FaceName = 'outer'): Axis[] =>
  Object.values(document.axes).filter(
    (axis) => axis.element === element.id && (isSide(face) ? axis.face === undefined : axis.face === face),
  );

/** The datums that can be used on an element: its own and the building's, where its face stands upright, so that a level is a height on it. */
export function datumsOn(document: ProjectDocument, element: Element, face: FaceName = 'outer'): Datum[] {
  if (isSide(face) && !isUpright(element)) return [];
  return Object.values(document.datums).filter((datum) => datum.element === null || datum.element === element.id);
}
