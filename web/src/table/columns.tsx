/** The columns of the table, with what can be typed and chosen in each. */
import { createColumnHelper } from '@tanstack/react-table';
import { formatLength, parseLength, sizeLabel, unitsLabel, type ProjectDocument } from '@yard-arch/document';
import { changeOpening, changePatternOf, changeSizeOf, moveAll } from '@yard-arch/edit';
import { Cell } from '../fields/Fields.tsx';
import { chooseOpening } from '../state/choice.ts';
import { commit } from '../state/store.ts';
import type { Line } from './lines.ts';

const column = createColumnHelper<Line>();

interface Shown {
  document: ProjectDocument;
  chosen: ReadonlySet<string>;
  /** Whether the lines are of all walls, and whether any is set out from within: otherwise nothing need be said of it. */
  walls: boolean;
  faces: boolean;
}

export function columnsOf({ document, chosen, walls, faces }: Shown) {
  return [
    column.display({
      id: 'chosen',
      header: '',
      cell: ({ row: { original } }) => <ChooseCell line={original} chosen={chosen.has(original.opening.id)} />,
    }),
    column.accessor(({ opening }) => opening.mark, {
      id: 'mark',
      header: 'Mark',
      cell: ({ row: { original }, getValue }) => (
        <button className="link" onClick={() => chooseOpening(original.opening.id)}>
          {getValue()}
        </button>
      ),
    }),
    ...(walls ? [column.accessor('wall', { header: 'Wall' })] : []),
    ...(faces ? [column.accessor('face', { header: 'Face' })] : []),
    column.accessor('pattern', {
      header: 'Pattern',
      cell: ({ row: { original } }) => <PatternCell document={document} line={original} />,
    }),
    column.accessor('size', {
      header: 'Size',
      cell: ({ row: { original } }) => <SizeCell document={document} line={original} />,
    }),
    column.accessor('s', {
      header: 'Along',
      cell: ({ row: { original } }) => <PlaceCell document={document} line={original} which="s" label="Along" />,
    }),
    column.accessor('t', {
      header: 'Up',
      cell: ({ row: { original } }) => <PlaceCell document={document} line={original} which="t" label="Up" />,
    }),
    column.accessor(({ opening }) => opening.blockedUp, {
      id: 'blocked',
      header: 'Blocked up',
      cell: ({ row: { original } }) => <BlockedCell line={original} />,
    }),
    column.accessor('state', {
      header: 'What became of it',
      cell: ({ row: { original } }) => (
        <span className={original.bad ? 'bad' : 'good'}>
          {original.state}
          {original.reason && <small> {original.reason}</small>}
        </span>
      ),
    }),
  ];
}

function ChooseCell({ line: { opening }, chosen }: { line: Line; chosen: boolean }) {
  return (
    <input
      type="checkbox"
      aria-label={`Choose ${opening.mark}`}
      checked={chosen}
      onChange={() => chooseOpening(opening.id, true)}
    />
  );
}

interface CellProps {
  document: ProjectDocument;
  line: Line;
}

function PatternCell({ document, line: { opening } }: CellProps) {
  return (
    <select
      aria-label={`Pattern of ${opening.mark}`}
      value={opening.pattern}
      onChange={(event) => commit(changePatternOf(document, opening, event.target.value).changeSet)}
    >
      {Object.values(document.patterns).map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

function SizeCell({ document, line: { opening, size: shown } }: CellProps) {
  const pattern = document.patterns[opening.pattern];
  if (!pattern) return shown;
  return (
    <select
      aria-label={`Size of ${opening.mark}`}
      value={opening.own ? '' : opening.size}
      onChange={(event) => event.target.value && commit(changeSizeOf(opening, pattern, event.target.value, document))}
    >
      {opening.own && <option value="">{shown}, its own</option>}
      {Object.values(pattern.sizes).map((size) => (
        <option key={size.id} value={size.id}>
          {sizeLabel(pattern, size, document.units)}
        </option>
      ))}
    </select>
  );
}

function PlaceCell({ document, line, which, label }: CellProps & { which: 's' | 't'; label: string }) {
  const { units } = document;
  const { opening, [which]: value } = line;
  if (value === null) return '–';
  return (
    <Cell
      label={`${label} of ${opening.mark}`}
      shown={formatLength(value, units)}
      hint={`${which === 's' ? 'From the start to its left side' : 'From the base to its sill'}, in ${unitsLabel(units)}`}
      onType={(text) => {
        const metres = parseLength(text, units);
        if (metres === null) return `“${text}” is not a length.`;
        const by = metres - value;
        const moved = moveAll(document, [opening], { ds: which === 's' ? by : 0, dt: which === 't' ? by : 0 });
        return commit(moved) ? null : 'It was not moved.';
      }}
    />
  );
}

function BlockedCell({ line: { opening } }: { line: Line }) {
  const { blockedUp, mark } = opening;
  return (
    <input
      type="checkbox"
      aria-label={`Block up ${mark}`}
      checked={blockedUp}
      onChange={() => commit(changeOpening(opening, { blockedUp: !blockedUp }, blockedUp ? 'open up' : 'block up'))}
    />
  );
}
