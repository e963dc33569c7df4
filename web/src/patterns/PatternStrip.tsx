/** The strip of patterns below the sheet: click one to place it, click it again to stop. */
import { Menu, Portal } from '@chakra-ui/react';
import { defaultFineness, outlineOf } from '@yard-arch/core';
import { profileShapes, sizeLabel, type Pattern, type ProfileShape, type ProjectDocument } from '@yard-arch/document';
import { addPattern, uses } from '@yard-arch/edit';
import { Plus } from 'lucide-react';
import { pathOf } from '../boards/OpeningShape.tsx';
import { choose, place } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';

export function PatternStrip({ document }: { document: ProjectDocument }) {
  const placing = useEditor((state) => state.placing);
  const chosen = useEditor((state) => state.chosen);
  const patterns = Object.values(document.patterns);
  return (
    <div className="strip" role="toolbar" aria-label="Patterns">
      {patterns.map((pattern) => {
        const current = placing?.pattern === pattern.id;
        const size = current ? pattern.sizes[placing.size]! : Object.values(pattern.sizes)[0]!;
        const count = uses(document, pattern.id);
        return (
          <button
            key={pattern.id}
            className={`pattern${current ? ' placing' : ''}${chosen.kind === 'pattern' && chosen.id === pattern.id ? ' chosen' : ''}`}
            aria-pressed={current}
            title={current ? 'Click to stop placing' : `Place ${pattern.name}, ${sizeLabel(pattern, size, document.units)}`}
            onClick={() => {
              if (current) place(null);
              else place({ pattern: pattern.id, size: size.id });
              choose({ kind: 'pattern', id: pattern.id });
            }}
          >
            <Figure pattern={pattern} document={document} />
            <b>{pattern.name}</b>
            <span>{current ? 'click the sheet' : count === 0 ? 'unused' : `${count} placed`}</span>
          </button>
        );
      })}
      <Menu.Root
        positioning={{ placement: 'top-start' }}
        onSelect={({ value }) => {
          const { changeSet, id } = addPattern(document, value as ProfileShape);
          if (commit(changeSet)) place({ pattern: id, size: 'a' });
        }}
      >
        <Menu.Trigger asChild>
          <button className="pattern add">
            <Plus size={22} />
            <b>New pattern</b>
          </button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper">
              {Object.entries(profileShapes).map(([shape, { name }]) => (
                <Menu.Item key={shape} value={shape}>
                  {name}
                </Menu.Item>
              ))}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </div>
  );
}

/** A pattern's first size, drawn small and all to one scale where that can be read. */
function Figure({ pattern, document }: { pattern: Pattern; document: ProjectDocument }) {
  const size = Object.values(pattern.sizes)[0]!;
  const made = outlineOf(pattern.profile, size.dimensions, document.units, defaultFineness);
  if ('reason' in made) return <svg className="figure" width="48" height="44" aria-hidden />;
  const { width, height } = made.profile;
  const scale = Math.min(44 / width, 40 / height, 24);
  return (
    <svg className="figure" width="48" height="44" aria-hidden>
      <path d={pathOf(made.outline)} transform={`translate(${24 - (width * scale) / 2} 43) scale(${scale} ${-scale})`} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
