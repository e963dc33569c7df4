/** Which values an edit changes, so that it can be told whether two edits meet, and what the later one replaces of the earlier. */
import type { ChangeSet } from './change-set.ts';
import { keptApart } from './difference.ts';
import { row, sameValue } from './reading.ts';
import type { ProjectDocument, Row, TableName } from './schema.ts';

/** A value that is not the same in two states of a row or of the settings: undefined where it is not there. */
export interface ChangedValue {
  /** Such as `openings/o3/along`; of a row that is made or removed, the row itself: `openings/o3`. */
  path: string;
  was: unknown;
  now: unknown;
}

function* within(path: string, was: object, now: object): Generator<ChangedValue> {
  const [p, q] = [was as Record<string, unknown>, now as Record<string, unknown>];
  for (const key of new Set([...Object.keys(p), ...Object.keys(q)])) {
    if (sameValue(p[key], q[key])) continue;
    const both = [p[key], q[key]].every((value) => typeof value === 'object' && value !== null);
    if (keptApart(key) && both) yield* within(`${path}/${key}`, p[key] as object, q[key] as object);
    else yield { path: `${path}/${key}`, was: p[key], now: q[key] };
  }
}

function* ofRow(path: string, was: object | undefined, now: object | undefined): Generator<ChangedValue> {
  if (was && now) yield* within(path, was, now);
  else if (was !== now) yield { path, was, now };
}

/** What an edit changes of a document, value by value, each as it was before the edit and as it is after it. */
export function valuesChanged(changeSet: ChangeSet, before: ProjectDocument, after: ProjectDocument): ChangedValue[] {
  const values: ChangedValue[] = [];
  const rows = new Set<string>();
  const settings = new Set<'name' | 'units' | 'chord'>();
  for (const change of changeSet.changes) {
    if (change.op === 'settings') for (const key of Object.keys(change.value)) settings.add(key as 'name');
    else rows.add(`${change.table}/${change.op === 'put' ? change.value.id : change.id}`);
  }
  for (const key of settings)
    if (before[key] !== after[key]) values.push({ path: `settings/${key}`, was: before[key], now: after[key] });
  for (const path of rows) {
    const [table, id] = path.split('/') as [TableName, string];
    values.push(
      ...ofRow(
        path,
        row(before, table, id) as Row<TableName> | undefined,
        row(after, table, id) as Row<TableName> | undefined,
      ),
    );
  }
  return values;
}

/** Whether one path is the other, or lies within what the other names. */
export function pathsMeet(a: string, b: string): boolean {
  return a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);
}

/** Whether two edits change the same value, or one a row that the other makes or removes. */
export function editsMeet(some: readonly ChangedValue[], others: readonly ChangedValue[]): boolean {
  const [paths, above] = [new Set<string>(), new Set<string>()];
  for (const { path } of some) {
    paths.add(path);
    for (let at = path.lastIndexOf('/'); at > 0; at = path.lastIndexOf('/', at - 1)) above.add(path.slice(0, at));
  }
  return others.some(({ path }) => {
    if (paths.has(path) || above.has(path)) return true;
    for (let at = path.lastIndexOf('/'); at > 0; at = path.lastIndexOf('/', at - 1))
      if (paths.has(path.slice(0, at))) return true;
    return false;
  });
}
