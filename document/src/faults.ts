/** Faults of a document: where each is and why, so that a person or a program can mend it. */
import type { z } from 'zod';
import { row } from './reading.ts';
import type { Fault } from './refused.ts';
import type { ProjectDocument, Row, TableName } from './schema.ts';
import { tableNames } from './schema.ts';

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
export function referenceFaults<T extends TableName>(document: ProjectDocument, table: T, value: Row<T>, rings: Rings = new Map()): Fault[] {
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
      const ring = ringFrom(document, opening, rings);
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

/** Openings that are each measured from the next, the last from the first. */
type Ring = readonly Row<'openings'>[];

/** What is known of openings: the ring that each is in, or null where it is in none; so that a chain is gone along once, however many stand in it. */
export type Rings = Map<string, Ring | null>;

/** As many marks as a message names of a ring. */
const namedOfRing = 8;

/** The marks of the openings between (the first of them), where an opening is measured in the end from itself; null where it is not. */
export function ringFrom(document: ProjectDocument, opening: Row<'openings'>, known: Rings = new Map()): string[] | null {
  if (!known.has(opening.id)) findRing(document, opening, known);
  const ring = known.get(opening.id);
  if (!ring) return null;
  const at = ring.findIndex(({ id }) => id === opening.id);
  return [...ring.slice(at + 1, at + 1 + namedOfRing), ...ring.slice(0, Math.max(0, Math.min(at, namedOfRing - (ring.length - at - 1))))].map(({ mark }) => mark);
}

/** The openings that are measured in the end from one, itself included: none of them can be what it is measured from. */
export function measuredFrom(document: ProjectDocument, id: string): Set<string> {
  const [found, clear] = [new Set([id]), new Set<string>()];
  for (const opening of Object.values(document.openings)) {
    const way: string[] = [];
    let at: Row<'openings'> | undefined = opening;
    while (at && !found.has(at.id) && !clear.has(at.id)) {
      way.push(at.id);
      clear.add(at.id);
      at = at.along.from === 'neighbour' ? row(document, 'openings', at.along.opening) : undefined;
    }
    if (!at || !found.has(at.id)) continue;
    for (const passed of way) {
      found.add(passed);
      clear.delete(passed);
    }
  }
  return found;
}

function findRing(document: ProjectDocument, opening: Row<'openings'>, known: Rings): void {
  const way: Row<'openings'>[] = [];
  const steps = new Map<string, number>();
  let at: Row<'openings'> | undefined = opening;
  while (at?.along.from === 'neighbour' && !known.has(at.id) && !steps.has(at.id)) {
    steps.set(at.id, way.length);
    way.push(at);
    at = row(document, 'openings', at.along.opening);
  }
  const from = at && steps.has(at.id) ? steps.get(at.id)! : way.length;
  const ring = way.slice(from);
  way.forEach(({ id }, i) => known.set(id, i < from ? null : ring));
  if (!known.has(opening.id)) known.set(opening.id, null);
}

/** Faults of every row against the rest: ids that differ from their keys, and names that lead nowhere. */
export function documentFaults(document: ProjectDocument): FaultList {
  const faults = new FaultList();
  const rings: Rings = new Map();
  for (const table of tableNames)
    for (const [key, value] of Object.entries(document[table] as Record<string, Row<typeof table>>)) {
      if (value.id !== key) faults.add([{ path: `${table}/${key}/id`, reason: `must be "${key}", the key it is kept under` }]);
      faults.add(referenceFaults(document, table, value, rings));
    }
  return faults;
}
