/** What keys do on the sheet. */
import { facesOf } from '@yard-arch/document';
import { heldTo, moveAll, openingsOf, removeLine, type Line } from '@yard-arch/edit';
import { runByKey } from '../commands/commands.ts';
import { arrowOf } from '../common/keys.ts';
import { useKeys } from '../commands/use-keys.ts';
import { complain } from '../common/notices.tsx';
import { choose, chooseOpening, chooseOpenings, place, slide, tape } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import type { SheetDesk } from './gestures/desk.ts';
import { lineMoved, placeOn } from './gestures/move.ts';

/** Steps of the arrow keys, metres: alone, with Shift, with Alt. */
const steps = [0.01, 0.1, 0.001] as const;

interface SheetKeys {
  desk: SheetDesk;
  /** The middle of the face, where placing by keys begins. */
  middle: { s: number; t: number };
  showWhole: () => void;
  nearer: (factor: number) => void;
}

export function useSheetKeys({ desk, middle, showWhole, nearer }: SheetKeys): void {
  useKeys(
    {
      giveUp: () => letGo(desk),
      nudge: (event) => nudged(desk, event, middle),
      putDown: () => {
        if (!useEditor.getState().placing) return false;
        const spot = desk.over.ghost ?? desk.ghostAt(middle, false);
        if (spot) desk.putDown(spot);
        return true;
      },
      all: () => chooseOpenings(desk.now.shown.boxes.map(({ id }) => id)),
      copy: () => runByKey('copy'),
      paste: () => runByKey('paste'),
      copyOn: () => runByKey('copyOn'),
      blockUp: () => runByKey('blockUp'),
      tape: () => runByKey('tape'),
      turnOver: () => facesOf(desk.now.element).length > 1 && runByKey('turnOver'),
      whole: showWhole,
      nearer: () => nearer(1.25),
      farther: () => nearer(1 / 1.25),
      remove: ({ target }) => {
        const line = desk.now.lineAt(target as Element);
        if (!line) return runByKey('remove');
        takeAway(desk, line);
        return true;
      },
    },
    desk.now.svg,
  );
}

/** Puts away what is being done, one thing after the other; at last what is chosen is let go. */
function letGo(desk: SheetDesk): void {
  const { placing, taping, sliding } = useEditor.getState();
  if (placing) place(null);
  else if (desk.over.tape) desk.show({ tape: null });
  else if (taping) tape(false);
  else if (sliding) slide(false);
  else choose({ kind: 'wall' });
}

/** Moves what is about to be placed, the line that has the focus, or the chosen openings. */
function nudged(desk: SheetDesk, event: KeyboardEvent, middle: { s: number; t: number }): boolean {
  const [ds, dt] = arrowOf(event, steps);
  const { committed, element, face, lineAt } = desk.now;
  const { placing, chosen } = useEditor.getState();
  if (placing) {
    const spot = desk.over.ghost ?? desk.ghostAt(middle, true);
    if (spot) desk.show({ ghost: { s: spot.s + 10 * ds, t: spot.t + 10 * dt, along: null, up: null } });
    return true;
  }
  const line = lineAt(event.target as Element);
  if (line) {
    const by = line.kind === 'datum' ? dt : ds;
    const to = Math.round((placeOn(line, committed, element, face) + by) * 1e6) / 1e6;
    if (by !== 0) commit(lineMoved(desk, line, to));
    return true;
  }
  const openings = openingsOf(committed, chosenIds(chosen));
  if (openings.length === 0) return false;
  commit(moveAll(committed, openings, { ds, dt, what: 'nudge', face }));
  return true;
}

/** Removes a line to which nothing is held; one to which something is, is chosen instead, and its particulars ask. */
function takeAway({ now: { committed } }: SheetDesk, line: Line): void {
  const held = heldTo(committed, line).length;
  if (held === 0) return void commit(removeLine(committed, line));
  chooseLine(line);
  complain(
    `${line.kind === 'datum' ? line.datum.name : `Axis ${line.axis.name}`} was not removed`,
    `${held} opening${held === 1 ? ' is' : 's are'} held to it. Its particulars show them, and remove it with the openings left where they are.`,
  );
}

export const chooseLine = (line: Line): void =>
  choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });

/** Enter and Space choose the opening or the line that has the focus. @returns whether one had it. */
export function activated({ now }: SheetDesk, { key, shiftKey, target }: KeyPress): boolean {
  if ((key !== 'Enter' && key !== ' ') || useEditor.getState().placing) return false;
  const line = now.lineAt(target as Element);
  if (line) {
    chooseLine(line);
    return true;
  }
  const opening = (target as Element).closest('[data-opening]')?.getAttribute('data-opening');
  if (!opening) return false;
  chooseOpening(opening, shiftKey);
  return true;
}

type KeyPress = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'target'>;
