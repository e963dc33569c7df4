/** Arches: heads of all kinds on upright jambs. Lengths in metres, x from the left of the bounding rectangle, y from the sill. */
import { arc, line } from './panels.ts';
import type { ArcEdge, Profile } from './profile.ts';
import { nanometre, rounding } from '../tolerances.ts';

/** An arch of a head (arcs from the right springing to the left one, about x = 0 on the springing line) over a span, in all `height` high. */
function onJambs(
  { span, height, rise, width = span }: { span: number; height: number; rise: number; width?: number | undefined },
  head: readonly ArcEdge[],
): Profile {
  const springing = Math.max(0, height - rise);
  const [left, right] = [(width - span) / 2, (width + span) / 2];
  const upright = springing > nanometre;
  return {
    width,
    height,
    springing,
    edges: [
      line('sill', left, 0, right, 0),
      ...(upright ? [line('jamb-right', right, 0, right, springing)] : []),
      ...head.map((edge) => ({ ...edge, cx: edge.cx + width / 2, cy: edge.cy + springing })),
      ...(upright ? [line('jamb-left', left, springing, left, 0)] : []),
    ],
  };
}

/** Half a circle of the span; rise = span / 2. */
export function semicircularArch(span: number, height: number): Profile {
  return onJambs({ span, height, rise: span / 2 }, [arc('head', 0, 0, span / 2, 0, Math.PI)]);
}

/**
 * Part of a circle less than half. By the sagitta formula its radius is (span² / 4 + rise²) / (2 rise); the centre lies radius − rise
 * below the springing line. Also the flat arch, whose rise is its camber.
 */
export function segmentalArch(span: number, height: number, rise: number): Profile {
  const radius = ((span * span) / 4 + rise * rise) / (2 * rise);
  const below = radius - rise;
  const start = Math.atan2(below, span / 2);
  return onJambs({ span, height, rise }, [arc('head', 0, -below, radius, start, Math.PI - start)]);
}

/** Half an ellipse with semi-axes span / 2 and rise. */
export function ellipticalArch(span: number, height: number, rise: number): Profile {
  return onJambs({ span, height, rise }, [
    { kind: 'arc', side: 'head', cx: 0, cy: 0, rx: span / 2, ry: rise, from: 0, to: Math.PI },
  ]);
}

/** The least rise of a three-centred arch over a span: its haunches would have no radius. */
export const leastThreeCentredRise = (span: number): number => (span / 2) * (2 - Math.sqrt(3));

/**
 * Three arcs of 60° each (the construction ascribed to Huygens). With half span a and rise f, the haunches have the radius
 * r = (f − a (2 − √3)) / (√3 − 1) about points a − r from the middle on the springing line, and the crown R = r + 2 (a − r), about a point
 * √3 (a − r) below the middle.
 */
export function threeCentredArch(span: number, height: number, rise: number): Profile {
  const a = span / 2;
  const r = (rise - a * (2 - Math.sqrt(3))) / (Math.sqrt(3) - 1);
  const sixty = Math.PI / 3;
  return onJambs({ span, height, rise }, [
    arc('head', a - r, 0, r, 0, sixty),
    arc('head', 0, -Math.sqrt(3) * (a - r), r + 2 * (a - r), sixty, 2 * sixty),
    arc('head', -(a - r), 0, r, 2 * sixty, Math.PI),
  ]);
}

/**
 * Two arcs that meet in a point, their centres on the springing line. Through springing and apex the radius is
 * R = (a² + f²) / (2 a) for half span a and rise f: a drop arch where R is less than the span, equilateral where it is the span (f = a √3),
 * a lancet where it is more.
 */
export function pointedArch(span: number, height: number, rise: number): Profile {
  const a = span / 2;
  const radius = (a * a + rise * rise) / (2 * a);
  const apex = Math.atan2(rise, radius - a);
  return onJambs({ span, height, rise }, [
    arc('head', a - radius, 0, radius, 0, apex),
    arc('head', radius - a, 0, radius, Math.PI - apex, Math.PI),
  ]);
}

