/** Members, panes and panels as solids: areas as they are seen, from one depth to another. Directions as a part has them: x along, y into the wall, z up. */
import { dot, newell } from '../vector.ts';
import type { Area, Moved, Spot } from './area.ts';
import { type Facets, type Point } from './facets.ts';
import { nanometre } from '../tolerances.ts';

/** From which depth to which, metres. */
export interface Range {
  from: number;
  to: number;
  /** Against which of both stands what is deeper than it is; over both alike where nothing is said. */
  against?: 'from' | 'to';
  /** How far a rebate's lip lies over the edges of what stands in it, on the side that it is against. */
  lip?: number;
}

const upright: Point = [0, 0, 1];
const before: Point = [0, -1, 0];
const behind: Point = [0, 1, 0];

const at = ([x, z]: Spot, y: number): Point => [x, y, z];

/** Adds a polygon so that it faces a way. */
export function facing(
  facets: Facets,
  points: Point[],
  { way, grain, shaded }: { way: Point; grain: Point; shaded?: Point[] | undefined },
): void {
  if (dot(newell(points), way) > 0) return facets.add(points, grain, shaded);
  facets.add([...points].reverse(), grain, shaded && [...shaded].reverse());
}

/** The sides along an area's edges. @param outward whether they face out of the area, or into it. */
export function sides(facets: Facets, { points, edges }: Area, { from, to }: Range, outward: boolean): void {
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length]!;
    side(facets, { a, b }, { from, to }, { outward, chord: edges[i]!.chord ?? undefined });
  });
}

/** The side along one edge. @param outward whether it faces out of what is on the edge's left, or into it */
export function side(
  facets: Facets,
  { a, b }: { a: Spot; b: Spot },
  { from, to }: Range,
  { outward, chord }: { outward: boolean; chord?: { ax: number; ay: number; bx: number; by: number } | undefined },
): void {
  const [dx, dz] = [b[0] - a[0], b[1] - a[1]];
  if (Math.hypot(dx, dz) < nanometre) return;
  const sign = outward ? 1 : -1;
  const way: Point = [sign * dz, 0, -sign * dx];
  const normal = (x: number, z: number): Point => [sign * x, 0, sign * z];
  const round = chord && [normal(chord.ax, chord.ay), normal(chord.bx, chord.by)];
  facing(facets, [at(a, from), at(b, from), at(b, to), at(a, to)], {
    way,
    grain: [dx, 0, dz],
    shaded: round && [round[0]!, round[1]!, round[1]!, round[0]!],
  });
}

/** A bar, a pane or a panel. @param grain whether its texture runs up or along. */
export function prism(
  facets: Facets,
  material: string,
  { area, range }: { area: Area; range: Range },
  grain: Point = upright,
): void {
  facets.begin(material);
  facing(
    facets,
    area.points.map((spot) => at(spot, range.from)),
    { way: before, grain },
  );
  facing(
    facets,
    area.points.map((spot) => at(spot, range.to)),
    { way: behind, grain },
  );
  sides(facets, area, range, true);
}

/**
 * A frame: members along an area's edges, mitred where they meet, each with its grain along it; along edges that were not moved
 * there is none, and its neighbours end there.
 */
export function frame(
  facets: Facets,
  material: string,
  { outer, within: { strips, area }, range }: { outer: Area; within: Moved; range: Range },
): void {
  facets.begin(material);
  for (const { points, along } of strips) {
    const grain: Point = [along[0], 0, along[1]];
    facing(
      facets,
      points.map((spot) => at(spot, range.from)),
      { way: before, grain },
    );
    facing(
      facets,
      points.map((spot) => at(spot, range.to)),
      { way: behind, grain },
    );
  }
  for (const [edge, chord] of bounding(strips, outer, area))
    side(facets, { a: edge[0], b: edge[1] }, range, { outward: true, chord: chord ?? undefined });
}

type Edge = readonly [Spot, Spot];

/** The edges that bound strips as a whole, each with the strips on its left: those that no other strip has the other way round. */
function bounding(
  strips: Moved['strips'],
  outer: Area,
  inner: Area,
): (readonly [Edge, Area['edges'][number]['chord']])[] {
  const key = ([x, z]: Spot): string => `${Math.round(x * 1e8)} ${Math.round(z * 1e8)}`;
  const chords = new Map<string, Area['edges'][number]['chord']>();
  for (const area of [outer, inner])
    area.points.forEach((a, i) => {
      const b = area.points[(i + 1) % area.points.length]!;
      const { chord } = area.edges[i]!;
      if (!chord) return;
      const { ax, ay, bx, by } = chord;
      // Which of the two lies within the other is not known here.
      chords.set(`${key(a)} ${key(b)}`, chord);
      chords.set(`${key(b)} ${key(a)}`, { ax: -bx, ay: -by, bx: -ax, by: -ay });
    });
  const edges = new Map<string, Edge>();
  for (const { points } of strips)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length]!;
      const [there, back] = [`${key(a)} ${key(b)}`, `${key(b)} ${key(a)}`];
      if (!edges.delete(back)) edges.set(there, [a, b]);
    });
  return [...edges].map(([name, edge]) => [edge, chords.get(name) ?? null] as const);
}
