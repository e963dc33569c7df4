/** What keeps the planes of a roof, each of which can be, from being a body together. */
import { fault, type Fault } from '../finding.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { NotTriangulable } from '../mesh/triangulation.ts';
import { hasSteps } from '../roof/divided.ts';
import type { Surface } from '../roof/surface.ts';
import { micrometre } from '../tolerances.ts';
import { plus, scaled, type Vector } from '../vector.ts';
import { Unsettled } from './roof-corners.ts';
import type { RoofBody } from './roof-sheets.ts';
import { buriedOf, uprightsOf, type Upright } from './roof-sides.ts';

/** Why a roof's sides cannot be closed, in one or layer by layer; null where they can. */
export function standsWithin(body: RoofBody): Fault | null {
  let found = known.get(body);
  if (found === undefined) known.set(body, (found = withinAnew(body)));
  return found;
}

const known = new WeakMap<RoofBody, Fault | null>();

function withinAnew(body: RoofBody): Fault | null {
  const { boundaries, roof } = body;
  // Without steps its sides are one polygon each, which meet at its corners.
  if (!roof.surfaces.some(hasSteps)) return null;
  const layers = boundaries.length > 2 ? Array.from(boundaries.subarray(1), (to, i) => [boundaries[i]!, to]) : [];
  const bodies = [[0, boundaries.at(-1)!], ...layers] as [number, number][];
  if (comesThrough(roof.surfaces))
    return fault(
      'comes-through',
      'its underside comes up through its upper side beside a step between two of its planes',
      'Make it thinner, or pitch and overhang of the edges that meet at that step more alike.',
    );
  if (bodies.every(([from, to]) => closes(body, from, to))) return null;
  return fault(
    'verge-inside',
    'planes of different heights meet at an inner corner of it, and what stands up between them has no end there',
    'Make the edges beyond that corner of one kind: eaves of pitch and overhang alike, or verges.',
  );
}

/** Whether the polygons of a body between two depths close it: each edge is run along once either way. */
function closes(body: RoofBody, from: number, to: number): boolean {
  const sides = sidesOf(body, from, to);
  const triangles = sides?.map(trianglesOf);
  if (!sides || !triangles?.every((one) => one !== null)) return false;
  const runs = new Set<string>();
  let once = true;
  const run = (a: readonly number[], b: readonly number[]): void => {
    const key = `${a.join(' ')}|${b.join(' ')}`;
    once &&= !runs.has(key);
    runs.add(key);
  };
  const round = (points: readonly (readonly number[])[], way: 1 | -1): void =>
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length]!;
      if (way > 0) run(a, b);
      else run(b, a);
    });
  for (const { points } of [...sides, ...buriedOf(body, from, to)]) round(points, 1);
  for (const { sheet } of body.planes) {
    const { outer, inner } = sheet.rim!(from, to);
    for (const { points } of outer) round(points, 1);
    for (const { points } of inner) round(points, -1);
  }
  const closed = once && [...runs].every((key) => runs.has(key.split('|').reverse().join('|')));
  // Nor may a triangle have an edge across its polygon that runs along one of others.
  return closed && sides.every(({ points }, i) => !isAlong(points, triangles[i]!, runs));
}

function sidesOf(body: RoofBody, from: number, to: number): Upright[] | null {
  try {
    return uprightsOf(body, from, to);
  } catch (error) {
    if (error instanceof Unsettled) return null;
    throw error;
  }
}

/** The triangles of a polygon; null where it crosses itself or lies on itself. */
function trianglesOf({ xs, ys }: Upright): Uint32Array | null {
  const count = xs.length;
  try {
    return triangulate({
      count,
      xs: Float64Array.from(xs),
      ys: Float64Array.from(ys),
      next: Uint32Array.from(xs, (_, i) => (i + 1) % count),
    });
  } catch (error) {
    if (error instanceof NotTriangulable) return null;
    throw error;
  }
}

/** Whether an edge between triangles of a polygon, which is none of its own, is among edges of polygons. */
function isAlong(points: readonly (readonly number[])[], triangles: Uint32Array, edges: ReadonlySet<string>): boolean {
  const count = points.length;
  return triangles.some((a, i) => {
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1]!;
    if ((a + 1) % count === b || (b + 1) % count === a) return false;
    return edges.has(`${points[a]!.join(' ')}|${points[b]!.join(' ')}`);
  });
}

/** Whether the underside of a roof comes up through its upper side beside a step within it. */
function comesThrough(surfaces: readonly Surface[]): boolean {
  return surfaces.some((upper, k) => {
    const lower = surfaces[k + 1];
    return (
      lower !== undefined &&
      (midsOfSteps(lower).some((at) => at[2] > (heightAt(upper, at)?.height ?? NaN) + micrometre) ||
        midsOfSteps(upper).some((at) => at[2] < (heightAt(lower, at)?.height ?? NaN) - micrometre))
    );
  });
}

/** The middles of the lines in which planes end on upright ones. */
function midsOfSteps({ planes, nodes }: Surface): Vector[] {
  return planes
    .filter(({ run }) => run === 0)
    .flatMap(({ rings }) =>
      rings.flatMap((ring) =>
        ring.nodes.flatMap((node, i): Vector[] => {
          const [a, b] = [nodes[node]!, nodes[ring.nodes[(i + 1) % ring.nodes.length]!]!];
          const plumb = Math.hypot(a[0] - b[0], a[1] - b[1]) < micrometre;
          return plumb || ring.beyond[i]! < 0 ? [] : [scaled(plus(a, b), 0.5)];
        }),
      ),
    );
}

/** How high a surface is over a place in plan, and by which of its planes; null where it is not there, or a step or an edge is. */
export function heightAt(
  { planes, nodes }: Surface,
  [x, y]: Vector,
): { height: number; plane: Surface['planes'][number] } | null {
  for (const plane of planes) {
    const { run, nx, ny, reach, rings } = plane;
    if (run === 0) continue;
    let inside = false;
    for (const ring of rings)
      for (const [i, node] of ring.nodes.entries()) {
        const [[ax, ay], [bx, by]] = [nodes[node]!, nodes[ring.nodes[(i + 1) % ring.nodes.length]!]!];
        const [dx, dy] = [bx - ax, by - ay];
        const share = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
        if (Math.hypot(x - ax - share * dx, y - ay - share * dy) < micrometre) return null;
        if (ay > y !== by > y && x < ax + ((y - ay) / dy) * dx) inside = !inside;
      }
    if (inside) return { height: (nx * x + ny * y - reach) / run, plane };
  }
  return null;
}
