/** Filling a wall with bays: columns spread along it, rows at datums or a storey apart. */
import { Button } from '@chakra-ui/react';
import { datumsOn, levelOn } from '@yard-arch/core';
import { formatLength, sizeLabel, type Element, type ProjectDocument } from '@yard-arch/document';
import { fillFace, type FillWish } from '@yard-arch/edit';
import { useState } from 'react';
import { chooseOpenings } from '../state/choice.ts';
import { useFace } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { Choice, CountField, LengthField } from '../fields/Fields.tsx';
import { Section, Why } from './Section.tsx';
import { firstSpaced, SpacingFields, spacingOf } from './SpacingFields.tsx';

export function FillSection({ document, element }: { document: ProjectDocument; element: Element }) {
  return (
    <Section title="Fill with bays">
      <Body document={document} element={element} />
    </Section>
  );
}

function Body({ document, element }: { document: ProjectDocument; element: Element }) {
  const { units } = document;
  const face = useFace(element.id);
  const choices = Object.values(document.patterns).flatMap((pattern) =>
    Object.values(pattern.sizes).map((size) => ({
      value: `${pattern.id} ${size.id}`,
      label: `${pattern.name}, ${sizeLabel(pattern, size, units)}`,
    })),
  );
  const datums = datumsOn(document, element, face)
    .filter(({ level }) => (levelOn(document, element, level, face) ?? -1) >= 0)
    .sort((a, b) => a.level - b.level);
  const [what, setWhat] = useState(choices[0]?.value ?? '');
  const [columns, setColumns] = useState(5);
  const [spaced, setSpaced] = useState(firstSpaced);
  const [held, setHeld] = useState<readonly string[]>([]);
  const [count, setCount] = useState(1);
  const [first, setFirst] = useState(0.9);
  const [storey, setStorey] = useState(3);
  const [byDatums, setByDatums] = useState(datums.length > 0);
  if (choices.length === 0) return <p>Make a pattern first, in the strip below the sheet.</p>;
  const [pattern = '', size = ''] = what.split(' ');
  const rows: FillWish['rows'] = byDatums
    ? datums.filter(({ id }) => held.includes(id)).map(({ id }) => ({ datum: id }))
    : Array.from({ length: count }, (_, i) => ({ base: first + i * storey }));
  const outcome = fillFace(document, element, {
    pattern,
    size,
    face,
    columns,
    spacing: spacingOf(spaced),
    margins: spaced.margins,
    rows,
  });
  const taken = (set: (value: number) => void) => (value: number) => {
    set(value);
    return true;
  };
  return (
    <>
      <Choice label="Bays of" value={what} options={choices} onChange={setWhat} />
      <CountField label="Columns" value={columns} within={{ least: 1, most: 500 }} onChange={setColumns} />
      <SpacingFields spaced={spaced} ends units={units} onChange={setSpaced} />
      <Choice
        label="Rows"
        value={byDatums ? 'datums' : 'storeys'}
        options={[
          ...(datums.length > 0 ? [{ value: 'datums', label: 'on datums' }] : []),
          { value: 'storeys', label: 'a storey apart' },
        ]}
        onChange={(value) => setByDatums(value === 'datums')}
      />
      {byDatums ? (
        <fieldset className="further">
          <legend>Sills on</legend>
          {datums.map(({ id, name, level }) => (
            <label key={id}>
              <input
                type="checkbox"
                checked={held.includes(id)}
                onChange={() => setHeld(held.includes(id) ? held.filter((other) => other !== id) : [...held, id])}
              />{' '}
              {name}
              <small>{formatLength(level, units)}</small>
            </label>
          ))}
        </fieldset>
      ) : (
        <>
          <CountField label="How many" value={count} within={{ least: 1, most: 200 }} onChange={setCount} />
          <LengthField label="First sill" value={first} units={units} onChange={taken(setFirst)} />
          {count > 1 && (
            <LengthField label="Storey" value={storey} units={units} positive onChange={taken(setStorey)} />
          )}
        </>
      )}
      {'reason' in outcome && <Why {...outcome} />}
      <Button
        size="xs"
        variant="outline"
        disabled={'reason' in outcome || outcome.ids.length === 0}
        onClick={() => {
          if (!('reason' in outcome) && commit(outcome.changeSet)) chooseOpenings(outcome.ids);
        }}
      >
        {'reason' in outcome || outcome.ids.length === 0 ? 'Fill' : `Fill with ${outcome.ids.length} openings`}
      </Button>
    </>
  );
}
