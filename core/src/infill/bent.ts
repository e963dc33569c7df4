/** Parts that follow a curve: built flat, and folded as the wall's facets are. */
import { directionsAt, placedIn, pointAt, turnedIn, type BentChart, type Rigid } from '../element/chart.ts';
import { folded, type Fold } from '../mesh/folded.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { nanometre } from '../tolerances.ts';
import type { Vector } from '../vector.ts';
import type { InfillPart } from './infill.ts';
import type { Motion } from './leaf.ts';

/** How a chart folds about a place on it, in the directions that a part has there; the same words for places that fold alike. */
interface Bend {
  fold: Fold;
  key: string;
}

/** @param middle the distance along the chart of what is folded @param half as far to either side is told of */
export function bendAt(chart: BentChart, middle: number, low: number, placement: Rigid, half: number): Bend {
  const at = Array.from(chart.s, (s) => s - middle).filter((x) => Math.abs(x) < half);
  const fold: Fold = {
    at,
    point: (x, y, z) => placedIn(placement, pointAt(chart, middle + x, low + z, y)),
    direction: (x, [a, b, c]) => {
      const { along, inward, up } = directionsAt(chart, middle + x);
      return turnedIn(
        placement,
        [0, 1, 2].map((k) => along[k]! * a + inward[k]! * b + up[k]! * c) as unknown as Vector,
      );
    },
  };
  const told = [-half, ...at, half].flatMap((x) => [x, ...fold.point(x, 0, 0), ...fold.point(x, 1, 0)]);
  return { fold, key: told.map((value) => Math.round(value * 1e6)).join() };
}

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
        along: fold.direction(motion.at[0], motion.along) as [number, number, number],
      })),
      ...(about ? { about: hinge as [number, number, number] } : {}),
    };
  });
}

function shiftedBy(mesh: CutMesh, by: Vector, sign: 1 | -1 = 1): CutMesh {
  const points = mesh.points.map((value, i) => value + sign * by[i % 3]!);
  return { ...mesh, points };
}
