/** Faults of a document: where each is and why, so that a person or a program can mend it. */
import type { z } from 'zod';
import { row } from './reading.ts';
import type { Fault } from './refused.ts';
import type { ProjectDocument, Row, TableName } from './schema.ts';
import type { Rings } from './rings.ts';
import { tableNames } from './schema.ts';
import { tables } from './tables/index.ts';
import type { Table } from './tables/table.ts';

/** As many faults as are told; of the others only how many there are. */
export const mostFaults = 100;

/** Gathers faults: tells the first, counts the rest, and knows when to stop looking. */
export class FaultList {
  readonly first: Fault[] = [];
  count = 0;

  add(faults: Iterable<Fault>): void {
    for (const fault of faults) {
      if (this.first.length < mostFaults) this.first.push(fault);
      this.count += 1;
    }
  }
}

/** Turns a Zod error into faults, the given path before each. */
export function faultsOf(error: z.ZodError, before: readonly PropertyKey[] = []): Fault[] {
  return error.issues.map((issue) => ({
    path: [...before, ...issue.path].map((part) => String(part).slice(0, 64)).join('/'),
    reason: (issue.code === 'unrecognized_keys' ? unknownKeys(issue.keys) : issue.message).slice(0, longestReason),
  }));
}

/** The longest that a reason may be told. */
const longestReason = 500;

function unknownKeys(keys: readonly string[]): string {
  const told = keys.slice(0, 5).map((key) => key.slice(0, 64));
  const more = keys.length - told.length;
  return `has ${told.join(', ')}${more > 0 ? ` and ${more} more` : ''}, which ${keys.length === 1 ? 'is' : 'are'} not known here`;
}

/** Faults of one row against the rest of the document: names that lead nowhere, or where they may not. */
export function referenceFaults<T extends TableName>(
  document: ProjectDocument,
  table: T,
  value: Row<T>,
  rings: Rings = new Map(),
): Fault[] {
  const { references, faults } = tables[table] as Table;
  const found: Fault[] = [];
  for (const { at, table: to, id } of references(value))
    if (!row(document, to as TableName, id))
      found.push({
        path: `${table}/${value.id}/${at}`,
        reason: `names the ${tables[to as TableName].singular} "${id}", which does not exist`,
      });
  if (faults) found.push(...faults(document, value, rings));
  return found;
}

/** Faults of every row against the rest: ids that differ from their keys, and names that lead nowhere. */
export function documentFaults(document: ProjectDocument): FaultList {
  const faults = new FaultList();
  const rings: Rings = new Map();
  for (const table of tableNames)
    for (const [key, value] of Object.entries(document[table] as Record<string, Row<typeof table>>)) {
      if (value.id !== key)
        faults.add([{ path: `${table}/${key}/id`, reason: `must be "${key}", the key it is kept under` }]);
      faults.add(referenceFaults(document, table, value, rings));
    }
  return faults;
}
