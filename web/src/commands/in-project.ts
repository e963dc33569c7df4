/** What can be done with the project, and where one can go in it. */
import { kindNames, kinds, type ProjectDocument } from '@yard-arch/document';
import { addElement } from '@yard-arch/edit';
import { choose, chooseElement, chooseOpening, foldModel, hide, place, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit, redo, stepTo, undo } from '../state/store.ts';
import type { Command, Now } from './command.ts';

export function inProject({ document }: Now): Command[] {
  const { undo: done, redo: undone, hidden, modelRoom } = useEditor.getState();
  const last = done.at(-1)?.changeSet.name;
  const next = undone.at(-1)?.changeSet.name;
  const found: Omit<Command, 'group'>[] = [
    ...(last ? [{ name: `Undo ${last}`, key: 'undo' as const, run: undo }] : []),
    ...(next ? [{ name: `Do again: ${next}`, key: 'redo' as const, run: redo }] : []),
    ...(done.length > 1 ? [{ name: 'Take back everything since the page was opened', run: () => stepTo(0) }] : []),
    { name: 'History and versions', run: () => choose({ kind: 'history' }) },
    { name: 'Materials and the chord of arcs', run: () => choose({ kind: 'project' }) },
    { name: modelRoom === 'folded' ? 'Show the model' : 'Fold the model away', key: 'fold', run: foldModel },
    ...(hidden.size > 0 ? [{ name: 'Show all walls', run: () => hide(new Set()) }] : []),
    ...kindNames.map((kind) => ({
      name: `Add a ${kinds[kind].noun}`,
      run: () => {
        const made = addElement(document, kind);
        if (commit(made.changeSet)) chooseElement(made.id);
      },
    })),
    {
      name: 'Bring in single sheets from an OBJ or GLB file',
      run: () => useEditor.setState({ dialog: 'sheets' }),
    },
    { name: 'All keys', key: 'keys', run: () => useEditor.setState({ dialog: 'keys' }) },
  ];
  return found.map((command) => ({ ...command, group: 'Project' }));
}

/** Drawings and walls to go to, and patterns to place. */
export function goingTo({ document }: Now): Command[] {
  const { board } = useEditor.getState();
  const boards: { board: typeof board; name: string; key?: 'turn' }[] = [
    { board: 'plan', name: 'Plan', key: 'turn' },
    { board: 'sheet', name: 'Sheet', key: 'turn' },
    { board: 'table', name: 'Table of openings' },
    { board: 'book', name: 'Pattern book' },
  ];
  return [
    ...boards
      .filter((other) => other.board !== board)
      .map(({ board: to, ...rest }): Command => ({ ...rest, group: 'Go to', run: () => turnTo(to) })),
    ...Object.values(document.elements).map(({ id, name }): Command => ({
      group: 'Go to',
      name,
      run: () => {
        chooseElement(id);
        choose({ kind: 'wall' });
      },
    })),
    ...Object.values(document.patterns).map(({ id, name }): Command => ({
      group: 'Go to',
      name: `Detail of ${name}`,
      run: () => {
        choose({ kind: 'pattern', id });
        turnTo('book');
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

/** The most openings that a search tells of. */
const mostOpenings = 40;

/** Openings to go to whose names hold all words of a search; none where nothing is searched, for there are very many. */
export function openingsFound(words: readonly string[], document: ProjectDocument | null): Command[] {
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
