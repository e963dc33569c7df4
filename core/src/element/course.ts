/** A wall's course in plan, along its outer face: where its ends are, and how it is moved by them, bent, split, joined and reversed. All in plan metres and degrees. */
import { runsOf, type Run, type Wall } from '@yard-arch/document';
import type { Impossible } from '../profile/profile.ts';
import { tidy } from '../tidy.ts';
import { turned } from './chart.ts';
import { joinedTop, reversedTop, splitTop } from './top.ts';
import { micrometre, millimetre, nanometre, parallel, relative, rounding } from '../tolerances.ts';

export type Point = readonly [number, number];

/** Both ends of a wall's outer face and the directions in which it leaves the one and reaches the other. */
export interface Course {
  start: Point;
  end: Point;
  leaves: number;
  reaches: number;
}

/** The point that a run of a course leads to, and the direction there. */
function after(
  from: Point,
  angle: number,
  { length, sweep = 0 }: Pick<Run, 'length' | 'sweep'>,
): { at: Point; angle: number } {
  const half = (sweep * Math.PI) / 360;
  const chord = Math.abs(half) < rounding ? length : (length * Math.sin(half)) / half;
  const [cos, sin] = turned(angle + sweep / 2);
  return { at: [from[0] + chord * cos, from[1] + chord * sin], angle: angle + sweep };
}

/** The course of a wall. */
export function courseOf(wall: Wall): Course {
  let at: Point = [wall.start.x, wall.start.y];
  let angle = wall.turn;
  for (const run of runsOf(wall)) {
    angle += run.turn;
    ({ at, angle } = after(at, angle, run));
  }
  return { start: [wall.start.x, wall.start.y], end: at, leaves: wall.turn, reaches: angle };
}

/** The point of a course at a distance from its start, and the direction there. */
export function alongCourse(wall: Wall, s: number): { at: Point; angle: number } {
  let at: Point = [wall.start.x, wall.start.y];
  let angle = wall.turn;
  let left = s;
  const runs = runsOf(wall);
  for (const [i, run] of runs.entries()) {
    angle += run.turn;
    if (left <= run.length || i === runs.length - 1) {
      const share = left / run.length;
      return after(at, angle, { length: left, sweep: (run.sweep ?? 0) * share });
    }
    ({ at, angle } = after(at, angle, run));
    left -= run.length;
  }
  return { at, angle };
}

/** An angle as documents keep it, from −180 to 180. */
export const tidyAngle = (degrees: number): number => tidy(((((degrees + 180) % 360) + 360) % 360) - 180);
export const directionOf = ([ax, ay]: Point, [bx, by]: Point): number =>
  tidy((Math.atan2(by - ay, bx - ax) * 180) / Math.PI);
const distance = ([ax, ay]: Point, [bx, by]: Point): number => Math.hypot(bx - ax, by - ay);

/** The wall with its ends at other points: turned and drawn out as a whole, so that its arcs keep their sweeps. Refused where the ends would meet. */
export function withEnds(wall: Wall, start: Point, end: Point): Wall | Impossible {
  const now = courseOf(wall);
  const [before, wanted] = [distance(now.start, now.end), distance(start, end)];
  if (before < micrometre)
    return {
      reason: 'the wall is a ring and has no ends to be moved',
      mend: 'Change its length, sweep or runs in its particulars.',
    };
  if (wanted < 0.01)
    return { reason: 'the wall would be shorter than 10 mm', mend: 'Leave its ends farther apart, or remove it.' };
  const factor = wanted / before;
  const turn = tidyAngle(wall.turn + directionOf(start, end) - directionOf(now.start, now.end));
  const [x, y] = [tidy(start[0]), tidy(start[1])];
  return {
    ...wall,
    start: { ...wall.start, x, y },
    turn,
    length: tidy(wall.length * factor),
    ...(wall.runs ? { runs: wall.runs.map((run) => ({ ...run, length: tidy(run.length * factor) })) } : {}),
  };
}

/** A single run between two points with a sweep: what direction it leaves in and how long it is along its arc. */
export function arcBetween(start: Point, end: Point, sweep: number): { turn: number; length: number } {
  const half = (sweep * Math.PI) / 360;
  const chord = distance(start, end);
  return {
    turn: tidyAngle(directionOf(start, end) - sweep / 2),
    length: tidy(Math.abs(half) < rounding ? chord : (chord * half) / Math.sin(half)),
  };
}

