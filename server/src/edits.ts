/** Edits as they are sent, read and made on a document: without a database, so that large ones are made in a worker. */
import {
  applyChangeSet,
  changeSetUpToDate,
  checkChangeSet,
  editsMeet,
  faultsOf,
  formatVersion,
  parseJson,
  rebased,
  Refused,
  valuesChanged,
  withChanges,
  type Change,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import { z } from 'zod';

/** What an edit is sent with. */
export const headSchema = z.object({
  baseRevision: z
    .number('must be a number')
    .int('must be a whole number')
    .min(0, 'must not be negative')
    .max(2_147_483_647, 'is larger than any revision'),
  /** The identity of the log on which it was made; where it is not known, only the revision tells. */
  baseMark: z.string('must be text').max(100, 'must have at most 100 characters').optional(),
  key: z
    .string('must be text')
    .regex(/^\P{Cc}*$/u, 'must not hold control characters')
    .min(1, 'must not be empty')
    .max(100, 'must have at most 100 characters'),
  /** The version of the format in which it is written; the present one where it is not said. */
  format: z.int('must be a whole number').min(1, 'must be at least 1').optional(),
  /** Whether it may replace what others changed meanwhile; otherwise the sender is told of it first. */
  over: z.boolean('must be true or false').optional(),
});
export type Head = z.infer<typeof headSchema>;

/** Raised where what was sent is not JSON. */
export class Malformed extends Error {}

/** Reads JSON from outside. @throws Malformed */
export function readJson(bytes: Uint8Array, mostValues?: number): unknown {
  try {
    return parseJson(new TextDecoder('utf-8', { fatal: true }).decode(bytes), mostValues);
  } catch (error) {
    throw new Malformed((error as Error).message);
  }
}

/** Reads an edit. @throws Malformed; Refused with the faults. */
export function readEdit(bytes: Uint8Array): { head: Head; changeSet: ChangeSet } {
  const value = readJson(bytes);
  const head = headSchema.safeParse(value);
  if (!head.success) {
    const faults = faultsOf(head.error);
    throw new Refused(faults.map(({ path, reason }) => `${path || 'the edit'} ${reason}`).join('; '), faults);
  }
  return {
    head: head.data,
    changeSet: checkChangeSet(
      changeSetUpToDate((value as { changeSet?: unknown }).changeSet, head.data.format ?? formatVersion),
    ),
  };
}

/** What was done between the state on which an edit was made and the present one. */
export interface Between {
  /** What takes it back, the newest first. */
  inverses: Change[][];
  /** What was done, the oldest first. */
  changes: Change[];
}

/** An edit as it was made. */
export interface Made {
  document: ProjectDocument;
  inverse: ChangeSet;
  changeSet: ChangeSet;
}

/**
 * Makes an edit on the present document, also where it was made on an earlier state: by the same rule as on the page.
 * @returns null where it meets what was changed meanwhile, and may not replace it. @throws Refused where it does not fit.
 */
export function makeEdit(
  now: ProjectDocument,
  changeSet: ChangeSet,
  between: Between | null,
  over = false,
): Made | null {
  if (between === null) return { ...applyChangeSet(now, changeSet), changeSet };
  const base = between.inverses.reduce((document, changes) => withChanges(document, changes), now);
  const { document: wanted, inverse } = applyChangeSet(base, changeSet);
  const theirs = valuesChanged({ name: '', changes: between.changes }, base, now);
  if (!over && editsMeet(theirs, valuesChanged(changeSet, base, wanted))) return null;
  const refitted = rebased(changeSet, inverse, now);
  try {
    return { ...applyChangeSet(now, refitted), changeSet: refitted };
  } catch (error) {
    // What it names may be gone by now: the sender is told what was missed.
    if (error instanceof Refused) return null;
    throw error;
  }
}
