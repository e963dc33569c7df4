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

  function material(
    id: string,
    name: string,
    colour: string,
    { roughness = 0.9, texture }: { roughness?: number | undefined; texture?: TextureName | undefined },
  ): void {
    document.materials[id] = { id, name, colour, roughness, ...(texture ? { texture } : {}) };
  }

  function wall(
    id: string,
    name: string,
    { x, y, turn, length, height }: { x: number; y: number; turn: number; length: number; height: number },
    {
      layers,
      top = { kind: 'level' },
      more = {},
    }: { layers: Layer[]; top?: Wall['top'] | undefined; more?: Partial<Wall> | undefined },
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
    { shape, sizes }: { shape: Pattern['profile']['shape']; sizes: Record<string, number[]> },
    { reveal, more = {} }: { reveal: Pattern['reveal']; more?: Partial<Pattern> | undefined },
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
    { pattern, size }: { pattern: string; size: string },
    { at, up }: { at: string | Opening['along']; up: string | Opening['up'] },
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

  material('brick', 'Old brick', '#b97a5c', { roughness: 0.9, texture: 'english bond' });
  material('limewash', 'Limewashed brick', '#d9cdb6', { roughness: 0.9, texture: 'stretcher bond' });
  material('stone', 'Quay limestone', '#cfc6b2', { roughness: 0.8, texture: 'ashlar' });
  material('rubble', 'Rubble stone', '#a79f8e', { roughness: 0.95, texture: 'ashlar' });
  material('plaster', 'Lime plaster', '#e6dfcf', { roughness: 0.95, texture: 'plaster' });
  material('insulation', 'Hemp insulation', '#d9c58a', { roughness: 1, texture: 'insulation' });
  material('concrete', 'New concrete', '#a9a69d', { roughness: 0.9, texture: 'concrete' });
  material('oak', 'Oak boards', '#b08a5a', { roughness: 0.7, texture: 'oak' });
  material('paint', 'Grey-green paint', '#7f8f83', { roughness: 0.5 });
  material('rubbed', 'Rubbed brick', '#a9563c', { roughness: 0.85 });
  material('mortar', 'Lime mortar', '#d8d0bd', { roughness: 0.95 });
  material('iron', 'Blackened iron', '#3b4147', { roughness: 0.6 });
  material('slate', 'Old slate', '#69737c', { roughness: 0.7, texture: 'slate' });
  material('battens', 'Battens', '#b08d62', { roughness: 0.9 });
  material('boarding', 'Boarding', '#c9a878', { roughness: 0.8, texture: 'oak' });
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
    { shape: 'rectangle', sizes: { a: [1.1, 1], b: [1.4, 1] } },
    {
      reveal: { material: null, sides: { sill: 'stone' } },
      more: {
        sections: window,
        parts: [ring(19), ...sills, ...lined(['jamb-left', 'jamb-right', 'head'])],
        infill: casements,
      },
    },
  );
  pattern(
    'arch',
    'Granary arch',
    { shape: 'semicircular-arch', sizes: { a: [1.3, 1.9], b: [1.1, 1.75] } },
    {
      reveal: { material: null, sides: { sill: 'stone' } },
      more: {
        sections: window,
        parts: [{ ...ring(21), keystone: { rise: 0.05, proud: 0.02, material: 'stone' } } as Part, ...sills],
        infill: underArch,
      },
    },
  );
  pattern(
    'cart',
    'Cart arch',
    { shape: 'semicircular-arch', sizes: { a: [2.9, 3.3], b: [2.2, 2.6], c: [2.6, 2.5] } },
    {
      reveal: { material: 'stone' },
      more: {
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
    },
  );
  pattern(
    'door',
    'Yard door',
    { shape: 'rectangle', sizes: { a: [1, 2.15], b: [1.3, 2.3] } },
    {
      reveal: own,
      more: {
        onFloor: true,
        infill: yardDoor,
        parts: lined(['jamb-left', 'jamb-right', 'head']),
      },
    },
  );
  pattern(
    'oculus',
    'Oculus',
    { shape: 'circle', sizes: { a: [1.1], b: [0.8] } },
    {
      reveal: { material: 'stone' },
      more: {
        sections: { head: { splayInside: 12, seat: 0.1 }, sill: { splayInside: 12, seat: 0.1 } },
        infill: crossed,
      },
    },
  );
  pattern(
    'slit',
    'Stair slit',
    { shape: 'segmental-arch', sizes: { a: [0.4, 1.4, 0.08] } },
    {
      reveal: own,
      more: {
        sections: { 'jamb-left': { splayInside: 22, seat: 0.1 }, 'jamb-right': { splayInside: 22, seat: 0.1 } },
        infill: slitLight,
      },
    },
  );
  pattern(
    'roof-light',
    'Roof window',
    { shape: 'rectangle', sizes: { a: [0.94, 1.4] } },
    { reveal: own, more: { infill: roofLight } },
  );
  pattern(
    'hatch',
    'Roof hatch',
    { shape: 'rectangle', sizes: { a: [0.7, 0.9] } },
    { reveal: own, more: { infill: roofHatch } },
  );
  pattern('well', 'Lantern well', { shape: 'ellipse', sizes: { a: [2.6, 1.5] } }, { reveal: own });
  pattern(
    'niche',
    'Lamp niche',
    { shape: 'pointed-arch', sizes: { a: [0.5, 0.9, 0.4] } },
    {
      reveal: { material: 'stone' },
      more: { cut: { kind: 'niche', depth: 0.16 }, sections: { sill: { splayOutside: 10 } } },
    },
  );

  document.datums.yard = { id: 'yard', name: 'Yard', level: 0, element: null, kind: 'floor' };
  document.datums.ground = { id: 'ground', name: 'Ground sill', level: 1.2, element: null, kind: 'sill' };
  document.datums.first = { id: 'first', name: 'First sill', level: 3.75, element: null, kind: 'sill' };
  document.datums.gable = { id: 'gable', name: 'Gable lights', level: 9.9, element: null };
  document.datums.loft = { id: 'loft', name: 'Loft sill', level: 6.7, element: null, kind: 'sill' };

  // The granary: two long walls, and two ends between them.
  const under = (roof: string): Wall['top'] => ({ kind: 'under', roof });
  const main = under('main-roof');
  wall(
    'courtyard',
    'Courtyard wall',
    { x: 0, y: 0, turn: 0, length: 19.2, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  wall(
    'east',
    'East gable',
    { x: 19.2, y: 0, turn: 90, length: 9.6, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  wall(
    'quay',
    'Quay wall',
    { x: 19.2, y: 9.6, turn: 180, length: 19.2, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  wall(
    'west',
    'West gable',
    { x: 0, y: 9.6, turn: -90, length: 9.6, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  // The stair drum stands against the quay wall's end, round but for a slice.
  wall(
    'drum',
    'Stair drum',
    { x: 20.6, y: 10.2, turn: 20, length: 8.2, height: 10.4 },
    { layers: shedWall, top: under('drum-roof'), more: { sweep: 250 } },
  );
  // The cart shed along the west of the yard, and the wall with the gate.
  const shed = under('shed-roof');
  wall(
    'shed-front',
    'Cart shed front',
    { x: 0, y: -9.6, turn: 90, length: 9.6, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  wall(
    'shed-south',
    'Cart shed gable',
    { x: -5.4, y: -9.6, turn: 0, length: 5.4, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  wall(
    'shed-back',
    'Cart shed back',
    { x: -5.4, y: 0, turn: -90, length: 9.6, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  wall(
    'shed-north',
    'Cart shed north',
    { x: 0, y: 0, turn: 180, length: 5.4, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  wall(
    'gate',
    'Gate wall',
    { x: 0, y: -9.6, turn: 0, length: 19.2, height: 2.4 },
    {
      layers: [{ thickness: 0.35, material: 'rubble' }],
      top: {
        kind: 'stepped',
        steps: [
          { at: 0.375, height: 3.2 },
          { at: 0.625, height: 2.4 },
        ],
      },
    },
  );

  for (const roof of granaryRoofs()) document.elements[roof.id] = roof;

  'ABCDEFG'.split('').forEach((name, i) => axis('courtyard', name, 1.8 + 2.6 * i));
  place('courtyard', { pattern: 'light', size: 'a' }, { at: 'a', up: 'ground' });
  place('courtyard', { pattern: 'light', size: 'a' }, { at: 'b', up: 'ground' });
  place('courtyard', { pattern: 'door', size: 'a' }, { at: 'c', up: 'yard' });
  place('courtyard', { pattern: 'cart', size: 'a' }, { at: 'd', up: 'yard' });
  place('courtyard', { pattern: 'door', size: 'a' }, { at: 'e', up: 'yard' }, { blockedUp: true });
  place('courtyard', { pattern: 'light', size: 'a' }, { at: 'f', up: 'ground' });
  place('courtyard', { pattern: 'light', size: 'a' }, { at: 'g', up: 'ground' });
  for (const name of 'abcdefg') place('courtyard', { pattern: 'arch', size: 'a' }, { at: name, up: 'first' });
  for (const name of 'abc') place('courtyard', { pattern: 'light', size: 'b' }, { at: name, up: 'loft' });
  place(
    'courtyard',
    { pattern: 'oculus', size: 'a' },
    { at: 'd', up: 'loft' },
    {
      up: { from: 'datum', datum: 'loft', distance: 0.5 },
      grip: { across: 'centre', level: 'middle' },
    },
  );
  for (const name of 'efg') place('courtyard', { pattern: 'light', size: 'b' }, { at: name, up: 'loft' });

  const on = (id: string): Opening['along'] => ({ from: 'axis', axis: id, distance: 0 });
  axis('east', 'A', 2.05);
  axis('west', 'A', 7.6);
  'ABCD'.split('').forEach((name, i) => axis('drum', name, 2.2 + 1.15 * i));
  place('east', { pattern: 'door', size: 'b' }, { at: on('east-a'), up: 'yard' });
  place('east', { pattern: 'arch', size: 'b' }, { at: { from: 'middle', distance: -1.8 }, up: 'first' });
  place('east', { pattern: 'arch', size: 'b' }, { at: { from: 'middle', distance: 1.8 }, up: 'first' });
  place(
    'east',
    { pattern: 'oculus', size: 'b' },
    { at: { from: 'middle', distance: 0 }, up: 'gable' },
    {
      grip: { across: 'centre', level: 'middle' },
    },
  );

  for (const distance of [-7.2, -3.6, 0, 3.6, 7.2])
    place('quay', { pattern: 'arch', size: 'a' }, { at: { from: 'middle', distance }, up: 'first' });
  place('quay', { pattern: 'door', size: 'b' }, { at: { from: 'middle', distance: 0 }, up: 'yard' });
  place('west', { pattern: 'light', size: 'b' }, { at: on('west-a'), up: 'loft' });

  for (const distance of [-2.9, 0, 2.9])
    place('shed-front', { pattern: 'cart', size: 'b' }, { at: { from: 'middle', distance }, up: 'yard' });
  for (const [i, up] of [0.9, 3.2, 5.5, 7.8].entries())
    place('drum', { pattern: 'slit', size: 'a' }, { at: on(`drum-${'abcd'[i]}`), up: { from: 'base', distance: up } });
  place('drum', { pattern: 'door', size: 'a' }, { at: { from: 'start', distance: 1 }, up: 'yard' });
  place(
    'shed-south',
    { pattern: 'niche', size: 'a' },
    { at: { from: 'middle', distance: -1 }, up: { from: 'base', distance: 1.2 } },
  );
  place(
    'shed-south',
    { pattern: 'niche', size: 'a' },
    { at: { from: 'middle', distance: 1 }, up: { from: 'base', distance: 1.2 } },
  );
  place('gate', { pattern: 'cart', size: 'c' }, { at: { from: 'start', distance: 9.6 }, up: 'yard' });
  place('gate', { pattern: 'door', size: 'a' }, { at: { from: 'end', distance: 1.6 }, up: 'yard' });

  // Light for the loft: roof windows to the yard, a hatch to the quay, and a lantern's well over the ridge.
  for (const distance of [-6.6, -2.2, 2.2, 6.6])
    place(
      'main-roof',
      { pattern: 'roof-light', size: 'a' },
      { at: { from: 'middle', distance }, up: { from: 'base', distance: 2.1 } },
      { face: 'south' },
    );
  place(
    'main-roof',
    { pattern: 'hatch', size: 'a' },
    { at: { from: 'middle', distance: 3 }, up: { from: 'base', distance: 2.6 } },
    { face: 'north' },
  );
  place(
    'main-roof',
    { pattern: 'well', size: 'a' },
    { at: { from: 'middle', distance: 0 }, up: { from: 'base', distance: 5.2 } },
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
      { pattern: 'dormer-gabled', size: 's1' },
      { at: { from: 'middle', distance }, up: { from: 'base', distance: 1.5 } },
      { face: 'north' },
    );
  place(
    'main-roof',
    { pattern: 'chimney-wide', size: 's1' },
    { at: { from: 'middle', distance: -7.4 }, up: { from: 'base', distance: 5.2 } },
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
