/** Every kind of cut once, each in a piece of the granary's undercroft made for it. */
import {
  checkDocument,
  emptyDocument,
  firstChoice,
  firstDimensions,
  type Dimensions,
  type Layer,
  type Opening,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Section,
  type Slab,
  type Wall,
} from '@yard-arch/document';

/** One kind of cut: what it is called, and a document that shows it. */
export interface Sample {
  name: string;
  document: ProjectDocument;
}

const buildUp: Layer[] = [
  { thickness: 0.1025, material: 'brick' },
  { thickness: 0.05, material: 'insulation' },
  { thickness: 0.2, material: 'concrete' },
  { thickness: 0.015, material: 'plaster' },
];
const solid: Layer[] = [{ thickness: 0.45, material: 'lime' }];
const brickwork: Layer[] = [{ thickness: 0.45, material: 'brick' }];

const materials: ProjectDocument['materials'] = {
  brick: { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9, texture: 'english bond' },
  insulation: { id: 'insulation', name: 'Insulation', colour: '#d9c58a', roughness: 1, texture: 'insulation' },
  concrete: { id: 'concrete', name: 'Concrete', colour: '#a9a69d', roughness: 0.9, texture: 'concrete' },
  plaster: { id: 'plaster', name: 'Plaster', colour: '#e6dfcf', roughness: 0.95, texture: 'plaster' },
  lime: { id: 'lime', name: 'Limewash', colour: '#d8ccb4', roughness: 0.95 },
  stone: { id: 'stone', name: 'Limestone', colour: '#cfc6b2', roughness: 0.8, texture: 'ashlar' },
};

function wall(over: Partial<Wall> = {}): Wall {
  return {
    id: 'wall',
    kind: 'wall',
    name: 'Undercroft wall',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: 2.6,
    height: 2.6,
    top: { kind: 'level' },
    layers: buildUp,
    ...over,
  };
}

function pattern(id: string, shape: ProfileShape, dimensions: Dimensions | null, more: Partial<Pattern> = {}): Pattern {
  return {
    id,
    name: id,
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: { ...(dimensions ?? firstDimensions(shape)) } } },
    reveal: { material: null },
    ...more,
  };
}

function place(id: string, of: string, { s, t }: { s: number; t: number }, over: Partial<Opening> = {}): Opening {
  return {
    id,
    mark: id.toUpperCase(),
    element: 'wall',
    pattern: of,
    size: 'a',
    along: { from: 'middle', distance: s },
    up: { from: 'base', distance: t },
    grip: { across: 'centre', level: 'sill' },
    blockedUp: false,
    ...over,
  };
}

function sample(
  name: string,
  elements: readonly (Wall | Slab)[],
  patterns: readonly Pattern[],
  openings: readonly Opening[],
): Sample {
  const byId = <T extends { id: string }>(rows: readonly T[]): Record<string, T> =>
    Object.fromEntries(rows.map((row) => [row.id, row]));
  return {
    name,
    document: checkDocument({
      ...emptyDocument(name),
      elements: byId(elements),
      patterns: byId(patterns),
      openings: byId(openings),
      materials,
    }),
  };
}

const arch = { span: 1.2, height: 1.7 };
const all = (section: Section): Pattern['sections'] => ({
  'jamb-left': section,
  'jamb-right': section,
  head: section,
  sill: section,
});
const one = (
  name: string,
  more: Partial<Pattern>,
  over: Partial<Wall> = {},
  {
    shape = 'semicircular-arch',
    dimensions = arch,
  }: { shape?: ProfileShape | undefined; dimensions?: Dimensions | null | undefined } = {},
): Sample => sample(name, [wall(over)], [pattern('p', shape, dimensions, more)], [place('a', 'p', { s: 0, t: 0.5 })]);

/** The samples, in the order in which they are told of. */
export function everyCut(): Sample[] {
  return [
    ...kindsOfCut(),
    ...sectionsOfReveals(),
    ...formsOfWalls(),
    ...atEdgesAndTogether(),
    ...throughOthers(),
    ...ofSpecialShapes(),
  ];
}

