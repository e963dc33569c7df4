/** The patterns of the granary: its windows and doors, cart arches, slits, roof windows and niches. */
import type { Part, Pattern, Section } from '@yard-arch/document';
import { casements, crossed, gates, roofHatch, roofLight, slitLight, underArch, yardDoor } from './infills.ts';
import type { Setting } from './setting.ts';

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
const sills: Part[] = [
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

/** Those that stand in its walls. */
export function wallPatterns(set: Setting): void {
  windows(set);
  doors(set);
  smallLights(set);
}

function windows(set: Setting): void {
  set.pattern(
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
  set.pattern(
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
}

function doors(set: Setting): void {
  set.pattern(
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
  set.pattern(
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
}

function smallLights(set: Setting): void {
  set.pattern(
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
  set.pattern(
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
}

/** Those that are let into its roofs, and the niche of the shed. */
export function otherPatterns(set: Setting): void {
  set.pattern(
    'roof-light',
    'Roof window',
    { shape: 'rectangle', sizes: { a: [0.94, 1.4] } },
    { reveal: own, more: { infill: roofLight } },
  );
  set.pattern(
    'hatch',
    'Roof hatch',
    { shape: 'rectangle', sizes: { a: [0.7, 0.9] } },
    { reveal: own, more: { infill: roofHatch } },
  );
  set.pattern('well', 'Lantern well', { shape: 'ellipse', sizes: { a: [2.6, 1.5] } }, { reveal: own });
  set.pattern(
    'niche',
    'Lamp niche',
    { shape: 'pointed-arch', sizes: { a: [0.5, 0.9, 0.4] } },
    {
      reveal: { material: 'stone' },
      more: { cut: { kind: 'niche', depth: 0.16 }, sections: { sill: { splayOutside: 10 } } },
    },
  );
}
