/** What keeps the planes of a roof, each of which can be, from being a body together. */
import { fault, type Fault } from '../finding.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { NotTriangulable } from '../mesh/triangulation.ts';
import type { RoofBody } from './roof-sheets.ts';
import { uprightsOf, type Upright } from './roof-sides.ts';

/** Why a roof's sides cannot be closed; null where they can: an upright plane that stands within it has nothing between its surfaces. */
export function standsWithin(body: RoofBody): Fault | null {
  let found = known.get(body);
  if (found === undefined) known.set(body, (found = withinAnew(body)));
  return found;
}

const known = new WeakMap<RoofBody, Fault | null>();

function withinAnew(body: RoofBody): Fault | null {
  if (uprightsOf(body, 0, body.boundaries.at(-1)!).every(isPlain)) return null;
  return fault(
    'verge-inside',
    'planes of different heights meet at an inner corner of it, where a verge or an abutment would stand up within the roof',
    'Make that edge eaves, or the edge beyond the corner a verge or an abutment too; of eaves that meet there, make pitch and overhang alike.',
  );
}

/** Whether an upright polygon neither crosses itself nor lies on itself. */
function isPlain({ xs, ys }: Upright): boolean {
  const count = xs.length;
  if (count < 5) return true;
  try {
    triangulate({
      count,
      xs: Float64Array.from(xs),
      ys: Float64Array.from(ys),
      next: Uint32Array.from(xs, (_, i) => (i + 1) % count),
    });
    return true;
  } catch (error) {
    if (error instanceof NotTriangulable) return false;
    throw error;
  }
}
