/** What elements of every kind are made of. */
import { z } from 'zod';
import { degrees, extent, id, name, number, coordinate, place } from '../figures.ts';

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
  /** Neither it nor what is on it can be changed until it is unlocked. */
  locked: z.boolean('must be true or false').optional(),
  texture: z
    .strictObject({ outer: textureSchema.optional(), inner: textureSchema.optional(), edge: textureSchema.optional() })
    .optional(),
};
