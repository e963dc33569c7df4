/** What stands in the granary's openings. */
import type { Field, Infill, Leaf } from '@yard-arch/document';

const paint = 'paint';
const pane: Field = { kind: 'glass', material: 'glass', thickness: 0.024 };
const board: Field = { kind: 'boards', material: 'oak', thickness: 0.03, width: 0.14, way: 'upright', joint: 0.004 };

const leaf = (hung: Leaf['hung'], field: Field, over: Partial<Leaf> = {}): Leaf => ({
  kind: 'leaf',
  frame: { width: 0.055, depth: 0.056, material: paint },
  clearance: 0.003,
  hung,
  opens: 'inward',
  angle: 0,
  field,
  ...over,
});

/** Bars that keep each pane from being larger than so much, both ways. */
const barred = (wide: number, high: number): Field => ({
  kind: 'divided',
  way: 'mullions',
  bar: { width: 0.024, depth: 0.034, material: paint },
  lights: { kind: 'at most', size: wide },
  fields: [
    {
      kind: 'divided',
      way: 'transoms',
      bar: { width: 0.024, depth: 0.034, material: paint },
      lights: { kind: 'at most', size: high },
      fields: [pane],
    },
  ],
});

const pair = (one: Field, other: Field): Field => ({
  kind: 'divided',
  way: 'mullions',
  bar: { width: 0.03, depth: 0.056, material: paint },
  lights: { kind: 'equal', count: 2 },
  fields: [one, other],
});

const frame = { width: 0.07, depth: 0.07, material: paint, joints: 'stiles through' } as const;
const straps = { count: 3, width: 0.05, share: 0.82, material: 'iron' };
const knob = { kind: 'knob', material: 'iron', height: 1.02 } as const;
const behindCheck = { from: 'check', depth: 0 } as const;

/** Casements side by side, barred. */
export const casements: Infill = {
  seat: behindCheck,
  gap: 0.005,
  frame,
  field: pair(leaf('left', barred(0.5, 0.42)), leaf('right', barred(0.5, 0.42))),
};

/** Casements below a transom, and a fixed light in the arch. */
export const underArch: Infill = {
  seat: behindCheck,
  gap: 0.005,
  frame,
  field: {
    kind: 'divided',
    way: 'transoms',
    bar: { width: 0.06, depth: 0.07, material: paint },
    lights: { kind: 'at', places: [{ from: 'start', value: 1.12 }] },
    fields: [
      pair(leaf('left', barred(0.6, 0.4)), leaf('right', barred(0.6, 0.4))),
      {
        kind: 'fan',
        about: 'foot',
        bar: { width: 0.024, depth: 0.034, material: paint },
        count: 5,
        rings: [0.36],
        hub: true,
        fields: [pane],
      },
    ],
  },
};

/** A pair of boarded leaves, one of them ajar. */
export const gates: Infill = {
  seat: { from: 'outer', depth: 0.12 },
  gap: 0.004,
  frame: { width: 0.09, depth: 0.09, material: paint, without: ['sill'] },
  field: pair(
    leaf('left', board, { frame: { width: 0.13, depth: 0.055, material: 'oak' }, straps, angle: 35 }),
    leaf('right', board, { frame: { width: 0.13, depth: 0.055, material: 'oak' }, straps }),
  ),
};

/** A boarded leaf with a light at its head. */
export const yardDoor: Infill = {
  seat: { from: 'outer', depth: 0.12 },
  gap: 0.004,
  frame: { width: 0.07, depth: 0.08, material: paint, without: ['sill'] },
  field: leaf(
    'left',
    {
      kind: 'divided',
      way: 'transoms',
      bar: { width: 0.11, depth: 0.05, material: paint },
      lights: { kind: 'at', places: [{ from: 'end', value: 0.62 }] },
      fields: [board, barred(0.4, 0.6)],
    },
    { frame: { width: 0.1, depth: 0.05, material: paint, joints: 'stiles through' }, handle: knob },
  ),
};

/** A cross of bars in a round light. */
export const crossed: Infill = {
  seat: { from: 'outer', depth: 0.1 },
  gap: 0.004,
  frame: { width: 0.055, depth: 0.06, material: paint },
  field: {
    kind: 'divided',
    way: 'mullions',
    bar: { width: 0.03, depth: 0.04, material: paint },
    lights: { kind: 'equal', count: 2 },
    fields: [
      {
        kind: 'divided',
        way: 'transoms',
        bar: { width: 0.03, depth: 0.04, material: paint },
        lights: { kind: 'equal', count: 2 },
        fields: [pane],
      },
    ],
  },
};

/** A plain pane in a thin frame. */
export const slitLight: Infill = {
  seat: { from: 'outer', depth: 0.1 },
  gap: 0.003,
  frame: { width: 0.035, depth: 0.05, material: paint },
  field: pane,
};

/** Glass in a slim frame that lies on the slates. */
export const roofLight: Infill = {
  seat: { from: 'outer', depth: 0 },
  gap: 0.004,
  frame: { width: 0.06, depth: 0.09, material: 'iron', joints: 'mitred' },
  field: { kind: 'glass', material: 'glass', thickness: 0.004, panes: 2, cavity: 0.012 },
};

/** A boarded hatch. */
export const roofHatch: Infill = {
  seat: { from: 'outer', depth: 0 },
  gap: 0.004,
  frame: { width: 0.06, depth: 0.1, material: 'oak', joints: 'mitred' },
  field: board,
};
