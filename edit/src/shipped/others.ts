/** Shipped vents, niches, archways and pockets. */
import type { Pattern } from '@yard-arch/document';
import {
  architrave,
  boards,
  chimney,
  dormer,
  double,
  frameOf,
  infill,
  linedWithin,
  quoins,
  ring,
  ships,
  stoneSill,
  surround,
} from './make.ts';

const metal = {
  frame: frameOf({ width: 0.03, depth: 0.05, material: 'iron', joints: 'mitred' }),
  seat: { from: 'outer', depth: 0.04 },
} as const;

export const others: Pattern[] = [
  ships('louvred-vent', 'Louvred vent', 'rectangle', {
    tags: ['vent', 'timber'],
    sizes: [
      { width: 0.7, height: 0.9 },
      { width: 0.9, height: 1.2 },
    ],
    more: {
      infill: infill(
        { kind: 'louvres', material: 'green', thickness: 0.012, width: 0.06, spacing: 0.06, slope: 40 },
        { frame: frameOf({ material: 'green' }) },
      ),
      parts: [stoneSill()],
    },
  }),
  ships('belfry', 'Belfry louvres', 'pointed-arch', {
    tags: ['vent', 'chapel'],
    sizes: [{ span: 1, height: 2.1, rise: 0.866 }],
    more: {
      infill: infill(
        { kind: 'louvres', material: 'oak', thickness: 0.018, width: 0.09, spacing: 0.11, slope: 45 },
        { frame: frameOf({ width: 0.08, depth: 0.1, material: 'oak', joints: 'mitred' }) },
      ),
      parts: [
        stoneSill(),
        surround(0.1, { off: 0.02, sides: ['head'], thickness: 0.05, moulding: { kind: 'hollowed', size: 0.03 } }),
      ],
    },
  }),
  ships('perforated-vent', 'Perforated vent', 'chamfered-rectangle', {
    tags: ['vent', 'iron'],
    sizes: [{ width: 0.5, height: 0.4, chamfer: 0.06 }],
    more: {
      infill: infill({ kind: 'perforated', material: 'iron', thickness: 0.003, hole: 0.016, pitch: 0.036 }, metal),
    },
  }),
  ships('star-vent', 'Star vent', 'star', {
    tags: ['vent'],
    sizes: [{ diameter: 0.5, inner: 0.26 }],
    more: {
      profile: { shape: 'star', sides: 6 },
      infill: infill(
        { kind: 'perforated', material: 'iron', thickness: 0.003, hole: 0.012, pitch: 0.03 },
        { ...metal, frame: frameOf({ width: 0.012, depth: 0.04, material: 'iron', joints: 'mitred' }) },
      ),
    },
  }),
  ships('archway', 'Archway', 'semicircular-arch', {
    tags: ['arch', 'open'],
    sizes: [
      { span: 2.4, height: 3 },
      { span: 1.8, height: 2.6 },
    ],
    more: {
      onFloor: true,
      parts: [ring(21, 0.3, true, 'stone'), quoins(0.34)],
    },
  }),
  ships('cased', 'Cased opening', 'rectangle', {
    tags: ['open', 'timber'],
    sizes: [
      { width: 0.9, height: 2.1 },
      { width: 1.5, height: 2.2 },
    ],
    more: {
      onFloor: true,
      parts: [...linedWithin('paint', 0.08), architrave('paint', 0.08)],
    },
  }),
  ships('niche', 'Statue niche', 'semicircular-arch', {
    tags: ['niche'],
    sizes: [{ span: 0.6, height: 1.4 }],
    more: {
      cut: { kind: 'niche', depth: 0.22 },
      parts: [
        surround(0.08, { moulding: { kind: 'rounded', size: 0.02 } }),
        { id: 'q0', kind: 'sill board', material: 'stone', thickness: 0.05, nosing: 0.06, horns: 0, reach: 0.2 },
      ],
    },
  }),
  ships('beam-pocket', 'Beam pocket', 'i-section', {
    tags: ['pocket'],
    sizes: [{}],
    more: { cut: { kind: 'niche', depth: 0.2 } },
  }),
  ships('rail-slot', 'Rail slot', 't-section', {
    tags: ['pocket'],
    sizes: [{ width: 0.2, height: 0.25, web: 0.04, flange: 0.04 }],
    more: {
      cut: { kind: 'niche', depth: 0.12 },
    },
  }),
  ships('channel-slot', 'Channel slot', 'channel-section', {
    tags: ['pocket'],
    sizes: [{}],
    more: { cut: { kind: 'niche', depth: 0.15 } },
  }),
  ships('angle-slot', 'Angle slot', 'angle-section', {
    tags: ['pocket'],
    sizes: [{ width: 0.3, height: 0.3, web: 0.05 }],
    more: {
      cut: { kind: 'niche', depth: 0.1 },
    },
  }),
  ships('number', 'Number in the wall', 'text', {
    tags: ['niche'],
    sizes: [{ height: 0.24 }],
    more: {
      profile: { shape: 'text', text: '8' },
      cut: { kind: 'niche', depth: 0.02 },
    },
  }),
  ships('keyhole', 'Shaped vent', 'free', {
    tags: ['vent'],
    sizes: [{ width: 0.36, height: 0.6 }],
    more: {
      profile: {
        shape: 'free',
        outline: [
          { x: 0.06, y: 0 },
          { x: 0.3, y: 0 },
          { x: 0.24, y: 0.26, bulge: 2.4 },
          { x: 0.12, y: 0.26 },
        ],
      },
    },
  }),
  ships('roof-window', 'Roof window', 'rectangle', {
    tags: ['window', 'roof'],
    sizes: [
      { width: 0.78, height: 1.18 },
      { width: 1.14, height: 1.4 },
      { width: 0.55, height: 0.78 },
    ],
    more: {
      infill: infill(double, {
        frame: frameOf({ width: 0.06, depth: 0.09, material: 'iron', joints: 'mitred' }),
        seat: { from: 'outer', depth: 0 },
      }),
    },
  }),
  ships('roof-hatch', 'Roof hatch', 'rectangle', {
    tags: ['hatch', 'roof'],
    sizes: [{ width: 0.7, height: 0.9 }],
    more: {
      infill: infill(boards('oak', 0.12), {
        frame: frameOf({ width: 0.06, depth: 0.1, material: 'oak' }),
        seat: { from: 'outer', depth: 0 },
      }),
    },
  }),
  ships('dormer-gabled', 'Gabled dormer', 'rectangle', {
    tags: ['dormer', 'roof'],
    sizes: [{ width: 1.2, height: 1.5 }],
    more: {
      onSlope: 'plumb',
      parts: [dormer('gabled', { width: 0.96, height: 1.05, sill: 0.2 })],
    },
  }),
  ships('dormer-flat', 'Flat dormer', 'rectangle', {
    tags: ['dormer', 'roof'],
    sizes: [{ width: 1.8, height: 1.5 }],
    more: {
      onSlope: 'plumb',
      parts: [
        dormer(
          'flat',
          { width: 1.5, height: 1.05, sill: 0.2 },
          { roof: { material: 'lead', thickness: 0.1, over: 0.15 } },
        ),
      ],
    },
  }),
  ships('dormer-eyebrow', 'Eyebrow dormer', 'rectangle', {
    tags: ['dormer', 'roof'],
    sizes: [{ width: 1.6, height: 0.7 }],
    more: {
      onSlope: 'plumb',
      parts: [
        dormer(
          'eyebrow',
          { width: 0.6, height: 0.3, sill: 0.1 },
          { pitch: 62, wall: 0.12, roof: { material: 'slate', thickness: 0.08, over: 0.12 } },
        ),
      ],
    },
  }),
  ships('chimney', 'Chimney', 'rectangle', {
    tags: ['chimney', 'roof'],
    sizes: [{ width: 0.56, height: 0.7 }],
    more: {
      onSlope: 'plumb',
      parts: [chimney('brick', 1, 1.1)],
    },
  }),
  ships('chimney-wide', 'Chimney stack, three pots', 'rectangle', {
    tags: ['chimney', 'roof'],
    sizes: [{ width: 1.3, height: 0.72 }],
    more: {
      onSlope: 'plumb',
      parts: [chimney('stone', 3, 1.4)],
    },
  }),
];
