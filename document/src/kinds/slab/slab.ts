/** Slabs: free outlines that lie level. */
import { z } from 'zod';
import { common } from '../common.ts';
import { bothFaces, oneLayer, rectangle, type ElementKind } from '../kind.ts';
import { outlined } from '../outlined.ts';

export const slabSchema = z.strictObject({ ...common, ...outlined, kind: z.literal('slab') });
/** A slab: a level panel whose outer face is its top, so that its openings are set out as seen from above. */
export type Slab = z.infer<typeof slabSchema>;

export const slabKind: ElementKind<typeof slabSchema> = {
  schema: slabSchema,
  noun: 'slab',
  title: 'Slab',
  about: 'any outline, level',
  drawing: 'M4 20L24 10L44 18L24 28ZM4 20V23L24 31L44 21V18M24 28V31',
  form: ({ start, turn, outline, holes }) => ({ form: 'plate', start, turn, tilt: 0, outline, holes }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'slab',
    outline: rectangle(6, 4),
    layers: oneLayer(0.25, material),
  }),
  faces: bothFaces('top', 'underside'),
  apart: 8,
  figures: [],
};
