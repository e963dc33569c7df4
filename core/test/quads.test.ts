/** Faces and reveals meshed in quads, where rows and columns meet what is there already: shrunk from property runs. */
import { describe, expect, it } from '@jest/globals';
import {
  checkDocument,
  firstDimensions,
  type Element,
  type Opening,
  type Panel,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { cutModel, prove } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const panel = (over: Partial<Panel> = {}): Panel => ({
  id: 'w1',
  name: 'Undercroft',
  kind: 'panel',
  start: { x: 0, y: 0, z: 0 },
  turn: 0,
  tilt: 50,
  outline: [
    { x: 0, y: 0 },
    { x: 6, y: 0 },
    { x: 6, y: 4, bulge: 0.3 },
    { x: 0, y: 4 },
  ],
  layers: [{ thickness: 0.45, material: 'brick' }],
  mesh: 'quads',
  ...over,
});

const pattern = (id: string, over: Pick<Pattern, 'profile'> & Partial<Pattern>, size: number): Pattern => ({
  id,
  name: id,
  sizes: {
    a: {
      id: 'a',
      name: '',
      dimensions: Object.fromEntries(
        Object.entries(firstDimensions(over.profile.shape)).map(([name, value]) => [name, value * size]),
      ),
    },
  },
  reveal: { material: null },
  cut: { kind: 'through' },
  ...over,
});

function proofOf(element: Element, openings: readonly Opening[], patterns: readonly Pattern[]) {
  const model = cutModel({
    ...project([], openings),
    elements: { w1: element },
    patterns: Object.fromEntries(patterns.map((one) => [one.id, one])),
  });
  for (const status of model.statuses.values()) expect(status.state).not.toBe('not cut');
  const cut = model.cuts.get('w1')!;
  expect(cut.path).toBe('sheet');
  return prove(cut.mesh);
}

const sound = { openEdges: 0, nonManifoldEdges: 0, collapsed: 0 };

describe('quads leave no triangle without area', () => {
  it('where a column meets a reveal’s own corner half way in', () => {
    const jamb = { seat: 0.1, splayOutside: 12, splayInside: 25 };
    const kept = pattern(
      'p',
      { profile: { shape: 'rectangle' }, cut: { kind: 'keep inside' }, sections: { 'jamb-right': jamb } },
      1,
    );
    expect(proofOf(panel(), [opening('o', 'p', 3.64, 0)], [kept])).toMatchObject(sound);
  });

  it('where a column crosses a joint whose neighbours step at one depth', () => {
    const sections = {
      head: {
        checks: [
          { depth: 0.17, step: 0.05 },
          { depth: 0.14, step: -0.04 },
        ],
      },
      'jamb-left': {
        splayInside: 10,
        checks: [
          { depth: 0.17, step: 0.05 },
          { depth: 0.08, step: -0.04 },
        ],
      },
    };
    const arch = pattern('p', { profile: { shape: 'semicircular-arch' }, sections }, 0.69);
    expect(
      proofOf(panel({ layers: [{ thickness: 0.35, material: 'brick' }] }), [opening('o', 'p', 2.09, 1.5)], [arch]),
    ).toMatchObject(sound);
  });

  it('where a row meets a corner, rounding apart', () => {
    const circle = pattern(
      'p',
      { profile: { shape: 'circle' }, sections: { head: { arris: { kind: 'chamfered', size: 0.03, segments: 1 } } } },
      1,
    );
    circle.sizes.a!.dimensions = { diameter: 0.7200000000000001 };
    const { outline, id, name, start, turn } = panel();
    const slab: Element = {
      kind: 'slab',
      id,
      name,
      start,
      turn,
      outline,
      layers: [{ thickness: 0.36, material: 'brick' }],
      mesh: 'quads',
    };
    expect(proofOf(slab, [opening('o', 'p', 1.57, 2.34)], [circle])).toMatchObject(sound);
  });

  it('where a row runs along a joint through several of its corners', () => {
    const sections = {
      head: {
        seat: 0.08,
        splayOutside: 12,
        checks: [
          { depth: 0.09, step: 0.06 },
          { depth: 0.16, step: 0.06 },
        ],
      },
      'jamb-left': { splayInside: 10 },
      'jamb-right': { seat: 0.09, splayOutside: 12, checks: [{ depth: 0.06, step: -0.04 }] },
    };
    const arch = pattern('p', { profile: { shape: 'semicircular-arch' }, sections }, 1);
    arch.sizes.a!.dimensions = { span: 1.164, height: 1.94 };
    const layers = [0.21, 0.15, 0.25].map((thickness) => ({ thickness, material: 'brick' }));
    expect(proofOf(wall({ layers, mesh: 'quads', sweep: -35 }), [opening('o', 'p', 1.62, 1.7)], [arch])).toMatchObject(
      sound,
    );
  });

  it('where rows cross a check on a curved wall, in a skew aim, and neither of two patches takes the other’s sliver', () => {
    const sill = {
      seat: 0.1,
      splayInside: 25,
      checks: [
        { depth: 0.14, step: 0.05 },
        { depth: 0.06, step: 0.06 },
      ],
    };
    const niche = pattern(
      'p',
      { profile: { shape: 'circle' }, cut: { kind: 'niche to layer', layers: 1 }, sections: { sill } },
      0.99,
    );
    const trefoil = pattern('q', { profile: { shape: 'trefoil' } }, 1);
    trefoil.sizes.a!.dimensions = { diameter: 0.7290000000000001 };
    const layers = [
      { thickness: 0.21, material: 'brick' },
      { thickness: 0.25, material: 'stone' },
    ];
    const openings = [opening('o', 'p', 1.22, 1.63, { aim: { turn: 160 } }), opening('r', 'q', 4.25, 1.59)];
    expect(proofOf(wall({ turn: 90, layers, mesh: 'quads', sweep: -35 }), openings, [niche, trefoil])).toMatchObject(
      sound,
    );
  });
});

describe('needles', () => {
  const readCase = (name: string): ProjectDocument =>
    checkDocument(JSON.parse(readFileSync(new URL(`./cases/${name}`, import.meta.url), 'utf8')));

  it.each(['needle-facade-3.json', 'collapsed-tiny-13.json'])(
    'are none where a row or a column would pass close by a corner: %s',
    (name) => {
      for (const cut of cutModel(readCase(name)).cuts.values()) {
        const proof = prove(cut.mesh);
        expect(proof).toMatchObject({ ...sound, flaps: 0 });
        expect(proof.thinnest).toBeGreaterThan(1e-5);
      }
    },
  );

  it('are none at arrises from a quarter of a millimetre on, wherever the arch stands', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 250, max: 2000 }),
        fc.integer({ min: 900, max: 1500 }),
        fc.integer({ min: 900, max: 1600 }),
        (size, span, height) => {
          const source = readCase('collapsed-tiny-13.json');
          const arch = source.patterns.p0!;
          const made: Pattern = {
            ...arch,
            sizes: {
              a: {
                ...arch.sizes.a!,
                dimensions: { span: span / 1000, height: Math.max(height, span / 2 + 60) / 1000 },
              },
            },
            sections: { 'jamb-right': { arris: { kind: 'rounded', size: size / 1e6 } } },
          };
          const [cut] = [...cutModel({ ...source, patterns: { p0: made } }).cuts.values()];
          expect(prove(cut!.mesh)).toMatchObject({ ...sound, flaps: 0 });
          expect(prove(cut!.mesh).thinnest).toBeGreaterThan(1e-5);
        },
      ),
      { numRuns: 40, seed: 3 },
    );
  });
});
