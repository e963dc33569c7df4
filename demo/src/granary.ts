/** The old granary on Fennel Quay, its courtyard, its cart shed and the yard wall. */
import { checkDocument, omit, type Layer, type Opening, type ProjectDocument, type Wall } from '@yard-arch/document';
import { otherPatterns, wallPatterns } from './granary-patterns.ts';
import { granaryRoofs } from './roofs.ts';
import { Setting } from './setting.ts';
import { granaryUndercroft } from './vaults.ts';

/** Makes the granary's document. */
export function granary(): ProjectDocument {
  const set = new Setting('Fennel Quay Granary');
  materials(set);
  wallPatterns(set);
  otherPatterns(set);
  datums(set);
  granaryWalling(set);
  yardWalling(set);
  for (const roof of granaryRoofs()) set.document.elements[roof.id] = roof;
  inGranary(set);
  inYard(set);
  inRoofs(set);
  for (const bay of granaryUndercroft()) set.document.elements[bay.id] = bay;
  return checkDocument(set.document);
}

function materials(set: Setting): void {
  set.material('brick', 'Old brick', '#b97a5c', { roughness: 0.9, texture: 'english bond' });
  set.material('limewash', 'Limewashed brick', '#d9cdb6', { roughness: 0.9, texture: 'stretcher bond' });
  set.material('stone', 'Quay limestone', '#cfc6b2', { roughness: 0.8, texture: 'ashlar' });
  set.material('rubble', 'Rubble stone', '#a79f8e', { roughness: 0.95, texture: 'ashlar' });
  set.material('plaster', 'Lime plaster', '#e6dfcf', { roughness: 0.95, texture: 'plaster' });
  set.material('insulation', 'Hemp insulation', '#d9c58a', { roughness: 1, texture: 'insulation' });
  set.material('concrete', 'New concrete', '#a9a69d', { roughness: 0.9, texture: 'concrete' });
  set.material('oak', 'Oak boards', '#b08a5a', { roughness: 0.7, texture: 'oak' });
  set.material('paint', 'Grey-green paint', '#7f8f83', { roughness: 0.5 });
  set.material('rubbed', 'Rubbed brick', '#a9563c', { roughness: 0.85 });
  set.material('mortar', 'Lime mortar', '#d8d0bd', { roughness: 0.95 });
  set.material('iron', 'Blackened iron', '#3b4147', { roughness: 0.6 });
  set.material('slate', 'Old slate', '#69737c', { roughness: 0.7, texture: 'slate' });
  set.material('battens', 'Battens', '#b08d62', { roughness: 0.9 });
  set.material('boarding', 'Boarding', '#c9a878', { roughness: 0.8, texture: 'oak' });
  set.document.materials.glass = { id: 'glass', name: 'Glass', colour: '#9db8bf', roughness: 0.08, opacity: 0.32 };
}

function datums({ document }: Setting): void {
  document.datums.yard = { id: 'yard', name: 'Yard', level: 0, element: null, kind: 'floor' };
  document.datums.ground = { id: 'ground', name: 'Ground sill', level: 1.2, element: null, kind: 'sill' };
  document.datums.first = { id: 'first', name: 'First sill', level: 3.75, element: null, kind: 'sill' };
  document.datums.gable = { id: 'gable', name: 'Gable lights', level: 9.9, element: null };
  document.datums.loft = { id: 'loft', name: 'Loft sill', level: 6.7, element: null, kind: 'sill' };
}

// The old brick stays outside; the conversion lines it within.
const granaryWall: Layer[] = [
  { thickness: 0.33, material: 'brick' },
  { thickness: 0.1, material: 'insulation' },
  { thickness: 0.02, material: 'plaster' },
];
const shedWall: Layer[] = [{ thickness: 0.35, material: 'limewash' }];
const joined = (start: 'square' | 'mitred' | 'butted', end = start): Partial<Wall> => ({ ends: { start, end } });
const under = (roof: string): Wall['top'] => ({ kind: 'under', roof });

