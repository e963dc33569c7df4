/** Shipped windows. */
import type { Pattern } from '@yard-arch/document';
import {
  at,
  barred,
  bars,
  boards,
  double,
  frameOf,
  infill,
  leaf,
  lintel,
  member,
  mullions,
  pane,
  panes,
  quoins,
  ring,
  ships,
  shutters,
  stoneSill,
  surround,
  transoms,
  linedWithin,
  windowBoard,
} from './make.ts';

const knob = { kind: 'knob', material: 'brass' } as const;
const iron = (width: number, depth = 0.04) => ({ width, depth, material: 'iron' });
const ironFrame = { frame: iron(0.04, 0.05), gap: 0.003 };

export const windows: Pattern[] = [
  ships('casements', 'Pair of casements', 'rectangle', {
    tags: ['window', 'timber'],
    sizes: [
      { width: 1.2, height: 1.4 },
      { width: 1, height: 1.2 },
      { width: 1.5, height: 1.6 },
    ],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf('left', barred({ wide: 0.5, high: 0.45 })),
            leaf('right', barred({ wide: 0.5, high: 0.45 }), {
              cover: member(0.05, 0.012),
              handle: { kind: 'lever', material: 'brass' },
            }),
          ],
          null,
        ),
      ),
      parts: [stoneSill(), lintel(), windowBoard(), ...linedWithin()],
    },
  }),
  ships('casement', 'Single casement', 'rectangle', {
    tags: ['window', 'timber'],
    sizes: [
      { width: 0.7, height: 1.1 },
      { width: 0.6, height: 0.9 },
    ],
    more: {
      infill: infill(leaf('left', double, { handle: knob, vary: 0 })),
      parts: [stoneSill(), windowBoard()],
    },
  }),
  ships('fixed', 'Fixed light', 'rectangle', {
    tags: ['window', 'plain'],
    sizes: [
      { width: 1.6, height: 1.2 },
      { width: 2.4, height: 1.4 },
    ],
    more: {
      infill: infill(double, { frame: frameOf({ moulding: { kind: 'chamfered', size: 0.012 } }) }),
      parts: [stoneSill()],
    },
  }),
  ships('sliding-sashes', 'Sliding sashes', 'rectangle', {
    tags: ['window', 'timber', 'sliding'],
    sizes: [
      { width: 1, height: 1.8 },
      { width: 0.9, height: 1.5 },
      { width: 1.2, height: 2.1 },
    ],
    more: {
      infill: infill(
        transoms(
          2,
          [
            leaf('slides up', panes(3, 2), {
              frame: { width: 0.048, depth: 0.034, material: 'paint', joints: 'stiles through' },
            }),
            leaf('slides down', panes(3, 2), {
              opens: 'outward',
              frame: { width: 0.048, depth: 0.034, material: 'paint', joints: 'stiles through' },
            }),
          ],
          null,
        ),
        { frame: frameOf({ width: 0.05, depth: 0.11 }) },
      ),
      parts: [stoneSill(), ring(13, 0.24), windowBoard('paint'), ...linedWithin()],
    },
  }),
  ships('works-light', 'Works light', 'segmental-arch', {
    tags: ['window', 'iron', 'arch'],
    sizes: [
      { span: 1.6, height: 2.2, rise: 0.24 },
      { span: 1.3, height: 1.9, rise: 0.2 },
    ],
    more: {
      infill: infill(barred({ wide: 0.34, high: 0.42 }, 'iron', 0.018), ironFrame),
      parts: [stoneSill(), ring(17, 0.24)],
    },
  }),
  ships('hopper', 'Bottom-hung light', 'rectangle', {
    tags: ['window', 'timber'],
    sizes: [
      { width: 0.9, height: 0.6 },
      { width: 1.2, height: 0.6 },
    ],
    more: {
      infill: infill(leaf('bottom', double, { angle: 20, vary: 12, handle: knob })),
      parts: [stoneSill()],
    },
  }),
  ships('top-hung', 'Top-hung light', 'rectangle', {
    tags: ['window', 'timber'],
    sizes: [
      { width: 0.9, height: 0.9 },
      { width: 1.3, height: 0.9 },
    ],
    more: {
      infill: infill(leaf('top', double, { opens: 'outward', angle: 15, vary: 8, handle: knob })),
      parts: [stoneSill()],
    },
  }),
  ships('pivot', 'Pivoted light', 'rectangle', {
    tags: ['window', 'iron'],
    sizes: [
      { width: 1.2, height: 1.2 },
      { width: 1, height: 1 },
    ],
    more: {
      infill: infill(
        leaf('pivoted level', panes(3, 3, 'iron', 0.014), {
          frame: { ...iron(0.036), joints: 'mitred' },
          angle: 25,
          vary: 20,
        }),
        ironFrame,
      ),
      parts: [stoneSill(), lintel('iron', 0.12)],
    },
  }),
  ships('pivot-upright', 'Upright pivot', 'rectangle', {
    tags: ['window', 'iron'],
    sizes: [{ width: 0.9, height: 2 }],
    more: {
      infill: infill(leaf('pivoted upright', double, { frame: iron(0.04), angle: 30 }), ironFrame),
      parts: [stoneSill()],
    },
  }),
  ships('side-sliding', 'Side-sliding lights', 'rectangle', {
    tags: ['window', 'sliding'],
    sizes: [
      { width: 2, height: 1.2 },
      { width: 1.6, height: 1 },
    ],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf('slides right', double, { frame: member(0.05, 0.034) }),
            leaf('fixed', double, { opens: 'outward', frame: member(0.05, 0.034) }),
          ],
          null,
        ),
        { frame: frameOf({ width: 0.05, depth: 0.09 }) },
      ),
      parts: [stoneSill()],
    },
  }),
  ships('cross', 'Cross window', 'rectangle', {
    tags: ['window', 'stone'],
    sizes: [
      { width: 1.5, height: 2 },
      { width: 1.3, height: 1.7 },
    ],
    more: {
      infill: infill(
        transoms(
          at(0.62, 'share'),
          [
            mullions(2, [leaf('left', double, { handle: knob }), leaf('right', double)], member(0.12, 0.16, 'stone')),
            mullions(2, [double], member(0.12, 0.16, 'stone')),
          ],
          member(0.12, 0.16, 'stone'),
        ),
        {
          frame: frameOf({
            width: 0.12,
            depth: 0.16,
            material: 'stone',
            joints: 'stiles through',
            moulding: { kind: 'hollowed', size: 0.05 },
          }),
          gap: 0,
        },
      ),
      parts: [
        stoneSill(),
        surround(0.1, { off: 0.02, sides: ['head'], moulding: { kind: 'hollowed', size: 0.025 }, thickness: 0.05 }),
      ],
    },
  }),
  ships('leaded', 'Leaded casement', 'rectangle', {
    tags: ['window', 'leaded'],
    sizes: [
      { width: 0.7, height: 1.2 },
      { width: 0.6, height: 1 },
    ],
    more: {
      infill: infill(
        leaf(
          'left',
          { kind: 'lattice', bar: member(0.009, 0.012, 'iron'), spacing: 0.14, slope: 56, fields: [pane] },
          { handle: knob },
        ),
      ),
      parts: [stoneSill(), quoins(0.25)],
    },
  }),
  ships('shop', 'Shop window', 'rectangle', {
    tags: ['window', 'shop'],
    sizes: [
      { width: 3, height: 2.5 },
      { width: 2.4, height: 2.4 },
    ],
    more: {
      onFloor: true,
      infill: infill(
        transoms(
          {
            kind: 'at',
            places: [
              { from: 'start', value: 0.55 },
              { from: 'end', value: 0.5 },
            ],
          },
          [
            mullions(
              { kind: 'at most', size: 0.8 },
              [{ kind: 'panel', material: 'green', thickness: 0.014, raised: { margin: 0.05, rise: 0.008 } }],
              member(0.06, 0.06, 'green'),
            ),
            mullions({ kind: 'at most', size: 1.3 }, [double], member(0.05, 0.06, 'green')),
            mullions({ kind: 'at most', size: 0.5 }, [pane], member(0.03, 0.05, 'green')),
          ],
          member(0.07, 0.07, 'green'),
        ),
        { frame: frameOf({ width: 0.09, depth: 0.09, material: 'green', moulding: { kind: 'ogee', size: 0.025 } }) },
      ),
      parts: [surround(0.16, { material: 'green', thickness: 0.05, sides: ['head'] })],
    },
  }),
  ships('shuttered', 'Shuttered window', 'rectangle', {
    tags: ['window', 'shutters'],
    sizes: [
      { width: 1, height: 1.5 },
      { width: 0.9, height: 1.3 },
    ],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf('left', transoms(3, [pane], member(0.02, 0.03))),
            leaf('right', transoms(3, [pane], member(0.02, 0.03))),
          ],
          null,
        ),
      ),
      parts: [
        stoneSill(),
        shutters({ kind: 'louvres', material: 'green', thickness: 0.006, width: 0.03, spacing: 0.034, slope: 35 }),
        windowBoard(),
      ],
    },
  }),
  ships('slit', 'Stair slit', 'rectangle', {
    tags: ['window', 'plain'],
    sizes: [
      { width: 0.28, height: 1.4 },
      { width: 0.24, height: 1 },
    ],
    more: {
      sections: { 'jamb-left': { splayInside: 18, seat: 0.15 }, 'jamb-right': { splayInside: 18, seat: 0.15 } },
      infill: infill(pane, { frame: frameOf({ width: 0.03, depth: 0.05 }), seat: { from: 'outer', depth: 0.08 } }),
      parts: [quoins(0.3)],
    },
  }),
  ships('cellar', 'Cellar light', 'segmental-arch', {
    tags: ['window', 'iron'],
    sizes: [{ span: 0.9, height: 0.6, rise: 0.12 }],
    more: {
      infill: infill(leaf('top', double, { angle: 0 }), { seat: { from: 'outer', depth: 0.18 } }),
      parts: [bars(), ring(9, 0.22)],
    },
  }),
  ships('cambered', 'Cambered window', 'cambered-arch', {
    tags: ['window', 'timber'],
    sizes: [{ span: 1.2, height: 1.7, camber: 0.04 }],
    more: {
      infill: infill(
        mullions(
          2,
          [leaf('left', barred({ wide: 0.6, high: 0.5 })), leaf('right', barred({ wide: 0.6, high: 0.5 }))],
          member(0.05, 0.06),
        ),
      ),
      parts: [stoneSill(), ring(15, 0.26, true)],
    },
  }),
  ships('bay-light', 'Rounded light', 'rounded-rectangle', {
    tags: ['window', 'plain'],
    sizes: [{ width: 1, height: 0.7, radius: 0.2 }],
    more: {
      infill: infill(double, { frame: frameOf({ width: 0.05, material: 'iron', joints: 'mitred' }) }),
      parts: [
        surround(0.06, { material: 'iron', thickness: 0.012, sides: ['jamb-left', 'jamb-right', 'head', 'sill'] }),
      ],
    },
  }),
  ships('loft-shutter', 'Boarded light', 'rectangle', {
    tags: ['window', 'timber'],
    sizes: [{ width: 0.9, height: 1 }],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf('left', boards('oak', 0.1), {
              straps: { count: 2, width: 0.035, share: 0.85, material: 'iron' },
              frame: member(0.06, 0.05, 'oak'),
            }),
            leaf('right', boards('oak', 0.1), {
              straps: { count: 2, width: 0.035, share: 0.85, material: 'iron' },
              frame: member(0.06, 0.05, 'oak'),
            }),
          ],
          null,
        ),
        { frame: frameOf({ material: 'oak' }) },
      ),
      parts: [lintel('oak', 0.16, 0.2)],
    },
  }),
];
