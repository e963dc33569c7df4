/** Figures of a dimension string that would cover one another are told together; what is chosen keeps its own. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { layFigures, widthOf } from '../src/sheet/figures.ts';
import { stretchesOf, type Measured } from '../src/sheet/stretches.ts';

const worded = (metres: number): string => String(Math.round(metres * 1000));

/** A row of openings with a pier between them and at its ends. */
const row = (openings: number, chosen = -1): Measured[] =>
  Array.from({ length: 2 * openings + 1 }, (_, i) => ({
    size: 1.2,
    kind: i % 2 === 1 ? 'opening' : 'pier',
    own: chosen >= 0 && Math.abs(i - (2 * chosen + 1)) <= 1,
  }));
const texts = (spans: Measured[], scale: number): string[] => stretchesOf(spans, scale, worded).map(({ text }) => text);

describe('a string', () => {
  it('whose figures have room has one for each of its spans', () => {
    expect(texts(row(1), 60)).toEqual(['1200', '1200', '1200']);
    expect(texts(row(40), 13)).toEqual(row(40).map(() => '1200'));
  });

  it('of very many tells of all of them at once', () => {
    expect(texts(row(90), 2.5)).toEqual(['90 openings of 1200, 91 piers of 1200']);
    const uneven = row(90);
    uneven[0] = { ...uneven[0]!, size: 0.6 };
    expect(texts(uneven, 2.5)).toEqual(['90 openings of 1200, 91 piers of 600 to 1200']);
    const bays = Array.from({ length: 50 }, (): Measured => ({ size: 4, kind: 'bay', own: false }));
    expect(texts(bays, 2)).toEqual(['50 bays of 4000']);
  });

  it('has figures of its own for what is chosen, and says less of the rest where that has little room', () => {
    expect(texts(row(90, 24), 2.5)).toEqual([
      '24 openings, 24 piers',
      '1200',
      '1200',
      '1200',
      '65 openings of 1200, 65 piers of 1200',
    ]);
    expect(texts(row(90, 3), 2.5).slice(0, 4)).toEqual(['', '1200', '1200', '1200']);
  });

  it('has all of its spans in its stretches, in order, and no figure on another', () => {
    const span = fc.record({
      size: fc.double({ min: 0.05, max: 9, noNaN: true }),
      kind: fc.constantFrom('opening' as const, 'pier' as const),
      own: fc.constant(false),
    });
    fc.assert(
      fc.property(
        fc.array(span, { minLength: 1, maxLength: 60 }),
        fc.double({ min: 0.5, max: 80, noNaN: true }),
        (spans, scale) => {
          const found = stretchesOf(spans, scale, worded);
          expect(found.flatMap(({ first, last }) => spans.slice(first, last + 1))).toEqual(spans);
          const gaps = found.map(({ first, last }) =>
            spans.slice(first, last + 1).reduce((sum, { size }) => sum + size * scale, 0),
          );
          let at = 0;
          const figures = layFigures(
            gaps,
            found.map(({ text }) => text),
          ).map(({ manner, step }, i) => {
            at += gaps[i]!;
            return { manner, step, middle: at - gaps[i]! / 2, width: widthOf(found[i]!.text) };
          });
          figures.forEach((one, i) => {
            if (one.manner !== 'lifted') return;
            const next = figures.slice(i + 1).find(({ manner, step }) => manner === 'lifted' && step === one.step);
            // Each begins 9 px beside its middle, in a face a little smaller than the usual one.
            if (next) expect(next.middle).toBeGreaterThan(one.middle + (11 / 12) * one.width);
          });
        },
      ),
    );
  });
});
