/** Edits of several openings at once: moving, spreading, lining up, evening out, sizing, blocking up and removing them. */
import {
  alongTo,
  boxOf,
  broughtTo,
  followingLength,
  gripOffset,
  lengthOf,
  overTo,
  profileOfOpening,
  resolveOpening,
  seenOn,
  sheetsOf,
  spread,
  tidy,
  upTo,
  type Alignment,
  type Box,
  type Impossible,
  type Margins,
  type Spacing,
  type Uneven,
} from '@yard-arch/core';
import {
  grouped,
  parentsOf,
  putting,
  removing,
  type Along,
  type Change,
  type ChangeSet,
  type FaceName,
  type Opening,
  type ProjectDocument,
  type Way,
  isManyFaced,
} from '@yard-arch/document';
import { called, edit } from './make.ts';
import { nanometre } from '@yard-arch/core';

/** Openings by their ids, without those that are gone. */
export function openingsOf(document: ProjectDocument, ids: readonly string[]): Opening[] {
  return ids.flatMap((id) => document.openings[id] ?? []);
}

/** The face that openings are set out on where all of them are on the same, or else the outer one. */
export const faceOf = (openings: readonly Pick<Opening, 'face'>[]): FaceName =>
  openings.length > 0 && openings.every(({ face }) => face === openings[0]!.face)
    ? (openings[0]!.face ?? 'outer')
    : 'outer';

/** The boxes of openings that have a place, in the order given. @param face on which they are looked at: their own, if not said otherwise. */
export function boxesOf(
  document: ProjectDocument,
  openings: readonly Opening[],
  face: FaceName = faceOf(openings),
): Box[] {
  return openings.flatMap((opening) => {
    const placed = resolveOpening(document, opening);
    if (!('outline' in placed)) return [];
    // Faces of many have no place in common.
    if (isManyFaced(document.elements[opening.element]!))
      return (opening.face ?? 'outer') === face ? [boxOf(placed, opening.mark)] : [];
    return [boxOf(seenOn(sheetsOf(document).of(opening.element)!, placed, face), opening.mark)];
  });
}

/** A place for an opening's lower left corner, and where that is to be measured from if not from where it is now. */
export interface Place {
  s: number;
  t: number;
  /** The face on which that is told; the opening's own where nothing is said. */
  face?: FaceName | undefined;
  along?: Along;
}

/** The place of an opening's lower left corner on its own face. */
export function ownPlace(document: ProjectDocument, opening: Opening, { s, face }: Place, width: number): number {
  const own = opening.face ?? 'outer';
  if (face === undefined || face === own || isManyFaced(document.elements[opening.element]!)) return s;
  // Its right side as it is seen there is the left one on its own face.
  return overTo(document, document.elements[opening.element]!, s + width / 2, own) - width / 2;
}

/** Openings with all that they are measured from, each after that; of a ring, one comes before. */
function* parentsFirst(ids: Iterable<string>, parents: (id: string) => readonly string[]): Generator<string> {
  const begun = new Set<string>();
  const done = new Set<string>();
  for (const first of ids) {
    const waiting = [first];
    while (waiting.length > 0) {
      const id = waiting.at(-1)!;
      if (!begun.has(id)) {
        begun.add(id);
        waiting.push(...parents(id).filter((parent) => !begun.has(parent)));
        continue;
      }
      waiting.pop();
      if (done.has(id)) continue;
      done.add(id);
      yield id;
    }
  }
}

/**
 * Puts openings to places, each still measured from what it is measured from. Those measured from one another, or from others between, are put in that order, so that each is where it is to be.
 */
export function putTo(document: ProjectDocument, places: ReadonlyMap<string, Place>): Change[] {
  // One draft for all: a row of it is changed after those that it is measured from, so that what was found of them stays true. A single one has none that waits for it.
  const draft = places.size > 1 ? { ...document, openings: { ...document.openings } } : document;
  const moved = new Map<string, Opening>();
  const inOrder = (way: Way): Iterable<string> =>
    parentsFirst(places.keys(), (id) => {
      const opening = document.openings[id];
      return opening && !(way === 'along' && places.get(id)?.along) ? parentsOf(opening, way) : [];
    });
  for (const way of ['along', 'up'] as const)
    for (const id of inOrder(way)) {
      const [opening, place] = [moved.get(id) ?? document.openings[id], places.get(id)];
      if (!opening || !place) continue;
      const put = { ...opening, ...(way === 'along' ? alongPut : upPut)(draft, opening, place) };
      moved.set(id, put);
      if (draft !== document) draft.openings[id] = put;
    }
  return [...places.keys()].flatMap((id) => moved.get(id) ?? []).map((opening) => putting('openings', opening));
}

