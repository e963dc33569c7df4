/**
 * Lunettes: the web over a window whose head runs into a barrel vault, from the wall's inner face to the vault's back, over the passage that the window cuts there. Told in the opening's own
 * directions: x across from its middle, y into the wall, z up from its lowest. Metres.
 */
import type { Lunette } from '@yard-arch/document';
import { pointAt, turnedIn, type Chart, type Rigid } from '../element/chart.ts';
import type { Placed } from '../setout/placed.ts';
import { tidy } from '../tidy.ts';
import { micrometre } from '../tolerances.ts';
import type { Vector } from '../vector.ts';
import { areaOf, moved, type Spot } from './area.ts';
import { Facets, type Point } from './facets.ts';
import type { PartMesh } from './part.ts';
import { facing } from './solids.ts';

/** The back of a barrel's flank as it comes up before an opening: how far in it is (y) at how much height (z), from its springing to its crown. */
export type Flank = readonly (readonly [y: number, z: number])[];

/** The flank of a barrel before an opening; null where the barrel does not run along the opening's wall. */
export function flankBefore(chart: Chart, length: number, placement: Rigid): Flank | null {
  if (chart.kind !== 'bent') return null;
  const local = (point: Vector): Vector => {
    const { origin } = placement;
    return turnedIn(placement, [point[0] - origin[0], point[1] - origin[1], point[2] - origin[2]]);
  };
  const ribs = [...chart.s].map((s) => [local(pointAt(chart, s, 0, 0)), local(pointAt(chart, s, length, 0))] as const);
  const [[near, far]] = ribs as [readonly [Vector, Vector]];
  if (Math.hypot(far[1] - near[1], far[2] - near[2]) > 1e-6 * length) return null;
  // From the springing that is nearer to the wall.
  const line = ribs.map(([[, y, z]]): [number, number] => [y, z]);
  if (line[0]![0] > line.at(-1)![0]) line.reverse();
  const crown = line.findIndex(([, z], i) => i > 0 && z <= line[i - 1]![1] + micrometre);
  return crown < 0 ? line : line.slice(0, crown);
}

/** A lunette, or why there is none. */
export function lunetteOf(
  { thickness, material }: Lunette,
  { outline, profile, depth, flank }: Pick<Placed, 'outline' | 'profile' | 'depth' | 'flank'>,
): PartMesh | string {
  if (!flank || flank.length < 2)
    return 'its lunette has no barrel to run to: let it cut one that runs along its wall, among the further elements';
  const area = areaOf(outline);
  const hole = area && { ...area, points: area.points.map(([x, z]): Spot => [x - profile.width / 2, z]) };
  const web = hole && moved(hole, () => thickness);
  if (!web) return 'its lunette cannot be so thick about its outline';
  const line = beyond(flank, depth);
  const head = Math.max(...web.area.points.map(([, z]) => z));
  if (line.length < 2 || head <= line[0]![1] + micrometre) return 'its head does not come up to the vault’s back';
  if (head > line.at(-1)![1] - micrometre)
    return 'its lunette rises above the vault’s crown: let the window be lower, or the web thinner';
  const pieces = web.strips.flatMap(({ points }) => banded(points, line));
  const facets = new Facets(material);
  const at = ([x, z]: Spot): Point => [x, awayAt(line, z), z];
  for (const piece of pieces) {
    facing(
      facets,
      piece.map(([x, z]): Point => [x, depth, z]),
      { way: [0, -1, 0], grain: [1, 0, 0] },
    );
    facing(facets, piece.map(at), { way: [0, 1, 0], grain: [1, 0, 0] });
  }
  for (const [a, b] of rim(pieces)) {
    const loop: Point[] = [[a[0], depth, a[1]], [b[0], depth, b[1]], at(b), at(a)];
    const own = loop.filter((p, i) => Math.abs(p[1] - depth) > micrometre || i < 2);
    if (own.length > 2) facing(facets, own, { way: [b[1] - a[1], 0, a[0] - b[0]], grain: [0, 1, 0] });
  }
  const key = JSON.stringify([
    'lunette',
    thickness,
    material,
    tidy(depth),
    line.map((p) => p.map(tidy)),
    web.area.points.map((p) => p.map(tidy)),
  ]);
  return { key, name: 'lunette', mesh: facets.finish() };
}

/** A flank from where it comes out of a wall so deep. */
function beyond(flank: Flank, depth: number): [number, number][] {
  const first = flank.findIndex(([y]) => y > depth + micrometre);
  if (first < 0) return [];
  const rest = flank.slice(first).map(([y, z]): [number, number] => [y, z]);
  if (first === 0) return rest;
  const [[ay, az], [by, bz]] = [flank[first - 1]!, flank[first]!];
  return [[depth, az + ((bz - az) * (depth - ay)) / (by - ay)], ...rest];
}

/** How far in a flank is at a height. */
function awayAt(line: readonly (readonly [number, number])[], z: number): number {
  const k = Math.max(
    1,
    line.findIndex(([, top]) => top >= z - 1e-12),
  );
  const [[ay, az], [by, bz]] = [line[k - 1]!, line[k]!];
  return ay + (by - ay) * Math.min(1, Math.max(0, (z - az) / (bz - az)));
}

/** A polygon in pieces, each before one facet of a flank; what is below that is left out. */
function banded(polygon: readonly Spot[], line: readonly (readonly [number, number])[]): Spot[][] {
  return line.slice(1).flatMap(([, top], k) => {
    const piece = cutAt(cutAt([...polygon], line[k]![1], 1), top, -1);
    return piece.length > 2 ? [piece] : [];
  });
}

/** What of a polygon is above a height, or (−1) below it. */
function cutAt(polygon: readonly Spot[], height: number, way: 1 | -1): Spot[] {
  const off = ([, z]: Spot): number => way * (z - height);
  const out: Spot[] = [];
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    const [da, db] = [off(a), off(b)];
    if (da >= 0) out.push(a);
    if (da * db < 0) out.push([a[0] + ((b[0] - a[0]) * da) / (da - db), height]);
  });
  const kept = out.filter((a, i) => {
    const b = out[(i + 1) % out.length]!;
    return Math.hypot(a[0] - b[0], a[1] - b[1]) > 1e-9;
  });
  // What only touches the height has no area.
  return kept.some((spot) => off(spot) > 1e-9) ? kept : [];
}

/** The edges of pieces that no other piece has the other way round. */
function rim(pieces: readonly (readonly Spot[])[]): (readonly [Spot, Spot])[] {
  const key = ([x, z]: Spot): string => `${Math.round(x * 1e7)} ${Math.round(z * 1e7)}`;
  const edges = new Map<string, readonly [Spot, Spot]>();
  for (const piece of pieces)
    piece.forEach((a, i) => {
      const b = piece[(i + 1) % piece.length]!;
      const back = `${key(b)} ${key(a)}`;
      if (!edges.delete(back)) edges.set(`${key(a)} ${key(b)}`, [a, b]);
    });
  return [...edges.values()];
}
