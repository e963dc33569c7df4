/** Everything that can be done, by name: what the finder finds, what context menus offer, and the keys that do it. */
import { lengthOf } from '@yard-arch/core';
import { faceLabel, facesOf, isUpright, kindNames, kinds, type ProjectDocument } from '@yard-arch/document';
import {
  addAxis,
  addDatum,
  addElement,
  blockAll,
  copyBy,
  duplicateElement,
  faceOf,
  makeOneOff,
  mirrorAll,
  openingsOf,
  removeAll,
  setLocked,
} from '@yard-arch/edit';
import { copyOn, paste } from '../state/clipboard.ts';
import {
  choose,
  chooseElement,
  chooseOpening,
  chooseOpenings,
  hide,
  place,
  tape,
  turnOver,
  turnTo,
} from '../state/choice.ts';
import { chosenIds, faceNow, useEditor } from '../state/state.ts';
import { commit, redo, stepTo, undo } from '../state/store.ts';

/** One thing that can be done now. */
export interface Command {
  name: string;
  /** Where it stands in the finder. */
  group: 'With what is chosen' | 'On this wall' | 'Project' | 'Go to' | 'Place';
  keys?: string;
  run: () => void;
}

/** All that can be done with the document and the choice as they are. */
export function commandsNow(): Command[] {
  const {
    document,
    element: id,
    chosen,
    undo: done,
    redo: undone,
    hidden,
    clip,
    lastCopy,
    board,
  } = useEditor.getState();
  if (!document) return [];
  const element = id ? document.elements[id] : undefined;
  const ids = chosenIds(chosen);
  const openings = openingsOf(document, ids);
  const found: Command[] = [];
  const add = (group: Command['group'], name: string, run: () => void, keys?: string): void =>
    void found.push({ group, name, run, ...(keys ? { keys } : {}) });
  const first = openings[0];
  if (first && element) {
    const what = openings.length === 1 ? first.mark : `${openings.length} openings`;
    add(
      'With what is chosen',
      openings.every(({ blockedUp }) => blockedUp) ? `Open up ${what}` : `Block up ${what}`,
      () => commit(blockAll(openings)),
      'B',
    );
    if (openings.length === 1 && !first.own)
      add('With what is chosen', `Make ${what} a one-off`, () =>
        commit(makeOneOff(first, document.patterns[first.pattern]!)),
      );
    if (openings.length === 1)
      add('With what is chosen', `Change the pattern of ${what}`, () => choose({ kind: 'pattern', id: first.pattern }));
    add('With what is chosen', `Mirror a copy of ${what} about the middle of the wall`, () => {
      const made = mirrorAll(document, openings, lengthOf(document, element, faceOf(openings)) / 2, 'linked');
      if (commit(made.changeSet)) chooseOpenings(made.ids);
    });
    add(
      'With what is chosen',
      lastCopy ? `Copy ${what} on by as much as the last time` : `Copy ${what} beside it`,
      () => {
        if (lastCopy) return copyOn(document, ids);
        const made = copyBy(document, openings, 2, 0);
        useEditor.setState({ lastCopy: { ds: 2, dt: 0 } });
        if (commit(made.changeSet)) chooseOpenings(made.ids);
      },
      'Ctrl D',
    );
    add(
      'With what is chosen',
      `Copy ${what}, to be pasted on another wall`,
      () => useEditor.setState({ clip: { kind: 'openings', ids } }),
      'Ctrl C',
    );
    add(
      'With what is chosen',
      `Choose all ${document.patterns[first.pattern]?.name ?? 'of its pattern'} on this wall`,
      () =>
        chooseOpenings(
          Object.values(document.openings)
            .filter((other) => other.element === element.id && other.pattern === first.pattern)
            .map((other) => other.id),
        ),
    );
    add('With what is chosen', `Remove ${what}`, () => commit(removeAll(document, openings)), 'Delete');
  }
  if (element) {
    const here = Object.values(document.openings).filter((opening) => opening.element === element.id);
    if (here.length > 0)
      add(
        'On this wall',
        `Choose all openings of ${element.name}`,
        () => chooseOpenings(here.map((opening) => opening.id)),
        'Ctrl A',
      );
    if (clip)
      add(
        'On this wall',
        clip.kind === 'wall'
          ? `Paste the setting-out of ${document.elements[clip.id]?.name ?? 'the wall'}`
          : 'Paste the copied openings',
        () => paste(document, element),
        'Ctrl V',
      );
    if (here.length > 0)
      add('On this wall', `Copy the setting-out of ${element.name}`, () =>
        useEditor.setState({ clip: { kind: 'wall', id: element.id } }),
      );
    if (facesOf(element).length > 1) {
      const other = faceNow(element.id) === 'inner' ? 'outer' : 'inner';
      add(
        'On this wall',
        `Turn the sheet over, to the ${faceLabel(element, other)}`,
        () => {
          turnTo('sheet');
          turnOver(element.id, other);
        },
        'O',
      );
    }
    if (isUpright(element))
      add('On this wall', 'Add a datum', () => {
        const made = addDatum(document, element);
        if (commit(made.changeSet)) choose({ kind: 'datum', id: made.id });
      });
    add('On this wall', 'Add an axis', () => {
      const made = addAxis(document, element);
      if (commit(made.changeSet)) choose({ kind: 'axis', id: made.id });
    });
    add(
      'On this wall',
      'Measure with the tape',
      () => {
        turnTo('sheet');
        tape(true);
      },
      'T',
    );
    add('On this wall', `Duplicate ${element.name} with everything on it`, () => {
      const made = duplicateElement(document, element);
      if (commit(made.changeSet)) chooseElement(made.id);
    });
    add('On this wall', hidden.has(element.id) ? `Show ${element.name}` : `Hide ${element.name}`, () => {
      const next = new Set(hidden);
      if (!next.delete(element.id)) next.add(element.id);
      hide(next);
    });
    add('On this wall', `Show ${element.name} alone`, () =>
      hide(new Set(Object.keys(document.elements).filter((other) => other !== element.id))),
    );
    add('On this wall', element.locked ? `Unlock ${element.name}` : `Lock ${element.name}`, () =>
      commit(setLocked([element], !element.locked)),
    );
  }
  const last = done.at(-1)?.changeSet.name;
  const next = undone.at(-1)?.changeSet.name;
  if (last) add('Project', `Undo ${last}`, undo, 'Ctrl Z');
  if (next) add('Project', `Do again: ${next}`, redo, 'Ctrl Shift Z');
  if (done.length > 1) add('Project', 'Take back everything since the page was opened', () => stepTo(0));
  add('Project', 'History and versions', () => choose({ kind: 'history' }));
  add('Project', 'Materials and the chord of arcs', () => choose({ kind: 'project' }));
  if (hidden.size > 0) add('Project', 'Show all walls', () => hide(new Set()));
  for (const kind of kindNames)
    add('Project', `Add a ${kinds[kind].noun}`, () => {
      const made = addElement(document, kind);
      if (commit(made.changeSet)) chooseElement(made.id);
    });
  add('Project', 'Bring in single sheets from an OBJ or GLB file', () => useEditor.setState({ dialog: 'sheets' }));
  if (board !== 'plan') add('Go to', 'Plan', () => turnTo('plan'), 'P');
  if (board !== 'sheet') add('Go to', 'Sheet', () => turnTo('sheet'), 'P');
  if (board !== 'table') add('Go to', 'Table of openings', () => turnTo('table'));
  add('Project', 'All keys', () => useEditor.setState({ dialog: 'keys' }), '?');
  return [...found, ...placesIn(document)];
}

