/** What no longer fits on a wall, and the ways in which each can be mended. */
import { misfitsOn, worded, type Misfit } from '@yard-arch/core';
import { sizeLabel, type Element, type ProjectDocument } from '@yard-arch/document';
import { changeSizeOf, drop, edit, putTo } from '@yard-arch/edit';
import { useMemo } from 'react';
import { chooseOpening } from '../state/choice.ts';
import { commit } from '../state/store.ts';

export function MisfitList({ document, element }: { document: ProjectDocument; element: Element }) {
  const misfits = useMemo(() => misfitsOn(document, element), [document, element]);
  if (misfits.length === 0) return null;
  const slide = (which: readonly Misfit[]) =>
    commit(
      edit(
        `slide ${which.length === 1 ? which[0]!.opening.mark : `${which.length} openings`} in`,
        ...putTo(document, new Map(which.flatMap(({ opening, slid }) => (slid ? [[opening.id, slid]] : [])))),
      ),
    );
  const slidable = misfits.filter(({ slid }) => slid);
  return (
    <div className="misfits" role="group" aria-label="What does not fit">
      <h3>
        {misfits.length === 1 ? 'One opening does' : `${misfits.length} openings do`} not fit
        {slidable.length > 1 && (
          <button className="link" onClick={() => slide(slidable)}>
            slide all in
          </button>
        )}
      </h3>
      <ul>
        {misfits.map((misfit) => {
          const { opening, beyond, by, slid, smaller } = misfit;
          const pattern = document.patterns[opening.pattern]!;
          return (
            <li key={opening.id}>
              <span>
                <button className="link" onClick={() => chooseOpening(opening.id)}>
                  {opening.mark}
                </button>{' '}
                is {worded(by, document.units)} beyond {beyond}
              </span>
              <div className="buttons">
                {slid && <button onClick={() => slide([misfit])}>slide it in</button>}
                {smaller && 'size' in smaller && (
                  <button onClick={() => commit(changeSizeOf(opening, pattern, smaller.size, document))}>
                    size {sizeLabel(pattern, pattern.sizes[smaller.size]!, document.units)}
                  </button>
                )}
                {smaller && 'own' in smaller && (
                  <button
                    onClick={() => {
                      const own = { ...opening, own: { ...smaller.own } };
                      const changed = { ...document, openings: { ...document.openings, [opening.id]: own } };
                      commit(
                        edit(`cut ${opening.mark} down to fit`, ...putTo(changed, new Map([[opening.id, smaller]]))),
                      );
                    }}
                  >
                    cut it down to {sizeLabel(pattern, { id: '', name: '', dimensions: smaller.own }, document.units)}
                  </button>
                )}
                <button onClick={() => commit(drop(document, [opening]))}>take it away</button>
              </div>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
