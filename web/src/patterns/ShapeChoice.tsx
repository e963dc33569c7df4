/** All shapes that a profile can have, as drawings with their names; typing finds them. */
import { Popover, Portal } from '@chakra-ui/react';
import { firstChoice, firstDimensions, profileShapes, type ProfileShape, type Units } from '@yard-arch/document';
import { useState, type ReactNode } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';

const all = Object.entries(profileShapes) as [ProfileShape, { name: string }][];

/** @param children the button that opens it. */
export function ShapeChoice({
  units,
  onChosen,
  children,
}: {
  units: Units;
  onChosen: (shape: ProfileShape) => void;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  const words = search.trim().toLowerCase();
  const found = all.filter(([, { name }]) => name.toLowerCase().includes(words));
  const take = (shape: ProfileShape): void => {
    setOpen(false);
    onChosen(shape);
  };
  return (
    <Popover.Root
      lazyMount
      unmountOnExit
      open={open}
      positioning={{ placement: 'top-end' }}
      onOpenChange={({ open: next }) => {
        setOpen(next);
        setSearch('');
      }}
    >
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            bg="paper"
            width="520px"
            maxWidth="92vw"
            borderWidth="1px"
            boxShadow="0 8px 30px rgba(30, 42, 51, .22)"
          >
            <div className="shapes" role="dialog" aria-label="New pattern">
              <input
                autoFocus
                aria-label="Find a shape"
                placeholder="Find a shape"
                value={search}
                onChange={(event) => setSearch(event.target.value)}
                onKeyDown={(event) => {
                  const [first] = found;
                  if (event.key === 'Enter' && first) take(first[0]);
                }}
              />
              <div className="grid">
                {found.map(([shape, { name }]) => (
                  <button key={shape} onClick={() => take(shape)}>
                    <PatternFigure
                      profile={firstChoice(shape)}
                      dimensions={firstDimensions(shape)}
                      units={units}
                      most={1000}
                    />
                    <span>{name}</span>
                  </button>
                ))}
              </div>
              {found.length === 0 && <p>No shape is called that.</p>}
            </div>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
