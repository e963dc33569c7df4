/** Snapping: where an opening that is being placed or dragged comes into line with something, and with what. */

import type { Along, Grip, Up } from '@yard-arch/document';
import { rowOf } from './dimension.ts';
import type { Box } from './box.ts';
import { micrometre as same } from '../tolerances.ts';

/** What there is to come into line with besides other openings. Metres on the face. */
export interface Lines {
  length: number;
  height: number;
  datums: { id: string; name: string; t: number }[];
  axes: { id: string; name: string; s: number }[];
  /** Height of a course of the outer face's masonry, where it has courses. */
  course?: number | null;
  /** A length in words, for reasons that give one. */
  say?: (metres: number) => string;
}

/** What an opening is held to from then on: what it is measured from, and the part of its grip that lies there. Of the two ways only the one is told that the line goes across. */
export interface Hold {
  along?: Along;
  across?: Grip['across'];
  up?: Up;
  level?: Grip['level'];
}

/** A line that was snapped to, and why, in words to stand beside it. */
export interface Guide {
  at: number;
  reason: string;
  hold?: Hold;
}

export interface Snapped {
  s: number;
  t: number;
  /** The upright line that it came into line with, if any. */
  along: Guide | null;
  /** The level line that it came into line with, if any. */
  up: Guide | null;
}

export interface Candidate {
  shift: number;
  at: number;
  what: string;
  of: string;
  /** Lower goes first where shifts are alike. */
  rank: number;
  hold: Hold;
}

/** What a line is, whose, and which goes before others where shifts are alike. */
type About = Pick<Candidate, 'what' | 'of' | 'rank'>;

/** Takes note of a line and of what one would be held to there, if it is within reach. */
type Take = (from: number, at: number, about: About, hold: Hold) => void;

/** Lines that are near, each way by itself. */
interface Near {
  upright: Take;
  level: Take;
}

/**
 * Snaps a box, each way by itself, to whatever is nearest within reach: other openings' heads, sills, springing lines, jambs and
 * centres, datums, axes, and the face's own base, top, start, middle and end.
 * @param reach how far it may be pulled, metres.
 */
export function snap(box: Box, others: readonly Box[], lines: Lines, reach: number): Snapped {
  const up: Candidate[] = [];
  const along: Candidate[] = [];
  const into =
    (list: Candidate[]): Take =>
    (from, at, about, hold) => {
      if (Math.abs(at - from) <= reach) list.push({ shift: at - from, at, ...about, hold });
    };
  const near: Near = { upright: into(along), level: into(up) };
  ofFace(box, lines, near);
  for (const other of others) if (other.id !== box.id) ofNeighbour(box, other, near);
  piers(box, others, lines, near.upright);
  if (up.length === 0 && lines.course) ofCourses(box, lines.course, near.level);
  const [upShift, upGuide] = best(up);
  const [alongShift, alongGuide] = best(along);
  return { s: box.s + alongShift, t: box.t + upShift, along: alongGuide, up: upGuide };
}

