/** Into how many points an element's own edges are divided, told before they are, so that a few figures cannot ask for endless work. */
import { runsOf, type Element, type FreeOutline } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../profile/flatten.ts';

/** The most points that one element's outline or curve is divided into. */
export const mostEdgePoints = 20_000;

/** How many points an element's own edges are divided into: the ribs of its curve, or the points of its outline. */
export function edgePoints(element: Element, fineness: Fineness): number {
  if (element.kind === 'wall')
    return runsOf(element).reduce((sum, { length, sweep = 0 }) => {
      const radians = (Math.abs(sweep) * Math.PI) / 180;
      return sum + (radians === 0 ? 1 : chordsOf(length / radians, radians, fineness));
    }, 1);
  const loop = (outline: FreeOutline): number =>
    outline.reduce(
      (sum, point, i) =>
        sum + (point.bulge ? arcPoints(point, outline[(i + 1) % outline.length]!, point.bulge, fineness) : 1),
      0,
    );
  return [element.outline, ...(element.holes ?? [])].reduce((sum, outline) => sum + loop(outline), 0);
}

function arcPoints(
  a: { x: number; y: number },
  b: { x: number; y: number },
  bulge: number,
  fineness: Fineness,
): number {
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  const sweep = 4 * Math.atan(Math.abs(bulge));
  return chord === 0 ? 1 : chordsOf(chord / 2 / Math.sin(sweep / 2), sweep, fineness);
}

/** The fault of an element whose edges are too many to be begun with. */
export function tooFine(noun: string, points: number): { reason: string; mend: string } {
  return {
    reason: `its ${noun === 'wall' ? 'curve' : 'outline'} would be divided into ${points.toLocaleString('en')} pieces, more than ${mostEdgePoints.toLocaleString('en')}`,
    mend: 'Set a coarser chord for the project’s arcs, or divide it.',
  };
}
