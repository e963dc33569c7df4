/** Curtains: planes, or upright surfaces over a chain of lines in plan, along which closed meshes are split. Metres. */
import { cross, dot, type Vector } from '../vector.ts';
import { holdsPoint } from './region.ts';

type Spot = readonly [number, number];

/** One flat part of a curtain. Points on it have normal·point = offset; what is kept beside it is where that is more. */
export interface Drape {
  normal: Vector;
  offset: number;
  /** Directions in it, at right angles: level, and up it; the texture of what it leaves runs along them. */
  along: Vector;
  up: Vector;
  /** From where to where it reaches along: to the folds at which the next begin. */
  from: number;
  to: number;
}

export interface Curtain {
  drapes: readonly Drape[];
  /** Whether a place is on the side that is kept. */
  keeps: (x: number, y: number, z: number) => boolean;
  /** What is kept of an upright one, as a polygon in plan that goes far beyond all that is built. */
  inPlan?: readonly Spot[];
}

/** A plane through a point. @param normal of unit length, to the side that is kept */
export function planeCurtain(at: Vector, normal: Vector): Curtain {
  const level = Math.hypot(normal[0], normal[1]);
  const along: Vector = level > 1e-9 ? [normal[1] / level, -normal[0] / level, 0] : [1, 0, 0];
  const offset = dot(normal, at);
  return {
    drapes: [{ normal, offset, along, up: cross(along, normal), from: -Infinity, to: Infinity }],
    keeps: (x, y, z) => normal[0] * x + normal[1] * y + normal[2] * z > offset,
  };
}

/** Further out than anything that is built. */
const farOut = 1e6;

/**
 * An upright curtain over a chain of points in plan, going on straight beyond its ends; what is to the left of it is kept.
 * @param far how far its ends go on, metres.
 * @returns null where the chain crosses itself, or one of its ends would cross it.
 */
export function chainCurtain(points: readonly Spot[], far = farOut): Curtain | null {
  const path = straightened(points);
  const ways = path.slice(1).map(([x, y], i): readonly [number, number] => {
    const [dx, dy] = [x - path[i]![0], y - path[i]![1]];
    const size = Math.hypot(dx, dy);
    return [dx / size, dy / size];
  });
  const first = ways[0]!;
  const last = ways.at(-1)!;
  const drapes = ways.map(([dx, dy], i): Drape => {
    const normal: Vector = [-dy, dx, 0];
    const along: Vector = [dx, dy, 0];
    return {
      normal,
      offset: dot(normal, [...path[i]!, 0]),
      along,
      up: [0, 0, 1],
      from: i === 0 ? -Infinity : dot(along, [...path[i]!, 0]),
      to: i + 1 === ways.length ? Infinity : dot(along, [...path[i + 1]!, 0]),
    };
  });
  const [begin, end] = [path[0]!, path.at(-1)!];
  const chain: (readonly [number, number])[] = [
    [begin[0] - far * first[0], begin[1] - far * first[1]],
    ...path,
    [end[0] + far * last[0], end[1] + far * last[1]],
  ];
  if (crossesItself(chain)) return null;
  const all = leftOf(chain, [first, last], begin, far);
  if (drapes.length === 1) {
    const [{ normal, offset }] = drapes as [Drape];
    return { drapes, keeps: (x, y) => normal[0] * x + normal[1] * y > offset, inPlan: all };
  }
  const region = {
    count: all.length,
    xs: all.map(([x]) => x),
    ys: all.map(([, y]) => y),
    next: Uint32Array.from(all, (_, i) => (i + 1) % all.length),
  };
  return { drapes, keeps: (x, y) => holdsPoint(region, x, y), inPlan: all };
}

/** What is to the left of a chain: round from where it goes to where it came from. */
function leftOf(chain: readonly Spot[], [first, last]: readonly [Spot, Spot], [x, y]: Spot, far: number): Spot[] {
  const [leaves, came] = [Math.atan2(last[1], last[0]), Math.atan2(-first[1], -first[0])];
  let turn = came - leaves;
  while (turn <= 1e-9) turn += 2 * Math.PI;
  const steps = 16;
  const round = Array.from({ length: steps - 1 }, (_, i): Spot => {
    const angle = leaves + (turn * (i + 1)) / steps;
    return [x + 4 * far * Math.cos(angle), y + 4 * far * Math.sin(angle)];
  });
  return [...chain, ...round];
}

/** Parts of a chain that come nearer to each other than this meet. */
const meets = 1e-6;

/** A chain without the points that only lie on a straight way between their neighbours. */
function straightened(points: readonly Spot[]): Spot[] {
  const kept: Spot[] = [];
  points.forEach((point, i) => {
    const [from, to] = [kept.at(-1), points[i + 1]];
    if (from && to) {
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const [px, py] = [point[0] - from[0], point[1] - from[1]];
      const size = Math.hypot(dx, dy);
      const share = (px * dx + py * dy) / (size * size);
      if (share > 0 && share < 1 && Math.abs(dx * py - dy * px) / size < meets) return;
    }
    kept.push(point);
  });
  return kept;
}

function crossesItself(chain: readonly Spot[]): boolean {
  for (let i = 0; i + 1 < chain.length; i++) {
    // A way straight back lies on itself.
    if (i + 2 < chain.length) {
      const [a, b, c] = [chain[i]!, chain[i + 1]!, chain[i + 2]!];
      const back = (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]);
      const apart = Math.hypot(b[0] - a[0], b[1] - a[1]) * Math.hypot(c[0] - b[0], c[1] - b[1]);
      if (back < -(1 - 1e-9) * apart) return true;
    }
    for (let k = i + 2; k + 1 < chain.length; k++)
      if (touching([chain[i]!, chain[i + 1]!], [chain[k]!, chain[k + 1]!])) return true;
  }
  return false;
}

/** Whether two lines cross, or an end of one is on the other. */
function touching(one: readonly [Spot, Spot], other: readonly [Spot, Spot]): boolean {
  const off = ([a, b]: readonly [Spot, Spot], [x, y]: Spot): number => {
    const d = ((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / Math.hypot(b[0] - a[0], b[1] - a[1]);
    return Math.abs(d) < meets ? 0 : d;
  };
  const far = ([a, b]: readonly [Spot, Spot], [x, y]: Spot): number => {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const share = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy)));
    return Math.hypot(x - a[0] - share * dx, y - a[1] - share * dy);
  };
  return (
    (off(one, other[0]) * off(one, other[1]) < 0 && off(other, one[0]) * off(other, one[1]) < 0) ||
    other.some((spot) => far(one, spot) < meets) ||
    one.some((spot) => far(other, spot) < meets)
  );
}
