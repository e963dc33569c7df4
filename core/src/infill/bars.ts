/** Bars whose front edges are worked: the section recedes along both sides, and is whole at its ends. */
import type { Bar } from '@yard-arch/document';
import { nanometre, rounding } from '../tolerances.ts';
import { newell } from '../vector.ts';
import type { Area, Spot } from './area.ts';
import { NotDivided } from './divide.ts';
import type { Point } from './facets.ts';
import type { Site } from './fillings.ts';
import { worked } from './moulding.ts';
import type { Held } from './framing.ts';
import { facing, prism, sides } from './solids.ts';

const at = ([x, z]: Spot, y: number): Point => [x, y, z];

/** Adds a bar, from its outline as it is seen. @param along the way that it runs. @throws NotDivided where its moulding has no room */
export function addBar({ facets }: Pick<Site, 'facets'>, bar: Bar, { area: piece, range }: Held, along: Spot): void {
  const { material, moulding, width } = bar;
  const grain: Point = [along[0], 0, along[1]];
  if (!moulding) return prism(facets, material, { area: piece, range }, grain);
  const { steps, wide, deep } = worked(moulding);
  if (2 * wide > width - nanometre || deep > range.to - range.from + nanometre)
    throw new NotDivided('its bars are too narrow for their moulding');
  const long = longEdges(piece, along);
  // From the front, where it is narrowest, to where it is whole.
  const levels = steps.map(({ n, in: inward }) => ({
    y: range.from + n,
    points: narrowed(piece.points, long, wide - inward),
  }));
  // What is too short to be worked is left plain.
  if (levels.some(({ points }) => points === null)) return prism(facets, material, { area: piece, range }, grain);
  facets.begin(material);
  const rings = levels.map(({ y, points }) => points!.map((spot) => at(spot, y)));
  facing(facets, rings[0]!, { way: [0, -1, 0], grain });
  for (let k = 0; k + 1 < rings.length; k++)
    rings[k]!.forEach((a, i) => {
      const j = (i + 1) % rings[k]!.length;
      const quad = [a, rings[k + 1]![i]!, rings[k + 1]![j]!, rings[k]![j]!];
      const [b, c] = [piece.points[i]!, piece.points[j]!];
      // An end that stays has no face where the section steps.
      if (Math.hypot(...newell(quad)) > rounding) facets.add(quad, [c[0] - b[0], 0, c[1] - b[1]]);
    });
  const whole = { from: levels.at(-1)!.y, to: range.to };
  if (whole.to > whole.from + nanometre) sides(facets, piece, whole, true);
  facing(
    facets,
    piece.points.map((spot) => at(spot, range.to)),
    { way: [0, 1, 0], grain },
  );
}

/** Which edges run along a bar: those that are round, or go its way. */
function longEdges({ points, edges }: Area, along: Spot): boolean[] {
  const round = edges.some(({ chord }) => chord !== null);
  return points.map((a, i) => {
    if (round) return edges[i]!.chord !== null;
    const b = points[(i + 1) % points.length]!;
    const [dx, dz] = [b[0] - a[0], b[1] - a[1]];
    return Math.abs(dx * along[0] + dz * along[1]) > 0.7 * Math.hypot(dx, dz);
  });
}

/** An outline whose marked edges are moved in by so much, the others staying; null where one would turn round. */
function narrowed(points: readonly Spot[], marked: readonly boolean[], by: number): Spot[] | null {
  if (by < nanometre) return [...points];
  const count = points.length;
  const ways = points.map((a, i): Spot => {
    const b = points[(i + 1) % count]!;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    return [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  });
  const made = points.map(([x, z], i): Spot => {
    const before = (i + count - 1) % count;
    const [p, q] = [ways[before]!, ways[i]!];
    const [d, e] = [marked[before] ? by : 0, marked[i] ? by : 0];
    const sine = p[0] * q[1] - p[1] * q[0];
    // To the left is in; where both run on they move as the one does that moves most.
    if (Math.abs(sine) < 1e-3) {
      const most = Math.max(d, e);
      return [x - q[1] * most, z + q[0] * most];
    }
    // The point that is d to the left of the one and e of the other.
    return [x + (q[0] * d - p[0] * e) / sine, z + (q[1] * d - p[1] * e) / sine];
  });
  const turned = ways.some(([dx, dz], i) => {
    const [a, b] = [made[i]!, made[(i + 1) % count]!];
    return (b[0] - a[0]) * dx + (b[1] - a[1]) * dz < nanometre;
  });
  return turned || crossesItself(made) ? null : made;
}

/** Whether two edges of an outline that are not neighbours meet. */
function crossesItself(points: readonly Spot[]): boolean {
  const count = points.length;
  const left = (a: Spot, b: Spot, c: Spot): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  for (let i = 0; i < count; i++)
    for (let j = i + 2; j < count; j++) {
      if (i === 0 && j === count - 1) continue;
      const [a, b, c, d] = [points[i]!, points[(i + 1) % count]!, points[j]!, points[(j + 1) % count]!];
      if (left(a, b, c) * left(a, b, d) <= 0 && left(c, d, a) * left(c, d, b) <= 0) return true;
    }
  return false;
}
