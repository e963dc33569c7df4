/** Faults of a document: where each is and why, so that a person or a program can mend it. */
import type { z } from 'zod';
import { row } from './reading.ts';
import type { ProjectDocument, Row, TableName } from './schema.ts';
import { tableNames } from './schema.ts';

/** One fault: the path to the offending value, such as `openings/o3/along/distance`, and the reason. */
export interface Fault {
  path: string;
  reason: string;
}

/** Raised where a document, a file or a change set is refused. Nothing has been changed when it is raised. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly faults: readonly Fault[],
  ) {
    super(message);
    this.name = 'Refused';
  }
}

/** Turns a Zod error into faults, the given path before each. */
export function faultsOf(error: z.ZodError, before: readonly PropertyKey[] = []): Fault[] {
  return error.issues.map((issue) => ({
    path: [...before, ...issue.path].map(String).join('/'),
    reason: issue.code === 'unrecognized_keys' ? `has ${issue.keys.join(', ')}, which is not known here` : issue.message,
  }));
}

interface Reference {
  path: string;
  table: TableName;
  id: string;
}

/** Every row that a row names, with the path at which it names it. */
export function referencesOf<T extends TableName>(table: T, value: Row<T>): Reference[] {
  const found: Reference[] = [];
  const refer = (path: string, to: TableName, id: string | null): void => {
    if (id !== null) found.push({ path: `${table}/${value.id}/${path}`, table: to, id });
  };
  if (table === 'elements') {
    (value as Row<'elements'>).layers.forEach((layer, i) => refer(`layers/${i}/material`, 'materials', layer.material));
  } else if (table === 'patterns') {
    const { reveal, cut } = value as Row<'patterns'>;
    refer('reveal/material', 'materials', reveal.material);
    for (const [side, material] of Object.entries(reveal.sides ?? {})) refer(`reveal/sides/${side}`, 'materials', material);
    if (cut?.kind === 'imprint') refer('cut/material', 'materials', cut.material);
  } else if (table === 'openings') {
    const opening = value as Row<'openings'>;
    refer('element', 'elements', opening.element);
    refer('pattern', 'patterns', opening.pattern);
    opening.further?.forEach((element, i) => refer(`further/${i}`, 'elements', element));
    if (opening.along.from === 'axis') refer('along/axis', 'axes', opening.along.axis);
    if (opening.along.from === 'neighbour') refer('along/opening', 'openings', opening.along.opening);
    if (opening.up.from === 'datum') refer('up/datum', 'datums', opening.up.datum);
  } else if (table === 'datums') {
    refer('element', 'elements', (value as Row<'datums'>).element);
  } else if (table === 'axes') {
    refer('element', 'elements', (value as Row<'axes'>).element);
  }
  return found;
}

const singular: Record<TableName, string> = {
  elements: 'element',
  patterns: 'pattern',
  openings: 'opening',
  materials: 'material',
  datums: 'datum',
  axes: 'axis',
};

/** Faults of one row against the rest of the document: names that lead nowhere. */
export function referenceFaults<T extends TableName>(document: ProjectDocument, table: T, value: Row<T>): Fault[] {
  const faults: Fault[] = [];
  for (const reference of referencesOf(table, value))
    if (!row(document, reference.table, reference.id))
      faults.push({ path: reference.path, reason: `names the ${singular[reference.table]} "${reference.id}", which does not exist` });
  if (table === 'openings') {
    const opening = value as Row<'openings'>;
    const pattern = row(document, 'patterns', opening.pattern);
    if (pattern && !Object.hasOwn(pattern.sizes, opening.size))
      faults.push({
        path: `openings/${opening.id}/size`,
        reason: `names the size "${opening.size}", which the pattern "${pattern.name}" does not have`,
      });
    if (opening.along.from === 'axis') {
      const axis = row(document, 'axes', opening.along.axis);
      if (axis && axis.element !== opening.element)
        faults.push({ path: `openings/${opening.id}/along/axis`, reason: `names the axis "${axis.name}", which is on another element` });
    }
    if (opening.along.from === 'neighbour') {
      const path = `openings/${opening.id}/along/opening`;
      const neighbour = row(document, 'openings', opening.along.opening);
      if (neighbour && neighbour.element !== opening.element) faults.push({ path, reason: `names the opening "${neighbour.mark}", which is on another element` });
      const ring = ringFrom(document, opening);
      if (ring) faults.push({ path, reason: `cannot be measured from itself, ${ring.length === 0 ? 'its own jamb' : `by way of ${ring.join(', ')}`}` });
    }
    if (opening.up.from === 'datum') {
      const datum = row(document, 'datums', opening.up.datum);
      if (datum && datum.element !== null && datum.element !== opening.element)
        faults.push({ path: `openings/${opening.id}/up/datum`, reason: `names the datum "${datum.name}", which is on another element` });
    }
  }
  return faults;
}

/** The marks of the openings between, where an opening is measured in the end from itself; null where it is not. */
export function ringFrom(document: ProjectDocument, opening: Row<'openings'>): string[] | null {
  const marks: string[] = [];
  const seen = new Set([opening.id]);
  let at: Row<'openings'> | undefined = opening;
  while (at?.along.from === 'neighbour') {
    const to: string = at.along.opening;
    if (to === opening.id) return marks;
    // A ring among others is theirs to report.
    if (seen.has(to)) return null;
    seen.add(to);
    at = row(document, 'openings', to);
    if (at) marks.push(at.mark);
  }
  return null;
}

/** Faults of every row against the rest: ids that differ from their keys, and names that lead nowhere. */
export function documentFaults(document: ProjectDocument): Fault[] {
  const faults: Fault[] = [];
  for (const table of tableNames)
    for (const [key, value] of Object.entries(document[table] as Record<string, Row<typeof table>>)) {
      if (value.id !== key) faults.push({ path: `${table}/${key}/id`, reason: `must be "${key}", the key it is kept under` });
      faults.push(...referenceFaults(document, table, value));
    }
  return faults;
}
