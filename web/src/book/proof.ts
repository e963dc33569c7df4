/** What the size proof shows: a pattern's sizes from the smallest to the largest, with trials beside them while there are few. */
import { patternFront, profileOf } from '@yard-arch/core';
import type { Dimensions, Pattern, Size, Units } from '@yard-arch/document';
import { boundsOf } from '../boards/front-bounds.ts';

export interface Proved {
  size: Size;
  /** Whether it is only tried, and no size of the pattern. */
  tried: boolean;
  /** How much it covers with what is about it, metres. */
  wide: number;
  high: number;
  /** What breaks in it; null where all holds. */
  reason: string | null;
}

/** A pattern with fewer sizes than this is tried in others as well: so much smaller than its smallest, and so much larger than its largest. */
const few = 3;
const [smaller, larger] = [0.6, 1.6];

/** All that is proved of a pattern, the smallest first. */
export function provedOf(pattern: Pattern, units: Units): Proved[] {
  const own = Object.values(pattern.sizes).flatMap((size) => proved(pattern, size, false, units));
  own.sort(bySize);
  const [least, most] = [own[0], own.at(-1)];
  if (!least || !most || own.length >= few) return own;
  const tried = [trial(least.size, smaller), trial(most.size, larger)].flatMap((size) =>
    proved(pattern, size, true, units),
  );
  return [...own, ...tried].sort(bySize);
}

const bySize = (a: Proved, b: Proved): number => a.wide * a.high - b.wide * b.high;

/** A size with all its dimensions so many times as large, to the centimetre, or the millimetre where they are small. */
const trial = ({ dimensions }: Size, times: number): Size => ({
  id: `tried ${times}`,
  name: '',
  dimensions: Object.fromEntries(
    Object.entries(dimensions).map(([name, value]) => {
      const step = value > 0.3 ? 100 : 1000;
      return [name, Math.round(value * times * step) / step];
    }),
  ) as Dimensions,
});

function proved(pattern: Pattern, size: Size, tried: boolean, units: Units): Proved[] {
  const profile = profileOf(pattern.profile, size.dimensions, units);
  if ('reason' in profile) return [];
  const { front, reason } = patternFront(pattern, size.dimensions, units);
  const { width, height } = profile;
  const [left, low, right, top] = boundsOf(front, [-width / 2, 0, width / 2, height]);
  return [{ size, tried, wide: right - left, high: top - low, reason }];
}
