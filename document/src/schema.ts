/** The document: one project as Zod schemas, from which every other part takes its types. */
import { z } from 'zod';
import { elementSchema } from './element-schema.ts';
import { coordinate, degrees, extent, id, name, number } from './figures.ts';
import { patternSchema } from './pattern-schema.ts';
import { formatVersion } from './versions/up-to-date.ts';

/** Units in which lengths are shown and in which bare numbers are read. The document itself is in metres. */
export const unitsSchema = z.enum(['mm', 'm', 'ft-in'], 'must be mm, m or ft-in');
export type Units = z.infer<typeof unitsSchema>;

export const alongSchema = z.discriminatedUnion(
  'from',
  [
    z.strictObject({ from: z.literal('start'), distance: coordinate }),
    z.strictObject({ from: z.literal('middle'), distance: coordinate }),
    z.strictObject({ from: z.literal('end'), distance: coordinate }),
    z.strictObject({ from: z.literal('fraction'), fraction: number.min(0, 'must be 0 to 1').max(1, 'must be 0 to 1'), distance: coordinate }),
    z.strictObject({ from: z.literal('axis'), axis: id, distance: coordinate }),
    z.strictObject({ from: z.literal('neighbour'), opening: id, edge: z.enum(['left', 'centre', 'right'], 'must be left, centre or right'), distance: coordinate }),
  ],
  { error: 'must say from where: start, middle, end, fraction, axis or neighbour' },
);
/**
 * Where along its element an opening's grip is: from its start, middle, end, from a fraction of its length, an axis, or another opening's jamb or centre. The distance (metres) runs towards the end of
 * the element; from the end it runs back towards the start.
 */
export type Along = z.infer<typeof alongSchema>;

export const upSchema = z.discriminatedUnion(
  'from',
  [
    z.strictObject({ from: z.literal('base'), distance: coordinate }),
    z.strictObject({ from: z.literal('top'), distance: coordinate }),
    z.strictObject({ from: z.literal('datum'), datum: id, distance: coordinate }),
  ],
  { error: 'must say from where: base, top or datum' },
);
/** How high an opening's grip is: the distance (metres) runs up from the base or datum, and down from the top. */
export type Up = z.infer<typeof upSchema>;

export const gripSchema = z.strictObject({
  across: z.enum(['left', 'centre', 'right'], 'must be left, centre or right'),
  level: z.enum(['sill', 'middle', 'head', 'springing'], 'must be sill, middle, head or springing'),
});
/** The point of an opening that its intent places: one of nine on its bounding rectangle, or one on its springing line. */
export type Grip = z.infer<typeof gripSchema>;

export const openingSchema = z.strictObject({
  id,
  mark: name,
  element: id,
  pattern: id,
  size: id,
  along: alongSchema,
  up: upSchema,
  grip: gripSchema,
  blockedUp: z.boolean('must be true or false'),
  own: z.record(z.string(), extent).optional(),
  further: z.array(id).max(64, 'must hold at most 64 elements').optional(),
  aim: z.strictObject({ turn: degrees, rise: number.min(-80, 'must be from -80 to 80 degrees').max(80, 'must be from -80 to 80 degrees').optional() }).optional(),
});
/**
 * One placed instance of a pattern's size; with dimensions of its `own` (metres) it is a one-off. It cuts its own element, and `further` ones along its axis. With an `aim` its outline is drawn on an upright plane and projected from
 * there: in the plan direction `turn` (degrees, counter-clockwise from x), rising by `rise`.
 */
export type Opening = z.infer<typeof openingSchema>;

/** The textures that ship with the program, each drawn at true scale. */
export const textureNames = ['stretcher bond', 'english bond', 'ashlar', 'plaster', 'slate', 'oak', 'painted timber', 'glass', 'insulation', 'concrete'] as const;
export type TextureName = (typeof textureNames)[number];

export const materialSchema = z.strictObject({
  id,
  name,
  colour: z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #C58562'),
  roughness: number.min(0, 'must be 0 to 1').max(1, 'must be 0 to 1'),
  texture: z.enum(textureNames, `must be one of ${textureNames.join(', ')}`).optional(),
});
/** What a face looks like when it is rendered: a colour, which a texture of ours is tinted with where it has one. */
export type Material = z.infer<typeof materialSchema>;

export const datumKinds = ['floor', 'sill', 'head', 'springing'] as const;
export const datumSchema = z.strictObject({ id, name, level: coordinate, element: id.nullable(), kind: z.enum(datumKinds, `must be ${datumKinds.join(', ')}`).optional() });
/** A horizontal setting-out line at a level (metres above the origin), for one element or (null) for the whole building, and what it is the line of where that is said. */
export type Datum = z.infer<typeof datumSchema>;

export const axisSchema = z.strictObject({ id, name, element: id, along: coordinate });
/** A vertical setting-out line on an element, metres along from its start. */
export type Axis = z.infer<typeof axisSchema>;

/** The schemas of the document's tables, each keyed by id in a document. */
export const tableSchemas = {
  elements: elementSchema,
  patterns: patternSchema,
  openings: openingSchema,
  materials: materialSchema,
  datums: datumSchema,
  axes: axisSchema,
} as const;

export type TableName = keyof typeof tableSchemas;
export const tableNames = Object.keys(tableSchemas) as TableName[];
/** The type of one row of a table. */
export type Row<T extends TableName> = z.infer<(typeof tableSchemas)[T]>;

export const documentSchema = z.strictObject({
  format: z.literal('yard-arch', 'must be "yard-arch": this is not a Yard Arch project file'),
  version: z.literal(formatVersion, `must be ${formatVersion}, the version that this program reads`),
  name,
  units: unitsSchema,
  chord: extent.max(1, 'must be at most 1 m').optional(),
  elements: z.record(id, elementSchema),
  patterns: z.record(id, patternSchema),
  openings: z.record(id, openingSchema),
  materials: z.record(id, materialSchema),
  datums: z.record(id, datumSchema),
  axes: z.record(id, axisSchema),
});
/** One project. Lengths are metres, angles degrees, z is up. `chord` is the greatest distance of a chord from the arc that it stands for; 1 mm unless said otherwise. */
export type ProjectDocument = z.infer<typeof documentSchema>;
