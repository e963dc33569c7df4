/** Limits read off the schemas: what they let through the schemas take, and nothing beyond. */
import { describe, expect, it } from '@jest/globals';
import { z } from 'zod';
import { limits, limitsAt, patternSchema, wallSchema } from '../src/index.ts';

describe('limits', () => {
  it('are those of the schemas', () => {
    expect(limits.splay).toEqual({ least: -80, most: 80 });
    expect(limits.layers).toEqual({ least: 1, most: 24 });
    expect(limits.arris).toEqual({ least: 0.0001, most: 1 });
    expect(limits.batter).toEqual({ least: -45, most: 45 });
    // Every one of them is a limit indeed.
    for (const { least, most } of Object.values(limits)) {
      expect(Number.isFinite(most)).toBe(true);
      expect(least).toBeLessThan(most);
    }
  });

  it.each([
    ['batter', limits.batter],
    ['length', limits.extent],
  ] as const)('of a wall’s %s are just what its schema takes', (field, { least, most }) => {
    const schema = wallSchema.shape[field] as z.ZodType;
    expect([least, most].every((value) => schema.safeParse(value).success)).toBe(true);
    expect([least - 1e-3, most + 1e-3].some((value) => schema.safeParse(value).success)).toBe(false);
  });

  it('are refused for what a schema has not', () => {
    expect(() => limitsAt(patternSchema, 'sections/head/nothing')).toThrow(/no “sections\/head\/nothing”/);
    expect(limitsAt(z.string())).toEqual({ least: -Infinity, most: Infinity });
  });
});
