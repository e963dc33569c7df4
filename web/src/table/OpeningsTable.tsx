/** All openings as a table: the sheet's equal for those who cannot use the drawing. Everything that the drawing tells stands in it, and what can be typed is typed here too. */
import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type Header,
  type Row,
  type SortingState,
  type Table,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { ProjectDocument } from '@yard-arch/document';
import { useMemo, useRef, useState } from 'react';
import { chooseOpenings } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { columnsOf } from './columns.tsx';
import { linesOf, type Line } from './lines.ts';

export function OpeningsTable({ document }: { document: ProjectDocument }) {
  const statuses = useEditor((state) => state.statuses);
  const element = useEditor((state) => state.element);
  const ids = useEditor((state) => chosenIds(state.chosen));
  const [all, setAll] = useState(false);
  const [search, setSearch] = useState('');
  const [sorting, setSorting] = useState<SortingState>([]);
  const lines = useMemo(() => linesOf(document, statuses, all ? null : element), [document, statuses, all, element]);
  const chosen = useMemo(() => new Set(ids), [ids]);
  const faces = lines.some(({ opening }) => opening.face === 'inner');
  const columns = useMemo(() => columnsOf({ document, chosen, walls: all, faces }), [document, chosen, all, faces]);
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
  const { rows } = table.getRowModel();
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
        <Scrolled table={table} rows={rows} chosen={chosen} />
      )}
    </div>
  );
}

interface ScrolledProps {
  table: Table<Line>;
  rows: readonly Row<Line>[];
  chosen: ReadonlySet<string>;
}

/** The table itself: only the rows in sight are there, however many there are. */
function Scrolled({ table, rows, chosen }: ScrolledProps) {
  const scrolled = useRef<HTMLDivElement>(null);
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
  return (
    <div ref={scrolled} className="scrolled" tabIndex={0} role="region" aria-label="Openings">
      <table aria-rowcount={rows.length + 1}>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((header) => (
                <Heading key={header.id} header={header} />
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
                className={chosen.has(row.id) ? 'chosen' : ''}
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
  );
}

const sorts = {
  asc: { sort: 'ascending', mark: ' ↑' },
  desc: { sort: 'descending', mark: ' ↓' },
} as const;

/** A column's heading; a click sorts by it. */
function Heading({ header: { column, getContext } }: { header: Header<Line, unknown> }) {
  const sorted = column.getIsSorted();
  const shown = flexRender(column.columnDef.header, getContext());
  return (
    <th aria-sort={sorted ? sorts[sorted].sort : undefined}>
      {column.getCanSort() ? (
        <button onClick={column.getToggleSortingHandler()} title="Sort by it">
          {shown}
          {sorted ? sorts[sorted].mark : ''}
        </button>
      ) : (
        shown
      )}
    </th>
  );
}
