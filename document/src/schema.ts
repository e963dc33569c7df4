/** The document: one project as Zod schemas, from which every other part takes its types. */
import { z } from 'zod';
import { extent, id, name } from './figures.ts';
import { tables } from './tables/index.ts';
import { formatVersion } from './versions/up-to-date.ts';

/** Units in which lengths are shown and in which bare numbers are read. The document itself is in metres. */
export const unitsSchema = z.enum(['mm', 'm', 'ft-in'], 'must be mm, m or ft-in');
export type Units = z.infer<typeof unitsSchema>;

export type TableName = keyof typeof tables;
export const tableNames = Object.keys(tables) as TableName[];
/** The type of one row of a table. */
export type Row<T extends TableName> = z.infer<(typeof tables)[T]['schema']>;

/** A schema for each table, made by a function. */
type OfTables<Made extends { [T in TableName]: z.ZodType }> = { [T in TableName]: Made[T] };

const records = Object.fromEntries(
  tableNames.map((table) => [table, z.record(id, tables[table].schema)]),
) as unknown as OfTables<{ [T in TableName]: z.ZodRecord<typeof id, (typeof tables)[T]['schema']> }>;

export const documentSchema = z.strictObject({
  format: z.literal('yard-arch', 'must be "yard-arch": this is not a Yard Arch project file'),
  version: z.literal(formatVersion, `must be ${formatVersion}, the version that this program reads`),
  name,
  units: unitsSchema,
  chord: extent.max(1, 'must be at most 1 m').optional(),
  ...records,
});
/** One project. Lengths are metres, angles degrees, z is up. `chord` is the greatest distance of a chord from the arc that it stands for; 1 mm unless said otherwise. */
export type ProjectDocument = z.infer<typeof documentSchema>;
