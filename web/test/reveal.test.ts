/** The reveal on a pattern's detail sheet: its figures are those of its section, and one that is typed anew is what it says. */
import { describe, expect, it } from '@jest/globals';
import { studyOf, type Study } from '@yard-arch/core';
import {
  applyChangeSet,
  checkDocument,
  emptyDocument,
  type Pattern,
  type ProjectDocument,
  type Section,
} from '@yard-arch/document';
import { shippedMaterials } from '@yard-arch/edit';
import fc from 'fast-check';
import type { Span, Told } from '../src/book/detail.ts';
import { metAt, revealsOf, type RevealDrawn } from '../src/book/reveal.ts';

const thickness = 0.4;

/** A pattern whose jambs, head and sill have one section, as it is drawn. */
function drawn(section: Section, shape: Pattern['profile'] = { shape: 'rectangle' }): Told & { study: Study } {
  const sections =
    Object.keys(section).length > 0
      ? Object.fromEntries((['jamb-left', 'jamb-right', 'head', 'sill'] as const).map((side) => [side, section]))
      : undefined;
  const size = {
    id: 'a',
    name: '',
    dimensions: { [shape.shape === 'rectangle' ? 'width' : 'span']: 1.2, height: 1.6 },
  };
  const pattern: Pattern = {
    id: 'p',
    name: 'Loft light',
    profile: shape,
    sizes: { a: size },
    reveal: { material: null },
    ...(sections && { sections }),
  };
  return study({ ...emptyDocument('Detail'), materials: shippedMaterials, patterns: { p: pattern } });
}

function study(document: ProjectDocument): Told & { study: Study } {
  const pattern = document.patterns.p!;
  const size = pattern.sizes.a!;
  const made = studyOf({ document, pattern, size, layers: [{ thickness, material: 'brick' }] });
  if (!('cut' in made)) throw new Error(made.reason);
  return { document, pattern, size, study: made };
}

const reveals = (told: Told & { study: Study }): RevealDrawn[] => revealsOf(told.study, told);

/** What is drawn once a figure was typed anew. */
function typed(told: Told, { edit }: Span, value: number): Told & { study: Study } {
  const outcome = edit!.choices()[0]!.apply(value);
  if ('reason' in outcome) throw new Error(outcome.reason);
  return study(checkDocument(applyChangeSet(told.document, outcome).document));
}

const hundredths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 100);
const sections = fc.record(
  {
    seat: hundredths(5, 35),
    splayInside: fc.integer({ min: -20, max: 40 }),
    splayOutside: fc.integer({ min: 1, max: 30 }),
    checks: fc
      .uniqueArray(hundredths(4, 36), { minLength: 1, maxLength: 2 })
      .chain((depths) => fc.tuple(...depths.map((depth) => hundredths(2, 9).map((step) => ({ depth, step }))))),
  },
  { requiredKeys: [] },
);

const long = ({ from, to }: Span): number => Math.abs(to - from);

describe('the reveal on a detail sheet', () => {
  it('is told from the outer face to the inner one, and in all opens as much wider as its section does', () => {
    fc.assert(
      fc.property(sections, (section) => {
        const [jambs] = reveals(drawn(section));
        const { line, steps, depths } = jambs!;
        if (depths.length > 0) {
          expect([depths[0]!.from, depths.at(-1)!.to]).toEqual([0, expect.closeTo(thickness, 9)]);
          depths.slice(1).forEach(({ from }, i) => expect(from).toBe(depths[i]!.to));
        }
        const within = steps.filter(({ at }) => at > 0).reduce((sum, { from, to }) => sum + to - from, 0);
        expect(within).toBeCloseTo(line.offset.at(-1)!, 6);
        const before = steps.filter(({ at }) => at === 0).reduce((sum, { from, to }) => sum + to - from, 0);
        expect(before).toBeCloseTo(line.offset[0]!, 6);
      }),
    );
  });

  it('has figures that are what was typed, each of them, and leave the other parts alone', () => {
    let count = 0;
    fc.assert(
      fc.property(sections, fc.nat(), hundredths(1, 4), (section, pick, value) => {
        const told = drawn(section);
        const [jambs] = reveals(told);
        const figures = [...jambs!.steps, ...jambs!.depths.filter(({ edit }) => edit !== null)];
        if (figures.length === 0) return;
        const k = pick % figures.length;
        const next = typed(told, figures[k]!, value);
        const [after, head] = reveals(next);
        // A splay turns about its seat, so a seat that moves makes it another length.
        const same = [...after!.steps, ...after!.depths.filter(({ edit }) => edit !== null)][k]!;
        expect(long(same)).toBeCloseTo(value, 6);
        expect(head!.line).toEqual(reveals(told)[1]!.line);
        count += 1;
      }),
    );
    expect(count).toBeGreaterThan(60);
  });

  it('refuses what goes beyond the cut, and a step that is none', () => {
    const told = drawn({ checks: [{ depth: 0.1, step: 0.05 }] });
    const [jambs] = reveals(told);
    expect(jambs!.depths[0]!.edit!.choices()[0]!.apply(0.5)).toMatchObject({
      reason: expect.stringContaining('beyond'),
    });
    expect(jambs!.steps[0]!.edit!.choices()[0]!.apply(3)).toMatchObject({ reason: expect.stringContaining('metre') });
  });

  it('has no figures where it is square, and a check is gone once it steps by nothing', () => {
    expect(reveals(drawn({})).map(({ steps, depths }) => [steps, depths])).toEqual([
      [[], []],
      [[], []],
      [[], []],
    ]);
    const told = drawn({ seat: 0.2, splayInside: 12 });
    const flat = typed(told, reveals(told)[0]!.steps[0]!, 0);
    expect(reveals(flat)[0]!.steps).toEqual([]);
    expect(flat.pattern.sections!['jamb-left']).toEqual({ seat: 0.2 });
  });

  it('meets a head that is level and one that is not', () => {
    expect(metAt(drawn({}).study, 0.3)).toEqual({ head: { t: 1.6, level: true }, sill: { t: 0, level: true } });
    const arch = metAt(drawn({}, { shape: 'semicircular-arch' }).study, 0.3)!;
    // Half way out from the middle of a span of 1.2 m, on a circle of 0.6 m about its springing.
    expect(arch.head.level).toBe(false);
    expect(Math.abs(arch.head.t - (1 + Math.sqrt(0.6 ** 2 - 0.3 ** 2)))).toBeLessThan(0.002);
    expect(metAt(drawn({}).study, 1.5)).toBeNull();
  });
});
