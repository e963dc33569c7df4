/** Elements: the things that can be cut. */
import { elementSchema, isInPlan, isManyFaced } from '../kinds/index.ts';
import { refer, type Table } from './table.ts';

export const elements: Table<typeof elementSchema> = {
  schema: elementSchema,
  singular: 'element',
  references: (element) => [
    ...element.layers.flatMap((layer, i) => refer(`layers/${i}/material`, 'materials', layer.material)),
    ...(element.splits ?? []).flatMap(({ material }, i) =>
      material === undefined ? [] : refer(`splits/${i}/material`, 'materials', material),
    ),
    ...(isManyFaced(element)
      ? Object.entries(element.trims ?? {}).flatMap(([of, { material }]) =>
          refer(`trims/${of}/material`, 'materials', material),
        )
      : []),
    ...(element.stands === undefined ? [] : refer('stands', 'datums', element.stands)),
    ...('ribs' in element && element.ribs ? refer('ribs/material', 'materials', element.ribs.material) : []),
    ...('arches' in element && element.arches ? refer('arches/material', 'materials', element.arches.material) : []),
    ...(isInPlan(element) && element.top.kind === 'under' ? refer('top/roof', 'elements', element.top.roof) : []),
  ],
};
