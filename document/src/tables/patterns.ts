/** Patterns: the reusable definitions of openings. */
import { patternSchema } from '../pattern-schema.ts';
import { refer, type Table } from './table.ts';

export const patterns: Table<typeof patternSchema> = {
  schema: patternSchema,
  singular: 'pattern',
  references: ({ reveal, cut, parts }) => [
    ...refer('reveal/material', 'materials', reveal.material),
    ...Object.entries(reveal.sides ?? {}).flatMap(([side, material]) =>
      refer(`reveal/sides/${side}`, 'materials', material),
    ),
    ...(parts ?? []).flatMap((part, i) => refer(`parts/${i}/material`, 'materials', part.material)),
    ...(cut?.kind === 'imprint' ? refer('cut/material', 'materials', cut.material) : []),
  ],
};
