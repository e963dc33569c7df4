/** Splitting the chosen element along a path that is drawn point by point. */
import { curtainOf } from '@yard-arch/core';
import { splitElement, type Keep } from '@yard-arch/edit';
import type { Press, Spot } from '../../boards/gesture.ts';
import { chooseElement } from '../../state/choice.ts';
import { commit } from '../../state/store.ts';
import { snapInPlan, type SnappedInPlan } from '../snap-plan.ts';
import type { PlanDesk } from './desk.ts';

/** Two points nearer than this are one, metres. */
const nearest = 0.01;

/** Where the next point of the path would be. */
export function partPoint(desk: PlanDesk, spot: Spot): SnappedInPlan {
  const from = desk.state.corners.at(-1) ?? null;
  return snapInPlan({ at: desk.on(spot), walls: desk.walls, from, reach: desk.reach, free: spot.free });
}

/** A click while the path is drawn; one on its last point ends it. */
export function partAt(desk: PlanDesk, press: Press): void {
  const { corners, drawn } = desk.state;
  if (drawn) return;
  // Where it was pressed, whatever was shown last.
  const { at } = partPoint(desk, press);
  const last = corners.at(-1);
  if (last && Math.hypot(at[0] - last[0], at[1] - last[1]) < Math.max(nearest, desk.reach)) return partDrawn(desk);
  desk.show({ corners: [...corners, at] });
}

/** Ends the path: what is to be kept is asked next. */
export function partDrawn(desk: PlanDesk): void {
  const { corners } = desk.state;
  if (corners.length < 2) return desk.setMode('choose');
  const path = corners.map(([x, y]) => ({ x, y }));
  if (!curtainOf({ path }))
    return void desk.make({
      reason: 'the path crosses itself, or would where it goes on straight beyond its ends',
      mend: 'Take points back with Escape and draw it otherwise.',
    });
  desk.show({ drawn: true, pointer: null });
}

/** Splits the chosen element along the path that was drawn. */
export function part(desk: PlanDesk, keep: Keep): void {
  const { document, element } = desk.now;
  const chosen = element ? document.elements[element] : undefined;
  if (!chosen) return desk.setMode('choose');
  const path = desk.state.corners.map(([x, y]) => ({ x, y }));
  const outcome = splitElement(document, chosen, { path }, keep);
  if ('reason' in outcome) return void desk.make(outcome);
  if (!commit(outcome.changeSet)) return;
  chooseElement(outcome.id ?? chosen.id);
  desk.setMode('choose');
}
