/** Steps about roofs: laid over walls or an outline, given a form, their edges changed. */
import {
  edgeLabels,
  edgesOfRoof,
  isInPlan,
  isManyFaced,
  kindOf,
  Refused,
  roofEdgeSchema,
  type Roof,
  type RoofEdge,
} from '@yard-arch/document';
import { z } from 'zod';
import { changeEdge, edgeAs, giveForm, roofForms, roofOver, roofOverWalls } from '../roofs.ts';
import { bendOutlineEdge, lengthenOutlineEdge, moveOutlineEdge, openCourt, openCourtAlong } from '../roof-outline.ts';
import { vaultBetween, vaultings, vaultOver } from '../vault-over.ts';
import { named, possible, step, type Finder } from './step.ts';

const metres = z.number('must be a number of metres');
const point = z.tuple([metres, metres], 'must be a point: [x, y] in metres');
const form = z.enum(roofForms, `must be one of ${roofForms.join(', ')}`);

const outline = z.array(point).min(3, 'must hold at least three points').max(500, 'must hold at most 500 points');
const points = (list: readonly (readonly [number, number])[]) => list.map(([x, y]) => ({ x, y }));

/** @throws Refused where an element is no wall. */
function wallNamed(find: Finder, name: string, path: string) {
  const wall = find.element(name, path);
  if (!isInPlan(wall))
    throw new Refused(`${wall.name} is no wall`, [{ path, reason: `names "${name}", which is no wall` }]);
  return wall;
}

/** @throws Refused where a roof has no such edge. */
function edgeNamed(roof: Roof, name: string): RoofEdge {
  const labels = edgeLabels(roof);
  const own = edgesOfRoof(roof).find(({ id }) => id === name || labels.get(id)?.toLowerCase() === name.toLowerCase());
  if (!own)
    throw new Refused(`${roof.name} has no such edge`, [
      { path: 'edge', reason: `names "${name}"; it has ${[...labels.values()].join(', ')}` },
    ]);
  return own;
}

/** @throws Refused where an element is no roof. */
function roofNamed(find: Finder, name: string) {
  const element = find.element(name);
  if (!isManyFaced(element))
    throw new Refused(`${element.name} is no roof`, [
      { path: 'element', reason: `names "${name}", which is a ${kindOf(element).noun} and no roof` },
    ]);
  return element;
}

export const lay = step({
  about:
    'Lays a roof: over the ring of walls that one is part of, or over an outline of points in plan at a level in metres; hipped unless a form is named.',
  schema: z.union([
    z.strictObject({ wall: named, form: form.optional() }),
    z.strictObject({
      outline,
      level: metres,
      form: form.optional(),
    }),
  ]),
  make: (document, asked, find) => {
    if ('outline' in asked) {
      const { changeSet, id } = possible(roofOver(document, points(asked.outline), asked.level, asked.form), 'outline');
      return { changeSet, made: [id] };
    }
    const wall = wallNamed(find, asked.wall, 'wall');
    const { changeSet, id } = possible(roofOverWalls(document, wall, asked.form), 'wall');
    return { changeSet, made: [id] };
  },
});

export const give = step({
  about: 'Gives a roof a form, by what its edges are.',
  schema: z.strictObject({ element: named, form }),
  make: (_, { element, form: to }, find) => ({ changeSet: giveForm(roofNamed(find, element), to) }),
});

const figures = ['pitch', 'over', 'lift', 'second', 'hip', 'facets'] as const;
const kinds = roofEdgeSchema.options.map(({ shape }) => shape.is.value);

export const edge = step({
  about:
    'Changes an edge of a roof, named by its id or as it is called (“South edge”): what it is, and its pitch (degrees), overhang, lift, second pitch or half-hip.',
  schema: z.strictObject({
    element: named,
    edge: named,
    is: z.enum(kinds as [string, ...string[]], `must be one of ${kinds.join(', ')}`).optional(),
    ...Object.fromEntries(figures.map((name) => [name, z.unknown().optional()])),
  }),
  make: (_, asked, find) => {
    const roof = roofNamed(find, asked.element);
    const own = edgeNamed(roof, asked.edge);
    const base = asked.is && asked.is !== own.is ? edgeAs(roof, own, asked.is as typeof own.is) : own;
    const given = Object.fromEntries(
      figures.flatMap((name) => {
        const value = (asked as Record<string, unknown>)[name];
        return value === undefined ? [] : [[name, value]];
      }),
    );
    const made = roofEdgeSchema.safeParse({ ...base, ...given });
    if (!made.success)
      throw new Refused(
        `The edge cannot be so`,
        made.error.issues.map(({ path, message }) => ({ path: path.join('/'), reason: message })),
      );
    return { changeSet: changeEdge(roof, own.id, made.data, 'change an edge of') };
  },
});

export const court = step({
  about: 'Opens a courtyard in a roof: along the ring of walls that one is part of, or an outline of points in plan.',
  schema: z.union([z.strictObject({ element: named, wall: named }), z.strictObject({ element: named, outline })]),
  make: (document, asked, find) => {
    const roof = roofNamed(find, asked.element);
    return {
      changeSet:
        'wall' in asked
          ? possible(openCourtAlong(document, roof, wallNamed(find, asked.wall, 'wall')), 'wall')
          : possible(openCourt(roof, points(asked.outline)), 'outline'),
    };
  },
});

export const redraw = step({
  about:
    'Draws an edge of a roof anew in plan: moved out by so much (metres, in where it is less than nothing), made so long (the edge that goes on from it moves), or bent to turn by so many degrees.',
  schema: z.union([
    z.strictObject({ element: named, edge: named, by: metres }),
    z.strictObject({ element: named, edge: named, length: metres.positive('must be more than 0') }),
    z.strictObject({ element: named, edge: named, curve: z.number('must be a number of degrees') }),
  ]),
  make: (_, asked, find) => {
    const roof = roofNamed(find, asked.element);
    const { id } = edgeNamed(roof, asked.edge);
    if ('by' in asked) return { changeSet: possible(moveOutlineEdge(roof, id, asked.by), 'by') };
    if ('length' in asked) return { changeSet: possible(lengthenOutlineEdge(roof, id, asked.length), 'length') };
    return { changeSet: possible(bendOutlineEdge(roof, id, asked.curve), 'curve') };
  },
});

export const vault = step({
  about:
    'Lays a vault over the room that a wall stands about, or over a slab: a barrel, a groin or a cloister vault; or a barrel from a wall to another alongside it.',
  schema: z.union([
    z.strictObject({
      element: named,
      as: z.enum(vaultings, `must be one of ${vaultings.join(', ')}`),
    }),
    z.strictObject({ element: named, to: named }),
  ]),
  make: (document, asked, find) => {
    const { changeSet, id } =
      'as' in asked
        ? possible(vaultOver(document, find.element(asked.element), asked.as), 'element')
        : possible(
            vaultBetween(document, wallNamed(find, asked.element, 'element'), wallNamed(find, asked.to, 'to')),
            'to',
          );
    return { changeSet, made: [id] };
  },
});
