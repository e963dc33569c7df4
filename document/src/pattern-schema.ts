/** Patterns: the reusable definitions of openings. */
import { z } from 'zod';
import { textureSchema } from './kinds/common.ts';
import { fieldDepth, infillSchema, mostFields } from './infill-schema.ts';
import { partSchema } from './part-schema.ts';
import { extent, id, label, line, name, slant, coordinate } from './figures.ts';
import { freeOutlineSchema } from './outline-schema.ts';
import { dimensionNames, needsOf, profileShapes, type ProfileShape } from './profile-shapes.ts';

export const profileSchema = z.strictObject({
  shape: z.enum(Object.keys(profileShapes) as [ProfileShape, ...ProfileShape[]], {
    error: `must be one of ${Object.keys(profileShapes).join(', ')}`,
  }),
  outline: freeOutlineSchema.optional(),
  islands: z.array(freeOutlineSchema).max(200, 'must hold at most 200 islands').optional(),
  text: line.min(1, 'must not be empty').max(80, 'must have at most 80 characters').optional(),
  sides: z.int('must be a whole number').min(3, 'must be at least 3').max(64, 'must be at most 64').optional(),
});
/** The outline of a pattern: its shape, and for some shapes what else it takes: a free outline with islands (metres), a text, a number of sides or points. */
export type ProfileChoice = z.infer<typeof profileSchema>;

/** A profile of a shape to begin with. */
export function firstChoice(shape: ProfileShape): ProfileChoice {
  switch (shape) {
    case 'free':
      return {
        shape,
        outline: [
          { x: 0, y: 0 },
          { x: 1.2, y: 0 },
          { x: 1.2, y: 0.6, bulge: 0.4 },
          { x: 0.6, y: 1.2, bulge: -0.25 },
          { x: 0, y: 0.8 },
        ],
        islands: [
          [
            { x: 0.45, y: 0.35 },
            { x: 0.75, y: 0.35 },
            { x: 0.75, y: 0.6, bulge: 1 },
            { x: 0.45, y: 0.6 },
          ],
        ],
      };
    case 'text':
      return { shape, text: 'Quay 8' };
    case 'regular-polygon':
      return { shape, sides: 6 };
    case 'star':
      return { shape, sides: 5 };
    default:
      return { shape };
  }
}

export const sizeSchema = z.strictObject({
  id,
  name: label,
  dimensions: z.record(z.string(), extent),
});
/** A named set of dimensions of a pattern. Lengths in metres. */
export type Size = z.infer<typeof sizeSchema>;

export const arrisSchema = z.strictObject({
  kind: z.enum(['chamfered', 'rounded'], 'must be chamfered or rounded'),
  size: extent.max(1, 'must be at most 1 m'),
  segments: z.int('must be a whole number').min(1, 'must be at least 1').max(32, 'must be at most 32').optional(),
});
/** The sharp edge where reveal meets face, taken off at 45° or by a quarter circle of so many segments (3 unless said otherwise). Size in metres. */
export type Arris = z.infer<typeof arrisSchema>;

export const sectionSchema = z.strictObject({
  seat: extent.optional(),
  splayOutside: slant(80).optional(),
  splayInside: slant(80).optional(),
  checks: z
    .array(
      z.strictObject({
        depth: extent,
        step: coordinate.min(-1, 'must be at least -1 m').max(1, 'must be at most 1 m'),
      }),
    )
    .max(16, 'must hold at most 16 checks')
    .optional(),
  arris: arrisSchema.optional(),
  innerArris: arrisSchema.optional(),
});
/**
 * How one side of the reveal departs from square through the depth. From the seat (metres from the outer face; the inner face unless said otherwise for an outside splay, the outer
 * face for an inside one) it splays outward and inward (degrees, positive widens; on a sill this is its fall). At each check it steps, wider inside where positive. The arrises
 * are taken off where it meets the faces, or the back of a niche.
 */
export type Section = z.infer<typeof sectionSchema>;

export const sideNames = ['jamb-left', 'jamb-right', 'head', 'sill'] as const;

