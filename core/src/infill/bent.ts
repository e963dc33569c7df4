/** Parts that follow a curve: built flat, and folded as the wall's facets are. */
import {
  directionsAt,
  facetAt,
  placedIn,
  pointAt,
  turnedIn,
  upright,
  type BentChart,
  type Rigid,
} from '../element/chart.ts';
import { folded, type Crease, type Fold } from '../mesh/folded.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { StraightFrame } from '../reveal/frame.ts';
import { tidy } from '../tidy.ts';
import { millimetre, nanometre } from '../tolerances.ts';
import type { Vector } from '../vector.ts';
import type { InfillPart } from './infill.ts';
import type { Motion } from './leaf.ts';

/** How a chart folds about a place on it, in the directions that a part has there; the same words for places that fold alike. */
export interface Bend {
  fold: Fold;
  key: string;
}

/** How far something reaches: to either side of where it begins, and from where to where into the wall, metres. */
export interface Reach {
  half: number;
  near: number;
  far: number;
}

/** A place on a chart: the distance along and the height from which something is built, and its directions there. */
export interface Place {
  middle: number;
  low: number;
  placement: Rigid;
}

/** How a chart folds what turns in with it: what lies so far along its outer face lies there all through, as radial jambs do. */
export function turningIn(chart: BentChart, { middle, low, placement }: Place, { half }: Pick<Reach, 'half'>): Bend {
  const at = Array.from(chart.s, (s) => s - middle).filter((x) => Math.abs(x) < half);
  const fold: Fold = {
    at: at.map((along) => ({ along, lean: 0 })),
    point: (x, y, z) => placedIn(placement, pointAt(chart, middle + x, low + z, y)),
    normal: ([x], [a, b, c]) => {
      const { along, inward, up } = directionsAt(chart, middle + x);
      return turnedIn(
        placement,
        [0, 1, 2].map((k) => along[k]! * a + inward[k]! * b + up[k]! * c) as unknown as Vector,
      );
    },
  };
  return { fold, key: keyOf(fold, [-half, ...at, half]) };
}

/** A rib as it is met from a place: how far across and ahead it is where the face is, and by how much more for each metre below that. */
interface Rib {
  x: number;
  y: number;
  lean: number;
  ahead: number;
}

/**
 * How a chart folds what goes straight through it at a place, as parallel jambs do: what is so far to the side of that place is so all through, and as
 * deep below each facet as it was built.
 * @returns null where the chart turns away from the place within that reach.
 */
export function goingThrough(bent: BentChart, frame: StraightFrame, { half, near, far }: Reach): Bend | null {
  const chart = upright(bent);
  const { along, inward, slope } = frame;
  const seen = (x: number, y: number): [number, number] => [x * along[0] + y * along[1], x * inward[0] + y * inward[1]];
  const ribOf = (i: number): Rib => {
    const [x, y] = seen(chart.x[i]! - frame.x, chart.y[i]! - frame.y);
    const [lean, ahead] = seen(chart.mx[i]!, chart.my[i]!);
    return { x, y, lean, ahead };
  };
  const [first, ribs] = ribsWithin(chart, frame.s, ribOf, { half, near, far });
  if ([near, far].some((y) => ribs.slice(1).some((rib, i) => across(rib, y) <= across(ribs[i]!, y) + nanometre)))
    return null;
  /** The facet in which a point is, and its share of it. */
  const within = (x: number, y: number): [number, number] => {
    let f = 0;
    while (f + 2 < ribs.length && across(ribs[f + 1]!, y) <= x) f += 1;
    const [a, b] = [across(ribs[f]!, y), across(ribs[f + 1]!, y)];
    return [f, (x - a) / (b - a)];
  };
  const fold: Fold = {
    at: ribs.slice(1, -1).map(({ x, lean }): Crease => ({ along: x, lean })),
    point: (x, y, z) => {
      const [f, share] = within(x, y);
      const [a, b] = [ribs[f]!, ribs[f + 1]!];
      const [ya, yb] = [a.y + a.ahead * y, b.y + b.ahead * y];
      const ahead = ya + share * (yb - ya);
      return [x, ahead, z + slope * ahead];
    },
    // What faces aside still does; what faces out, as the facet does.
    normal: ([x, y], [a, b, c]) => {
      const [f, share] = within(x, y);
      const s = chart.s[first + f]! + share * (chart.s[first + f + 1]! - chart.s[first + f]!);
      const [nx, ny] = directionsAt(chart, s).inward;
      const [p, q] = seen(nx, ny);
      return [a + b * p, b * q - c * slope, c];
    },
  };
  return { fold, key: keyOf(fold, [-half, ...ribs.map(({ x }) => x), half]) };
}

