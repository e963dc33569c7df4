/** Another pattern for all chosen openings, shown before and after; the drawing shows it meanwhile. */
import { Button } from '@chakra-ui/react';
import { sizeLabel, type Opening, type ProjectDocument } from '@yard-arch/document';
import { swapAll, type Swapped } from '@yard-arch/edit';
import { ArrowRight } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { notify } from '../common/notices.tsx';
import { Choice } from '../fields/Fields.tsx';
import { commit, preview } from '../state/store.ts';
import { Section } from './Section.tsx';

interface SwapProps {
  document: ProjectDocument;
  openings: readonly Opening[];
}

export function SwapSection({ document, openings }: SwapProps) {
  return (
    <Section title="Another pattern">
      <Body document={document} openings={openings} />
    </Section>
  );
}

function Body({ document, openings }: SwapProps) {
  const [to, setTo] = useState('');
  const outcome = useMemo(
    () => (document.patterns[to] ? swapAll(document, openings, to) : null),
    [document, openings, to],
  );
  useEffect(() => {
    if (!outcome) return;
    preview(outcome.changeSet);
    return () => preview(null);
  }, [outcome]);
  const count = outcome?.pairs.reduce((sum, { openings: those }) => sum + those.length, 0) ?? 0;
  return (
    <div
      className="swap"
      onKeyDown={(event) => {
        if (event.key === 'Escape') setTo('');
      }}
    >
      <Choice
        label="Becomes"
        value={to}
        options={[
          { value: '', label: 'choose…' },
          ...Object.values(document.patterns).map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={setTo}
      />
      {outcome && count === 0 && <p>All of them are of it already.</p>}
      {outcome?.pairs.map((pair, i) => (
        <Pair key={i} pair={pair} document={document} />
      ))}
      {outcome?.told.slice(0, 3).map((words) => (
        <p key={words}>{words}</p>
      ))}
      {outcome && count > 0 && (
        <div className="buttons">
          <Button
            size="xs"
            variant="outline"
            onClick={() => {
              setTo('');
              if (commit(outcome.changeSet))
                notify(`${count} ${count === 1 ? 'opening is' : 'openings are'} of another pattern`);
            }}
          >
            Change {count} {count === 1 ? 'opening' : 'openings'}
          </Button>
          <Button size="xs" variant="ghost" onClick={() => setTo('')}>
            Leave them
          </Button>
        </div>
      )}
    </div>
  );
}

/** What alike ones are, and what they become, at one scale. */
function Pair({ pair: { before, after, openings }, document }: { pair: Swapped; document: ProjectDocument }) {
  const { units, materials } = document;
  const label = ({ pattern, dimensions }: Swapped['before']): string =>
    sizeLabel(pattern, { id: '', name: '', dimensions }, units);
  return (
    <div className="pair">
      <figure>
        <PatternFigure {...before} units={units} materials={materials} width={72} height={72} most={30} />
        <figcaption>{label(before)}</figcaption>
      </figure>
      <ArrowRight size={16} />
      <figure>
        <PatternFigure {...after} units={units} materials={materials} width={72} height={72} most={30} />
        <figcaption>{label(after)}</figcaption>
      </figure>
      <b>{openings.length}×</b>
    </div>
  );
}
