/** Swings: where doors and casements go as they open, as plans draw it: the leaf at a right angle, and the quarter circle that its edge goes along. */
import { turnedOver } from '../element/turned-over.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Placed } from '../setout/placed.ts';
import { placementOf } from './carried.ts';
import { infillIn } from './parts.ts';

export interface Swing {
  opening: string;
  /** From the hinge to the leaf's free edge as it stands open, and along its way back to where it is shut; metres, seen from above. */
  points: readonly (readonly [number, number])[];
}

/** Chords of a quarter circle. */
const steps = 12;

/** How the leaves of an opening swing that turn about an upright axis at one of their edges. @param sheet of its outer face. @param own the opening on its own face */
export function swingsOf(sheet: Sheet, own: Placed): Swing[] {
  const face = own.face === 'inner' ? turnedOver(sheet).sheet : sheet;
  const made = infillIn(face, own);
  if (typeof made === 'string') return [];
  const { origin, x, y } = placementOf(face, own);
  const place = (along: number, into: number): readonly [number, number] => [
    origin[0] + along * x[0] + into * y[0],
    origin[1] + along * x[1] + into * y[1],
  ];
  return made.flatMap(({ part, motions }): Swing[] => {
    const [turn] = motions;
    if (motions.length !== 1 || !turn || turn.kind !== 'turn' || turn.along[2] === 0 || turn.level !== 0) return [];
    const xs = (part.front ?? []).flatMap(({ loops }) => loops.flat().map(([px]) => px));
    const [left, right] = [Math.min(...xs), Math.max(...xs)];
    const [hinge, depth] = turn.at;
    // What is pivoted in its middle is not drawn so.
    if (Math.min(hinge - left, right - hinge) > 0.25 * (right - left)) return [];
    const reach = right - hinge > hinge - left ? right - hinge : left - hinge;
    const at = (angle: number): readonly [number, number] =>
      place(hinge + reach * Math.cos(angle), depth + reach * Math.sin(angle));
    const arc = Array.from({ length: steps + 1 }, (_, i) => at((turn.along[2] * (Math.PI / 2) * (steps - i)) / steps));
    return [{ opening: own.id, points: [place(hinge, depth), ...arc] }];
  });
}
