/** Vaulted bays: severies over the sides of a bay, meeting along groins that run from its corners to its middle. */
import { z } from 'zod';
import { coordinate, extent, id } from '../../figures.ts';
import { common } from '../common.ts';
import { oneLayer, rectangle, type ElementKind } from '../kind.ts';
import { vaultChoice, vaultProfiles } from '../vault/vault.ts';

const corner = z.strictObject({ x: coordinate, y: coordinate });

const ribsSchema = z.strictObject({
  width: extent,
  depth: extent,
  material: id,
  sides: z.boolean('must be true or false').optional(),
});
/** Ribs under the groins of a bay: how wide, how far below them, and of what material; and half as wide along its sides, so that bays beside each other have a whole one between them. Metres. */
export type Ribs = z.infer<typeof ribsSchema>;

export const baySchema = z
  .strictObject({
    ...common,
    kind: z.literal('bay'),
    corners: z.array(corner).min(3, 'must hold at least three corners').max(12, 'must hold at most twelve corners'),
    rise: extent,
    profile: z.enum(vaultProfiles, `must be one of ${vaultProfiles.join(', ')}`).optional(),
    severies: z.enum(['groin', 'cloister'], 'must be groin or cloister').optional(),
    ribs: ribsSchema.optional(),
  })
  .superRefine(({ corners }, context) => {
    const convex = corners.every(({ x, y }, i) => {
      const [b, c] = [corners[(i + 1) % corners.length]!, corners[(i + 2) % corners.length]!];
      return (b.x - x) * (c.y - b.y) - (b.y - y) * (c.x - b.x) > 1e-6;
    });
    if (!convex)
      context.addIssue({
        code: 'custom',
        path: ['corners'],
        message: 'must go round counter-clockwise and bulge at every one of them',
      });
  });
/**
 * A vaulted bay over a convex polygon in plan, its springing at `start`. A severy stands over each side: a piece of a barrel whose axis runs from the side to the middle, so that the sides are open arches
 * (groin), or along the side, so that it springs from all of it (cloister). Its soffit rises by `rise` (metres) with the `profile` of a barrel, over each half side alike, so that neighbours meet above the lines from the corners to the middle.
 * Its layers are measured on its first side, square to that, and follow inward from its back.
 */
export type Bay = z.infer<typeof baySchema>;

export const bayKind: ElementKind<typeof baySchema> = {
  schema: baySchema,
  noun: 'vaulted bay',
  title: 'Vaulted bay',
  about: 'groin or cloister vault over a bay',
  drawing: 'M4 28V22A10 10 0 0 1 24 22V28M24 22A10 10 0 0 1 44 22V28M4 22L24 6L44 22M24 6V22',
  form: ({ start, turn, corners, rise, profile = 'segment', severies = 'groin', ribs }) => ({
    form: 'shell',
    of: 'bay',
    start,
    turn,
    corners,
    rise,
    profile,
    severies,
    ribs,
  }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'bay',
    corners: rectangle(4, 4),
    rise: 2,
    layers: oneLayer(0.2, material),
  }),
  faces: () => [{ name: 'outer', label: 'from above' }],
  apart: 8,
  figures: [{ field: 'rise', label: 'Rise', holds: 'length', verb: 'raise' }],
  choices: [
    {
      field: 'severies',
      label: 'Severies',
      verb: 'redraw',
      options: [
        { value: 'groin', label: 'groin vault', drawing: 'M4 3H44V27H4ZM4 3L44 27M44 3L4 27M16 27A8 8 0 0 1 32 27' },
        { value: 'cloister', label: 'cloister vault', drawing: 'M4 3H44V27H4ZM4 3L44 27M44 3L4 27M12 22H36M18 18H30' },
      ],
    },
    vaultChoice,
  ],
};
