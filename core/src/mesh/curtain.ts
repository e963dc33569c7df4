/** Curtains: planes, or upright surfaces over a chain of lines in plan, along which closed meshes are split. Metres. */
import { cross, dot, type Vector } from '../vector.ts';
import { holdsPoint } from './region.ts';

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
const far = 1e6;

/**
 * An upright curtain over a chain of points in plan, going on straight beyond its ends; what is to the left of it is kept.
 * @returns null where the chain crosses itself, or one of its ends would cross it.
 */
export function chainCurtain(path: readonly (readonly [number, number])[]): Curtain | null {
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
  if (drapes.length === 1) {
    const [{ normal, offset }] = drapes as [Drape];
    return { drapes, keeps: (x, y) => normal[0] * x + normal[1] * y > offset };
  }
  // To the left of it, round from where it goes to where it came from.
  const [leaves, came] = [Math.atan2(last[1], last[0]), Math.atan2(-first[1], -first[0])];
  let turn = came - leaves;
  while (turn <= 1e-9) turn += 2 * Math.PI;
  const steps = 16;
  const round = Array.from({ length: steps - 1 }, (_, i): readonly [number, number] => {
    const angle = leaves + (turn * (i + 1)) / steps;
    return [4 * far * Math.cos(angle), 4 * far * Math.sin(angle)];
  });
  const all = [...chain, ...round];
  const region = {
    count: all.length,
    xs: all.map(([x]) => x),
    ys: all.map(([, y]) => y),
    next: Uint32Array.from(all, (_, i) => (i + 1) % all.length),
  };
  return { drapes, keeps: (x, y) => holdsPoint(region, x, y) };
}

function crossesItself(chain: readonly (readonly [number, number])[]): boolean {
  const side = (a: readonly [number, number], b: readonly [number, number], [x, y]: readonly [number, number]): number =>
    (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]);
  for (let i = 0; i + 1 < chain.length; i++) {
    // A way straight back lies on itself.
    if (i + 2 < chain.length) {
      const [a, b, c] = [chain[i]!, chain[i + 1]!, chain[i + 2]!];
      const back = (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]);
      const apart = Math.hypot(b[0] - a[0], b[1] - a[1]) * Math.hypot(c[0] - b[0], c[1] - b[1]);
      if (back < -(1 - 1e-9) * apart) return true;
    }
    for (let k = i + 2; k + 1 < chain.length; k++) {
      const [a, b, c, d] = [chain[i]!, chain[i + 1]!, chain[k]!, chain[k + 1]!];
      if (side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0) return true;
    }
  }
  return false;
}
