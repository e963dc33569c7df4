/** Which planes of a roof an outline comes down on. */
import type { FaceName } from '@yard-arch/document';
import { pointAt } from '../element/chart.ts';
import type { RoofBody } from '../element/roof-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Loop } from '../mesh/arrangement.ts';
import { holdsPoint, type Region } from '../mesh/region.ts';
import type { Placed } from '../setout/placed.ts';
import { dot, minus } from '../vector.ts';

/** A plane as it is seen from above. */
export function seen(plane: Sheet, { chart }: Sheet): Region {
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

export const standing = ({ s, t, outline }: Pick<Placed, 's' | 't' | 'outline'>): Region & Loop => ({
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
