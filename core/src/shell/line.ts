/** Lines of profiles: soffits of bays and domes as chains of points in an upright plane, and the same moved outward. Metres: x along, z up. */
import { catenaryScale } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../profile/flatten.ts';
import { rounding } from '../tolerances.ts';

export type Spot = readonly [x: number, z: number];

/** Half of a barrel's soffit, from its springing at (0, 0) to its crown at (half, rise). */
export function halfSoffit(
  profile: 'segment' | 'pointed' | 'ellipse' | 'catenary',
  half: number,
  rise: number,
  fineness: Fineness,
): Spot[] {
  switch (profile) {
    case 'segment': {
      // From tan(φ/2) = rise / half, φ half of the angle over the span.
      const angle = 2 * Math.atan(rise / half);
      const radius = half / Math.sin(angle);
      return arc([half, rise - radius], radius, { from: Math.PI / 2 + angle, to: Math.PI / 2 }, fineness);
    }
    case 'pointed': {
      const beyond = (rise * rise - half * half) / (2 * half);
      const radius = beyond + half;
      return arc([radius, 0], radius, { from: Math.PI, to: Math.PI - Math.asin(Math.min(1, rise / radius)) }, fineness);
    }
    case 'ellipse': {
      const n = chordsOf(Math.max(half, rise), Math.PI / 2, fineness);
      return along(n, (share) => {
        const angle = (share * Math.PI) / 2;
        return [half * (1 - Math.cos(angle)), rise * Math.sin(angle)];
      });
    }
    case 'catenary': {
      const scale = catenaryScale(half, rise);
      const n = chordsOf(Math.max(half, rise), Math.PI / 2, fineness);
      return along(n, (share) => {
        const at = (half / scale) * (share - 1);
        return [half * share, rise - scale * (Math.cosh(at) - 1)];
      });
    }
  }
}

/** The soffit of a dome from its springing to its axis: x is how far from the springing it is, towards the axis at `radius`. */
export function domeSoffit(
  profile: 'segment' | 'pointed' | 'onion',
  radius: number,
  rise: number,
  fineness: Fineness,
): Spot[] {
  if (profile !== 'onion') return halfSoffit(profile, radius, rise, fineness);
  // An arc about a point on the axis goes out and up, and another, beside the top, turns up to the point.
  const low = 0.45 * radius;
  const round = Math.hypot(radius, low);
  const hollow = ((rise - low) ** 2 - round * round) / (2 * round);
  const turn = Math.atan2(rise - low, hollow);
  const out = (spot: Spot): Spot => [radius - spot[0], spot[1]];
  const first = arc([0, low], round, { from: Math.atan2(-low, radius), to: turn }, fineness);
  const second = arc([hollow, rise], hollow, { from: Math.PI + turn, to: Math.PI }, fineness);
  return [...first, ...second.slice(1)].map(out);
}

function arc([cx, cz]: Spot, radius: number, { from, to }: { from: number; to: number }, fineness: Fineness): Spot[] {
  return along(chordsOf(radius, to - from, fineness), (share) => {
    const angle = from + (to - from) * share;
    return [cx + radius * Math.cos(angle), cz + radius * Math.sin(angle)];
  });
}

const along = (n: number, at: (share: number) => Spot): Spot[] => Array.from({ length: n + 1 }, (_, i) => at(i / n));

/** An upright or level line at which a chain ends: those of its points are beyond it that are less, or more. */
export interface End {
  axis: 0 | 1;
  at: number;
}

/**
 * A chain moved to the left of its way by so much, mitred, and ended at a line at either end: drawn out straight to it, or cut off there.
 * @returns null where it would turn back on itself, or does not come from the one line to the other.
 */
export function movedOut(chain: readonly Spot[], by: number, begin: End, end: End): Spot[] | null {
  const ways = chain.slice(1).map(([x, z], i): Spot => {
    const [dx, dz] = [x - chain[i]![0], z - chain[i]![1]];
    const size = Math.hypot(dx, dz);
    return [dx / size, dz / size];
  });
  const points = chain.map(([x, z], i): Spot => {
    const [a, b] = [ways[i - 1] ?? ways[i]!, ways[i] ?? ways[i - 1]!];
    const scale = by / (1 + a[0] * b[0] + a[1] * b[1]);
    return [x - (a[1] + b[1]) * scale, z + (a[0] + b[0]) * scale];
  });
  for (let i = 0; i < ways.length; i++) {
    const [a, b] = [points[i]!, points[i + 1]!];
    if ((b[0] - a[0]) * ways[i]![0] + (b[1] - a[1]) * ways[i]![1] <= rounding) return null;
  }
  // Far enough to come to any line that it comes to at all.
  const far = 1e3;
  const [first, last] = [ways[0]!, ways.at(-1)!];
  const [p, q] = [points[0]!, points.at(-1)!];
  const drawn: Spot[] = [
    [p[0] - far * first[0], p[1] - far * first[1]],
    ...points,
    [q[0] + far * last[0], q[1] + far * last[1]],
  ];
  const from = crossing(drawn, begin, true);
  const to = crossing(drawn, end, false);
  if (!from || !to || to.edge < from.edge) return null;
  const between = drawn.slice(from.edge + 1, to.edge + 1);
  const near = (a: Spot, b: Spot): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-7;
  return [from.spot, ...between.filter((spot) => !near(spot, from.spot) && !near(spot, to.spot)), to.spot];
}

/** Where a chain crosses a line: the last place at which it begins, or the first after its middle at which it ends. */
function crossing(chain: readonly Spot[], { axis, at }: End, begins: boolean): { edge: number; spot: Spot } | null {
  const found: { edge: number; spot: Spot }[] = [];
  for (let i = 0; i + 1 < chain.length; i++) {
    const [a, b] = [chain[i]!, chain[i + 1]!];
    const [d, e] = [a[axis] - at, b[axis] - at];
    if (d > 0 === e > 0 && d !== 0) continue;
    if (Math.abs(e - d) < rounding) continue;
    const share = d / (d - e);
    if (share < 0 || share > 1) continue;
    const spot: [number, number] = [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
    spot[axis] = at;
    found.push({ edge: i, spot });
  }
  return (begins ? found[0] : found.at(-1)) ?? null;
}