/** The sweep of the arc between two points that passes a third, degrees; counter-clockwise positive, at most a half circle and a half. */
export function sweepThrough(start: Point, end: Point, through: Point): number {
  const chord = distance(start, end);
  const [ux, uy] = [(end[0] - start[0]) / chord, (end[1] - start[1]) / chord];
  const [mx, my] = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
  // To the right of the chord an arc turns counter-clockwise.
  const rise = (through[0] - mx) * uy - (through[1] - my) * ux;
  const sweep = (4 * Math.atan2(2 * Math.abs(rise), chord) * 180) / Math.PI;
  return tidy(Math.sign(rise) * Math.min(sweep, 270));
}

/** The sweep of the arc that leaves a point in a direction and ends in another. */
export function sweepLeaving(start: Point, leaves: number, end: Point): number {
  return Math.max(-330, Math.min(330, 2 * tidyAngle(directionOf(start, end) - leaves)));
}

/** A wall of one run bent to a sweep, its ends where they are. */
export function bentTo(wall: Wall, sweep: number): Wall | Impossible {
  if (wall.runs?.length)
    return { reason: 'the wall has several runs', mend: 'Bend its runs one by one in its particulars.' };
  const { start, end } = courseOf(wall);
  if (distance(start, end) < micrometre)
    return { reason: 'the wall is a ring and has no ends to hold it by', mend: 'Change its sweep in its particulars.' };
  if (wall.batter && sweep !== 0)
    return { reason: 'a wall that leans cannot be bent', mend: 'Set “Leans in by” to 0 first.' };
  return { ...wall, ...arcBetween(start, end, sweep), sweep: Math.abs(sweep) < 0.01 ? undefined : sweep };
}

/** A wall in two at a distance along it: the second one's id and name are those given. */
export function splitWall(wall: Wall, s: number, id: string, name: string): [Wall, Wall] | Impossible {
  const runs = runsOf(wall);
  const length = runs.reduce((sum, run) => sum + run.length, 0);
  if (!(s > 0.01 && s < length - 0.01))
    return { reason: 'a wall cannot be split at its very end', mend: 'Split it at least 10 mm from its ends.' };
  const share = s / length;
  const tops = splitTop(wall, share);
  const before: Run[] = [];
  const rest: Run[] = [];
  let at = 0;
  for (const run of runs) {
    const [from, to] = [at, at + run.length];
    at = to;
    if (to <= s + nanometre) before.push(run);
    else if (from >= s - nanometre) rest.push(run);
    else {
      const part = (s - from) / run.length;
      const sweep = run.sweep ?? 0;
      before.push({ ...run, length: tidy(s - from), ...(sweep ? { sweep: sweep * part } : {}) });
      rest.push({ turn: 0, length: tidy(to - s), ...(sweep ? { sweep: sweep * (1 - part) } : {}) });
    }
  }
  const { at: point, angle } = alongCourse(wall, s);
  const [first, ...others] = rest;
  const laid = (list: readonly Run[]): Pick<Wall, 'length' | 'sweep' | 'runs'> => ({
    length: list[0]!.length,
    sweep: list[0]!.sweep,
    runs: list.length > 1 ? list.slice(1) : undefined,
  });
  // At a corner between runs the second wall leaves in its own run's direction.
  const turn = tidyAngle(angle + (first!.turn ?? 0));
  const ends = wall.ends ?? { start: 'square' as const, end: 'square' as const };
  return [
    { ...wall, ...laid(before), ...tops[0], ends: { start: ends.start, end: 'square' } },
    {
      ...wall,
      id,
      name,
      start: { x: tidy(point[0]), y: tidy(point[1]), z: wall.start.z },
      turn,
      ...laid([{ ...first!, turn: 0 }, ...others]),
      ...tops[1],
      ends: { start: 'square', end: ends.end },
    },
  ];
}

/** Two walls that follow each other as one, the first one's id and build-up kept. */
export function joinedWalls(a: Wall, b: Wall): Wall | Impossible {
  const [first, second] = [courseOf(a), courseOf(b)];
  if (distance(first.end, second.start) > 0.002 || Math.abs(a.start.z - b.start.z) > micrometre)
    return {
      reason: `${b.name} does not begin where ${a.name} ends`,
      mend: 'Move its start there first, or reverse one of them.',
    };
  if (a.batter || b.batter)
    return { reason: 'walls that lean cannot be joined', mend: 'Set “Leans in by” to 0 first.' };
  if (Math.abs(thicknessOf(a) - thicknessOf(b)) > micrometre)
    return { reason: 'the two are not equally thick', mend: 'Give them the same build-up first.' };
  const crowned = joinedTop(a, lengthOf(a), b, lengthOf(b));
  if ('reason' in crowned) return crowned;
  const turn = tidyAngle(second.leaves - first.reaches);
  const [runsA, runsB] = [runsOf(a), runsOf(b)];
  const last = runsA.at(-1)!;
  const straight = Math.abs(turn) < parallel && !last.sweep && !runsB[0]!.sweep;
  const runs = straight
    ? [...runsA.slice(0, -1), { ...last, length: tidy(last.length + runsB[0]!.length) }, ...runsB.slice(1)]
    : [...runsA, { ...runsB[0]!, turn }, ...runsB.slice(1)];
  return {
    ...a,
    length: runs[0]!.length,
    sweep: runs[0]!.sweep,
    runs: runs.length > 1 ? runs.slice(1) : undefined,
    ...crowned,
    ends: { start: a.ends?.start ?? 'square', end: b.ends?.end ?? 'square' },
  };
}

