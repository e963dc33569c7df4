/** The finder: anything that can be done, or gone to, by typing a few letters of it. */
import { Command } from 'cmdk';
import { useMemo } from 'react';
import { useEditor } from '../state/state.ts';
import { commandsNow } from './commands.ts';

const groups = ['With what is chosen', 'On this wall', 'Project', 'Go to', 'Place'] as const;

export function Finder() {
  const open = useEditor((state) => state.dialog === 'finder');
  return open ? <Opened /> : null;
}

/** Whether all words that were typed are in a name; those that it begins with come first. */
function found(_value: string, search: string, keywords?: string[]): number {
  const name = (keywords?.[0] ?? '').toLowerCase();
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.every((word) => name.includes(word))) return 0;
  return name.startsWith(words[0] ?? '') ? 1 : 0.5;
}

function Opened() {
  const commands = useMemo(commandsNow, []);
  const close = (): void => useEditor.setState({ dialog: null });
  return (
    <Command.Dialog
      open
      label="Find anything"
      filter={found}
      className="finder"
      overlayClassName="finder-back"
      onOpenChange={(open) => !open && close()}
      loop
    >
      <Command.Input placeholder="What to do, or where to go" aria-label="Find anything" />
      <Command.List>
        <Command.Empty>Nothing is called that.</Command.Empty>
        {groups
          .filter((group) => commands.some((command) => command.group === group))
          .map((group) => (
            <Command.Group key={group} heading={group}>
              {commands
                .filter((command) => command.group === group)
                .map(({ name, keys, run }, i) => (
                  <Command.Item
                    key={`${name} ${i}`}
                    value={`${group} ${name} ${i}`}
                    keywords={[name]}
                    onSelect={() => {
                      close();
                      run();
                    }}
                  >
                    <span>{name}</span>
                    {keys && <kbd>{keys}</kbd>}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
      </Command.List>
    </Command.Dialog>
  );
}
