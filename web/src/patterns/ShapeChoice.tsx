/** All shapes that a profile can have, as drawings with their names; typing finds them. */
import { Popover, Portal } from '@chakra-ui/react';
import { firstChoice, firstDimensions, profileShapes, type ProfileShape, type Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { FileUp, PenLine } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { later } from '../common/later.tsx';

const FromDrawing = later(async () => (await import('../fields/FromDrawing.tsx')).FromDrawing);
const DrawOutline = later(async () => (await import('../fields/DrawOutline.tsx')).DrawOutline);

const all = Object.entries(profileShapes) as [ProfileShape, { name: string }][];

/** @param children the button that opens it. */
export function ShapeChoice({
  units,
  onChosen,
  onDrawn,
  children,
}: {
  units: Units;
  onChosen: (shape: ProfileShape) => void;
  /** Where an outline was drawn, or taken from a drawing, of some name. */
  onDrawn: (drawn: Outlined, name: string) => boolean;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  // The choice is closed first: what opens beside it would take its going for a click elsewhere.
  const [beside, setBeside] = useState<{ what: 'read' | 'draw'; now: boolean } | null>(null);
  const words = search.trim().toLowerCase();
  const found = all.filter(([, { name }]) => name.toLowerCase().includes(words));
  const take = (shape: ProfileShape): void => {
    setOpen(false);
    onChosen(shape);
  };
  const goOn = (what: 'read' | 'draw'): void => {
    setOpen(false);
    setBeside({ what, now: false });
  };
  return (
    <>
      <Popover.Root
        lazyMount
        unmountOnExit
        onExitComplete={() => setBeside((next) => next && { ...next, now: true })}
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
            <Popover.Content bg="paper" width="520px" maxWidth="92vw" borderWidth="1px" boxShadow="card">
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
                        pattern={{ profile: firstChoice(shape) }}
                        dimensions={firstDimensions(shape)}
                        units={units}
                        width={48}
                        height={44}
                      />
                      <span>{name}</span>
                    </button>
                  ))}
                </div>
                {found.length === 0 && <p>No shape is called that.</p>}
                <button className="from-file" onClick={() => goOn('draw')}>
                  <PenLine size={14} /> An outline of one’s own, drawn with lines and arcs…
                </button>
                <button className="from-file" onClick={() => goOn('read')}>
                  <FileUp size={14} /> An outline from an SVG or DXF drawing…
                </button>
              </div>
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
      {beside?.now && beside.what === 'read' && (
        <FromDrawing units={units} open confirm="Add a pattern" onTake={onDrawn} onClose={() => setBeside(null)} />
      )}
      {beside?.now && beside.what === 'draw' && (
        <DrawOutline
          units={units}
          open
          confirm="Add a pattern"
          onTake={(drawn) => onDrawn(drawn, 'Free outline')}
          onClose={() => setBeside(null)}
        />
      )}
    </>
  );
}
