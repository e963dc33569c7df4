/** The document: one project as Zod schemas, from which every other part takes its types. */
import { z } from 'zod';
import { dimensionNames, profileShapes, type ProfileShape } from './profile-shapes.ts';

/** Version of the file format. It rises when an older program could no longer read a newer file. */
export const formatVersion = 1;

/** The farthest that any coordinate or length may reach, in metres. */
export const farthest = 100_000;

/** The thinnest, narrowest or shortest thing that can be made, in metres: a tenth of a millimetre. */
export const smallest = 0.0001;

const id = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/, 'must be an id: 1 to 64 letters, digits, - or _, starting with a letter or digit');
const name = z.string().trim().min(1, 'must not be empty').max(120, 'must have at most 120 characters');
const label = z.string().max(120, 'must have at most 120 characters');

const number = z.number('must be a number');
const coordinate = number
  .min(-farthest, `must be at least ${-farthest} m`)
  .max(farthest, `must be at most ${farthest} m`);
const extent = number
  .min(smallest, 'must be more than 0 (at least 0.1 mm)')
  .max(farthest, `must be at most ${farthest} m`);
const degrees = number.min(-360, 'must be at least -360 degrees').max(360, 'must be at most 360 degrees');

/** Units in which lengths are shown and in which bare numbers are read. The document itself is in metres. */
export const unitsSchema = z.enum(['mm', 'm', 'ft-in'], 'must be mm, m or ft-in');
export type Units = z.infer<typeof unitsSchema>;

export const layerSchema = z.strictObject({ thickness: extent, material: id });
/** One material sheet of an element's build-up, outer to inner. Thickness in metres. */
export type Layer = z.infer<typeof layerSchema>;

const share = number.min(0.001, 'must be from 0.001 to 0.999').max(0.999, 'must be from 0.001 to 0.999');

export const topSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('level') }),
    z.strictObject({ kind: z.literal('raked'), end: extent }),
    z.strictObject({ kind: z.literal('gabled'), apex: extent, at: share }),
    z.strictObject({
      kind: z.literal('stepped'),
      steps: z
        .array(z.strictObject({ at: share, height: extent }))
        .min(1, 'must hold at least one step')
        .max(64, 'must hold at most 64 steps'),
    }),
  ],
  { error: 'must say its kind: level, raked, gabled or stepped' },
);
/**
 * The top of a wall: level at the wall's height; raked from there to a height at its end; gabled to an apex height; or stepped, each
 * step at a height of its own. Where along the wall an apex or a step is, `at` says as a share of the length, so that it follows the wall.
 */
export type Top = z.infer<typeof topSchema>;

export const wallSchema = z.strictObject({
  id,
  kind: z.literal('wall', 'must be "wall", the one kind of element so far'),
  name,
  start: z.strictObject({ x: coordinate, y: coordinate, z: coordinate }),
  turn: degrees,
  length: extent,
  height: extent,
  top: topSchema,
  layers: z.array(layerSchema).min(1, 'must hold at least one layer').max(24, 'must hold at most 24 layers'),
});
/**
 * A straight wall. It runs from `start` (metres) in the direction `turn` (degrees, counter-clockwise from x in plan);
 * its outer face is on the right of that direction, and the layers follow inward from it. `height` is that of its start.
 */
export type Wall = z.infer<typeof wallSchema>;

export const elementSchema = wallSchema;
/** A thing that can be cut. */
export type Element = z.infer<typeof elementSchema>;

export const profileSchema = z.strictObject({
  shape: z.enum(Object.keys(profileShapes) as [ProfileShape, ...ProfileShape[]], {
    error: `must be one of ${Object.keys(profileShapes).join(', ')}`,
  }),
});

export const sizeSchema = z.strictObject({
  id,
  name: label,
  dimensions: z.record(z.string(), extent),
});
/** A named set of dimensions of a pattern. Lengths in metres. */
export type Size = z.infer<typeof sizeSchema>;

export const patternSchema = z
  .strictObject({
    id,
    name,
    profile: profileSchema,
    sizes: z.record(id, sizeSchema),
    reveal: z.strictObject({ material: id.nullable() }),
  })
  .superRefine((pattern, context) => {
    if (Object.keys(pattern.sizes).length === 0)
      context.addIssue({ code: 'custom', path: ['sizes'], message: 'must hold at least one size' });
    const wanted = dimensionNames(pattern.profile.shape);
    for (const [key, size] of Object.entries(pattern.sizes)) {
      if (size.id !== key)
        context.addIssue({ code: 'custom', path: ['sizes', key, 'id'], message: `must be "${key}", the key it is kept under` });
      for (const dimension of wanted)
        if (!Object.hasOwn(size.dimensions, dimension))
          context.addIssue({ code: 'custom', path: ['sizes', key, 'dimensions', dimension], message: 'is missing' });
      for (const dimension of Object.keys(size.dimensions))
        if (!wanted.includes(dimension))
          context.addIssue({
            code: 'custom',
            path: ['sizes', key, 'dimensions', dimension],
            message: `is no dimension of this profile, which has ${wanted.join(', ')}`,
          });
    }
  });
/** The reusable definition of an opening: its profile, the named sizes of it, and the material of its reveal (null: the layers' own). */
export type Pattern = z.infer<typeof patternSchema>;

export const alongSchema = z.discriminatedUnion(
  'from',
  [
    z.strictObject({ from: z.literal('start'), distance: coordinate }),
    z.strictObject({ from: z.literal('middle'), distance: coordinate }),
    z.strictObject({ from: z.literal('end'), distance: coordinate }),
    z.strictObject({ from: z.literal('axis'), axis: id, distance: coordinate }),
  ],
  { error: 'must say from where: start, middle, end or axis' },
);
/**
 * Where along its element an opening's grip is. From start, middle and axis the distance (metres) runs towards the end of the
 * element; from the end it runs back towards the start.
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
});
/** One placed instance of a pattern's size. */
export type Opening = z.infer<typeof openingSchema>;

export const materialSchema = z.strictObject({
  id,
  name,
  colour: z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #C58562'),
  roughness: number.min(0, 'must be 0 to 1').max(1, 'must be 0 to 1'),
});
/** What a face looks like when it is rendered. */
export type Material = z.infer<typeof materialSchema>;

export const datumSchema = z.strictObject({ id, name, level: coordinate, element: id.nullable() });
/** A horizontal setting-out line at a level (metres above the origin), for one element or (null) for the whole building. */
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
  elements: z.record(id, elementSchema),
  patterns: z.record(id, patternSchema),
  openings: z.record(id, openingSchema),
  materials: z.record(id, materialSchema),
  datums: z.record(id, datumSchema),
  axes: z.record(id, axisSchema),
});
/** One project. Lengths are metres, angles degrees, z is up. */
export type ProjectDocument = z.infer<typeof documentSchema>;
