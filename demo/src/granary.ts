/** The old granary on Fennel Quay, its courtyard, its cart shed and the yard wall. */
import { casements, crossed, gates, roofHatch, roofLight, slitLight, underArch, yardDoor } from './infills.ts';
import { granaryRoofs } from './roofs.ts';
import { granaryUndercroft } from './vaults.ts';
import { shipped, shippedMaterials, takenIn } from '@yard-arch/edit';
import {
  checkDocument,
  dimensionNames,
  emptyDocument,
  type Layer,
  type Opening,
  type Part,
  type Pattern,
  type ProjectDocument,
  type Section,
  type TextureName,
  type Wall,
} from '@yard-arch/document';

/** Makes the granary's document. */
export function granary(): ProjectDocument {
  const document: ProjectDocument = emptyDocument('Fennel Quay Granary');
  let number = 0;

  function material(id: string, name: string, colour: string, roughness = 0.9, texture?: TextureName): void {
    document.materials[id] = { id, name, colour, roughness, ...(texture ? { texture } : {}) };
  }

  function wall(
    id: string,
    name: string,
    x: number,
    y: number,
    turn: number,
    length: number,
    height: number,
    layers: Layer[],
    top: Wall['top'] = { kind: 'level' },
    more: Partial<Wall> = {},
  ): void {
    document.elements[id] = {
      id,
      kind: 'wall',
      name,
      start: { x, y, z: 0 },
      turn,
      length,
      height,
      top,
      layers,
      ...more,
    } satisfies Wall;
  }

  function pattern(
    id: string,
    name: string,
    shape: Pattern['profile']['shape'],
    sizes: Record<string, number[]>,
    reveal: Pattern['reveal'],
    more: Partial<Pattern> = {},
  ): void {
    const names = dimensionNames(shape);
    document.patterns[id] = {
      id,
      name,
      profile: { shape },
      reveal,
      ...more,
      sizes: Object.fromEntries(
        Object.entries(sizes).map(([size, values]) => [
          size,
          { id: size, name: '', dimensions: Object.fromEntries(names.map((n, i) => [n, values[i]!])) },
        ]),
      ),
    };
  }

  function axis(element: string, name: string, along: number): void {
    const id = `${element}-${name.toLowerCase()}`;
    document.axes[id] = { id, name, element, along };
  }

  function place(
    element: string,
    pattern: string,
    size: string,
    at: string | Opening['along'],
    up: string | Opening['up'],
    over: Partial<Opening> = {},
  ): void {
    number += 1;
    const id = `o${number}`;
    document.openings[id] = {
      id,
      mark: `${typeof at === 'string' ? at.toUpperCase() : 'W'}-${String(number).padStart(2, '0')}`,
      element,
      pattern,
      size,
      along: typeof at === 'string' ? { from: 'axis', axis: `${element}-${at}`, distance: 0 } : at,
      up: typeof up === 'string' ? { from: 'datum', datum: up, distance: 0 } : up,
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
      ...over,
    };
  }

  /** Takes a pattern of the shelf in, with the materials that it needs. */
  function takeIn(id: string): void {
    const { pattern: taken, changes } = takenIn(
      document,
      shipped.find((one) => one.id === id)!,
      shippedMaterials,
      id,
    );
    document.patterns[id] = taken;
    for (const change of changes)
      if (change.op === 'put' && change.table === 'materials') document.materials[change.value.id] = change.value;
  }

  material('brick', 'Old brick', '#b97a5c', 0.9, 'english bond');
  material('limewash', 'Limewashed brick', '#d9cdb6', 0.9, 'stretcher bond');
  material('stone', 'Quay limestone', '#cfc6b2', 0.8, 'ashlar');
  material('rubble', 'Rubble stone', '#a79f8e', 0.95, 'ashlar');
  material('plaster', 'Lime plaster', '#e6dfcf', 0.95, 'plaster');
  material('insulation', 'Hemp insulation', '#d9c58a', 1, 'insulation');
  material('concrete', 'New concrete', '#a9a69d', 0.9, 'concrete');
  material('oak', 'Oak boards', '#b08a5a', 0.7, 'oak');
  material('paint', 'Grey-green paint', '#7f8f83', 0.5);
  material('rubbed', 'Rubbed brick', '#a9563c', 0.85);
  material('mortar', 'Lime mortar', '#d8d0bd', 0.95);
  material('iron', 'Blackened iron', '#3b4147', 0.6);
  material('slate', 'Old slate', '#69737c', 0.7, 'slate');
  material('battens', 'Battens', '#b08d62', 0.9);
  material('boarding', 'Boarding', '#c9a878', 0.8, 'oak');
  document.materials.glass = { id: 'glass', name: 'Glass', colour: '#9db8bf', roughness: 0.08, opacity: 0.32 };

  // The old brick stays outside; the conversion lines it within.
  const granaryWall: Layer[] = [
    { thickness: 0.33, material: 'brick' },
    { thickness: 0.1, material: 'insulation' },
    { thickness: 0.02, material: 'plaster' },
  ];
  const shedWall: Layer[] = [{ thickness: 0.35, material: 'limewash' }];
  const joined = (start: 'square' | 'mitred' | 'butted', end = start): Partial<Wall> => ({ ends: { start, end } });
  const arris: Section['arris'] = { kind: 'rounded', size: 0.012 };
  // Frames stand behind a brick check; within, the reveal splays to let in light.
  const checked: Section = { seat: 0.2, checks: [{ depth: 0.1125, step: 0.0575 }], splayInside: 14 };
  const window: Pattern['sections'] = {
    'jamb-left': checked,
    'jamb-right': checked,
    head: checked,
    sill: { seat: 0.2, splayOutside: 8 },
  };

  // Stone outside, on the sill as far as the check, and a board within.
  const sills: Pattern['parts'] = [
    { id: 'stone', kind: 'sill board', material: 'stone', thickness: 0.08, nosing: 0.05, horns: 0.1, reach: 0.1125 },
    {
      id: 'board',
      kind: 'sill board',
      material: 'oak',
      thickness: 0.03,
      nosing: 0.03,
      horns: 0.05,
      behind: true,
    },
  ];
  // Oak along the reveals within, and an architrave over its edges.
  const lined = (sides: Extract<Part, { kind: 'lining' }>['sides']): Part[] => [
    { id: 'lining', kind: 'lining', material: 'oak', thickness: 0.02, sides, behind: true },
    {
      id: 'architrave',
      kind: 'surround',
      material: 'oak',
      width: 0.07,
      thickness: 0.018,
      off: -0.012,
      sides,
      behind: true,
    },
  ];
  // Arches of rubbed brick before the check, and of stone where carts go in.
  const ring = (stones: number, height = 0.23): Part => ({
    id: 'ring',
    kind: 'arch ring',
    material: 'rubbed',
    height,
    stones,
    joint: 0.007,
    mortar: 'mortar',
    depth: 0.1,
    proud: 0.004,
  });
  const own = { material: null };
  pattern(
    'light',
    'Loft light',
    'rectangle',
    { a: [1.1, 1], b: [1.4, 1] },
    { material: null, sides: { sill: 'stone' } },
    { sections: window, parts: [ring(19), ...sills, ...lined(['jamb-left', 'jamb-right', 'head'])], infill: casements },
  );
  pattern(
    'arch',
    'Granary arch',
    'semicircular-arch',
    { a: [1.3, 1.9], b: [1.1, 1.75] },
    { material: null, sides: { sill: 'stone' } },
    {
      sections: window,
      parts: [{ ...ring(21), keystone: { rise: 0.05, proud: 0.02, material: 'stone' } } as Part, ...sills],
      infill: underArch,
    },
  );
  pattern(
    'cart',
    'Cart arch',
    'semicircular-arch',
    { a: [2.9, 3.3], b: [2.2, 2.6], c: [2.6, 2.5] },
    { material: 'stone' },
    {
      sections: { 'jamb-left': { arris }, 'jamb-right': { arris }, head: { arris } },
      infill: gates,
      parts: [
        {
          ...ring(19, 0.25),
          material: 'stone',
          depth: 0.15,
          proud: 0.03,
          keystone: { rise: 0.05, proud: 0.03, material: 'stone' },
        } as Part,
        {
          id: 'quoins',
          kind: 'quoins',
          material: 'stone',
          height: 0.34,
          long: 0.26,
          short: 0.16,
          joint: 0.006,
          mortar: 'mortar',
          depth: 0.15,
          proud: 0.015,
        },
      ],
    },
  );
  pattern('door', 'Yard door', 'rectangle', { a: [1, 2.15], b: [1.3, 2.3] }, own, {
    onFloor: true,
    infill: yardDoor,
    parts: lined(['jamb-left', 'jamb-right', 'head']),
  });
  pattern(
    'oculus',
    'Oculus',
    'circle',
    { a: [1.1], b: [0.8] },
    { material: 'stone' },
    {
      sections: { head: { splayInside: 12, seat: 0.1 }, sill: { splayInside: 12, seat: 0.1 } },
      infill: crossed,
    },
  );
  pattern('slit', 'Stair slit', 'segmental-arch', { a: [0.4, 1.4, 0.08] }, own, {
    sections: { 'jamb-left': { splayInside: 22, seat: 0.1 }, 'jamb-right': { splayInside: 22, seat: 0.1 } },
    infill: slitLight,
  });
  pattern('roof-light', 'Roof window', 'rectangle', { a: [0.94, 1.4] }, own, { infill: roofLight });
  pattern('hatch', 'Roof hatch', 'rectangle', { a: [0.7, 0.9] }, own, { infill: roofHatch });
  pattern('well', 'Lantern well', 'ellipse', { a: [2.6, 1.5] }, own);
  pattern(
    'niche',
    'Lamp niche',
    'pointed-arch',
    { a: [0.5, 0.9, 0.4] },
    { material: 'stone' },
    { cut: { kind: 'niche', depth: 0.16 }, sections: { sill: { splayOutside: 10 } } },
  );

  document.datums.yard = { id: 'yard', name: 'Yard', level: 0, element: null, kind: 'floor' };
  document.datums.ground = { id: 'ground', name: 'Ground sill', level: 1.2, element: null, kind: 'sill' };
  document.datums.first = { id: 'first', name: 'First sill', level: 3.75, element: null, kind: 'sill' };
  document.datums.gable = { id: 'gable', name: 'Gable lights', level: 9.9, element: null };
  document.datums.loft = { id: 'loft', name: 'Loft sill', level: 6.7, element: null, kind: 'sill' };

  // The granary: two long walls, and two ends between them.
  const under = (roof: string): Wall['top'] => ({ kind: 'under', roof });
  const main = under('main-roof');
  wall('courtyard', 'Courtyard wall', 0, 0, 0, 19.2, 8.4, granaryWall, main, joined('mitred'));
  wall('east', 'East gable', 19.2, 0, 90, 9.6, 8.4, granaryWall, main, joined('mitred'));
  wall('quay', 'Quay wall', 19.2, 9.6, 180, 19.2, 8.4, granaryWall, main, joined('mitred'));
  wall('west', 'West gable', 0, 9.6, -90, 9.6, 8.4, granaryWall, main, joined('mitred'));
  // The stair drum stands against the quay wall's end, round but for a slice.
  wall('drum', 'Stair drum', 20.6, 10.2, 20, 8.2, 10.4, shedWall, under('drum-roof'), { sweep: 250 });
  // The cart shed along the west of the yard, and the wall with the gate.
  const shed = under('shed-roof');
  wall('shed-front', 'Cart shed front', 0, -9.6, 90, 9.6, 3.9, shedWall, shed, joined('mitred'));
  wall('shed-south', 'Cart shed gable', -5.4, -9.6, 0, 5.4, 3.9, shedWall, shed, joined('mitred'));
  wall('shed-back', 'Cart shed back', -5.4, 0, -90, 9.6, 3.9, shedWall, shed, joined('mitred'));
  wall('shed-north', 'Cart shed north', 0, 0, 180, 5.4, 3.9, shedWall, shed, joined('mitred'));
  wall('gate', 'Gate wall', 0, -9.6, 0, 19.2, 2.4, [{ thickness: 0.35, material: 'rubble' }], {
    kind: 'stepped',
    steps: [
      { at: 0.375, height: 3.2 },
      { at: 0.625, height: 2.4 },
    ],
  });

  for (const roof of granaryRoofs()) document.elements[roof.id] = roof;

  'ABCDEFG'.split('').forEach((name, i) => axis('courtyard', name, 1.8 + 2.6 * i));
  place('courtyard', 'light', 'a', 'a', 'ground');
  place('courtyard', 'light', 'a', 'b', 'ground');
  place('courtyard', 'door', 'a', 'c', 'yard');
  place('courtyard', 'cart', 'a', 'd', 'yard');
  place('courtyard', 'door', 'a', 'e', 'yard', { blockedUp: true });
  place('courtyard', 'light', 'a', 'f', 'ground');
  place('courtyard', 'light', 'a', 'g', 'ground');
  for (const name of 'abcdefg') place('courtyard', 'arch', 'a', name, 'first');
  for (const name of 'abc') place('courtyard', 'light', 'b', name, 'loft');
  place('courtyard', 'oculus', 'a', 'd', 'loft', {
    up: { from: 'datum', datum: 'loft', distance: 0.5 },
    grip: { across: 'centre', level: 'middle' },
  });
  for (const name of 'efg') place('courtyard', 'light', 'b', name, 'loft');

  const on = (id: string): Opening['along'] => ({ from: 'axis', axis: id, distance: 0 });
  axis('east', 'A', 2.05);
  axis('west', 'A', 7.6);
  'ABCD'.split('').forEach((name, i) => axis('drum', name, 2.2 + 1.15 * i));
  place('east', 'door', 'b', on('east-a'), 'yard');
  place('east', 'arch', 'b', { from: 'middle', distance: -1.8 }, 'first');
  place('east', 'arch', 'b', { from: 'middle', distance: 1.8 }, 'first');
  place('east', 'oculus', 'b', { from: 'middle', distance: 0 }, 'gable', {
    grip: { across: 'centre', level: 'middle' },
  });

  for (const distance of [-7.2, -3.6, 0, 3.6, 7.2]) place('quay', 'arch', 'a', { from: 'middle', distance }, 'first');
  place('quay', 'door', 'b', { from: 'middle', distance: 0 }, 'yard');
  place('west', 'light', 'b', on('west-a'), 'loft');

  for (const distance of [-2.9, 0, 2.9]) place('shed-front', 'cart', 'b', { from: 'middle', distance }, 'yard');
  for (const [i, up] of [0.9, 3.2, 5.5, 7.8].entries())
    place('drum', 'slit', 'a', on(`drum-${'abcd'[i]}`), { from: 'base', distance: up });
  place('drum', 'door', 'a', { from: 'start', distance: 1 }, 'yard');
  place('shed-south', 'niche', 'a', { from: 'middle', distance: -1 }, { from: 'base', distance: 1.2 });
  place('shed-south', 'niche', 'a', { from: 'middle', distance: 1 }, { from: 'base', distance: 1.2 });
  place('gate', 'cart', 'c', { from: 'start', distance: 9.6 }, 'yard');
  place('gate', 'door', 'a', { from: 'end', distance: 1.6 }, 'yard');

  // Light for the loft: roof windows to the yard, a hatch to the quay, and a lantern's well over the ridge.
  for (const distance of [-6.6, -2.2, 2.2, 6.6])
    place(
      'main-roof',
      'roof-light',
      'a',
      { from: 'middle', distance },
      { from: 'base', distance: 2.1 },
      { face: 'south' },
    );
  place('main-roof', 'hatch', 'a', { from: 'middle', distance: 3 }, { from: 'base', distance: 2.6 }, { face: 'north' });
  place(
    'main-roof',
    'well',
    'a',
    { from: 'middle', distance: 0 },
    { from: 'base', distance: 5.2 },
    {
      grip: { across: 'centre', level: 'middle' },
    },
  );

  // Dormers to the quay, and a stack behind the ridge.
  takeIn('dormer-gabled');
  takeIn('chimney-wide');
  for (const distance of [-4.4, 5.8])
    place(
      'main-roof',
      'dormer-gabled',
      's1',
      { from: 'middle', distance },
      { from: 'base', distance: 1.5 },
      { face: 'north' },
    );
  place(
    'main-roof',
    'chimney-wide',
    's1',
    { from: 'middle', distance: -7.4 },
    { from: 'base', distance: 5.2 },
    { face: 'north' },
  );
  for (const bay of granaryUndercroft()) document.elements[bay.id] = bay;

  return checkDocument(document);
}

/** The same without its roofs and vaults: its walls have tops of their own, and gables are drawn as gables. */
export function granaryWalls(): ProjectDocument {
  const document = granary();
  const apexes: Record<string, number> = { east: 12.2, west: 12.2, 'shed-south': 6, 'shed-north': 6 };
  for (const element of Object.values(document.elements)) {
    if (element.kind === 'roof' || element.kind === 'bay') delete document.elements[element.id];
    if (element.kind !== 'wall' || element.top.kind !== 'under') continue;
    const apex = apexes[element.id];
    document.elements[element.id] = {
      ...element,
      top: apex === undefined ? { kind: 'level' } : { kind: 'gabled', apex, at: 0.5 },
    };
  }
  for (const opening of Object.values(document.openings))
    if (!document.elements[opening.element]) delete document.openings[opening.id];
  return checkDocument(document);
}