const across = ({ x, lean }: Rib, y: number): number => x + lean * y;

/** The ribs about a distance along, as far as something reaches and one beyond, and the number of the first. */
function ribsWithin(
  chart: BentChart,
  s: number,
  ribOf: (i: number) => Rib,
  { half, near, far }: Reach,
): [number, Rib[]] {
  const outmost = (rib: Rib, way: 1 | -1): number => Math.min(way * across(rib, near), way * across(rib, far));
  let first = facetAt(chart, s);
  let last = first + 1;
  while (first > 0 && outmost(ribOf(first), -1) < half) first -= 1;
  while (last + 1 < chart.s.length && outmost(ribOf(last), 1) < half) last += 1;
  return [first, Array.from({ length: last - first + 1 }, (_, i) => ribOf(first + i))];
}

/** How what is built square goes aside and up with the depth, in a flat face. */
export const sheared = ([dx, dz]: readonly [number, number]): Bend => ({
  fold: {
    at: [],
    point: (x, y, z) => [x + dx * y, y, z + dz * y],
    normal: (_, [a, b, c]) => [a, b - a * dx - c * dz, c],
  },
  key: `${tidy(dx)} ${tidy(dz)}`,
});

/** Words for a fold: where it takes points at these distances along. */
const keyOf = (fold: Fold, distances: readonly number[]): string =>
  distances
    .flatMap((x) => [x, ...fold.point(x, 0, 0), ...fold.point(x, 1, 0)])
    .concat(fold.at.map(({ lean }) => lean))
    .map((value) => Math.round(value * 1e6))
    .join();

/** Parts made for a flat face as they are on a bent one; or why they cannot be. */
export function bentParts(made: readonly InfillPart[], { fold, key }: Bend): InfillPart[] | string {
  if (made.some(({ motions }) => motions.some(({ kind, along }) => kind === 'slide' && Math.abs(along[0]) > nanometre)))
    return 'its leaf slides aside, and cannot do so where it follows a curve';
  return made.map(({ part, motions, about }) => {
    const own = about ?? [0, 0, 0];
    const whole = about ? shiftedBy(part.mesh, own) : part.mesh;
    const hinge = fold.point(...own);
    const mesh = folded(whole, fold);
    return {
      part: { ...part, key: `${part.key} bent ${key}`, mesh: about ? shiftedBy(mesh, hinge, -1) : mesh },
      motions: motions.map((motion): Motion => ({
        ...motion,
        at: fold.point(...motion.at) as [number, number, number],
        along: wayAt(fold, motion.at, motion.along),
      })),
      ...(about ? { about: hinge as [number, number, number] } : {}),
    };
  });
}

/** Where a way that something moves goes as it is folded. */
function wayAt({ point }: Fold, at: Vector, way: Vector): [number, number, number] {
  const [from, to] = [
    point(...at),
    point(...(at.map((value, k) => value + millimetre * way[k]!) as [number, number, number])),
  ];
  return [0, 1, 2].map((k) => (to[k]! - from[k]!) / millimetre) as [number, number, number];
}

function shiftedBy(mesh: CutMesh, by: Vector, sign: 1 | -1 = 1): CutMesh {
  const points = mesh.points.map((value, i) => value + sign * by[i % 3]!);
  return { ...mesh, points };
}
