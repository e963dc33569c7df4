/** Parts: what stands in or about an opening, built of the pattern's figures and shared by all openings that are alike. */
import { z } from 'zod';
import { extent, id, number } from './figures.ts';
import { importedMaterials, importedShape } from './imported-schema.ts';
import {
  fieldMaterials,
  fieldMeshes,
  fieldSchema,
  infillMaterials,
  infillSchema,
  memberSchema,
  mouldingSchema,
} from './infill-schema.ts';
import { profileShapes, type ProfileShape } from './profile-shapes.ts';

/** A length that may be nothing, metres. */
const upTo = (most: number) => number.min(0, 'must be at least 0').max(most, `must be at most ${most} m`);

export const sillBoardSchema = z.strictObject({
  id,
  kind: z.literal('sill board'),
  material: id,
  thickness: extent.max(0.5, 'must be at most 0.5 m'),
  nosing: upTo(1),
  horns: upTo(1),
  reach: extent.optional(),
  behind: z.boolean('must be true or false').optional(),
});
/**
 * A plain board on the sill, level, of a thickness; it stands before the face by its nosing, and there goes on beyond the jambs by its horns on either side. It reaches so far into the reveal, or to
 * what stands in the opening. `behind`: it stands on the face opposite to the one on which the opening is set out, as a window board within does. Metres.
 */
export type SillBoard = z.infer<typeof sillBoardSchema>;

const sides = ['jamb-left', 'jamb-right', 'head', 'sill'] as const;
const someSides = z
  .array(z.enum(sides, `must be one of ${sides.join(', ')}`))
  .min(1, 'must hold at least one side')
  .max(4, 'must hold at most 4 sides');

export const surroundSchema = z.strictObject({
  id,
  kind: z.literal('surround'),
  material: id,
  width: extent.max(2, 'must be at most 2 m'),
  thickness: extent.max(0.5, 'must be at most 0.5 m'),
  sides: someSides,
  off: number.min(-0.2, 'must be at least -0.2 m').max(1, 'must be at most 1 m').optional(),
  moulding: mouldingSchema.optional(),
  behind: z.boolean('must be true or false').optional(),
});
/** A band planted on the face along some sides of an opening, mitred where they meet; so wide, and so thick before the face; `off` so far away from the opening, as a hood mould is, or less than nothing where it laps over the reveal's edge; its inner edge worked. `behind`: on the face opposite, as an architrave within is. Metres. */
export type Surround = z.infer<typeof surroundSchema>;

export const liningSchema = z.strictObject({
  id,
  kind: z.literal('lining'),
  material: id,
  thickness: extent.max(0.2, 'must be at most 0.2 m'),
  sides: someSides,
  reach: extent.optional(),
  behind: z.boolean('must be true or false').optional(),
});
/**
 * Boards along some sides of the reveal, from the face to what stands in the opening, or no further than so far; straight, as each side splays, and mitred where they meet. They stand on a board on the sill.
 * `behind`: from the face opposite to the one on which the opening is set out, as those within are. Metres.
 */
export type Lining = z.infer<typeof liningSchema>;

const stoneCount = z.int('must be a whole number').min(1, 'must be at least 1').max(199, 'must be at most 199');
const inFace = {
  id,
  material: id,
  /** How deep it is let into the wall, and how far it stands before its face. */
  depth: extent.max(2, 'must be at most 2 m'),
  proud: upTo(0.5),
};

export const lintelSchema = z.strictObject({
  ...inFace,
  kind: z.literal('lintel'),
  height: extent.max(2, 'must be at most 2 m'),
  bearing: upTo(2),
});
/** A beam over a level head that bears on the wall by so much on either side. It is let into the wall, and takes its own room out of it. Metres. */
export type Lintel = z.infer<typeof lintelSchema>;

export const archRingSchema = z.strictObject({
  ...inFace,
  kind: z.literal('arch ring'),
  height: extent.max(2, 'must be at most 2 m'),
  /** How many stones, or bricks; an odd number has one at the crown. */
  stones: stoneCount,
  joint: upTo(0.1),
  mortar: id.optional(),
  /** By how much the stone at the crown is higher than the others, and how much further it stands out. */
  keystone: z.strictObject({ rise: upTo(1), proud: upTo(0.5), material: id }).optional(),
});
/** Stones over a head, curved or level, their joints square to its curve, or to a middle below it; let into the wall. Metres. */
export type ArchRing = z.infer<typeof archRingSchema>;

