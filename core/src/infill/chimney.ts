/**
 * Chimneys: a stack that goes plumb through an opening in a roof's plane, with an upstand on the roof round it, a cap and pots. Told like a dormer: across from the opening's middle, level
 * into the roof and plumb from the opening's foot. Metres.
 */
import type { Chimney, Units } from '@yard-arch/document';
import { worded, type Placed } from '../setout/placed.ts';
import { millimetre } from '../tolerances.ts';
import { tidy } from '../tidy.ts';
import { areaOf, extentOf, moved, type Area, type Spot } from './area.ts';
import { Facets, type Point } from './facets.ts';
import type { Front, PartMesh } from './part.ts';

/** A place of a chimney in space: across, into the roof, plumb. */
type Into = (x: number, d: number, h: number) => Point;

/** How high something is at a distance into the roof. */
type Height = (d: number) => number;

/** Around a pot there are so many sides. */
const sides = 20;

/** A chimney, or why there is none. @param placed slope of the plane on which its opening is, radians */
export function chimneyOf(
  chimney: Chimney,
  placed: Pick<Placed, 'profile' | 'outline' | 'pattern'> & { slope?: number | undefined },
  units: Units,
): PartMesh | string {
  const { slope, profile, outline, pattern } = placed;
  if (slope === undefined) return 'its chimney stands on a plane of a roof';
  if (pattern.onSlope === 'square' && slope > 0.01)
    return 'its chimney stands plumb, and its reveal is square to the slope: let that be plumb';
  const hole = areaOf(outline);
  if (!hole) return 'its chimney would have islands: give its pattern a profile of one outline';
  const [cos, sin, steep] = [Math.cos(slope), Math.sin(slope), Math.tan(slope)];
  const plan: Area = {
    ...hole,
    points: hole.points.map(([x, t]): Spot => [x - profile.width / 2, t * cos]),
  };
  const stack = chimney.gap > 0 ? moved(plan, () => -chimney.gap)?.area : plan;
  if (!stack || extentOf(stack, 0)[1] - extentOf(stack, 0)[0] < 2 * millimetre)
    return `its opening is too small to leave ${worded(chimney.gap, units)} all round its chimney`;
  const { cap } = chimney;
  if (cap && chimney.above + (chimney.gap - cap.over) * steep < millimetre)
    return 'its chimney’s cap would run into the roof above it: make it higher, or its cap narrower';
  const into: Into = (x, d, h) => [x, d * sin - h * cos, d * cos + h * sin];
  const [, far] = extentOf(plan, 1);
  const top = far * steep + chimney.above;
  const facets = new Facets(chimney.material);
  raised(facets, into, [stack], { low: () => 0 - chimney.below, high: () => top });
  const { upstand, pots } = chimney;
  if (upstand) {
    const outer = moved(plan, () => upstand.thickness)?.area;
    const on: Height = (d) => d * steep;
    if (outer) {
      facets.begin(upstand.material);
      raised(facets, into, [outer, stack], { low: on, high: (d) => on(d) + upstand.height });
    }
  }
  let crown = top;
  if (cap) {
    const slab = moved(stack, () => cap.over)?.area ?? stack;
    facets.begin(cap.material);
    crown += cap.thickness;
    raised(facets, into, [slab], { low: () => top, high: () => crown });
  }
  if (pots) {
    const refused = potted({ facets, into }, pots, stack, { crown, units });
    if (refused) return refused;
  }
  const key = JSON.stringify(['chimney', { ...chimney, id: '' }, plan.points.map((p) => p.map(tidy)), tidy(slope)]);
  return { key, name: 'chimney', mesh: facets.finish(), front: drawn(chimney, stack, { into, top: crown, steep }) };
}

const ring = (points: readonly Spot[], into: Into, height: Height): Point[] =>
  points.map(([x, d]) => into(x, d, height(d)));

/** A solid between two heights over an area in plan, with what is within another left out of it. */
function raised(
  facets: Facets,
  into: Into,
  areas: readonly Pick<Area, 'points'>[],
  { low, high }: { low: Height; high: Height },
): void {
  const across: Point = into(1, 0, 0);
  const loops = areas.map(({ points }, i) => (i === 0 ? points : [...points].reverse()));
  // Counter-clockwise in plan is so from above.
  facets.addHoled(
    loops.map((points) => ring(points, into, high)),
    across,
  );
  facets.addHoled(
    loops.map((points) => ring(points, into, low).reverse()),
    across,
  );
  for (const points of loops)
    points.forEach(([x, d], i) => {
      const [u, e] = points[(i + 1) % points.length]!;
      const along = into(u - x, e - d, 0);
      facets.add([into(x, d, low(d)), into(u, e, low(e)), into(u, e, high(e)), into(x, d, high(d))], along);
    });
}

