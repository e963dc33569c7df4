/** Elements: the things that can be cut. */
import { elementSchema } from '../kinds/index.ts';
import { refer, type Table } from './table.ts';

export const elements: Table<typeof elementSchema> = {
  schema: elementSchema,
  singular: 'element',
  references: ({ layers }) => layers.flatMap((layer, i) => refer(`layers/${i}/material`, 'materials', layer.material)),
};
