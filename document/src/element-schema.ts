/** Elements: the things that can be cut. */
import { z } from 'zod';
import { coordinate, degrees, extent, id, name, number, place, slant } from './figures.ts';
import { freeOutlineSchema } from './outline-schema.ts';

export const layerSchema = z.strictObject({
  thickness: extent,
  material: id,
  cavity: z.boolean('must be true or false').optional(),
});
/** One material sheet of an element's build-up, outer to inner. Thickness in metres. A cavity is a layer too, but nothing stands in it. */
export type Layer = z.infer<typeof layerSchema>;

const share = number.min(0.001, 'must be from 0.001 to 0.999').max(0.999, 'must be from 0.001 to 0.999');

export const topSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('level') }),
    z.strictObject({ kind: z.literal('raked'), end: extent }),
    z.strictObject({ kind: z.literal('gabled'), apex: extent, at: share, end: extent.optional() }),
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
 * The top of a wall: level at the wall's height; raked from there to a height at its end; gabled to an apex height, and from there down to a height at its end, the wall's own
 * unless it is given; or stepped, each step at a height of its own. Where along the wall an apex or a step is, `at` says as a share of the length, so that it follows the wall.
 */
export type Top = z.infer<typeof topSchema>;

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

const sweep = degrees;
export const runSchema = z.strictObject({ turn: degrees, length: extent, sweep: sweep.optional() });
/**
 * A further run of a wall: it leaves the one before by a turn (degrees, counter-clockwise), and is `length` metres long on the outer face. With a sweep it is an
 * arc that turns by so many degrees over its length, counter-clockwise where positive.
 */
export type Run = z.infer<typeof runSchema>;

export const endSchema = z.enum(['square', 'mitred', 'butted'], 'must be square, mitred or butted');
/** How a wall ends where another meets it: square as it stands, mitred with the wall at its corner, or butted against that wall's face. */
export type WallEnd = z.infer<typeof endSchema>;

const layers = z.array(layerSchema).min(1, 'must hold at least one layer').max(24, 'must hold at most 24 layers');

const common = {
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

export const wallSchema = z
  .strictObject({
    ...common,
    kind: z.literal('wall'),
    length: extent,
    height: extent,
    top: topSchema,
    sweep: sweep.optional(),
    runs: z.array(runSchema).max(200, 'must hold at most 200 runs').optional(),
    batter: slant(45).optional(),
    ends: z.strictObject({ start: endSchema, end: endSchema }).optional(),
  })
  .superRefine((wall, context) => {
    if (wall.batter && (wall.sweep || wall.runs?.length))
      context.addIssue({
        code: 'custom',
        path: ['batter'],
        message: 'must be 0 on a wall that is curved or bent: only straight walls can lean',
      });
    const total = (wall.sweep ?? 0) + (wall.runs ?? []).reduce((sum, run) => sum + (run.sweep ?? 0), 0);
    if (Math.abs(total) > 360)
      context.addIssue({
        code: 'custom',
        path: ['sweep'],
        message: 'must not turn the wall by more than 360 degrees in all',
      });
  });
/**
 * A wall. It runs from `start` (metres) in the direction `turn` (degrees, counter-clockwise from x in plan); its outer face is on the right of
 * that direction, and the layers follow inward from it. `length` is that of its first run, along the outer face, which is an arc where it has a `sweep`; further
 * runs follow. `height` is that of its start. A batter (degrees) leans it inward as it rises.
 */
export type Wall = z.infer<typeof wallSchema>;

const panelled = {
  ...common,
  outline: freeOutlineSchema,
  holes: z.array(freeOutlineSchema).max(200, 'must hold at most 200 holes').optional(),
};

export const panelSchema = z.strictObject({ ...panelled, kind: z.literal('panel'), tilt: degrees });
/**
 * A free panel: any closed outline, with holes, in a plane through `start`. Its s axis runs level in the direction `turn`; its t axis rises at `tilt` (degrees, 90 is
 * upright). The layers follow inward from the face that is seen with s to the right and t up.
 */
export type Panel = z.infer<typeof panelSchema>;

export const slabSchema = z.strictObject({ ...panelled, kind: z.literal('slab') });
/** A slab: a level panel whose outer face is its top, so that its openings are set out as seen from above. */
export type Slab = z.infer<typeof slabSchema>;

export const elementSchema = z.discriminatedUnion('kind', [wallSchema, panelSchema, slabSchema], {
  error: 'must say its kind: wall, panel or slab',
});
/** A thing that can be cut. */
export type Element = z.infer<typeof elementSchema>;
