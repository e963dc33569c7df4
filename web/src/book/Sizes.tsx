/** All sizes of a pattern side by side at one scale, the smallest first, with what breaks in any of them; one is chosen to be drawn. */
import { sizeLabel, type Pattern, type ProjectDocument, type Size } from '@yard-arch/document';
import { addSize, uses } from '@yard-arch/edit';
import { Plus, TriangleAlert } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { commit } from '../state/store.ts';
import { provedOf } from './proof.ts';
import { SizesTable } from './SizesTable.tsx';
import { useRoom } from './use-room.ts';

interface SizesProps {
  document: ProjectDocument;
  pattern: Pattern;
  chosen: string;
  onChoose: (size: string) => void;
}

/** The most that one is drawn high, the least that each is given in width, what is kept free about each, and between them; pixels. */
const [mostHigh, least, frame, between] = [92, 74, 4, 28];

export function Sizes({ document, pattern, chosen, onChoose }: SizesProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width } = useRoom(box);
  const { units } = document;
  const [table, setTable] = useState(false);
  const proved = useMemo(() => provedOf(pattern, units), [pattern, units]);
  const total = proved.reduce((sum, { wide }) => sum + wide, 0);
  const tallest = Math.max(...proved.map(({ high }) => high), 0.1);
  const aside = 120 + between * proved.length;
  const scale = Math.min((mostHigh - frame) / tallest, Math.max(200, width - aside) / Math.max(total, 0.1));
  /** Makes a size like another. */
  const add = (like: Size): void => {
    const made = addSize(pattern, like);
    if (commit(made.changeSet)) onChoose(made.id);
  };
  return (
    <section className="sizes" ref={box} aria-label="The pattern in its sizes">
      <h3>
        Size proof <span>from the smallest to the largest, at one scale</span>
        <button className="as-table" aria-pressed={table} onClick={() => setTable(!table)}>
          {table ? 'as drawings' : 'as a table'}
        </button>
      </h3>
      {table && <SizesTable document={document} pattern={pattern} chosen={chosen} onChoose={onChoose} />}
      <div className="row" hidden={table}>
        {proved.map(({ size, tried, wide, high, reason }) => {
          const count = uses(document, pattern.id, size.id);
          const label = sizeLabel(pattern, size, units);
          return (
            <button
              key={size.id}
              className={[reason ? 'bad' : '', tried ? 'tried' : ''].join(' ').trim() || undefined}
              {...(tried ? { 'aria-label': `Make ${label} a size` } : { 'aria-pressed': size.id === chosen })}
              onClick={() => (tried ? add(size) : onChoose(size.id))}
              title={
                tried
                  ? (reason ?? 'Only tried: a click makes it a size')
                  : count === 0
                    ? 'Not placed'
                    : `${count} placed`
              }
            >
              <PatternFigure
                pattern={pattern}
                dimensions={size.dimensions}
                units={units}
                materials={document.materials}
                width={Math.max(least, Math.ceil(wide * scale) + frame)}
                height={Math.ceil(high * scale) + frame}
                most={scale}
                wrong={reason}
              />
              <b>{tried ? `tried ${label}` : label}</b>
              {reason && (
                <span {...(tried ? {} : { role: 'alert' })} title={reason}>
                  <TriangleAlert size={12} /> {tried ? 'would break' : reason}
                </span>
              )}
            </button>
          );
        })}
        <button
          className="add"
          aria-label="Add a size"
          title="A size like the largest, to be changed"
          onClick={() => add(Object.values(pattern.sizes).at(-1)!)}
        >
          <Plus size={16} /> size
        </button>
      </div>
    </section>
  );
}
