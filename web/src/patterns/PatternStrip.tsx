/** The strip of patterns below the sheet: click one to place it, click it again to stop. Drawn up it shows them larger, many at once, found by name or tag. */
import { sizeLabel, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { addPattern, patternOf, uses } from '@yard-arch/edit';
import { ChevronDown, ChevronLeft, ChevronRight, ChevronUp, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { choose, place } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { useFavourites } from './favourites.ts';
import { matches } from './matches.ts';
import { ShapeChoice } from './ShapeChoice.tsx';

const kept = 'yard-arch-strip';

export function PatternStrip({ document }: { document: ProjectDocument }) {
  const [open, setOpen] = useState(() => localStorage.getItem(kept) === 'open');
  const [text, setText] = useState('');
  const [favourites] = useFavourites(useEditor((state) => state.project) ?? '');
  const all = Object.values(document.patterns);
  const patterns = all
    .filter((pattern) => !open || matches(pattern, text))
    .sort((a, b) => Number(favourites.has(b.id)) - Number(favourites.has(a.id)));
  const { row, more, turn } = useTurning(`${patterns.length} ${open}`);
  const toggle = (): void => {
    localStorage.setItem(kept, open ? 'shut' : 'open');
    setOpen(!open);
  };
  return (
    <div className={`strip${open ? ' open' : ''}`} role="toolbar" aria-label="Patterns">
      <div className="strip-head">
        <button
          className="turn"
          aria-expanded={open}
          title={open ? 'Fewer patterns' : 'More of the patterns'}
          onClick={toggle}
        >
          {open ? <ChevronDown size={18} /> : <ChevronUp size={18} />}
        </button>
        {open && (
          <>
            <input
              type="search"
              placeholder={`Search ${all.length} patterns`}
              aria-label="Search patterns"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <SizeChoice document={document} />
          </>
        )}
      </div>
      {more.left && (
        <button className="turn" aria-label="Patterns before these" onClick={() => turn(-1)}>
          <ChevronLeft size={18} />
        </button>
      )}
      <div className="row" ref={row}>
        {patterns.map((pattern) => (
          <PatternCard key={pattern.id} document={document} pattern={pattern} large={open} />
        ))}
        {patterns.length === 0 && all.length > 0 && <p>None of that name or tag.</p>}
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

interface CardProps {
  document: ProjectDocument;
  pattern: Pattern;
  large: boolean;
}

/** A pattern to be placed by a click. */
function PatternCard({ document, pattern, large }: CardProps) {
  const placing = useEditor((state) => state.placing);
  const isChosen = useEditor(({ chosen }) => chosen.kind === 'pattern' && chosen.id === pattern.id);
  const current = placing?.pattern === pattern.id;
  const size = (current && pattern.sizes[placing.size]) || Object.values(pattern.sizes)[0]!;
  const count = uses(document, pattern.id);
  return (
    <button
      className={`pattern${current ? ' placing' : ''}${isChosen ? ' chosen' : ''}`}
      aria-pressed={current}
      title={current ? 'Click to stop placing' : `Place ${pattern.name}, ${sizeLabel(pattern, size, document.units)}`}
      onClick={() => {
        if (current) place(null);
        else place({ pattern: pattern.id, size: size.id });
        choose({ kind: 'pattern', id: pattern.id });
      }}
    >
      <PatternFigure
        pattern={pattern}
        dimensions={size.dimensions}
        units={document.units}
        width={large ? 96 : 48}
        height={large ? 66 : 44}
        most={large ? 32 : 24}
        materials={document.materials}
      />
      <b>{pattern.name}</b>
      <span>{current ? 'click the sheet' : count === 0 ? 'unused' : `${count} placed`}</span>
    </button>
  );
}

/** The sizes of the pattern that is about to be placed. */
function SizeChoice({ document }: { document: ProjectDocument }) {
  const placing = useEditor((state) => state.placing);
  const pattern = placing && document.patterns[placing.pattern];
  if (!pattern) return null;
  return (
    <div className="sizes" role="group" aria-label={`Sizes of ${pattern.name}`}>
      {Object.values(pattern.sizes).map((size) => (
        <button
          key={size.id}
          aria-pressed={size.id === placing.size}
          onClick={() => place({ pattern: pattern.id, size: size.id })}
        >
          {sizeLabel(pattern, size, document.units)}
        </button>
      ))}
    </div>
  );
}

/** A row that is too long to be seen whole, and whether there is more of it to either side. */
function useTurning(shown: string) {
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
  }, [shown]);
  const turn = (way: 1 | -1): void =>
    row.current?.scrollBy({ left: way * row.current.clientWidth * 0.8, behavior: 'smooth' });
  return { row, more, turn };
}
