/** An opening in its place, or why it has none. */
import { formatLength, unitsLabel, type FaceName, type Grip, type Pattern, type Units } from '@yard-arch/document';
import type { Fault } from '../finding.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Profile, Side } from '../profile/profile.ts';
import type { SectionLine } from '../profile/section.ts';

/** An opening in its place: its outline's lower left corner is at (s, t) on its element's face, metres. */
export interface Placed {
  id: string;
  element: string;
  /** The face on which it is told where it is, and its own where that is another; the outer one where nothing is said. */
  face?: FaceName;
  own?: FaceName;
  s: number;
  t: number;
  profile: Profile;
  outline: Outline;
  pattern: Pattern;
  /** Where it comes down on several planes: which of them alone it cuts. */
  planes?: readonly FaceName[];
  /** How steep the plane is on which it is, radians; none but on a roof's. */
  slope?: number;
  blockedUp: boolean;
  /** By how many degrees its leaves stand open, where it says otherwise than its pattern. */
  open?: number;
  /** By what share of their way those that slide have slid. */
  slid?: number;
  /** What it does. */
  kind: NonNullable<Pattern['cut']>['kind'];
  /** The depth at which it begins, metres, where that is not the outer face. */
  from?: number;
  /** How deep it cuts, or how high it is raised, metres; the element's thickness where it goes right through. */
  depth: number;
  /** How thick the layers are that it meets, from the face on which it is told. */
  layers?: readonly number[];
  /** How each side departs from square over that depth. */
  sections: Readonly<Record<Side, SectionLine>>;
  /** The outline in which something can stand in it, where it runs over its element’s edge. */
  clear?: Outline;
  /** How far its outline moves along and up with every metre of depth, where it is carried on skew. */
  drift?: readonly [number, number];
  /** Where it lies otherwise than it is set out, as on a dome seen from above: what its own directions across and up are there, and where the middle of its sill is. */
  leans?: readonly [number, number, number, number, number, number];
  /** The back of the barrel that it runs into, as far in and up as it comes before it. */
  flank?: readonly (readonly [number, number])[];
  /** The plane in which it is drawn and the way in which it is carried through a curved wall, where that is not square to the wall at its middle. */
  carrier?: Carrier;
}

/** A plane, and the way in which an outline drawn in it is carried: a point in plan (metres) that is the outline's middle, level unit vectors along it and the way, and the rise a metre of way. */
export interface Carrier {
  x: number;
  y: number;
  along: readonly [number, number];
  way: readonly [number, number];
  slope: number;
}

/** Whether two openings are the same thing in the same place: of one outline, one pattern and one set of sections. */
export const standAlike = (x: Placed, y: Placed): boolean =>
  x.s === y.s && x.t === y.t && x.outline === y.outline && x.pattern === y.pattern && x.sections === y.sections;

export function sameCarrier(a: Carrier | undefined, b: Carrier | undefined): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

/** An opening that could not be placed, why, and what would mend it. */
export interface Unplaced extends Fault {
  id: string;
  element: string;
}

/** A length for a sentence, with its unit. */
export function worded(metres: number, units: Units): string {
  return units === 'ft-in' ? formatLength(metres, units) : `${formatLength(metres, units)} ${unitsLabel(units)}`;
}

/** How far the grip of a profile is from the lower left corner of its bounding rectangle, metres. Without a springing line the head stands for it. */
export function gripOffset(profile: Pick<Profile, 'width' | 'height' | 'springing'>, grip: Grip): [number, number] {
  const x = grip.across === 'left' ? 0 : grip.across === 'centre' ? profile.width / 2 : profile.width;
  const { height, springing } = profile;
  const y = { sill: 0, middle: height / 2, head: height, springing: springing ?? height }[grip.level];
  return [x, y];
}