/** What is cut away, added or kept. */
function kindsOfCut(): Sample[] {
  return [
    one('Through all layers', {}),
    one('Niche to a depth', { cut: { kind: 'niche', depth: 0.25 } }, { layers: solid }),
    one('Niche to a layer', { cut: { kind: 'niche to layer', layers: 1 } }),
    one(
      'Niche, its edges rounded',
      { cut: { kind: 'niche', depth: 0.2 }, sections: all({ arris: { kind: 'rounded', size: 0.05, segments: 5 } }) },
      { layers: solid },
    ),
    one(
      'Boss',
      { cut: { kind: 'boss', height: 0.08 }, sections: all({ arris: { kind: 'chamfered', size: 0.03 } }) },
      { layers: solid },
    ),
    one('Imprint with its own material', { cut: { kind: 'imprint', material: 'stone' } }),
    one(
      'Only its inside is kept',
      { cut: { kind: 'keep inside' } },
      { layers: solid },
      {
        shape: 'ogee-arch',
        dimensions: {
          span: 1.6,
          height: 2,
          rise: 0.95,
        },
      },
    ),
  ];
}

/** How reveals are worked. */
function sectionsOfReveals(): Sample[] {
  return [
    one('Splayed inside', { sections: all({ seat: 0.1, splayInside: 28 }) }, { layers: brickwork }),
    one('Splayed outside', { sections: all({ seat: 0.35, splayOutside: 28 }) }, { layers: solid }),
    one(
      'Brick check',
      {
        sections: {
          'jamb-left': { checks: [{ depth: 0.15, step: -0.08 }] },
          'jamb-right': { checks: [{ depth: 0.15, step: -0.08 }] },
          head: { checks: [{ depth: 0.15, step: -0.08 }] },
        },
      },
      { layers: brickwork },
    ),
    one(
      'Stepped in three orders',
      {
        sections: all({
          checks: [
            { depth: 0.11, step: -0.1 },
            { depth: 0.22, step: -0.1 },
            { depth: 0.33, step: -0.1 },
          ],
        }),
      },
      { layers: brickwork },
      { shape: 'semicircular-arch', dimensions: { span: 1.7, height: 1.9 } },
    ),
    one(
      'Sill with a fall',
      { sections: { sill: { splayOutside: 30 } }, reveal: { material: null, sides: { sill: 'stone' } } },
      { layers: solid },
      { shape: 'rectangle', dimensions: { width: 1.3, height: 1.4 } },
    ),
    one('Arris chamfered', { sections: all({ arris: { kind: 'chamfered', size: 0.06 } }) }, { layers: brickwork }),
    one(
      'Arris rounded',
      { sections: all({ arris: { kind: 'rounded', size: 0.08, segments: 6 } }) },
      { layers: brickwork },
    ),
    one(
      'Quatrefoil, arris chamfered',
      { sections: all({ arris: { kind: 'chamfered', size: 0.03 } }) },
      { layers: solid },
      { shape: 'quatrefoil', dimensions: { diameter: 1.5 } },
    ),
  ];
}

/** In walls that are not straight and upright. */
function formsOfWalls(): Sample[] {
  return [
    one('Curved wall, parallel jambs', {}, { sweep: 75, turn: -37.5, length: 3.4, layers: brickwork }),
    one('Curved wall, radial jambs', { jambs: 'radial' }, { sweep: 75, turn: -37.5, length: 3.4, layers: brickwork }),
    one(
      'Hollow curve, checked',
      {
        sections: {
          'jamb-left': { checks: [{ depth: 0.15, step: 0.06 }] },
          'jamb-right': { checks: [{ depth: 0.15, step: 0.06 }] },
        },
      },
      { sweep: -60, turn: 30, length: 3.4, layers: brickwork },
    ),
    one('Leaning wall', {}, { batter: 12, layers: brickwork }),
    sample(
      'Bent wall',
      [wall({ length: 1.5, runs: [{ turn: 50, length: 1.5 }], layers: solid })],
      [pattern('p', 'segmental-arch', { span: 0.9, height: 1.6, rise: 0.15 })],
      [place('a', 'p', { s: -0.8, t: 0.5 }), place('b', 'p', { s: 0.75, t: 0.5 })],
    ),
  ];
}

