/** Steps about openings: placed, moved, spread, lined up, copied, sized, blocked up and removed. */
import { alignments, type Spacing } from '@yard-arch/core';
import { alongSchema, gripSchema, newId, openingSchema, putting, upSchema, type Opening } from '@yard-arch/document';
import { z } from 'zod';
import { copyBy, copyTo, fillFace, mirrorAll } from '../copies.ts';
import { edit } from '../make.ts';
import { alignAll, blockAll, moveAll, removeAll, spreadAll } from '../many.ts';
import { changeOwn, changePatternOf, changeSizeOf } from '../opening.ts';
import { named, possible, step } from './step.ts';

const metres = z.number('must be a number of metres');
const some = z.array(named).min(1, 'must name at least one opening').max(10_000, 'must name at most 10,000 openings');
const margins = z
  .strictObject(
    { start: metres.nullable(), end: metres.nullable() },
    'must say start and end: metres, or null for as much as a pier',
  )
  .optional();
const evenly = { start: null, end: null };
const spacing = z
  .discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('equal piers') }),
    z.strictObject({ kind: z.literal('equal centres') }),
    z.strictObject({ kind: z.literal('given pier'), pier: metres }),
  ])
  .optional();
const faceSchema = openingSchema.shape.face.unwrap();
const piers: Spacing = { kind: 'equal piers' };

export const place = step({
  about:
    'Places an opening of a pattern: along and up are distances in metres from the start and the base, or say from where; on the inner face as they are seen from within.',
  schema: z.strictObject({
    element: named,
    pattern: named,
    size: named.optional(),
    along: z.union([metres, alongSchema]),
    up: z.union([metres, upSchema]),
    grip: gripSchema.optional(),
    face: faceSchema.optional(),
    mark: named.optional(),
    id: named.optional(),
  }),
  together: true,
  make: (_, { element, pattern, size, along, up, grip, face, mark, id }, find) => {
    const of = find.pattern(pattern);
    const opening: Opening = {
      id: id ?? newId('o'),
      mark: find.mark(of, mark),
      element: find.element(element).id,
      ...(face && face !== 'outer' ? { face } : {}),
      pattern: of.id,
      size: find.size(of, size),
      along: typeof along === 'number' ? { from: 'start', distance: along } : along,
      up: typeof up === 'number' ? { from: 'base', distance: up } : up,
      grip: grip ?? { across: 'centre', level: 'sill' },
      blockedUp: false,
    };
    return { changeSet: edit(`place ${opening.mark}`, putting('openings', opening)), made: [opening.id] };
  },
});

export const fill = step({
  about:
    'Fills a face with openings in columns and rows; each row is a height of sills above the base in metres, or the datum that they stand on.',
  schema: z.strictObject({
    element: named,
    pattern: named,
    size: named.optional(),
    face: faceSchema.optional(),
    columns: z.int('must be a whole number').min(1, 'must be at least 1').max(5000, 'must be at most 5,000'),
    rows: z
      .array(z.union([metres, z.strictObject({ datum: named })]))
      .min(1, 'must hold at least one row')
      .max(500, 'must hold at most 500 rows'),
    spacing,
    margins,
  }),
  make: (document, { element, pattern, size, columns, rows, ...wish }, find) => {
    const of = find.pattern(pattern);
    const made = possible(
      fillFace(document, find.element(element), {
        pattern: of.id,
        size: find.size(of, size),
        face: wish.face,
        columns,
        spacing: wish.spacing ?? piers,
        margins: wish.margins ?? evenly,
        rows: rows.map((row) => (typeof row === 'number' ? { base: row } : row)),
      }),
    );
    return { changeSet: made.changeSet, made: made.ids };
  },
});

export const spread = step({
  about: 'Spreads openings along their face, over all of it or between the outermost.',
  schema: z.strictObject({
    openings: some,
    spacing,
    over: z.enum(['face', 'outermost'], 'must be face or outermost').optional(),
    margins,
  }),
  make: (document, { openings, over, ...wish }, find) => ({
    changeSet: possible(
      spreadAll(document, find.openings(openings), {
        spacing: wish.spacing ?? piers,
        over: over ?? 'face',
        margins: wish.margins ?? evenly,
      }),
    ),
  }),
});

