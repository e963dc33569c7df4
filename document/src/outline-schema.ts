/** Free outlines: closed rows of points joined by straight lines or arcs. */
import { z } from 'zod';
import { coordinate, number } from './figures.ts';

export const pointSchema = z.strictObject({
  x: coordinate,
  y: coordinate,
  bulge: number.min(-20, 'must be from -20 to 20').max(20, 'must be from -20 to 20').optional(),
});
/**
 * A point of an outline, metres. `bulge` makes an arc of the edge that leaves it: the tangent of a quarter of the arc's angle, as in DXF; positive
 * bends to the right of the way, so that an outline that runs counter-clockwise bulges outward.
 */
export type OutlinePoint = z.infer<typeof pointSchema>;

export const freeOutlineSchema = z
  .array(pointSchema)
  .min(2, 'must hold at least two points')
  .max(4000, 'must hold at most 4000 points');
/** A closed outline; the last point joins the first. Either way round. */
export type FreeOutline = z.infer<typeof freeOutlineSchema>;