const lengthOf = (wall: Wall): number => runsOf(wall).reduce((sum, run) => sum + run.length, 0);

/**
 * The runs of a wall as they are on its inner face: how long, metres, and how far after the beginning of each the point lies that is across from where the run begins on the outer face. An arc about
 * a point on the inner side is shorter there by the thickness times its angle; at a corner both runs are, by the thickness times the tangent of half the turn.
 */
function innerRuns(wall: Wall): { length: number; skipped: number; scale: number }[] {
  const thickness = thicknessOf(wall);
  const runs = runsOf(wall);
  const lost = (i: number): number =>
    i === 0 || i === runs.length ? 0 : thickness * Math.tan((runs[i]!.turn * Math.PI) / 360);
  return runs.map(({ length, sweep = 0 }, i) => {
    const arc = length - (thickness * sweep * Math.PI) / 180;
    return { length: arc - lost(i) - lost(i + 1), skipped: lost(i), scale: arc / length };
  });
}

const thicknessOf = (wall: Wall): number => wall.layers.reduce((sum, layer) => sum + layer.thickness, 0);

/** How far along the inner face of a wall the point is that lies across the thickness from s on the outer face, metres; about a corner, the nearest to it that there is. */
export function acrossTo(wall: Wall, s: number): number {
  const runs = runsOf(wall);
  const inner = innerRuns(wall);
  let [before, beforeInner] = [0, 0];
  for (const [i, run] of runs.entries()) {
    const { length, skipped, scale } = inner[i]!;
    if (s <= before + run.length || i === runs.length - 1) {
      const at = (s - before) * scale - skipped;
      // Beyond its ends the wall runs on.
      return beforeInner + Math.min(i === runs.length - 1 ? Infinity : length, Math.max(i === 0 ? -Infinity : 0, at));
    }
    before += run.length;
    beforeInner += length;
  }
  return beforeInner;
}

/** A wall with its faces changed over: it stands where it stood, and what was its inner face is its outer one. Its layers keep their order from the outer face on. */
export function reversedWall(wall: Wall): Wall | Impossible {
  const runs = runsOf(wall);
  if (runs.some(({ turn, sweep }, i) => i > 0 && Math.abs(turn) > relative && (sweep || runs[i - 1]!.sweep)))
    return {
      reason: 'a wall cannot be reversed that has a corner where an arc begins or ends',
      mend: 'Split it at that corner, then reverse each of its parts.',
    };
  if (wall.batter) return { reason: 'a wall that leans cannot be reversed', mend: 'Set “Leans in by” to 0 first.' };
  const { end, reaches } = courseOf(wall);
  const inner = innerRuns(wall);
  if (inner.some(({ length }) => length < millimetre))
    return {
      reason: 'its inner face has no length to be its outer one',
      mend: 'Give its arcs a larger radius, draw its runs longer, or make it thinner.',
    };
  const over = runs
    .map(({ sweep }, i): Run => ({
      turn: 0 - (runs[i + 1]?.turn ?? 0),
      length: tidy(inner[i]!.length),
      ...(sweep ? { sweep: -sweep } : {}),
    }))
    .reverse();
  const [cos, sin] = turned(reaches);
  const thickness = thicknessOf(wall);
  const whole = lengthOf(wall);
  const share = (at: number): number => 1 - acrossTo(wall, at * whole) / acrossTo(wall, whole);
  const crowned = reversedTop(wall, share);
  const ends = wall.ends ? { start: wall.ends.end, end: wall.ends.start } : undefined;
  return {
    ...wall,
    ...crowned,
    start: { x: tidy(end[0] - sin * thickness), y: tidy(end[1] + cos * thickness), z: wall.start.z },
    turn: tidyAngle(reaches + 180),
    length: over[0]!.length,
    sweep: over[0]!.sweep,
    runs: over.length > 1 ? over.slice(1) : undefined,
    ends,
  };
}
