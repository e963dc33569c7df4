/** Linings: boards from a face to what stands in the opening, that fill what they are said to and lie in nothing. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import {
  firstChoice,
  firstDimensions,
  omit,
  profileShapes,
  type Opening,
  type Part,
  type Pattern,
  type ProfileShape,
  type Section,
} from '@yard-arch/document';
import fc from 'fast-check';
import type { ManifoldToplevel } from 'manifold-3d';
import { cutModel, meshIn, prove, type ElementCut } from '../src/index.ts';
import { placedIn } from '../src/element/chart.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { patternFront } from '../src/infill/parts.ts';
import { opening, project, wall } from './sample.ts';
import { overlapIn } from './solid-of.ts';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

type Lining = Extract<Part, { kind: 'lining' }>;
const within = (over: Partial<Lining> = {}): Lining => ({
  id: 'lining',
  kind: 'lining',
  material: 'oak',
  thickness: 0.02,
  sides: ['jamb-left', 'jamb-right', 'head'],
  behind: true,
  ...over,
});
const infill: NonNullable<Pattern['infill']> = {
  seat: { from: 'outer', depth: 0.1 },
  gap: 0,
  frame: { width: 0.06, depth: 0.07, material: 'brick' },
  field: { kind: 'glass', material: 'brick', thickness: 0.02 },
};

interface Case {
  sweep?: number;
  shape?: ProfileShape;
  more?: { [K in keyof Pattern]?: Pattern[K] | undefined };
  on?: Partial<Opening>;
}

/** An opening with parts in a wall, as it is cut. */
function modelOf(parts: Part[], { sweep, shape = 'rectangle', more, on }: Case = {}): ReturnType<typeof cutModel> {
  const pattern: Pattern = {
    id: 'p',
    name: 'Lined',
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
    reveal: { material: null },
    infill,
    ...more,
    parts,
  };
  const w1 = wall({ length: 9, height: 6, ...(sweep ? { sweep } : {}) });
  return cutModel(project([w1], [{ ...opening('a', 'p', 4, 1.5), ...on }], { patterns: { p: pattern } }));
}

/** What is wrong with it, if anything is. */
const reasonOf = (parts: Part[], of?: Case): string | null => modelOf(parts, of).statuses.get('a')!.reason;

/** Its cut, all of it closed. */
function closedIn({ cuts }: ReturnType<typeof cutModel>): ElementCut {
  const cut = cuts.get('w1')!;
  for (const { part } of cut.parts) expect(prove(part.mesh)).toMatchObject({ closed: true, openEdges: 0, flaps: 0 });
  return cut;
}

/** The cut of an opening with parts, nothing left out. */
function cutOf(parts: Part[], of?: Case): ElementCut {
  const made = modelOf(parts, of);
  expect(made.statuses.get('a')).toMatchObject({ state: 'cut', reason: null });
  return closedIn(made);
}

const volumeOf = ({ parts }: ElementCut, id: string): number =>
  parts.filter((one) => one.id === id).reduce((sum, { part }) => sum + prove(part.mesh).volume, 0);

const overlap = (cut: ElementCut): number => overlapIn(library, cut);

const board: Part = {
  id: 'board',
  kind: 'sill board',
  material: 'oak',
  thickness: 0.03,
  nosing: 0.03,
  horns: 0.05,
  reach: 0.2,
  behind: true,
};
const all = ['jamb-left', 'jamb-right', 'head', 'sill'] as const;
/** From the back of the infill to the face within. */
const deep = 0.4 - 0.17;
const { width, height } = firstDimensions('rectangle') as { width: number; height: number };
const splayed = { splayInside: 14, seat: 0.17 };

