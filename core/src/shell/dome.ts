/** A dome: a profile turned about an upright axis in so many facets, all of whose faces are flat. */
import type { DomeForm } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../profile/flatten.ts';
import type { Vector } from '../vector.ts';
import { domeSoffit, movedOut, type Spot } from './line.ts';
import type { Shell, ShellCorner, ShellPolygon } from './solid.ts';

/** A ring of the dome: how far from its axis and how high, the way out there, and how far along the profile from its foot. */
interface Ring {
  r: number;
  z: number;
  /** On what is below it, and on what is above it: they differ where a drum ends. */
  out: readonly [Spot, Spot];
  length: number;
}

/** @returns null where its layers are thicker than its profile is round. */
export function domeShell(form: DomeForm, thickness: number, fineness: Fineness): Shell | null {
  const radius = form.span / 2;
  const curve = domeSoffit(form.profile, radius, form.rise, fineness);
  const soffit: Spot[] = form.drum > 0 ? [[0, -form.drum], ...curve] : curve;
  const hole = form.crown / 2;
  const lineAt = (by: number): Spot[] | null => {
    const foot = { axis: 1, at: 0 - form.drum } as const;
    // An onion's point is upright: moved out it would come to its axis far above, and is ended in a finial instead.
    const open = form.profile === 'onion' && by > hole;
    const line = movedOut(soffit, by, foot, { axis: 0, at: radius - (open ? by : hole) });
    return line && open && hole === 0 ? [...line, [radius, form.rise + 3 * by]] : line;
  };
  const known = new Map<number, Ring[]>();
  const ringsAt = (depth: number): Ring[] | null => {
    let rings = known.get(depth);
    if (!rings) {
      const line = lineAt(thickness - depth);
      if (!line) return null;
      known.set(depth, (rings = ringsOf(line, radius, form.drum > 0)));
    }
    return rings;
  };
  const [back, inner] = [ringsAt(0), ringsAt(thickness)];
  if (!back || !inner) return null;
  const widest = Math.max(...back.map(({ r }) => r));
  const facets = chordsOf(widest, 2 * Math.PI, fineness);
  const at = (r: number, j: number): readonly [number, number] => {
    const angle = (2 * Math.PI * (j % facets)) / facets;
    return [r * Math.cos(angle), r * Math.sin(angle)];
  };
  const turned: Turned = { facets, at, radius };
  return {
    surface: (depth) => ringSurface(turned, ringsAt(depth)!),
    sides: (from, to) => [
      ...footRing(turned, ringsAt(from)![0]!, ringsAt(to)![0]!),
      ...(hole > 0 ? crownRing(turned, ringsAt(from)!.at(-1)!, ringsAt(to)!.at(-1)!) : []),
    ],
    carried: [],
    outline: Array.from({ length: facets }, (_, j) => at(widest, j)),
    lines: hole > 0 ? Array.from({ length: facets }, (_, j) => [at(hole, j), at(hole, j + 1)] as const) : [],
    low: 0 - form.drum,
    high: Math.max(...back.map(({ z }) => z)),
    backAt: (x, y) => heightOn(back, x, y),
  };
}

interface Turned {
  facets: number;
  /** A place in plan, so far from the axis. */
  at: (r: number, j: number) => readonly [number, number];
  /** Of the soffit's springing. */
  radius: number;
}

function ringsOf(line: readonly Spot[], radius: number, onDrum: boolean): Ring[] {
  const ways = line.slice(1).map(([x, z], i): Spot => {
    const [dx, dz] = [x - line[i]![0], z - line[i]![1]];
    const size = Math.hypot(dx, dz);
    return [dx / size, dz / size];
  });
  let length = 0;
  return line.map(([x, z], i) => {
    const last = line[i - 1];
    if (last) length += Math.hypot(x - last[0], z - last[1]);
    const [a, b] = [ways[i - 1] ?? ways[i]!, ways[i] ?? ways[i - 1]!];
    // Out of the dome is to the left of the way up and inward.
    const outOf = ([ax, az]: Spot, [bx, bz]: Spot): Spot => {
      const [or, oz] = [az + bz, ax + bx];
      const size = Math.hypot(or, oz);
      return [or / size, oz / size];
    };
    const both = outOf(a, b);
    const out: Ring['out'] = onDrum && i === 1 ? [outOf(a, a), outOf(b, b)] : [both, both];
    return { r: Math.abs(radius - x) < 1e-9 ? 0 : radius - x, z, out, length };
  });
}

