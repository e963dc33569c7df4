/** The size proof without a page: a pattern with few sizes is tried in a smaller and a larger one as well, one with many is not; and what breaks says so. */
import { describe, expect, it } from '@jest/globals';
import { patternFront } from '@yard-arch/core';
import type { Pattern } from '@yard-arch/document';
import { shipped } from '@yard-arch/edit';
import { provedOf } from '../src/book/proof.ts';

const sizesOf = ({ sizes }: Pattern): number => Object.keys(sizes).length;

describe('the size proof', () => {
  it('shows patterns in three sizes at least, from the smallest to the largest', () => {
    for (const pattern of shipped.filter((_, i) => i % 4 === 0)) {
      const all = provedOf(pattern, 'mm');
      const own = all.filter(({ tried }) => !tried);
      expect([pattern.name, own.length]).toEqual([pattern.name, sizesOf(pattern)]);
      expect([pattern.name, all.length >= 3]).toEqual([pattern.name, true]);
      expect(all.some(({ tried }) => tried)).toBe(sizesOf(pattern) < 3);
      const areas = all.map(({ wide, high }) => wide * high);
      expect(areas).toEqual([...areas].sort((a, b) => a - b));
      // What is about an opening is within what it is said to cover.
      for (const { size, wide, high } of all) {
        const xs = patternFront(pattern, size.dimensions, 'mm').front.flatMap(({ loops }) => loops.flat());
        const [left, right] = [Math.min(...xs.map(([x]) => x)), Math.max(...xs.map(([x]) => x))];
        if (xs.length > 0) expect(right - left).toBeLessThanOrEqual(wide + 1e-9);
        expect(high).toBeGreaterThan(0);
      }
    }
  });

  it('tells of a rule that breaks in a size that is only tried', () => {
    const door =
      shipped.find(({ id }) => id === 'panelled-door') ?? shipped.find(({ name }) => name === 'Panelled door')!;
    const [tried] = provedOf(door, 'mm').filter((one) => one.tried);
    expect(tried!.reason).toContain('no light on one side');
    for (const { tried: only, reason } of provedOf(door, 'mm')) if (!only) expect(reason).toBeNull();
  });
});
