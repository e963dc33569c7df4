/** Grips: where the leaves of an opening are taken hold of to be opened, and where those go. */
import { turnedOver } from '../element/turned-over.ts';
import type { Sheet } from '../element/sheet.ts';
import { turnedOut, type Rigid } from '../element/chart.ts';
import type { Placed } from '../setout/placed.ts';
import { cross, minus, plus, type Vector } from '../vector.ts';
import type { InfillPart } from './infill.ts';
import { placementOf } from './carried.ts';
import { amountOf, infillIn } from './parts.ts';

/** One leaf that moves, in the model's own directions, metres. */
export interface LeafGrip {
  opening: string;
  kind: 'turn' | 'slide';
  /** A point of its hinge, or where its grip is when it is shut. */
  at: Vector;
  /** The axis about which it turns as the right hand does, a unit vector; or all the way that it slides. */
  along: Vector;
  /** Where its grip is when it is shut, from there. */
  arm: Vector;
  /** How far it stands open: degrees, or a share. */
  amount: number;
}

/** The leaves of an opening that open by themselves: those that hang in none, and do not fold. @param sheet of the outer face */
export function leafGripsOf(sheet: Sheet, own: Placed): LeafGrip[] {
  const face = own.face === 'inner' ? turnedOver(sheet).sheet : sheet;
  const made = infillIn(face, own);
  if (typeof made === 'string') return [];
  const placement = placementOf(face, own);
  return made.flatMap((one) => gripOf(one, own, placement));
}

function gripOf({ part, motions, about = [0, 0, 0] }: InfillPart, own: Placed, placement: Rigid): LeafGrip[] {
  const [motion] = motions;
  if (motions.length !== 1 || !motion || motion.level !== 0) return [];
  const { points } = part.mesh;
  const reach = (axis: number): [number, number] => {
    const values = points.filter((_, i) => i % 3 === axis).map((value) => value + about[axis]!);
    return [Math.min(...values), Math.max(...values)];
  };
  const [xs, ys, zs] = [reach(0), reach(1), reach(2)];
  const middle = ([low, high]: [number, number]): number => (low + high) / 2;
  // Where it goes furthest as it opens.
  const far = ([low, high]: [number, number], hinge: number): number => (hinge - low > high - hinge ? low : high);
  const upright = motion.along[2] !== 0;
  const grip: Vector =
    motion.kind === 'slide'
      ? [middle(xs), middle(ys), middle(zs)]
      : upright
        ? [far(xs, motion.at[0]), middle(ys), middle(zs)]
        : [middle(xs), middle(ys), far(zs, motion.at[2])];
  const hinge: Vector =
    motion.kind === 'slide'
      ? grip
      : upright
        ? [motion.at[0], motion.at[1], grip[2]]
        : [grip[0], motion.at[1], motion.at[2]];
  const moved = turnedOut(placement, hinge);
  return [
    {
      opening: own.id,
      kind: motion.kind,
      at: plus(placement.origin, moved),
      along: turnedOut(placement, motion.along),
      arm: turnedOut(placement, minus(grip, hinge)),
      amount: amountOf(own, motion),
    },
  ];
}

/** Where a grip is when its leaf stands open by so much. */
export function gripAt({ kind, at, along, arm }: LeafGrip, amount: number): Vector {
  if (kind === 'slide') return [0, 1, 2].map((k) => at[k]! + along[k]! * amount) as unknown as Vector;
  const radians = (amount * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const side = cross(along, arm);
  return [0, 1, 2].map((k) => at[k]! + arm[k]! * cos + side[k]! * sin) as unknown as Vector;
}
