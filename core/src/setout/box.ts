/** Boxes: openings as their bounding rectangles, by which they are measured and brought into line. */
import type { FaceName } from '@yard-arch/document';
import type { Placed } from './placed.ts';

/** An opening's bounding rectangle on the face, metres. */
export interface Box {
  id: string;
  mark: string;
  /** The face on which it is told where it stands; the outer one where nothing is said. */
  face?: FaceName;
  s: number;
  t: number;
  width: number;
  height: number;
  /** Height of the springing line above the sill, where there is one. */
  springing: number | null;
}

/** The box of an opening in its place. */
export function boxOf({ id, face, s, t, profile: { width, height, springing } }: Placed, mark: string): Box {
  return { id, mark, ...(face && face !== 'outer' ? { face } : {}), s, t, width, height, springing };
}
