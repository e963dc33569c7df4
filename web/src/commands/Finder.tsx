/** The finder: anything that can be done, or gone to, by typing a few letters of it. */
import { Command } from 'cmdk';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useEditor } from '../state/state.ts';
import { commandsNow } from './commands.ts';
import type { Command as Found } from './command.ts';
import { typedAhead } from './FinderWaiting.tsx';
import { openingsFound } from './in-project.ts';
import { keys } from '../common/keys.ts';

const groups = ['With what is chosen', 'On this wall', 'Project', 'Go to', 'Place'] as const;

export function Finder() {
  const open = useEditor((state) => state.dialog === 'finder');
  return open ? <Opened /> : null;
}

/** Those whose names hold all words that were typed; those that begin with the first come first. */
function matching(commands: readonly Found[], words: readonly string[]): Found[] {
  const [first = ''] = words;
  const begins = ({ name }: Found): boolean => name.toLowerCase().startsWith(first);
  const all = commands.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)));
  return words.length === 0 ? all : [...all.filter(begins), ...all.filter((one) => !begins(one))];
}

function Opened() {
  const all = useMemo(commandsNow, []);
  const [ahead] = useState(typedAhead);
  const [search, setSearch] = useState(ahead.typed);
  const commands = useMemo(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return [...matching(all, words), ...openingsFound(words, useEditor.getState().document)];
  }, [all, search]);
  const close = (): void => useEditor.setState({ dialog: null });
  const done = ({ run }: Found): void => {
    close();
    run();
  };
  // What was entered before it was there.
  const enterAhead = useEffectEvent(() => {
    const first = groups.flatMap((group) => commands.filter((command) => command.group === group))[0];
    if (ahead.entered && first) done(first);
  });
  useEffect(() => enterAhead(), []);
  return (
    <Command.Dialog
      open
      label="Find anything"
      shouldFilter={false}
      className="finder"
      overlayClassName="finder-back"
      onOpenChange={(open) => !open && close()}
      loop
    >
      <Command.Input
        placeholder="What to do, or where to go"
        aria-label="Find anything"
        value={search}
        onValueChange={setSearch}
      />
      <Command.List>
        <Command.Empty>Nothing is called that.</Command.Empty>
        {groups
          .filter((group) => commands.some((command) => command.group === group))
          .map((group) => (
            <Command.Group key={group} heading={group}>
              {commands
                .filter((command) => command.group === group)
                .map((command, i) => (
                  <Command.Item
                    key={`${command.name} ${i}`}
                    value={`${group} ${command.name} ${i}`}
                    onSelect={() => done(command)}
                  >
                    <span>{command.name}</span>
                    {command.key && <kbd>{keys[command.key].shown}</kbd>}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
      </Command.List>
    </Command.Dialog>
  );
}
