/** What keys do on the sheet. */
import { facesOf, type Element, type FaceName, type ProjectDocument } from '@yard-arch/document';
import { blockAll, heldTo, type Line, moveAll, moveLine, openingsOf, removeAll, removeLine } from '@yard-arch/edit';
import type { KeyboardEvent } from 'react';
import { complain, notify } from '../common/notices.tsx';
import { copyOn, paste } from '../state/clipboard.ts';
import { choose, chooseOpening, chooseOpenings, place, slide, tape, turnOver, underDialog } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import type { OnElement } from '../boards/sheet-data.ts';
import { placeFrom, placeOn, type useGestures } from './use-gestures.ts';

interface Keys {
  element: Element;
  face: FaceName;
  committed: ProjectDocument;
  shown: OnElement;
  chosen: readonly string[];
  placing: { pattern: string; size: string } | null;
  length: number;
  tall: number;
  lineAt: (target: globalThis.Element) => Line | null;
  gestures: ReturnType<typeof useGestures>;
  showWhole: () => void;
  nearer: (factor: number) => void;
}

/** The handler of keys for the sheet as it stands. */
export function sheetKeys(sheet: Keys): (event: KeyboardEvent) => void {
  return (event) => {
    if (underDialog(event.key)) return;
    const used = event.ctrlKey || event.metaKey ? withControl(sheet, event.key.toLowerCase()) : plain(sheet, event);
    if (!used) return;
    event.preventDefault();
    event.stopPropagation();
  };
}

function withControl({ element, committed, shown, chosen }: Keys, key: string): boolean {
  const openings = openingsOf(committed, chosen);
  if (key === 'a') chooseOpenings(shown.boxes.map(({ id }) => id));
  else if (key === 'c' && openings.length > 0) {
    useEditor.setState({ clip: { kind: 'openings', ids: chosen } });
    notify(
      `${openings.length === 1 ? openings[0]!.mark : `${openings.length} openings`} to be pasted: choose a wall, then Ctrl V`,
    );
  } else if (key === 'v') return paste(committed, element);
  else if (key === 'd' && openings.length > 0) copyOn(committed, chosen);
  else return false;
  return true;
}

function plain(
  { element, face, committed, chosen, placing, length, tall, lineAt, gestures, showWhole, nearer }: Keys,
  event: KeyboardEvent,
): boolean {
  const { gesture, ghost, setGhost, ghostAt, putDown, endGesture, tape: laid, setTape, typing, setTyped } = gestures;
  const target = event.target as globalThis.Element;
  const focused = target.closest('[data-opening]')?.getAttribute('data-opening');
  const line = lineAt(target);
  const step = event.shiftKey ? 0.1 : event.altKey ? 0.001 : 0.01;
  const ways: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  };
  const [ds, dt] = ways[event.key] ?? [0, 0];
  const arrow = ds !== 0 || dt !== 0;
  const openings = openingsOf(committed, chosen);
  const { key } = event;
  if (/^[\d.-]$/.test(key) && typing()) setTyped(key);
  else if (key === 'Escape') {
    if (gesture.current) endGesture(false);
    else if (placing) place(null);
    else if (laid) setTape(null);
    else if (useEditor.getState().taping) tape(false);
    else if (useEditor.getState().sliding) slide(false);
    else choose({ kind: 'wall' });
  } else if (placing && arrow) {
    setGhost((before) => {
      const spot = before ?? ghostAt(length / 2, tall / 2, true);
      return spot && { s: spot.s + 10 * ds, t: spot.t + 10 * dt, along: null, up: null };
    });
  } else if (placing && key === 'Enter') {
    const spot = ghost ?? ghostAt(length / 2, tall / 2, false);
    if (spot) putDown(spot);
  } else if (line && (key === 'Enter' || key === ' '))
    choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
  else if (line && arrow) {
    const by = line.kind === 'datum' ? dt : ds;
    if (by !== 0)
      commit(
        moveLine(
          committed,
          line,
          placeFrom(
            line,
            Math.round((placeOn(line, committed, element, face) + by) * 1e6) / 1e6,
            committed,
            element,
            face,
          ),
        ),
      );
  } else if (line && (key === 'Delete' || key === 'Backspace')) takeAway(committed, line);
  else if (focused && (key === 'Enter' || key === ' ')) chooseOpening(focused, event.shiftKey);
  else if (key === '0') showWhole();
  else if (key === '+' || key === '=' || key === '-') nearer(key === '-' ? 1 / 1.25 : 1.25);
  else if (key.toLowerCase() === 'o' && facesOf(element).length > 1)
    turnOver(element.id, face === 'inner' ? 'outer' : 'inner');
  else if (key.toLowerCase() === 't') tape(!useEditor.getState().taping);
  else if (openings.length > 0 && arrow) commit(moveAll(committed, openings, ds, dt, 'nudge', face));
  else if (openings.length > 0 && (key === 'Delete' || key === 'Backspace')) commit(removeAll(committed, openings));
  else if (openings.length > 0 && key.toLowerCase() === 'b') commit(blockAll(openings));
  else return false;
  return true;
}

/** Removes a line to which nothing is held; one to which something is, is chosen instead, and its particulars ask. */
function takeAway(document: ProjectDocument, line: Line): void {
  const held = heldTo(document, line).length;
  if (held === 0) return void commit(removeLine(document, line));
  choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
  complain(
    `${line.kind === 'datum' ? line.datum.name : `Axis ${line.axis.name}`} was not removed`,
    `${held} opening${held === 1 ? ' is' : 's are'} held to it. Its particulars show them, and remove it with the openings left where they are.`,
  );
}
