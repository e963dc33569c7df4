/** Where the figures of a dimension string go, so that none covers a tick or another figure. */

/** How wide a figure is, in pixels: the label face at 12 px runs at about 6.2 a character. */
export const widthOf = (text: string): number => text.length * 6.2;

/** Beside the line as usual; turned upright in a narrow gap; lifted on a leader where even that has no room. */
export type Manner = 'level' | 'upright' | 'lifted';

export interface Figure {
  manner: Manner;
  /** For a lifted figure, how many steps up, so that neighbours do not meet. */
  step: number;
}

/** Lays out figures for gaps (pixels) and their texts, in order. */
export function layFigures(gaps: readonly number[], texts: readonly string[]): Figure[] {
  let lifted = 0;
  return gaps.map((gap, i) => {
    if (gap >= widthOf(texts[i]!) + 6) {
      lifted = 0;
      return { manner: 'level', step: 0 };
    }
    if (gap >= 15) {
      lifted = 0;
      return { manner: 'upright', step: 0 };
    }
    lifted += 1;
    return { manner: 'lifted', step: (lifted - 1) % 3 };
  });
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
