/** What a profile is: the outline of an opening as exact lines and arcs, each known as jamb, head or sill. */
import { rounding } from '../tolerances.ts';

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
 * An edge that is part of a circle (rx = ry) or an upright ellipse: the points (cx + rx cos θ, cy + ry sin θ), θ running from `from`
 * to `to` in radians; counter-clockwise, hollow towards the opening, where `to` is greater, and clockwise where it is less.
 */
export interface ArcEdge {
  kind: 'arc';
  side: Side;
  cx: number;
  cy: number;
  rx: number;
  ry: number;
  from: number;
  to: number;
  /** Whether texture begins anew here, as at a cusp or at the springing of a round opening, rather than running on from the edge before. */
  seam?: boolean;
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
  /** Where each closed loop of edges begins; one loop from edge 0 where it is left out. Islands run clockwise. */
  loops?: readonly number[];
}

/** Why a profile cannot be made of the dimensions given, and what would be possible. */
export interface Impossible {
  reason: string;
  mend: string;
}

/** A point of an arc. */
export function arcPoint(arc: ArcEdge, angle: number): [number, number] {
  return [arc.cx + arc.rx * exactCos(angle), arc.cy + arc.ry * exactCos(angle - Math.PI / 2)];
}

/** Cosine, exact at whole quarter turns, so that springing and crown lie where the dimensions say. */
function exactCos(angle: number): number {
  const quarter = angle / (Math.PI / 2);
  const whole = Math.round(quarter);
  return Math.abs(quarter - whole) < rounding ? ([1, 0, -1, 0][((whole % 4) + 4) % 4] ?? 0) : Math.cos(angle);
}

/**
 * The exact area within a profile, square metres: half the integral of x dy − y dx round its edges (Green's theorem), in closed form
 * for each.
 */
export function profileArea(profile: Profile): number {
  let twice = 0;
  for (const edge of profile.edges) {
    if (edge.kind === 'line') twice += edge.ax * edge.by - edge.bx * edge.ay;
    else {
      const { cx, cy, rx, ry, from, to } = edge;
      twice +=
        rx * ry * (to - from) + cx * ry * (Math.sin(to) - Math.sin(from)) - cy * rx * (Math.cos(to) - Math.cos(from));
    }
  }
  return twice / 2;
}
