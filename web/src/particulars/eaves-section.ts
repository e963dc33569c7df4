/** The lines of an eaves in section. Metres: x inward from the drawn edge, z up from the roof's level there. */
import type { RoofEdge } from '@yard-arch/document';

type Eaves = Pick<Extract<RoofEdge, { is: 'eaves' }>, 'pitch' | 'over' | 'second'>;
type At = readonly [number, number];

export interface Section {
  wall: string;
  slab: string;
  /** The level from which the pitch is told. */
  level: string;
  /** The line that measures the overhang. */
  reach: string;
  /** Where grips and figures are, in the drawing. */
  at: Record<'over' | 'pitch' | 'reach' | 'angle', At>;
  /** How high the slope's top is over the drawn edge, metres. */
  above: number;
  /** Of a slope that breaks: where its break and its second pitch are drawn and told; null of any other. */
  broken: Broken | null;
  /** A place of the drawing in metres. */
  metres: (px: number, py: number) => [number, number];
}

interface Broken {
  /** The line that measures how high it breaks. */
  rise: string;
  at: Record<'break' | 'second' | 'rise' | 'angle', At>;
  /** Where its top breaks, metres. */
  top: At;
  /** How much higher its top breaks than its underside, metres. */
  lead: number;
}

interface Asked {
  thickness: number;
  ends: 'plumb' | 'square' | 'level' | undefined;
  /** As it was before it is drawn: by that the drawing has its scale and its place. */
  before: Eaves;
  size: { width: number; height: number };
}

const radians = (pitch: number): number => (pitch * Math.PI) / 180;
const tangent = (pitch: number): number => Math.tan(radians(pitch));

/** A slope's underside and top, which break where there is a second pitch. */
interface Slope {
  under: (x: number) => number;
  top: (x: number) => number;
  /** How high the top is over the underside before the break, metres. */
  above: number;
  /** Where underside and top break; null where they do not. */
  at: { under: At; top: At } | null;
  /** By how much it rises a metre at last. */
  last: number;
}

function slopeOf({ pitch, second }: Eaves, thickness: number): Slope {
  const first = tangent(pitch);
  const above = thickness / Math.cos(radians(pitch));
  // What hardly turns does not break.
  if (!second || !(first > 0) || Math.abs(second.pitch - pitch) < 0.01)
    return { under: (x) => first * x, top: (x) => first * x + above, above, at: null, last: first };
  const last = tangent(second.pitch);
  const over = thickness / Math.cos(radians(second.pitch));
  const x = second.from / first;
  const topX = x + (over - above) / (first - last);
  return {
    under: (at) => (at < x ? first * at : second.from + last * (at - x)),
    top: (at) => (at < topX ? first * at + above : second.from + last * (at - x) + over),
    above,
    at: { under: [x, second.from], top: [topX, first * topX + above] },
    last,
  };
}

/** How far inward and up the drawing reaches, metres. */
function reachOf(edge: Eaves, thickness: number): { in: number; up: number } {
  const slope = slopeOf(edge, thickness);
  if (!slope.at) return { in: 1.25, up: 0 };
  const [x] = slope.at.top;
  const far = Math.max(x, slope.at.under[0]) + 0.5 * Math.max(slope.at.under[0], slope.at.under[1]);
  return { in: far, up: slope.top(far) };
}

/** The scale and the drawn edge's place. */
function setting({ thickness, before, size: { width, height } }: Asked): { scale: number; ox: number; oy: number } {
  // What hangs over takes no more than its share of the height.
  const hangs = Math.max(0, before.over * tangent(before.pitch));
  const reach = reachOf(before, thickness);
  const up = reach.up > 0 ? reach.up : tangent(before.pitch) > 0 ? slopeOf(before, thickness).above + 0.3 : 0;
  const scale = Math.min(
    (width - (reach.up > 0 ? 100 : 60)) / (before.over + reach.in),
    up > 0 ? (height - 50) / (hangs + up) : Infinity,
    hangs > 0 && reach.up === 0 ? (0.4 * height) / hangs : Infinity,
  );
  const oy = tangent(before.pitch) > 0 ? height - 30 - hangs * scale : height * 0.5;
  // What breaks is high rather than wide: it stands in the middle.
  const spare = reach.up > 0 ? Math.max(0, width - 100 - (before.over + reach.in) * scale) / 2 : 0;
  return { scale, ox: 34 + spare + before.over * scale, oy };
}

