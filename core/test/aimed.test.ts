/** Openings that are aimed keep what stands in them: every profile, both ways, closed and within what is clear. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  firstChoice,
  firstDimensions,
  profileShapes,
  type Field,
  type Pattern,
  type ProfileShape,
} from '@yard-arch/document';
import { cutModel, isClosed, prove } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { opening, project, wall } from './sample.ts';

beforeAll(() => solidLibrary());

const rounds = Number(process.env.INFILL_ROUNDS ?? 40);
const glass: Field = { kind: 'glass', material: 'stone', thickness: 0.006 };
const bar = { width: 0.03, depth: 0.05, material: 'stone' };
const fields: Field[] = [
  glass,
  { kind: 'divided', way: 'mullions', bar, lights: { kind: 'equal', count: 2 }, fields: [glass] },
  { kind: 'divided', way: 'transoms', bar, lights: { kind: 'equal', count: 2 }, fields: [glass] },
];

/** Profiles of one loop, round which a frame goes. */
const framed = (Object.keys(profileShapes) as ProfileShape[]).filter((shape) => shape !== 'text' && shape !== 'free');

/** Tracery, in the arches that it is for. */
const traceried = new Set<ProfileShape>(['pointed-arch', 'semicircular-arch']);
const lattice: Field = { kind: 'lattice', bar: { ...bar, width: 0.008 }, spacing: 0.16, slope: 56, fields: [glass] };
const tracery: Field = { kind: 'interlacing', bar, count: 3, fields: [lattice] };

const patternOf = (shape: ProfileShape, field: Field): Pattern => ({
  id: 'p',
  name: shape,
  profile: firstChoice(shape),
  sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
  reveal: { material: null },
  infill: {
    seat: { from: 'outer', depth: 0.08 },
    gap: 0.004,
    frame: { width: 0.03, depth: 0.07, material: 'brick' },
    field,
  },
});

/** What came of an opening's infill: the reasons why parts were left out, and how many of its meshes are open or shaded wrongly. */
function outcome(
  pattern: Pattern,
  aim?: { turn: number; rise: number },
): { reasons: string[]; meshes: number; bad: number } {
  const own = opening('a', 'p', 3, 1.5, { ...(aim ? { aim } : {}) });
  const model = cutModel(project([wall({ length: 10, height: 7 })], [own], { patterns: { p: pattern } }));
  const cut = model.cuts.get('w1')!;
  const findings = model.statuses.get('a')!.findings;
  const bad = cut.parts.filter(({ part: { mesh } }) => !isClosed(mesh) || prove(mesh).astrayNormals > 1e-5);
  return {
    reasons: findings.filter(({ code }) => code === 'part-left-out').map(({ reason }) => reason),
    meshes: cut.parts.length,
    bad: bad.length,
  };
}

describe('an aimed opening', () => {
  it.each(framed)('of a %s keeps its infill, up to 20° both ways', (shape) => {
    let looked = 0;
    for (const field of [...fields, ...(traceried.has(shape) ? [tracery] : [])]) {
      const pattern = patternOf(shape, field);
      const straight = outcome(pattern);
      if (straight.reasons.length > 0) continue;
      looked += 1;
      fc.assert(
        fc.property(fc.integer({ min: 70, max: 110 }), fc.integer({ min: -20, max: 20 }), (turn, rise) => {
          const aimed = outcome(pattern, { turn, rise });
          expect({ turn, rise, ...aimed }).toEqual({ turn, rise, reasons: [], meshes: straight.meshes, bad: 0 });
        }),
        { numRuns: Math.ceil(rounds / fields.length / 3) },
      );
    }
    // Steel sections leave a frame no room, aimed or not.
    expect(looked > 0).toBe(!shape.endsWith('-section'));
  });
});
