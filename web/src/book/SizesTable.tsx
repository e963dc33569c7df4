/** The sizes of a pattern as a table: names and dimensions typed in their cells, rows copied to a spreadsheet and pasted from one. */
import {
  dimensionLabel,
  dimensionNames,
  formatLength,
  parseLength,
  sizeLabel,
  type Pattern,
  type ProjectDocument,
  type Size,
  type Units,
} from '@yard-arch/document';
import { addSize, copySizes, nameSize, pasteSizes, removeSize, resize, sortSizes, uses } from '@yard-arch/edit';
import { Copy, Trash2 } from 'lucide-react';
import { useState, type ClipboardEvent } from 'react';
import { Cell } from '../fields/Fields.tsx';
import { complain, notify } from '../common/notices.tsx';
import { commit, undo } from '../state/store.ts';

interface TableProps {
  document: ProjectDocument;
  pattern: Pattern;
  chosen: string;
  onChoose: (size: string) => void;
}

export function SizesTable({ document, pattern, chosen, onChoose }: TableProps) {
  const paste = (event: ClipboardEvent): void => {
    const text = event.clipboardData.getData('text/plain');
    // A single figure goes into its cell.
    if (!/[\t\n;]/.test(text.trim())) return;
    event.preventDefault();
    pasted(pattern, text, document.units);
  };
  return (
    <div className="sizes-table" onPaste={paste}>
      <table aria-label="Sizes">
        <Head pattern={pattern} units={document.units} />
        <tbody>
          {Object.values(pattern.sizes).map((size) => (
            <SizeRow
              key={size.id}
              document={document}
              pattern={pattern}
              size={size}
              isChosen={size.id === chosen}
              onChoose={onChoose}
            />
          ))}
        </tbody>
      </table>
      <p>
        <button onClick={() => commit(addSize(pattern, Object.values(pattern.sizes).at(-1)!).changeSet)}>
          add a size
        </button>
        <span>Rows of a spreadsheet can be pasted here.</span>
      </p>
    </div>
  );
}

/** Takes rows of a spreadsheet for sizes. */
function pasted(pattern: Pattern, text: string, units: Units): void {
  const made = pasteSizes(pattern, text, units);
  if ('reason' in made)
    return complain(
      'The sizes were not pasted',
      `${made.reason.charAt(0).toUpperCase()}${made.reason.slice(1)}. ${made.mend}`,
    );
  if (commit(made.changeSet))
    notify(`${made.count} size${made.count === 1 ? '' : 's'} pasted`, { label: 'Undo', onClick: undo });
}

/** What the columns are; those by which the sizes are sorted are clicked. */
function Head({ pattern, units }: { pattern: Pattern; units: Units }) {
  const { shape } = pattern.profile;
  const [by, setBy] = useState<'area' | 'name'>('area');
  const sort = (way: 'area' | 'name'): void => {
    setBy(way);
    commit(sortSizes(pattern, way, units));
  };
  return (
    <thead>
      <tr>
        <th>
          <button onClick={() => sort('name')} title="Sort by name" aria-pressed={by === 'name'}>
            Name
          </button>
        </th>
        {dimensionNames(shape).map((name, i) => (
          <th key={name}>
            {i === 0 ? (
              <button onClick={() => sort('area')} title="Sort by how large they are" aria-pressed={by === 'area'}>
                {dimensionLabel(shape, name)}
              </button>
            ) : (
              dimensionLabel(shape, name)
            )}
          </th>
        ))}
        <th>Placed</th>
        <th>
          <button
            title="Copy all rows, for a spreadsheet"
            aria-label="Copy the table"
            onClick={() => {
              void navigator.clipboard.writeText(copySizes(pattern, (metres) => formatLength(metres, units)));
              notify('The sizes are copied');
            }}
          >
            <Copy size={13} />
          </button>
        </th>
      </tr>
    </thead>
  );
}

/** One size: its name and its dimensions, typed in their cells. */
function SizeRow({
  document,
  pattern,
  size,
  isChosen,
  onChoose,
}: Pick<TableProps, 'document' | 'pattern' | 'onChoose'> & { size: Size; isChosen: boolean }) {
  const { units } = document;
  const { shape } = pattern.profile;
  const label = sizeLabel(pattern, size, units);
  const count = uses(document, pattern.id, size.id);
  const type = (name: string, text: string): string | null => {
    const metres = parseLength(text, units);
    if (metres === null) return `“${text}” is not a length.`;
    const outcome = resize(document, pattern, size, { ...size.dimensions, [name]: metres });
    if ('reason' in outcome) return `${outcome.reason}. ${outcome.mend}`;
    return commit(outcome) ? null : 'It was not changed.';
  };
  return (
    <tr className={isChosen ? 'chosen' : undefined} onFocus={() => onChoose(size.id)}>
      <td>
        <Cell
          label={`Name of ${label}`}
          shown={size.name}
          hint="A name, or nothing to be called by its dimensions"
          onType={(text) => (commit(nameSize(pattern, size, text.trim().slice(0, 120))) ? null : 'It was not named.')}
        />
      </td>
      {dimensionNames(shape).map((name) => (
        <td key={name}>
          <Cell
            label={`${dimensionLabel(shape, name)} of ${label}`}
            shown={formatLength(size.dimensions[name]!, units)}
            hint=""
            onType={(text) => type(name, text)}
          />
        </td>
      ))}
      <td className="count">{count === 0 ? 'not' : count}</td>
      <td>
        {count === 0 && Object.keys(pattern.sizes).length > 1 && (
          <button
            aria-label={`Remove ${label}`}
            title="Remove this size"
            onClick={() => commit(removeSize(pattern, size))}
          >
            <Trash2 size={13} />
          </button>
        )}
      </td>
    </tr>
  );
}
