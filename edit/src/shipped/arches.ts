/** Shipped windows with round, pointed and other heads, and round lights. */
import type { Pattern } from '@yard-arch/document';
import {
  at,
  barred,
  frameOf,
  infill,
  leaf,
  member,
  mullions,
  pane,
  panes,
  ring,
  ships,
  stoneSill,
  surround,
  transoms,
} from './make.ts';

const all = { sides: ['jamb-left', 'jamb-right', 'head', 'sill'] as ('head' | 'sill' | 'jamb-left' | 'jamb-right')[] };
const stone = (width: number, depth = 0.14) => member(width, depth, 'stone');
const stoneFrame = frameOf({
  width: 0.1,
  depth: 0.14,
  material: 'stone',
  moulding: { kind: 'chamfered', size: 0.045 },
});

export const arches: Pattern[] = [
  ships('fanlight', 'Granary arch', 'semicircular-arch', {
    tags: ['window', 'arch', 'timber'],
    sizes: [
      { span: 1.3, height: 2.1 },
      { span: 1.1, height: 1.8 },
      { span: 1.6, height: 2.4 },
    ],
    more: {
      infill: infill(
        transoms(at(0.58, 'share'), [
          mullions(
            2,
            [
              leaf('left', barred({ wide: 0.5, high: 0.42 })),
              leaf('right', barred({ wide: 0.5, high: 0.42 }), { cover: member(0.05, 0.012) }),
            ],
            null,
          ),
          { kind: 'fan', about: 'foot', bar: member(0.024, 0.034), count: 5, rings: [0.34], hub: true, fields: [pane] },
        ]),
      ),
      parts: [stoneSill(), ring(17, 0.24, true)],
    },
  }),
  ships('basket', 'Three-centred window', 'three-centred-arch', {
    tags: ['window', 'arch'],
    sizes: [{ span: 1.8, height: 1.9, rise: 0.5 }],
    more: {
      infill: infill(
        mullions(3, [
          leaf('left', barred({ wide: 0.5, high: 0.5 })),
          transoms(at(0.5, 'end'), [pane], member(0.03, 0.04)),
          leaf('right', barred({ wide: 0.5, high: 0.5 })),
        ]),
      ),
      parts: [stoneSill(), ring(21, 0.26)],
    },
  }),
  ships('lunette', 'Elliptical light', 'elliptical-arch', {
    tags: ['window', 'arch'],
    sizes: [{ span: 2, height: 1.1, rise: 0.6 }],
    more: {
      infill: infill({
        kind: 'fan',
        about: 'foot',
        bar: member(0.026, 0.036),
        count: 7,
        rings: [0.4, 0.72],
        hub: true,
        fields: [pane],
      }),
      parts: [stoneSill(), ring(23, 0.24)],
    },
  }),
  ships('pointed', 'Chapel window', 'pointed-arch', {
    tags: ['window', 'chapel', 'stone'],
    sizes: [
      { span: 1.6, height: 3, rise: 1.3856 },
      { span: 1.2, height: 2.4, rise: 1.0392 },
    ],
    more: {
      infill: infill(
        {
          kind: 'interlacing',
          bar: stone(0.07),
          count: 3,
          fields: [{ kind: 'lattice', bar: member(0.008, 0.012, 'iron'), spacing: 0.16, slope: 56, fields: [pane] }],
        },
        { frame: stoneFrame, gap: 0 },
      ),
      parts: [
        stoneSill(),
        surround(0.09, { off: 0.12, sides: ['head'], thickness: 0.06, moulding: { kind: 'hollowed', size: 0.04 } }),
      ],
    },
  }),
  ships('lancet', 'Lancet', 'pointed-arch', {
    tags: ['window', 'chapel'],
    sizes: [{ span: 0.5, height: 1.9, rise: 0.62 }],
    more: {
      infill: infill(
        { kind: 'lattice', bar: member(0.009, 0.012, 'iron'), spacing: 0.13, slope: 58, fields: [pane] },
        { frame: stoneFrame, gap: 0 },
      ),
      parts: [stoneSill(), ring(11, 0.2, false, 'stone')],
    },
  }),
  ships('four-centred', 'Four-centred window', 'four-centred-arch', {
    tags: ['window', 'stone'],
    sizes: [{ span: 1.8, height: 2.2, rise: 0.5, radius: 0.25 }],
    more: {
      infill: infill(
        transoms(
          at(0.62, 'share'),
          [
            mullions(3, [leaf('left', pane, { frame: member(0.03, 0.04, 'iron') })], stone(0.08)),
            mullions(3, [pane], stone(0.08)),
          ],
          stone(0.07),
        ),
        { frame: stoneFrame, gap: 0 },
      ),
      parts: [stoneSill()],
    },
  }),
  ships('horseshoe', 'Horseshoe light', 'horseshoe-arch', {
    tags: ['window', 'arch'],
    sizes: [{ span: 1, height: 1.7, rise: 0.72 }],
    more: {
      infill: infill(
        transoms(
          at(0.5, 'share'),
          [
            panes(2, 2, 'green', 0.022),
            {
              kind: 'fan',
              about: 'foot',
              bar: member(0.022, 0.03, 'green'),
              count: 6,
              rings: [0.42],
              hub: true,
              fields: [pane],
            },
          ],
          member(0.04, 0.06, 'green'),
        ),
        { frame: frameOf({ material: 'green', joints: 'mitred' }) },
      ),
      parts: [stoneSill()],
    },
  }),
  ships('ogee', 'Ogee light', 'ogee-arch', {
    tags: ['window', 'chapel'],
    sizes: [{ span: 0.9, height: 1.9, rise: 0.7 }],
    more: {
      infill: infill(mullions(2, [pane], stone(0.06, 0.1)), {
        frame: frameOf({ width: 0.07, depth: 0.1, material: 'stone', joints: 'mitred' }),
        gap: 0,
      }),
      parts: [stoneSill()],
    },
  }),
  ships('oculus', 'Oculus', 'circle', {
    tags: ['window', 'round'],
    sizes: [{ diameter: 0.9 }, { diameter: 1.2 }],
    more: {
      infill: infill(
        { kind: 'fan', about: 'middle', bar: member(0.03, 0.04), count: 4, rings: [], hub: false, fields: [pane] },
        { frame: frameOf({ joints: 'mitred', moulding: { kind: 'rounded', size: 0.015 } }) },
      ),
      parts: [surround(0.12, { ...all, moulding: { kind: 'ogee', size: 0.03 } })],
    },
  }),
  ships('rose', 'Rose of eight', 'circle', {
    tags: ['window', 'round', 'chapel'],
    sizes: [{ diameter: 1.8 }, { diameter: 2.4 }],
    more: {
      infill: infill(
        { kind: 'fan', about: 'middle', bar: stone(0.055), count: 8, rings: [0.3, 0.68], hub: true, fields: [pane] },
        { frame: stoneFrame, gap: 0 },
      ),
      parts: [surround(0.16, { ...all, thickness: 0.05, moulding: { kind: 'hollowed', size: 0.035 } })],
    },
  }),
  ships('ellipse', 'Oval light', 'ellipse', {
    tags: ['window', 'round'],
    sizes: [
      { width: 1.2, height: 0.8 },
      { width: 0.8, height: 1.2 },
    ],
    more: {
      infill: infill(
        { kind: 'fan', about: 'middle', bar: member(0.022, 0.034), count: 6, rings: [0.42], hub: true, fields: [pane] },
        { frame: frameOf({ joints: 'mitred' }) },
      ),
      parts: [surround(0.1, all)],
    },
  }),
  ships('quatrefoil', 'Quatrefoil', 'quatrefoil', {
    tags: ['window', 'chapel'],
    sizes: [{ diameter: 0.8 }],
    more: {
      infill: infill(pane, {
        frame: frameOf({ width: 0.05, depth: 0.1, material: 'stone', joints: 'mitred' }),
        gap: 0,
      }),
    },
  }),
  ships('trefoil', 'Trefoil', 'trefoil', {
    tags: ['window', 'chapel'],
    sizes: [{ diameter: 0.8 }],
    more: {
      infill: infill(pane, {
        frame: frameOf({ width: 0.05, depth: 0.1, material: 'stone', joints: 'mitred' }),
        gap: 0,
      }),
    },
  }),
  ships('hexagon', 'Hexagon light', 'regular-polygon', {
    tags: ['window', 'round'],
    sizes: [{ diameter: 1 }],
    more: {
      infill: infill(
        {
          kind: 'fan',
          about: 'middle',
          bar: member(0.024, 0.034, 'green'),
          count: 6,
          rings: [],
          hub: false,
          fields: [pane],
        },
        { frame: frameOf({ material: 'green', joints: 'mitred' }) },
      ),
      parts: [surround(0.09, all)],
      profile: { shape: 'regular-polygon', sides: 6 },
    },
  }),
];
