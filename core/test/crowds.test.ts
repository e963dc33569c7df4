/** Very many openings that lie over one another: each is cut, or refused before any of it is begun. */
import { describe, expect, it } from '@jest/globals';
import type { Opening, Pattern } from '@yard-arch/document';
import { cutModel } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const round: Pattern = {
  id: 'p',
  name: 'Oculus',
  profile: { shape: 'circle' },
  sizes: { a: { id: 'a', name: '', dimensions: { diameter: 1 } } },
  reveal: { material: null },
};
const square: Pattern = {
  ...round,
  profile: { shape: 'rectangle' },
  sizes: { a: { id: 'a', name: '', dimensions: { width: 1, height: 1 } } },
};

/** What became of so many openings, each so far from the one before, by what is said of them. */
function outcomes(pattern: Pattern, count: number, step: number): Map<string, number> {
  const openings = Array.from({ length: count }, (_, i): Opening => opening(`o${i}`, 'p', 1 + i * step, 1));
  const model = cutModel(
    project([wall({ length: count * step + 4, height: 4 })], openings, { patterns: { p: pattern } }),
  );
  const told = new Map<string, number>();
  for (const { state, reason } of model.statuses.values()) {
    const words = reason ?? state;
    told.set(words, (told.get(words) ?? 0) + 1);
  }
  return told;
}

describe('very many openings', () => {
  it('in one heap are all refused: each has more over it than can be cut', () => {
    // Work with every pair of them would be twelve hundred million looks.
    expect(outcomes(square, 50_000, 0)).toEqual(new Map([['more than 250 other openings lie over it', 50_000]]));
  });

  it('in a chain are cut together up to some hundreds, and beyond that refused together', () => {
    expect(outcomes(round, 300, 0.9)).toEqual(new Map([['cut', 300]]));
    const [[words, count]] = [...outcomes(round, 4000, 0.9)] as [[string, number]];
    expect(count).toBe(4000);
    expect(words).toMatch(/^it meets others that meet others, 4000 in one chain, more than can be cut together$/);
  });

  it('side by side are cut, however many', () => {
    expect(outcomes(square, 4000, 1.1)).toEqual(new Map([['cut', 4000]]));
  });
});
