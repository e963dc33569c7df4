/** Mouldings: what a drawn section comes to, held against its area; and what cannot be run, in words. */
import { describe, expect, it } from '@jest/globals';
import type { Framing, Moulding, Pattern } from '@yard-arch/document';
import { defaultFineness, outlineOf, prove } from '../src/index.ts';
import { infillOf } from '../src/infill/infill.ts';
import { worked } from '../src/infill/moulding.ts';
import { squareSections } from '../src/profile/section.ts';

type Outline = Extract<Moulding, { kind: 'drawn' }>['outline'];
const drawn = (outline: Outline): Moulding => ({ kind: 'drawn', outline });

/** A frame of a square metre, worked so, round nothing. */
function framedBy(moulding: Moulding | undefined, over: Partial<Framing> = {}) {
  const made = outlineOf({ shape: 'rectangle' }, { width: 1, height: 1 }, 'mm', defaultFineness);
  if ('reason' in made) throw new Error(made.reason);
  const pattern: Pick<Pattern, 'sections'> = {};
  return infillOf(
    {
      seat: { from: 'outer', depth: 0 },
      gap: 0,
      frame: { width: 0.06, depth: 0.06, material: 'm', ...(moulding ? { moulding } : {}), ...over },
      field: { kind: 'empty' },
    },
    { ...made, sections: squareSections(0.06), depth: 0.06, pattern },
  );
}

function volumeBy(moulding: Moulding | undefined): number {
  const parts = framedBy(moulding);
  if (typeof parts === 'string') throw new Error(parts);
  const proof = prove(parts[0]!.part.mesh);
  expect(proof).toMatchObject({ closed: true, openEdges: 0, flaps: 0 });
  return proof.volume;
}

/** What a strip along the inner edge of the frame loses, by the section that is missing from its box: Pappus, mitred corners and all. */
function lost(section: readonly (readonly [number, number])[], wide: number): number {
  // Of each slice dn, what is missing lies from `in` to wide: a ring about the opening, whose inner edge is 0.88 m long.
  let volume = 0;
  section.slice(1).forEach(([n, x], i) => {
    const [m, y] = section[i]!;
    const pieces = 400;
    for (let k = 0; k < pieces; k++) {
      const gap = wide - (y + ((x - y) * (k + 0.5)) / pieces);
      volume += (((n - m) * 1) / pieces) * ((0.88 + 2 * gap) ** 2 - 0.88 ** 2);
    }
  });
  return volume;
}

const stepped: Outline = [
  { x: 0, y: 0.02 },
  { x: 0, y: 0 },
  { x: 0.004, y: 0 },
  { x: 0.004, y: 0.006 },
  { x: 0.012, y: 0.006 },
  { x: 0.015, y: 0.02 },
];

describe('a drawn moulding', () => {
  it('takes from its member what is missing from its box', () => {
    const section = [
      [0, 0.004],
      [0.006, 0.004],
      [0.006, 0.012],
      [0.02, 0.015],
    ] as const;
    expect(volumeBy(undefined) - volumeBy(drawn(stepped))).toBeCloseTo(lost(section, 0.015), 7);
    expect(worked(drawn(stepped))).toMatchObject({ wide: 0.015, deep: 0.02 });
    // Lines are seen where it turns, from the front.
    const seen = worked(drawn(stepped)).arrises.map((inward) => Math.round(inward * 1e6) / 1e6);
    expect(seen).toEqual([0.004, 0.004, 0.012, 0.015]);
  });

  it('is the same wherever it was drawn, either way round', () => {
    const moved = stepped.map(({ x, y }) => ({ x: x + 3, y: y - 2 }));
    const [plain, other] = [worked(drawn(stepped)), worked(drawn([...moved].reverse()))];
    expect(other.steps).toHaveLength(plain.steps.length);
    other.steps.forEach((step, i) => {
      expect(step.n).toBeCloseTo(plain.steps[i]!.n, 9);
      expect(step.in).toBeCloseTo(plain.steps[i]!.in, 9);
    });
  });

  it('drawn as a named one is, is that', () => {
    const quarter = Math.tan(Math.PI / 8);
    const round = drawn([
      { x: 0, y: 0.02 },
      { x: 0, y: 0, bulge: quarter },
      { x: 0.02, y: 0.02 },
    ]);
    expect(volumeBy(round)).toBeCloseTo(volumeBy({ kind: 'rounded', size: 0.02 }), 9);
    const chamfer = drawn([
      { x: 0, y: 0.02 },
      { x: 0, y: 0 },
      { x: 0.02, y: 0.02 },
    ]);
    expect(volumeBy(chamfer)).toBeCloseTo(volumeBy({ kind: 'chamfered', size: 0.02 }), 12);
  });

  it('may stand out over what is behind it, as a bead does', () => {
    const bead = drawn([
      { x: 0, y: 0.02 },
      { x: 0, y: 0 },
      { x: 0.006, y: 0, bulge: Math.tan(Math.PI / 4) },
      { x: 0.006, y: 0.008 },
      { x: 0.003, y: 0.01 },
      { x: 0.014, y: 0.02 },
    ]);
    expect(volumeBy(bead)).toBeLessThan(volumeBy(undefined));
  });

  it.each([
    [
      'no corner where it is whole',
      [
        { x: 0, y: 0 },
        { x: 0.02, y: 0 },
        { x: 0.02, y: 0.02 },
      ],
    ],
    [
      'turns back towards its front',
      [
        { x: 0, y: 0.02 },
        { x: 0, y: 0 },
        { x: 0.01, y: 0.015 },
        { x: 0.012, y: 0.005 },
        { x: 0.02, y: 0.02 },
      ],
    ],
    [
      'ends before it is furthest in',
      [
        { x: 0, y: 0.02 },
        { x: 0, y: 0 },
        { x: 0.02, y: 0.01 },
        { x: 0.01, y: 0.02 },
      ],
    ],
    [
      'does not begin at its front',
      [
        { x: 0, y: 0.02 },
        { x: 0, y: 0.01 },
        { x: 0.01, y: 0 },
        { x: 0.02, y: 0.02 },
      ],
    ],
    [
      'no straight back',
      [
        { x: 0, y: 0.02 },
        { x: 0, y: 0 },
        { x: 0.02, y: 0.015 },
      ],
    ],
    ['larger than its frame has room for', stepped.map(({ x, y }) => ({ x: 5 * x, y }))],
  ] as [string, Outline][])('is told of where it has %s', (words, outline) => {
    expect(framedBy(drawn(outline))).toContain(words);
  });
});
