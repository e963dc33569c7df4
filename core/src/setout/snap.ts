/** Snapping: where an opening that is being placed or dragged comes into line with something, and with what. */

import type { TextureName } from '@yard-arch/document';
import { rowOf } from './dimension.ts';
import type { Box } from './box.ts';

/** What there is to come into line with besides other openings. Metres on the face. */
export interface Lines {
  length: number;
  height: number;
  datums: { name: string; t: number }[];
  axes: { name: string; s: number }[];
  /** Height of a course of the outer face's masonry, where it has courses. */
  course?: number | null;
  /** A length in words, for reasons that give one. */
  say?: (metres: number) => string;
}

/** Height of a course of a material's texture, metres; null where it has none that openings are set out by. */
export function courseHeightOf(texture: TextureName | undefined): number | null {
  return texture === 'stretcher bond' || texture === 'english bond' ? 0.075 : texture === 'ashlar' ? 0.3 : null;
}

/** A line that was snapped to, and why, in words to stand beside it. */
export interface Guide {
  at: number;
  reason: string;
}

export interface Snapped {
  s: number;
  t: number;
  /** The upright line that it came into line with, if any. */
  along: Guide | null;
  /** The level line that it came into line with, if any. */
  up: Guide | null;
}

interface Candidate {
  shift: number;
  at: number;
  what: string;
  of: string;
  /** Lower goes first where shifts are alike. */
  rank: number;
}

/** Nearer than this two lines are the same line, metres. */
const same = 1e-6;

/**
 * Snaps a box, each way by itself, to whatever is nearest within reach: other openings' heads, sills, springing lines, jambs and
 * centres, datums, axes, and the face's own base, top, start, middle and end.
 * @param reach how far it may be pulled, metres.
 */
export function snap(box: Box, others: readonly Box[], lines: Lines, reach: number): Snapped {
  const up: Candidate[] = [];
  const along: Candidate[] = [];
  const own = {
    sill: box.t,
    head: box.t + box.height,
    springing: box.springing === null ? null : box.t + box.springing,
  };
  const level = (from: number | null, at: number, what: string, of: string, rank: number): void => {
    if (from !== null && Math.abs(at - from) <= reach) up.push({ shift: at - from, at, what, of, rank });
  };
  const upright = (from: number, at: number, what: string, of: string, rank: number): void => {
    if (Math.abs(at - from) <= reach) along.push({ shift: at - from, at, what, of, rank });
  };

  for (const datum of lines.datums) {
    level(own.sill, datum.t, 'sill on datum', datum.name, 0);
    level(own.head, datum.t, 'head on datum', datum.name, 1);
    level(own.springing, datum.t, 'springing on datum', datum.name, 2);
  }
  level(own.sill, 0, 'on the base', '', 3);
  level(own.head, lines.height, 'under the top', '', 4);
  const centre = box.s + box.width / 2;
  for (const axis of lines.axes) upright(centre, axis.s, 'centred on axis', axis.name, 0);
  upright(centre, lines.length / 2, 'in the middle of the wall', '', 2);
  upright(box.s, 0, 'at the start of the wall', '', 6);
  upright(box.s + box.width, lines.length, 'at the end of the wall', '', 6);
  for (const other of others) {
    if (other.id === box.id) continue;
    level(own.head, other.t + other.height, 'head level with', other.mark, 5);
    level(own.sill, other.t, 'sill level with', other.mark, 6);
    if (other.springing !== null) level(own.springing, other.t + other.springing, 'springing level with', other.mark, 7);
    upright(centre, other.s + other.width / 2, 'centred over', other.mark, 3);
    upright(box.s, other.s, 'left jamb in line with', other.mark, 4);
    upright(box.s + box.width, other.s + other.width, 'right jamb in line with', other.mark, 5);
    upright(box.s, other.s + other.width, 'left jamb against', other.mark, 7);
    upright(box.s + box.width, other.s, 'right jamb against', other.mark, 7);
  }
  piers(box, others, lines, upright);
  if (up.length === 0 && lines.course) {
    const course = lines.course;
    for (const [from, what] of [[own.sill, 'sill on course'], [own.head, 'head on course']] as const) {
      const n = Math.round(from / course);
      if (n > 0) level(from, n * course, what, String(n), 8);
    }
  }
  const [upShift, upGuide] = best(up);
  const [alongShift, alongGuide] = best(along);
  return { s: box.s + alongShift, t: box.t + upShift, along: alongGuide, up: upGuide };
}

