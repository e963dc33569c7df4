/** Assets: bytes that the document names, each kept once by what it holds. */
import { z } from 'zod';
import { id, name } from '../figures.ts';
import type { Table } from './table.ts';

/** The kinds of pictures that can be kept. */
export const pictureTypes = ['image/png', 'image/jpeg', 'image/webp'] as const;
export type PictureType = (typeof pictureTypes)[number];

/** The most bytes of a picture, and the most dots along either side. */
export const [mostPictureBytes, mostPictureSide] = [20 * 1024 * 1024, 8192];

const dots = z
  .int('must be a whole number')
  .min(1, 'must be at least 1')
  .max(mostPictureSide, `must be at most ${mostPictureSide} dots`);

export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits');

export const assetSchema = z.strictObject({
  id,
  name,
  sha256: sha256Schema,
  type: z.enum(pictureTypes, `must be ${pictureTypes.join(', ')}`),
  bytes: z.int('must be a whole number').min(1, 'must be at least 1').max(mostPictureBytes, 'must be at most 20 MB'),
  width: dots,
  height: dots,
});
/** A picture: what its file was called, the SHA-256 of its bytes by which it is kept, its media type, how many bytes it has, and its width and height in dots. */
export type Asset = z.infer<typeof assetSchema>;

export const assets: Table<typeof assetSchema> = {
  schema: assetSchema,
  singular: 'picture',
  references: () => [],
};