/** The granary: two long walls, and two ends between them; and the stair drum. */
function granaryWalling(set: Setting): void {
  const main = under('main-roof');
  set.wall(
    'courtyard',
    'Courtyard wall',
    { x: 0, y: 0, turn: 0, length: 19.2, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  set.wall(
    'east',
    'East gable',
    { x: 19.2, y: 0, turn: 90, length: 9.6, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  set.wall(
    'quay',
    'Quay wall',
    { x: 19.2, y: 9.6, turn: 180, length: 19.2, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  set.wall(
    'west',
    'West gable',
    { x: 0, y: 9.6, turn: -90, length: 9.6, height: 8.4 },
    { layers: granaryWall, top: main, more: joined('mitred') },
  );
  // The stair drum stands against the quay wall's end, round but for a slice.
  set.wall(
    'drum',
    'Stair drum',
    { x: 20.6, y: 10.2, turn: 20, length: 8.2, height: 10.4 },
    { layers: shedWall, top: under('drum-roof'), more: { sweep: 250 } },
  );
}

/** The cart shed along the west of the yard, and the wall with the gate. */
function yardWalling(set: Setting): void {
  const shed = under('shed-roof');
  set.wall(
    'shed-front',
    'Cart shed front',
    { x: 0, y: -9.6, turn: 90, length: 9.6, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  set.wall(
    'shed-south',
    'Cart shed gable',
    { x: -5.4, y: -9.6, turn: 0, length: 5.4, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  set.wall(
    'shed-back',
    'Cart shed back',
    { x: -5.4, y: 0, turn: -90, length: 9.6, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  set.wall(
    'shed-north',
    'Cart shed north',
    { x: 0, y: 0, turn: 180, length: 5.4, height: 3.9 },
    { layers: shedWall, top: shed, more: joined('mitred') },
  );
  set.wall(
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
}

const on = (id: string): Opening['along'] => ({ from: 'axis', axis: id, distance: 0 });

/** Openings of the granary's own walls. */
function inGranary(set: Setting): void {
  'ABCDEFG'.split('').forEach((name, i) => set.axis('courtyard', name, 1.8 + 2.6 * i));
  set.place('courtyard', { pattern: 'light', size: 'a' }, { at: 'a', up: 'ground' });
  set.place('courtyard', { pattern: 'light', size: 'a' }, { at: 'b', up: 'ground' });
  set.place('courtyard', { pattern: 'door', size: 'a' }, { at: 'c', up: 'yard' });
  set.place('courtyard', { pattern: 'cart', size: 'a' }, { at: 'd', up: 'yard' });
  set.place('courtyard', { pattern: 'door', size: 'a' }, { at: 'e', up: 'yard' }, { blockedUp: true });
  set.place('courtyard', { pattern: 'light', size: 'a' }, { at: 'f', up: 'ground' });
  set.place('courtyard', { pattern: 'light', size: 'a' }, { at: 'g', up: 'ground' });
  for (const name of 'abcdefg') set.place('courtyard', { pattern: 'arch', size: 'a' }, { at: name, up: 'first' });
  for (const name of 'abc') set.place('courtyard', { pattern: 'light', size: 'b' }, { at: name, up: 'loft' });
  set.place(
    'courtyard',
    { pattern: 'oculus', size: 'a' },
    { at: 'd', up: 'loft' },
    {
      up: { from: 'datum', datum: 'loft', distance: 0.5 },
      grip: { across: 'centre', level: 'middle' },
    },
  );
  for (const name of 'efg') set.place('courtyard', { pattern: 'light', size: 'b' }, { at: name, up: 'loft' });

  set.axis('east', 'A', 2.05);
  set.axis('west', 'A', 7.6);
  'ABCD'.split('').forEach((name, i) => set.axis('drum', name, 2.2 + 1.15 * i));
  set.place('east', { pattern: 'door', size: 'b' }, { at: on('east-a'), up: 'yard' });
  set.place('east', { pattern: 'arch', size: 'b' }, { at: { from: 'middle', distance: -1.8 }, up: 'first' });
  set.place('east', { pattern: 'arch', size: 'b' }, { at: { from: 'middle', distance: 1.8 }, up: 'first' });
  set.place(
    'east',
    { pattern: 'oculus', size: 'b' },
    { at: { from: 'middle', distance: 0 }, up: 'gable' },
    {
      grip: { across: 'centre', level: 'middle' },
    },
  );

  for (const distance of [-7.2, -3.6, 0, 3.6, 7.2])
    set.place('quay', { pattern: 'arch', size: 'a' }, { at: { from: 'middle', distance }, up: 'first' });
  set.place('quay', { pattern: 'door', size: 'b' }, { at: { from: 'middle', distance: 0 }, up: 'yard' });
  set.place('west', { pattern: 'light', size: 'b' }, { at: on('west-a'), up: 'loft' });
}

/** Those of the drum, the cart shed and the gate wall. */
function inYard(set: Setting): void {
  for (const distance of [-2.9, 0, 2.9])
    set.place('shed-front', { pattern: 'cart', size: 'b' }, { at: { from: 'middle', distance }, up: 'yard' });
  for (const [i, up] of [0.9, 3.2, 5.5, 7.8].entries())
    set.place(
      'drum',
      { pattern: 'slit', size: 'a' },
      { at: on(`drum-${'abcd'[i]}`), up: { from: 'base', distance: up } },
    );
  set.place('drum', { pattern: 'door', size: 'a' }, { at: { from: 'start', distance: 1 }, up: 'yard' });
  set.place(
    'shed-south',
    { pattern: 'niche', size: 'a' },
    { at: { from: 'middle', distance: -1 }, up: { from: 'base', distance: 1.2 } },
  );
  set.place(
    'shed-south',
    { pattern: 'niche', size: 'a' },
    { at: { from: 'middle', distance: 1 }, up: { from: 'base', distance: 1.2 } },
  );
  set.place('gate', { pattern: 'cart', size: 'c' }, { at: { from: 'start', distance: 9.6 }, up: 'yard' });
  set.place('gate', { pattern: 'door', size: 'a' }, { at: { from: 'end', distance: 1.6 }, up: 'yard' });
}

/** Light for the loft: roof windows to the yard, a hatch to the quay, and a lantern's well over the ridge; dormers to the quay, and a stack behind the ridge. */
function inRoofs(set: Setting): void {
  for (const distance of [-6.6, -2.2, 2.2, 6.6])
    set.place(
      'main-roof',
      { pattern: 'roof-light', size: 'a' },
      { at: { from: 'middle', distance }, up: { from: 'base', distance: 2.1 } },
      { face: 'south' },
    );
  set.place(
    'main-roof',
    { pattern: 'hatch', size: 'a' },
    { at: { from: 'middle', distance: 3 }, up: { from: 'base', distance: 2.6 } },
    { face: 'north' },
  );
  set.place(
    'main-roof',
    { pattern: 'well', size: 'a' },
    { at: { from: 'middle', distance: 0 }, up: { from: 'base', distance: 5.2 } },
    {
      grip: { across: 'centre', level: 'middle' },
    },
  );

  set.takeIn('dormer-gabled');
  set.takeIn('chimney-wide');
  for (const distance of [-4.4, 5.8])
    set.place(
      'main-roof',
      { pattern: 'dormer-gabled', size: 's1' },
      { at: { from: 'middle', distance }, up: { from: 'base', distance: 1.5 } },
      { face: 'north' },
    );
  set.place(
    'main-roof',
    { pattern: 'chimney-wide', size: 's1' },
    { at: { from: 'middle', distance: -7.4 }, up: { from: 'base', distance: 5.2 } },
    { face: 'north' },
  );
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

/** A document with nothing in its openings, which takes half the time to be cut; what stands on a roof stays. */
export const bare = (document: ProjectDocument): ProjectDocument => ({
  ...document,
  patterns: Object.fromEntries(
    Object.values(document.patterns).map((pattern) => [
      pattern.id,
      pattern.onSlope ? pattern : omit(pattern, 'infill', 'parts'),
    ]),
  ),
});
