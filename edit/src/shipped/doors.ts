/** Shipped doors, gates and hatches. */
import type { Pattern } from '@yard-arch/document';
import { mouldingToDraw } from '../infill.ts';
import {
  at,
  bars,
  boards,
  doorFrame,
  double,
  infill,
  leaf,
  linedWithin,
  lintel,
  member,
  mullions,
  pane,
  panes,
  quoins,
  raised,
  ring,
  ships,
  surround,
  threshold,
  transoms,
} from './make.ts';

const lever = { kind: 'lever', material: 'brass', height: 1.02 } as const;
const knob = { kind: 'knob', material: 'iron', height: 1.02 } as const;
const straps = (count = 3) => ({ count, width: 0.045, share: 0.82, material: 'iron' });
const doorLeaf = { frame: { width: 0.11, depth: 0.045, material: 'paint', joints: 'stiles through' } } as const;
const oakLeaf = { frame: { width: 0.11, depth: 0.05, material: 'oak', joints: 'stiles through' } } as const;
const oakFrame = { frame: { ...doorFrame.frame!, material: 'oak' } };

export const doors: Pattern[] = [
  ships('boarded', 'Boarded door', 'rectangle', {
    tags: ['door', 'timber'],
    sizes: [
      { width: 1, height: 2.1 },
      { width: 0.9, height: 2 },
    ],
    more: {
      onFloor: true,
      infill: infill(leaf('left', boards('oak'), { ...oakLeaf, straps: straps(), handle: knob }), oakFrame),
      parts: [lintel('oak', 0.2, 0.2), threshold()],
    },
  }),
  ships('panelled', 'Panelled door', 'semicircular-arch', {
    tags: ['door', 'timber', 'arch'],
    sizes: [
      { span: 1.1, height: 2.75 },
      { span: 1.2, height: 3 },
    ],
    more: {
      onFloor: true,
      infill: infill(
        transoms(
          at(2.08),
          [
            leaf(
              'right',
              transoms(
                at(0.42, 'share'),
                [
                  mullions(2, [raised('green')], member(0.1, 0.044, 'green')),
                  mullions(2, [raised('green')], member(0.1, 0.044, 'green')),
                ],
                member(0.12, 0.044, 'green'),
              ),
              {
                frame: { ...doorLeaf.frame, material: 'green' },
                handle: { kind: 'knob', material: 'brass', height: 1 },
              },
            ),
            { kind: 'fan', about: 'foot', bar: member(0.022, 0.03), count: 6, rings: [0.4], hub: true, fields: [pane] },
          ],
          member(0.07, 0.09),
        ),
        doorFrame,
      ),
      parts: [
        surround(0.16, { moulding: { kind: 'drawn', outline: mouldingToDraw(0.03) }, thickness: 0.05 }),
        threshold(),
        ...linedWithin('green', 0.09),
      ],
    },
  }),
  ships('glazed-doors', 'Glazed doors', 'rectangle', {
    tags: ['door', 'timber'],
    sizes: [
      { width: 1.4, height: 2.3 },
      { width: 1.2, height: 2.2 },
    ],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf(
              'left',
              transoms(at(0.5), [raised(), transoms(3, [pane], member(0.022, 0.03))], member(0.09, 0.044)),
              doorLeaf,
            ),
            leaf(
              'right',
              transoms(at(0.5), [raised(), transoms(3, [pane], member(0.022, 0.03))], member(0.09, 0.044)),
              { ...doorLeaf, handle: lever, cover: member(0.06, 0.014) },
            ),
          ],
          null,
        ),
        doorFrame,
      ),
      parts: [bars(1, { spacing: 0.1 }), lintel()],
    },
  }),
  ships('leaf-and-half', 'Leaf and a half', 'rectangle', {
    tags: ['door', 'timber'],
    sizes: [{ width: 1.4, height: 2.2 }],
    more: {
      onFloor: true,
      infill: infill(
        mullions(
          at(0.64, 'share'),
          [
            leaf('left', transoms(at(0.45, 'share'), [raised(), raised()], member(0.1, 0.044)), {
              ...doorLeaf,
              handle: lever,
              cover: member(0.05, 0.014),
            }),
            leaf('right', transoms(at(0.45, 'share'), [raised(), raised()], member(0.1, 0.044)), doorLeaf),
          ],
          null,
        ),
        doorFrame,
      ),
      parts: [surround(0.12), threshold()],
    },
  }),
  ships('stable', 'Stable door', 'rectangle', {
    tags: ['door', 'timber'],
    sizes: [{ width: 1.1, height: 2.15 }],
    more: {
      onFloor: true,
      infill: infill(
        transoms(
          at(0.55, 'share'),
          [
            leaf('left', boards('oak'), { ...oakLeaf, straps: straps(2) }),
            // No further than its straps clear the frame, which is deeper than the leaf.
            leaf('left', boards('oak'), { ...oakLeaf, straps: straps(2), angle: 40 }),
          ],
          null,
        ),
        oakFrame,
      ),
      parts: [lintel('oak', 0.18, 0.2), quoins(0.35)],
    },
  }),
  ships('cart-gates', 'Cart gates', 'elliptical-arch', {
    tags: ['door', 'gate', 'arch'],
    sizes: [{ span: 2.8, height: 3, rise: 0.7 }],
    more: {
      onFloor: true,
      infill: infill(
        mullions(
          2,
          [
            leaf('left', boards('green', 0.16), { frame: member(0.14, 0.055, 'green'), straps: straps(), angle: 25 }),
            leaf('right', boards('green', 0.16), { frame: member(0.14, 0.055, 'green'), straps: straps() }),
          ],
          null,
        ),
        { frame: { ...doorFrame.frame!, width: 0.09, material: 'green' } },
      ),
      parts: [ring(27, 0.3, true, 'stone')],
    },
  }),
  ships('folding', 'Folding doors', 'rectangle', {
    tags: ['door', 'sliding'],
    sizes: [
      { width: 3.2, height: 2.3 },
      { width: 2.6, height: 2.2 },
    ],
    more: {
      onFloor: true,
      infill: infill(
        leaf('folds left', double, {
          folds: 4,
          angle: 20,
          frame: { width: 0.06, depth: 0.05, material: 'iron', joints: 'mitred' },
          handle: { kind: 'pull', material: 'iron', height: 1 },
        }),
        { frame: { ...doorFrame.frame!, material: 'iron', width: 0.05 } },
      ),
      parts: [lintel('iron', 0.2)],
    },
  }),
  ships('barn', 'Sliding barn door', 'rectangle', {
    tags: ['door', 'sliding'],
    sizes: [{ width: 2, height: 2.5 }],
    more: {
      onFloor: true,
      infill: infill(
        leaf('slides right', boards('oak', 0.18), {
          opens: 'outward',
          slid: 0,
          frame: { ...oakLeaf.frame, width: 0.13 },
          handle: { kind: 'pull', material: 'iron', height: 1 },
        }),
        {
          seat: { from: 'outer', depth: 0.02 },
          frame: { ...doorFrame.frame!, material: 'oak', width: 0.06, depth: 0.12 },
        },
      ),
      parts: [lintel('iron', 0.22)],
    },
  }),
  ships('hatch', 'Loft hatch', 'segmental-arch', {
    tags: ['door', 'loft'],
    sizes: [{ span: 1.2, height: 1.6, rise: 0.16 }],
    more: {
      infill: infill(
        mullions(
          2,
          [
            leaf('left', boards('green', 0.11), {
              frame: member(0.09, 0.05, 'green'),
              opens: 'outward',
              straps: straps(2),
            }),
            leaf('right', boards('green', 0.11), {
              frame: member(0.09, 0.05, 'green'),
              opens: 'outward',
              straps: straps(2),
            }),
          ],
          null,
        ),
        { frame: { ...doorFrame.frame!, material: 'green' } },
      ),
      parts: [ring(13, 0.24), threshold()],
    },
  }),
  ships('grille-gate', 'Iron gate', 'semicircular-arch', {
    tags: ['door', 'gate', 'iron'],
    sizes: [{ span: 1.6, height: 2.6 }],
    more: {
      onFloor: true,
      infill: infill(
        mullions(
          2,
          [
            leaf('left', mullions({ kind: 'at most', size: 0.11 }, [{ kind: 'empty' }], member(0.018, 0.018, 'iron')), {
              frame: member(0.045, 0.03, 'iron'),
            }),
            leaf(
              'right',
              mullions({ kind: 'at most', size: 0.11 }, [{ kind: 'empty' }], member(0.018, 0.018, 'iron')),
              {
                frame: member(0.045, 0.03, 'iron'),
                handle: { kind: 'lever', material: 'iron', height: 1 },
              },
            ),
          ],
          null,
        ),
        {
          frame: { ...doorFrame.frame!, width: 0.04, depth: 0.05, material: 'iron' },
          seat: { from: 'outer', depth: 0.15 },
        },
      ),
      parts: [ring(19, 0.28, true, 'stone'), quoins(0.32)],
    },
  }),
  ships('small-panes', 'Half-glazed door', 'rectangle', {
    tags: ['door', 'timber'],
    sizes: [{ width: 0.95, height: 2.1 }],
    more: {
      onFloor: true,
      infill: infill(
        leaf('right', transoms(at(0.46, 'share'), [boards('paint', 0.1), panes(3, 3)], member(0.13, 0.044)), {
          ...doorLeaf,
          handle: lever,
        }),
        doorFrame,
      ),
      parts: [surround(0.1), threshold(), ...linedWithin()],
    },
  }),
];
