/** Sheets that follow a course in plan: walls, and barrels, whose plan is an upright plane. */
import type { CourseForm } from '@yard-arch/document';
import { chordsOf, type Fineness } from '../../profile/flatten.ts';
import type { SectionLine } from '../../profile/section.ts';
import { bentChart, turned, withRadialEnds, type Chart } from '../chart.ts';
import type { CornerWay, SheetEdge, UnderRoof, WallEnds } from '../sheet.ts';
import { topLine } from '../top.ts';
import { flatChart, type Shape, type ShapeOutline } from './shape.ts';
import { micrometre as tolerance, rounding } from '../../tolerances.ts';

export function courseShape(form: CourseForm, ends: WallEnds, thickness: number): Shape {
  return {
    points: (fineness) =>
      form.runs.reduce((sum, { length, sweep = 0 }) => {
        const radians = (Math.abs(sweep) * Math.PI) / 180;
        return sum + (radians === 0 ? 1 : chordsOf(length / radians, radians, fineness));
      }, 1),
    fine: 'curve',
    larger: form.lies ? 'larger' : 'longer or higher',
    chart: (fineness) => chartOf(form, fineness),
    outline: () => outlineOf(form, ends, thickness),
  };
}

function chartOf(form: CourseForm, fineness: Fineness): Chart {
  const { start, leaves, runs, lies } = form;
  if (lies) {
    const [cos, sin] = turned(lies.turn);
    return {
      ...withRadialEnds(bentChart({ x: 0, y: 0, z: 0 }, leaves, runs, fineness)),
      frame: { origin: [start.x, start.y, start.z], x: [cos, sin, 0], y: [0, 0, -1], z: [0 - sin, cos, 0] },
    };
  }
  if (runs.length > 1 || runs[0]!.sweep) return bentChart(start, leaves, runs, fineness);
  return flatChart(start, leaves, 90 - (form.batter ?? 0));
}

/** A wall's outline, from its start along the base and back along the top. */
function outlineOf(wall: CourseForm, ends: WallEnds, thickness: number): ShapeOutline {
  const length = wall.runs.reduce((sum, run) => sum + run.length, 0);
  const top = ends.top?.points ?? topLine(wall.top, length, wall.height);
  const points: number[][] = [[0, 0], [length, 0], ...top.map((point) => [...point]).reverse()];
  const ways: (CornerWay | null)[] | undefined = ends.top && [null, null, ...[...ends.top.ways].reverse()];
  const through = ends.top && throughTop(ends.top);
  const names = points.map((_, i): SheetEdge =>
    i === 0 ? 'base' : i === 1 ? 'end' : i === points.length - 1 ? 'start' : 'top',
  );
  dropNeedless(points, names, ways);
  const lean = Math.tan(((wall.batter ?? 0) * Math.PI) / 180);
  const sections = points.map(([x, y], i): SectionLine | null => {
    if (names[i] === 'start' && ends.start) return ends.start;
    if (names[i] === 'end' && ends.end) return ends.end;
    if (names[i] === 'top' && through) return through(x!, y!, points[(i + 1) % points.length]!);
    if (lean === 0) return null;
    // Level edges of a leaning wall stay level through its thickness.
    const [bx, by] = points[(i + 1) % points.length]! as [number, number];
    const out = -(bx - x!) / Math.hypot(bx - x!, by - y!);
    return Math.abs(out) < rounding
      ? null
      : { n: [0, thickness], offset: [0, out * lean * thickness], smooth: [false, false] };
  });
  const short = [ends.start, ends.end].some((line) => line && Math.min(...line.offset) < -length);
  return {
    xs: Float64Array.from(points, (point) => point[0]!),
    ys: Float64Array.from(points, (point) => point[1]!),
    next: Uint32Array.from(points, (_, i) => (i + 1) % points.length),
    loops: [0],
    names,
    sections,
    chords: points.map(() => null),
    ...(ways ? { ways } : {}),
    fault: short
      ? {
          code: 'too-short' as const,
          reason: 'the wall is shorter than what its ends lose where they meet other walls',
          mend: 'Make it longer, or let its ends be square.',
        }
      : null,
  };
}

/** How a piece of a top under a roof goes through the thickness, found again by where it lies once needless points are gone. */
function throughTop({
  points,
  sections,
}: UnderRoof): (x: number, y: number, to: readonly number[]) => SectionLine | null {
  return (x, y, [u, v]) => {
    const [mx, my] = [(x + u!) / 2, (y + v!) / 2];
    let best = 0;
    let least = Infinity;
    for (let i = 0; i + 1 < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i]!, points[i + 1]!];
      const size = Math.hypot(bx - ax, by - ay) || 1;
      const share = Math.max(0, Math.min(1, ((mx - ax) * (bx - ax) + (my - ay) * (by - ay)) / (size * size)));
      const off = Math.hypot(ax + share * (bx - ax) - mx, ay + share * (by - ay) - my);
      if (off < least) [least, best] = [off, i];
    }
    return sections[best] ?? null;
  };
}

/** How far a corner is off the straight way from the one before to the one after, and off the one before, metres. */
function offWay(before: readonly number[], [x, y]: readonly number[], after: readonly number[]): [number, number] {
  const [[ax, ay], [bx, by]] = [before, after];
  const size = Math.hypot(bx! - ax!, by! - ay!);
  const off = size > tolerance ? Math.abs((bx! - ax!) * (y! - ay!) - (by! - ay!) * (x! - ax!)) / size : 0;
  return [off, Math.hypot(x! - ax!, y! - ay!)];
}

/**
 * Drops points that say nothing: those on the straight line between their neighbours, within the tolerance, such as steps of no height. Of those with ways of their own only what says nothing at the
 * inner face either.
 */
function dropNeedless(points: number[][], names: SheetEdge[], ways?: (CornerWay | null)[]): void {
  for (let i = 0; i < points.length && points.length > 3;) {
    const [h, j] = [(i + points.length - 1) % points.length, (i + 1) % points.length];
    const [off, apart] = offWay(points[h]!, points[i]!, points[j]!);
    const within = (k: number): readonly number[] => ways?.[k]?.at(-1)?.slice(1) ?? points[k]!;
    const way = ways?.[i];
    const bends = way ? way.length > 2 || offWay(within(h), within(i), within(j))[0] > tolerance : false;
    if ((off > tolerance || bends) && apart > tolerance) i += 1;
    else {
      points.splice(i, 1);
      names.splice(i, 1);
      ways?.splice(i, 1);
      i = Math.max(0, i - 2);
    }
  }
}