export const quoinsSchema = z.strictObject({
  ...inFace,
  kind: z.literal('quoins'),
  height: extent.max(2, 'must be at most 2 m'),
  long: extent.max(3, 'must be at most 3 m'),
  short: extent.max(3, 'must be at most 3 m'),
  joint: upTo(0.1),
  mortar: id.optional(),
});
/** Blocks along both jambs, long and short by turns from the sill up, of equal heights of no more than so much; let into the wall. Metres. */
export type Quoins = z.infer<typeof quoinsSchema>;

export const stoneSillSchema = z.strictObject({
  ...inFace,
  kind: z.literal('stone sill'),
  height: extent.max(1, 'must be at most 1 m'),
  /** How far it goes on into the wall beyond the jambs. */
  ends: upTo(1),
  /** By how much it falls from its back to its front. */
  fall: upTo(0.5),
  drip: z.boolean('must be true or false'),
});
/** A sill below a level foot, its top falling outward between level ends that are let into the wall, with a drip below its front. Metres. */
export type StoneSill = z.infer<typeof stoneSillSchema>;

export const shuttersSchema = z.strictObject({
  id,
  kind: z.literal('shutters'),
  frame: memberSchema,
  field: fieldSchema,
  /** Two leaves, or one hung on the left or the right. */
  leaves: z.enum(['pair', 'left', 'right'], 'must be pair, left or right'),
  lap: number.min(-0.2, 'must be at least -0.2 m').max(0.5, 'must be at most 0.5 m'),
  angle: number.min(0, 'must be from 0 to 180 degrees').max(180, 'must be from 0 to 180 degrees'),
  vary: number.min(0, 'must be from 0 to 90 degrees').max(90, 'must be from 0 to 90 degrees').optional(),
});
/** Leaves before the face that lap over the reveal's edges when shut, and lie against the wall at 180°. Metres, degrees. */
export type Shutters = z.infer<typeof shuttersSchema>;

export const guardSchema = z.strictObject({
  id,
  kind: z.literal('guard'),
  material: id,
  /** How high it is; all the opening's height where nothing is said, as bars are. */
  height: extent.optional(),
  bar: extent.max(0.3, 'must be at most 0.3 m'),
  rail: upTo(0.5),
  spacing: extent.max(2, 'must be at most 2 m'),
  /** How far behind the face its front is. */
  depth: upTo(5),
});
/** Upright bars in the reveal, no further apart than so much, with a rail above and below them; a guard rail, or bars before a window. Metres. */
export type Guard = z.infer<typeof guardSchema>;

export const importedPartSchema = z.strictObject({
  id,
  ...importedShape,
  behind: z.boolean('must be true or false').optional(),
});
/** A mesh from outside in the box of the opening: from jamb to jamb, from the face on which it is set out through the wall, and from sill to head. `behind`: from the face opposite. */
export type ImportedPart = z.infer<typeof importedPartSchema>;

export const dormerForms = ['gabled', 'hipped', 'lean-to', 'flat', 'segmental', 'eyebrow'] as const;

const dormerWindowSchema = z.strictObject({
  shape: z.enum(Object.keys(profileShapes) as [ProfileShape, ...ProfileShape[]], 'must be a shape of profile'),
  dimensions: z.record(z.string(), extent),
  /** How high its lowest is above the roof at the opening's foot. */
  sill: upTo(5),
  infill: infillSchema.optional(),
});

export const dormerSchema = z.strictObject({
  id,
  kind: z.literal('dormer'),
  form: z.enum(dormerForms, `must be one of ${dormerForms.join(', ')}`),
  /** Of its cheeks and front. */
  material: id,
  wall: extent.max(1, 'must be at most 1 m'),
  /** How high its eaves are above the roof at the foot of the opening; an eyebrow has none. */
  height: extent.max(10, 'must be at most 10 m'),
  /** Of its roof, degrees; of a segmental or eyebrow one where its arc begins. */
  pitch: number.min(0, 'must be from 0 to 75 degrees').max(75, 'must be from 0 to 75 degrees'),
  roof: z.strictObject({ material: id, thickness: extent.max(1, 'must be at most 1 m'), over: upTo(2) }),
  window: dormerWindowSchema.optional(),
});
/**
 * A dormer over an opening in a roof's plane: a front on the roof before the opening's foot, cheeks beside it up to where the dormer's own roof comes into the plane, and that roof with a window in the front. All of it stands plumb whatever the
 * plane's pitch. Metres, degrees.
 */
