/** Change sets: the one way in which a document is edited, each with its inverse. */
import { overcrowded, unwieldy } from './unwieldy.ts';
import { z } from 'zod';
import { FaultList, faultsOf, mostFaults, referenceFaults } from './faults.ts';
import { line } from './figures.ts';
import { Draft, row, type Settings } from './reading.ts';
import { Refused, type Fault } from './refused.ts';
import type { Rings } from './rings.ts';
import { documentSchema, tableNames, type ProjectDocument, type Row, type TableName } from './schema.ts';
import { tables } from './tables/index.ts';
import type { Table } from './tables/table.ts';

type PutOf<T extends TableName> = z.ZodObject<{
  op: z.ZodLiteral<'put'>;
  table: z.ZodLiteral<T>;
  value: (typeof tables)[T]['schema'];
}>;
type Puts = { [T in TableName]: PutOf<T> }[TableName];

const put = (table: TableName): Puts =>
  z.strictObject({ op: z.literal('put'), table: z.literal(table), value: tables[table].schema }) as unknown as Puts;

export const putSchema = z.discriminatedUnion('table', tableNames.map(put) as [Puts, ...Puts[]], {
  error: `must put into one of ${tableNames.join(', ')}`,
});

export const removeSchema = z.strictObject({
  op: z.literal('remove'),
  table: z.enum(tableNames as [TableName, ...TableName[]]),
  id: z.string(),
});

export const settingsSchema = z.strictObject({
  op: z.literal('settings'),
  value: documentSchema
    .pick({ name: true, units: true })
    .extend({ chord: documentSchema.shape.chord.nullable() })
    .partial(),
});

export const changeSchema = z.discriminatedUnion('op', [putSchema, removeSchema, settingsSchema], {
  error: 'must be a put, a remove or a settings change',
});
/** One step of a change set: a row put (made or replaced), a row removed, or the project's own settings. */
export type Change = z.infer<typeof changeSchema>;

/** The most changes of one edit. */
const mostChanges = 50_000;

export const changeSetSchema = z.strictObject({
  name: line.trim().min(1, 'must say what was done').max(200, 'must have at most 200 characters'),
  changes: z
    .array(changeSchema)
    .min(1, 'must hold at least one change')
    .max(mostChanges, `must hold at most ${mostChanges} changes`),
});
/** A named edit. `name` says what was done, in the words of an undo entry: "move opening C-07". */
export type ChangeSet = z.infer<typeof changeSetSchema>;

/**
 * Checks that a value is a change set. Looking ends where there are too many faults to tell.
 * @throws Refused with the path and reason of the first faults.
 */
export function checkChangeSet(value: unknown): ChangeSet {
  const crowded = typeof value === 'object' && value !== null ? overcrowded(value, 'changeSet') : null;
  if (crowded) throw new Refused(sentence([crowded], 1), [crowded]);
  const frame = changeSetSchema
    .extend({
      changes: z
        .array(z.unknown())
        .min(1, 'must hold at least one change')
        .max(mostChanges, `must hold at most ${mostChanges} changes`),
    })
    .safeParse(value);
  const faults = new FaultList();
  const changes: Change[] = [];
  if (!frame.success) faults.add(faultsOf(frame.error, ['changeSet']));
  else
    for (const [i, change] of frame.data.changes.entries()) {
      const found = unwieldy(change, `changeSet/changes/${i}`);
      const checked = found ? null : changeSchema.safeParse(change);
      if (found) faults.add([found]);
      else if (checked!.success) changes.push(checked!.data);
      else faults.add(faultsOf(checked!.error, ['changeSet', 'changes', i]));
      if (faults.count >= mostFaults) {
        faults.count += frame.data.changes.length - i - 1;
        break;
      }
    }
  if (faults.count > 0 || !frame.success)
    throw new Refused(sentence(faults.first, faults.count), faults.first, faults.count);
  return { name: frame.data.name, changes };
}

/** A put, typed by its table. */
export function putting<T extends TableName>(table: T, value: Row<T>): Change {
  return { op: 'put', table, value } as unknown as Change;
}

/** A removal by id. */
export function removing(table: TableName, id: string): Change {
  return { op: 'remove', table, id };
}

/** What applying a change set gives: the document after it, and the change set that takes it back. */
export interface Applied {
  document: ProjectDocument;
  inverse: ChangeSet;
}

/**
 * Applies a change set, all of it or nothing. The document given is not changed; tables and rows that the change set does not
 * touch are the very same objects in the document returned.
 * @throws Refused with a fault for each value that is wrong, each name that would lead nowhere and each row to be removed
 * that is not there or that others still name.
 */