/** The lines of a face itself: its datums and axes, its ends, base, top and middle. */
function ofFace(box: Box, { length, height, datums, axes }: Lines, { upright, level }: Near): void {
  const [left, right, sill, head] = [box.s, box.s + box.width, box.t, box.t + box.height];
  const centre = box.s + box.width / 2;
  for (const { id, name, t } of datums) {
    const hold = (part: Grip['level']): Hold => ({ up: { from: 'datum', datum: id, distance: 0 }, level: part });
    level(sill, t, { what: 'sill on datum', of: name, rank: 0 }, hold('sill'));
    level(head, t, { what: 'head on datum', of: name, rank: 1 }, hold('head'));
    if (box.springing !== null)
      level(sill + box.springing, t, { what: 'springing on datum', of: name, rank: 2 }, hold('springing'));
  }
  const [base, top]: [Hold, Hold] = [
    { up: { from: 'base', distance: 0 }, level: 'sill' },
    { up: { from: 'top', distance: 0 }, level: 'head' },
  ];
  level(sill, 0, { what: 'on the base', of: '', rank: 3 }, base);
  level(head, height, { what: 'under the top', of: '', rank: 4 }, top);
  const along = (from: Along, across: Grip['across']): Hold => ({ along: from, across });
  for (const { id, name, s } of axes) {
    const on = along({ from: 'axis', axis: id, distance: 0 }, 'centre');
    upright(centre, s, { what: 'centred on axis', of: name, rank: 0 }, on);
  }
  const [middle, start, end] = [
    along({ from: 'middle', distance: 0 }, 'centre'),
    along({ from: 'start', distance: 0 }, 'left'),
    along({ from: 'end', distance: 0 }, 'right'),
  ];
  upright(centre, length / 2, { what: 'in the middle of the wall', of: '', rank: 2 }, middle);
  upright(left, 0, { what: 'at the start of the wall', of: '', rank: 6 }, start);
  upright(right, length, { what: 'at the end of the wall', of: '', rank: 6 }, end);
}

/** The lines of another opening: its jambs and centre, its sill, springing line and head. */
function ofNeighbour(box: Box, other: Box, { upright, level }: Near): void {
  const [left, right] = [box.s, box.s + box.width];
  const [itsLeft, itsRight] = [other.s, other.s + other.width];
  const about = (what: string, rank: number): About => ({ what, of: other.mark, rank });
  const levelWith = (edge: 'sill' | 'springing' | 'head'): Hold => ({
    up: { from: 'neighbour', opening: other.id, edge, distance: 0 },
    level: edge,
  });
  level(box.t + box.height, other.t + other.height, about('head level with', 5), levelWith('head'));
  level(box.t, other.t, about('sill level with', 6), levelWith('sill'));
  if (other.springing !== null && box.springing !== null) {
    const at = other.t + other.springing;
    level(box.t + box.springing, at, about('springing level with', 7), levelWith('springing'));
  }
  const beside = (edge: 'left' | 'centre' | 'right', across: Grip['across']): Hold => ({
    along: { from: 'neighbour', opening: other.id, edge, distance: 0 },
    across,
  });
  const [centre, itsCentre] = [left + box.width / 2, itsLeft + other.width / 2];
  upright(centre, itsCentre, about('centred over', 3), beside('centre', 'centre'));
  upright(left, itsLeft, about('left jamb in line with', 4), beside('left', 'left'));
  upright(right, itsRight, about('right jamb in line with', 5), beside('right', 'right'));
  upright(left, itsRight, about('left jamb against', 7), beside('right', 'left'));
  upright(right, itsLeft, about('right jamb against', 7), beside('left', 'right'));
}

/** The courses of the face's masonry. */
function ofCourses(box: Box, course: number, level: Take): void {
  for (const [from, part] of [
    [box.t, 'sill'],
    [box.t + box.height, 'head'],
  ] as const) {
    const n = Math.round(from / course);
    const hold: Hold = { up: { from: 'course', distance: n * course }, level: part };
    if (n > 0) level(from, n * course, { what: `${part} on course`, of: String(n), rank: 8 }, hold);
  }
}

/** A point that was snapped to, and to what; `reason` is null where nothing was near. */
export interface SnappedPoint {
  s: number;
  t: number;
  reason: string | null;
}