/** A profile that comes to its axis more nearly level than this, as the way out of it looks up, has a round crown: else a tip. */
const leastCrown = 0.95;

/** A surface of the dome seen from outside; its texture runs by rings, true to scale in each facet. */
function ringSurface({ facets, at, radius }: Turned, rings: readonly Ring[]): ShellPolygon[] {
  const polygons: ShellPolygon[] = [];
  for (let k = 0; k + 1 < rings.length; k++)
    for (let j = 0; j < facets; j++) {
      const corner = (ring: Ring, place: number, above: 0 | 1): ShellCorner => {
        // At a tip each facet looks out as its middle does; a round crown looks up.
        const isTip = ring.r === 0 && ring.out[above][1] < leastCrown;
        const angle = (2 * Math.PI * (isTip ? j + 0.5 : place)) / facets;
        const [or, oz] = ring.r === 0 && !isTip ? [0, 1] : ring.out[above];
        const half = (place === j ? -1 : 1) * ring.r * Math.sin(Math.PI / facets);
        const middle = (2 * Math.PI * radius * (j + 0.5)) / facets;
        return {
          at: [...at(ring.r, place), ring.z],
          normal: [or * Math.cos(angle), or * Math.sin(angle), oz],
          uv: [middle + (ring.r === 0 ? 0 : half), ring.length],
        };
      };
      const [a, b] = [rings[k]!, rings[k + 1]!];
      polygons.push([
        ...(a.r === 0 ? [corner(a, j, 1)] : [corner(a, j, 1), corner(a, j + 1, 1)]),
        ...(b.r === 0 ? [corner(b, j, 0)] : [corner(b, j + 1, 0), corner(b, j, 0)]),
      ]);
    }
  return polygons;
}

/** What closes it at its foot, facing down. */
function footRing({ facets, at }: Turned, outer: Ring, inner: Ring): ShellPolygon[] {
  const normal: Vector = [0, 0, -1];
  return Array.from({ length: facets }, (_, j) =>
    (
      [
        [outer, j],
        [inner, j],
        [inner, j + 1],
        [outer, j + 1],
      ] as const
    ).map(([{ r, z }, place]): ShellCorner => {
      const [x, y] = at(r, place);
      return { at: [x, y, z], normal, uv: [0 - x, y] };
    }),
  );
}

/** The upright side of the crown opening, facing the axis. */
function crownRing({ facets, at }: Turned, upper: Ring, lower: Ring): ShellPolygon[] {
  return Array.from({ length: facets }, (_, j) =>
    (
      [
        [lower, j + 1],
        [lower, j],
        [upper, j],
        [upper, j + 1],
      ] as const
    ).map(([{ r, z }, place]): ShellCorner => {
      const angle = (2 * Math.PI * place) / facets;
      return { at: [...at(r, place), z], normal: [-Math.cos(angle), -Math.sin(angle), 0], uv: [-r * angle, z] };
    }),
  );
}

/** How high the back is above a place in plan, at its highest there, and the way out of it. */
function heightOn(rings: readonly Ring[], x: number, y: number): { z: number; normal: Vector } | null {
  const r = Math.hypot(x, y);
  for (let k = rings.length - 2; k >= 0; k--) {
    const [a, b] = [rings[k]!, rings[k + 1]!];
    if ((a.r - r) * (b.r - r) > 0 || a.r === b.r) continue;
    const share = (r - a.r) / (b.r - a.r);
    const [dr, dz] = [b.r - a.r, b.z - a.z];
    const size = Math.hypot(dr, dz);
    const [or, oz] = [dz / size, -dr / size];
    const [cos, sin] = r > 1e-9 ? [x / r, y / r] : [1, 0];
    return { z: a.z + share * dz, normal: r > 1e-9 ? [or * cos, or * sin, oz] : [0, 0, 1] };
  }
  return null;
}
