/** Profiles without a springing line of their own: rectangles plain, rounded and chamfered. */
import type { ArcEdge, LineEdge, Profile, ProfileEdge, Side } from './profile.ts';
import { nanometre } from '../tolerances.ts';

/** A straight edge. */
export function line(side: Side, ax: number, ay: number, bx: number, by: number): LineEdge {
  return { kind: 'line', side, ax, ay, bx, by };
}

/** An edge of a circle; angles in radians, clockwise where `to` is less than `from`. */
export function arc(side: Side, cx: number, cy: number, radius: number, from: number, to: number): ArcEdge {
  return { kind: 'arc', side, cx, cy, rx: radius, ry: radius, from, to };
}

const right = Math.PI / 2;

/** A rectangle of a width and a height (metres). */
export function rectangle(width: number, height: number): Profile {
  return {
    width,
    height,
    springing: null,
    edges: [
      line('sill', 0, 0, width, 0),
      line('jamb-right', width, 0, width, height),
      line('head', width, height, 0, height),
      line('jamb-left', 0, height, 0, 0),
    ],
  };
}

/** A rectangle whose corners are quarter circles of a radius at most half its lesser side. Each corner belongs half to either side. */
export function roundedRectangle(width: number, height: number, r: number): Profile {
  const [w, h] = [width - r, height - r];
  const corner = (a: Side, b: Side, cx: number, cy: number, from: number): ProfileEdge[] => [
    arc(a, cx, cy, r, from, from + right / 2),
    arc(b, cx, cy, r, from + right / 2, from + right),
  ];
  return {
    width,
    height,
    springing: null,
    edges: [
      ...edge('sill', r, 0, w, 0),
      ...corner('sill', 'jamb-right', w, r, -right),
      ...edge('jamb-right', width, r, width, h),
      ...corner('jamb-right', 'head', w, h, 0),
      ...edge('head', w, height, r, height),
      ...corner('head', 'jamb-left', r, h, right),
      ...edge('jamb-left', 0, h, 0, r),
      ...corner('jamb-left', 'sill', r, r, 2 * right),
    ],
  };
}

/** A rectangle with its corners cut off at 45°, by a length at most half its lesser side. The cuts belong to head and sill. */
export function chamferedRectangle(width: number, height: number, c: number): Profile {
  const [w, h] = [width - c, height - c];
  return {
    width,
    height,
    springing: null,
    edges: [
      ...edge('sill', c, 0, w, 0),
      line('sill', w, 0, width, c),
      ...edge('jamb-right', width, c, width, h),
      line('head', width, h, w, height),
      ...edge('head', w, height, c, height),
      line('head', c, height, 0, h),
      ...edge('jamb-left', 0, h, 0, c),
      line('sill', 0, c, c, 0),
    ],
  };
}

/** A straight edge, or none where it would have no length. */
function edge(side: Side, ax: number, ay: number, bx: number, by: number): ProfileEdge[] {
  return Math.hypot(bx - ax, by - ay) > nanometre ? [line(side, ax, ay, bx, by)] : [];
}
