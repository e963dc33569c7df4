/** How far back into the layers a boss reaches. */
import type { Sheet } from '../element/sheet.ts';
import type { Placed } from '../setout/placed.ts';

/** The depth to which a boss reaches back, metres: 0 where it only stands on the face. */
export function reachOf({ pattern }: Placed, sheet: Sheet): number {
  const { cut } = pattern;
  if (cut?.kind !== 'boss' || cut.layers === undefined) return 0;
  return sheet.boundaries[cut.layers === 'all' ? sheet.layers.length : Math.min(cut.layers, sheet.layers.length)]!;
}
