/** Imported meshes as fields and as parts: how they fit what they stand in, along each axis. */
import { z } from 'zod';
import { coordinate, id } from './figures.ts';

export const fitRules = ['keep', 'stretch', 'repeat'] as const;

export const fitSchema = z.strictObject({
  rule: z.enum(fitRules, `must be ${fitRules.join(', ')}`),
  /** What it is pinned to where it keeps its size. */
  at: z.enum(['start', 'middle', 'end'], 'must be start, middle or end'),
  /** How far from there, toward the end, metres. */
  off: coordinate.optional(),
});
/**
 * How a mesh fits along one axis. It keeps its size, and stands at the start, the middle or the end; it is stretched from start to end; or it is repeated as often as it has room, at
 * equal spacings.
 */
export type Fit = z.infer<typeof fitSchema>;

export const importedShape = {
  kind: z.literal('imported'),
  mesh: id,
  /** In the order of the mesh's own; the last goes on where they are fewer. */
  materials: z.array(id).min(1, 'must name at least one material').max(16, 'must name at most 16 materials'),
  /** From the left to the right. */
  across: fitSchema,
  /** From the front to the back. */
  through: fitSchema,
  /** From the foot to the head. */
  up: fitSchema,
};

/** A mesh from outside, and how it fits along each axis. */
export interface Imported {
  kind: 'imported';
  mesh: string;
  materials: string[];
  across: Fit;
  through: Fit;
  up: Fit;
}

/** All materials that it names, by their paths. */
export const importedMaterials = ({ materials }: Pick<Imported, 'materials'>): [path: string, material: string][] =>
  materials.map((material, i) => [`materials/${i}`, material]);
