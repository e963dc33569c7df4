/** Snapping one side of an opening that is drawn out: the other one stays where it is. */
import type { Box } from './box.ts';
import { best, type Candidate, type Guide, type Lines } from './snap.ts';

/** What of an opening can be drawn out. */
export type BoxSide = 'left' | 'right' | 'sill' | 'head' | 'springing';

/** Where a side of a box is: along for jambs, up for the others, metres. */
export function sideOf({ s, t, width, height, springing }: Box, side: BoxSide): number {
  return { left: s, right: s + width, sill: t, head: t + height, springing: t + (springing ?? height) }[side];
}

const words: Record<BoxSide, string> = {
  left: 'left jamb',
  right: 'right jamb',
  sill: 'sill',
  head: 'head',
  springing: 'springing',
};

/** What a side comes into line with within reach (metres), nearest first; null where there is nothing. */
export function snapSide(
  box: Box,
  { side, at }: { side: BoxSide; at: number },
  others: readonly Box[],
  { lines, reach }: { lines: Lines; reach: number },
): Guide | null {
  const found: Candidate[] = [];
  const take = (to: number, what: string, of: string, rank: number): void => {
    if (Math.abs(to - at) <= reach) found.push({ shift: to - at, at: to, what, of, rank, hold: {} });
  };
  if (side === 'left' || side === 'right') alongLines(box, side, others, { lines, take });
  else upLines(box, side, others, { lines, take });
  return best(found)[1];
}

type Take = (to: number, what: string, of: string, rank: number) => void;

function alongLines(
  box: Box,
  side: 'left' | 'right',
  others: readonly Box[],
  { lines: { length, axes }, take }: { lines: Lines; take: Take },
): void {
  const fixed = side === 'left' ? box.s + box.width : box.s;
  const away = side === 'left' ? -1 : 1;
  for (const { name, s } of axes) {
    take(s, `${words[side]} on axis`, name, 0);
    take(fixed + 2 * (s - fixed), 'centred on axis', name, 1);
  }
  take(side === 'left' ? 0 : length, side === 'left' ? 'to the start of the wall' : 'to the end of the wall', '', 3);
  for (const other of others) {
    take(sideOf(other, side), `${words[side]} in line with`, other.mark, 2);
    take(sideOf(other, side === 'left' ? 'right' : 'left'), `${words[side]} against`, other.mark, 5);
    take(fixed + away * other.width, 'as wide as', other.mark, 4);
  }
}

function upLines(
  box: Box,
  side: 'sill' | 'head' | 'springing',
  others: readonly Box[],
  { lines: { height, datums, course }, take }: { lines: Lines; take: Take },
): void {
  const fixed = side === 'sill' ? box.t + box.height : box.t;
  for (const { name, t } of datums) take(t, `${words[side]} on datum`, name, 0);
  if (side === 'sill') take(0, 'on the base', '', 2);
  if (side === 'head') take(height, 'under the top', '', 2);
  for (const other of others) {
    if (side !== 'springing' || other.springing !== null)
      take(sideOf(other, side), `${words[side]} level with`, other.mark, 1);
    if (side !== 'springing') take(fixed + (side === 'sill' ? -1 : 1) * other.height, 'as high as', other.mark, 3);
  }
  if (course && side !== 'springing') {
    const near = Math.round(sideOf(box, side) / course);
    for (let n = near - 20; n <= near + 20; n++) if (n > 0) take(n * course, `${words[side]} on course`, String(n), 6);
  }
}
