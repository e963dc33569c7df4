/** All sizes of a pattern side by side at one scale, the smallest first, with what breaks in any of them; one is chosen to be drawn. */
import { patternFront, profileOf } from '@yard-arch/core';
import { sizeLabel, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { addSize, uses } from '@yard-arch/edit';
import { Plus, TriangleAlert } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { commit } from '../state/store.ts';
import { SizesTable } from './SizesTable.tsx';
import { useRoom } from './use-room.ts';

interface SizesProps {
  document: ProjectDocument;
  pattern: Pattern;
  chosen: string;
  onChoose: (size: string) => void;
}

/** The most that one is drawn high, and the least that each is given in width; pixels. */
const [mostHigh, least] = [92, 74];

export function Sizes({ document, pattern, chosen, onChoose }: SizesProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width } = useRoom(box);
  const { units } = document;
  const [table, setTable] = useState(false);
  const proved = useMemo(
    () =>
      Object.values(pattern.sizes)
        .flatMap((size) => {
          const profile = profileOf(pattern.profile, size.dimensions, units);
          if ('reason' in profile) return [];
          const { reason } = patternFront(pattern, size.dimensions, units);
          return [{ size, wide: profile.width, high: profile.height, reason }];
        })
        .sort((a, b) => a.wide * a.high - b.wide * b.high),
    [pattern, units],
  );
  const total = proved.reduce((sum, { wide }) => sum + wide * 1.4, 0);
  const tallest = Math.max(...proved.map(({ high }) => high * 1.15), 0.1);
  const scale = Math.min(mostHigh / tallest, Math.max(200, width - 120) / Math.max(total, 0.1));
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
        {proved.map(({ size, wide, high, reason }) => {
          const count = uses(document, pattern.id, size.id);
          return (
            <button
              key={size.id}
              className={reason ? 'bad' : undefined}
              aria-pressed={size.id === chosen}
              onClick={() => onChoose(size.id)}
              title={count === 0 ? 'Not placed' : `${count} placed`}
            >
              <PatternFigure
                pattern={pattern}
                dimensions={size.dimensions}
                units={units}
                materials={document.materials}
                width={Math.max(least, Math.ceil(wide * 1.4 * scale))}
                height={Math.ceil(high * 1.15 * scale) + 4}
              />
              <b>{sizeLabel(pattern, size, units)}</b>
              {reason && (
                <span role="alert">
                  <TriangleAlert size={12} /> {reason}
                </span>
              )}
            </button>
          );
        })}
        <button
          className="add"
          aria-label="Add a size"
          title="A size like the largest, to be changed"
          onClick={() => {
            const made = addSize(pattern, Object.values(pattern.sizes).at(-1)!);
            if (commit(made.changeSet)) onChoose(made.id);
          }}
        >
          <Plus size={16} /> size
        </button>
      </div>
    </section>
  );
}
