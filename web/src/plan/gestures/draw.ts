/** Drawing walls one after the other, and splitting the chosen one. */
import { typedEdge } from '../../fields/typed-edge.ts';
import { alongCourse, courseOf, sweepLeaving, tidy, type Point } from '@yard-arch/core';
import { extentOf, formatLength, type ChangeSet, type Wall } from '@yard-arch/document';
import { drawWall, faceOutward, likeOf, split } from '@yard-arch/edit';
import type { Spot, Typing } from '../../boards/gesture.ts';
import { choose, chooseElement } from '../../state/choice.ts';
import { commit } from '../../state/store.ts';
import { snapInPlan, type SnappedInPlan } from '../snap-plan.ts';
import type { Chain, PlanDesk, PlanState } from './desk.ts';

/** Two points nearer than this are one, metres. */
const leastWall = 0.01;

/** The sweep of an arc from where a chain stands to a point, degrees; a first one turns by a right angle. */
function sweepTo({ arc }: PlanState, { at, leaves }: Chain, to: Point): number {
  if (!arc) return 0;
  return Math.round((leaves === null ? 90 : sweepLeaving(at, leaves, to)) * 1e6) / 1e6;
}

/** The sweep of the wall that is being drawn. */
export const sweepOf = (state: PlanState): number =>
  state.chain && state.pointer ? sweepTo(state, state.chain, state.pointer.at) : 0;

/** Where the next point of the chain would be. */
export function nextPoint(desk: PlanDesk, spot: Spot): SnappedInPlan {
  const { chain, arc } = desk.state;
  const { reach } = desk;
  const p = desk.on(spot);
  const closing =
    chain && chain.walls.length > 1 && Math.hypot(p[0] - chain.first[0], p[1] - chain.first[1]) < reach * 1.4;
  if (closing) return { at: chain.first, reason: 'closes the ring', guide: null };
  // An arc ends anywhere; its direction follows from where it began.
  const from = arc && chain?.leaves !== null ? null : (chain?.at ?? null);
  return snapInPlan({ at: p, walls: desk.walls, from, reach, free: spot.free });
}

/** Goes on with the chain to a point. */
export function drawTo(desk: PlanDesk, to: Point): void {
  const { chain } = desk.state;
  const { document, element } = desk.now;
  if (!chain) return desk.show({ chain: { first: to, at: to, leaves: null, walls: [] } });
  if (Math.hypot(to[0] - chain.at[0], to[1] - chain.at[1]) < leastWall) return;
  const drawn = drawWall(
    document,
    { from: chain.at, to, sweep: sweepTo(desk.state, chain, to) },
    likeOf(document, element),
  );
  const made = (drawn.changeSet.changes.at(-1) as { value: Wall }).value;
  const closes = chain.walls.length > 0 && Math.hypot(to[0] - chain.first[0], to[1] - chain.first[1]) < 1e-6;
  if (!commit(closes ? closed(desk, chain, drawn.changeSet, made) : drawn.changeSet)) return;
  chooseElement(drawn.id);
  choose({ kind: 'wall' });
  desk.show({ pointer: null });
  if (closes) desk.setMode('choose');
  else desk.show({ chain: { ...chain, at: to, leaves: courseOf(made).reaches, walls: [...chain.walls, drawn.id] } });
}

/** The edit that draws the last wall of a ring: all of it is turned to face outward. */
function closed({ now: { document } }: PlanDesk, { walls }: Chain, changeSet: ChangeSet, last: Wall): ChangeSet {
  const ring = [...walls.map((id) => document.elements[id] as Wall | undefined), last];
  const outward = ring.every((wall) => wall !== undefined) ? faceOutward(ring) : [];
  return outward.length > 0
    ? { name: 'close the ring of walls, facing outward', changes: [...changeSet.changes.slice(0, -1), ...outward] }
    : { ...changeSet, name: 'close the ring of walls' };
}

/** Figures typed while drawing: how long the next wall is, and where it goes. */
export function drawTyped(desk: PlanDesk): Typing | null {
  const { mode, chain, pointer } = desk.state;
  if (mode !== 'draw' || !chain) return null;
  return {
    label: 'Length',
    hint: 'or length; direction in degrees',
    take: (text) => {
      const towards = pointer ? Math.atan2(pointer.at[1] - chain.at[1], pointer.at[0] - chain.at[0]) : 0;
      const edge = typedEdge(text, desk.now.document.units, towards);
      if (typeof edge === 'string') return edge;
      const { length, degrees } = edge;
      const angle = (degrees * Math.PI) / 180;
      drawTo(desk, [tidy(chain.at[0] + length * Math.cos(angle)), tidy(chain.at[1] + length * Math.sin(angle))]);
      return null;
    },
  };
}

/** How far along a wall a point is, at the nearest place of its face. */
function alongAt(wall: Wall, p: Point): number {
  const { length } = extentOf(wall);
  let [best, near] = [0, Infinity];
  for (let i = 0; i <= 400; i++) {
    const s = (length * i) / 400;
    const [x, y] = alongCourse(wall, s).at;
    const far = Math.hypot(x - p[0], y - p[1]);
    if (far < near) [best, near] = [s, far];
  }
  return best;
}

/** Where along the chosen wall a split would be: at its middle or apex where that is near, else at a whole centimetre. */
function splitPlace(desk: PlanDesk, wall: Wall, spot: Spot): number {
  const s = alongAt(wall, desk.on(spot));
  if (spot.free) return s;
  const { length } = extentOf(wall);
  const apex = wall.top.kind === 'gabled' ? wall.top.at * length : length / 2;
  return Math.abs(s - apex) < desk.reach * 1.5 ? apex : Math.round(s * 100) / 100;
}

/** Shows where a split would be. */
export function splitShown(desk: PlanDesk, wall: Wall, spot: Spot): void {
  const s = splitPlace(desk, wall, spot);
  const reason = `${formatLength(s, desk.now.document.units)} from the start`;
  desk.show({ pointer: { at: alongCourse(wall, s).at, reason, guide: null } });
}

/** Splits the chosen wall. */
export function splitAt(desk: PlanDesk, wall: Wall, spot: Spot): void {
  const outcome = split(desk.now.document, wall, splitPlace(desk, wall, spot));
  if ('reason' in outcome) desk.make(outcome);
  else if (commit(outcome.changeSet)) chooseElement(outcome.id);
  desk.setMode('choose');
}
