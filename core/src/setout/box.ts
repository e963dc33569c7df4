/** Boxes: openings as their bounding rectangles, by which they are measured and brought into line. */
import type { Placed } from './resolve.ts';

/** An opening's bounding rectangle on the face, metres. */
export interface Box {
  id: string;
  mark: string;
  s: number;
  t: number;
  width: number;
  height: number;
  /** Height of the springing line above the sill, where there is one. */
  springing: number | null;
}

/** The box of an opening in its place. */
export function boxOf({ id, s, t, profile: { width, height, springing } }: Placed, mark: string): Box {
  return { id, mark, s, t, width, height, springing };
}
