/** What keeps the planes of a roof, each of which can be, from being a body together. */
import { fault, type Fault } from '../finding.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { NotTriangulable } from '../mesh/triangulation.ts';
import type { RoofBody } from './roof-sheets.ts';
import { partsOf, standsAt, uprightsOf, type Upright } from './roof-sides.ts';
import { micrometre } from '../tolerances.ts';

/** Why a roof's sides cannot be closed; null where they can: an upright plane that stands within it has nothing between its surfaces. */
export function standsWithin(body: RoofBody): Fault | null {
  let found = known.get(body);
  if (found === undefined) known.set(body, (found = withinAnew(body)));
  return found;
}

const known = new WeakMap<RoofBody, Fault | null>();

function withinAnew(body: RoofBody): Fault | null {
  if (!isUnmade(body) && uprightsOf(body, 0, body.boundaries.at(-1)!).every(isPlain)) return null;
  return fault(
    'verge-inside',
    'planes of different heights meet at an inner corner of it, where a verge or an abutment would stand up within the roof',
    'Make that edge eaves, or the edge beyond the corner a verge or an abutment too; of eaves that meet there, make pitch and overhang alike.',
  );
}

/** Whether a side goes on beyond its edge's ends where that is not made: where it is not plumb through all layers, or boxed in with several. */
function isUnmade({ roof: { surfaces, soffits }, boundaries }: RoofBody): boolean {
  const [top, foot] = [surfaces[0]!, surfaces.at(-1)!];
  return top.planes.some(({ edge, strip, rings }, p) => {
    if (edge < 0 || strip >= 0 || rings.length === 0) return false;
    if (surfaces.every((surface) => partsOf(surface, p).beyond.every((line) => line.length < 3))) return false;
    const [outer, inner] = [standsAt(top, p), standsAt(foot, p)];
    const apart = outer.some((node, i) => Math.hypot(node[0] - inner[i]![0], node[1] - inner[i]![1]) > micrometre);
    if (apart || (boundaries.length > 2 && soffits.some((soffit) => soffit !== null))) return true;
    // Nor where the step is higher than the roof is thick.
    const [above, below] = [partsOf(top, p).beyond, partsOf(foot, p).beyond];
    return above.some((line, i) => {
      const [us, ls] = [line, below[i]!].map((part) => part.map(([, , z]) => z));
      return us!.length > 2 && ls!.length > 2 && Math.min(...us!) < Math.max(...ls!) + micrometre;
    });
  });
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
