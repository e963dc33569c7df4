/** What shipped patterns are made with: short words for fields, leaves and parts, in materials that a project has or is given. */
import {
  firstDimensions,
  type Dimensions,
  type Divided,
  type Dormer,
  type Field,
  type Framing,
  type Infill,
  type Leaf,
  type Lights,
  type Material,
  type Member,
  type Part,
  type Pattern,
  type ProfileShape,
} from '@yard-arch/document';

/** What shipped patterns are of, by the ids that they name. */
export const shippedMaterials: Record<string, Material> = {
  paint: { id: 'paint', name: 'Painted timber', colour: '#e9e4d8', roughness: 0.5 },
  green: { id: 'green', name: 'Grey-green paint', colour: '#7c8c7f', roughness: 0.5 },
  oak: { id: 'oak', name: 'Oak', colour: '#b08a5b', roughness: 0.7, texture: 'oak' },
  iron: { id: 'iron', name: 'Blackened iron', colour: '#3b4147', roughness: 0.6 },
  brass: { id: 'brass', name: 'Brass', colour: '#b99a55', roughness: 0.35 },
  glass: { id: 'glass', name: 'Glass', colour: '#a9c0c4', roughness: 0.08, opacity: 0.3 },
  stone: { id: 'stone', name: 'Limestone', colour: '#cfc6b2', roughness: 0.8, texture: 'ashlar' },
  brick: { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9, texture: 'stretcher bond' },
  slate: { id: 'slate', name: 'Slate', colour: '#69737c', roughness: 0.85, texture: 'slate' },
  lead: { id: 'lead', name: 'Sheet lead', colour: '#7d868c', roughness: 0.7 },
  clay: { id: 'clay', name: 'Fired clay', colour: '#b4684a', roughness: 0.8 },
  mortar: { id: 'mortar', name: 'Lime mortar', colour: '#d8d0bd', roughness: 0.95 },
};

export const pane: Field = { kind: 'glass', material: 'glass', thickness: 0.006 };
export const double: Field = { kind: 'glass', material: 'glass', thickness: 0.004, panes: 2, cavity: 0.012 };

export const member = (width: number, depth: number, material = 'paint'): Member => ({ width, depth, material });

export const leaf = (hung: Leaf['hung'], field: Field, over: Partial<Leaf> = {}): Leaf => ({
  kind: 'leaf',
  frame: { width: 0.052, depth: 0.05, material: 'paint', joints: 'stiles through' },
  clearance: 0.003,
  hung,
  opens: 'inward',
  angle: 0,
  field,
  ...over,
});

const divided =
  (way: Divided['way']) =>
  (lights: Lights | number, fields: Field[], bar: Member | null = member(0.05, 0.06)): Divided => ({
    kind: 'divided',
    way,
    ...(bar ? { bar } : {}),
    lights: typeof lights === 'number' ? { kind: 'equal', count: lights } : lights,
    fields,
  });
export const mullions = divided('mullions');
export const transoms = divided('transoms');

/** Glazing bars that keep every pane below so much each way. Rows come first: under a curved head they go right across, where columns of unlike heights would have theirs by steps. */
export const barred = (
  { wide, high }: { wide: number; high: number },
  material = 'paint',
  thin = 0.02,
  field: Field = pane,
): Field =>
  transoms(
    { kind: 'at most', size: high },
    [mullions({ kind: 'at most', size: wide }, [field], member(thin, 0.03, material))],
    member(thin, 0.03, material),
  );

/** So many panes each way. */
export const panes = (across: number, up: number, material = 'paint', thin = 0.02): Field =>
  transoms(up, [mullions(across, [pane], member(thin, 0.03, material))], member(thin, 0.03, material));

/** A member kept so far above the foot of its field, or below its head. */
export const at = (value: number, from: 'start' | 'end' | 'share' = 'start'): Lights => ({
  kind: 'at',
  places: [{ from, value }],
});

export const frameOf = (over: Partial<Framing> = {}): Framing => ({
  width: 0.06,
  depth: 0.07,
  material: 'paint',
  joints: 'stiles through',
  ...over,
});

export const infill = (field: Field, over: Partial<Infill> = {}): Infill => ({
  seat: { from: 'outer', depth: 0.11 },
  gap: 0.004,
  frame: frameOf(),
  field,
  ...over,
});

export const doorFrame: Partial<Infill> = {
  frame: { width: 0.07, depth: 0.09, material: 'paint', without: ['sill'], joints: 'stiles through' },
};

let number = 0;
const partId = (): string => `q${(number += 1)}`;

