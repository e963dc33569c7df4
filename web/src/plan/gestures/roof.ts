/** Laying a roof, or opening a courtyard in one: along the ring of walls that is clicked, or an outline that is drawn corner by corner. */
import type { Point } from '@yard-arch/core';
import { isInPlan, type Wall } from '@yard-arch/document';
import { openCourt, openCourtAlong, ringOf, roofOver, roofOverWalls, wouldCross } from '@yard-arch/edit';
import type { Press, Spot } from '../../boards/gesture.ts';
import { choose, chooseElement } from '../../state/choice.ts';
import { commit } from '../../state/store.ts';
import { snapInPlan, type SnappedInPlan } from '../snap-plan.ts';
import type { Outcome, PlanDesk } from './desk.ts';

/** Two corners nearer than this are one, metres. */
const nearest = 0.01;

/** The wall of a ring that a place is on, where no outline is begun. */
function wallAt(desk: PlanDesk, target: Element | null): Wall | null {
  if (desk.state.corners.length > 0) return null;
  const id = target?.closest('[data-element]')?.getAttribute('data-element');
  const element = id ? desk.now.document.elements[id] : undefined;
  return element && isInPlan(element) ? element : null;
}

/** Where the next corner of the outline would be, or what a click there would do. */
export function roofPoint(desk: PlanDesk, spot: Spot, target: Element | null): SnappedInPlan {
  const wall = wallAt(desk, target);
  const p = desk.on(spot);
  if (wall) {
    const ring = ringOf(desk.now.document, wall);
    return {
      at: p,
      reason: ring
        ? `click to ${desk.state.mode === 'court' ? 'open a courtyard along' : 'lay a roof over'} its ring of ${ring.length} walls`
        : `${wall.name} is in no ring of walls`,
      guide: null,
    };
  }
  const { corners } = desk.state;
  const first = corners[0];
  if (first && corners.length > 2 && Math.hypot(p[0] - first[0], p[1] - first[1]) < desk.reach * 1.4)
    return { at: first, reason: 'closes the outline', guide: null };
  const snapped = snapInPlan({
    at: p,
    walls: desk.walls,
    from: corners.at(-1) ?? null,
    reach: desk.reach,
    free: spot.free,
  });
  return wouldCross(corners, snapped.at) ? { ...snapped, reason: crosses.reason } : snapped;
}

const crosses = {
  reason: 'the outline would cross itself',
  mend: 'Click where it does not, or take a corner back with Escape.',
};

/** A click while an outline is drawn. */
export function layAt(desk: PlanDesk, press: Press): void {
  const wall = wallAt(desk, press.target);
  if (wall) return ringTaken(desk, wall);
  // Where it was pressed, whatever was shown last.
  const { at } = roofPoint(desk, press, press.target);
  const { corners } = desk.state;
  const [first, last] = [corners[0], corners.at(-1)];
  if (last && Math.hypot(at[0] - last[0], at[1] - last[1]) < nearest) return;
  if (first && corners.length > 2 && Math.hypot(at[0] - first[0], at[1] - first[1]) < nearest)
    return closeOutline(desk);
  if (wouldCross(corners, at)) return void desk.make(crosses);
  desk.show({ corners: [...corners, at] });
}

/** Lays the roof over the outline that was drawn so far, or opens the courtyard along it. */
export function closeOutline(desk: PlanDesk): void {
  const { corners } = desk.state;
  const outline = corners.map(([x, y]: Point) => ({ x, y }));
  if (corners.length < 3) return desk.setMode('choose');
  if (wouldCross(corners, corners[0]!)) return void desk.make(crosses);
  const { roof } = desk;
  if (desk.state.mode === 'court') return opened(desk, roof && openCourt(roof, outline));
  take(desk, roofOver(desk.now.document, outline, levelUnder(desk)));
}

function ringTaken(desk: PlanDesk, wall: Wall): void {
  const { roof } = desk;
  if (desk.state.mode === 'court') return opened(desk, roof && openCourtAlong(desk.now.document, roof, wall));
  take(desk, roofOverWalls(desk.now.document, wall));
}

/** Done with a courtyard, unless it could not be opened. */
function opened(desk: PlanDesk, outcome: Outcome | null): void {
  if (!outcome || desk.make(outcome)) desk.setMode('choose');
}

/** The level of a roof that is drawn: that of the tallest wall's top, or a storey where there is none. */
function levelUnder({ walls }: PlanDesk): number {
  return walls.length > 0 ? Math.max(...walls.map(({ start, height }) => start.z + height)) : 3;
}

function take(desk: PlanDesk, outcome: ReturnType<typeof roofOver>): void {
  if ('reason' in outcome) return void desk.make(outcome);
  if (!commit(outcome.changeSet)) return;
  chooseElement(outcome.id);
  choose({ kind: 'wall' });
  desk.setMode('choose');
}