/** Where an opening's grip is from its lower left corner. */
function gripOf(document: ProjectDocument, opening: Opening): [dx: number, dy: number, width: number] {
  const profile = profileOfOpening(document, opening);
  return profile ? [...gripOffset(profile, opening.grip), profile.width] : [0, 0, 0];
}

function alongPut(document: ProjectDocument, opening: Opening, place: Place): Pick<Opening, 'along'> {
  const [dx, , width] = gripOf(document, opening);
  const s = ownPlace(document, opening, place, width);
  const element = document.elements[opening.element]!;
  const along = s === place.s ? place.along : undefined;
  return { along: along ?? alongTo(document, element, opening.along, { s: s + dx, face: opening.face }) };
}

function upPut(document: ProjectDocument, opening: Opening, { t }: Place): Pick<Opening, 'up'> {
  const [, dy] = gripOf(document, opening);
  return {
    up: upTo(document, document.elements[opening.element]!, opening.up, { t: t + dy, face: opening.face }),
  };
}

/** A way along and up, metres, as it is seen on a face: that of the openings unless another is named. */
export interface Move {
  ds: number;
  dt: number;
  /** What is done, for the name of the edit. */
  what?: string;
  face?: FaceName | undefined;
}

/** Moves openings, all by the same way. */
export function moveAll(
  document: ProjectDocument,
  openings: readonly Opening[],
  { ds, dt, what = 'move', face = faceOf(openings) }: Move,
): ChangeSet {
  const places = new Map(
    boxesOf(document, openings, face).map((box) => [box.id, { s: box.s + ds, t: box.t + dt, face }]),
  );
  return edit(`${what} ${called(openings)}`, ...putTo(document, places));
}

/** Removes openings. Others that were measured from them stay where they stand, placed from the start. */
export function removeAll(document: ProjectDocument, openings: readonly Opening[]): ChangeSet {
  return edit(
    `remove ${called(openings)}`,
    ...loosened(document, openings),
    ...openings.map(({ id }) => removing('openings', id)),
  );
}

/** Openings that are measured from some that go away, each left where it stands. */
export function loosened(document: ProjectDocument, going: readonly Opening[]): Change[] {
  const gone = new Set(going.map(({ id }) => id));
  return Object.values(document.openings).flatMap((opening) => {
    if (gone.has(opening.id)) return [];
    const loose = freed(document, opening, (id) => gone.has(id));
    return loose === opening ? [] : [putting('openings', loose)];
  });
}

/** An opening that is no longer measured from some others, and left where it stands; itself where it is not. */
export function freed(document: ProjectDocument, opening: Opening, from: (id: string) => boolean): Opening {
  const loose = (way: Way): boolean => parentsOf(opening, way).some(from);
  if (!(loose('along') || loose('up'))) return opening;
  const placed = resolveOpening(document, opening);
  const [at, low] =
    'outline' in placed
      ? gripOffset(placed.profile, opening.grip).map((by, i) => by + (i === 0 ? placed.s : placed.t))
      : [opening.along.distance, opening.up.distance];
  return {
    ...opening,
    ...(loose('along') ? { along: { from: 'start', distance: tidy(at!) } } : {}),
    ...(loose('up') ? { up: { from: 'base', distance: tidy(low!) } } : {}),
  } as Opening;
}

/** Blocks openings up, or opens them where all of them are blocked up. */
export function blockAll(openings: readonly Opening[]): ChangeSet {
  const blockedUp = !openings.every((opening) => opening.blockedUp);
  return edit(
    `${blockedUp ? 'block up' : 'open up'} ${called(openings)}`,
    ...openings.map((opening) => putting('openings', { ...opening, blockedUp })),
  );
}

/** Gives openings the pattern and size of one of them, each still held by its grip. */
export function sizeAll(openings: readonly Opening[], like: Opening): ChangeSet {
  return edit(
    `make ${called(openings)} like ${like.mark}`,
    ...openings.map((opening) => {
      return putting('openings', { ...opening, pattern: like.pattern, size: like.size, own: like.own });
    }),
  );
}

/** How openings are to be spread. */
export interface SpreadWish {
  spacing: Spacing;
  /** Over the whole face, or with the outermost left where they stand. */
  over: 'face' | 'outermost';
  margins: Margins;
}

/** Spreads openings along their face, from first to last as they stand. Over the whole face they keep so spread when it grows longer. */
export function spreadAll(
  document: ProjectDocument,
  openings: readonly Opening[],
  wish: SpreadWish,
): ChangeSet | Impossible {
  const outcome = spreadPlaces(document, openings, wish);
  if ('reason' in outcome) return outcome;
  return edit(`spread ${called(openings)}`, ...putTo(document, outcome.places));
}

