/** What is read from a document that has been checked, without its schemas: where it is only cut, they need not be loaded. */
import type { ProjectDocument, Row, TableName } from './schema.ts';

/** The greatest distance of a chord from its arc where a document does not say, metres. */
export const defaultChord = 0.001;

/** The row with an id, or undefined; safe for ids that are names of object methods. */
export function row<T extends TableName>(document: ProjectDocument, table: T, id: string): Row<T> | undefined {
  const rows = document[table] as Record<string, Row<T>>;
  return Object.hasOwn(rows, id) ? rows[id] : undefined;
}

/** Whether two values of a document are the same, whatever the order of their fields. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (
    typeof a !== 'object' ||
    typeof b !== 'object' ||
    a === null ||
    b === null ||
    Array.isArray(a) !== Array.isArray(b)
  )
    return false;
  const [p, q] = [a as Record<string, unknown>, b as Record<string, unknown>];
  for (const key of new Set([...Object.keys(p), ...Object.keys(q)])) if (!sameValue(p[key], q[key])) return false;
  return true;
}

/** A project's own settings, as many as are to change; a chord of null is the usual one. */
export interface Settings {
  name?: string | undefined;
  units?: ProjectDocument['units'] | undefined;
  chord?: number | null | undefined;
}

/** A document that is being changed. Nothing is checked; what is not touched stays the very same object. */
export class Draft {
  readonly document: ProjectDocument;
  private readonly copied = new Set<TableName>();

  constructor(from: ProjectDocument) {
    this.document = { ...from };
  }

  put<T extends TableName>(table: T, value: Row<T>): void {
    this.rowsOf(table)[value.id] = value;
  }

  remove(table: TableName, id: string): void {
    Reflect.deleteProperty(this.rowsOf(table), id);
  }

  /** Sets what is given; a chord of null is taken away. */
  set({ name, units, chord }: Settings): void {
    if (name !== undefined) this.document.name = name;
    if (units !== undefined) this.document.units = units;
    if (chord === null) delete this.document.chord;
    else if (chord !== undefined) this.document.chord = chord;
  }

  private rowsOf(table: TableName): Record<string, unknown> {
    if (!this.copied.has(table)) Object.assign(this.document, { [table]: { ...this.document[table] } });
    this.copied.add(table);
    return this.document[table];
  }
}
