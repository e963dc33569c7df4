/** Steps about elements, patterns and single rows: walls drawn and moved, split and joined; anything changed or put. */
import {
  changeSetSchema,
  isInPlan,
  kindOf,
  putting,
  Refused,
  row,
  tableNames,
  type ChangeSet,
  type Row,
  type TableName,
} from '@yard-arch/document';
import { z } from 'zod';
import { removeElement } from '../elements.ts';
import { edit } from '../make.ts';
import { resize } from '../patterns.ts';
import { splitElement } from '../splits.ts';
import { bend, drawWall, join, likeOf, moveElements, reverse, split } from '../walls.ts';
import { named, possible, step, type Finder } from './step.ts';

const metres = z.number('must be a number of metres');
const point = z.tuple([metres, metres], 'must be a point: [x, y] in metres');

/** @throws Refused where an element is no wall. */
function wallOf(find: Finder, name: string) {
  const element = find.element(name);
  if (!isInPlan(element))
    throw new Refused(`${element.name} is no wall`, [
      { path: 'element', reason: `names "${name}", which is a ${kindOf(element).noun} and no wall` },
    ]);
  return element;
}

export const draw = step({
  about:
    'Draws a wall between two points in plan, an arc where it has a sweep in degrees, like another wall or the last one.',
  schema: z.strictObject({
    from: point,
    to: point,
    sweep: z.number('must be a number of degrees').optional(),
    like: named.optional(),
  }),
  make: (document, { from, to, sweep = 0, like }, find) => {
    const { changeSet, id } = drawWall(
      document,
      { from, to, sweep },
      likeOf(document, like === undefined ? null : wallOf(find, like).id),
    );
    return { changeSet, made: [id] };
  },
});

export const moveInPlan = step({
  about: 'Moves elements in plan by [x, y] metres; walls that meet them follow.',
  schema: z.strictObject({ elements: z.array(named).min(1, 'must name at least one element'), by: point }),
  make: (document, { elements, by: [x, y] }, find) => ({
    changeSet: possible(
      moveElements(
        document,
        elements.map((name, i) => find.element(name, `elements/${i}`)),
        x,
        y,
      ),
    ),
  }),
});

export const splitWall = step({
  about: 'Splits a wall at a distance along it, metres; what is on it keeps its place.',
  schema: z.strictObject({ element: named, at: metres }),
  make: (document, { element, at }, find) => {
    const { changeSet, id } = possible(split(document, wallOf(find, element), at), 'at');
    return { changeSet, made: [id] };
  },
});

const keep = z.enum(['this', 'other', 'both'], 'must be this, other or both').optional();

export const splitAlong = step({
  about:
    'Splits an element along a path of points in plan, of which the left side is kept, or by a plane through “at”, of which the side is kept that its normal points to (its plan direction “turn” and its rise “tilt”, degrees); “keep” the other side, or both as two elements. Where it was cut it shows its layers, or a material.',
  schema: z.union([
    z.strictObject({
      element: named,
      path: z.array(point).min(2, 'must hold at least two points').max(100, 'must hold at most 100 points'),
      keep,
      material: named.optional(),
    }),
    z.strictObject({
      element: named,
      at: z.tuple([metres, metres, metres], 'must be a point: [x, y, z] in metres'),
      turn: z.number('must be a number of degrees'),
      tilt: z.number('must be a number of degrees'),
      keep,
      material: named.optional(),
    }),
  ]),
  make: (document, asked, find) => {
    const lies =
      'path' in asked
        ? { path: asked.path.map(([x, y]) => ({ x, y })) }
        : { at: { x: asked.at[0], y: asked.at[1], z: asked.at[2] }, turn: asked.turn, tilt: asked.tilt };
    const split = { ...lies, ...(asked.material ? { material: asked.material } : {}) };
    const { changeSet, id } = possible(
      splitElement(document, find.element(asked.element), split, asked.keep ?? 'this'),
      'path',
    );
    return { changeSet, made: id ? [id] : [] };
  },
});

export const joinWalls = step({
  about: 'Joins a wall with the one that begins where it ends.',
  schema: z.strictObject({ element: named }),
  make: (document, { element }, find) => ({ changeSet: possible(join(document, wallOf(find, element)), 'element') }),
});

export const bendWall = step({
  about: 'Bends a wall to a sweep in degrees, its ends where they are; 0 straightens it.',
  schema: z.strictObject({ element: named, sweep: z.number('must be a number of degrees') }),
  make: (_, { element, sweep }, find) => ({ changeSet: possible(bend(wallOf(find, element), sweep), 'sweep') }),
});

export const reverseWall = step({
  about: 'Changes a wall’s faces over; what is on it stays where it is.',
  schema: z.strictObject({ element: named }),
  make: (document, { element }, find) => ({ changeSet: possible(reverse(document, wallOf(find, element)), 'element') }),
});

export const removeWhole = step({
  about: 'Removes an element with all that is on it.',
  schema: z.strictObject({ element: named }),
  make: (document, { element }, find) => ({ changeSet: removeElement(document, find.element(element)) }),
});

export const resizePattern = step({
  about: 'Gives a size of a pattern other dimensions in metres; all its openings follow.',
  schema: z.strictObject({ pattern: named, size: named.optional(), dimensions: z.record(z.string(), metres) }),
  make: (document, { pattern, size, dimensions }, find) => {
    const of = find.pattern(pattern);
    const one = of.sizes[find.size(of, size)]!;
    return { changeSet: possible(resize(document, of, one, { ...one.dimensions, ...dimensions }), 'dimensions') };
  },
});

/** What a row is called where a person reads it. */
function calledOf(value: Row<TableName>): string {
  return 'mark' in value ? value.mark : value.name;
}

export const change = step({
  about: 'Changes some fields of a row of any table; a field of null is taken out.',
  schema: z.strictObject({
    table: z.enum(tableNames as [TableName, ...TableName[]], `must be one of ${tableNames.join(', ')}`),
    id: named,
    with: z.record(z.string(), z.unknown(), 'must hold the fields to change'),
  }),
  make: (document, { table, id, with: fields }) => {
    const value = row(document, table, id);
    if (!value)
      throw new Refused(`${table}/${id} does not exist`, [
        { path: 'id', reason: `names "${id}", which ${table} does not have` },
      ]);
    const next: Record<string, unknown> = { ...value, ...fields };
    for (const [key, given] of Object.entries(fields)) if (given === null) Reflect.deleteProperty(next, key);
    return { changeSet: edit(`change ${calledOf(value)}`, putting(table, next as Row<TableName>)) };
  },
});

export const changes = step({
  about: 'Makes changes as they stand in a change set: puts, removals and settings.',
  schema: z.strictObject({ changes: changeSetSchema.shape.changes }),
  make: (_, { changes: all }) => ({
    changeSet: { name: `make ${all.length} change${all.length === 1 ? '' : 's'}`, changes: all } satisfies ChangeSet,
  }),
});
