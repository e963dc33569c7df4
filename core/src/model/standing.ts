/** How the openings of an element stand on it: for the cut, and for what stands in and about them. */
import { isBarrel, isManyFaced, isSetIn, isShell, type Element, type Opening } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import { placementOf } from '../infill/carried.ts';
import { flankBefore } from '../infill/lunette.ts';
import { roomsOf } from '../infill/set-in.ts';
import { across } from '../setout/across.ts';
import { levelSeat } from '../setout/level-seat.ts';
import { aimOf, levelAim, onOwnFace, projectOnto } from '../setout/project.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import { seatOn } from './cut-shell.ts';
import { guardedPlace } from './guard.ts';
import type { Scene } from './scene.ts';

export interface Standing {
  /** Each of the element's openings as it is cut, or why it cannot be placed. */
  own: readonly (Placed | Unplaced)[];
  /** Those that carry parts, each on its own face. */
  setOut: readonly Placed[];
  /** The room that parts take which are let in. */
  rooms: readonly Placed[];
  /** The sheet that the parts of an opening stand on. */
  seatOf: (opening: Placed) => Sheet;
  /** Why parts are not let in, by opening and part. */
  unlet: readonly (readonly [string, string])[];
}

/** Where an opening's parts stand. */
interface Stand {
  placed: Placed;
  /** A sheet of its own, where it has one. */
  sheet?: Sheet;
}

export function standingOn(scene: Scene, element: Element): Standing {
  const setOut: Placed[] = [];
  // What goes into a shell square to its back has a sheet of its own there.
  const seats = new Map<string, Sheet>();
  const own = scene.openingsOf(element.id).map((opening) =>
    guardedPlace(opening, () => {
      const resolved = scene.resolved(opening);
      const stand = standOf(scene, element, opening, resolved);
      if (stand?.sheet) seats.set(stand.placed.id, stand.sheet);
      if (stand) setOut.push(stand.placed);
      return aimed(element, scene.sheetOn(element, opening.face), opening, resolved);
    }),
  );
  const seatOf = ({ id, face }: Placed): Sheet => seats.get(id) ?? scene.sheetOn(element, face);
  const { units } = scene.document;
  return {
    own,
    setOut,
    rooms: setOut.flatMap((one) => (seats.has(one.id) ? [] : roomsOf(seatOf(one), one, units))),
    seatOf,
    unlet: setOut.flatMap((one) => (seats.has(one.id) ? unletIn(one) : [])),
  };
}

/** Where the parts of an opening stand; null where it has none, or they have no place. */
function standOf(scene: Scene, element: Element, opening: Opening, resolved: Placed | Unplaced): Stand | null {
  if (!('outline' in resolved) || !(resolved.pattern.parts?.length || resolved.pattern.infill)) return null;
  const on = scene.sheetOn(element, resolved.face);
  const own = resolved.face === 'inner' ? turnedOver(scene.sheets.of(element.id)!).sheet : on;
  const seat = opening.aim ? null : seatFor(scene, element, own, resolved);
  if (seat) return 'outline' in seat.placed ? { placed: seat.placed, sheet: seat.sheet } : null;
  // What goes down through many faces has no seat for parts.
  const seated =
    !levelled(element, resolved) && !isShell(element) && (opening.face !== undefined || !isManyFaced(element));
  const stands = seated ? onOwnFace(own, opening, resolved) : null;
  return stands && 'outline' in stands ? { placed: withFlank(stands, on, scene.barrelsOf(opening)) } : null;
}

/** The sheet that an opening has to itself in a vault or a dome. */
function seatFor(
  { sheets }: Scene,
  element: Element,
  own: Sheet,
  resolved: Placed,
): ReturnType<typeof seatOn> | ReturnType<typeof levelSeat> {
  const shell = sheets.shell(element.id);
  if (shell) return seatOn(element, shell, sheets.of(element.id)!, resolved);
  return levelled(element, resolved) ? levelSeat(own, resolved) : null;
}

/** Why parts are not let in that would have to be, where their opening has a seat of its own. */
const unletIn = ({ id, pattern }: Placed): [string, string][] =>
  (pattern.parts ?? [])
    .filter(isSetIn)
    .map((part): [string, string] => [
      `${id} / ${part.id}`,
      'cannot be let in where its opening goes through a vault or a dome in its own direction',
    ]);

const levelled = (element: Element, resolved: Placed | Unplaced): boolean =>
  'outline' in resolved && resolved.pattern.inBarrels === 'level' && isBarrel(element);

/** An opening with the flank of the barrel that its lunette runs to, where it has one. @param own its element's sheet @param barrels that it cuts as well */
function withFlank(placed: Placed, own: Sheet, barrels: readonly Sheet[]): Placed {
  if (!placed.pattern.parts?.some(({ kind }) => kind === 'lunette')) return placed;
  const placement = placementOf(placed.face === 'inner' ? turnedOver(own).sheet : own, placed);
  for (const { chart, height } of barrels) {
    const flank = flankBefore(chart, height, placement);
    if (flank) return { ...placed, flank };
  }
  return placed;
}

/** An opening on its element's outer face, as it asks to be carried: where it has an aim, or goes level into a barrel, its outline is projected on to that. */
function aimed(element: Element, sheet: Sheet, opening: Opening, resolved: Placed | Unplaced): Placed | Unplaced {
  if (!('outline' in resolved)) return resolved;
  const isInner = resolved.face === 'inner';
  if (!opening.aim && !levelled(element, resolved)) return isInner ? across(sheet, resolved) : resolved;
  const own = isInner ? turnedOver(sheet).sheet : sheet;
  const aim = opening.aim ? aimOf(own, opening, resolved) : levelAim(own, resolved);
  if (!isInner) return projectOnto(sheet, resolved, aim);
  const { from, depth, sections } = across(sheet, resolved);
  return projectOnto(
    sheet,
    { ...resolved, ...(from ? { from } : {}), depth, sections, face: 'outer', own: 'inner' },
    aim,
  );
}
