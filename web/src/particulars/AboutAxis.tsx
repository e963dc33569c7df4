/** A run of openings about a dome's axis. */
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { aboutAxis } from '@yard-arch/edit';
import { useState } from 'react';
import { refuse } from '../common/notices.tsx';
import { CountField } from '../fields/Fields.tsx';
import { chooseOpenings } from '../state/choice.ts';
import { commit } from '../state/store.ts';

export function AboutAxis({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const [count, setCount] = useState(8);
  const repeat = (): void => {
    const outcome = aboutAxis(document, opening, count);
    if ('reason' in outcome) return refuse(outcome);
    if (commit(outcome.changeSet)) chooseOpenings([opening.id, ...outcome.ids]);
  };
  return (
    <>
      <h3>A run about the axis</h3>
      <CountField label="In all" value={count} within={{ least: 2, most: 60 }} onChange={setCount} />
      <button className="link" onClick={repeat}>
        repeat it about the axis
      </button>
    </>
  );
}
