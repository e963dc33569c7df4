/** The bar at the top: where one is, how saving stands, undo and redo, units, export. */
import { keys } from '../common/keys.ts';
import { Button, Flex, IconButton, Menu, Portal, Text } from '@chakra-ui/react';
import { unitsLabel, type ProjectDocument, type Units } from '@yard-arch/document';
import { setUnits } from '@yard-arch/edit';
import { History, Redo2, Search, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { Mark } from '../common/Mark.tsx';
import { ExportMenu } from './ExportMenu.tsx';
import { choose } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit, redo, undo } from '../state/store.ts';

export function TopBar({ document, project }: { document: ProjectDocument; project: string }) {
  const where = useEditor(({ document: now, board, chosen, element }) => {
    if (board !== 'book') return element ? now?.elements[element]?.name : undefined;
    const pattern = chosen.kind === 'pattern' ? now?.patterns[chosen.id] : undefined;
    return `Pattern book${pattern ? ` · ${pattern.name}` : ''}`;
  });
  const lastUndo = useEditor((state) => state.undo.at(-1)?.changeSet.name);
  const lastRedo = useEditor((state) => state.redo.at(-1)?.changeSet.name);
  return (
    <Flex as="header" className="top" align="center" gap="2" px="3" h="44px" bg="paper" borderBottomWidth="1px">
      <Link to="/" aria-label="All projects" title="All projects">
        <Mark />
      </Link>
      <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="16px" ml="1" truncate maxW="300px">
        {document.name}
      </Text>
      <Text fontFamily="label" color="ink2" truncate maxW="200px">
        {where}
      </Text>
      <span style={{ flex: 1 }} />
      <SavingState />
      <Button
        size="xs"
        variant="outline"
        disabled={!lastUndo}
        onClick={undo}
        title={lastUndo ? `Undo ${lastUndo} (${keys.undo.shown})` : 'Nothing to undo'}
        aria-label={lastUndo ? `Undo ${lastUndo}` : 'Undo'}
      >
        <Undo2 size={14} />
        <span className="shorten">Undo{lastUndo ? ` ${lastUndo}` : ''}</span>
      </Button>
      <IconButton
        size="xs"
        variant="outline"
        disabled={!lastRedo}
        onClick={redo}
        title={lastRedo ? `Do again: ${lastRedo} (${keys.redo.shown})` : 'Nothing to do again'}
        aria-label={lastRedo ? `Redo ${lastRedo}` : 'Redo'}
      >
        <Redo2 size={14} />
      </IconButton>
      <IconButton
        size="xs"
        variant="outline"
        aria-label="History and versions"
        title="History of edits, and versions to go back to"
        onClick={() => choose({ kind: 'history' })}
      >
        <History size={14} />
      </IconButton>
      <Button
        size="xs"
        variant="outline"
        onClick={() => useEditor.setState({ dialog: 'finder' })}
        title={`Find anything that can be done, any wall or opening (${keys.find.shown})`}
      >
        <Search size={13} /> Find…
      </Button>
      <Menu.Root onSelect={({ value }) => commit(setUnits(value as Units))}>
        <Menu.Trigger asChild>
          <Button
            size="xs"
            variant="outline"
            aria-label={`Units: ${unitsLabel(document.units)}`}
            title="Units in which lengths are shown"
          >
            {unitsLabel(document.units)}
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper">
              <Menu.Item value="mm">Millimetres</Menu.Item>
              <Menu.Item value="m">Metres</Menu.Item>
              <Menu.Item value="ft-in">Feet and inches</Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <ExportMenu project={project} />
    </Flex>
  );
}

function SavingState() {
  const saving = useEditor((state) => state.saving);
  const trouble = useEditor((state) => state.trouble);
  const count = useEditor((state) => state.pendingCount);
  const aside = useEditor((state) => state.aside.length);
  const edits = (n: number): string => `${n} edit${n === 1 ? '' : 's'}`;
  const text = {
    // An edit that was set aside is not saved, whatever else is.
    saved: aside > 0 ? 'all else saved' : 'saved',
    saving: 'saving…',
    'kept here': `${edits(count)} kept in this browser`,
    deleted: count > 0 ? `deleted, ${edits(count)} kept in this browser` : 'deleted',
    'put back': 'put back to an earlier state',
    outdated: count > 0 ? `${edits(count)} kept in this browser` : 'load the page anew',
  }[saving];
  return (
    <>
      {aside > 0 && (
        <button
          className="aside-count"
          onClick={() => useEditor.setState({ dialog: 'aside' })}
          title="Edits that could not be taken: look at them, try them again, or let them go"
        >
          {edits(aside)} set aside
        </button>
      )}
      <span
        className={`saving ${saving === 'saved' && aside === 0 ? 'good' : saving === 'saving' ? '' : 'bad'}`}
        role="status"
        data-testid="saving"
        title={trouble ?? undefined}
      >
        {text}
      </span>
    </>
  );
}