describe('a lining', () => {
  it('is as large as its boards', () => {
    const cut = cutOf([within()]);
    expect(volumeOf(cut, 'lining')).toBeCloseTo((width * height - (width - 0.04) * (height - 0.02)) * deep, 9);
    expect(overlap(cut)).toBeLessThan(1e-9);
    const [box] = cut.parts.filter(({ id }) => id === 'lining').map(({ part }) => part.mesh.points);
    // From its own face, the one within, to the infill.
    expect(Math.max(...box!.filter((_, i) => i % 3 === 1))).toBeCloseTo(deep, 9);
  });

  it('goes all round, or along one side alone', () => {
    const whole = cutOf([within({ sides: [...all] })]);
    expect(volumeOf(whole, 'lining')).toBeCloseTo((width * height - (width - 0.04) * (height - 0.04)) * deep, 9);
    const one = cutOf([within({ sides: ['jamb-left'] })]);
    expect(volumeOf(one, 'lining')).toBeCloseTo(0.02 * height * deep, 9);
  });

  it('goes through where nothing stands in it, or no further than it is to reach', () => {
    const through = cutOf([within({ sides: ['jamb-left'] })], { more: { infill: undefined } });
    expect(volumeOf(through, 'lining')).toBeCloseTo(0.02 * height * 0.4, 9);
    const short = cutOf([within({ sides: ['jamb-left'], reach: 0.1 })]);
    expect(volumeOf(short, 'lining')).toBeCloseTo(0.02 * height * 0.1, 9);
  });

  it('lines the reveal before the infill, too', () => {
    const cut = cutOf([within({ behind: undefined, sides: ['jamb-left'] })]);
    expect(volumeOf(cut, 'lining')).toBeCloseTo(0.02 * height * 0.1, 9);
    expect(overlap(cut)).toBeLessThan(1e-9);
  });

  it('is as thick as it is where it splays', () => {
    const cut = cutOf([within({ sides: ['jamb-left'] })], {
      more: { sections: { 'jamb-left': splayed } },
    });
    const long = deep / Math.cos((14 * Math.PI) / 180);
    expect(volumeOf(cut, 'lining')).toBeCloseTo(0.02 * long * height, 9);
    expect(overlap(cut)).toBeLessThan(1e-9);
  });

  it('stands on the board on the sill', () => {
    const cut = cutOf([within(), board]);
    expect(overlap(cut)).toBeLessThan(1e-9);
    const [bare] = [cutOf([within()])];
    expect(volumeOf(bare, 'lining') - volumeOf(cut, 'lining')).toBeCloseTo(2 * 0.02 * 0.03 * deep, 9);
  });

  it('leaves the board its own jambs, each on its side', () => {
    const cut = cutOf([omit(board as Extract<Part, { kind: 'sill board' }>, 'reach')], {
      more: { sections: { 'jamb-right': splayed } },
    });
    expect(overlap(cut)).toBeLessThan(1e-9);
    // As wide as the reveal, which splays on one side, and no further in than the infill.
    const splay = (Math.tan((14 * Math.PI) / 180) * deep ** 2) / 2;
    const before = 0.03 * (width + Math.tan((14 * Math.PI) / 180) * deep + 0.1);
    expect(volumeOf(cut, 'board')).toBeCloseTo(0.03 * (width * deep + splay + before), 6);
  });

  it('is straight where its side has a check or an arris', () => {
    for (const section of [
      { checks: [{ depth: 0.1, step: 0.04 }] },
      { checks: [{ depth: 0.25, step: 0.03 }] },
      { innerArris: { kind: 'rounded' as const, size: 0.03 }, ...splayed },
      { innerArris: { kind: 'chamfered' as const, size: 0.05 } },
    ]) {
      const cut = cutOf([within()], {
        more: { sections: { 'jamb-left': section, 'jamb-right': section, head: section } },
      });
      expect(overlap(cut)).toBeLessThan(1e-7);
      const [lined] = cut.parts.filter(({ id }) => id === 'lining');
      // Three boards of six faces each, mitred: nothing follows the arris.
      expect(lined!.part.mesh.polygonStart.length - 1).toBeLessThanOrEqual(14);
    }
  });

  it('tells why there is none', () => {
    const sized = (width: number, height: number): Partial<Pattern> => ({
      sizes: { a: { id: 'a', name: '', dimensions: { width, height } } },
    });
    const thick = within({ thickness: 0.2, sides: [...all] });
    expect(reasonOf([thick], { more: sized(0.3, 0.3) })).toContain('it is too small for its lining');
    // Boards from both sides that pass through each other.
    const web: Case = { shape: 'i-section', more: { infill: undefined } };
    const sides = ['jamb-left', 'jamb-right'] as Lining['sides'];
    expect(reasonOf([within({ thickness: 0.05, sides })], web)).toContain('too small for its lining');
    expect(reasonOf([within({ thickness: 0.02, sides })], web)).toBeNull();
    // It is told where the pattern is drawn, too, though it is not seen there.
    const drawn = (parts: Part[], size: Record<string, number>) =>
      patternFront({ profile: firstChoice('rectangle'), infill, parts }, size, 'mm');
    expect(drawn([within({ thickness: 0.2 })], { width: 0.3, height: 1 }).reason).toContain('too small for its lining');
    expect(drawn([board, within({ sides: ['jamb-left', 'sill'] })], { width, height }).reason).toContain(
      'carries a board on the same face',
    );
    expect(drawn([{ ...board, reach: 0.3 } as Part], { width, height }).reason).toContain('runs into its');
    expect(drawn([{ ...board, reach: 0.18 } as Part, within()], { width, height }).reason).toBeNull();
    expect(reasonOf([within()], { more: { infill: { ...infill, seat: { from: 'inner', depth: 0 } } } })).toContain(
      'what stands in it leaves nothing of the reveal before it',
    );
  });
});

