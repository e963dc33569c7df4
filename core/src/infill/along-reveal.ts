/** What lies along a reveal, linings and boards on the sill: it goes with that, and ends against infill that stands flat where that is in a curved wall. */
import type { Lining, SillBoard } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import { placedIn, turnedIn } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { planeCurtain } from '../mesh/curtain.ts';
import { partedClosed } from '../mesh/parted.ts';
import type { Placed } from '../setout/placed.ts';
import { tidy } from '../tidy.ts';
import type { Vector } from '../vector.ts';
import { carriedWith, clearIn, depthTo, placementOf, type Stood } from './carried.ts';
import { seatOf, type InfillPart } from './infill.ts';
import { roomIn } from './room.ts';

/** An opening on a face. */
export interface OnFace {
  sheet: Sheet;
  placed: Placed;
}

/** A plane in directions of a part's: what is kept is beyond it along its normal. */
interface Plane {
  at: Vector;
  normal: Vector;
}

/**
 * What lies along the reveal of an opening as it goes with it.
 * @param on the face from which it does. @param own the face on which it is set out
 * @param make builds it as for a flat face.
 */
export function alongReveal(
  part: Lining | SillBoard,
  on: OnFace,
  own: OnFace,
  make: (placed: Stood) => readonly InfillPart[] | string,
): readonly InfillPart[] | string {
  const { sheet, placed } = on;
  const plane = flatEnd(part, on, own);
  const until = plane && typeof roomIn(part, placed) === 'number' ? goesTo(on, plane) : undefined;
  const clear = clearIn(placed);
  const stands: Stood = until === undefined ? clear : { ...clear, until };
  const made = carriedWith('set in', sheet, placed, make(stands));
  return plane && typeof made !== 'string' ? endedAt(made, plane) : made;
}

/** Where infill that stands flat in a curved wall has its face; null where that follows the curve, there is none, or a board is told how far to reach. */
function flatEnd({ kind, behind, reach }: Lining | SillBoard, on: OnFace, own: OnFace): Plane | null {
  const { infill } = own.placed.pattern;
  if (on.sheet.chart.kind === 'flat' || !infill || infill.curve === 'follows') return null;
  if (kind === 'sill board' && reach !== undefined) return null;
  const seat = seatOf(infill, own.placed);
  if (typeof seat === 'string') return null;
  const { origin, y } = placementOf(own.sheet, own.placed);
  const [far, sign] = behind ? [seat.to, 1] : [seat.from, -1];
  const placement = placementOf(on.sheet, on.placed);
  return {
    at: placedIn(placement, [0, 1, 2].map((k) => origin[k]! + far * y[k]!) as unknown as Vector),
    normal: turnedIn(placement, [sign * y[0], sign * y[1], sign * y[2]]),
  };
}

/** How far something is built that is to end at a plane: splays make it wider than the opening, and it a little deeper. */
const goesTo = ({ sheet, placed }: OnFace, plane: Plane): number =>
  Math.min(placed.depth, depthTo(sheet, placed, plane) + 0.1 * placed.depth);

const ended = new LRUCache<string, readonly InfillPart[] | string>({ max: 2048 });

function endedAt(made: readonly InfillPart[], { at, normal }: Plane): readonly InfillPart[] | string {
  const curtain = planeCurtain(at, normal);
  const words = [...normal, curtain.drapes[0]!.offset].map(tidy).join(' ');
  const key = `${made.map(({ part }) => part.key).join()} ${words}`;
  let found = ended.get(key);
  if (found === undefined) {
    const parts = made.map(({ part, ...moves }): InfillPart | null => {
      const { material } = part.mesh.runs[0]!;
      const cut = partedClosed(part.mesh, curtain, { material, materialOf: () => material });
      return cut?.mesh ? { part: { ...part, key: `${part.key} to ${words}`, mesh: cut.mesh }, ...moves } : null;
    });
    const kept = parts.filter((one) => one !== null);
    found = kept.length === made.length ? kept : 'what stands in it leaves nothing of the reveal before it';
    ended.set(key, found);
  }
  return found;
}
