/** Particulars of a datum or an axis: its name and place, what it is for, and what is held to it. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import type { Datum, Opening, ProjectDocument } from '@yard-arch/document';
import { confineDatum, heldTo, type Line, moveLine, removeLine, renameLine, setDatumKind } from '@yard-arch/edit';
import { useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { commit } from '../state/store.ts';
import { Choice, LengthField, NameField } from '../fields/Fields.tsx';
import { OpeningList } from './OpeningList.tsx';

const nameOf = (line: Line): string => (line.kind === 'datum' ? line.datum.name : line.axis.name);

export function LineParticulars({ document, line }: { document: ProjectDocument; line: Line }) {
  const held = heldTo(document, line);
  const name = nameOf(line);
  return (
    <section aria-label={`Particulars of ${name}`} data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {line.kind === 'datum' ? 'Datum' : 'Axis'}
      </Heading>
      <NameField label="Name" value={name} onChange={(next) => commit(renameLine(line, next))} />
      {line.kind === 'datum' ? (
        <DatumFields document={document} datum={line.datum} />
      ) : (
        <LengthField
          label="Along"
          value={line.axis.along}
          units={document.units}
          note="from the start"
          onChange={(along) => commit(moveLine(document, line, along))}
        />
      )}
      <hr />
      <Held document={document} line={line} held={held} />
      <Remove document={document} line={line} held={held.length} />
    </section>
  );
}

/** Where a datum is, what it is a line of, and for which of the elements. */
function DatumFields({ document, datum }: { document: ProjectDocument; datum: Datum }) {
  return (
    <>
      <LengthField
        label="Level"
        value={datum.level}
        units={document.units}
        note="above the origin"
        onChange={(level) => commit(moveLine(document, { kind: 'datum', datum }, level))}
      />
      <Choice
        label="Line of"
        value={datum.kind ?? ''}
        options={[
          { value: '', label: 'nothing in particular' },
          { value: 'floor', label: 'a floor' },
          { value: 'sill', label: 'sills' },
          { value: 'head', label: 'heads' },
          { value: 'springing', label: 'springings' },
        ]}
        onChange={(kind) => commit(setDatumKind(datum, (kind || null) as Datum['kind'] | null))}
      />
      <Choice
        label="For"
        value={datum.element ?? ''}
        options={[
          { value: '', label: 'the whole building' },
          ...Object.values(document.elements).map(({ id, name: of }) => ({ value: id, label: `${of} only` })),
        ]}
        onChange={(element) => commit(confineDatum(document, datum, element || null))}
      />
    </>
  );
}

interface HeldProps {
  document: ProjectDocument;
  line: Line;
  held: Opening[];
}

/** The openings that are held to a line. */
function Held({ document, line, held }: HeldProps) {
  const walls = new Set(held.map((opening) => opening.element)).size;
  return (
    <>
      <h3>
        {held.length === 0 ? 'Nothing is held to it' : `Held to it, ${held.length}`}
        {walls > 1 ? ` on ${walls} walls` : ''}
      </h3>
      {held.length === 0 && (
        <p>
          Place an opening on it, or choose it under “{line.kind === 'datum' ? 'Up' : 'Along'}” in an opening’s
          particulars.
        </p>
      )}
      <OpeningList
        document={document}
        openings={held}
        end={({ element }) => <span>{document.elements[element]?.name}</span>}
      />
    </>
  );
}

/** Removes a line; where openings are held to it once that has been said. */
function Remove({ document, line, held }: Omit<HeldProps, 'held'> & { held: number }) {
  const [asking, setAsking] = useState(false);
  const remove = (): void => {
    setAsking(false);
    commit(removeLine(document, line));
  };
  return (
    <>
      <Flex mt="3">
        <Button size="sm" variant="outline" color="brick" onClick={() => (held > 0 ? setAsking(true) : remove())}>
          Remove {line.kind}
        </Button>
      </Flex>
      <Dialog
        open={asking}
        title={`Remove ${nameOf(line)}?`}
        confirm="Remove, leave them where they are"
        onConfirm={remove}
        onClose={() => setAsking(false)}
      >
        {held === 1 ? 'One opening is held to it.' : `${held} openings are held to it.`}{' '}
        {held === 1 ? 'It stays' : 'They stay'} where {held === 1 ? 'it is' : 'they are'}, measured from the{' '}
        {line.kind === 'datum' ? 'base of the wall' : 'wall’s start'} from then on.
      </Dialog>
    </>
  );
}
