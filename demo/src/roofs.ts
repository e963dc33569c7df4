/** Roofs: those of the granary, and one of every form. */
import {
  emptyDocument,
  kinds,
  likeEdges,
  type Layer,
  type ProjectDocument,
  type Roof,
  type RoofEdge,
} from '@yard-arch/document';
import { formed, type RoofFormName } from '@yard-arch/edit';

/** Slates on battens over boarding, lined within. */
const slated: Layer[] = [
  { thickness: 0.03, material: 'slate' },
  { thickness: 0.05, material: 'battens' },
  { thickness: 0.14, material: 'boarding' },
  { thickness: 0.02, material: 'plaster' },
];

type Corner = readonly [x: number, y: number];

function roof(id: string, name: string, at: readonly [number, number, number], edges: RoofEdge[]): Roof {
  const [x, y, z] = at;
  return { ...kinds.roof.fresh({ id, name, start: { x, y, z }, turn: 0 }, 'slate'), edges, layers: slated };
}

const eaves = (id: string, [x, y]: Corner, pitch: number, over = 0.4): RoofEdge => ({
  id,
  x,
  y,
  is: 'eaves',
  pitch,
  over,
});
const verge = (id: string, [x, y]: Corner, over = 0.25): RoofEdge => ({ id, x, y, is: 'verge', over });

/** The granary's: the main range between its gables, the lean-to over the cart shed, and a cone on the stair drum. */
export function granaryRoofs(): Roof[] {
  const main = roof(
    'main-roof',
    'Main roof',
    [0, 0, 8.4],
    [eaves('south', [0, 0], 40), verge('east', [19.2, 0]), eaves('north', [19.2, 9.6], 40), verge('west', [0, 9.6])],
  );
  const shed = roof(
    'shed-roof',
    'Cart shed roof',
    [-5.4, -9.6, 3.9],
    [
      verge('south', [0, 0], 0.2),
      eaves('yard', [5.4, 0], 18, 0.35),
      verge('north', [5.4, 9.6], 0),
      { id: 'back', x: 0, y: 9.6, is: 'abutment' },
    ],
  );
  // The drum's arc turns by 250° over 8.2 m.
  const radius = 8.2 / ((250 * Math.PI) / 180);
  const turn = (20 * Math.PI) / 180;
  const drum = roof(
    'drum-roof',
    'Drum cap',
    [20.6 - radius * Math.sin(turn), 10.2 + radius * Math.cos(turn), 10.4],
    [
      { ...eaves('near', [-radius, 0], 52, 0.3), bulge: 1 },
      { ...eaves('far', [radius, 0], 52, 0.3), bulge: 1 },
    ],
  );
  const board = { thickness: 0.03, material: 'oak' };
  main.trims = {
    fascia: { ...board, height: 0.22 },
    barge: { ...board, height: 0.3 },
    cap: { width: 0.15, thickness: 0.025, material: 'stone' },
  };
  shed.trims = { fascia: { ...board, height: 0.22 }, barge: { ...board, height: 0.28 } };
  drum.trims = { fascia: { ...board, height: 0.22 } };
  return [main, shed, drum];
}

const oblong: Corner[] = [
  [0, 0],
  [9, 0],
  [9, 6],
  [0, 6],
];
const square: Corner[] = oblong.map(([x, y]): Corner => [Math.min(x, 6), y]);
const lShaped: Corner[] = [
  [0, 0],
  [9, 0],
  [9, 4],
  [4, 4],
  [4, 8],
  [0, 8],
];
const tShaped: Corner[] = [
  [0, 0],
  [9, 0],
  [9, 4],
  [6.5, 4],
  [6.5, 8],
  [2.5, 8],
  [2.5, 4],
  [0, 4],
];
const uShaped: Corner[] = [
  [0, 0],
  [10, 0],
  [10, 8],
  [7, 8],
  [7, 3.4],
  [3, 3.4],
  [3, 8],
  [0, 8],
];
const octagon: Corner[] = Array.from({ length: 8 }, (_, i): Corner => {
  const angle = ((i - 0.5) * Math.PI) / 4;
  return [3.2 + 3.2 * Math.cos(angle), 3.2 + 3.2 * Math.sin(angle)];
});