/** A point that was snapped to, and to what; `reason` is null where nothing was near. */
export interface SnappedPoint {
  s: number;
  t: number;
  reason: string | null;
}

/** Snaps a point to the nearest corner of an opening or of the face, and otherwise each way by itself to jambs, centres, heads, sills, datums and axes. */
export function snapPoint(s: number, t: number, boxes: readonly Box[], lines: Lines, reach: number): SnappedPoint {
  const corners: { s: number; t: number; of: string }[] = [];
  for (const [x, place] of [[0, 'start'], [lines.length, 'end']] as const) {
    corners.push({ s: x, t: 0, of: `base of the wall’s ${place}` }, { s: x, t: lines.height, of: `top of the wall’s ${place}` });
  }
  for (const { mark, s: left, t: sill, width, height, springing } of boxes)
    for (const [x, side] of [[left, 'left'], [left + width, 'right'], [left + width / 2, 'middle']] as const) {
      corners.push({ s: x, t: sill, of: `${mark}, sill, ${side}` }, { s: x, t: sill + height, of: `${mark}, head, ${side}` });
      if (springing !== null) corners.push({ s: x, t: sill + springing, of: `${mark}, springing, ${side}` });
    }
  let best: (typeof corners)[number] | null = null;
  let near = reach;
  for (const corner of corners) {
    const far = Math.hypot(corner.s - s, corner.t - t);
    if (far <= near) [best, near] = [corner, far];
  }
  if (best) return { s: best.s, t: best.t, reason: best.of };
  const { s: x, t: y, along, up } = snap({ id: '', mark: '', s, t, width: 0, height: 0, springing: null }, boxes, { ...lines, course: null }, reach);
  return { s: x, t: y, reason: [up && 'on that level', along && 'in line'].filter(Boolean).join(', ') || null };
}

/** Places at which the piers beside a box come out alike: both of its own, or one of them and the next along. */
function piers(box: Box, others: readonly Box[], { length, say }: Lines, upright: (from: number, at: number, what: string, of: string, rank: number) => void): void {
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
  if (between > same) upright(box.s, from + between, 'equal piers,', told(between), 1);
  const second = before.at(-2);
  if (left && second) {
    const pier = left.s - second.s - second.width;
    if (pier > same) upright(box.s, from + pier, `pier as before ${left.mark},`, told(pier), 2);
  }
  const last = after[1];
  if (right && last) {
    const pier = last.s - right.s - right.width;
    if (pier > same) upright(box.s + box.width, to - pier, `pier as after ${right.mark},`, told(pier), 2);
  }
}

/** The nearest candidate, with all that it agrees with named in one reason. */
function best(candidates: readonly Candidate[]): [number, Guide | null] {
  if (candidates.length === 0) return [0, null];
  const first = candidates.reduce((a, b) => {
    const gain = Math.abs(a.shift) - Math.abs(b.shift);
    return gain > same || (Math.abs(gain) <= same && b.rank < a.rank) ? b : a;
  });
  const alike = candidates.filter((c) => Math.abs(c.shift - first.shift) <= same && c.what === first.what);
  const names = [...new Set(alike.map((c) => c.of).filter(Boolean))];
  const shown = names.slice(0, 5).join(', ') + (names.length > 5 ? ` and ${names.length - 5} more` : '');
  return [first.shift, { at: first.at, reason: [first.what, shown].filter(Boolean).join(' ') }];
}
