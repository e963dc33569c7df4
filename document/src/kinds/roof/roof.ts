/** Roofs: planes that rise from the edges of an outline in plan. */
import { z } from 'zod';
import { coordinate, extent, id, number } from '../../figures.ts';
import { common } from '../common.ts';
import { oneLayer, type ElementKind, type FaceOf } from '../kind.ts';

const pitch = number.min(0.5, 'must be from 0.5 to 85 degrees').max(85, 'must be from 0.5 to 85 degrees');
const eitherWay = number
  .min(-85, 'must be from 0.5 to 85 degrees either way')
  .max(85, 'must be from 0.5 to 85 degrees either way')
  .refine((degrees) => Math.abs(degrees) >= 0.5, 'must be from 0.5 to 85 degrees either way');
const overhang = number.min(0, 'must be from 0 to 20 m').max(20, 'must be from 0 to 20 m');

const point = {
  id,
  x: coordinate,
  y: coordinate,
  bulge: number.min(-20, 'must be from -20 to 20').max(20, 'must be from -20 to 20').optional(),
  facets: z.int('must be a whole number').min(1, 'must be from 1 to 96').max(96, 'must be from 1 to 96').optional(),
};

export const roofEdgeSchema = z.discriminatedUnion(
  'is',
  [
    z.strictObject({
      ...point,
      is: z.literal('eaves'),
      pitch: eitherWay,
      over: overhang,
      lift: coordinate.optional(),
      second: z.strictObject({ from: extent, pitch }).optional(),
    }),
    z.strictObject({
      ...point,
      is: z.literal('verge'),
      over: overhang,
      hip: z.strictObject({ from: extent, pitch }).optional(),
    }),
    z.strictObject({ ...point, is: z.literal('abutment') }),
  ],
  { error: 'must say what it is: eaves, verge or abutment' },
);
/**
 * An edge of a roof's outline, from its point (metres, from the roof's start) to the next one's; with a bulge an arc, in so many `facets`. *Eaves* have a plane that rises at a `pitch` (degrees), or falls from
 * them where that is below nothing; from a height on one that rises does so at a `second` one; they may be lifted above the roof's level. A *verge* ends the planes beside it, as a gable does; a half-hip begins on it at a height. At an *abutment* they run against a wall. Both it
 * and the eaves reach `over` the outline, metres in plan. Heights are above the roof's level.
 */
export type RoofEdge = z.infer<typeof roofEdgeSchema>;

const loop = z.array(roofEdgeSchema).min(2, 'must hold at least two edges').max(500, 'must hold at most 500 edges');

const board = z.strictObject({ height: extent, thickness: extent, material: id });

export const trimsSchema = z.strictObject({
  fascia: board.optional(),
  barge: board.optional(),
  cap: z.strictObject({ width: extent, thickness: extent, material: id }).optional(),
  verge: z.strictObject({ width: extent, thickness: extent, material: id }).optional(),
});
/** What a roof's edges are trimmed with: boards before its eaves (fascia) and its verges (barge), so high from the top of the roof down, caps so wide to either side of its ridges and hips, and trim that lies so wide on the roof along its verges. Metres. */
export type Trims = z.infer<typeof trimsSchema>;

export const roofSchema = z
  .strictObject({
    ...common,
    kind: z.literal('roof'),
    edges: loop,
    courts: z.array(loop).max(50, 'must hold at most 50 courts').optional(),
    trims: trimsSchema.optional(),
    ends: z.enum(['plumb', 'square', 'level'], 'must be plumb, square or level').optional(),
  })
  .superRefine(({ edges, courts }, context) => {
    const seen = new Set<string>();
    [edges, ...(courts ?? [])].forEach((list, i) =>
      list.forEach((edge, k) => {
        if (seen.has(edge.id))
          context.addIssue({
            code: 'custom',
            path: [...(i === 0 ? ['edges'] : ['courts', i - 1]), k, 'id'],
            message: `must not be "${edge.id}" again: each edge has an id of its own`,
          });
        seen.add(edge.id);
        if (edge.is === 'eaves' && edge.pitch < 0 && edge.second)
          context.addIssue({
            code: 'custom',
            path: [...(i === 0 ? ['edges'] : ['courts', i - 1]), k, 'second'],
            message: 'must not be said of a plane that falls from its edge',
          });
      }),
    );
  });
/**
 * A roof over an outline in plan, with courts in it. The undersides of its planes pass over the edges at the level of `start` (metres), so that it lies on walls of that height whatever its layers; they follow from
 * the outer face inward. It is turned about its start (degrees). Its eaves end plumb, square to their slope, or plumb
 * with a level soffit from there back to the drawn edge.
 */
export type Roof = z.infer<typeof roofSchema>;

