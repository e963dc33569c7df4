/** Particulars of a datum or an axis: its name and place, what it is for, and what is held to it. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import type { ProjectDocument } from '@yard-arch/document';
import { confineDatum, heldTo, type Line, moveLine, removeLine, renameLine, setDatumKind } from '@yard-arch/edit';
import { useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { commit } from '../state/store.ts';
import { Choice, LengthField, NameField } from '../fields/Fields.tsx';
import { OpeningList } from './OpeningList.tsx';

export function LineParticulars({ document, line }: { document: ProjectDocument; line: Line }) {
  const [asking, setAsking] = useState(false);
  const { units } = document;
  const held = heldTo(document, line);
  const walls = new Set(held.map((opening) => opening.element));
  const name = line.kind === 'datum' ? line.datum.name : line.axis.name;
  const remove = (): void => {
    setAsking(false);
    commit(removeLine(document, line));
  };
  return (
    <section aria-label={`Particulars of ${name}`} data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {line.kind === 'datum' ? 'Datum' : 'Axis'}
      </Heading>
      <NameField label="Name" value={name} onChange={(next) => commit(renameLine(line, next))} />
      {line.kind === 'datum' ? (
        <>
          <LengthField
            label="Level"
            value={line.datum.level}
            units={units}
            note="above the origin"
            onChange={(level) => commit(moveLine(document, line, level))}
          />
          <Choice
            label="Line of"
            value={line.datum.kind ?? ''}
            options={[
              { value: '', label: 'nothing in particular' },
              { value: 'floor', label: 'a floor' },
              { value: 'sill', label: 'sills' },
              { value: 'head', label: 'heads' },
              { value: 'springing', label: 'springings' },
            ]}
            onChange={(kind) => commit(setDatumKind(line.datum, (kind || null) as (typeof line.datum)['kind'] | null))}
          />
          <Choice
            label="For"
            value={line.datum.element ?? ''}
            options={[
              { value: '', label: 'the whole building' },
              ...Object.values(document.elements).map(({ id, name: of }) => ({ value: id, label: `${of} only` })),
            ]}
            onChange={(element) => commit(confineDatum(document, line.datum, element || null))}
          />
        </>
      ) : (
        <LengthField
          label="Along"
          value={line.axis.along}
          units={units}
          note="from the start"
          onChange={(along) => commit(moveLine(document, line, along))}
        />
      )}
      <hr />
      <h3>
        {held.length === 0 ? 'Nothing is held to it' : `Held to it, ${held.length}`}
        {walls.size > 1 ? ` on ${walls.size} walls` : ''}
      </h3>
      {held.length === 0 && (
        <p>
          {line.kind === 'datum'
            ? 'Place an opening on it, or choose it under “Up” in an opening’s particulars.'
            : 'Place an opening on it, or choose it under “Along” in an opening’s particulars.'}
        </p>
      )}
      <OpeningList
        document={document}
        openings={held}
        end={({ element }) => <span>{document.elements[element]?.name}</span>}
      />
      <Flex mt="3">
        <Button
          size="sm"
          variant="outline"
          color="brick"
          onClick={() => (held.length > 0 ? setAsking(true) : remove())}
        >
          Remove {line.kind}
        </Button>
      </Flex>
      <Dialog
        open={asking}
        title={`Remove ${name}?`}
        confirm="Remove, leave them where they are"
        onConfirm={remove}
        onClose={() => setAsking(false)}
      >
        {held.length === 1 ? 'One opening is held to it.' : `${held.length} openings are held to it.`}{' '}
        {held.length === 1 ? 'It stays' : 'They stay'} where {held.length === 1 ? 'it is' : 'they are'}, measured from
        the {line.kind === 'datum' ? 'base of the wall' : 'wall’s start'} from then on.
      </Dialog>
    </section>
  );
}