const shapes = [
  'rectangle',
  'semicircular-arch',
  'circle',
  'segmental-arch',
  'pointed-arch',
  'horseshoe-arch',
  'ogee-arch',
] as const;

describe('linings of every shape', () => {
  it.each(shapes)('%s is followed, whichever sides are lined', (shape) => {
    for (const sides of [
      [...all],
      ['jamb-left', 'jamb-right', 'head'],
      ['head'],
      ['jamb-left', 'sill'],
    ] as Lining['sides'][])
      for (const sections of [
        undefined,
        { head: splayed, 'jamb-left': splayed, 'jamb-right': splayed, sill: splayed },
        { head: splayed },
        { 'jamb-left': splayed },
      ]) {
        // One half of an ogee that splays and one that does not cross where they meet.
        if (shape === 'ogee-arch' && sides.length === 4 && sections && !('head' in sections)) continue;
        const cut = cutOf([within({ sides })], { shape, more: sections ? { sections } : {} });
        expect(overlap(cut)).toBeLessThan(1e-7);
      }
  });
});

/** Whether a lining goes as far as the infill on both sides, and no further. */
function endsOf({ parts }: ElementCut, behind: boolean): boolean {
  const [stands, lined] = [parts.find(({ id }) => id === 'infill')!, parts.find(({ id }) => id === 'lining')!];
  const { points } = meshIn(lined.placement, lined.part.mesh);
  const seen = Array.from({ length: points.length / 3 }, (_, i) =>
    placedIn(stands.placement, [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!]),
  );
  const gaps = seen.map(([x, y]) => ({ x, gap: behind ? y - 0.17 : 0.1 - y }));
  const touching = gaps.filter(({ gap }) => Math.abs(gap) < 1e-6);
  return gaps.every(({ gap }) => gap > -1e-6) && [-1, 1].every((way) => touching.some(({ x }) => way * x > 0.3));
}

/** Walls that are not flat, and openings that do not go square through them. */
const ways: [string, Case][] = [
  ['aimed aside', { on: { aim: { turn: 68 } } }],
  ['aimed up', { on: { aim: { turn: 90, rise: 20 } } }],
  ['aimed aside, from within', { on: { aim: { turn: 245 }, face: 'inner' } }],
  ['aimed round a curve', { sweep: 50, on: { aim: { turn: 96, rise: 12 } } }],
  ['in a bow', { sweep: 60 }],
  ['in a hollow', { sweep: -60 }],
  ['in a hollow, from within', { sweep: -60, on: { face: 'inner' } }],
  ['radial in a bow', { sweep: 60, more: { jambs: 'radial' } }],
  ['radial in a hollow', { sweep: -60, more: { jambs: 'radial' } }],
  ['in a bow, following it', { sweep: 60, more: { infill: { ...infill, curve: 'follows' } } }],
  [
    'radial in a hollow, following it',
    { sweep: -60, more: { jambs: 'radial', infill: { ...infill, curve: 'follows' } } },
  ],
];

