/** What a step from one version of the format to the next is: it works on raw JSON, which may be anything yet. */

/** JSON whose shape has not been checked. */
export type Raw = Record<string, unknown>;

/** From one version to the next, for whole documents and for single changes: what is in a file, in the change log or in the browser is brought up by the same step. Nothing that is given is changed. */
export interface Migration {
  /** What has become otherwise, in one sentence. */
  what: string;
  document: (document: Raw) => Raw;
  /** What one change of a change set becomes. */
  change: (change: Raw) => Raw[];
}

export function isObject(value: unknown): value is Raw {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A step that makes each row of each table anew, whichever other rows there are. @param all what else becomes of any value, rows and settings alike. */
export function byRows(
  what: string,
  rows: (table: string, value: Raw) => Raw,
  all: <T>(value: T) => T = (value) => value,
): Migration {
  const anew = (table: string, value: unknown): unknown => (isObject(value) ? rows(table, value) : value);
  const table = (name: string, values: Raw): Raw =>
    Object.fromEntries(Object.entries(values).map(([id, value]) => [id, anew(name, value)]));
  return {
    what,
    document: (document) =>
      Object.fromEntries(
        Object.entries(all(document)).map(([key, value]) => [key, isObject(value) ? table(key, value) : value]),
      ),
    change: (change) => {
      const told = all(change);
      return [
        told.op === 'put' && typeof told.table === 'string' ? { ...told, value: anew(told.table, told.value) } : told,
      ];
    },
  };
}
