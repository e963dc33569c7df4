/** Edits of vaults: bays made of barrels, over rectangles and regular polygons, repeated in rows. */
import { resolveOpening, sheetsOf, tidy, tidyAngle, type Impossible } from '@yard-arch/core';
import {
  isInPlan,
  kinds,
  newId,
  omit,
  putting,
  type Bay,
  type ChangeSet,
  type Element,
  type Opening,
  type ProjectDocument,
  type Vault,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { marks } from './placing.ts';

type Corner = Bay['corners'][number];

const round = (x: number, y: number): Corner => ({ x: tidy(x), y: tidy(y) });

/** The corners of a rectangle from the start, so wide and so deep, metres. */
export const rectangleCorners = (width: number, depth: number): Corner[] => [
  round(0, 0),
  round(width, 0),
  round(width, depth),
  round(0, depth),
];

/** The corners of a regular polygon, its first side from the start along x, so long (metres). */
export function regularCorners(sides: number, long: number): Corner[] {
  const turn = (2 * Math.PI) / sides;
  let [x, y] = [0, 0];
  return Array.from({ length: sides }, (_, i) => {
    const corner = round(x, y);
    [x, y] = [x + long * Math.cos(i * turn), y + long * Math.sin(i * turn)];
    return corner;
  });
}

/** What a bay stands over: a rectangle, a regular polygon, or corners of its own. */
export type BayBase =
  | { over: 'rectangle'; width: number; depth: number }
  | { over: 'regular'; sides: number; long: number }
  | { over: 'own' };

const alike = (a: readonly Corner[], b: readonly Corner[]): boolean =>
  a.length === b.length && a.every(({ x, y }, i) => Math.hypot(x - b[i]!.x, y - b[i]!.y) < 1e-6);

/** What a bay's corners are. */
export function baseOf({ corners }: Bay): BayBase {
  const [, second, third] = corners as [Corner, Corner, Corner];
  if (alike(corners, rectangleCorners(second.x, third.y)))
    return { over: 'rectangle', width: second.x, depth: third.y };
  if (alike(corners, regularCorners(corners.length, second.x)))
    return { over: 'regular', sides: corners.length, long: second.x };
  return { over: 'own' };
}

/** A bay over a rectangle or a regular polygon. */
export function setBase(bay: Bay, base: Exclude<BayBase, { over: 'own' }>): ChangeSet {
  const corners =
    base.over === 'rectangle' ? rectangleCorners(base.width, base.depth) : regularCorners(base.sides, base.long);
  return edit(`redraw ${bay.name}`, putting('elements', { ...bay, corners }));
}

/** Which way the ends of a barrel look: where it begins, and where it is at its end. */
export function barrelEnds({ turn }: Vault): { start: string; end: string } {
  const way = (degrees: number): string =>
    ['east', 'north-east', 'north', 'north-west', 'west', 'south-west', 'south', 'south-east'][
      ((Math.round(degrees / 45) % 8) + 8) % 8
    ]!;
  return { start: way(turn - 90), end: way(turn + 90) };
}

/** So far below the springing a wall at a barrel's end begins, where no other wall says how far the floor is, metres. */
const usualStand = 2.4;

/** Walls up an end of a barrel: a wall flush with it, as thick as its layers, whose top is under it; from the foot of the lowest wall that stands beside it. */
export function wallUpEnd(
  document: ProjectDocument,
  vault: Vault,
  which: 'start' | 'end',
): { changeSet: ChangeSet; id: string } {
  const { span, length, turn, start } = vault;
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const at = (x: number, y: number): [number, number] => [start.x + cos * x - sin * y, start.y + sin * x + cos * y];
  // Its outer face looks out of the vault, on the right of its course.
  const [x, y] = which === 'start' ? at(0, 0) : at(span, length);
  const feet = Object.values(document.elements).flatMap((element) => {
    if (!isInPlan(element) || element.start.z > start.z - 0.1) return [];
    const [dx, dy] = [element.start.x - start.x, element.start.y - start.y];
    const [along, up] = [cos * dx + sin * dy, cos * dy - sin * dx];
    return along > -1.5 && along < span + 1.5 && up > -1.5 && up < length + 1.5 ? [element.start.z] : [];
  });
  const foot = feet.length > 0 ? Math.min(...feet) : start.z - usualStand;
  const id = newId('w');
  const ends = barrelEnds(vault);
  const wall: Element = {
    ...kinds.wall.fresh(
      {
        id,
        name: `${vault.name}, ${ends[which]} end`,
        start: { x: tidy(x), y: tidy(y), z: tidy(foot) },
        turn: tidyAngle(which === 'start' ? turn : turn + 180),
      },
      vault.layers.at(-1)!.material,
    ),
    length: span,
    height: tidy(start.z - foot),
    top: { kind: 'under', roof: vault.id },
  };
  return { id, changeSet: edit(`wall up the ${ends[which]} end of ${vault.name}`, putting('elements', wall)) };
}

/** Makes a groin or cloister vault of a barrel, over the same rectangle. What is set out on a barrel has no place on it. */
export function bayOfBarrel(
  document: ProjectDocument,
  vault: Vault,
  severies: 'groin' | 'cloister',
): ChangeSet | Impossible {
  if (Object.values(document.openings).some(({ element }) => element === vault.id))
    return {
      reason: `${vault.name} has openings, which are set out on its unrolled face`,
      mend: 'Move them to another element or remove them first.',
    };
  const { span, length, profile } = vault;
  const least = Math.min(span, length) / 2;
  // A round profile over the narrower way rises by half of it at most.
  const rise =
    (profile ?? 'segment') === 'segment' ? Math.min(vault.rise, severies === 'groin' ? span / 2 : least) : vault.rise;
  const bay: Bay = {
    ...omit(vault, 'span', 'length', 'kind', 'profile', 'rise', 'arches'),
    kind: 'bay',
    rise: tidy(rise),
    severies,
    ...(profile ? { profile } : {}),
    corners: rectangleCorners(span, length),
  };
  return edit(`make a ${severies} vault of ${vault.name}`, putting('elements', bay));
}

/** Repeats a bay over a rectangle in rows, side by side: so many along and so many across, itself counted. */
export function bayRows(
  document: ProjectDocument,
  bay: Bay,
  along: number,
  across: number,
): { changeSet: ChangeSet; ids: string[] } | Impossible {
  const base = baseOf(bay);
  if (base.over !== 'rectangle')
    return { reason: 'only bays over a rectangle stand side by side in rows', mend: 'Let it stand over a rectangle.' };
  if (along * across < 2) return { reason: 'one bay is there already', mend: 'Ask for more than one.' };
  if (along * across > 400)
    return { reason: `${along * across} bays are more than can be made at once`, mend: 'Ask for at most 400.' };
  const names = new Set(Object.values(document.elements).map(({ name }) => name));
  const [cos, sin] = [Math.cos((bay.turn * Math.PI) / 180), Math.sin((bay.turn * Math.PI) / 180)];
  const made: Element[] = [];
  let n = 2;
  for (let j = 0; j < across; j++)
    for (let i = 0; i < along; i++) {
      if (i === 0 && j === 0) continue;
      while (names.has(`${bay.name} ${n}`)) n++;
      const [dx, dy] = [i * base.width, j * base.depth];
      made.push({
        ...bay,
        id: newId('b'),
        name: `${bay.name} ${n++}`,
        start: { ...round(bay.start.x + cos * dx - sin * dy, bay.start.y + sin * dx + cos * dy), z: bay.start.z },
        ...(bay.group ? {} : { group: bay.name }),
      });
    }
  const first = bay.group ? [] : [putting('elements', { ...bay, group: bay.name })];
  return {
    ids: made.map(({ id }) => id),
    changeSet: edit(
      `repeat ${bay.name} ${along} by ${across}`,
      ...first,
      ...made.map((element) => putting('elements', element)),
    ),
  };
}

/** Repeats an opening of a dome in a run about its axis, so many in all, each at the same height and turned with the dome. */
export function aboutAxis(
  document: ProjectDocument,
  opening: Opening,
  count: number,
): { changeSet: ChangeSet; ids: string[] } | Impossible {
  const placed = resolveOpening(document, opening);
  const sheet = sheetsOf(document).of(opening.element);
  if (!('outline' in placed) || !sheet || document.elements[opening.element]?.kind !== 'dome')
    return { reason: 'it has no place on a dome', mend: 'Place it on a dome first.' };
  const { width, height } = placed.profile;
  const [cx, cy] = [sheet.length / 2, sheet.height / 2];
  const [dx, dy] = [placed.s + width / 2 - cx, placed.t + height / 2 - cy];
  const round = Math.hypot(dx, dy);
  if (round < 1e-3)
    return { reason: 'it stands on the axis itself', mend: 'Move it away from the middle of the dome first.' };
  if (2 * round * Math.sin(Math.PI / count) < Math.max(width, height))
    return {
      reason: `${count} of them would run into one another so near to the axis`,
      mend: 'Ask for fewer, make them smaller, or move the first further out.',
    };
  const mark = marks(document);
  const pattern = document.patterns[opening.pattern]!;
  const copies = Array.from({ length: count - 1 }, (_, i): Opening => {
    const angle = Math.atan2(dy, dx) + (2 * Math.PI * (i + 1)) / count;
    return {
      ...opening,
      id: newId('o'),
      mark: mark(pattern),
      along: { from: 'start', distance: tidy(cx + round * Math.cos(angle)) },
      up: { from: 'base', distance: tidy(cy + round * Math.sin(angle)) },
      grip: { across: 'centre', level: 'middle' },
    };
  });
  return {
    ids: copies.map(({ id }) => id),
    changeSet: edit(`repeat ${opening.mark} about the axis`, ...copies.map((copy) => putting('openings', copy))),
  };
}
