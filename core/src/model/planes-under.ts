/** Which planes of a roof an outline comes down on, and what of it lies over those that it is to cut. */
import type { FaceName } from '@yard-arch/document';
import { clip } from '../cut/clip.ts';
import { pointAt } from '../element/chart.ts';
import type { RoofBody } from '../element/roof-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Loop } from '../mesh/arrangement.ts';
import { holdsPoint, type Region } from '../mesh/region.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from '../setout/resolve.ts';
import { dot, minus } from '../vector.ts';

/** A plane as it is seen from above. */
function seen(plane: Sheet, { chart }: Sheet): Region {
  const { outline } = plane;
  const spots = Array.from(outline.xs, (x, i) => {
    const at = pointAt(plane.chart, x, outline.ys[i]!, 0);
    if (chart.kind !== 'flat') return [at[0], at[1]] as const;
    const from = minus(at, chart.origin);
    return [dot(from, chart.along), dot(from, chart.up)] as const;
  });
  return {
    count: spots.length,
    xs: Float64Array.from(spots, ([x]) => x),
    ys: Float64Array.from(spots, ([, y]) => y),
    next: outline.next,
  };
}

const standing = ({ s, t, outline }: Pick<Placed, 's' | 't' | 'outline'>): Region & Loop => ({
  count: outline.count,
  xs: outline.xs.map((x) => x + s),
  ys: outline.ys.map((y) => y + t),
  next: outline.next,
});

/** The planes that an outline set out from above lies over. */
export function planesUnder(placed: Pick<Placed, 's' | 't' | 'outline'>, body: RoofBody, above: Sheet): FaceName[] {
  const own = standing(placed);
  return body.planes.flatMap(({ sheet, face }) => (overlap(own, seen(sheet, above)) ? [face] : []));
}

/** An opening as far as it lies over the planes that it is to cut; null where that is nowhere. */
export function overChosen(opening: Placed, body: RoofBody, above: Sheet): Placed | null {
  const { planes, outline, s, t } = opening;
  if (!planes) return opening;
  const others = body.planes.filter(({ face }) => !planes.includes(face)).map(({ sheet }) => seen(sheet, above));
  const { loops } = clip(standing(opening), others);
  if (loops.length === 0) return null;
  const made: Outline = {
    count: 0,
    xs: Float64Array.from(loops.flatMap(({ xs }) => xs.map((x) => x - s))),
    ys: Float64Array.from(loops.flatMap(({ ys }) => ys.map((y) => y - t))),
    next: new Uint32Array(loops.reduce((sum, { xs }) => sum + xs.length, 0)),
    loops: [],
    side: [],
    arcs: [],
  };
  for (const { xs, operand, source } of loops) {
    const first = made.count;
    made.loops.push(first);
    xs.forEach((_, i) => {
      const own = operand[i] === 0;
      made.next[first + i] = i + 1 === xs.length ? first : first + i + 1;
      made.side.push(own ? outline.side[source[i]!]! : 'jamb-left');
      made.arcs.push(null);
    });
    made.count += xs.length;
  }
  return { ...opening, outline: made };
}

/** Whether two regions have some area in common, points and touching edges aside. */
function overlap(a: Region, b: Region): boolean {
  for (const [p, q] of [
    [a, b],
    [b, a],
  ] as const)
    for (let i = 0; i < p.count; i++) if (holdsPoint(q, p.xs[i]!, p.ys[i]!)) return true;
  const side = (ax: number, ay: number, bx: number, by: number, x: number, y: number): number =>
    (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  for (let i = 0; i < a.count; i++)
    for (let j = 0; j < b.count; j++) {
      const [k, l] = [a.next[i]!, b.next[j]!];
      const [ax, ay, bx, by] = [a.xs[i]!, a.ys[i]!, a.xs[k]!, a.ys[k]!];
      const [cx, cy, dx, dy] = [b.xs[j]!, b.ys[j]!, b.xs[l]!, b.ys[l]!];
      if (
        side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 &&
        side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0
      )
        return true;
    }
  return false;
}