/** @param edge as it is to be drawn */
export function slopeIn(edge: Eaves, asked: Asked): Section {
  const { pitch, over } = edge;
  const {
    thickness,
    ends,
    size: { width },
  } = asked;
  const { scale, ox, oy } = setting(asked);
  const slope = slopeOf(edge, thickness);
  const { under, top, above } = slope;
  const at = (x: number, z: number): At => [ox + x * scale, oy - z * scale];
  const path = (points: readonly At[], closed = true): string =>
    `M${points
      .map(([x, z]) =>
        at(x, z)
          .map((v) => v.toFixed(1))
          .join(' '),
      )
      .join('L')}${closed ? 'Z' : ''}`;
  // As far inward and up as there is room, and past where it breaks.
  const room = { x: (width - 66 - ox) / scale, z: (oy - 14) / scale };
  const from: At = slope.at?.top ?? [0, above];
  const up = slope.last > 0 ? from[0] + (room.z - from[1]) / slope.last : room.x;
  const far = Math.max(
    slope.at ? Math.max(slope.at.top[0], slope.at.under[0]) + 14 / scale : 0.08,
    Math.min(room.x, up),
  );
  const square = ends === 'square' ? thickness * Math.sin(radians(pitch)) : 0;
  const foot = Math.min(0, under(-over));
  const below: At[] =
    ends === 'level' && over > 0
      ? [
          [-over, foot],
          [0, foot],
          [0, 0],
        ]
      : [[square - over, under(square - over)]];
  const thick = Math.min(0.36, far * 0.8);
  // A thick roof that breaks low has nothing of its first slope on top: it is drawn by its underside then.
  const topless = slope.at !== null && slope.at.top[0] < 0.02 - over;
  // On the first slope: before the wall where it breaks over it.
  const half = !slope.at ? far * 0.5 : (slope.at.top[0] - (slope.at.top[0] > 0.1 ? 0 : over)) / 2;
  return {
    wall: path([[0, -9], [thick, -9], [thick, Math.max(0, under(thick))], ...foldIn(slope, thick), [0, 0]]),
    slab: path([
      [-over, top(-over)],
      ...below,
      ...(slope.at ? [slope.at.under] : []),
      [far, under(far)],
      [far, top(far)],
      ...(slope.at && !topless ? [slope.at.top] : []),
    ]),
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
      pitch: pitchGrip(slope, { far, half, topless, at }),
      // Beside the wall, not over it.
      reach: [Math.min(at(-over / 2, 0)[0], slope.at ? ox - 15 : Infinity), at(0, foot)[1] + 22],
      angle: slope.at ? [at(half, 0)[0] - 12, at(0, top(half))[1] - 4] : [at(far, 0)[0] + 8, at(0, top(half))[1] + 4],
    },
    above: topless ? 0 : above,
    broken: slope.at && !topless ? brokenIn(slope, far, { at, path, scale, thick }) : null,
    metres: (px, py) => [(px - ox) / scale, (oy - py) / scale],
  };
}

/** Where the first slope is pitched. */
function pitchGrip(
  { at: breaks, under, top }: Slope,
  { far, half, topless, at }: { far: number; half: number; topless: boolean; at: Drawn['at'] },
): At {
  if (topless) return at(breaks!.under[0] / 2, under(breaks!.under[0] / 2));
  return breaks ? at(half, top(half)) : at(far * 0.92, top(far * 0.92));
}

/** Where the underside breaks over the wall. */
function foldIn({ at }: Slope, thick: number): At[] {
  return at && at.under[0] < thick ? [at.under] : [];
}

interface Drawn {
  at: (x: number, z: number) => At;
  path: (points: readonly At[], closed?: boolean) => string;
  scale: number;
  thick: number;
}

function brokenIn(slope: Slope, far: number, { at, path, scale, thick }: Drawn): Broken {
  const { under, top } = slope.at!;
  const most = far - (far - top[0]) * 0.12;
  // Beside the wall, and beyond what the underside takes.
  const x = Math.max(under[0], thick) + 10 / scale;
  return {
    rise: path(
      [
        [x, 0],
        [x, under[1]],
      ],
      false,
    ),
    at: {
      break: at(...top),
      second: at(most, slope.top(most)),
      rise: [at(x, 0)[0] + 6, at(0, under[1] / 2)[1] + 4],
      angle: [at(far, 0)[0] + 8, at(0, (slope.under(far) + slope.top(far)) / 2)[1] + 4],
    },
    top,
    lead: top[1] - under[1],
  };
}
