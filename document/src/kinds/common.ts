/** What elements of every kind are made of. */
import { z } from 'zod';
import { degrees, extent, id, name, number, coordinate, place, slant } from '../figures.ts';

export const layerSchema = z.strictObject({
  thickness: extent,
  material: id,
  cavity: z.boolean('must be true or false').optional(),
});
/** One material sheet of an element's build-up, outer to inner. Thickness in metres. A cavity is a layer too, but nothing stands in it. */
export type Layer = z.infer<typeof layerSchema>;

export const textureSchema = z.strictObject({
  offset: z.strictObject({ u: coordinate, v: coordinate }).optional(),
  turn: degrees.optional(),
  mirror: z.boolean('must be true or false').optional(),
  seam: z.enum(['start', 'crown', 'end'], 'must be start, crown or end').optional(),
});
/**
 * How texture is laid on faces of one role, after it has been unrolled at true scale: mirrored, turned (degrees), then moved (metres). `seam` says
 * where a rounded reveal begins to be unrolled: at its left springing (start), its crown, or its right springing (end).
 */
export type Texture = z.infer<typeof textureSchema>;

const spot = z.strictObject({ x: coordinate, y: coordinate });

const chainSchema = z.strictObject({
  path: z
    .array(spot)
    .min(2, 'must hold at least two points')
    .max(100, 'must hold at most 100 points')
    .refine(
      (points) =>
        points.every(({ x, y }, i) => i === 0 || Math.hypot(x - points[i - 1]!.x, y - points[i - 1]!.y) >= 1e-3),
      'must have its points at least a millimetre apart',
    ),
  material: id.optional(),
});
const planeSchema = z.strictObject({ at: place, turn: degrees, tilt: slant(90), material: id.optional() });

/**
 * What an element is split along, told in its own directions: from its start, x in the direction of its turn (metres, degrees). Along a `path` in plan, which goes on straight beyond its ends, all that is to the
 * left is kept; at a plane through `at` all that is where its normal points, in the plan direction `turn`, rising by `tilt`. Where it was cut it is closed in a `material` of its own, or shows its layers.
 */
export const splitSchema = z.union(
  [chainSchema, planeSchema],
  'must be a path in plan, or a plane by at, turn and tilt',
);
export type Split = z.infer<typeof splitSchema>;

const layers = z.array(layerSchema).min(1, 'must hold at least one layer').max(24, 'must hold at most 24 layers');

/** The fields that elements of every kind have. */
export const common = {
  id,
  name,
  start: place,
  turn: degrees,
  layers,
  /** How its faces are meshed; lean unless said otherwise. */
  mesh: z.enum(['lean', 'quads'], 'must be lean or quads').optional(),
  /** Whether all layers make one closed skin, or each a closed solid of its own; one skin unless said otherwise. */
  skins: z.enum(['one', 'layers'], 'must be one or layers').optional(),
  /** Neighbouring faces that turn by no more than this, degrees, are shaded as one; only arcs are unless it is given. */
  smooth: number.min(0.1, 'must be from 0.1 to 180 degrees').max(180, 'must be from 0.1 to 180 degrees').optional(),
  /** The group of the register that it belongs to. */
  group: name.optional(),
  /** The datum with which its level goes up and down, as a vault's springing or a floor does. */
  stands: id.optional(),
  /** Neither it nor what is on it can be changed until it is unlocked. */
  locked: z.boolean('must be true or false').optional(),
  splits: z.array(splitSchema).max(24, 'must hold at most 24 splits').optional(),
  texture: z
    .strictObject({ outer: textureSchema.optional(), inner: textureSchema.optional(), edge: textureSchema.optional() })
    .optional(),
};
