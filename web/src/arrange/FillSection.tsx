/** Filling a wall with bays: columns spread along it, rows at datums or a storey apart. */
import { Button } from '@chakra-ui/react';
import { datumsOn, levelOn } from '@yard-arch/core';
import {
  formatLength,
  sizeLabel,
  type Datum,
  type Element,
  type ProjectDocument,
  type Units,
} from '@yard-arch/document';
import { fillFace, type FillWish } from '@yard-arch/edit';
import { useState } from 'react';
import { chooseOpenings } from '../state/choice.ts';
import { useFace } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { Choice, CountField, LengthField } from '../fields/Fields.tsx';
import { Section, Why } from './Section.tsx';
import { firstSpaced, SpacingFields, spacingOf } from './SpacingFields.tsx';

export function FillSection({ document, element }: Wanted) {
  return (
    <Section title="Fill with bays">
      <Body document={document} element={element} />
    </Section>
  );
}

interface Wanted {
  document: ProjectDocument;
  element: Element;
}

/** The sizes that bays can be of. */
const sizesOf = ({ patterns, units }: ProjectDocument): { value: string; label: string }[] =>
  Object.values(patterns).flatMap((pattern) =>
    Object.values(pattern.sizes).map((size) => ({
      value: `${pattern.id} ${size.id}`,
      label: `${pattern.name}, ${sizeLabel(pattern, size, units)}`,
    })),
  );

function Body({ document, element }: Wanted) {
  const { units } = document;
  const face = useFace(element.id);
  const choices = sizesOf(document);
  const datums = datumsOn(document, element, face)
    .filter(({ level }) => (levelOn(document, element, level, face) ?? -1) >= 0)
    .sort((a, b) => a.level - b.level);
  const [what, setWhat] = useState(choices[0]?.value ?? '');
  const [columns, setColumns] = useState(5);
  const [spaced, setSpaced] = useState(firstSpaced);
  const [rows, setRows] = useState<Rows>({
    byDatums: datums.length > 0,
    held: [],
    count: 1,
    first: 0.9,
    storey: 3,
  });
  if (choices.length === 0) return <p>Make a pattern first, in the strip below the sheet.</p>;
  const [pattern = '', size = ''] = what.split(' ');
  const outcome = fillFace(document, element, {
    pattern,
    size,
    face,
    columns,
    spacing: spacingOf(spaced),
    margins: spaced.margins,
    rows: wishOf(rows, datums),
  });
  return (
    <>
      <Choice label="Bays of" value={what} options={choices} onChange={setWhat} />
      <CountField label="Columns" value={columns} within={{ least: 1, most: 500 }} onChange={setColumns} />
      <SpacingFields spaced={spaced} ends units={units} onChange={setSpaced} />
      <RowFields rows={rows} datums={datums} units={units} onChange={setRows} />
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

/** At which heights rows stand; lengths in metres. */
interface Rows {
  /** Whether their sills are on datums, on those that are held to; otherwise rows are a storey apart. */
  byDatums: boolean;
  held: readonly string[];
  count: number;
  first: number;
  storey: number;
}

const wishOf = ({ byDatums, held, count, first, storey }: Rows, datums: readonly Datum[]): FillWish['rows'] =>
  byDatums
    ? datums.filter(({ id }) => held.includes(id)).map(({ id }) => ({ datum: id }))
    : Array.from({ length: count }, (_, i) => ({ base: first + i * storey }));

interface RowFieldsProps {
  rows: Rows;
  datums: readonly Datum[];
  units: Units;
  onChange: (rows: Rows) => void;
}

function RowFields({ rows, datums, units, onChange }: RowFieldsProps) {
  const { byDatums, held, count, first, storey } = rows;
  const change = (over: Partial<Rows>): boolean => {
    onChange({ ...rows, ...over });
    return true;
  };
  return (
    <>
      <Choice
        label="Rows"
        value={byDatums ? 'datums' : 'storeys'}
        options={[
          ...(datums.length > 0 ? [{ value: 'datums', label: 'on datums' }] : []),
          { value: 'storeys', label: 'a storey apart' },
        ]}
        onChange={(value) => change({ byDatums: value === 'datums' })}
      />
      {byDatums ? (
        <fieldset className="further">
          <legend>Sills on</legend>
          {datums.map(({ id, name, level }) => (
            <label key={id}>
              <input
                type="checkbox"
                checked={held.includes(id)}
                onChange={() =>
                  change({ held: held.includes(id) ? held.filter((other) => other !== id) : [...held, id] })
                }
              />{' '}
              {name}
              <small>{formatLength(level, units)}</small>
            </label>
          ))}
        </fieldset>
      ) : (
        <>
          <CountField
            label="How many"
            value={count}
            within={{ least: 1, most: 200 }}
            onChange={(next) => void change({ count: next })}
          />
          <LengthField label="First sill" value={first} units={units} onChange={(next) => change({ first: next })} />
          {count > 1 && (
            <LengthField
              label="Storey"
              value={storey}
              units={units}
              positive
              onChange={(next) => change({ storey: next })}
            />
          )}
        </>
      )}
    </>
  );
}
