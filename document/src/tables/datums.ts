/** Datums: horizontal setting-out lines. */
import { z } from 'zod';
import { coordinate, id, name } from '../figures.ts';
import { refer, type Table } from './table.ts';

export const datumKinds = ['floor', 'sill', 'head', 'springing'] as const;
export const datumSchema = z.strictObject({
  id,
  name,
  level: coordinate,
  element: id.nullable(),
  kind: z.enum(datumKinds, `must be ${datumKinds.join(', ')}`).optional(),
});
/** A horizontal setting-out line at a level (metres above the origin), for one element or (null) for the whole building, and what it is the line of where that is said. */
export type Datum = z.infer<typeof datumSchema>;

export const datums: Table<typeof datumSchema> = {
  schema: datumSchema,
  singular: 'datum',
  references: ({ element }) => refer('element', 'elements', element),
};
