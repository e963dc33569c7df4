/** A roof's outline and its courtyards, drawn anew: corners and edges moved, put in and taken away, edges bent, courtyards opened and closed. */
import { drawnOutline, meeting, tidy, type Point } from '@yard-arch/core';
import {
  edgesOfRoof,
  omit,
  putting,
  type ChangeSet,
  type ProjectDocument,
  type Roof,
  type RoofEdge,
  type Wall,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { noRing, reversedOutline, ringOf, ringOutline, withWallsUnder, type Refused } from './roofs.ts';

/** Shorter than this no edge is left by an edit, metres. */
const shortest = 0.01;

/** A corner of a roof's outline or of a courtyard, where it is in plan; an edge begins in it. */
export interface OutlineCorner {
  edge: string;
  at: Point;
}

const directions = ({ turn }: Roof): Point => [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];

const inPlan = (roof: Roof, { x, y }: { x: number; y: number }): Point => {
  const [cos, sin] = directions(roof);
  return [roof.start.x + x * cos - y * sin, roof.start.y + x * sin + y * cos];
};

const onRoof = (roof: Roof, [px, py]: Point): { x: number; y: number } => {
  const [cos, sin] = directions(roof);
  const [x, y] = [px - roof.start.x, py - roof.start.y];
  return { x: tidy(x * cos + y * sin), y: tidy(y * cos - x * sin) };
};

/** Every corner of a roof's outline and of its courtyards. */
export const outlineCorners = (roof: Roof): OutlineCorner[] =>
  edgesOfRoof(roof).map((edge) => ({ edge: edge.id, at: inPlan(roof, edge) }));

/** The round that an edge is in, and which of it it is. */
function roundOf(roof: Roof, id: string): { round: readonly RoofEdge[]; i: number } {
  for (const round of [roof.edges, ...(roof.courts ?? [])]) {
    const i = round.findIndex((edge) => edge.id === id);
    if (i >= 0) return { round, i };
  }
  throw new RangeError(`${roof.name} has no edge ${id}`);
}

const at = <T>(round: readonly T[], i: number): T => round[(i + round.length) % round.length]!;

/** A roof with one of its rounds replaced; none is a courtyard closed. */
function withRound(roof: Roof, before: readonly RoofEdge[], after: RoofEdge[] | null): Roof {
  if (before === roof.edges) return { ...roof, edges: after ?? roof.edges };
  const courts = (roof.courts ?? []).flatMap((court) => (court !== before ? [court] : after ? [after] : []));
  return courts.length > 0 ? { ...roof, courts } : omit(roof, 'courts');
}

/** The edit, unless the outline that comes of it is none. */
function settled(roof: Roof, what: string): ChangeSet | Refused {
  const { fault } = drawnOutline(roof);
  return fault ? { reason: fault.reason, mend: fault.mend } : edit(`${what} ${roof.name}`, putting('elements', roof));
}

/** Moves the corner in which an edge begins. @param to in plan, metres */
export function moveOutlineCorner(roof: Roof, id: string, to: Point): ChangeSet | Refused {
  const { round, i } = roundOf(roof, id);
  const moved = round.map((edge, k) => (k === i ? { ...edge, ...onRoof(roof, to) } : edge));
  const short = [at(moved, i - 1), at(moved, i)].some((edge, k) => {
    const next = at(moved, i + k);
    return Math.hypot(next.x - edge.x, next.y - edge.y) < shortest;
  });
  return short ? tooShort : settled(withRound(roof, round, moved), 'move a corner of');
}

const tooShort: Refused = {
  reason: 'one of its edges would have nothing left',
  mend: 'Move it less far, or take the corner away.',
};

/** Moves an edge out of the outline by so much (metres, in where it is less than nothing); those beside it keep their directions. */
export function moveOutlineEdge(roof: Roof, id: string, by: number): ChangeSet | Refused {
  const { round, i } = roundOf(roof, id);
  const way = (k: number): Point => {
    const [a, b] = [at(round, k), at(round, k + 1)];
    const size = Math.hypot(b.x - a.x, b.y - a.y);
    return [(b.x - a.x) / size, (b.y - a.y) / size];
  };
  const [dx, dy] = way(i);
  const right = rightIsOut(roof, round) * by;
  /** How far an end goes along the edge that it is in as well, for each metre outward. */
  const along = (k: number, corner: RoofEdge): { x: number; y: number } => {
    const [ex, ey] = at(round, k).bulge ? [dy, -dx] : way(k);
    const rate = ex * dy - ey * dx;
    const [wx, wy] = Math.abs(rate) < 0.02 ? [dy, -dx] : [ex / rate, ey / rate];
    return { x: tidy(corner.x + wx * right), y: tidy(corner.y + wy * right) };
  };
  const moved = round.map((edge, k) => {
    if (k === i) return { ...edge, ...along(i - 1, edge) };
    return k === (i + 1) % round.length ? { ...edge, ...along(i + 1, edge) } : edge;
  });
  const turned = [i - 1, i, i + 1].some((k) => {
    const [a, b, [wx, wy]] = [at(moved, k), at(moved, k + 1), way(k)];
    return (b.x - a.x) * wx + (b.y - a.y) * wy < shortest;
  });
  return turned ? tooShort : settled(withRound(roof, round, moved), 'move an edge of');
}

/** How long an edge is drawn, metres; along its chord where it is an arc. */
export function outlineLength(roof: Roof, id: string): number {
  const { round, i } = roundOf(roof, id);
  const [a, b] = [at(round, i), at(round, i + 1)];
  return Math.hypot(b.x - a.x, b.y - a.y);
}

/** Makes an edge so long (metres): the one that goes on from it moves, and keeps its direction. */
export function lengthenOutlineEdge(roof: Roof, id: string, length: number): ChangeSet | Refused {
  const { round, i } = roundOf(roof, id);
  const [a, b, c] = [at(round, i), at(round, i + 1), at(round, i + 2)];
  const now = Math.hypot(b.x - a.x, b.y - a.y);
  const [dx, dy] = [(b.x - a.x) / now, (b.y - a.y) / now];
  const size = Math.hypot(c.x - b.x, c.y - b.y);
  const out = (dx * (c.y - b.y) - dy * (c.x - b.x)) / size;
  // One that goes straight on cannot be moved so: the corner between them is.
  if (Math.abs(out) < 0.02 || b.bulge)
    return moveOutlineCorner(roof, b.id, inPlan(roof, { x: a.x + dx * length, y: a.y + dy * length }));
  return moveOutlineEdge(roof, b.id, rightIsOut(roof, round) * (length - now) * out);
}

/** By how many degrees an edge turns from its beginning to its end: outward where it is more than nothing. */
export function outlineSweep(roof: Roof, id: string): number {
  const { round, i } = roundOf(roof, id);
  return tidy((rightIsOut(roof, round) * 4 * Math.atan(at(round, i).bulge ?? 0) * 180) / Math.PI);
}

/** Whether what is on the right of a round's edges is out of the roof (1), or in it (−1). */
const rightIsOut = (roof: Roof, round: readonly RoofEdge[]): 1 | -1 =>
  areaOf(round) < 0 === (round === roof.edges) ? -1 : 1;

const areaOf = (round: readonly { x: number; y: number }[]): number =>
  round.reduce((sum, a, i) => sum + a.x * at(round, i + 1).y - at(round, i + 1).x * a.y, 0) / 2;

/** Bends an edge to an arc that turns by so many degrees, outward where they are more than nothing; nothing makes it straight. */
export function bendOutlineEdge(roof: Roof, id: string, degrees: number): ChangeSet | Refused {
  if (Math.abs(degrees) > 270)
    return { reason: 'an edge turns by no more than 270°', mend: 'Make two edges of it, each of which bends less.' };
  const { round, i } = roundOf(roof, id);
  const bulge = tidy(rightIsOut(roof, round) * Math.tan((degrees * Math.PI) / 720));
  const bent = round.map((edge, k) => {
    if (k !== i) return edge;
    return Math.abs(degrees) < 1e-9 ? omit(edge, 'bulge', 'facets') : { ...edge, bulge };
  });
  return settled(withRound(roof, round, bent as RoofEdge[]), 'bend an edge of');
}

/** A name for an edge that no other of the roof has. */
function freeEdge(roof: Roof, more = 0): string {
  const taken = edgesOfRoof(roof).map(({ id }) => Number(/^e(\d+)$/.exec(id)?.[1] ?? 0));
  return `e${Math.max(0, ...taken) + 1 + more}`;
}

/** Puts a corner into the middle of an edge; what is on its plane stays on the first half. */
export function addOutlineCorner(roof: Roof, id: string): ChangeSet | Refused {
  const { round, i } = roundOf(roof, id);
  const [edge, to] = [at(round, i), at(round, i + 1)];
  const { bulge = 0 } = edge;
  const [cx, cy] = [(edge.x + to.x) / 2, (edge.y + to.y) / 2];
  const [hx, hy] = [(to.x - edge.x) / 2, (to.y - edge.y) / 2];
  // The arc's rise over half its chord is its bulge, to the right of the way.
  const middle = { x: tidy(cx + hy * bulge), y: tidy(cy - hx * bulge) };
  const half = bulge ? { bulge: tidy(Math.tan(Math.atan(bulge) / 2)) } : {};
  const facets = edge.facets ? { facets: Math.max(1, Math.ceil(edge.facets / 2)) } : {};
  const first: RoofEdge = { ...edge, ...half, ...facets };
  const split = [...round.slice(0, i), first, { ...first, ...middle, id: freeEdge(roof) }, ...round.slice(i + 1)];
  return settled(withRound(roof, round, split), 'add a corner to');
}

/** Takes away the corner in which an edge begins, and with it the edge: the one before it goes on to where that ended. */
export function removeOutlineCorner(roof: Roof, id: string): ChangeSet | Refused {
  const { round, i } = roundOf(roof, id);
  if (round.length < 4)
    return {
      reason: 'an outline has three corners at least',
      mend:
        round === roof.edges ? 'Remove the roof, or move its corners.' : 'Close the courtyard, or move its corners.',
    };
  const fewer = round.filter((_, k) => k !== i);
  return settled(withRound(roof, round, fewer), 'take a corner from');
}

/** Whether an edge bounds a courtyard, and not the roof itself. */
export const isCourts = (roof: Roof, id: string): boolean => roundOf(roof, id).round !== roof.edges;

/** The edge before one, which leads to the corner in which that begins. */
export function edgeBefore(roof: Roof, id: string): RoofEdge {
  const { round, i } = roundOf(roof, id);
  return at(round, i - 1);
}

/** The corner in which an edge begins, between those before and after it, in plan. */
export function cornersAbout(roof: Roof, id: string): [Point, Point, Point] {
  const { round, i } = roundOf(roof, id);
  return [inPlan(roof, at(round, i - 1)), inPlan(roof, at(round, i)), inPlan(roof, at(round, i + 1))];
}

/** Which way an edge looks out of the roof, in plan; of unit length. */
export function outOf(roof: Roof, id: string): Point {
  const [, a, b] = cornersAbout(roof, id);
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]) * rightIsOut(roof, roundOf(roof, id).round);
  return [(b[1] - a[1]) / size, (a[0] - b[0]) / size];
}

