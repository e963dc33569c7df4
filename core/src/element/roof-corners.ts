/** What of a roof's sides meets at corners where its planes are of unlike height: mitres between them, and polygons of one upright plane that lie over each other. */
import type { Roof } from '../roof/roof.ts';
import { isEdgesUpright, isOnePlane, partsOf, type Node } from '../roof/edge-line.ts';
import type { Surface } from '../roof/surface.ts';
import { arrange, following, origin, type Arrangement } from '../mesh/arrangement.ts';
import { micrometre } from '../tolerances.ts';

/** Which way an upright plane faces: its unit normal inward in plan. */
export type Facing = Pick<Surface['planes'][number], 'nx' | 'ny'>;

/** A polygon of an upright plane, counter-clockwise as seen from outside where it looks out, clockwise where it looks in. */
export interface Side {
  nodes: readonly Node[];
  layer: number;
}

/** Raised where sides lie over each other in a way that has no end that is known. */
export class Unsettled extends Error {}

/** A side without points that come twice. */
export function withoutTwins(side: Side): Side {
  const nodes = side.nodes.filter((node, i, all) => apart(node, all[(i + all.length - 1) % all.length]!) > micrometre);
  return { ...side, nodes };
}

const apart = (a: Node, b: Node): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const apartInPlan = (a: Node, b: Node): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Twice the area of a polygon as it is seen from outside an upright plane: negative where it looks in. */
export function turnOf({ nx, ny }: Facing, nodes: readonly Node[]): number {
  const along = ([x, y]: Node): number => ny * x - nx * y;
  return nodes.reduce((sum, a, i) => {
    const b = nodes[(i + 1) % nodes.length]!;
    return sum + along(a) * b[2] - along(b) * a[2];
  }, 0);
}

/** The sides of one upright plane: of an edge, with its mitres, or a step of one surface. */
export interface Standing {
  facing: Facing;
  sides: readonly Side[];
  /** Whether some of them may lie over each other. */
  odd: boolean;
}

/** All sides, where what looks out and what looks in cancel where they lie on each other; each with the way its plane faces. @throws Unsettled */
export function settledSides(all: readonly Standing[]): (Side & Facing)[] {
  const settled: (Side & Facing)[] = [];
  const planes: (Standing & { reach: number; sides: Side[] })[] = [];
  for (const { facing, sides, odd } of all)
    for (const side of sides) {
      const reach = reachOf(facing, side.nodes);
      if (reach === null) {
        // What ends square leans.
        settled.push(turnedTo(facing)(side));
        continue;
      }
      const known = planes.find((plane) =>
        isOnePlane(
          { nx: plane.facing.nx, ny: plane.facing.ny, reach: plane.reach },
          { nx: facing.nx, ny: facing.ny, reach },
        ),
      );
      if (!known) planes.push({ facing, sides: [side], odd, reach });
      else {
        known.odd ||= odd || known.facing !== facing;
        known.sides.push(side);
      }
    }
  for (const { facing, sides, odd } of planes)
    settled.push(...(odd ? settledInPlane(facing, sides) : sides).map(turnedTo(facing)));
  return settled;
}

const turnedTo =
  ({ nx, ny }: Facing) =>
  (side: Side): Side & Facing => ({ ...side, nx, ny });

/** How far inward the upright plane of some points is; null where they are in none. */
function reachOf({ nx, ny }: Facing, nodes: readonly Node[]): number | null {
  const reaches = nodes.map(([x, y]) => nx * x + ny * y);
  const [least, most] = [Math.min(...reaches), Math.max(...reaches)];
  return most - least < micrometre ? (least + most) / 2 : null;
}

function settledInPlane({ nx, ny }: Facing, sides: readonly Side[]): Side[] {
  const known = new Map<string, Node>();
  const loops = sides.map(({ nodes }) => {
    const xs = Float64Array.from(nodes, ([x, y]) => ny * x - nx * y);
    const ys = Float64Array.from(nodes, ([, , z]) => z);
    nodes.forEach((node, i) => {
      const key = `${xs[i]!} ${ys[i]!}`;
      if (!known.has(key)) known.set(key, node);
    });
    return { xs, ys, count: nodes.length };
  });
  const a = arrange(loops);
  const seen = new Set<number>();
  const made: Side[] = [];
  for (let h = 0; h < a.patch.length; h++) {
    const patch = a.patch[h]!;
    if (seen.has(patch)) continue;
    seen.add(patch);
    const winding = [...a.winding[patch]!];
    const net = winding.reduce((sum, [, times]) => sum + times, 0);
    if (net === 0) continue;
    const from = winding.find(([, times]) => Math.sign(times) === Math.sign(net))!;
    const nodes = traced(a, h).map((v) => known.get(`${a.xs[v]!} ${a.ys[v]!}`));
    if (Math.abs(net) > 1 || nodes.some((node) => !node)) throw new Unsettled('sides of a roof lie over each other');
    const all = nodes as Node[];
    // What is traced the wrong way round is a hole in another.
    if (turnOf({ nx, ny }, all) < 0) throw new Unsettled('sides of a roof have holes');
    made.push({ nodes: net > 0 ? all : all.reverse(), layer: sides[from[0]]!.layer });
  }
  return made;
}

