/** Where the figures of a dimension string go, so that none covers a tick or another figure. */

/** How wide a figure is, in pixels: the label face at 12 px runs at about 6.2 a character. */
export const widthOf = (text: string): number => text.length * 6.2;

/** Beside the line as usual; turned upright in a narrow gap; lifted on a leader where even that has no room. */
export type Manner = 'level' | 'upright' | 'lifted';

export interface Figure {
  manner: Manner;
  /** For a lifted figure, how many steps down, so that neighbours do not meet. */
  step: number;
  /** Whether it covers another all the same. */
  crowded: boolean;
}

/** How many steps lifted figures stand on, how wide they are beside usual ones, and what is left between two on one step, pixels. */
const [steps, smaller, between] = [3, 11 / 12, 4];

/** How a figure stands in a gap, pixels. */
export const mannerOf = (gap: number, text: string): Manner => {
  if (gap >= widthOf(text) + 6) return 'level';
  return gap >= 15 ? 'upright' : 'lifted';
};

/** Lays out figures for gaps (pixels) and their texts, in order. Of lifted ones side by side the first stands lowest, so that no leader goes through the figure of another; each where it has room. */
export function layFigures(gaps: readonly number[], texts: readonly string[]): Figure[] {
  const manners = gaps.map((gap, i) => mannerOf(gap, texts[i]!));
  const ends = new Array<number>(steps).fill(-Infinity);
  let at = 0;
  let step = 0;
  return gaps.map((gap, i) => {
    at += gap;
    const manner = manners[i]!;
    if (manner !== 'lifted') return { manner, step: 0, crowded: false };
    const middle = at - gap / 2;
    const follows = manners[i - 1] === 'lifted';
    step = (follows && step > 0 ? step : Math.min(steps, liftedFrom(manners, i))) - 1;
    const free = [step, ...ends.keys()].find((one) => ends[one]! <= middle);
    if (free !== undefined) step = free;
    ends[step] = middle + smaller * widthOf(texts[i]!) + between;
    return { manner, step, crowded: free === undefined };
  });
}

/** How many from one on are lifted. */
function liftedFrom(manners: readonly Manner[], first: number): number {
  let end = first;
  while (manners[end] === 'lifted') end += 1;
  return end - first;
}

/** Room that a string's lifted figures need below its line, pixels, before the room of the next one begins. */
export function footroom(gaps: readonly number[], texts: readonly string[]): number {
  return layFigures(gaps, texts).reduce(
    (most, { manner, step }) => Math.max(most, manner === 'lifted' ? 10 + 12 * step : 0),
    0,
  );
}

/** Room that a string's figures need above its line, pixels. */
export function headroom(gaps: readonly number[], texts: readonly string[]): number {
  return layFigures(gaps, texts).reduce(
    (most, { manner }, i) => Math.max(most, manner === 'upright' ? texts[i]!.length * 5.4 + 12 : 28),
    28,
  );
}
