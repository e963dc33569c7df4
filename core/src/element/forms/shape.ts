/** Shapes: what a form tells of a sheet before it is made, and how it is made. */
import type { Fault } from '../../finding.ts';
import type { Fineness } from '../../profile/flatten.ts';
import { turned, type Chart } from '../chart.ts';
import type { Sheet, SheetOutline } from '../sheet.ts';

export type ShapeOutline = SheetOutline & { fault: Sheet['fault'] };

export interface Shape {
  /** Into how many points its own edges are divided, told before they are, so that a few figures cannot ask for endless work. */
  points: (fineness: Fineness) => number;
  /** What of it those are. */
  fine: string;
  /** What would give it more room, in a sentence. */
  larger: string;
  chart: (fineness: Fineness) => Chart;
  outline: (fineness: Fineness) => ShapeOutline;
}

/** The most points that one element's outline or curve is divided into. */
export const mostEdgePoints = 20_000;

/** The fault of an element whose edges are too many to be begun with. */
export function tooFine(what: string, points: number): Fault {
  return {
    code: 'too-fine',
    reason: `its ${what} would be divided into ${points.toLocaleString('en')} pieces, more than ${mostEdgePoints.toLocaleString('en')}`,
    mend: 'Set a coarser chord for the project’s arcs, or divide it.',
  };
}

/** The chart of a plane through a point: along is level in the direction `turn`, up rises at `tilt`; degrees. */
export function flatChart({ x, y, z }: { x: number; y: number; z: number }, turn: number, tilt: number): Chart {
  const [cos, sin] = turned(turn);
  const [level, rise] = turned(tilt);
  // In plan inward is (−sin, cos); the face leans that way as it rises.
  return {
    kind: 'flat',
    origin: [x, y, z],
    along: [cos, sin, 0],
    up: [0 - sin * level, cos * level, rise],
    inward: [0 - sin * rise, cos * rise, 0 - level],
  };
}
