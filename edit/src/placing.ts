/** Placing an opening, changing it, and measuring it from somewhere else. */
import {
  alongAt,
  alongTo,
  axesOn,
  axisOn,
  datumsOn,
  levelOn,
  overTo,
  gripOffset,
  profileOfOpening,
  tidy,
  upAt,
  upTo,
  type Hold,
} from '@yard-arch/core';
import {
  faceLabel,
  isManyFaced,
  omit,
  measuredFrom,
  newId,
  parentsOf,
  putting,
  type Along,
  type ChangeSet,
  type Element,
  type FaceName,
  type Grip,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type Up,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { ownPlace } from './many.ts';
import { micrometre } from '@yard-arch/core';

/** Gives out marks that no other opening has: the pattern's initial and the next number. */
export function marks(document: ProjectDocument): (pattern: Pattern) => string {
  const taken = marksIn(document);
  return (pattern) => freeMark(taken, pattern);
}

/** The marks that openings of a document have. */
export const marksIn = (document: ProjectDocument): Set<string> =>
  new Set(Object.values(document.openings).map(({ mark }) => mark));

/** Gives out a mark that is not taken yet, and takes it. */
export function freeMark(taken: Set<string>, pattern: Pattern): string {
  const initial = (/[\p{L}]/u.exec(pattern.name)?.[0] ?? 'O').toUpperCase();
  let n = taken.size;
  let mark: string;
  do mark = `${initial}-${String(++n).padStart(2, '0')}`;
  while (taken.has(mark));
  taken.add(mark);
  return mark;
}

/** Where an opening comes to stand: its lower left corner, metres, and what it is held to there. */
export interface Spot {
  s: number;
  t: number;
  /** The face on which that is told; the opening's own where nothing is said. What it came into line with holds on its own face only. */
  face?: FaceName | undefined;
  holds?: readonly Hold[];
}

/** An opening put to a spot: held to what it came into line with, or else still measured from what it is measured from. It is never held to what is itself measured from it. */
export function putAt(document: ProjectDocument, element: Element, opening: Opening, spot: Spot): Opening {
  const { t } = spot;
  const holds = spot.face === undefined || spot.face === (opening.face ?? 'outer') ? (spot.holds ?? []) : [];
  const free = (way: 'along' | 'up', measure: Along | Up): boolean => {
    const parents = parentsOf({ ...opening, [way]: measure }, way);
    if (parents.length === 0) return true;
    const own = measuredFrom(document, opening.id, way);
    return parents.every((id) => !own.has(id));
  };
  let { along, up, grip } = opening;
  for (const hold of holds) {
    if (hold.along && free('along', hold.along)) {
      along = hold.along;
      grip = { ...grip, across: hold.across ?? grip.across };
    }
    if (hold.up && free('up', hold.up)) {
      up = hold.up;
      grip = { ...grip, level: hold.level ?? grip.level };
    }
  }
  const profile = profileOfOpening(document, opening);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  return {
    ...opening,
    grip,
    along: alongTo(document, element, along, {
      s: ownPlace(document, opening, spot, profile?.width ?? 0) + dx,
      face: opening.face,
    }),
    up: upTo(document, element, up, { t: t + dy, face: opening.face }),
  };
}

/** Places an opening at a spot, held by a grip. What it came into line with there it is held to, and so is what lies on an axis or a datum. */
export function placeOpening(
  document: ProjectDocument,
  element: Element,
  placing: { pattern: string; size: string },
  { grip = { across: 'centre', level: 'sill' }, ...spot }: Spot & { grip?: Grip },
): { changeSet: ChangeSet; id: string } {
  const pattern = document.patterns[placing.pattern]!;
  const face = spot.face ?? 'outer';
  const profile = profileOfOpening(document, placing);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  const axis = axesOn(document, element, face).find(
    (a) => Math.abs(axisOn(document, element, a.along, face) - (spot.s + dx)) < micrometre,
  );
  const datum = datumsOn(document, element, face).find(
    (d) => Math.abs((levelOn(document, element, d.level, face) ?? Infinity) - (spot.t + dy)) < micrometre,
  );
  const plain: Opening = {
    id: newId('o'),
    mark: marks(document)(pattern),
    element: element.id,
    ...(face === 'outer' ? {} : { face }),
    ...placing,
    along: axis ? { from: 'axis', axis: axis.id, distance: 0 } : { from: 'start', distance: 0 },
    up: datum ? { from: 'datum', datum: datum.id, distance: 0 } : { from: 'base', distance: 0 },
    grip,
    blockedUp: false,
  };
  const opening = putAt(document, element, plain, spot);
  return { id: opening.id, changeSet: edit(`place ${opening.mark}`, putting('openings', opening)) };
}

/** Moves one opening to a spot. */
export function moveTo(document: ProjectDocument, opening: Opening, spot: Spot): ChangeSet {
  return edit(
    `move ${opening.mark}`,
    putting('openings', putAt(document, document.elements[opening.element]!, opening, spot)),
  );
}

/** Lets an opening go of what it is held to, along or up: it stays where it stands, measured from the start or the base. */
export function letGoOf(document: ProjectDocument, opening: Opening, way: 'along' | 'up'): ChangeSet {
  const element = document.elements[opening.element]!;
  const { face } = opening;
  const [along, up] = [
    alongAt(document, element, opening.along, face) ?? 0,
    upAt(document, element, opening.up, face) ?? 0,
  ];
  return edit(
    `let ${opening.mark} go`,
    putting(
      'openings',
      way === 'along'
        ? { ...opening, along: { from: 'start', distance: tidy(along) } }
        : { ...opening, up: { from: 'base', distance: tidy(up) } },
    ),
  );
}

export function changeOpening(opening: Opening, over: Partial<Opening>, what: string): ChangeSet {
  return edit(`${what} ${opening.mark}`, putting('openings', { ...opening, ...over }));
}

/** The same opening at the same place, placed from somewhere else or by another grip. */
export function replaceIntent(
  document: ProjectDocument,
  opening: Opening,
  over: { along?: Along; up?: Up; grip?: Grip },
  at: { s: number; t: number },
): ChangeSet {
  const element = document.elements[opening.element]!;
  const grip = over.grip ?? opening.grip;
  const profile = profileOfOpening(document, opening);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  return edit(
    `place ${opening.mark} differently`,
    putting('openings', {
      ...opening,
      grip,
      along: alongTo(document, element, over.along ?? opening.along, { s: at.s + dx, face: opening.face }),
      up: upTo(document, element, over.up ?? opening.up, { t: at.t + dy, face: opening.face }),
    }),
  );
}

/** Sets an opening out on the other face, where it stands: it keeps its size, and is measured from that face's start; what its reveal says is counted from there. */
export function setOutOn(document: ProjectDocument, opening: Opening, face: FaceName): ChangeSet {
  const element = document.elements[opening.element]!;
  const profile = profileOfOpening(document, opening);
  // Faces of many have no place in common: it keeps its figures.
  if (isManyFaced(element)) {
    const on: Opening = face === 'outer' ? omit(opening, 'face') : { ...opening, face };
    return edit(`set ${opening.mark} out on the ${faceLabel(element, face)}`, putting('openings', on));
  }
  const [dx] = profile ? gripOffset(profile, opening.grip) : [0];
  const width = profile?.width ?? 0;
  const left = (alongAt(document, element, opening.along, opening.face) ?? 0) - dx!;
  const s = overTo(document, element, left + width / 2, face) - width / 2;
  const mirrored = { left: 'right', centre: 'centre', right: 'left' } as const;
  const grip = { ...opening.grip, across: mirrored[opening.grip.across] };
  const [over] = profile ? gripOffset(profile, grip) : [0];
  const on: Opening = { ...opening, grip, along: { from: 'start', distance: tidy(s + over!) } };
  if (face === 'inner') on.face = face;
  else delete on.face;
  return edit(`set ${opening.mark} out on the ${faceLabel(element, face)}`, putting('openings', on));
}
