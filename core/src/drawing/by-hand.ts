/** An outline drawn by hand, point by point: lines, and arcs that go on from what is before them. */
import type { OutlinePoint } from '@yard-arch/document';
import { micrometre } from '../tolerances.ts';
import { ringOf, type Ring } from './rings.ts';

/** Points drawn so far; the last one has no edge yet. */
export type ByHand = readonly OutlinePoint[];

interface Place {
  x: number;
  y: number;
}

const wayFrom = (a: Place, b: Place): number => Math.atan2(b.y - a.y, b.x - a.x);

/** An angle within half a turn either way, radians. */
const wrapped = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/** No arc turns by more than this, radians: it would nearly be the whole circle. */
const mostTurn = (345 * Math.PI) / 180;

/**
 * The bulge of an arc from the last point to a place, so that it goes on smoothly from the edge before; of the first edge, half a circle. A chord at an angle δ to the tangent
 * where an arc begins turns by 2 δ in all, and the bulge is the tangent of a quarter of that.
 */
export function bulgeTo(points: ByHand, to: Place): number {
  const [before, last] = points.slice(-2);
  if (!before || !last) return 1;
  const ended = wayFrom(before, last) + 2 * Math.atan(before.bulge ?? 0);
  const turn = 2 * wrapped(wayFrom(last, to) - ended);
  return Math.tan(Math.max(-mostTurn, Math.min(mostTurn, turn)) / 4);
}

/** The points with one more. @param arc whether the edge to it is an arc. @returns null where it is in the same place as the last. */
export function drawnTo(points: ByHand, { x, y }: Place, arc: boolean): OutlinePoint[] | null {
  const last = points.at(-1);
  if (!last) return [{ x, y }];
  if (Math.hypot(x - last.x, y - last.y) < micrometre) return null;
  return [...points.slice(0, -1), edged(points, { x, y }, arc), { x, y }];
}

/** The last point with the edge that leaves it. */
function edged(points: ByHand, to: Place, arc: boolean): OutlinePoint {
  const { x, y } = points.at(-1)!;
  const bulge = arc ? bulgeTo(points, to) : 0;
  return Math.abs(bulge) < 1e-9 ? { x, y } : { x, y, bulge };
}

/** The points closed to a ring. @returns null where they enclose nothing. */
export function closedRing(points: ByHand, arc: boolean): Ring | null {
  const [first] = points;
  if (!first || points.length < 2) return null;
  return ringOf([...points.slice(0, -1), edged(points, first, arc)])[0] ?? null;
}

/** A place so far from the last point: in a direction, degrees counter-clockwise from the right. */
export function placeAt(points: ByHand, length: number, degrees: number): Place {
  const { x, y } = points.at(-1) ?? { x: 0, y: 0 };
  const angle = (degrees * Math.PI) / 180;
  return { x: x + length * Math.cos(angle), y: y + length * Math.sin(angle) };
}

/** A place on a grid of centimetres, or in line with a point that is there already. @param reach how near it is to such a line, metres */
export function onGrid(points: ByHand, { x, y }: Place, reach: number, grid = 0.01): Place {
  const inLine = (value: number, others: readonly number[]): number => {
    const near = others
      .filter((other) => Math.abs(other - value) < reach)
      .sort((a, b) => Math.abs(a - value) - Math.abs(b - value))[0];
    return near ?? Math.round(value / grid) / Math.round(1 / grid);
  };
  return {
    x: inLine(
      x,
      points.map((point) => point.x),
    ),
    y: inLine(
      y,
      points.map((point) => point.y),
    ),
  };
}