export function applyChangeSet(document: ProjectDocument, changeSet: ChangeSet): Applied {
  const draft = new Draft(document);
  const next = draft.document;
  const undo: Change[] = [];
  const faults = new FaultList();
  const removed: { table: TableName; id: string }[] = [];
  const touched = new Map<string, { table: TableName; id: string }>();

  changeSet.changes.forEach((change, index) => {
    if (change.op === 'settings') {
      const checked = settingsSchema.safeParse(change);
      if (!checked.success) return faults.add(faultsOf(checked.error, ['changes', index]));
      const before: Settings = {};
      if (checked.data.value.name !== undefined) before.name = next.name;
      if (checked.data.value.units !== undefined) before.units = next.units;
      if (checked.data.value.chord !== undefined) before.chord = next.chord ?? null;
      draft.set(checked.data.value);
      undo.unshift({ op: 'settings', value: before });
    } else if (change.op === 'put') {
      const checked = tables[change.table].schema.safeParse(change.value);
      if (!checked.success) {
        const id = String((change.value as { id?: unknown } | null)?.id ?? index);
        return faults.add(faultsOf(checked.error, [change.table, id]));
      }
      const value = checked.data as Row<TableName>;
      const before = row(next, change.table, value.id);
      draft.put(change.table, value);
      undo.unshift(before ? putting(change.table, before) : removing(change.table, value.id));
      touched.set(`${change.table}/${value.id}`, { table: change.table, id: value.id });
    } else {
      const before = row(next, change.table, change.id);
      if (!before) {
        return faults.add([{ path: `${change.table}/${change.id}`, reason: 'cannot be removed: it does not exist' }]);
      }
      draft.remove(change.table, change.id);
      undo.unshift(putting(change.table, before));
      removed.push({ table: change.table, id: change.id });
    }
  });

  const rings: Rings = new Map();
  for (const { table, id } of touched.values()) {
    const value = row(next, table, id);
    if (value) faults.add(referenceFaults(next, table, value, rings));
  }
  faults.add(leaningFaults(next, touched, rings));
  faults.add(danglingAfter(next, removed));
  if (faults.count > 0)
    throw new Refused(
      `“${changeSet.name}” cannot be done: ${sentence(faults.first, faults.count)}`,
      faults.first,
      faults.count,
    );
  return { document: next, inverse: { name: changeSet.name, changes: undo } };
}

/** The faults in one sentence, for a message; the first three, and how many more there are. */
export function sentence(faults: readonly Fault[], count = faults.length): string {
  const first = faults.slice(0, 3).map((fault) => `${fault.path || 'the file'} ${fault.reason}`);
  const more = count - first.length;
  return first.join('; ') + (more > 0 ? `; and ${more} more` : '') + '.';
}

/** Rows by their tables. */
function idsIn(rows: Iterable<{ table: TableName; id: string }>): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { table, id } of rows) {
    const known = found.get(table);
    if (known) known.add(id);
    else found.set(table, new Set([id]));
  }
  return found;
}

/** Faults of rows that lean on what was changed, and were not changed themselves. */
function leaningFaults(
  document: ProjectDocument,
  touched: ReadonlyMap<string, { table: TableName; id: string }>,
  rings: Rings,
): Fault[] {
  const changed = idsIn(touched.values());
  const faults: Fault[] = [];
  for (const table of tableNames) {
    const { leansOn = [], references } = tables[table] as Table;
    const on = leansOn.filter((one) => changed.has(one));
    if (on.length === 0) continue;
    const own = changed.get(table);
    for (const value of Object.values(document[table] as Record<string, Row<TableName>>))
      if (
        !own?.has(value.id) &&
        references(value).some(({ table: to, id }) => on.includes(to) && changed.get(to)!.has(id))
      )
        faults.push(...referenceFaults(document, table, value, rings));
  }
  return faults;
}

function danglingAfter(document: ProjectDocument, removed: readonly { table: TableName; id: string }[]): Fault[] {
  const gone = idsIn(removed.filter(({ table, id }) => !row(document, table, id)));
  if (gone.size === 0) return [];
  const faults: Fault[] = [];
  for (const table of tableNames)
    for (const value of Object.values(document[table] as Record<string, Row<TableName>>))
      for (const { at, table: to, id } of (tables[table] as Table).references(value))
        if (gone.get(to)?.has(id))
          faults.push({ path: `${table}/${value.id}/${at}`, reason: `still names "${id}", which would be removed` });
  return faults;
}
