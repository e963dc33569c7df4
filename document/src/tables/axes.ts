/** Axes: vertical setting-out lines. */
import { z } from 'zod';
import { coordinate, id, name } from '../figures.ts';
import { refer, type Table } from './table.ts';

export const axisSchema = z.strictObject({ id, name, element: id, face: id.optional(), along: coordinate });
/** A vertical setting-out line on an element, metres along from its start; on one of many faces where it names that. */
export type Axis = z.infer<typeof axisSchema>;

export const axes: Table<typeof axisSchema> = {
  schema: axisSchema,
  singular: 'axis',
  references: ({ element }) => refer('element', 'elements', element),
};
