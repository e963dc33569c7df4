/** Snapping: where an opening that is being placed or dragged comes into line with something, and with what. */

/** An opening's bounding rectangle on the face, metres. */
export interface Box {
  id: string;
  mark: string;
  s: number;
  t: number;
  width: number;
  height: number;
  /** Height of the springing line above the sill, where there is one. */
  springing: number | null;
}

/** What there is to come into line with besides other openings. Metres on the face. */
export interface Lines {
  length: number;
  height: number;
  datums: { name: string; t: number }[];
  axes: { name: string; s: number }[];
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
  const [upShift, upGuide] = best(up);
  const [alongShift, alongGuide] = best(along);
  return { s: box.s + alongShift, t: box.t + upShift, along: alongGuide, up: upGuide };
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
