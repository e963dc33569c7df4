/** All openings as a table: the sheet's equal for those who cannot use the drawing. Everything that the drawing tells stands in it, and what can be typed is typed here too. */
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { misfitsOn, resolveOpening } from '@yard-arch/core';
import {
  faceLabel,
  formatLength,
  parseLength,
  sizeLabel,
  unitsLabel,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { changeOpening, changePatternOf, changeSizeOf, moveAll } from '@yard-arch/edit';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { chooseOpening, chooseOpenings } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { Cell } from '../fields/Fields.tsx';

interface Line {
  opening: Opening;
  wall: string;
  face: string;
  pattern: string;
  size: string;
  /** Where its lower left corner is, metres; null where it has no place. */
  s: number | null;
  t: number | null;
  state: string;
  reason: string;
}

const column = createColumnHelper<Line>();

function faceName(document: ProjectDocument, { element, face }: Opening): string {
  const on = document.elements[element];
  return on ? faceLabel(on, face) : '';
}

export function OpeningsTable({ document }: { document: ProjectDocument }) {
  const statuses = useEditor((state) => state.statuses);
  const chosen = useEditor((state) => state.chosen);
  const element = useEditor((state) => state.element);
  const [all, setAll] = useState(false);
  const [search, setSearch] = useState('');
  const [sorting, setSorting] = useState<SortingState>([]);
  const { units } = document;
  const ids = chosenIds(chosen);

  const lines = useMemo(() => {
    const misfits = new Map(
      Object.values(document.elements).flatMap((wall) =>
        misfitsOn(document, wall).map((misfit) => [misfit.opening.id, misfit.beyond]),
      ),
    );
    return Object.values(document.openings)
      .filter((opening) => all || opening.element === element)
      .map((opening): Line => {
        const placed = resolveOpening(document, opening);
        const pattern = document.patterns[opening.pattern];
        const size = pattern?.sizes[opening.size];
        const status = statuses.get(opening.id);
        const beyond = misfits.get(opening.id);
        return {
          opening,
          wall: document.elements[opening.element]?.name ?? '',
          face: faceName(document, opening),
          pattern: pattern?.name ?? '',
          size:
            pattern && size
              ? sizeLabel(pattern, opening.own ? { id: '', name: '', dimensions: opening.own } : size, units)
              : '',
          s: 'outline' in placed ? placed.s : null,
          t: 'outline' in placed ? placed.t : null,
          state: status?.state ?? 'being cut',
          reason: [status?.reason, status?.mend, beyond ? `reaches beyond ${beyond}` : ''].filter(Boolean).join('. '),
        };
      });
  }, [document, statuses, all, element, units]);

  // Where all are set out from outside nothing need be said of it.
  const faces = lines.some(({ opening }) => opening.face === 'inner');

  const columns = useMemo(() => {
    const place = (which: 's' | 't', label: string) =>
      column.accessor(which, {
        header: label,
        cell: ({ row: { original }, getValue }) => {
          const value = getValue();
          if (value === null) return '–';
          return (
            <Cell
              label={`${label} of ${original.opening.mark}`}
              shown={formatLength(value, units)}
              hint={`${which === 's' ? 'From the start to its left side' : 'From the base to its sill'}, in ${unitsLabel(units)}`}
              onType={(text) => {
                const metres = parseLength(text, units);
                if (metres === null) return `“${text}” is not a length.`;
                const by = metres - value;
                return commit(moveAll(document, [original.opening], which === 's' ? by : 0, which === 't' ? by : 0))
                  ? null
                  : 'It was not moved.';
              }}
            />
          );
        },
      });
    return [
      column.display({
        id: 'chosen',
        header: '',
        cell: ({ row: { original } }) => (
          <input
            type="checkbox"
            aria-label={`Choose ${original.opening.mark}`}
            checked={ids.includes(original.opening.id)}
            onChange={() => chooseOpening(original.opening.id, true)}
          />
        ),
      }),
      column.accessor((line) => line.opening.mark, {
        id: 'mark',
        header: 'Mark',
        cell: ({ row: { original }, getValue }) => (
          <button className="link" onClick={() => chooseOpening(original.opening.id)}>
            {getValue()}
          </button>
        ),
      }),
      ...(all ? [column.accessor('wall', { header: 'Wall' })] : []),
      ...(faces ? [column.accessor('face', { header: 'Face' })] : []),
      column.accessor('pattern', {
        header: 'Pattern',
        cell: ({ row: { original } }) => (
          <select
            aria-label={`Pattern of ${original.opening.mark}`}
            value={original.opening.pattern}
            onChange={(event) => commit(changePatternOf(document, original.opening, event.target.value).changeSet)}
          >
            {Object.values(document.patterns).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        ),
      }),
      column.accessor('size', {
        header: 'Size',
        cell: ({ row: { original }, getValue }) => {
          const pattern = document.patterns[original.opening.pattern];
          if (!pattern) return getValue();
          return (
            <select
              aria-label={`Size of ${original.opening.mark}`}
              value={original.opening.own ? '' : original.opening.size}
              onChange={(event) =>
                event.target.value && commit(changeSizeOf(original.opening, pattern, event.target.value, document))
              }
            >
              {original.opening.own && <option value="">{getValue()}, its own</option>}
              {Object.values(pattern.sizes).map((size) => (
                <option key={size.id} value={size.id}>
                  {sizeLabel(pattern, size, units)}
                </option>
              ))}
            </select>
          );
        },
      }),
      place('s', 'Along'),
      place('t', 'Up'),
      column.accessor((line) => line.opening.blockedUp, {
        id: 'blocked',
        header: 'Blocked up',
        cell: ({ row: { original }, getValue }) => (
          <input
            type="checkbox"
            aria-label={`Block up ${original.opening.mark}`}
            checked={getValue()}
            onChange={() =>
              commit(
                changeOpening(
                  original.opening,
                  { blockedUp: !original.opening.blockedUp },
                  original.opening.blockedUp ? 'open up' : 'block up',
                ),
              )
            }
          />
        ),
      }),
      column.accessor('state', {
        header: 'What became of it',
        cell: ({ row: { original }, getValue }) => (
          <span className={getValue() === 'not cut' || original.reason.includes('beyond') ? 'bad' : 'good'}>
            {getValue()}
            {original.reason && <small> {original.reason}</small>}
          </span>
        ),
      }),
    ];
  }, [document, ids, units, all, faces]);

  const table = useReactTable({
    data: lines,
    columns,
    state: { sorting, globalFilter: search },
    onSortingChange: setSorting,
    sortDescFirst: false,
    getRowId: (line) => line.opening.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const rows = table.getRowModel().rows;
  const scrolled = useRef<HTMLDivElement>(null);
  // Only the rows in sight are there, however many there are.
  const sight = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scrolled.current,
    estimateSize: () => 33,
    getItemKey: (i) => rows[i]!.id,
    overscan: 12,
  });
  const inSight = sight.getVirtualItems();
  const above = inSight[0]?.start ?? 0;
  const below = sight.getTotalSize() - (inSight.at(-1)?.end ?? 0);
  const chosenOnes = useMemo(() => new Set(ids), [ids]);
  return (
    <div className="openings-table">
      <header>
        <input
          type="search"
          placeholder="Search"
          aria-label="Search openings"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <label>
          <input type="checkbox" checked={all} onChange={() => setAll(!all)} /> of all walls
        </label>
        <button
          className="link"
          disabled={rows.length === 0 || all}
          onClick={() => chooseOpenings(rows.map((row) => row.id))}
        >
          choose all {rows.length}
        </button>
      </header>
      {lines.length === 0 ? (
        <p className="none">No openings yet. Place one on the sheet, or fill a wall with bays in its particulars.</p>
      ) : (
        <div ref={scrolled} className="scrolled" tabIndex={0} role="region" aria-label="Openings">
          <table aria-rowcount={rows.length + 1}>
            <thead>
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id}>
                  {group.headers.map((header) => (
                    <th
                      key={header.id}
                      aria-sort={
                        header.column.getIsSorted() === 'asc'
                          ? 'ascending'
                          : header.column.getIsSorted() === 'desc'
                            ? 'descending'
                            : undefined
                      }
                    >
                      {header.column.getCanSort() ? (
                        <button onClick={header.column.getToggleSortingHandler()} title="Sort by it">
                          {flexRender(header.column.columnDef.header, header.getContext())}
                          {{ asc: ' ↑', desc: ' ↓' }[header.column.getIsSorted() as string] ?? ''}
                        </button>
                      ) : (
                        flexRender(header.column.columnDef.header, header.getContext())
                      )}
                    </th>
                  ))}
                </tr>
              ))}
            </thead>
            <tbody>
              {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
              {inSight.map(({ index }) => {
                const row = rows[index]!;
                return (
                  <tr
                    key={row.id}
                    data-index={index}
                    ref={sight.measureElement}
                    aria-rowindex={index + 2}
                    className={chosenOnes.has(row.id) ? 'chosen' : ''}
                  >
                    {row.getVisibleCells().map((cell) => (
                      <td key={cell.id}>{flexRender(cell.column.columnDef.cell, cell.getContext())}</td>
                    ))}
                  </tr>
                );
              })}
              {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
