/** One part, handle or frame made alike in other patterns that have it: which of them is asked. */
import type { ProjectDocument } from '@yard-arch/document';
import { havingIt, makeAlike, uses, type Shared } from '@yard-arch/edit';
import { useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { commit } from '../state/store.ts';

interface AlikeProps {
  document: ProjectDocument;
  /** The pattern in which it is as it is to be. */
  own: string;
  shared: Shared;
}

export function AlikeInOthers({ document, own, shared }: AlikeProps) {
  const [open, setOpen] = useState(false);
  const others = havingIt(document, own, shared);
  const different = others.filter(({ differs }) => differs);
  if (different.length === 0) return null;
  return (
    <>
      <button className="link" onClick={() => setOpen(true)}>
        make alike in others…
      </button>
      {open && <Choosing document={document} shared={shared} others={different} onClose={() => setOpen(false)} />}
    </>
  );
}

interface ChoosingProps {
  document: ProjectDocument;
  shared: Shared;
  others: ReturnType<typeof havingIt>;
  onClose: () => void;
}

function Choosing({ document, shared, others, onClose }: ChoosingProps) {
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const ids = others.map(({ pattern }) => pattern.id).filter((id) => !off.has(id));
  const openings = ids.reduce((sum, id) => sum + uses(document, id), 0);
  return (
    <Dialog
      open
      title="Alike in other patterns"
      confirm={`Change ${ids.length} ${ids.length === 1 ? 'pattern' : 'patterns'}`}
      error={ids.length === 0 ? 'None is chosen.' : null}
      onClose={onClose}
      onConfirm={() => {
        if (ids.length > 0 && commit(makeAlike(document, ids, shared))) onClose();
      }}
    >
      <p className="dialog-why">
        These have {shared.what === 'part' ? 'such a part' : `a ${shared.what}`} too, and it is otherwise there.{' '}
        {openings === 1 ? '1 opening follows.' : `${openings} openings follow.`}
      </p>
      <div className="alike-list" role="group" aria-label="Patterns that have it">
        {others.map(({ pattern }) => (
          <label key={pattern.id}>
            <input
              type="checkbox"
              checked={!off.has(pattern.id)}
              onChange={(event) => {
                const next = new Set(off);
                if (event.target.checked) next.delete(pattern.id);
                else next.add(pattern.id);
                setOff(next);
              }}
            />
            <PatternFigure
              pattern={pattern}
              dimensions={Object.values(pattern.sizes)[0]!.dimensions}
              units={document.units}
              materials={document.materials}
              width={48}
              height={48}
            />
            {pattern.name}
          </label>
        ))}
      </div>
    </Dialog>
  );
}