describe('linings on curves and askew', () => {
  it.each(ways)('%s ends at the infill, and lies in nothing', (_, of) => {
    for (const shape of ['rectangle', 'semicircular-arch'] as const)
      for (const sections of [undefined, { head: splayed, 'jamb-left': splayed, 'jamb-right': splayed }])
        for (const behind of [true, undefined]) {
          const made = { ...of, shape, more: { ...of.more, ...(sections ? { sections } : {}) } };
          const cut = cutOf([within({ behind })], made);
          expect(volumeOf(cut, 'lining')).toBeGreaterThan(0.0005);
          if (of.more?.infill === undefined && !(of.sweep && of.on?.aim))
            expect(endsOf(cut, behind ?? false)).toBe(true);
          // What splays in a curve, or turns in with it, is twisted: facets of the one are up to a tenth of a millimetre off those of the other, and a
          // millimetre where an arch does both.
          const radial = of.more?.jambs === 'radial';
          const off = radial && sections && shape !== 'rectangle' ? 4e-4 : radial || sections ? 5e-5 : 5e-6;
          expect(overlap(cut)).toBeLessThan(off);
        }
  });
});

const section: fc.Arbitrary<Section> = fc
  .record({
    splay: fc.constantFrom(0, 0, 6, 14, 25),
    seat: fc.double({ min: 0.1, max: 0.25, noNaN: true }),
    check: fc.option(
      fc.record({
        depth: fc.double({ min: 0.06, max: 0.3, noNaN: true }),
        step: fc.double({ min: -0.03, max: 0.06, noNaN: true }),
      }),
      { nil: null },
    ),
    arris: fc.option(
      fc.record({
        kind: fc.constantFrom('rounded' as const, 'chamfered' as const),
        size: fc.double({ min: 0.005, max: 0.04, noNaN: true }),
      }),
      { nil: null },
    ),
  })
  .map(({ splay, seat, check, arris }) => ({
    ...(splay ? { splayInside: splay, seat } : {}),
    ...(check ? { checks: [check] } : {}),
    ...(arris ? { innerArris: arris } : {}),
  }));

const someLining = fc.record({
  shape: fc.constantFrom(...(Object.keys(profileShapes) as ProfileShape[]).filter((shape) => shape !== 'text')),
  sides: fc.subarray([...all], { minLength: 1 }),
  thickness: fc.double({ min: 0.006, max: 0.05, noNaN: true }),
  reach: fc.option(fc.double({ min: 0.02, max: 0.5, noNaN: true }), { nil: undefined }),
  behind: fc.constantFrom(true, undefined),
  sections: fc.record(
    { head: section, 'jamb-left': section, 'jamb-right': section, sill: section },
    { requiredKeys: [] },
  ),
  filled: fc.boolean(),
  boarded: fc.boolean(),
  face: fc.constantFrom('outer' as const, 'inner' as const),
});

describe('linings at random', () => {
  it('are closed and lie in nothing, or it is told why there are none', () => {
    fc.assert(
      fc.property(someLining, ({ shape, sides, thickness, reach, behind, sections, filled, boarded, face }) => {
        const parts = [
          within({ sides, thickness, reach, behind }),
          ...(boarded && filled && shape.endsWith('arch') ? [board] : []),
        ];
        const made = modelOf(parts, {
          shape,
          more: { sections, infill: filled ? { ...infill, gap: 0.001 } : undefined },
          ...(face === 'inner' ? { on: { face } } : {}),
        });
        const { state, reason } = made.statuses.get('a')!;
        if (state !== 'cut') return;
        const cut = closedIn(made);
        expect(reason !== null || cut.parts.some(({ id }) => id === 'lining')).toBe(true);
        // What runs into something else is told of.
        if (reason === null) expect(overlap(cut)).toBeLessThan(5e-6);
      }),
      { numRuns: Number(process.env.LINING_ROUNDS ?? 40) },
    );
  });
});
