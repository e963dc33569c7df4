/** The strip of patterns below the sheet: click one to place it, click it again to stop. */
import { sizeLabel, type ProjectDocument } from '@yard-arch/document';
import { addPattern, patternOf, uses } from '@yard-arch/edit';
import { ChevronLeft, ChevronRight, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { choose, place } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { ShapeChoice } from './ShapeChoice.tsx';

export function PatternStrip({ document }: { document: ProjectDocument }) {
  const placing = useEditor((state) => state.placing);
  const chosen = useEditor((state) => state.chosen);
  const patterns = Object.values(document.patterns);
  const { row, more, turn } = useTurning(patterns.length);
  return (
    <div className="strip" role="toolbar" aria-label="Patterns">
      {more.left && (
        <button className="turn" aria-label="Patterns before these" onClick={() => turn(-1)}>
          <ChevronLeft size={18} />
        </button>
      )}
      <div className="row" ref={row}>
        {patterns.map((pattern) => {
          const current = placing?.pattern === pattern.id;
          const size = current ? pattern.sizes[placing.size]! : Object.values(pattern.sizes)[0]!;
          const count = uses(document, pattern.id);
          return (
            <button
              key={pattern.id}
              className={`pattern${current ? ' placing' : ''}${chosen.kind === 'pattern' && chosen.id === pattern.id ? ' chosen' : ''}`}
              aria-pressed={current}
              title={
                current ? 'Click to stop placing' : `Place ${pattern.name}, ${sizeLabel(pattern, size, document.units)}`
              }
              onClick={() => {
                if (current) place(null);
                else place({ pattern: pattern.id, size: size.id });
                choose({ kind: 'pattern', id: pattern.id });
              }}
            >
              <PatternFigure
                pattern={pattern}
                dimensions={Object.values(pattern.sizes)[0]!.dimensions}
                units={document.units}
                width={48}
                height={44}
                most={24}
                materials={document.materials}
              />
              <b>{pattern.name}</b>
              <span>{current ? 'click the sheet' : count === 0 ? 'unused' : `${count} placed`}</span>
            </button>
          );
        })}
      </div>
      {more.right && (
        <button className="turn" aria-label="Patterns after these" onClick={() => turn(1)}>
          <ChevronRight size={18} />
        </button>
      )}
      <ShapeChoice
        units={document.units}
        onChosen={(shape) => {
          const { changeSet, id } = addPattern(document, shape);
          if (commit(changeSet)) place({ pattern: id, size: 'a' });
        }}
        onDrawn={(drawn, name) => {
          const { changeSet, id } = patternOf(document, drawn, name);
          if (!commit(changeSet)) return false;
          place({ pattern: id, size: 'a' });
          return true;
        }}
      >
        <button className="pattern add">
          <Plus size={22} />
          <b>New pattern</b>
        </button>
      </ShapeChoice>
    </div>
  );
}

/** A row that is too long to be seen whole, and whether there is more of it to either side. */
function useTurning(count: number) {
  const row = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState({ left: false, right: false });
  useEffect(() => {
    const held = row.current!;
    const look = (): void =>
      setMore({ left: held.scrollLeft > 2, right: held.scrollLeft + held.clientWidth < held.scrollWidth - 2 });
    look();
    held.addEventListener('scroll', look, { passive: true });
    const sized = new ResizeObserver(look);
    sized.observe(held);
    return () => {
      held.removeEventListener('scroll', look);
      sized.disconnect();
    };
  }, [count]);
  const turn = (way: 1 | -1): void =>
    row.current?.scrollBy({ left: way * row.current.clientWidth * 0.8, behavior: 'smooth' });
  return { row, more, turn };
}
