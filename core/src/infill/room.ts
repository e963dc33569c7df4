/** How much of a reveal there is for what lies along it, from a face to what stands in the opening. */
import type { Placed } from '../setout/placed.ts';
import { millimetre } from '../tolerances.ts';
import { seatOf } from './infill.ts';

/** From which face something lies along the reveal, and how far in it is to reach. */
export interface Along {
  reach?: number | undefined;
  behind?: boolean | undefined;
}

/** How far it is from a face to what stands in an opening, or through the wall where nothing does; or why that is nothing. */
export function roomIn({ behind }: Along, placed: Placed): number | string {
  const { infill } = placed.pattern;
  const seat = infill && seatOf(infill, placed);
  const room = typeof seat === 'object' ? (behind ? placed.depth - seat.to : seat.from) : placed.depth;
  return room < millimetre ? 'what stands in it leaves nothing of the reveal before it' : room;
}

/** What of an opening its room depends on, with the boards on its sill, in words. */
export const roomKey = ({ pattern: { infill, parts }, layers }: Placed): string =>
  JSON.stringify([infill?.seat, infill?.frame.depth, layers, parts?.filter(({ kind }) => kind === 'sill board')]);
