/** Dragging openings on the sheet, or copies of them, and datums and axes. */
import { axisFrom, axisOn, type Box } from '@yard-arch/core';
import {
  parseLength,
  type ChangeSet,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { copyBy, moveAll, moveLine, moveTo, type Line } from '@yard-arch/edit';
import type { Ghost } from '../../boards/drawn.ts';
import type { Gesture, Press } from '../../boards/gesture.ts';
import { chooseOpening, chooseOpenings } from '../../state/choice.ts';
import { useEditor } from '../../state/state.ts';
import { commit, preview } from '../../state/store.ts';
import { awayFrom, holdsOf, type SheetDesk } from './desk.ts';

interface Dragged {
  openings: readonly Opening[];
  /** Of the one that was pressed. */
  box: Box;
  others: readonly Box[];
  copy: boolean;
}

/** Drags openings, the one that was pressed coming into line with what is about it. */
export function dragging(desk: SheetDesk, press: Press, held: Dragged): Gesture {
  const { box, openings, copy } = held;
  const { face, view } = desk.now;
  let last: Ghost | null = null;
  const movedBy = (ds: number, dt: number): { changeSet: ChangeSet; ids: string[] } =>
    copy
      ? copyBy(desk.now.committed, [...openings], { ds, dt, times: 1, link: 'linked', face })
      : {
          changeSet: moveAll(desk.now.committed, [...openings], { ds, dt, what: 'move', face }),
          ids: openings.map(({ id }) => id),
        };
  const finish = (ds: number, dt: number, spot: Ghost | null): void => {
    const [only, second] = openings;
    // One that is moved by itself is held to what it came into line with; several keep what they are held to.
    if (only && !second && !copy) {
      const to = { s: box.s + ds, t: box.t + dt, face, holds: spot ? holdsOf(spot) : [] };
      return void commit(moveTo(desk.now.committed, only, to));
    }
    const { changeSet, ids } = movedBy(ds, dt);
    if (!commit(changeSet) || !copy) return;
    useEditor.setState({ lastCopy: { ds, dt } });
    chooseOpenings(ids);
  };
  return {
    move: (spot) => {
      const by = awayFrom(press, spot, view);
      const moved = { ...box, s: box.s + by.s, t: box.t + by.t };
      last = desk.snapped(moved, copy ? desk.now.shown.boxes : held.others, spot.free);
      desk.show({ dragged: { box, at: last } });
      preview(movedBy(last.s - box.s, last.t - box.t).changeSet);
    },
    drop: () => (last ? finish(last.s - box.s, last.t - box.t, last) : preview(null)),
    giveUp: () => preview(null),
    click: () => chooseOpening(box.id),
    typing: () => {
      if (!last) return null;
      const [ds, dt] = [last.s - box.s, last.t - box.t];
      const along = Math.abs(ds) >= Math.abs(dt);
      return {
        label: along ? 'Move along by' : 'Move up by',
        hint: 'or along; up',
        take: (text) => {
          const given = lengthsOf(text, desk.now.committed);
          if (typeof given === 'string') return given;
          const [a, b] = given;
          // A figure without a sign goes the way in which the drag was going.
          const way = (towards: number): number => (text.trim().startsWith('-') ? a : a * (towards < 0 ? -1 : 1));
          const [x, y] = b !== undefined ? [a, b] : along ? [way(ds), 0] : [0, way(dt)];
          finish(x, y, null);
          return null;
        },
      };
    },
  };
}

/** One length, or two with a semicolon between, in metres; or why they are not. */
export function lengthsOf(text: string, { units }: ProjectDocument): [number, number | undefined] | string {
  const parts = text.split(';').map((part) => parseLength(part.trim(), units));
  if (parts.some((part) => part === null) || parts.length > 2)
    return 'Type a length, or two with a semicolon between: 1200; 900';
  return parts as [number, number | undefined];
}

/** Where a line is: its level, or how far along a face, metres. */
export const placeOn = (line: Line, document: ProjectDocument, element: Element, face: FaceName): number =>
  line.kind === 'datum' ? line.datum.level : axisOn(document, element, line.axis.along, face);

/** Moves a line to a place on the face that the sheet shows. */
export function lineMoved({ now: { committed, element, face } }: SheetDesk, line: Line, at: number): ChangeSet {
  const told = line.kind === 'datum' ? at : Math.round(axisFrom(committed, element, at, face) * 1e6) / 1e6;
  return moveLine(committed, line, told);
}

/** Drags a datum or an axis, by whole centimetres or freely. */
export function draggingLine(desk: SheetDesk, press: Press, line: Line): Gesture {
  const { committed, element, face, view } = desk.now;
  const began = placeOn(line, committed, element, face);
  let last: number | null = null;
  return {
    move: (spot) => {
      const by = awayFrom(press, spot, view);
      const step = spot.free ? 1000 : 100;
      last = Math.round((began + (line.kind === 'datum' ? by.t : by.s)) * step) / step;
      preview(lineMoved(desk, line, last));
    },
    drop: () => (last === null ? preview(null) : void commit(lineMoved(desk, line, last))),
    giveUp: () => preview(null),
  };
}
