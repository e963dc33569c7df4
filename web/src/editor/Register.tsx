/** The register of elements: every wall, what is cut in it, and whether anything is amiss. */
import { Menu, Portal } from '@chakra-ui/react';
import type { Element, ProjectDocument } from '@yard-arch/document';
import { Palette, Plus } from 'lucide-react';
import { addElement } from './edits.ts';
import { choose, chooseElement, commit, useEditor } from './store.ts';

export function Register({ document }: { document: ProjectDocument }) {
  const element = useEditor((state) => state.element);
  const statuses = useEditor((state) => state.statuses);
  const chosen = useEditor((state) => state.chosen);
  const counts = new Map<string, { open: number; blocked: number; failed: number }>();
  for (const opening of Object.values(document.openings)) {
    const count = counts.get(opening.element) ?? { open: 0, blocked: 0, failed: 0 };
    const state = statuses.get(opening.id)?.state;
    if (state === 'not cut') count.failed += 1;
    else if (opening.blockedUp) count.blocked += 1;
    else count.open += 1;
    counts.set(opening.element, count);
  }
  return (
    <nav className="register" aria-label="Register of walls">
      <h2>Walls</h2>
      <ul>
        {Object.values(document.elements).map((wall) => {
          const count = counts.get(wall.id);
          const told = [count?.open ? `${count.open} cut` : '', count?.blocked ? `${count.blocked} blocked up` : ''].filter(Boolean).join(' · ');
          return (
            <li key={wall.id}>
              <button
                className={wall.id === element ? 'chosen' : ''}
                aria-current={wall.id === element}
                onClick={() => {
                  chooseElement(wall.id);
                  choose({ kind: 'wall' });
                }}
              >
                <b>{wall.name}</b>
                <span>{told || (count?.failed ? '' : 'no openings')}</span>
                {count && count.failed > 0 && <span className="bad">{count.failed} not cut</span>}
              </button>
            </li>
          );
        })}
      </ul>
      <Menu.Root
        onSelect={({ value }) => {
          const { changeSet, id } = addElement(document, value as Element['kind']);
          if (commit(changeSet)) chooseElement(id);
        }}
      >
        <Menu.Trigger asChild>
          <button className="add">
            <Plus size={15} /> Add a wall…
          </button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper">
              <Menu.Item value="wall">Wall</Menu.Item>
              <Menu.Item value="panel">Panel of any outline, roof plane</Menu.Item>
              <Menu.Item value="slab">Slab, set out from above</Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <button className="add" aria-current={chosen.kind === 'project'} onClick={() => choose({ kind: 'project' })}>
        <Palette size={15} /> Materials
      </button>
    </nav>
  );
}
