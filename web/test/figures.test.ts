/** Figures on dimension strings never cover their neighbours. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { footroom, headroom, layFigures, widthOf } from '../src/sheet/figures.ts';
import { fit, margin, sOf, tOf, xOf, yOf, zoom } from '../src/boards/viewport.ts';

describe('figures', () => {
  it('stand level only where they fit between their ticks', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 200, noNaN: true }), { minLength: 1, maxLength: 30 }), (gaps) => {
        const texts = gaps.map((gap) => String(Math.round(gap * 37)));
        layFigures(gaps, texts).forEach(({ manner }, i) => {
          if (manner === 'level') expect(widthOf(texts[i]!)).toBeLessThan(gaps[i]!);
          if (manner === 'upright') expect(gaps[i]!).toBeGreaterThanOrEqual(12);
        });
      }),
    );
  });

  it('that are lifted side by side take different steps, and upright ones get the room that they need', () => {
    const [a, b, c] = layFigures([5, 5, 5], ['1 250', '1 250', '1 250']);
    expect(new Set([a!.step, b!.step, c!.step]).size).toBe(3);
    expect(headroom([20], ['12 345'])).toBeGreaterThan(40);
    expect(headroom([200], ['12 345'])).toBe(28);
    // The first stands lowest, so that its leader runs down before the figures of the others begin.
    expect(a!.step).toBeGreaterThan(b!.step);
    expect(b!.step).toBeGreaterThan(c!.step);
    expect(layFigures([200, 5, 200], ['12 345', '1 250', '12 345'])[1]!.step).toBe(0);
    // It stands clear of the level figures of the next string, 11 px high, six above its line.
    expect(8 + 12 * a!.step + 5).toBeLessThanOrEqual(
      footroom([5, 5, 5], ['1 250', '1 250', '1 250']) + headroom([200], ['12 345']) - 6 - 9,
    );
    expect(footroom([200, 20], ['12 345', '1 250'])).toBe(0);
  });
});

describe('the viewport', () => {
  it('shows the whole face within its margins', () => {
    const view = fit(900, 600, 19.2, 8.4);
    expect(xOf(view, 0)).toBeGreaterThanOrEqual(margin.left - 1e-9);
    expect(xOf(view, 19.2)).toBeLessThanOrEqual(900 - margin.right + 1e-9);
    expect(yOf(view, 8.4)).toBeGreaterThanOrEqual(margin.top - 1e-9);
    expect(yOf(view, 0)).toBeLessThanOrEqual(600 - margin.bottom + 1e-9);
  });

  it('keeps the point under the pointer where it is when zooming', () => {
    const view = fit(900, 600, 19.2, 8.4);
    const near = zoom(view, 3, 400, 300);
    expect(sOf(near, 400)).toBeCloseTo(sOf(view, 400), 9);
    expect(tOf(near, 300)).toBeCloseTo(tOf(view, 300), 9);
  });
});
