/** The context menu of the board: what can be done with what is under the pointer. */
import { Menu, Portal } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { choose, chooseElement, chooseOpening } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import type { Command } from './command.ts';
import { commandsNow } from './commands.ts';
import { keys } from '../common/keys.ts';

export function BoardMenu({ children }: { children: ReactNode }) {
  const [commands, setCommands] = useState<readonly Command[]>([]);
  /** Chooses what is under the pointer, unless it is among what is chosen, and offers what can be done with it. */
  const prepare = (target: Element): void => {
    const opening = target.closest('[data-opening]')?.getAttribute('data-opening');
    const [kind, line = ''] = (target.closest('[data-line]')?.getAttribute('data-line') ?? '').split(' ');
    const element = target.closest('[data-element]')?.getAttribute('data-element');
    if (opening) {
      if (!chosenIds(useEditor.getState().chosen).includes(opening)) chooseOpening(opening);
    } else if (kind === 'datum' || kind === 'axis') choose({ kind, id: line });
    else {
      if (element) chooseElement(element);
      choose({ kind: 'wall' });
    }
    setCommands(offered(opening !== undefined && opening !== null));
  };
  return (
    <Menu.Root
      lazyMount
      onSelect={({ value }) => {
        commands[Number(value)]?.run();
      }}
    >
      <Menu.ContextTrigger asChild>
        <div className="drawing" onContextMenuCapture={(event) => prepare(event.target as Element)}>
          {children}
        </div>
      </Menu.ContextTrigger>
      <Offered commands={commands} />
    </Menu.Root>
  );
}

/** What a context menu offers: what can be done with the chosen openings, or with the wall. */
export function offered(openings: boolean): Command[] {
  return commandsNow().filter(
    ({ group, name }) => group === (openings ? 'With what is chosen' : 'On this wall') || name.startsWith('Undo '),
  );
}

/** The items of a context menu; their values are the commands' places in the list. */
export function Offered({ commands }: { commands: readonly Command[] }) {
  return (
    <Portal>
      <Menu.Positioner>
        <Menu.Content bg="paper">
          {commands.map(({ name, key }, i) => (
            <Menu.Item key={name} value={String(i)}>
              {name}
              {key && (
                <Menu.ItemCommand opacity={1} color="ink2">
                  {keys[key].shown}
                </Menu.ItemCommand>
              )}
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Portal>
  );
}
