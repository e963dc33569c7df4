/** What is drawn over a board while something is done on it. */
import type { Guide, SnappedPoint } from '@yard-arch/core';

/** Something that is being placed or moved: its lower left corner, and what it came into line with. */
export interface Ghost {
  s: number;
  t: number;
  along: Guide | null;
  up: Guide | null;
}

/** A rectangle on the face, metres. */
export interface Rectangle {
  s: number;
  t: number;
  width: number;
  height: number;
}

/** A measurement between two points; until it is laid its end follows the pointer. */
export interface Tape {
  from: SnappedPoint;
  to: SnappedPoint;
  laid: boolean;
}
