/** The sizes of a pattern as a table: names and dimensions typed in their cells, rows copied to a spreadsheet and pasted from one. */
import {
  dimensionLabel,
  dimensionNames,
  formatLength,
  parseLength,
  sizeLabel,
  type Pattern,
  type ProjectDocument,
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
  const { units } = document;
  const { shape } = pattern.profile;
  const names = dimensionNames(shape);
  const [by, setBy] = useState<'area' | 'name'>('area');
  const paste = (event: ClipboardEvent): void => {
    const text = event.clipboardData.getData('text/plain');
    // A single figure goes into its cell.
    if (!/[\t\n;]/.test(text.trim())) return;
    event.preventDefault();
    const made = pasteSizes(pattern, text, units);
    if ('reason' in made)
      return complain(
        'The sizes were not pasted',
        `${made.reason.charAt(0).toUpperCase()}${made.reason.slice(1)}. ${made.mend}`,
      );
    if (commit(made.changeSet))
      notify(`${made.count} size${made.count === 1 ? '' : 's'} pasted`, { label: 'Undo', onClick: undo });
  };
  const sort = (way: 'area' | 'name'): void => {
    setBy(way);
    commit(sortSizes(pattern, way, units));
  };
  return (
    <div className="sizes-table" onPaste={paste}>
      <table aria-label="Sizes">
        <thead>
          <tr>
            <th>
              <button onClick={() => sort('name')} title="Sort by name" aria-pressed={by === 'name'}>
                Name
              </button>
            </th>
            {names.map((name, i) => (
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
        <tbody>
          {Object.values(pattern.sizes).map((size) => {
            const label = sizeLabel(pattern, size, units);
            const count = uses(document, pattern.id, size.id);
            return (
              <tr key={size.id} className={size.id === chosen ? 'chosen' : undefined} onFocus={() => onChoose(size.id)}>
                <td>
                  <Cell
                    label={`Name of ${label}`}
                    shown={size.name}
                    hint="A name, or nothing to be called by its dimensions"
                    onType={(text) =>
                      commit(nameSize(pattern, size, text.trim().slice(0, 120))) ? null : 'It was not named.'
                    }
                  />
                </td>
                {names.map((name) => (
                  <td key={name}>
                    <Cell
                      label={`${dimensionLabel(shape, name)} of ${label}`}
                      shown={formatLength(size.dimensions[name]!, units)}
                      hint=""
                      onType={(text) => {
                        const metres = parseLength(text, units);
                        if (metres === null) return `“${text}” is not a length.`;
                        const outcome = resize(document, pattern, size, { ...size.dimensions, [name]: metres });
                        if ('reason' in outcome) return `${outcome.reason}. ${outcome.mend}`;
                        return commit(outcome) ? null : 'It was not changed.';
                      }}
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
          })}
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