/** Closes the courtyard that an edge bounds. */
export function closeCourt(roof: Roof, id: string): ChangeSet {
  const { round } = roundOf(roof, id);
  return edit(`close a courtyard of ${roof.name}`, putting('elements', withRound(roof, round, null)));
}

/** Opens a courtyard in a roof, whose edges are eaves like those that it has. @param outline in plan, metres */
export function openCourt(
  roof: Roof,
  outline: readonly { x: number; y: number; bulge?: number }[],
): ChangeSet | Refused {
  if (outline.length < 2) return { reason: 'a courtyard encloses something', mend: 'Draw at least three corners.' };
  const like = edgesOfRoof(roof).find((edge) => edge.is === 'eaves' && edge.pitch > 0);
  const { pitch, over } = like?.is === 'eaves' ? like : { pitch: 40, over: 0.35 };
  const clockwise = areaOf(outline) > 0 ? reversedOutline(outline) : outline;
  const court = clockwise.map(({ x, y, bulge }, i): RoofEdge => ({
    id: freeEdge(roof, i),
    ...onRoof(roof, [x, y]),
    ...(bulge ? { bulge } : {}),
    is: 'eaves',
    pitch,
    over,
  }));
  return settled({ ...roof, courts: [...(roof.courts ?? []), court] }, 'open a courtyard in');
}

/** Opens a courtyard along the ring of walls that a wall is in; they reach up under the roof. */
export function openCourtAlong(document: ProjectDocument, roof: Roof, wall: Wall): ChangeSet | Refused {
  const ring = ringOf(document, wall);
  if (!ring) return noRing(wall, ', or draw the outline of the courtyard');
  const opened = openCourt(roof, ringOutline(ring));
  return 'reason' in opened ? opened : withWallsUnder(opened, roof.id, ring);
}

/** Where the edge from the last of some corners to another point would cross those before it; null where it does not. */
export function wouldCross(corners: readonly Point[], to: Point): Point | null {
  const from = corners.at(-1);
  if (!from) return null;
  const closes = corners[0]![0] === to[0] && corners[0]![1] === to[1];
  for (let i = closes ? 1 : 0; i + 2 < corners.length; i++) {
    const met = meeting(corners[i]!, corners[i + 1]!, from, to);
    if (met) return met;
  }
  return null;
}
