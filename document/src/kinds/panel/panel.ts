/** Panels: free outlines in any plane. */
import { z } from 'zod';
import { degrees } from '../../figures.ts';
import { common } from '../common.ts';
import { bothFaces, oneLayer, rectangle, type ElementKind } from '../kind.ts';
import { outlined } from '../outlined.ts';

export const panelSchema = z.strictObject({ ...common, ...outlined, kind: z.literal('panel'), tilt: degrees });
/**
 * A free panel: any closed outline, with holes, in a plane through `start`. Its s axis runs level in the direction `turn`; its t axis rises at `tilt` (degrees, 90 is
 * upright). The layers follow inward from the face that is seen with s to the right and t up.
 */
export type Panel = z.infer<typeof panelSchema>;

export const panelKind: ElementKind<typeof panelSchema> = {
  schema: panelSchema,
  noun: 'panel',
  title: 'Panel',
  about: 'any outline, at any tilt',
  drawing: 'M8 27L12 9L30 4L41 12L36 28L20 22Z',
  form: ({ start, turn, tilt, outline, holes }) => ({ form: 'plate', start, turn, tilt, outline, holes }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'panel',
    tilt: 90,
    outline: rectangle(4, 3),
    layers: oneLayer(0.2, material),
  }),
  faces: bothFaces('outer face', 'inner face'),
  apart: 3,
  figures: [{ field: 'tilt', label: 'Tilt', holds: 'angle', verb: 'tilt' }],
};
