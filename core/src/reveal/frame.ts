/** How nodes of a tube reach the face that they are carried to. */
import { directionsAt, facetAt, pointAt, type BentChart, type Chart, type Vector } from '../element/chart.ts';
import { nanometre as same, relative } from '../tolerances.ts';

/** Raised where an opening reaches so far round a curve that it no longer looks at the face. */
export class BeyondCurve extends Error {}

/**
 * How nodes of one operand reach the face. Proportional nodes keep their distance along the outer face; a straight frame carries its outline square through the wall, along the inward
 * direction at `s`.
 */
export type Frame = { kind: 'proportional' } | StraightFrame;
export interface StraightFrame {
  kind: 'straight';
  /** Distance along the face at the outline's middle, metres, and that point in plan. */
  s: number;
  x: number;
  y: number;
  along: Vector;
  inward: Vector;
  /** By how much it rises a metre of way inward from that point. */
  slope: number;
}

/** The frame that looks square at a chart at a distance along it. */
export function straightFrame(chart: Chart, s: number): StraightFrame {
  const [x, y] = pointAt(chart, s, 0, 0);
  const { along, inward } = directionsAt(chart, s);
  return { kind: 'straight', s, x, y, along, inward, slope: 0 };
}

/** Whether two frames carry what is drawn to the same places: proportional ones, and straight ones that look the same way from places that differ as what they carry does. */
export function isCarriedAlike(a: Frame, b: Frame): boolean {
  if (a.kind === 'proportional' || b.kind === 'proportional') return a.kind === b.kind;
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const aside = dx * a.along[0] + dy * a.along[1];
  // Of what rises, it matters how far in it begins.
  const ahead = a.slope === 0 ? 0 : dx * a.inward[0] + dy * a.inward[1];
  return (
    Math.abs(a.along[0] * b.along[1] - a.along[1] * b.along[0]) < relative &&
    Math.abs(a.inward[0] - b.inward[0]) + Math.abs(a.inward[1] - b.inward[1]) < relative &&
    Math.abs(a.slope - b.slope) < relative &&
    Math.abs(aside - (b.s - a.s)) < same &&
    Math.abs(ahead) < same
  );
}

/** By how much a frame that rises lifts what is drawn in it, at a point in plan. */
export function lift(frame: Frame, x: number, y: number): number {
  return frame.kind === 'straight' && frame.slope !== 0
    ? frame.slope * ((x - frame.x) * frame.inward[0] + (y - frame.y) * frame.inward[1])
    : 0;
}

/** Where a ray of a straight frame, so far across from its middle, meets the face at a depth: facet and share of it. */
export function cast(chart: BentChart, frame: StraightFrame, across: number, n: number): [number, number] {
  const at = (i: number): number =>
    (chart.x[i]! + n * chart.mx[i]! - frame.x) * frame.along[0] +
    (chart.y[i]! + n * chart.my[i]! - frame.y) * frame.along[1];
  const last = chart.s.length - 2;
  let f = facetAt(chart, frame.s);
  let [left, right] = [at(f), at(f + 1)];
  while (across > right + same && f < last) {
    f += 1;
    left = right;
    right = at(f + 1);
    if (right <= left + same) throw new BeyondCurve();
  }
  while (across < left - same && f > 0) {
    f -= 1;
    right = left;
    left = at(f);
    if (right <= left + same) throw new BeyondCurve();
  }
  const share = (across - left) / (right - left);
  // Beyond the wall's own end its last facet runs on, to be clipped there.
  return [f, share];
}