export const move = step({
  about: 'Moves openings along and up, by metres.',
  schema: z.strictObject({ openings: some, along: metres.optional(), up: metres.optional() }),
  make: (document, { openings, along = 0, up = 0 }, find) => ({
    changeSet: moveAll(document, find.openings(openings), { ds: along, dt: up }),
  }),
});

export const align = step({
  about: 'Brings openings into line at a height or a distance along, metres.',
  schema: z.strictObject({
    openings: some,
    by: z.enum(
      alignments as [(typeof alignments)[number], ...(typeof alignments)[number][]],
      `must be one of ${alignments.join(', ')}`,
    ),
    at: metres,
  }),
  make: (document, { openings, by, at }, find) => ({ changeSet: alignAll(document, find.openings(openings), by, at) }),
});

export const copy = step({
  about:
    'Copies openings so many times, each by a way in metres from the one before; or to other elements, with the intent that they have.',
  schema: z.strictObject({
    openings: some,
    along: metres.optional(),
    up: metres.optional(),
    times: z.int('must be a whole number').min(1, 'must be at least 1').max(5000, 'must be at most 5,000').optional(),
    to: z.array(named).min(1, 'must name at least one element').optional(),
  }),
  make: (document, { openings, along = 0, up = 0, times = 1, to }, find) => {
    const all = find.openings(openings);
    const made = to
      ? copyTo(document, all, { elements: to.map((name, i) => find.element(name, `to/${i}`).id), datums: new Map() })
      : copyBy(document, all, { ds: along, dt: up, times });
    return { changeSet: made.changeSet, made: made.ids };
  },
});

export const mirror = step({
  about: 'Mirrors openings about an upright line, metres along: themselves, or copies of them.',
  schema: z.strictObject({ openings: some, at: metres, copies: z.boolean('must be true or false').optional() }),
  make: (document, { openings, at, copies }, find) => {
    const made = mirrorAll(document, find.openings(openings), at, copies ? 'linked' : null);
    return { changeSet: made.changeSet, made: copies ? made.ids : [] };
  },
});

export const size = step({
  about: 'Gives an opening another pattern, another size of its pattern, or dimensions of its own in metres.',
  schema: z.strictObject({
    opening: named,
    pattern: named.optional(),
    size: named.optional(),
    own: z.record(z.string(), metres).optional(),
  }),
  make: (document, { opening, pattern, size: wanted, own }, find) => {
    const one = find.opening(opening);
    if (pattern !== undefined) return { changeSet: changePatternOf(document, one, find.pattern(pattern).id).changeSet };
    const of = find.pattern(one.pattern);
    if (own)
      return {
        changeSet: possible(
          changeOwn(document, one, { ...(one.own ?? of.sizes[one.size]!.dimensions), ...own }),
          'own',
        ),
      };
    return { changeSet: changeSizeOf(one, of, find.size(of, wanted), document) };
  },
});

export const blockUp = step({
  about: 'Blocks openings up: they are kept, and not cut.',
  schema: z.strictObject({ openings: some }),
  make: (_, { openings }, find) => ({
    changeSet: blockAll(find.openings(openings).map((opening) => ({ ...opening, blockedUp: false }))),
  }),
});

export const openUp = step({
  about: 'Opens openings up that are blocked up.',
  schema: z.strictObject({ openings: some }),
  make: (_, { openings }, find) => ({
    changeSet: blockAll(find.openings(openings).map((opening) => ({ ...opening, blockedUp: true }))),
  }),
});

export const takeAway = step({
  about: 'Removes openings; what was measured from them stays where it stands.',
  schema: z.strictObject({ openings: some }),
  make: (document, { openings }, find) => ({ changeSet: removeAll(document, find.openings(openings)) }),
});