/** The most openings that a search tells of. */
const mostOpenings = 40;

/** Openings to go to whose names hold all words of a search; none where nothing is searched, for there are very many. */
export function openingsFound(words: readonly string[]): Command[] {
  const { document } = useEditor.getState();
  if (!document || words.length === 0) return [];
  const found: Command[] = [];
  for (const { id, mark, element, pattern } of Object.values(document.openings)) {
    const name = `${mark}, ${document.patterns[pattern]?.name ?? ''} on ${document.elements[element]?.name ?? ''}`;
    const lower = name.toLowerCase();
    if (words.every((word) => lower.includes(word))) found.push({ group: 'Go to', name, run: () => chooseOpening(id) });
    if (found.length === mostOpenings) break;
  }
  return found;
}

/** Walls to go to, and sizes to place. */
function placesIn(document: ProjectDocument): Command[] {
  return [
    ...Object.values(document.elements).map(({ id, name }): Command => ({
      group: 'Go to',
      name,
      run: () => {
        chooseElement(id);
        choose({ kind: 'wall' });
      },
    })),
    ...Object.values(document.patterns).map(({ id, name, sizes }): Command => ({
      group: 'Place',
      name,
      run: () => {
        turnTo('sheet');
        place({ pattern: id, size: Object.keys(sizes)[0]! });
      },
    })),
  ];
}

/** All keys, for the list of them. */
export const keyList: readonly { title: string; keys: readonly (readonly [string, string])[] }[] = [
  {
    title: 'Everywhere',
    keys: [
      ['Ctrl K', 'find anything that can be done, any wall or opening'],
      ['?', 'this list'],
      ['Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'do again'],
      ['P', 'from the sheet to the plan and back'],
      ['Escape', 'give up what is being done; then let go of what is chosen'],
    ],
  },
  {
    title: 'On the sheet',
    keys: [
      ['Arrows', 'nudge what is chosen by 10 mm; with Shift 100, with Alt 1'],
      ['Shift click', 'add to what is chosen, or take from it'],
      ['drag on the wall', 'choose by a window; the middle button or Space pans'],
      ['Ctrl drag', 'copy what is dragged'],
      ['Alt drag', 'drag freely, without snapping'],
      ['figures', 'while dragging or placing: type how far, or along; up'],
      ['Ctrl A', 'choose all openings of the wall'],
      ['Ctrl C, Ctrl V', 'copy openings and paste them on another wall'],
      ['Ctrl D', 'copy on by as much as the last copy'],
      ['B', 'block up, open up'],
      ['T', 'measure with the tape'],
      ['O', 'turn the sheet over, to the face within'],
      ['0', 'the whole wall'],
      ['+ and −', 'nearer and farther'],
      ['Delete', 'remove'],
    ],
  },
  {
    title: 'On the plan',
    keys: [
      ['W', 'draw walls'],
      ['A', 'while drawing: arc or straight'],
      ['figures', 'while drawing: the length, or length; direction'],
      ['Arrows', 'move the chosen wall by 100 mm; with Shift 1 m, with Alt 10 mm'],
      ['Alt', 'draw and drag freely, without snapping and steps of 15°'],
      ['0', 'the whole plan'],
    ],
  },
];
