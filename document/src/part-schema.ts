/** Parts: what stands in or about an opening, built of the pattern's figures and shared by all openings that are alike. */
import { z } from 'zod';
import { extent, id, number } from './figures.ts';

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
 * A plain board on the sill, level, of a thickness; it stands before the face by its nosing, and there goes on beyond the jambs by its horns on either side. It reaches so far into the reveal, or all
 * the way. `behind`: it stands on the face opposite to the one on which the opening is set out, as a window board within does. Metres.
 */
export type SillBoard = z.infer<typeof sillBoardSchema>;

export const partSchema = z.discriminatedUnion('kind', [sillBoardSchema], { error: 'must say its kind: sill board' });
export type Part = z.infer<typeof partSchema>;
