/** The top of a wall under a roof or a vault: where its underside is over the wall, corner by corner, and how each corner goes through the wall's thickness. */
import type { CourseForm } from '@yard-arch/document';
import type { Fineness } from '../profile/flatten.ts';
import { micrometre } from '../tolerances.ts';
import { bentChart, ribAt, turned, type BentChart } from './chart.ts';
import type { Overhead } from './overhead.ts';
import type { CornerWay, UnderRoof } from './sheet.ts';
import { facetTop, type Facet } from './under-facet.ts';
import type { Span } from './under-tracks.ts';

/** How far an end goes on beyond where the wall is drawn to, on its outer and on its inner face, metres. */
export type EndShift = readonly [outer: number, inner: number];

/** What else a wall's top depends on. */
export interface UnderSetting {
  /** The depths at which the wall's layers begin and end, metres. */
  boundaries: readonly number[];
  /** How finely its arcs are divided. */
  fineness: Fineness;
  start: EndShift;
  end: EndShift;
}

/** The top of a wall under what is overhead; null of one that leans. */
export function underRoof(wall: CourseForm, over: Overhead, setting: UnderSetting): UnderRoof | null {
  if (wall.batter) return null;
  let byWall = tops.get(over);
  if (!byWall) tops.set(over, (byWall = new Map()));
  const { start, leaves, runs, height } = wall;
  const key = JSON.stringify([start, leaves, runs, height, setting]);
  let made = byWall.get(key);
  if (!made) byWall.set(key, (made = underAnew(wall, over, setting)));
  return made;
}

const tops = new WeakMap<Overhead, Map<string, UnderRoof>>();

function underAnew(wall: CourseForm, over: Overhead, { boundaries, fineness, start, end }: UnderSetting): UnderRoof {
  const thickness = boundaries.at(-1)!;
  const { runs } = wall;
  const facets =
    runs.length > 1 || runs[0]!.sweep
      ? bentFacets(bentChart(wall.start, wall.leaves, runs, fineness), thickness)
      : [straightFacet(wall)];
  drawOn(facets, start, end);
  const tops = facets.map((facet) => facetTop(facet, { over, boundaries, thickness, wall }));
  const corners: CornerWay[] = [];
  const sections: UnderRoof['sections'][number][] = [];
  for (const top of tops)
    top.corners.forEach((corner, i) => {
      const before = corners.at(-1);
      if (i === 0 && before && isSameCorner(before, corner)) corners[corners.length - 1] = together(before, corner);
      else {
        if (before) sections.push(i === 0 ? null : top.sections[i - 1]!);
        corners.push(corner);
      }
    });
  const points = corners.map((way): [number, number] => [way[0]![1], way[0]![2]]);
  // Where it is joined the ends that are drawn are not those that it has.
  const [first, last] = [facets[0]!.chart.s[0], facets.at(-1)!.chart.s[1]];
  for (const point of points) point[0] = Math.max(first, Math.min(last, point[0]));
  points[0] = [first, tops[0]!.drawn[0]];
  points[points.length - 1] = [last, tops.at(-1)!.drawn[1]];
  return { points, sections, ways: corners };
}

function straightFacet({ start, leaves, runs }: CourseForm): Facet {
  const span = [0, runs[0]!.length] as const;
  const chart = { outer: span, inner: span, s: span };
  return { x: start.x, y: start.y, way: turned(leaves), outer: span, inner: span, chart };
}

function bentFacets(chart: BentChart, thickness: number): Facet[] {
  return Array.from({ length: chart.s.length - 1 }, (_, f): Facet => {
    const [x, y] = ribAt(chart, f, 0);
    const [toX, toY] = ribAt(chart, f + 1, 0);
    const size = Math.hypot(toX - x, toY - y);
    const way = [(toX - x) / size, (toY - y) / size] as const;
    const along = (i: number): number => {
      const [u, v] = ribAt(chart, i, thickness);
      return (u - x) * way[0] + (v - y) * way[1];
    };
    const [outer, inner]: [Span, Span] = [
      [0, size],
      [along(f), along(f + 1)],
    ];
    return { x, y, way, outer, inner, chart: { outer, inner, s: [chart.s[f]!, chart.s[f + 1]!] } };
  });
}

/** Draws the first and the last facet on, or back, to where the wall ends as it is joined. */
function drawOn(facets: Facet[], start: EndShift, end: EndShift): void {
  const drawn = (own: Facet, at: 0 | 1, [outer, inner]: EndShift): Facet => {
    const size = own.chart.s[1] - own.chart.s[0];
    const on = ([from, to]: Span, whole: Span, by: number): Span => {
      const more = (by * (whole[1] - whole[0])) / size;
      return at === 0 ? [from - more, to] : [from, to + more];
    };
    return { ...own, outer: on(own.outer, own.chart.outer, outer), inner: on(own.inner, own.chart.inner, inner) };
  };
  if (start.some(Boolean)) facets[0] = drawn(facets[0]!, 0, start);
  if (end.some(Boolean)) facets[facets.length - 1] = drawn(facets.at(-1)!, 1, end);
}

const isSameCorner = (a: CornerWay, b: CornerWay): boolean =>
  Math.abs(a[0]![1] - b[0]![1]) <= micrometre && Math.abs(a[0]![2] - b[0]![2]) <= micrometre;

/** The way of a corner where two facets meet: of both, what tells more of it; where they differ at the inner face, what is under both. */
function together(a: CornerWay, b: CornerWay): CornerWay {
  if (a.length !== b.length) return a.length > b.length ? a : b;
  return a.at(-1)![2] < b.at(-1)![2] ? a : b;
}
