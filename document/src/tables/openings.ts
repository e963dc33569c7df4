/** Openings: the placed instances of patterns. */
import { z } from 'zod';
import { coordinate, degrees, extent, id, name, number } from '../figures.ts';
import { overridesSchema } from '../overrides.ts';
import { row } from '../reading.ts';
import type { Fault } from '../refused.ts';
import { ringFrom, type Rings, type Way } from '../rings.ts';
import { facesOf, isManyFaced, kindOf } from '../kinds/index.ts';
import type { ProjectDocument } from '../schema.ts';
import { refer, type Reference, type Table } from './table.ts';

export const alongSchema = z.discriminatedUnion(
  'from',
  [
    z.strictObject({ from: z.literal('start'), distance: coordinate }),
    z.strictObject({ from: z.literal('middle'), distance: coordinate }),
    z.strictObject({ from: z.literal('end'), distance: coordinate }),
    z.strictObject({
      from: z.literal('fraction'),
      fraction: number.min(0, 'must be 0 to 1').max(1, 'must be 0 to 1'),
      distance: coordinate,
    }),
    z.strictObject({ from: z.literal('axis'), axis: id, distance: coordinate }),
    z.strictObject({
      from: z.literal('neighbour'),
      opening: id,
      edge: z.enum(['left', 'centre', 'right'], 'must be left, centre or right'),
      distance: coordinate,
    }),
    z.strictObject({ from: z.literal('between'), left: id.nullable(), right: id.nullable(), distance: coordinate }),
  ],
  { error: 'must say from where: start, middle, end, fraction, axis, neighbour or between' },
);
/**
 * Where along its element an opening's grip is: from its start, middle, end, from a fraction of its length, an axis, another opening's jamb or centre, or from half way between two openings (or, where
 * one is null, that end of the element). The distance (metres) runs towards the end of the element; from the end it runs back towards the start.
 */
export type Along = z.infer<typeof alongSchema>;

export const upSchema = z.discriminatedUnion(
  'from',
  [
    z.strictObject({ from: z.literal('base'), distance: coordinate }),
    z.strictObject({ from: z.literal('top'), distance: coordinate }),
    z.strictObject({ from: z.literal('datum'), datum: id, distance: coordinate }),
    z.strictObject({
      from: z.literal('neighbour'),
      opening: id,
      edge: z.enum(['sill', 'springing', 'head'], 'must be sill, springing or head'),
      distance: coordinate,
    }),
    z.strictObject({ from: z.literal('course'), distance: coordinate }),
  ],
  { error: 'must say from where: base, top, datum, neighbour or course' },
);
/**
 * How high an opening's grip is: the distance (metres) runs up from the base, a datum, or another opening's sill, springing line or head, and down from the top; from the base to the nearest course of the
 * outer face's masonry, where it has courses.
 */
export type Up = z.infer<typeof upSchema>;

export const gripSchema = z.strictObject({
  across: z.enum(['left', 'centre', 'right'], 'must be left, centre or right'),
  level: z.enum(['sill', 'middle', 'head', 'springing'], 'must be sill, middle, head or springing'),
});
/** The point of an opening that its intent places: one of nine on its bounding rectangle, or one on its springing line. */
export type Grip = z.infer<typeof gripSchema>;

export const openingSchema = z.strictObject({
  id,
  mark: name,
  element: id,
  face: id.optional(),
  pattern: id,
  size: id,
  along: alongSchema,
  up: upSchema,
  grip: gripSchema,
  blockedUp: z.boolean('must be true or false'),
  own: z.record(z.string(), extent).optional(),
  open: number.min(0, 'must be from 0 to 180 degrees').max(180, 'must be from 0 to 180 degrees').optional(),
  slid: number.min(0, 'must be from 0 to 1').max(1, 'must be from 0 to 1').optional(),
  overrides: overridesSchema.optional(),
  further: z.array(id).max(64, 'must hold at most 64 elements').optional(),
  planes: z.array(id).min(1, 'must hold at least one plane').max(400, 'must hold at most 400 planes').optional(),
  aim: z
    .strictObject({
      turn: degrees,
      rise: number.min(-80, 'must be from -80 to 80 degrees').max(80, 'must be from -80 to 80 degrees').optional(),
    })
    .optional(),
});
/**
 * One placed instance of a pattern's size, on a face of its element, its first where it says nothing; on the inner one it is set out as seen from inside, along from the end. With dimensions of its `own` (metres) it is a one-off. It cuts its own element, and `further` ones along its axis. Its leaves stand `open` by so many degrees, or have `slid` by a share of their way, where it says otherwise than its pattern; its `overrides` are what else it has otherwise. Set out on a roof from above it cuts all planes that it covers, or of them only those of `planes`. With an `aim` its outline is drawn on an upright plane and projected from
 * there: in the plan direction `turn` (degrees, counter-clockwise from x), rising by `rise`.
 */
