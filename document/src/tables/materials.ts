/** Materials: what faces look like when they are rendered. */
import { z } from 'zod';
import { extent, id, name, number } from '../figures.ts';
import { refer, type Table } from './table.ts';

/** The textures that ship with the program, each drawn at true scale. */
export const textureNames = [
  'stretcher bond',
  'english bond',
  'ashlar',
  'plaster',
  'slate',
  'oak',
  'painted timber',
  'glass',
  'insulation',
  'concrete',
] as const;
export type TextureName = (typeof textureNames)[number];

export const picturesSchema = z.strictObject({
  width: extent,
  height: extent,
  colour: id.optional(),
  roughness: id.optional(),
  normal: id.optional(),
});
/** Pictures of a surface, and how wide and high a piece of it they show, metres: its colour, how rough it is (light is rough), and its normals (green is up). */
export type Pictures = z.infer<typeof picturesSchema>;

/** What of a surface a picture can show. */
export const pictureSlots = ['colour', 'roughness', 'normal'] as const satisfies readonly (keyof Pictures)[];
export type PictureSlot = (typeof pictureSlots)[number];

/** The assets that pictures are of. */
export const assetsIn = (pictures: Pictures | undefined): string[] =>
  pictureSlots.flatMap((slot) => pictures?.[slot] ?? []);

export const materialSchema = z.strictObject({
  id,
  name,
  colour: z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #C58562'),
  roughness: number.min(0, 'must be 0 to 1').max(1, 'must be 0 to 1'),
  /** How much of what is behind it is hidden; all unless it is said. */
  opacity: number.min(0.02, 'must be 0.02 to 1').max(1, 'must be 0.02 to 1').optional(),
  pictures: picturesSchema.optional(),
  texture: z.enum(textureNames, `must be one of ${textureNames.join(', ')}`).optional(),
});
/** What a face looks like when it is rendered: a colour, which a texture of ours is tinted with where it has one; or pictures of its own, which go before that. */
export type Material = z.infer<typeof materialSchema>;

export const materials: Table<typeof materialSchema> = {
  schema: materialSchema,
  singular: 'material',
  references: ({ pictures }) => [
    ...pictureSlots.flatMap((slot) => refer(`pictures/${slot}`, 'assets', pictures?.[slot])),
  ],
};
