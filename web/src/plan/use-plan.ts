/** What the pointer and keys do on the plan. */
import { isManyFaced, type Roof } from '@yard-arch/document';
import {
  join,
  moveElements,
  moveOutlineCorner,
  outlineCorners,
  type OutlineCorner,
  removeElement,
  removeOutlineCorner,
  reverse,
} from '@yard-arch/edit';
import type { Gesture, Press, Spot } from '../boards/gesture.ts';
import { panning } from '../boards/pan.ts';
import { useGestures, type Gestures } from '../boards/use-gestures.ts';
import { arrowOf } from '../common/keys.ts';
import { useKeys } from '../commands/use-keys.ts';
import { choose, chooseElement, turnOver } from '../state/choice.ts';
import { commit, preview } from '../state/store.ts';
import { isOutlining, useDesk, type PlanDesk, type PlanNow, type PlanState } from './gestures/desk.ts';
import { drawTo, drawTyped, nextPoint, splitAt, splitShown } from './gestures/draw.ts';
import { partAt, partDrawn, partPoint } from './gestures/part.ts';
import { closeOutline, layAt, roofPoint } from './gestures/roof.ts';
import { bending, moving, movingEnd } from './gestures/move.ts';
import { movingCorner, movingEdge } from './gestures/roof-outline.ts';

/** Steps of the arrow keys, metres: alone, with Shift, with Alt. */
const steps = [0.1, 1, 0.01] as const;

/** The plan as it is worked on. */
export interface PlanWork {
  desk: PlanDesk;
  state: PlanState;
  gestures: Gestures<void>;
  joinOn: () => void;
  turnOver: () => void;
}

export function usePlan(now: PlanNow): PlanWork {
  const { desk, state } = useDesk(now);
  const gestures = useGestures({
    press: (press) => begun(desk, press),
    hover: (spot) => hovered(desk, spot),
    typing: () => drawTyped(desk),
    onGoing: (going) => {
      if (going) return;
      desk.show({ dragging: false, told: null, ...(desk.state.mode === 'draw' ? {} : { pointer: null }) });
    },
  });
  usePlanKeys(desk);
  const withWall = (act: (wall: NonNullable<PlanDesk['wall']>) => Parameters<PlanDesk['make']>[0]) => (): void => {
    if (desk.wall) desk.make(act(desk.wall));
  };
  return {
    desk,
    state,
    gestures,
    joinOn: withWall((wall) => join(desk.now.document, wall)),
    turnOver: withWall((wall) => reverse(desk.now.document, wall)),
  };
}

function usePlanKeys(desk: PlanDesk): void {
  useKeys(
    {
      giveUp: () => {
        const { mode, chain } = desk.state;
        preview(null);
        if ((isOutlining(mode) || mode === 'part') && desk.state.corners.length > 0)
          desk.show(desk.state.drawn ? { drawn: false } : { corners: desk.state.corners.slice(0, -1) });
        else if (mode === 'draw' && chain) desk.show({ chain: null, pointer: null });
        else desk.setMode('choose');
      },
      draw: () => desk.setMode(desk.state.mode === 'draw' ? 'choose' : 'draw'),
      drawArc: () => desk.state.mode === 'draw' && (desk.show({ arc: !desk.state.arc }), true),
      drawDone: () =>
        (desk.state.mode === 'draw' && (desk.setMode('choose'), true)) ||
        (isOutlining(desk.state.mode) && (closeOutline(desk), true)) ||
        (desk.state.mode === 'part' && !desk.state.drawn && (partDrawn(desk), true)),
      moveWall: (event) => {
        const { document, element } = desk.now;
        const chosen = element && document.elements[element];
        if (!chosen) return false;
        const by = arrowOf(event, steps);
        const corner = cornerInHand(desk);
        desk.make(
          corner
            ? moveOutlineCorner(corner.roof, corner.edge, [corner.at[0] + by[0], corner.at[1] + by[1]])
            : moveElements(document, [chosen], ...by),
        );
        return true;
      },
      wholePlan: () => desk.now.setView(null),
      removeWall: () => {
        const { document, element } = desk.now;
        const chosen = element && document.elements[element];
        if (!chosen) return false;
        const corner = cornerInHand(desk);
        if (corner) desk.make(removeOutlineCorner(corner.roof, corner.edge));
        else commit(removeElement(document, chosen));
        return true;
      },
    },
    desk.now.svg,
  );
}

/** The corner of the chosen roof's outline that has the focus. */
function cornerInHand({ now: { document, element, svg } }: PlanDesk): (OutlineCorner & { roof: Roof }) | null {
  const focused = globalThis.document.activeElement;
  const roof = document.elements[element ?? ''];
  if (!roof || !isManyFaced(roof) || !focused || !svg.current?.contains(focused)) return null;
  const edge = focused.getAttribute('data-corner');
  const corner = outlineCorners(roof).find((one) => one.edge === edge);
  return corner ? { ...corner, roof } : null;
}

/** What follows the pointer while nothing is held. */
function hovered(desk: PlanDesk, spot: Spot): void {
  const { mode } = desk.state;
  if (mode === 'draw') desk.show({ pointer: nextPoint(desk, spot) });
  else if (isOutlining(mode)) desk.show({ pointer: roofPoint(desk, spot, document.elementFromPoint(spot.x, spot.y)) });
  else if (mode === 'part' && !desk.state.drawn) desk.show({ pointer: partPoint(desk, spot) });
  else if (mode === 'split' && desk.wall) splitShown(desk, desk.wall, spot);
}

/** What a press begins. */
function begun(desk: PlanDesk, press: Press): Gesture | null {
  const { view, setView, document } = desk.now;
  const { mode } = desk.state;
  const { wall } = desk;
  // Whatever is drawn from now on, the plan stays where it is.
  setView(view);
  const pan = (): Gesture => panning(view, press, { to: setView, click: () => choose({ kind: 'wall' }) });
  if (press.middle) return pan();
  if (mode === 'draw') {
    // Where it was pressed, whatever was shown last.
    drawTo(desk, nextPoint(desk, press).at);
    return null;
  }
  if (isOutlining(mode)) {
    layAt(desk, press);
    return null;
  }
  if (mode === 'part') {
    partAt(desk, press);
    return null;
  }
  if (mode === 'split' && wall) {
    splitAt(desk, wall, press);
    return null;
  }
  const grip = press.target.closest('[data-grip]')?.getAttribute('data-grip');
  if (wall && (grip === 'start' || grip === 'end')) return movingEnd(desk, wall, grip);
  if (wall && grip === 'bend') return bending(desk, wall);
  const corner = press.target.closest('[data-corner]')?.getAttribute('data-corner');
  const { roof } = desk;
  if (roof && corner) return movingCorner(desk, roof, corner);
  const id = press.target.closest('[data-element]')?.getAttribute('data-element');
  if (!id || !document.elements[id]) return pan();
  const at = (of: string): string | null => press.target.closest(`[data-${of}]`)?.getAttribute(`data-${of}`) ?? null;
  chooseElement(id);
  const [edge, face] = [at('edge'), at('face')];
  choose(edge ? { kind: 'edge', id: edge } : { kind: 'wall' });
  if (face) turnOver(id, face);
  // Of a roof that was chosen before an edge is dragged, of another the whole.
  if (roof?.id === id && edge) return movingEdge(desk, roof, edge, press);
  return moving(desk, press, id);
}
