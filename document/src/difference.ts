/** What is different between two documents, and how an edit made on one is made on another that has moved on. */
import { row, sameValue, type Settings } from './reading.ts';
import { putting, removing, type Change, type ChangeSet } from './change-set.ts';
import { tableNames, type ProjectDocument, type Row, type TableName } from './schema.ts';

/** The changes that make one document of another: rows put and removed, and settings. */
export function differenceOf(from: ProjectDocument, to: ProjectDocument): Change[] {
  const changes: Change[] = [];
  const settings: Settings = {};
  if (from.name !== to.name) settings.name = to.name;
  if (from.units !== to.units) settings.units = to.units;
  if (from.chord !== to.chord) settings.chord = to.chord ?? null;
  if (Object.keys(settings).length > 0) changes.push({ op: 'settings', value: settings });
  for (const table of tableNames) {
    const [before, after] = [
      from[table] as Record<string, Row<TableName>>,
      to[table] as Record<string, Row<TableName>>,
    ];
    for (const value of Object.values(after))
      if (!sameValue(row(from, table, value.id), value)) changes.push(putting(table, value));
    for (const id of Object.keys(before)) if (!Object.hasOwn(after, id)) changes.push(removing(table, id));
  }
  return changes;
}

/** Fields whose own fields are told apart: two people may each change another size of one pattern. */
const records = new Set(['sizes', 'dimensions', 'own', 'ends', 'start', 'reveal']);
export const keptApart = (field: string): boolean => records.has(field);

/**
 * An edit that was made on one document, made on another: of rows that others have changed since, only the fields that the edit changed are put, and what is gone already is not removed again.
 * @param inverse takes the edit back; it tells what the rows were before.
 */
export function rebased(changeSet: ChangeSet, inverse: ChangeSet, document: ProjectDocument): ChangeSet {
  const before = new Map<string, Row<TableName>>();
  for (const change of inverse.changes)
    if (change.op === 'put') before.set(`${change.table}/${change.value.id}`, change.value);
  const changes = changeSet.changes.flatMap((change): Change[] => {
    if (change.op === 'settings') return [change];
    if (change.op === 'remove') return row(document, change.table, change.id) ? [change] : [];
    const was = before.get(`${change.table}/${change.value.id}`);
    const now = row(document, change.table, change.value.id);
    if (!was || !now || sameValue(was, now)) return [change];
    return [putting(change.table, merged(was, change.value, now) as Row<typeof change.table>)];
  });
  return { ...changeSet, changes: changes.length > 0 ? changes : changeSet.changes };
}

/** `now` with what differs between `was` and `wanted`. */
function merged(was: object, wanted: object, now: object): object {
  const [p, q, r] = [
    was as Record<string, unknown>,
    wanted as Record<string, unknown>,
    { ...now } as Record<string, unknown>,
  ];
  for (const key of new Set([...Object.keys(p), ...Object.keys(q)])) {
    if (sameValue(p[key], q[key])) continue;
    const values = [p[key], q[key], r[key]];
    if (keptApart(key) && values.every((value) => typeof value === 'object' && value !== null))
      r[key] = merged(...(values as [object, object, object]));
    else if (q[key] === undefined) Reflect.deleteProperty(r, key);
    else r[key] = q[key];
  }
  return r;
}