/** The vertices round the patch on the left of a half-edge. */
function traced(a: Arrangement, start: number): number[] {
  const found: number[] = [];
  let h = start;
  do {
    found.push(origin(a, h));
    h = following(a, h);
  } while (h !== start);
  return found;
}

/** The upright planes between sides that meet at a corner in unlike heights, where that corner moves with the depth. */
export interface Mitres {
  /** Those in the upright plane of an edge, by that plane's number, and others with the way they face. */
  onEdges: Map<number, Side[]>;
  apart: (Side & Facing)[];
  /** Where the end of a side crosses the start of the next, by plane, end and layer: `3 start 0`. */
  crossings: Map<string, Node>;
}

/** The mitres of a roof between two of its surfaces. */
export function mitresOf({ surfaces, loops, soffits }: Roof, first: number, last: number): Mitres {
  const [onEdges, free] = [new Map<number, Side[]>(), [] as (Side & Facing)[]];
  const crossings: Mitres['crossings'] = new Map();
  const planeOf = new Map<number, number>();
  surfaces[first]!.planes.forEach((plane, p) => {
    if (isEdgesUpright(plane)) planeOf.set(plane.edge, p);
  });
  let edge = 0;
  for (const loop of loops) {
    const start = edge;
    edge += loop.length;
    loop.forEach((_, i) => {
      const [here, there] = [start + ((i + loop.length - 1) % loop.length), start + i];
      const [before, after] = [planeOf.get(here), planeOf.get(there)];
      if (before === undefined || after === undefined) return;
      for (let layer = first; layer < last; layer++) {
        // Soffits are closed by steps of their own.
        if (layer + 2 === surfaces.length && (soffits[here] !== null || soffits[there] !== null)) continue;
        const mitre = mitreAt(endsAt(surfaces, layer, before, after), layer);
        if (mitre?.crossing)
          for (const key of [`${before} end ${layer}`, `${after} start ${layer}`]) crossings.set(key, mitre.crossing);
        for (const side of (mitre?.sides ?? []).map(withoutTwins)) {
          if (side.nodes.length < 3) continue;
          const on = [before, after].find((p) => reachOf(surfaces[first]!.planes[p]!, side.nodes) !== null);
          if (on === undefined) free.push(facing(side));
          else onEdges.set(on, [...(onEdges.get(on) ?? []), side]);
        }
      }
    });
  }
  return { onEdges, apart: free, crossings };
}

/** The ends of two sides that follow each other at a corner, at the top of a layer and at its foot. */
function endsAt(surfaces: readonly Surface[], layer: number, before: number, after: number): Ends {
  return [layer, layer + 1].map((k): [Node, Node] => {
    const surface = surfaces[k]!;
    const [end, start] = [partsOf(surface, before).main.at(-1)!, partsOf(surface, after).main[0]!];
    return [surface.nodes[end]!, surface.nodes[start]!];
  }) as Ends;
}

type Ends = [[Node, Node], [Node, Node]];

/** What is between the end of one side and the start of the next at a layer, and where those cross; null where they meet. */
function mitreAt([[a, b], [c, d]]: Ends, layer: number): { sides: Side[]; crossing: Node | null } | null {
  if (apartInPlan(a, c) < micrometre || (apart(a, b) < micrometre && apart(c, d) < micrometre)) return null;
  const [above, below] = [b[2] - a[2], d[2] - c[2]];
  if (above * below >= -(micrometre ** 2)) return { sides: [{ nodes: [a, c, d, b], layer }], crossing: null };
  // Higher at the top and lower at the foot: they change places on the way.
  const share = above / (above - below);
  const mixed = (k: 0 | 1 | 2): number => a[k] + share * (c[k] - a[k]);
  const crossing: Node = [mixed(0), mixed(1), mixed(2)];
  return {
    sides: [
      { nodes: [a, crossing, b], layer },
      { nodes: [crossing, c, d], layer },
    ],
    crossing,
  };
}

/** A mitre with the way that it faces. */
function facing(side: Side): Side & Facing {
  const [a] = side.nodes;
  const far = side.nodes.reduce((best, node) => (apartInPlan(node, a!) > apartInPlan(best, a!) ? node : best));
  const size = apartInPlan(far, a!);
  return { ...side, nx: (a![1] - far[1]) / size, ny: (far[0] - a![0]) / size };
}
