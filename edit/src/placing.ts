/** Placing an opening, changing it, and measuring it from somewhere else. */
import { alongTo, datumsOn, gripOffset, profileOfOpening, upTo } from '@yard-arch/core';
import { newId, putting, type Along, type ChangeSet, type Element, type Grip, type Opening, type Pattern, type ProjectDocument, type Up } from '@yard-arch/document';
import { edit } from './make.ts';

/** Gives out marks that no other opening has: the pattern's initial and the next number. */
export function marks(document: ProjectDocument): (pattern: Pattern) => string {
  const taken = new Set(Object.values(document.openings).map((opening) => opening.mark));
  let n = taken.size;
  return (pattern) => {
    const initial = (/[\p{L}]/u.exec(pattern.name)?.[0] ?? 'O').toUpperCase();
    let mark: string;
    do mark = `${initial}-${String(++n).padStart(2, '0')}`;
    while (taken.has(mark));
    taken.add(mark);
    return mark;
  };
}

/** Places an opening with its lower left corner at (s, t), held by a grip. Where that is on an axis or a datum, it is held to them. */
export function placeOpening(
  document: ProjectDocument,
  element: Element,
  placing: { pattern: string; size: string },
  s: number,
  t: number,
  grip: Grip = { across: 'centre', level: 'sill' },
): { changeSet: ChangeSet; id: string } {
  const pattern = document.patterns[placing.pattern]!;
  const id = newId('o');
  const profile = profileOfOpening(document, placing);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  const axis = Object.values(document.axes).find((a) => a.element === element.id && Math.abs(a.along - (s + dx)) < 1e-6);
  const datum = datumsOn(document, element).find((d) => Math.abs(d.level - element.start.z - (t + dy)) < 1e-6);
  const along: Along = axis ? { from: 'axis', axis: axis.id, distance: 0 } : alongTo(document, element, { from: 'start', distance: 0 }, s + dx);
  const up: Up = datum ? { from: 'datum', datum: datum.id, distance: 0 } : upTo(document, element, { from: 'base', distance: 0 }, t + dy);
  const opening: Opening = { id, mark: marks(document)(pattern), element: element.id, ...placing, along, up, grip, blockedUp: false };
  return { id, changeSet: edit(`place ${opening.mark}`, putting('openings', opening)) };
}

export function changeOpening(opening: Opening, over: Partial<Opening>, what: string): ChangeSet {
  return edit(`${what} ${opening.mark}`, putting('openings', { ...opening, ...over }));
}

/** The same opening at the same place, placed from somewhere else or by another grip. */
export function replaceIntent(document: ProjectDocument, opening: Opening, over: { along?: Along; up?: Up; grip?: Grip }, at: { s: number; t: number }): ChangeSet {
  const element = document.elements[opening.element]!;
  const grip = over.grip ?? opening.grip;
  const profile = profileOfOpening(document, opening);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  return edit(
    `place ${opening.mark} differently`,
    putting('openings', {
      ...opening,
      grip,
      along: alongTo(document, element, over.along ?? opening.along, at.s + dx),
      up: upTo(document, element, over.up ?? opening.up, at.t + dy),
    }),
  );
}
