/** What a profile is: the outline of an opening as exact lines and arcs, each known as jamb, head or sill. */

/** Which part of an opening an edge of its profile is. Left and right are as seen from outside. */
export type Side = 'jamb-left' | 'jamb-right' | 'head' | 'sill';

/** A straight edge from one point to the next, in metres. */
export interface LineEdge {
  kind: 'line';
  side: Side;
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

/**
 * A circular edge about a centre, from one angle to a greater one (radians, counter-clockwise).
 *
 * Its reveal is unrolled in one piece, beginning at the end of the edge that `seam` names: there texture runs on from the flat
 * reveal before it, or from the face. `rise` says which way it runs from there: 1 up the face, -1 down it.
 */
export interface ArcEdge {
  kind: 'arc';
  side: Side;
  cx: number;
  cy: number;
  radius: number;
  from: number;
  to: number;
  seam: 'from' | 'to';
  rise: 1 | -1;
}

export type ProfileEdge = LineEdge | ArcEdge;

/**
 * An opening's outline in its own plane: x along, y up, metres, the bounding rectangle's lower left corner at the origin. The
 * edges run counter-clockwise, the opening on their left, each from where the one before it ends.
 */
export interface Profile {
  width: number;
  height: number;
  /** Height of the springing line above the sill, or null where the profile has none. */
  springing: number | null;
  edges: readonly ProfileEdge[];
  /** The exact area within the outline, in square metres. */
  area: number;
}

/** Why a profile cannot be made of the dimensions given, and what would be possible. */
export interface Impossible {
  reason: string;
  mend: string;
}
