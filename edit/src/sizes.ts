/** Sizes as a table: taken from rows that were pasted, renamed, and put in order. */
import { isImpossible, profileOf } from '@yard-arch/core';
import {
  dimensionLabel,
  dimensionNames,
  newId,
  parseLength,
  putting,
  sizeLabel,
  type ChangeSet,
  type Pattern,
  type Size,
  type Units,
} from '@yard-arch/document';
import { edit } from './make.ts';

/** The most rows that are taken at once. */
const mostRows = 200;

interface Refused {
  reason: string;
  mend: string;
}

/** What a pasted table is of: for each of its columns the dimension, or its name. */
function columnsOf(pattern: Pattern, rows: string[][], units: Units): { columns: string[]; first: number } | Refused {
  const names = dimensionNames(pattern.profile.shape);
  const labels = names.map((name) => dimensionLabel(pattern.profile.shape, name).toLowerCase());
  const head = rows[0]!.map((cell) => cell.trim().toLowerCase());
  const known = head.map((cell) =>
    cell === 'name' ? 'name' : (names[labels.indexOf(cell)] ?? (names.includes(cell) ? cell : '')),
  );
  if (names.every((name) => known.includes(name))) return { columns: known, first: 1 };
  const width = rows[0]!.length;
  // A first row that holds no length tells what the columns are, if not in our words.
  const first = rows[0]!.some((cell) => parseLength(cell, units) !== null) ? 0 : 1;
  if (width === names.length) return { columns: names, first };
  if (width === names.length + 1) return { columns: ['name', ...names], first };
  return {
    reason: `it has ${width} column${width === 1 ? '' : 's'}, and a size has ${names.length}`,
    mend: `Paste rows of ${names.map((name) => dimensionLabel(pattern.profile.shape, name).toLowerCase()).join(', ')}, with a name before them if there is one.`,
  };
}

/** Reads one row. */
function sizeIn(
  pattern: Pattern,
  columns: readonly string[],
  cells: readonly string[],
  units: Units,
): Omit<Size, 'id'> | string {
  const dimensions: Record<string, number> = {};
  let name = '';
  for (const [i, column] of columns.entries()) {
    const cell = (cells[i] ?? '').trim();
    if (column === '') continue;
    if (column === 'name') {
      name = cell.slice(0, 120);
      continue;
    }
    const metres = parseLength(cell, units);
    if (metres === null || metres <= 0) return `“${cell}” is no length`;
    dimensions[column] = metres;
  }
  const made = profileOf(pattern.profile, dimensions, units);
  return isImpossible(made) ? made.reason : { name, dimensions };
}

/**
 * Sizes from rows as a spreadsheet copies them: a size for each, in the place of one that has its name, or with what is otherwise the same none.
 * @returns why nothing was taken, with the row where that is one's fault.
 */
export function pasteSizes(
  pattern: Pattern,
  text: string,
  units: Units,
): { changeSet: ChangeSet; count: number } | Refused {
  const apart = text.includes('\t') ? '\t' : text.includes(';') ? ';' : null;
  const rows = text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => (apart ? line.split(apart) : [line]));
  if (rows.length === 0) return { reason: 'there is nothing to paste', mend: 'Copy rows of a spreadsheet first.' };
  if (rows.length > mostRows)
    return { reason: `it has ${rows.length} rows`, mend: `Paste at most ${mostRows} at once.` };
  const found = columnsOf(pattern, rows, units);
  if ('reason' in found) return found;
  const sizes = { ...pattern.sizes };
  let count = 0;
  for (const [i, cells] of rows.entries()) {
    if (i < found.first) continue;
    const read = sizeIn(pattern, found.columns, cells, units);
    if (typeof read === 'string')
      return { reason: `row ${i + 1}: ${read}`, mend: 'Nothing was taken. Mend that row and paste again.' };
    const same = Object.values(sizes).find(
      (size) =>
        (read.name !== '' && (size.name === read.name || sizeLabel(pattern, size, units) === read.name)) ||
        (read.name === '' &&
          JSON.stringify(size.dimensions) === JSON.stringify({ ...size.dimensions, ...read.dimensions })),
    );
    const id = same?.id ?? newId('s');
    const next: Size = {
      id,
      name: same && read.name === sizeLabel(pattern, same, units) ? same.name : read.name,
      dimensions: read.dimensions,
    };
    if (JSON.stringify(sizes[id]) !== JSON.stringify(next)) count += 1;
    sizes[id] = next;
  }
  if (count === 0) return { reason: 'all these sizes are there already', mend: 'Change one, or copy others.' };
  return {
    count,
    changeSet: edit(
      `paste ${count} size${count === 1 ? '' : 's'} of ${pattern.name}`,
      putting('patterns', { ...pattern, sizes }),
    ),
  };
}

/** Sizes as text for a spreadsheet, with a first row that tells what its columns are. @param worded words a length */
export function copySizes(pattern: Pattern, worded: (metres: number) => string): string {
  const { shape } = pattern.profile;
  const names = dimensionNames(shape);
  return [
    ['Name', ...names.map((name) => dimensionLabel(shape, name))],
    ...Object.values(pattern.sizes).map(({ name, dimensions }) => [
      name,
      ...names.map((one) => worded(dimensions[one] ?? 0)),
    ]),
  ]
    .map((cells) => cells.join('\t'))
    .join('\n');
}

/** Gives a size a name; none where it is to be called by its dimensions. */
export const nameSize = (pattern: Pattern, size: Size, name: string): ChangeSet =>
  edit(
    `name a size of ${pattern.name}`,
    putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [size.id]: { ...size, name } } }),
  );

/** Puts the sizes in order: by their area, or by name. */
export function sortSizes(pattern: Pattern, by: 'area' | 'name', units: Units): ChangeSet {
  const area = ({ dimensions }: Size): number => {
    const made = profileOf(pattern.profile, dimensions, units);
    return isImpossible(made) ? 0 : made.width * made.height;
  };
  const told = (size: Size): string => sizeLabel(pattern, size, units);
  const sorted = Object.values(pattern.sizes).sort((a, b) =>
    by === 'area' ? area(a) - area(b) : told(a).localeCompare(told(b), undefined, { numeric: true }),
  );
  return edit(
    `sort the sizes of ${pattern.name}`,
    putting('patterns', { ...pattern, sizes: Object.fromEntries(sorted.map((size) => [size.id, size])) }),
  );
}
