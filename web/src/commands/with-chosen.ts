/** What can be done with the openings that are chosen. */
import { keys } from '../common/keys.ts';
import { lengthOf } from '@yard-arch/core';
import { blockAll, faceOf, makeOneOff, mirrorAll, removeAll } from '@yard-arch/edit';
import { notify } from '../common/notices.tsx';
import { choose, chooseOpenings } from '../state/choice.ts';
import { copyOn } from '../state/clipboard.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import type { Command, Now } from './command.ts';

export function withChosen({ document, element, openings }: Now): Command[] {
  const [first] = openings;
  if (!first || !element) return [];
  const one = openings.length === 1;
  const what = one ? first.mark : `${openings.length} openings`;
  const ids = openings.map(({ id }) => id);
  const { lastCopy } = useEditor.getState();
  const pattern = document.patterns[first.pattern];
  const found: Omit<Command, 'group'>[] = [
    {
      name: openings.every(({ blockedUp }) => blockedUp) ? `Open up ${what}` : `Block up ${what}`,
      key: 'blockUp',
      run: () => commit(blockAll(openings)),
    },
    ...(one && !first.own && pattern
      ? [{ name: `Make ${what} a one-off`, run: () => commit(makeOneOff(first, pattern)) }]
      : []),
    ...(one
      ? [{ name: `Change the pattern of ${what}`, run: () => choose({ kind: 'pattern', id: first.pattern }) }]
      : []),
    {
      name: `Mirror a copy of ${what} about the middle of the wall`,
      run: () => {
        const made = mirrorAll(document, openings, lengthOf(document, element, faceOf(openings)) / 2, 'linked');
        if (commit(made.changeSet)) chooseOpenings(made.ids);
      },
    },
    {
      name: lastCopy ? `Copy ${what} on by as much as the last time` : `Copy ${what} beside it`,
      key: 'copyOn',
      run: () => copyOn(document, openings),
    },
    {
      name: `Copy ${what}, to be pasted on another wall`,
      key: 'copy',
      run: () => {
        useEditor.setState({ clip: { kind: 'openings', ids } });
        notify(`${what} to be pasted: choose a wall, then ${keys.paste.shown}`);
      },
    },
    {
      name: `Choose all ${pattern?.name ?? 'of its pattern'} on this wall`,
      run: () =>
        chooseOpenings(
          Object.values(document.openings)
            .filter((other) => other.element === element.id && other.pattern === first.pattern)
            .map(({ id }) => id),
        ),
    },
    { name: `Remove ${what}`, key: 'remove', run: () => commit(removeAll(document, openings)) },
  ];
  return found.map((command) => ({ ...command, group: 'With what is chosen' }));
}
