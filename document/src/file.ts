/** Reading a project file, and writing one. */
import { z } from 'zod';
import { documentFaults, FaultList, faultsOf, mostFaults } from './faults.ts';
import { sentence } from './change-set.ts';
import { id as idSchema } from './figures.ts';
import { parseJson } from './parse-json.ts';
import { Refused, type Fault } from './refused.ts';
import { documentSchema, tableNames, type ProjectDocument, type TableName, type Units } from './schema.ts';
import { tables } from './tables/index.ts';
import { overcrowded, unwieldy } from './unwieldy.ts';
import { formatVersion, upToDate } from './versions/up-to-date.ts';

/** An empty project. */
export function emptyDocument(name: string, units: Units = 'mm'): ProjectDocument {
  return {
    format: 'yard-arch',
    version: formatVersion,
    name,
    units,
    ...(Object.fromEntries(tableNames.map((table) => [table, {}])) as unknown as Pick<ProjectDocument, TableName>),
  };
}

function refuse(faults: readonly Fault[], count = faults.length): never {
  throw new Refused(`The project cannot be read: ${sentence(faults, count)}`, faults, count);
}

/**
 * A document with its tables unread: they are read row by row, so that looking can end where there are too many faults to tell. A table that is missing is an empty one: some came to a
 * version when files of it had been written.
 */
const frameSchema = documentSchema.extend(
  Object.fromEntries(tableNames.map((table) => [table, z.record(z.string(), z.unknown()).default({})])) as Record<
    TableName,
    z.ZodDefault<z.ZodRecord<z.ZodString, z.ZodUnknown>>
  >,
);

/** Rows that are looked at for more faults once enough have been found; the rest is counted as one fault each. */
const mostLooks = 2000;

/** Reads the rows of one table. */
function readTable(table: TableName, rows: Record<string, unknown>, faults: FaultList): Record<string, unknown> {
  const read: Record<string, unknown> = {};
  let looks = 0;
  for (const [key, value] of Object.entries(rows)) {
    const enough = faults.count >= mostFaults && ++looks > mostLooks;
    if (enough) {
      faults.count += 1;
      continue;
    }
    const named = idSchema.safeParse(key);
    if (!named.success)
      faults.add([
        { path: `${table}/${key.slice(0, 64)}`, reason: `is kept under a key that ${named.error.issues[0]!.message}` },
      ]);
    const long = unwieldy(value, `${table}/${key.slice(0, 64)}`);
    const checked = long ? null : tables[table].schema.safeParse(value);
    if (long) faults.add([long]);
    else if (!checked!.success) faults.add(faultsOf(checked!.error, [table, key.slice(0, 64)]));
    else read[key] = checked!.data;
  }
  return read;
}

/**
 * Checks that a value is a whole document, of this or an earlier version: its shape, and that every name in it leads somewhere.
 * @throws Refused with the path and reason of the first faults, and how many there are.
 */
export function checkDocument(value: unknown): ProjectDocument {
  const crowded = typeof value === 'object' && value !== null ? overcrowded(value, '') : null;
  if (crowded) refuse([crowded]);
  const frame = frameSchema.safeParse(upToDate(value));
  if (!frame.success) refuse(faultsOf(frame.error).slice(0, mostFaults), frame.error.issues.length);
  const faults = new FaultList();
  const document = frame.data as unknown as Record<TableName, Record<string, unknown>>;
  for (const table of tableNames) document[table] = readTable(table, document[table], faults);
  if (faults.count > 0) refuse(faults.first, faults.count);
  const checked = document as unknown as ProjectDocument;
  const astray = documentFaults(checked);
  if (astray.count > 0) refuse(astray.first, astray.count);
  return checked;
}

/** Reads a project file's text. @throws Refused when it is not JSON or not a document. */
export function readDocument(text: string): ProjectDocument {
  let value: unknown;
  try {
    value = parseJson(text);
  } catch (error) {
    refuse([{ path: '', reason: `is not JSON: ${(error as Error).message}` }]);
  }
  return checkDocument(value);
}

/** Writes a document as the text of a project file: indented JSON, tables and rows in the order they have. */
export function writeDocument(document: ProjectDocument): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}