export type Opening = z.infer<typeof openingSchema>;

function references({ element, pattern, further, overrides, along, up }: Opening): Reference[] {
  // Asked of all openings at each edit: nothing is made here but what is told.
  const found: Reference[] = [
    { at: 'element', table: 'elements', id: element },
    { at: 'pattern', table: 'patterns', id: pattern },
  ];
  further?.forEach((other, i) => found.push({ at: `further/${i}`, table: 'elements', id: other }));
  if (overrides?.materials)
    for (const [of, own] of Object.entries(overrides.materials))
      found.push(...refer(`overrides/materials/${of}`, 'materials', own));
  if (along.from === 'axis') found.push({ at: 'along/axis', table: 'axes', id: along.axis });
  else if (along.from === 'neighbour') found.push({ at: 'along/opening', table: 'openings', id: along.opening });
  else if (along.from === 'between')
    found.push(...refer('along/left', 'openings', along.left), ...refer('along/right', 'openings', along.right));
  if (up.from === 'datum') found.push({ at: 'up/datum', table: 'datums', id: up.datum });
  else if (up.from === 'neighbour') found.push({ at: 'up/opening', table: 'openings', id: up.opening });
  return found;
}

/** What an opening is measured from must be on its own element, and its size one of its pattern's. */
function faults(document: ProjectDocument, opening: Opening, rings: Rings): Fault[] {
  const { id, element, face, pattern: patternId, size, along, up } = opening;
  const found: Fault[] = [];
  const add = (at: string, reason: string): void => void found.push({ path: `openings/${id}/${at}`, reason });
  const on = row(document, 'elements', element);
  // A roof's planes come and go with its edges: what was on one that is gone is told of, and kept.
  if (on && face && !isManyFaced(on) && !facesOf(on).some(({ name }) => name === face))
    add(
      'face',
      `names the face "${face}", which a ${kindOf(on).noun} does not have: it has ${facesOf(on)
        .map(({ name }) => name)
        .join(' and ')}`,
    );
  const pattern = row(document, 'patterns', patternId);
  if (pattern && !Object.hasOwn(pattern.sizes, size))
    add('size', `names the size "${size}", which the pattern "${pattern.name}" does not have`);
  if (along.from === 'axis') {
    const axis = row(document, 'axes', along.axis);
    if (axis && axis.element !== element)
      add('along/axis', `names the axis "${axis.name}", which is on another element`);
  }
  for (const { at, table: to, id: other } of references(opening)) {
    const [way] = at.split('/') as [Way];
    if (to !== 'openings') continue;
    const neighbour = row(document, 'openings', other);
    if (neighbour && neighbour.element !== element)
      add(at, `names the opening "${neighbour.mark}", which is on another element`);
    const ring = ringFrom(document, opening, way, rings);
    if (ring)
      add(
        at,
        `cannot be measured from itself, ${ring.length === 0 ? (way === 'along' ? 'its own jamb' : 'its own level') : `by way of ${ring.join(', ')}`}`,
      );
  }
  if (up.from === 'datum') {
    const datum = row(document, 'datums', up.datum);
    if (datum && datum.element !== null && datum.element !== element)
      add('up/datum', `names the datum "${datum.name}", which is on another element`);
  }
  return found;
}

export const openings: Table<typeof openingSchema> = {
  schema: openingSchema,
  singular: 'opening',
  references,
  faults,
  leansOn: ['patterns', 'axes', 'datums', 'openings'],
};
