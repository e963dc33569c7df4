/** What the document's tables tell of themselves: all that is asked of a table is told by it, so that a new one is a file and a line. */
import type { z } from 'zod';
import type { Fault } from '../refused.ts';
import type { Rings } from '../rings.ts';
import type { ProjectDocument } from '../schema.ts';

/** A row that another names. */
export interface Reference {
  /** Where in the row it is named, such as `along/axis`. */
  at: string;
  table: string;
  id: string;
}

/** A table of rows keyed by id. */
export interface Table<Schema extends z.ZodType = z.ZodType> {
  schema: Schema;
  /** What a row is called in a sentence. */
  singular: string;
  /** All rows that a row names. */
  references: (row: z.infer<Schema>) => Reference[];
  /** What is wrong with a row beside others, but for names that lead nowhere. @param rings what is known of chains of openings. */
  faults?: (document: ProjectDocument, row: z.infer<Schema>, rings: Rings) => Fault[];
  /** Tables by whose rows that may change: where a row of one of them is put, the rows that name it are looked at again. */
  leansOn?: readonly string[];
}

/** A name that may be missing. */
export const refer = (at: string, to: string, id: string | null | undefined): Reference[] =>
  id === null || id === undefined ? [] : [{ at, table: to, id }];
