/** Barrel vaults: curved sheets that lie over a span. */
import { z } from 'zod';
import { extent } from '../../figures.ts';
import { common } from '../common.ts';
import { bothFaces, oneLayer, type ElementKind } from '../kind.ts';

export const vaultSchema = z
  .strictObject({ ...common, kind: z.literal('vault'), span: extent, rise: extent, length: extent })
  .superRefine(({ span, rise }, context) => {
    if (rise > 4 * span)
      context.addIssue({ code: 'custom', path: ['rise'], message: 'must be at most four times the span' });
  });
/**
 * A barrel vault. Its soffit springs from `start` (metres) and comes down again a `span` away in the direction `turn` (degrees), an arc of a circle that rises by `rise`; it runs on for its
 * `length` to the left of that, as seen from above. Its outer face is its back (the extrados), and the layers follow inward; its sheet shows that face unrolled, from the first springing to the other.
 */
export type Vault = z.infer<typeof vaultSchema>;

export const vaultKind: ElementKind<typeof vaultSchema> = {
  schema: vaultSchema,
  noun: 'vault',
  title: 'Vault',
  about: 'a barrel over a span',
  drawing:
    'M5 28V24A10 14 0 0 1 25 24V28M25 28L44 22V18A10 14 0 0 0 34 4.5L15 10M9 28V25A6 10 0 0 1 21 25V28M5 28H9M21 28H25',
  form: ({ start, turn, span, rise, length, layers }) => {
    // Half of the angle over the span, from tan(φ/2) = rise / (span/2).
    const half = 2 * Math.atan((2 * rise) / span);
    const thickness = layers.reduce((sum, layer) => sum + layer.thickness, 0);
    const [sin, cos] = [Math.sin(half), Math.cos(half)];
    const radius = span / 2 / sin + thickness;
    const radians = (turn * Math.PI) / 180;
    // The back's first corner is out from the springing, square to the soffit there.
    const out = -thickness * sin;
    return {
      form: 'course',
      start: {
        x: start.x + out * Math.cos(radians),
        y: start.y + out * Math.sin(radians),
        z: start.z + thickness * cos,
      },
      leaves: (-half * 180) / Math.PI,
      runs: [{ turn: 0, length: 2 * half * radius, sweep: (2 * half * 180) / Math.PI }],
      height: length,
      top: { kind: 'level' },
      lies: { turn },
    };
  },
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'vault',
    span: 5,
    rise: 2.5,
    length: 8,
    layers: oneLayer(0.3, material),
  }),
  faces: bothFaces('back', 'soffit'),
  apart: 10,
  figures: [
    { field: 'span', label: 'Span', holds: 'length', verb: 'widen' },
    { field: 'rise', label: 'Rise', holds: 'length', verb: 'raise' },
    { field: 'length', label: 'Length', holds: 'length', verb: 'lengthen' },
  ],
};
