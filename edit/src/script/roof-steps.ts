/** Steps about roofs: laid over walls or an outline, given a form, their edges changed. */
import { edgeLabels, edgesOfRoof, isInPlan, isManyFaced, kindOf, Refused, roofEdgeSchema } from '@yard-arch/document';
import { z } from 'zod';
import { changeEdge, edgeAs, giveForm, roofForms, roofOver, roofOverWalls } from '../roofs.ts';
import { vaultings, vaultOver } from '../vault-over.ts';
import { named, possible, step, type Finder } from './step.ts';

const metres = z.number('must be a number of metres');
const point = z.tuple([metres, metres], 'must be a point: [x, y] in metres');
const form = z.enum(roofForms, `must be one of ${roofForms.join(', ')}`);

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
      outline: z.array(point).min(3, 'must hold at least three points').max(500, 'must hold at most 500 points'),
      level: metres,
      form: form.optional(),
    }),
  ]),
  make: (document, asked, find) => {
    if ('outline' in asked) {
      const outline = asked.outline.map(([x, y]) => ({ x, y }));
      const { changeSet, id } = possible(roofOver(document, outline, asked.level, asked.form), 'outline');
      return { changeSet, made: [id] };
    }
    const wall = find.element(asked.wall, 'wall');
    if (!isInPlan(wall))
      throw new Refused(`${wall.name} is no wall`, [
        { path: 'wall', reason: `names "${asked.wall}", which is no wall` },
      ]);
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
    const labels = edgeLabels(roof);
    const own = edgesOfRoof(roof).find(
      ({ id }) => id === asked.edge || labels.get(id)?.toLowerCase() === asked.edge.toLowerCase(),
    );
    if (!own)
      throw new Refused(`${roof.name} has no such edge`, [
        { path: 'edge', reason: `names "${asked.edge}"; it has ${[...labels.values()].join(', ')}` },
      ]);
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

export const vault = step({
  about: 'Lays a vault over the room that a wall stands about, or over a slab: a barrel, a groin or a cloister vault.',
  schema: z.strictObject({
    element: named,
    as: z.enum(vaultings, `must be one of ${vaultings.join(', ')}`),
  }),
  make: (document, { element, as }, find) => {
    const { changeSet, id } = possible(vaultOver(document, find.element(element), as), 'element');
    return { changeSet, made: [id] };
  },
});