export type Dormer = z.infer<typeof dormerSchema>;

export const chimneySchema = z.strictObject({
  id,
  kind: z.literal('chimney'),
  material: id,
  /** How far all round it is from the opening's edges. */
  gap: upTo(0.5),
  /** How high it is above the roof at the opening's upper edge, and how far it goes down below the opening's foot. */
  above: extent.max(20, 'must be at most 20 m'),
  below: upTo(20),
  upstand: z
    .strictObject({
      material: id,
      height: extent.max(1, 'must be at most 1 m'),
      thickness: extent.max(0.5, 'must be at most 0.5 m'),
    })
    .optional(),
  cap: z.strictObject({ material: id, over: upTo(0.5), thickness: extent.max(1, 'must be at most 1 m') }).optional(),
  pots: z
    .strictObject({
      material: id,
      count: z.int('must be a whole number').min(1, 'must be at least 1').max(12, 'must be at most 12'),
      diameter: extent.max(1, 'must be at most 1 m'),
      height: extent.max(3, 'must be at most 3 m'),
    })
    .optional(),
});
/**
 * A chimney: a stack that goes plumb through an opening in a roof's plane, whatever its pitch; an upstand on the roof round it, a cap that stands over it, and pots in a row. Metres.
 */
export type Chimney = z.infer<typeof chimneySchema>;

export const lunetteSchema = z.strictObject({
  id,
  kind: z.literal('lunette'),
  material: id,
  thickness: extent.max(1, 'must be at most 1 m'),
});
/** The web over a window whose head runs into a barrel vault beside its wall, one of the further elements that the opening cuts: so thick about its outline, from the wall's inner face to the vault's back. Metres. */
export type Lunette = z.infer<typeof lunetteSchema>;

export const partSchema = z.discriminatedUnion(
  'kind',
  [
    sillBoardSchema,
    surroundSchema,
    liningSchema,
    lintelSchema,
    archRingSchema,
    quoinsSchema,
    stoneSillSchema,
    shuttersSchema,
    guardSchema,
    dormerSchema,
    chimneySchema,
    lunetteSchema,
    importedPartSchema,
  ],
  {
    error:
      'must say its kind: sill board, surround, lining, lintel, arch ring, quoins, stone sill, shutters, guard, dormer, chimney, lunette or imported',
  },
);
export type Part = z.infer<typeof partSchema>;

/** Whether a part stands on a roof's plane, and on nothing else. */
export const standsOnSlope = ({ kind }: Part): boolean => kind === 'dormer' || kind === 'chimney';

/** Kinds that are let into the wall, and take their room out of it. */
export type SetIn = Lintel | ArchRing | Quoins | StoneSill;

const letIn: ReadonlySet<Part['kind']> = new Set<SetIn['kind']>(['lintel', 'arch ring', 'quoins', 'stone sill']);

/** Whether a part is let into the wall. */
export const isSetIn = (part: Part): part is SetIn => letIn.has(part.kind);

/** All materials that a part names, by their paths. */
export function partMaterials(part: Part): [path: string, material: string][] {
  if (part.kind === 'shutters')
    return [['frame/material', part.frame.material], ...fieldMaterials(part.field, 'field')];
  if (part.kind === 'imported') return importedMaterials(part);
  const found: [string, string][] = [['material', part.material]];
  if (part.kind === 'dormer') {
    found.push(['roof/material', part.roof.material]);
    if (part.window?.infill)
      found.push(
        ...infillMaterials(part.window.infill).map(([at, of]): [string, string] => [`window/infill/${at}`, of]),
      );
  }
  if (part.kind === 'chimney')
    for (const extra of ['upstand', 'cap', 'pots'] as const)
      if (part[extra]) found.push([`${extra}/material`, part[extra].material]);
  if ('mortar' in part && part.mortar) found.push(['mortar', part.mortar]);
  if ('keystone' in part && part.keystone) found.push(['keystone/material', part.keystone.material]);
  return found;
}

/** All meshes that a part names, by their paths. */
export function partMeshes(part: Part): [path: string, mesh: string][] {
  if (part.kind === 'imported') return [['mesh', part.mesh]];
  if (part.kind === 'dormer' && part.window?.infill)
    return fieldMeshes(part.window.infill.field, 'window/infill/field');
  return part.kind === 'shutters' ? fieldMeshes(part.field, 'field') : [];
}