/** At edges of the wall, and united with others. */
function atEdgesAndTogether(): Sample[] {
  return [
    sample(
      'Door over the base',
      [wall()],
      [pattern('p', 'rectangle', { width: 1, height: 2.1 })],
      [place('a', 'p', { s: 0, t: 0 })],
    ),
    sample(
      'Fanlight over a door',
      [wall({ layers: brickwork })],
      [
        pattern('p', 'rectangle', { width: 1, height: 1.6 }),
        pattern('q', 'semicircular-arch', { span: 1.4, height: 0.7 }),
      ],
      [place('a', 'p', { s: 0, t: 0 }), place('b', 'q', { s: 0, t: 1.6 })],
    ),
    sample(
      'Crossing niches of two depths',
      [wall({ layers: solid })],
      [
        pattern('p', 'rectangle', { width: 1.8, height: 0.5 }, { cut: { kind: 'niche', depth: 0.12 } }),
        pattern('q', 'semicircular-arch', { span: 0.7, height: 1.9 }, { cut: { kind: 'niche', depth: 0.28 } }),
      ],
      [place('a', 'p', { s: 0, t: 1 }), place('b', 'q', { s: 0, t: 0.3 })],
    ),
    sample(
      'Window in a raised surround',
      [wall({ layers: solid })],
      [
        pattern('p', 'rectangle', { width: 1.6, height: 2 }, { cut: { kind: 'boss', height: 0.07 } }),
        pattern('q', 'semicircular-arch', { span: 1, height: 1.5 }),
      ],
      [place('a', 'p', { s: 0, t: 0.3 }), place('b', 'q', { s: 0, t: 0.55 })],
    ),
  ];
}

/** Through more than one wall, or aslant through one. */
function throughOthers(): Sample[] {
  return [
    sample(
      'Through a lining in front',
      [
        wall(),
        wall({
          id: 'lining',
          name: 'Lining',
          start: { x: 0.3, y: -0.55, z: 0 },
          length: 2,
          height: 2.2,
          layers: [{ thickness: 0.12, material: 'stone' }],
        }),
      ],
      [pattern('p', 'circle', { diameter: 1 })],
      [place('a', 'p', { s: 0, t: 0.8 }, { further: ['lining'] })],
    ),
    sample(
      'Aimed on skew',
      [wall({ layers: solid })],
      [pattern('p', 'semicircular-arch', { span: 0.9, height: 1.6 })],
      [place('a', 'p', { s: 0, t: 0.5 }, { aim: { turn: 55 } })],
    ),
    sample(
      'Mitred corner, cut through',
      [
        wall({ layers: solid, ends: { start: 'square', end: 'mitred' } }),
        wall({
          id: 'other',
          name: 'Return',
          start: { x: 2.6, y: 0, z: 0 },
          turn: 90,
          layers: solid,
          ends: { start: 'mitred', end: 'square' },
        }),
      ],
      [pattern('p', 'rectangle', { width: 1, height: 1.3 })],
      [place('a', 'p', { s: 1, t: 0.6 }), place('b', 'p', { s: 0.2, t: 0.6 }, { element: 'other' })],
    ),
  ];
}

/** Slabs, and profiles that are drawn or written. */
function ofSpecialShapes(): Sample[] {
  return [
    sample(
      'Slab with a stair opening',
      [
        {
          id: 'wall',
          kind: 'slab',
          name: 'Loft floor',
          start: { x: 0, y: 0, z: 1 },
          turn: 0,
          outline: [
            { x: 0, y: 0 },
            { x: 3.2, y: 0 },
            { x: 3.2, y: 2.2, bulge: 0.35 },
            { x: 0, y: 2.2 },
          ],
          layers: [
            { thickness: 0.06, material: 'stone' },
            { thickness: 0.2, material: 'concrete' },
          ],
        },
      ],
      [pattern('p', 'rounded-rectangle', { width: 1.6, height: 0.9, radius: 0.3 })],
      [place('a', 'p', { s: 0, t: 0.7 })],
    ),
    one(
      'Letters',
      { cut: { kind: 'niche', depth: 0.06 }, profile: { shape: 'text', text: 'Quay 8' } },
      { layers: [{ thickness: 0.3, material: 'stone' }] },
      { shape: 'text', dimensions: { height: 0.55 } },
    ),
    one(
      'Free outline with an island',
      {},
      { layers: solid },
      { shape: 'free', dimensions: { width: 1.6, height: 1.6 } },
    ),
  ];
}
