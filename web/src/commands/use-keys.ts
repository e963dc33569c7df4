/** Listens for keys: those of the page, and those of the board that has the focus. */
import { useEffect, useRef, type RefObject } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { underDialog } from '../state/choice.ts';
import { keyOf, type KeyId } from '../common/keys.ts';

/** What keys do; one that returns false has not used its key. */
export type KeyHandlers = Partial<Record<KeyId, (event: KeyboardEvent) => void | boolean>>;

/** The boards that listen themselves. */
const boards = new Set<RefObject<Element | null>>();
const hasFocus = (board: RefObject<Element | null>): boolean =>
  board.current?.contains(document.activeElement) ?? false;

/** Keys that do what they do on the board, though something beside it was pressed last: what is chosen is still chosen. */
const besideBoards: ReadonlySet<KeyId> = new Set<KeyId>(['nudge', 'remove', 'moveWall', 'removeWall']);

/** Things that have a use for these keys of their own, or hold such. */
const usingKeys =
  'input, select, textarea, [contenteditable], [role=slider], [role=radio], [role=tab], [role=menu] *, [role=dialog] *, [role=listbox] *';

/** Whether a button of the particulars has the focus, or nothing on the page has. */
function isBesideBoards(): boolean {
  const at = document.activeElement;
  if (!at || at === document.body) return true;
  return at.closest('aside.particulars') !== null && !at.matches(usingKeys);
}

/** Does what a key stands for, while what they are for has the focus; without it everywhere but in fields. */
export function useKeys(handlers: KeyHandlers, board?: RefObject<Element | null>): void {
  const ids = Object.keys(handlers) as KeyId[];
  const byHotkey = new Map(ids.flatMap((id) => keyOf(id).hotkeys.map((hotkey) => [hotkey, id] as const)));
  useEffect(() => {
    if (!board) return;
    boards.add(board);
    return () => void boards.delete(board);
  }, [board]);
  const dialogTold = useRef<KeyboardEvent | null>(null);
  useHotkeys(
    [...byHotkey.keys()],
    (event, { hotkey }) => {
      // Another board or a thing on it has used it already; the same press can match twice.
      if (event.defaultPrevented || dialogTold.current === event) return;
      const id = byHotkey.get(hotkey)!;
      if (board && !hasFocus(board) && !(besideBoards.has(id) && isBesideBoards())) return;
      if (board && underDialog(event.key)) {
        dialogTold.current = event;
        return event.preventDefault();
      }
      // A board gives up one thing after the other; the page must not give up the next one as well.
      if (!board && id === 'giveUp' && [...boards].some(hasFocus)) return;
      if (isField(event.target) && !keyOf(id).inFields) return;
      if (handlers[id]?.(event) !== false) event.preventDefault();
    },
    // By what a key writes, not by where it lies on the keyboard.
    { useKey: true, splitKey: '|', enableOnFormTags: true },
  );
}

const isField = (target: EventTarget | null): boolean =>
  target instanceof Element && target.matches('input, select, textarea, [contenteditable]');
