/** All keys, in one place: what each does, where, and how it is written. Menus, the finder, tools and the list of keys say what stands here. */
type Where = 'everywhere' | 'sheet' | 'plan';

interface Key {
  where: Where;
  /** As the page listens for them: modifiers and a key with a bar between. None for what is done with the pointer. */
  hotkeys: readonly string[];
  /** As they are written. */
  shown: string;
  /** What it does, for the list; null for what goes without saying. */
  does: string | null;
  /** Whether it does it while one types in a field, too. */
  inFields?: true;
}

/** The arrow keys, alone and with a finer or coarser step. */
const arrows = ['arrowleft', 'arrowright', 'arrowup', 'arrowdown'].flatMap((key) => [
  key,
  `shift|${key}`,
  `alt|${key}`,
]);

export const keys = {
  find: {
    where: 'everywhere',
    hotkeys: ['mod|k'],
    shown: 'Ctrl K',
    does: 'find anything that can be done, any wall or opening',
    inFields: true,
  },
  keys: { where: 'everywhere', hotkeys: ['?', 'shift|?'], shown: '?', does: 'this list' },
  undo: { where: 'everywhere', hotkeys: ['mod|z'], shown: 'Ctrl Z', does: 'undo' },
  redo: { where: 'everywhere', hotkeys: ['mod|shift|z', 'mod|y'], shown: 'Ctrl Shift Z', does: 'do again' },
  turn: { where: 'everywhere', hotkeys: ['p'], shown: 'P', does: 'from the sheet to the plan and back' },
  fold: { where: 'everywhere', hotkeys: ['m'], shown: 'M', does: 'fold the model away, and show it again' },
  giveUp: {
    where: 'everywhere',
    hotkeys: ['escape'],
    shown: 'Escape',
    does: 'give up what is being done; then let go of what is chosen',
  },
  nudge: {
    where: 'sheet',
    hotkeys: arrows,
    shown: 'Arrows',
    does: 'nudge what is chosen by 10 mm; with Shift 100, with Alt 1',
  },
  more: { where: 'sheet', hotkeys: [], shown: 'Shift click', does: 'add to what is chosen, or take from it' },
  window: {
    where: 'sheet',
    hotkeys: [],
    shown: 'drag on the wall',
    does: 'choose by a window; the middle button or Space pans',
  },
  dragCopy: { where: 'sheet', hotkeys: [], shown: 'Ctrl drag', does: 'copy what is dragged' },
  dragFree: { where: 'sheet', hotkeys: [], shown: 'Alt drag', does: 'drag freely, without snapping' },
  figures: {
    where: 'sheet',
    hotkeys: [],
    shown: 'figures',
    does: 'while dragging or placing: type how far, or along; up',
  },
  putDown: { where: 'sheet', hotkeys: ['enter'], shown: 'Enter', does: 'place what is about to be placed' },
  all: { where: 'sheet', hotkeys: ['mod|a'], shown: 'Ctrl A', does: 'choose all openings of the wall' },
  copy: { where: 'sheet', hotkeys: ['mod|c'], shown: 'Ctrl C', does: 'copy openings, to be pasted' },
  paste: { where: 'sheet', hotkeys: ['mod|v'], shown: 'Ctrl V', does: 'paste them on another wall' },
  copyOn: { where: 'sheet', hotkeys: ['mod|d'], shown: 'Ctrl D', does: 'copy on by as much as the last copy' },
  blockUp: { where: 'sheet', hotkeys: ['b'], shown: 'B', does: 'block up, open up' },
  tape: { where: 'sheet', hotkeys: ['t'], shown: 'T', does: 'measure with the tape' },
  turnOver: { where: 'sheet', hotkeys: ['o'], shown: 'O', does: 'turn the sheet over, to the face within' },
  whole: { where: 'sheet', hotkeys: ['0'], shown: '0', does: 'the whole wall' },
  nearer: { where: 'sheet', hotkeys: ['+', 'shift|+', '='], shown: '+ and −', does: 'nearer and farther' },
  farther: { where: 'sheet', hotkeys: ['-', 'shift|_'], shown: '−', does: null },
  remove: { where: 'sheet', hotkeys: ['delete', 'backspace'], shown: 'Delete', does: 'remove' },
  draw: { where: 'plan', hotkeys: ['w'], shown: 'W', does: 'draw walls' },
  drawArc: { where: 'plan', hotkeys: ['a'], shown: 'A', does: 'while drawing: arc or straight' },
  drawDone: { where: 'plan', hotkeys: ['enter'], shown: 'Enter', does: 'while drawing: be done' },
  drawFigures: {
    where: 'plan',
    hotkeys: [],
    shown: 'figures',
    does: 'while drawing: the length, or length; direction',
  },
  moveWall: {
    where: 'plan',
    hotkeys: arrows,
    shown: 'Arrows',
    does: 'move what is chosen, or the corner of an outline that has the focus, by 100 mm; with Shift 1 m, with Alt 10 mm',
  },
  drawFree: {
    where: 'plan',
    hotkeys: [],
    shown: 'Alt',
    does: 'draw and drag freely, without snapping and steps of 15°',
  },
  wholePlan: { where: 'plan', hotkeys: ['0'], shown: '0', does: 'the whole plan' },
  removeWall: {
    where: 'plan',
    hotkeys: ['delete', 'backspace'],
    shown: 'Delete',
    does: 'remove what is chosen, or that corner',
  },
} as const satisfies Record<string, Key>;

export type KeyId = keyof typeof keys;

/** What a key is. */
export const keyOf = (id: KeyId): Key => keys[id];

const all = Object.entries(keys) as [KeyId, Key][];

/** The list of keys, by where they do what they do. */
export const keyList = [
  { title: 'Everywhere', where: 'everywhere' },
  { title: 'On the plan', where: 'plan' },
  { title: 'On the sheet', where: 'sheet' },
].map(({ title, where }) => ({
  title,
  keys: all.flatMap(([, { where: there, shown, does }]) =>
    there === where && does !== null ? [[shown, does] as const] : [],
  ),
}));

/** Which way an arrow key goes, in steps of a length that its modifier makes larger or smaller. */
export function arrowOf(
  { key, shiftKey, altKey }: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey'>,
  [step, coarse, fine]: readonly [number, number, number],
): [number, number] {
  const by = shiftKey ? coarse : altKey ? fine : step;
  const ways: Record<string, [number, number]> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, by],
    ArrowDown: [0, -by],
  };
  return ways[key] ?? [0, 0];
}