export const cutSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('through') }),
    z.strictObject({ kind: z.literal('niche'), depth: extent }),
    z.strictObject({
      kind: z.literal('niche to layer'),
      layers: z.int('must be a whole number').min(1, 'must be at least 1').max(23, 'must be at most 23'),
    }),
    z.strictObject({
      kind: z.literal('boss'),
      height: extent,
      layers: z
        .union([z.int().min(1).max(24), z.literal('all')], 'must be a whole number from 1 to 24, or all')
        .optional(),
    }),
    z.strictObject({ kind: z.literal('imprint'), material: id.nullable() }),
    z.strictObject({ kind: z.literal('keep inside') }),
  ],
  { error: 'must say its kind: through, niche, niche to layer, boss, imprint or keep inside' },
);
/**
 * What an opening does to its element: cuts right through; a niche to a depth, or through so many outer layers; a boss of the outer layer, raised so
 * high, or with `layers` a block of its own that reaches back through so many of them, or all; an imprint that divides the face and may give it a material of its own; or keeps only what lies within the outline.
 */
export type Cut = z.infer<typeof cutSchema>;

export const patternSchema = z
  .strictObject({
    id,
    name,
    profile: profileSchema,
    sizes: z.record(id, sizeSchema),
    reveal: z.strictObject({ material: id.nullable(), sides: z.partialRecord(z.enum(sideNames), id).optional() }),
    cut: cutSchema.optional(),
    sections: z.partialRecord(z.enum(sideNames), sectionSchema).optional(),
    jambs: z.enum(['parallel', 'radial'], 'must be parallel or radial').optional(),
    onFloor: z.boolean('must be true or false').optional(),
    onSlope: z.enum(['level', 'plumb', 'square'], 'must be level, plumb or square').optional(),
    inBarrels: z.enum(['radial', 'level'], 'must be radial or level').optional(),
    /** Words by which it is found. */
    tags: z.array(name.max(40, 'must have at most 40 characters')).max(12, 'must hold at most 12 tags').optional(),
    parts: z.array(partSchema).max(32, 'must hold at most 32 parts').optional(),
    infill: infillSchema.optional(),
    texture: z.partialRecord(z.enum([...sideNames, 'back', 'imprint']), textureSchema).optional(),
    /** What on the shelf it follows, and as of which revision of that it is. */
    shelf: z
      .strictObject({ item: z.uuid('must be an item’s id'), revision: z.int('must be a whole number').min(1) })
      .optional(),
  })
  .superRefine((pattern, context) => {
    if (pattern.infill && fieldDepth(pattern.infill.field) > mostFields)
      context.addIssue({
        code: 'custom',
        path: ['infill', 'field'],
        message: `must not hold fields more than ${mostFields} deep`,
      });
    if (Object.keys(pattern.sizes).length === 0)
      context.addIssue({ code: 'custom', path: ['sizes'], message: 'must hold at least one size' });
    const { shape } = pattern.profile;
    for (const need of needsOf(shape))
      if (pattern.profile[need] === undefined)
        context.addIssue({ code: 'custom', path: ['profile', need], message: `is missing, which a ${shape} takes` });
    const wanted = dimensionNames(shape);
    for (const [key, size] of Object.entries(pattern.sizes)) {
      if (size.id !== key)
        context.addIssue({
          code: 'custom',
          path: ['sizes', key, 'id'],
          message: `must be "${key}", the key it is kept under`,
        });
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
/**
 * The reusable definition of an opening: its profile, the named sizes of it, what it does to the element, the sections of its sides, and the material of its reveal (null: the
 * layers' own), which single sides may differ from. On a curved wall its jambs are parallel unless they are to be radial. `onFloor`: it stands on the floor, as a door does. `onSlope`: how its reveal goes through a roof's plane: with its head level and its sill plumb unless said otherwise, all plumb, or square. `inBarrels`: how it goes through a barrel vault: radially unless said otherwise, or level, upright in the flank as in a wall. Its parts stand in or about every opening.
 */
export type Pattern = z.infer<typeof patternSchema>;
