/** A list of openings to choose from. A long one begins with those that were not cut, and shows the rest on request. */
import type { Outcome } from '@yard-arch/core';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { useState, type ReactNode } from 'react';
import { chooseOpening } from '../state/choice.ts';

/** A list no longer than this is shown whole. */
const most = 60;

interface OpeningListProps {
  document: ProjectDocument;
  openings: readonly Opening[];
  statuses?: ReadonlyMap<string, Outcome>;
  /** What stands at the end of an opening's line. */
  end: (opening: Opening) => ReactNode;
}

export function OpeningList({ document, openings, statuses, end }: OpeningListProps) {
  const [whole, setWhole] = useState(false);
  const failed = (opening: Opening): boolean => statuses?.get(opening.id)?.state === 'not cut';
  const shown =
    whole || openings.length <= most
      ? openings
      : [...openings.filter(failed), ...openings.filter((opening) => !failed(opening))].slice(0, most);
  return (
    <>
      <ul className="openings">
        {shown.map((opening) => {
          const status = statuses?.get(opening.id);
          return (
            <li key={opening.id}>
              <button
                onClick={() => chooseOpening(opening.id)}
                title={[status?.reason, status?.mend].filter(Boolean).join('. ') || undefined}
              >
                <b>{opening.mark}</b>
                <span>{document.patterns[opening.pattern]?.name}</span>
                {end(opening)}
              </button>
            </li>
          );
        })}
      </ul>
      {shown.length < openings.length && (
        <button className="link" onClick={() => setWhole(true)}>
          show all {openings.length}
        </button>
      )}
    </>
  );
}