/** A rectangle between two corners. */
const between = ([left, front]: Corner, [right, back]: Corner): Corner[] => [
  [left, front],
  [right, front],
  [right, back],
  [left, back],
];

/** Eaves all round. */
const plain = (corners: readonly Corner[], pitch = 40): RoofEdge[] =>
  likeEdges(
    corners.map(([x, y]) => ({ x, y })),
    { pitch, over: 0.35 },
  );

/** The edges of a roof of a form that the trade has a name for. */
const form = (as: RoofFormName, corners: readonly Corner[] = oblong): RoofEdge[] =>
  formed(
    {
      ...kinds.roof.fresh({ id: 'x', name: as, start: { x: 0, y: 0, z: 0 }, turn: 0 }, 'slate'),
      edges: plain(corners),
    },
    as,
  ).edges;

const boxedIn = 'Eaves boxed in, verge trim';

/** Roofs by their edges, in the order in which they stand. */
const everyForm = (): [name: string, edges: RoofEdge[]][] => [
  ['Hipped', form('hipped')],
  ['Gabled', form('gabled')],
  ['Half-hipped', form('half-hipped')],
  ['Lean-to', form('lean-to')],
  ['Mansard', form('mansard')],
  ['Bell-cast', form('bell-cast')],
  ['Flat with a fall', form('flat')],
  ['Pyramid', form('hipped', square)],
  ['L-shaped', form('hipped', lShaped)],
  ['T-shaped, gabled', form('gabled', tShaped)],
  ['U-shaped', form('hipped', uShaped)],
  ['Butterfly', form('butterfly')],
  ['Unlike pitches', plain(oblong).map((edge, i) => ({ ...edge, pitch: 28 + 9 * i }) as RoofEdge)],
  ['Lifted at one end', plain(oblong).map((edge, i) => ({ ...edge, ...(i === 1 ? { lift: 0.9 } : {}) }) as RoofEdge)],
  ['Octagonal turret', plain(octagon, 58)],
  [
    'Cone',
    [
      { ...eaves('near', [0, 3], 55, 0.3), bulge: 1 },
      { ...eaves('far', [6, 3], 55, 0.3), bulge: 1 },
    ],
  ],
  [boxedIn, form('gabled')],
];

function roofOfEveryForm(name: string, edges: RoofEdge[], i: number): Roof {
  const isBoxed = name === boxedIn;
  return {
    ...roof(`roof-${i + 1}`, name, [(i % 6) * 13, -Math.floor(i / 6) * 12, 3], edges),
    ...(isBoxed ? { ends: 'level' as const } : {}),
    trims: {
      ...(isBoxed ? { verge: { width: 0.2, thickness: 0.025, material: 'boarding' } } : {}),
      fascia: { height: 0.2, thickness: 0.025, material: 'boarding' },
      barge: { height: 0.26, thickness: 0.03, material: 'boarding' },
      cap: { width: 0.14, thickness: 0.02, material: 'slate' },
    },
  };
}

/** One with a courtyard in its midst. */
function roundCourtyard(): Roof {
  const courtyard = plain(between([5.5, 5], [14.5, 10]), 35);
  return {
    ...roof('roof-court', 'Round a courtyard', [0, -46, 3], plain(between([0, 0], [20, 15]), 35)),
    courts: [courtyard.map((edge, i) => ({ ...edge, id: `c${i + 1}` }))],
  };
}

/** A roof of every form, side by side. */
export function everyRoof(): ProjectDocument {
  const document = emptyDocument('Roofs of Fennel Quay');
  for (const [id, name, colour, texture] of [
    ['slate', 'Old slate', '#69737c', 'slate'],
    ['battens', 'Battens', '#b08d62', undefined],
    ['boarding', 'Boarding', '#c9a878', 'oak'],
    ['plaster', 'Lime plaster', '#e6dfcf', 'plaster'],
  ] as const)
    document.materials[id] = { id, name, colour, roughness: 0.85, ...(texture ? { texture } : {}) };
  const all = [...everyForm().map(([name, edges], i) => roofOfEveryForm(name, edges, i)), roundCourtyard()];
  for (const one of all) document.elements[one.id] = one;
  return document;
}
