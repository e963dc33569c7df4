/** Elements as they are drawn in plan: the body of each cut level, with the gaps of what is cut through it there. Metres. */
import type { Placed } from './placed.ts';
import { pointAt, ribAt, type BentChart } from '../element/chart.ts';
import type { Point } from '../element/course.ts';
import type { Sheet } from '../element/sheet.ts';
import { offsetAt } from '../profile/section.ts';
import { nanometre } from '../tolerances.ts';

/** An element in plan. */
export interface InPlan {
  element: string;
  /** Its body, a closed polygon. */
  body: Point[];
  /** Its outer face, from start to end; empty where an element is seen from above. */
  face: Point[];
  /** Openings at the level of the cut, each a closed polygon through the whole thickness. */
  gaps: { opening: string; body: Point[]; blockedUp: boolean }[];
  /** Lines that are seen on it from above. */
  seams?: [Point, Point][];
}

/** A sheet with its openings in plan, cut at a height above its base. */
export function inPlan(sheet: Sheet, placed: readonly Placed[], cutAt: number): InPlan {
  const { chart, thickness, length } = sheet;
  const at = (s: number, t: number, n: number): Point => {
    const [x, y] = pointAt(chart, s, t, n);
    return [x, y];
  };
  if (chart.kind === 'flat' && Math.abs(chart.up[2]) < 0.999) {
    // Seen from above: the whole outline.
    const { xs, ys, next, loops } = sheet.outline;
    const body: Point[] = [];
    const first = loops[0] ?? 0;
    let v = first;
    do {
      body.push(at(xs[v]!, ys[v]!, 0));
      v = next[v]!;
    } while (v !== first);
    const seams = (sheet.seams ?? []).map(([as, bt, cs, dt]): [Point, Point] => [at(as, bt, 0), at(cs, dt, 0)]);
    return { element: sheet.element, body, face: [], gaps: [], ...(seams.length > 0 ? { seams } : {}) };
  }
  if (chart.kind === 'bent' && chart.frame)
    return { element: sheet.element, body: fromAbove(sheet, chart, at), face: [], gaps: [] };
  const ribs = chart.kind === 'bent' ? [...chart.s] : [];
  const between = (from: number, to: number): number[] => [
    from,
    ...ribs.filter((s) => s > from + nanometre && s < to - nanometre),
    to,
  ];
  const band = (from: (n: number) => number, to: (n: number) => number, depth: number): Point[] => [
    ...between(from(0), to(0)).map((s) => at(s, 0, 0)),
    ...between(from(depth), to(depth))
      .reverse()
      .map((s) => at(s, 0, depth)),
  ];
  const [left, right] = [Math.min(...sheet.outline.xs), Math.max(...sheet.outline.xs)];
  const [start, end] = [endLine(sheet, 'start'), endLine(sheet, 'end')];
  // Only a course's ends are joined; an outline of its own reaches where it reaches.
  const joined = sheet.outline.names.includes('start');
  const body = band(
    (n) => (joined ? 0 - start(n) : left),
    (n) => (joined ? length + end(n) : right),
    thickness,
  );
  const gaps = placed
    .filter(
      ({ t, profile, kind }) => t <= cutAt && t + profile.height >= cutAt && kind !== 'boss' && kind !== 'imprint',
    )
    .map(({ id, s, profile, depth, blockedUp }) => {
      const [from, to] = [Math.max(left, s), Math.min(right, s + profile.width)];
      return {
        opening: id,
        blockedUp,
        body:
          from < to
            ? band(
                () => from,
                () => to,
                Math.min(depth, thickness),
              )
            : [],
      };
    })
    .filter((gap) => gap.body.length > 0);
  return { element: sheet.element, body, face: between(left, right).map((s) => at(s, 0, 0)), gaps };
}

/** What a bent sheet that lies covers in plan: from where it reaches farthest across to the other side. */
function fromAbove(
  { length, height }: Sheet,
  chart: BentChart,
  at: (s: number, t: number, n: number) => Point,
): Point[] {
  const across = (s: number): number => ribAt(chart, chart.s.indexOf(s), 0)[0];
  const ribs = [...chart.s];
  const left = ribs.reduce((best, s) => (across(s) < across(best) ? s : best), 0);
  const right = ribs.reduce((best, s) => (across(s) > across(best) ? s : best), length);
  return [at(left, 0, 0), at(right, 0, 0), at(right, height, 0), at(left, height, 0)];
}

/** How far an end of a wall goes beyond its outer face's end at a depth, as it is joined. */
function endLine(sheet: Sheet, which: 'start' | 'end'): (n: number) => number {
  const i = sheet.outline.names.indexOf(which);
  const line = i < 0 ? null : sheet.outline.sections[i];
  if (!line) return () => 0;
  return (depth) => offsetAt(line, depth, -1);
}
