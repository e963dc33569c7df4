/** Evening out: what almost agrees is shown before and after, and made equal in one step. */
import { Button } from '@chakra-ui/react';
import { uneven } from '@yard-arch/core';
import { formatLength, sizeLabel, type Opening, type ProjectDocument } from '@yard-arch/document';
import { boxesOf, edit, evenOut, sizeAll, unevenSizes } from '@yard-arch/edit';
import { useMemo, useState } from 'react';
import { commit } from '../state/store.ts';
import { LengthField } from '../fields/Fields.tsx';
import { Section } from './Section.tsx';

export function EvenOutSection({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  return (
    <Section title="Even out">
      <Body document={document} openings={openings} />
    </Section>
  );
}

/** What almost agrees: sizes of one pattern, or levels. */
interface Uneven {
  key: string;
  what: string;
  before: { mark: string; value: string }[];
  after: string;
  sizes: ReturnType<typeof unevenSizes>[number] | null;
  level: ReturnType<typeof uneven>[number] | null;
}

function Body({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  const [tolerance, setTolerance] = useState(0.02);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { units } = document;
  const groups = useMemo(
    () => [...sizesIn(document, openings, tolerance), ...levelsIn(document, openings, tolerance)],
    [document, openings, tolerance],
  );
  const wanted = groups.filter(({ key }) => !left.has(key));
  const turn = (key: string): void => {
    const next = new Set(left);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  return (
    <>
      <LengthField
        label="Within"
        value={tolerance}
        units={units}
        positive
        onChange={(value) => {
          setTolerance(value);
          return true;
        }}
      />
      {groups.length === 0 ? (
        <p>Nothing almost agrees: what is within {formatLength(tolerance, units)} of each other is the same.</p>
      ) : (
        <Table groups={groups} left={left} onTurn={turn} />
      )}
      <Button size="xs" variant="outline" disabled={wanted.length === 0} onClick={() => apply(document, wanted)}>
        Make equal
      </Button>
    </>
  );
}

function sizesIn(document: ProjectDocument, openings: readonly Opening[], tolerance: number): Uneven[] {
  return unevenSizes(document, openings, tolerance).map((group) => {
    const pattern = document.patterns[group.pattern]!;
    const label = (opening: Opening): string =>
      sizeLabel(
        pattern,
        opening.own ? { id: '', name: '', dimensions: opening.own } : pattern.sizes[opening.size]!,
        document.units,
      );
    return {
      key: `size ${group.openings.map(({ id }) => id).join()}`,
      what: `Size of ${group.openings.length} ${pattern.name}`,
      before: group.openings.map((opening) => ({ mark: opening.mark, value: label(opening) })),
      after: label(group.to),
      sizes: group,
      level: null,
    };
  });
}

function levelsIn(document: ProjectDocument, openings: readonly Opening[], tolerance: number): Uneven[] {
  const { units } = document;
  return uneven(boxesOf(document, openings), tolerance).map((group) => ({
    key: `${group.by} ${group.openings.map(({ id }) => id).join()}`,
    what: `${group.by.charAt(0).toUpperCase()}${group.by.slice(1)} of ${group.openings.length}`,
    before: group.openings.map(({ mark, at }) => ({ mark, value: formatLength(at, units) })),
    after: formatLength(group.to, units),
    sizes: null,
    level: group,
  }));
}

/** Makes equal what was found uneven, in one step. */
function apply(document: ProjectDocument, wanted: readonly Uneven[]): void {
  const resized = wanted.flatMap(({ sizes }) => (sizes ? sizeAll(sizes.openings, sizes.to).changes : []));
  const values = resized.map((change) => (change as { value: Opening }).value);
  // Sizes first: levels are brought into line as the openings are then.
  const sized = {
    ...document,
    openings: { ...document.openings, ...Object.fromEntries(values.map((opening) => [opening.id, opening])) },
  };
  const moved = evenOut(
    sized,
    wanted.flatMap(({ level }) => level ?? []),
  );
  const touched = new Set([...resized, ...moved.changes].map((change) => (change as { value: Opening }).value.id));
  commit(edit(`even out ${touched.size} openings`, ...resized, ...moved.changes));
}

function Table({
  groups,
  left,
  onTurn,
}: {
  groups: readonly Uneven[];
  /** Those that are to stay as they are, by their keys. */
  left: ReadonlySet<string>;
  onTurn: (key: string) => void;
}) {
  return (
    <table className="even">
      <thead>
        <tr>
          <th></th>
          <th>before</th>
          <th>after</th>
        </tr>
      </thead>
      <tbody>
        {groups.map(({ key, what, before, after }) => (
          <tr key={key}>
            <th>
              <label>
                <input type="checkbox" checked={!left.has(key)} onChange={() => onTurn(key)} /> {what}
              </label>
            </th>
            <td title={before.map(({ mark, value }) => `${mark} ${value}`).join(', ')}>
              {counted(before.map(({ value }) => value))}
            </td>
            <td>{after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Values with how many have each: `898, 900 (2), 903`. */
function counted(values: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].map(([value, count]) => (count > 1 ? `${value} (${count})` : value)).join(', ');
}