/** Where openings come to stand when they are spread, and the piers between them. */
export function spreadPlaces(
  document: ProjectDocument,
  openings: readonly Opening[],
  { spacing, over, margins }: SpreadWish,
): { places: Map<string, Place>; piers: number[] } | Impossible {
  const boxes = boxesOf(document, openings).sort((a, b) => a.s + a.width / 2 - b.s - b.width / 2);
  const first = boxes[0];
  const last = boxes.at(-1);
  const element = openings[0] && document.elements[openings[0].element];
  if (!first || !last || !element) return { reason: 'none of these has a place', mend: 'Mend them first.' };
  const face = faceOf(openings);
  const length = lengthOf(document, element, face);
  const widths = boxes.map(({ width }) => width);
  const [from, to] = over === 'face' ? [0, length] : [first.s, last.s + last.width];
  const ends = over === 'face' ? margins : { start: 0, end: spacing.kind === 'given pier' ? null : 0 };
  const now = spread(widths, { from, to }, spacing, { margins: ends, units: document.units });
  if ('reason' in now) return now;
  const longer =
    over === 'face'
      ? spread(widths, { from: 0, to: length + 1 }, spacing, { margins: ends, units: document.units })
      : null;
  const places = new Map<string, Place>();
  boxes.forEach((box, i) => {
    const s = now.lefts[i]!;
    const dx = gripOffset(box, document.openings[box.id]!.grip)[0];
    const along =
      longer && !('reason' in longer) ? followingLength(length, [s + dx, longer.lefts[i]! + dx]) : undefined;
    places.set(box.id, { s, t: box.t, face, ...(along ? { along } : {}) });
  });
  return { places, piers: now.piers };
}

/** Brings openings into line at a place: a distance along or a height on the face, metres. */
export function alignAll(
  document: ProjectDocument,
  openings: readonly Opening[],
  by: Alignment,
  to: number,
): ChangeSet {
  const face = faceOf(openings);
  const places = new Map(boxesOf(document, openings).map((box) => [box.id, { ...broughtTo(box, by, to), face }]));
  return edit(`align ${by} of ${called(openings)}`, ...putTo(document, places));
}

/** Evens out groups of openings that almost agree, one after the other. */
export function evenOut(document: ProjectDocument, groups: readonly Uneven[]): ChangeSet {
  const places = new Map<string, Place>();
  const touched = new Set(groups.flatMap(({ openings }) => openings.map(({ id }) => id)));
  const boxes = new Map(boxesOf(document, openingsOf(document, [...touched])).map((box) => [box.id, box]));
  for (const { by, openings, to } of groups)
    for (const { id } of openings) {
      const box = boxes.get(id);
      if (!box) continue;
      const place = broughtTo(box, by, to);
      boxes.set(id, { ...box, ...place });
      places.set(id, { ...place, face: box.face ?? 'outer' });
    }
  return edit(
    `even out ${called([...touched].flatMap((id) => document.openings[id] ?? []))}`,
    ...putTo(document, places),
  );
}

/** Openings of one pattern whose sizes agree within a tolerance, and the size that they would all have. */
export interface UnevenSizes {
  pattern: string;
  openings: Opening[];
  to: Opening;
}

/** Groups of openings whose dimensions almost agree. They would all be of the size that most of them have. */
export function unevenSizes(document: ProjectDocument, openings: readonly Opening[], tolerance: number): UnevenSizes[] {
  const found: UnevenSizes[] = [];
  for (const [pattern, all] of grouped(openings, (opening) => opening.pattern)) {
    const dimensions = (opening: Opening): number[] =>
      Object.values(opening.own ?? document.patterns[pattern]!.sizes[opening.size]?.dimensions ?? {});
    const key = (opening: Opening): string => (opening.own ? JSON.stringify(dimensions(opening)) : opening.size);
    // The most used first; each takes in what is near it.
    const left = [...grouped(all, key).values()].sort(
      (a, b) => b.length - a.length || (a[0]!.own ? 1 : 0) - (b[0]!.own ? 1 : 0),
    );
    while (left.length > 0) {
      const [lead] = left.shift()!;
      const near = left.filter(([other]) => {
        const [p, q] = [dimensions(lead!), dimensions(other!)];
        return p.length === q.length && p.every((value, i) => Math.abs(value - q[i]!) <= tolerance + nanometre);
      });
      if (near.length === 0) continue;
      for (const one of near) left.splice(left.indexOf(one), 1);
      found.push({ pattern, openings: near.flat(), to: lead! });
    }
  }
  return found;
}