/** The upper arcs of a four-centred arch: radius, centre of the right one, and the apex's angle about it; null when there are none such. */
function fourCentred(
  a: number,
  rise: number,
  r: number,
): { radius: number; cx: number; cy: number; apex: number } | null {
  const [ux, uy] = [0.5, Math.sqrt(3) / 2];
  const [jx, jy] = [a - r + r * ux, r * uy];
  // |J − R u − A| = R for the joint J, the common normal u and the apex A.
  const across = ux * jx + uy * (jy - rise);
  if (across <= 0) return null;
  const radius = (jx * jx + (jy - rise) ** 2) / (2 * across);
  const [cx, cy] = [jx - radius * ux, jy - radius * uy];
  // Right of the axis the arc would fall again before it comes to the apex.
  if (radius <= r || cx > rounding) return null;
  return { radius, cx, cy, apex: Math.atan2(rise - cy, -cx) };
}

/** The least and greatest haunch radius with which a four-centred arch of a span and rise can be drawn, or null when there is none. */
export function haunchRadii(span: number, rise: number): [number, number] | null {
  const steps = 2000;
  const possible = Array.from({ length: steps - 1 }, (_, i) => ((i + 1) / steps) * Math.min(span / 2, rise)).filter(
    (r) => fourCentred(span / 2, rise, r),
  );
  return possible.length > 0 ? [possible[0]!, possible.at(-1)!] : null;
}

/**
 * Four arcs: haunches of a given radius that turn through 60° from the springing, and flatter ones tangent to them that meet in a point. The
 * upper radius follows from their passing through the apex: R = |J − A|² / (2 u · (J − A)), with the joint J, the apex A and the normal u
 * at the joint. @returns null when there are no such arcs.
 */
export function fourCentredArch(span: number, height: number, rise: number, r: number): Profile | null {
  const a = span / 2;
  const upper = fourCentred(a, rise, r);
  if (!upper) return null;
  const { radius, cx, cy, apex } = upper;
  const sixty = Math.PI / 3;
  return onJambs({ span, height, rise }, [
    arc('head', a - r, 0, r, 0, sixty),
    arc('head', cx, cy, radius, sixty, apex),
    arc('head', -cx, cy, radius, Math.PI - apex, Math.PI - sixty),
    arc('head', -(a - r), 0, r, Math.PI - sixty, Math.PI),
  ]);
}

/** More than half a circle, wider than its span: radius (a² + f²) / (2 f) for half span a and rise f, the centre f − radius above the springing. */
export function horseshoeArch(span: number, height: number, rise: number): Profile {
  const a = span / 2;
  const radius = (a * a + rise * rise) / (2 * rise);
  const above = rise - radius;
  const start = -Math.atan2(above, a);
  return onJambs({ span, height, rise, width: 2 * radius }, [arc('head', 0, above, radius, start, Math.PI - start)]);
}

/**
 * Two double curves that meet in a point: hollow below, bulging above, all of one radius. The lower arc's centre is on the springing line, the
 * upper one's level with the apex; they touch half way, so r = (a² + f²) / (4 a) for half span a and rise f.
 */
export function ogeeArch(span: number, height: number, rise: number): Profile {
  const a = span / 2;
  const r = (a * a + rise * rise) / (4 * a);
  // From the lower centre (a − r, 0) to the upper one (r, f).
  const joint = Math.atan2(rise, 2 * r - a);
  return onJambs({ span, height, rise }, [
    arc('head', a - r, 0, r, 0, joint),
    arc('head', r, rise, r, joint + Math.PI, Math.PI),
    arc('head', -r, rise, r, 0, -joint),
    arc('head', r - a, 0, r, Math.PI - joint, Math.PI),
  ]);
}