/** Pots in a row along the stack's longer way; or why there is no room for them. */
function potted(
  { facets, into }: { facets: Facets; into: Into },
  pots: NonNullable<Chimney['pots']>,
  stack: Area,
  { crown, units }: { crown: number; units: Units },
): string | null {
  const [x, d] = [extentOf(stack, 0), extentOf(stack, 1)];
  const long = x[1] - x[0] >= d[1] - d[0];
  const [from, to] = long ? x : d;
  const { count, diameter, height } = pots;
  const [other, room] = [long ? d : x, (to - from) / count];
  if (diameter > Math.min(room, other[1] - other[0]))
    return `its chimney has no room for ${count === 1 ? 'a pot' : `${count} pots`} of ${worded(diameter, units)}: make them fewer or narrower`;
  const middle = (other[0] + other[1]) / 2;
  for (let i = 0; i < count; i++) {
    const at = from + room * (i + 0.5);
    const [cx, cd] = long ? [at, middle] : [middle, at];
    const circle = (radius: number): { points: Spot[] } => ({
      points: Array.from({ length: sides }, (_, k): Spot => {
        const angle = (2 * Math.PI * k) / sides;
        return [cx + radius * Math.cos(angle), cd + radius * Math.sin(angle)];
      }),
    });
    facets.begin(pots.material);
    raised(facets, into, [circle(diameter / 2), circle(0.39 * diameter)], {
      low: () => crown,
      high: () => crown + height,
    });
  }
  return null;
}

/** How it is drawn on the plane's sheet, as it is seen square to that: its upstand, its stack as far as that stands up, cap and pots. */
function drawn(
  { cap, upstand, pots, material, gap }: Chimney,
  stack: Area,
  { into, top, steep }: { into: Into; top: number; steep: number },
): Front[] {
  const [[left, right], [near, far]] = [extentOf(stack, 0), extentOf(stack, 1)];
  const at = (d: number, h: number): number => into(0, d, h)[2];
  const parts: Front[] = [];
  if (upstand) {
    const by = gap + upstand.thickness;
    const [low, high] = [near - by, far + by];
    parts.push(
      box([left - by, right + by], [at(low, low * steep), at(high, high * steep + upstand.height)], upstand.material),
    );
  }
  const head = pots || cap ? at(near, top) : at(far, top);
  parts.push(box([left, right], [at(near, near * steep), head], material));
  let crown = top;
  if (cap) {
    const { over, thickness } = cap;
    crown += thickness;
    parts.push(box([left - over, right + over], [at(near - over, top), at(far + over, crown)], cap.material));
  } else if (pots) parts.push(box([left, right], [head, at(far, top)], material));
  if (pots) parts.push(...potsDrawn(pots, stack, (d, high) => at(d, crown + high)));
  return parts;
}

/** A rectangle as it is drawn. */
const box = (x: readonly [number, number], z: readonly [number, number], material: string): Front => ({
  kind: 'solid',
  loops: [
    [
      [x[0], z[0]],
      [x[1], z[0]],
      [x[1], z[1]],
      [x[0], z[1]],
    ],
  ],
  material,
});

/** Pots as they are seen, the farthest first. @param at where something is seen so far into the roof and so high above the crown */
function potsDrawn(
  { count, diameter, height, material }: NonNullable<Chimney['pots']>,
  stack: Area,
  at: (d: number, high: number) => number,
): Front[] {
  const [[left, right], [near, far]] = [extentOf(stack, 0), extentOf(stack, 1)];
  const long = right - left >= far - near;
  const half = diameter / 2;
  return Array.from({ length: count }, (_, i) => {
    const share = (count - i - 0.5) / count;
    const x = long ? left + share * (right - left) : (left + right) / 2;
    const d = long ? (near + far) / 2 : near + share * (far - near);
    return box([x - half, x + half], [at(d - half, 0), at(d, height)], material);
  });
}
