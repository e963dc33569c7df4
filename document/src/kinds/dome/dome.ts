/** Domes: a profile turned about an upright axis. */
import { z } from 'zod';
import { extent } from '../../figures.ts';
import { common } from '../common.ts';
import { oneLayer, type ElementKind } from '../kind.ts';

export const domeProfiles = ['segment', 'pointed', 'onion'] as const;

export const domeSchema = z
  .strictObject({
    ...common,
    kind: z.literal('dome'),
    span: extent,
    rise: extent,
    profile: z.enum(domeProfiles, `must be one of ${domeProfiles.join(', ')}`).optional(),
    crown: extent.optional(),
    drum: extent.optional(),
  })
  .superRefine(({ span, rise, profile, crown }, context) => {
    const issue = (field: string, message: string): void =>
      context.addIssue({ code: 'custom', path: [field], message });
    if (rise > 4 * span) issue('rise', 'must be at most four times the span');
    if (profile === 'pointed' && rise <= span / 2)
      issue('rise', 'must be more than half the span of a pointed dome: lower, its arcs would spring inward');
    if (profile === 'onion' && rise <= 0.8 * span)
      issue('rise', 'must be more than 0.8 of the span of an onion dome: lower, it has no room to turn inward and up');
    if (crown !== undefined && crown > 0.9 * span) issue('crown', 'must be at most 0.9 of the span');
  });
/**
 * A dome about an upright axis through `start`, which is the middle of its springing. Its soffit has a `span` across there and rises by `rise` (metres): a piece of a sphere unless its `profile` is pointed (an arc whose
 * centre is on the springing plane, beyond the axis) or onion (an arc that goes out first, then another that turns up to a point). A round `crown` opening so wide may be left in its middle, and it may stand on a `drum` so high.
 * Its outer face is its back; layers follow inward.
 */
export type Dome = z.infer<typeof domeSchema>;

export const domeKind: ElementKind<typeof domeSchema> = {
  schema: domeSchema,
  noun: 'dome',
  title: 'Dome',
  about: 'a turned profile over a circle',
  drawing: 'M6 28V22A18 17 0 0 1 42 22V28M6 22H42M12 28V23A12 12 0 0 1 36 23V28M21 6A3 1.5 0 0 1 27 6',
  form: ({ start, turn, span, rise, profile = 'segment', crown = 0, drum = 0 }) => ({
    form: 'shell',
    of: 'dome',
    start,
    turn,
    span,
    rise,
    profile,
    crown,
    drum,
  }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'dome',
    start: { ...fresh.start, x: fresh.start.x + 3 },
    span: 6,
    rise: 3,
    layers: oneLayer(0.25, material),
  }),
  faces: () => [{ name: 'outer', label: 'from above' }],
  apart: 10,
  figures: [
    { field: 'span', label: 'Span', holds: 'length', verb: 'widen' },
    { field: 'rise', label: 'Rise', holds: 'length', verb: 'raise' },
    { field: 'crown', label: 'Crown, wide', holds: 'length', verb: 'open the crown of', optional: true },
    { field: 'drum', label: 'Drum, high', holds: 'length', verb: 'raise the drum of', optional: true },
  ],
  choices: [
    {
      field: 'profile',
      label: 'Profile',
      verb: 'redraw',
      options: [
        { value: 'segment', label: 'round', drawing: 'M6 26A18 18 0 0 1 42 26' },
        { value: 'pointed', label: 'pointed', drawing: 'M8 26A26 26 0 0 1 24 4A26 26 0 0 1 40 26' },
        {
          value: 'onion',
          label: 'onion',
          drawing: 'M12 27C4 17 12 11 19 8C22 6.5 24 4 24 2C24 4 26 6.5 29 8C36 11 44 17 36 27',
        },
      ],
    },
  ],
};
