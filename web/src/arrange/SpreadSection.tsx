/** Spreading openings along their wall. */
import { Button } from '@chakra-ui/react';
import { formatLength, type Opening, type ProjectDocument } from '@yard-arch/document';
import { spreadAll, spreadPlaces, type SpreadWish } from '@yard-arch/edit';
import { useState } from 'react';
import { commit } from '../state/store.ts';
import { Choice } from '../fields/Fields.tsx';
import { Section, Why } from './Section.tsx';
import { firstSpaced, SpacingFields, spacingOf } from './SpacingFields.tsx';

export function SpreadSection({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  return (
    <Section title="Spread">
      <Body document={document} openings={openings} />
    </Section>
  );
}

function Body({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  const [spaced, setSpaced] = useState(firstSpaced);
  const [over, setOver] = useState<SpreadWish['over']>('face');
  const wish: SpreadWish = { spacing: spacingOf(spaced), over, margins: spaced.margins };
  const outcome = spreadPlaces(document, openings, wish);
  const piers =
    'reason' in outcome ? [] : [...new Set(outcome.piers.map((pier) => formatLength(pier, document.units)))];
  return (
    <>
      <Choice
        label="Over"
        value={over}
        options={[
          { value: 'face', label: 'the whole wall' },
          { value: 'outermost', label: 'between the outermost two' },
        ]}
        onChange={(value) => setOver(value as SpreadWish['over'])}
      />
      <SpacingFields spaced={spaced} ends={over === 'face'} units={document.units} onChange={setSpaced} />
      {'reason' in outcome ? (
        <Why {...outcome} />
      ) : (
        <p>
          {piers.length === 1
            ? `Piers of ${piers[0]}`
            : piers.length > 1
              ? `Piers of ${piers.slice(0, 4).join(', ')}${piers.length > 4 ? '…' : ''}`
              : ''}
          {over === 'face' ? '; they stay so when the wall’s length changes' : ''}
        </p>
      )}
      <Button
        size="xs"
        variant="outline"
        disabled={'reason' in outcome}
        onClick={() => {
          const change = spreadAll(document, openings, wish);
          if (!('reason' in change)) commit(change);
        }}
      >
        Spread {openings.length} openings
      </Button>
    </>
  );
}
