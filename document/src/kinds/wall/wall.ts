/** Walls: upright or leaning sheets that follow a course in plan. */
import { z } from 'zod';
import { degrees, extent, id, number, slant } from '../../figures.ts';
import { common } from '../common.ts';
import { bothFaces, oneLayer, type ElementKind } from '../kind.ts';

const share = number.min(0.001, 'must be from 0.001 to 0.999').max(0.999, 'must be from 0.001 to 0.999');

export const topSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('level') }),
    z.strictObject({ kind: z.literal('raked'), end: extent }),
    z.strictObject({ kind: z.literal('gabled'), apex: extent, at: share, end: extent.optional() }),
    z.strictObject({
      kind: z.literal('stepped'),
      steps: z
        .array(z.strictObject({ at: share, height: extent }))
        .min(1, 'must hold at least one step')
        .max(64, 'must hold at most 64 steps'),
    }),
    z.strictObject({ kind: z.literal('under'), roof: id }),
  ],
  { error: 'must say its kind: level, raked, gabled, stepped or under' },
);
/**
 * The top of a wall: level at the wall's height; raked from there to a height at its end; gabled to an apex height, and from there down to a height at its end, the wall's own
 * unless it is given; stepped, each step at a height of its own; or under a roof, whose underside it follows, and at the wall's height where that does not reach. Where along the wall an apex or a step is, `at` says as a share of the length, so that it follows the wall.
 */
export type Top = z.infer<typeof topSchema>;

const sweep = degrees;
export const runSchema = z.strictObject({ turn: degrees, length: extent, sweep: sweep.optional() });
/**
 * A further run of a wall: it leaves the one before by a turn (degrees, counter-clockwise), and is `length` metres long on the outer face. With a sweep it is an
 * arc that turns by so many degrees over its length, counter-clockwise where positive.
 */
export type Run = z.infer<typeof runSchema>;

export const endSchema = z.enum(['square', 'mitred', 'butted'], 'must be square, mitred or butted');
/** How a wall ends where another meets it: square as it stands, mitred with the wall at its corner, or butted against that wall's face. */
export type WallEnd = z.infer<typeof endSchema>;

export const wallSchema = z
  .strictObject({
    ...common,
    kind: z.literal('wall'),
    length: extent,
    height: extent,
    top: topSchema,
    sweep: sweep.optional(),
    runs: z.array(runSchema).max(200, 'must hold at most 200 runs').optional(),
    batter: slant(45).optional(),
    ends: z.strictObject({ start: endSchema, end: endSchema }).optional(),
  })
  .superRefine((wall, context) => {
    if (wall.batter && (wall.sweep || wall.runs?.length))
      context.addIssue({
        code: 'custom',
        path: ['batter'],
        message: 'must be 0 on a wall that is curved or bent: only straight walls can lean',
      });
    const total = (wall.sweep ?? 0) + (wall.runs ?? []).reduce((sum, run) => sum + (run.sweep ?? 0), 0);
    if (Math.abs(total) > 360)
      context.addIssue({
        code: 'custom',
        path: ['sweep'],
        message: 'must not turn the wall by more than 360 degrees in all',
      });
  });
/**
 * A wall. It runs from `start` (metres) in the direction `turn` (degrees, counter-clockwise from x in plan); its outer face is on the right of
 * that direction, and the layers follow inward from it. `length` is that of its first run, along the outer face, which is an arc where it has a `sweep`; further
 * runs follow. `height` is that of its start. A batter (degrees) leans it inward as it rises.
 */
export type Wall = z.infer<typeof wallSchema>;

/** All runs of a wall, its first one included. */
export function runsOf(wall: Wall): Run[] {
  return [{ turn: 0, length: wall.length, ...(wall.sweep ? { sweep: wall.sweep } : {}) }, ...(wall.runs ?? [])];
}

export const wallKind: ElementKind<typeof wallSchema> = {
  schema: wallSchema,
  noun: 'wall',
  title: 'Wall',
  about: 'straight, curved or bent in plan',
  drawing: 'M6 12V29L34 25V8ZM34 8L42 10V27L34 25M6 12L14 14L42 10M6 12V12',
  form: (wall) => ({
    form: 'course',
    start: wall.start,
    leaves: wall.turn,
    runs: runsOf(wall),
    height: wall.height,
    top: wall.top,
    batter: wall.batter,
    ends: wall.ends,
  }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'wall',
    length: 8,
    height: 3.5,
    top: { kind: 'level' },
    layers: oneLayer(0.4, material),
  }),
  faces: bothFaces('outer face', 'inner face'),
  apart: 3,
  figures: [],
  inPlan: true,
};