/** Snaps a point to the nearest corner of an opening or of the face, and otherwise each way by itself to jambs, centres, heads, sills, datums and axes. */
export function snapPoint(
  { s, t }: { s: number; t: number },
  boxes: readonly Box[],
  lines: Lines,
  reach: number,
): SnappedPoint {
  const corners: { s: number; t: number; of: string }[] = [];
  for (const [x, place] of [
    [0, 'start'],
    [lines.length, 'end'],
  ] as const) {
    corners.push(
      { s: x, t: 0, of: `base of the wall’s ${place}` },
      { s: x, t: lines.height, of: `top of the wall’s ${place}` },
    );
  }
  for (const { mark, s: left, t: sill, width, height, springing } of boxes)
    for (const [x, side] of [
      [left, 'left'],
      [left + width, 'right'],
      [left + width / 2, 'middle'],
    ] as const) {
      corners.push(
        { s: x, t: sill, of: `${mark}, sill, ${side}` },
        { s: x, t: sill + height, of: `${mark}, head, ${side}` },
      );
      if (springing !== null) corners.push({ s: x, t: sill + springing, of: `${mark}, springing, ${side}` });
    }
  let best: (typeof corners)[number] | null = null;
  let near = reach;
  for (const corner of corners) {
    const far = Math.hypot(corner.s - s, corner.t - t);
    if (far <= near) [best, near] = [corner, far];
  }
  if (best) return { s: best.s, t: best.t, reason: best.of };
  const {
    s: x,
    t: y,
    along,
    up,
  } = snap({ id: '', mark: '', s, t, width: 0, height: 0, springing: null }, boxes, { ...lines, course: null }, reach);
  return { s: x, t: y, reason: [up && 'on that level', along && 'in line'].filter(Boolean).join(', ') || null };
}

/** Places at which the piers beside a box come out alike: both of its own, or one of them and the next along. */
function piers(box: Box, others: readonly Box[], { length, say }: Lines, upright: Take): void {
  const row = rowOf(
    others.filter((other) => other.id !== box.id),
    box,
  ).sort((a, b) => a.s - b.s);
  const middle = box.s + box.width / 2;
  const before = row.filter((other) => other.s + other.width / 2 < middle);
  const after = row.filter((other) => other.s + other.width / 2 >= middle);
  const [left, right] = [before.at(-1), after[0]];
  if (!left && !right) return;
  const [from, to] = [left ? left.s + left.width : 0, right ? right.s : length];
  const told = (pier: number): string => say?.(pier) ?? '';
  const between = (to - from - box.width) / 2;
  if (between > same)
    upright(
      box.s,
      from + between,
      { what: 'equal piers,', of: told(between), rank: 1 },
      {
        along: { from: 'between', left: left?.id ?? null, right: right?.id ?? null, distance: 0 },
        across: 'centre',
      },
    );
  const second = before.at(-2);
  if (left && second) {
    const pier = left.s - second.s - second.width;
    if (pier > same)
      upright(
        box.s,
        from + pier,
        { what: `pier as before ${left.mark},`, of: told(pier), rank: 2 },
        {
          along: { from: 'neighbour', opening: left.id, edge: 'right', distance: pier },
          across: 'left',
        },
      );
  }
  const last = after[1];
  if (right && last) {
    const pier = last.s - right.s - right.width;
    if (pier > same)
      upright(
        box.s + box.width,
        to - pier,
        { what: `pier as after ${right.mark},`, of: told(pier), rank: 2 },
        {
          along: { from: 'neighbour', opening: right.id, edge: 'left', distance: 0 - pier },
          across: 'right',
        },
      );
  }
}

/** The nearest candidate, with all that it agrees with named in one reason. */
export function best(candidates: readonly Candidate[]): [number, Guide | null] {
  if (candidates.length === 0) return [0, null];
  const first = candidates.reduce((a, b) => {
    const gain = Math.abs(a.shift) - Math.abs(b.shift);
    return gain > same || (Math.abs(gain) <= same && b.rank < a.rank) ? b : a;
  });
  const alike = candidates.filter((c) => Math.abs(c.shift - first.shift) <= same && c.what === first.what);
  const names = [...new Set(alike.map((c) => c.of).filter(Boolean))];
  const shown = names.slice(0, 5).join(', ') + (names.length > 5 ? ` and ${names.length - 5} more` : '');
  return [first.shift, { at: first.at, hold: first.hold, reason: [first.what, shown].filter(Boolean).join(' ') }];
}
