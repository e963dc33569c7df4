/** Patterns: the reusable definitions of openings. */
import { fieldMeshes, infillMaterials } from '../infill-schema.ts';
import { partMaterials, partMeshes } from '../part-schema.ts';
import { patternSchema, type Pattern } from '../pattern-schema.ts';
import { refer, type Table } from './table.ts';

/** All meshes that a pattern names, by their paths. */
export const patternMeshes = ({
  parts = [],
  infill,
}: Pick<Pattern, 'parts' | 'infill'>): [path: string, mesh: string][] => [
  ...parts.flatMap((part, i) => partMeshes(part).map(([path, mesh]): [string, string] => [`parts/${i}/${path}`, mesh])),
  ...(infill ? fieldMeshes(infill.field, 'infill/field') : []),
];

export const patterns: Table<typeof patternSchema> = {
  schema: patternSchema,
  singular: 'pattern',
  references: ({ reveal, cut, parts, infill }) => [
    ...refer('reveal/material', 'materials', reveal.material),
    ...Object.entries(reveal.sides ?? {}).flatMap(([side, material]) =>
      refer(`reveal/sides/${side}`, 'materials', material),
    ),
    ...(parts ?? []).flatMap((part, i) =>
      partMaterials(part).flatMap(([path, material]) => refer(`parts/${i}/${path}`, 'materials', material)),
    ),
    ...(infill
      ? infillMaterials(infill).flatMap(([path, material]) => refer(`infill/${path}`, 'materials', material))
      : []),
    ...patternMeshes({ parts, infill }).flatMap(([path, mesh]) => refer(path, 'meshes', mesh)),
    ...(cut?.kind === 'imprint' ? refer('cut/material', 'materials', cut.material) : []),
  ],
};