/** The edges of a roof, its courts' included. */
export const edgesOfRoof = ({ edges, courts }: Pick<Roof, 'edges' | 'courts'>): RoofEdge[] => [
  ...edges,
  ...(courts ?? []).flat(),
];

/** The planes that an edge has, by their names: one, another above it, one for each facet of an arc, or none. */
export function planesOfEdge(edge: RoofEdge): string[] {
  if (edge.is === 'abutment' || (edge.is === 'verge' && !edge.hip)) return [];
  const facets = edge.bulge ? Array.from({ length: facetsOf(edge) }, (_, i) => `${edge.id}-${i + 1}`) : [edge.id];
  return edge.is === 'eaves' && edge.second ? facets.flatMap((name) => [name, `${name}-upper`]) : facets;
}

/** Into how many facets an edge is divided: 24 a full circle, unless it says how many. */
export function facetsOf({ bulge, facets }: RoofEdge): number {
  if (!bulge) return 1;
  return facets ?? Math.max(2, Math.round((24 * 4 * Math.atan(Math.abs(bulge))) / (2 * Math.PI)));
}

const compass = ['East', 'North-east', 'North', 'North-west', 'West', 'South-west', 'South', 'South-east'];

/** What each edge of a roof is called, by where it looks: as in “South edge”, “South edge 2”. @param what what it is a name of */
export function edgeLabels(
  { edges, courts, turn }: Pick<Roof, 'edges' | 'courts' | 'turn'>,
  what = 'edge',
): Map<string, string> {
  const labels = new Map<string, string>();
  const counts = new Map<string, number>();
  for (const list of [edges, ...(courts ?? [])]) {
    const area = list.reduce((sum, a, i) => {
      const b = list[(i + 1) % list.length]!;
      return sum + a.x * b.y - a.y * b.x;
    }, 0);
    // Outward is to the right of an outline that runs counter-clockwise, and of a court the other way.
    const way = area > 0 === (list === edges) ? -90 : 90;
    list.forEach((a, i) => {
      const b = list[(i + 1) % list.length]!;
      const looks = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI + way + turn;
      const called = `${compass[((Math.round(looks / 45) % 8) + 8) % 8]!} ${what}`;
      const nth = (counts.get(called) ?? 0) + 1;
      counts.set(called, nth);
      labels.set(a.id, nth > 1 ? `${called} ${nth}` : called);
    });
  }
  return labels;
}

/** The faces of a roof: itself as it is seen from above, then its planes, called by where they look. */
function faces(roof: Roof): FaceOf[] {
  const planed = (list: readonly RoofEdge[]): RoofEdge[] => list.filter((edge) => planesOfEdge(edge).length > 0);
  const labels = edgeLabels(roof, 'plane');
  return [
    { name: 'outer', label: 'view from above' },
    ...planed(edgesOfRoof(roof)).flatMap((edge) =>
      planesOfEdge(edge).map((name): FaceOf => {
        const upper = name.endsWith('-upper') ? ', upper' : '';
        const label = labels.get(edge.id)!;
        if (!edge.bulge) return { name, label: `${label}${upper}` };
        return {
          name,
          label: `${label.replace('plane', 'facet')} ${name.slice(edge.id.length + 1).replace('-upper', '')}${upper}`,
        };
      }),
    ),
  ];
}

/** Edges of an outline all alike. */
export const likeEdges = (
  points: readonly { x: number; y: number }[],
  like: { pitch: number; over: number },
): RoofEdge[] => points.map(({ x, y }, i) => ({ id: `e${i + 1}`, x, y, is: 'eaves', ...like }));

export const roofKind: ElementKind<typeof roofSchema> = {
  schema: roofSchema,
  noun: 'roof',
  title: 'Roof',
  about: 'planes over an outline',
  drawing: 'M4 26L14 10H38L44 22L20 30ZM14 10L20 30M38 10L44 22M4 26L20 30',
  form: ({ start, turn, edges, courts, ends, trims }) => ({ form: 'roof', start, turn, edges, courts, ends, trims }),
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'roof',
    edges: likeEdges(
      [
        { x: 0, y: 0 },
        { x: 9, y: 0 },
        { x: 9, y: 6 },
        { x: 0, y: 6 },
      ],
      { pitch: 40, over: 0.35 },
    ),
    layers: oneLayer(0.2, material),
  }),
  faces,
  apart: 10,
  figures: [],
  choices: [
    {
      field: 'ends',
      label: 'Eaves end',
      verb: 'cut the eaves of',
      options: [
        { value: 'plumb', label: 'plumb', drawing: 'M44 4L10 20V28L44 12' },
        { value: 'square', label: 'square to the slope', drawing: 'M44 4L8 21L12 29L44 14' },
        { value: 'level', label: 'plumb, with a level soffit', drawing: 'M44 4L10 20V28H26V20L44 12' },
      ],
    },
  ],
};
