/** The lines of an eaves in section. Metres: x inward from the drawn edge, z up from the roof's level there. */
import type { RoofEdge } from '@yard-arch/document';

export interface Section {
  wall: string;
  slab: string;
  /** The level from which the pitch is told. */
  level: string;
  /** The line that measures the overhang. */
  reach: string;
  /** Where grips and figures are, in the drawing. */
  at: Record<'over' | 'pitch' | 'reach' | 'angle', readonly [number, number]>;
  /** How high the slope's top is over the drawn edge, metres. */
  above: number;
  /** A place of the drawing in metres. */
  metres: (px: number, py: number) => [number, number];
}

interface Asked {
  thickness: number;
  ends: 'plumb' | 'square' | 'level' | undefined;
  /** As it was before it is drawn: by that the drawing has its scale and its place. */
  before: Pick<Extract<RoofEdge, { is: 'eaves' }>, 'pitch' | 'over'>;
  size: { width: number; height: number };
}

const tangent = (pitch: number): number => Math.tan((pitch * Math.PI) / 180);

/** @param edge as it is to be drawn */
export function slopeIn(
  { pitch, over }: Pick<Extract<RoofEdge, { is: 'eaves' }>, 'pitch' | 'over'>,
  { thickness, ends, before, size: { width, height } }: Asked,
): Section {
  const slope = tangent(pitch);
  const above = thickness / Math.cos((pitch * Math.PI) / 180);
  // What hangs over takes no more than its share of the height.
  const hangs = Math.max(0, before.over * tangent(before.pitch));
  const scale = Math.min((width - 60) / (before.over + 1.25), hangs > 0 ? (0.4 * height) / hangs : Infinity);
  const [ox, oy] = [34 + before.over * scale, slope > 0 ? height - 30 - hangs * scale : height * 0.5];
  const at = (x: number, z: number): readonly [number, number] => [ox + x * scale, oy - z * scale];
  const path = (points: readonly (readonly [number, number])[], closed = true): string =>
    `M${points
      .map(([x, z]) =>
        at(x, z)
          .map((v) => v.toFixed(1))
          .join(' '),
      )
      .join('L')}${closed ? 'Z' : ''}`;
  // As far inward and up as there is room.
  const room = { x: (width - 66 - ox) / scale, z: (oy - 14) / scale - above };
  const far = Math.max(0.08, Math.min(room.x, slope > 0 ? room.z / slope : room.x));
  const square = ends === 'square' ? thickness * Math.sin((pitch * Math.PI) / 180) : 0;
  const foot = Math.min(0, -over * slope);
  const below: (readonly [number, number])[] =
    ends === 'level' && over > 0
      ? [
          [-over, foot],
          [0, foot],
          [0, 0],
        ]
      : [[square - over, slope * (square - over)]];
  const top = (x: number): number => slope * x + above;
  const thick = Math.min(0.36, far * 0.8);
  return {
    wall: path([
      [0, -9],
      [thick, -9],
      [thick, Math.max(0, slope * thick)],
      [0, 0],
    ]),
    slab: path([[-over, top(-over)], ...below, [far, slope * far], [far, top(far)]]),
    level: path(
      [
        [0, above],
        [Math.min(far, 0.6), above],
      ],
      false,
    ),
    reach: path(
      [
        [-over, foot - 8 / scale],
        [0, foot - 8 / scale],
      ],
      false,
    ),
    at: {
      over: at(-over, top(-over)),
      pitch: at(far * 0.92, top(far * 0.92)),
      reach: [at(-over / 2, 0)[0], at(0, foot)[1] + 22],
      angle: [at(far, 0)[0] + 8, at(0, top(far * 0.5))[1] + 4],
    },
    above,
    metres: (px, py) => [(px - ox) / scale, (oy - py) / scale],
  };
}