export const stoneSill = (material = 'stone'): Part => ({
  id: partId(),
  kind: 'stone sill',
  material,
  height: 0.09,
  depth: 0.1,
  proud: 0.05,
  ends: 0.06,
  fall: 0.014,
  drip: true,
});
export const lintel = (material = 'stone', height = 0.2, bearing = 0.16): Part => ({
  id: partId(),
  kind: 'lintel',
  material,
  height,
  bearing,
  depth: 0.1,
  proud: 0.006,
});
export const ring = (stones: number, height = 0.22, key = false, material = 'brick'): Part => ({
  id: partId(),
  kind: 'arch ring',
  material,
  height,
  stones,
  joint: 0.008,
  mortar: 'mortar',
  depth: 0.1,
  proud: 0.004,
  ...(key ? { keystone: { rise: 0.06, proud: 0.02, material: 'stone' } } : {}),
});
export const quoins = (height = 0.3): Part => ({
  id: partId(),
  kind: 'quoins',
  material: 'stone',
  height,
  long: 0.3,
  short: 0.18,
  joint: 0.006,
  mortar: 'mortar',
  depth: 0.1,
  proud: 0.006,
});
export const surround = (width = 0.13, over: Partial<Extract<Part, { kind: 'surround' }>> = {}): Part => ({
  id: partId(),
  kind: 'surround',
  material: 'stone',
  width,
  thickness: 0.035,
  sides: ['jamb-left', 'jamb-right', 'head'],
  ...over,
});
/** A board on the sill within, from the infill to before the face. */
export const windowBoard = (material = 'oak'): Part => ({
  id: partId(),
  kind: 'sill board',
  material,
  thickness: 0.028,
  nosing: 0.04,
  horns: 0.05,
  behind: true,
});
/** A moulded band round an opening that laps over the edges of its lining. */
export const architrave = (material: string, width: number, behind?: true): Part =>
  surround(width, {
    material,
    thickness: 0.02,
    off: -0.012,
    moulding: { kind: 'ogee', size: 0.014 },
    ...(behind ? { behind } : {}),
  });
/** Boards along the reveal within, and an architrave over their edges. */
export const linedWithin = (material = 'paint', width = 0.07): Part[] => [
  {
    id: partId(),
    kind: 'lining',
    material,
    thickness: 0.018,
    sides: ['jamb-left', 'jamb-right', 'head'],
    behind: true,
  },
  architrave(material, width, true),
];
/** Before the frame, which stands on the floor. */
export const threshold = (): Part => ({
  id: partId(),
  kind: 'sill board',
  material: 'stone',
  thickness: 0.02,
  nosing: 0.04,
  horns: 0,
  reach: 0.1,
});
export const bars = (height?: number, over: Partial<Extract<Part, { kind: 'guard' }>> = {}): Part => ({
  id: partId(),
  kind: 'guard',
  material: 'iron',
  ...(height === undefined ? {} : { height }),
  bar: 0.018,
  rail: height === undefined ? 0 : 0.03,
  spacing: 0.11,
  depth: 0.03,
  ...over,
});
export const shutters = (field: Field, angle = 180): Part => ({
  id: partId(),
  kind: 'shutters',
  frame: { width: 0.06, depth: 0.03, material: 'green' },
  field,
  leaves: 'pair',
  lap: 0.01,
  angle,
  vary: 8,
});

export const boards = (material: string, width = 0.13, way: 'upright' | 'level' = 'upright'): Field => ({
  kind: 'boards',
  material,
  thickness: 0.024,
  width,
  way,
  joint: 0.004,
});
export const raised = (material = 'paint'): Field => ({
  kind: 'panel',
  material,
  thickness: 0.014,
  raised: { margin: 0.05, rise: 0.008 },
});

/** A pattern that ships: its sizes as dimensions over the first ones of its shape. */
export function ships(
  id: string,
  name: string,
  shape: ProfileShape,
  { tags, sizes, more = {} }: { tags: string[]; sizes: Dimensions[]; more?: Partial<Pattern> | undefined },
): Pattern {
  return {
    id,
    name,
    profile: { shape },
    sizes: Object.fromEntries(
      sizes.map((dimensions, i) => [
        `s${i + 1}`,
        { id: `s${i + 1}`, name: '', dimensions: { ...firstDimensions(shape), ...dimensions } },
      ]),
    ),
    reveal: { material: null },
    tags,
    ...more,
  };
}

/** A dormer with a window of a pair of casements in its front. */
export const dormer = (
  form: Dormer['form'],
  { width, height, sill }: { width: number; height: number; sill: number },
  over: Partial<Dormer> = {},
): Part => ({
  id: 'dormer',
  kind: 'dormer',
  form,
  material: 'paint',
  wall: 0.12,
  height: 1.45,
  pitch: 42,
  roof: { material: 'slate', thickness: 0.09, over: 0.18 },
  window: {
    shape: 'rectangle',
    dimensions: { width, height },
    sill,
    infill: {
      seat: { from: 'outer', depth: 0.03 },
      gap: 0.003,
      frame: { width: 0.05, depth: 0.07, material: 'paint' },
      field: mullions(2, [leaf('left', pane), leaf('right', pane)], null),
    },
  },
  ...over,
});

/** A chimney with pots in a row, lead at its foot. */
export const chimney = (material: string, count: number, above: number): Part => ({
  id: 'chimney',
  kind: 'chimney',
  material,
  gap: 0.02,
  above,
  below: 1.2,
  upstand: { material: 'lead', height: 0.15, thickness: 0.03 },
  cap: { material: 'stone', over: 0.05, thickness: 0.09 },
  pots: { material: 'clay', count, diameter: 0.24, height: 0.42 },
});
