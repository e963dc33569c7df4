/** Lining openings up with the one that was chosen first. */
import { alignments, lineOf } from '@yard-arch/core';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { alignAll, boxesOf, sizeAll } from '@yard-arch/edit';
import { commit } from '../state/store.ts';
import { Section } from './Section.tsx';

export function AlignSection({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  const first = openings[0]!;
  const [box] = boxesOf(document, [first]);
  return (
    <Section title="Line up">
      <p>with {first.mark}, which was chosen first</p>
      <div className="buttons">
        {alignments.map((by) => (
          <button
            key={by}
            disabled={!box || (by === 'springings' && box.springing === null)}
            onClick={() => box && commit(alignAll(document, openings.slice(1), by, lineOf(box, by)))}
          >
            {by}
          </button>
        ))}
      </div>
      <p>or make all of them the same</p>
      <div className="buttons">
        <button onClick={() => commit(sizeAll(openings.slice(1), first))}>pattern and size of {first.mark}</button>
      </div>
    </Section>
  );
}
