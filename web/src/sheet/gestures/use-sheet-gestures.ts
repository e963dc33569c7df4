/** What the pointer does on the sheet: choosing, windows, dragging openings and lines, drawing out by handles, placing, measuring, panning. */
import type { Box, BoxSide } from '@yard-arch/core';
import { isInPlan } from '@yard-arch/document';
import { openingsOf, wallHandles, withinOf } from '@yard-arch/edit';
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import type { Gesture, Press, Spot } from '../../boards/gesture.ts';
import { panning } from '../../boards/pan.ts';
import { useGestures, type Gestures } from '../../boards/use-gestures.ts';
import type { Viewport } from '../../boards/viewport.ts';
import { choose, chooseOpening } from '../../state/choice.ts';
import { chosenIds, useEditor } from '../../state/state.ts';
import type { SheetDesk } from './desk.ts';
import { drawingSide, drawingWall } from './drawn-out.ts';
import { dragging, draggingLine } from './move.ts';
import { choosing, placing, placingTyped, pointAt, tapeLaid } from './place.ts';

/** How far beyond the sheet's edges openings are drawn, pixels, so that it can be panned a little without drawing anew. */
export const spare = 300;

/** Whether the space bar is held, by which any drag pans. */
function useSpace(): RefObject<boolean> {
  const held = useRef(false);
  useEffect(() => {
    const key = (event: KeyboardEvent): void => {
      if (event.key === ' ') held.current = event.type === 'keydown';
    };
    window.addEventListener('keydown', key);
    window.addEventListener('keyup', key);
    return () => {
      window.removeEventListener('keydown', key);
      window.removeEventListener('keyup', key);
    };
  }, []);
  return held;
}

/** Pans by shifting all that is drawn, and draws it anew at the end, or when it has gone far. */
function usePan(desk: SheetDesk, board: RefObject<SVGGElement | null>): (press: Press) => Gesture {
  const { view } = desk.now;
  const drawn = useRef(view);
  const going = useRef<Viewport | null>(null);
  const shift = (to: Viewport): void =>
    board.current?.setAttribute('transform', `translate(${to.x - drawn.current.x} ${to.y - drawn.current.y})`);
  const layDown = (now: Viewport): void => {
    drawn.current = now;
    // Drawn anew in the middle of a pan it may have been left behind by then.
    if (going.current) shift(going.current);
    else board.current?.removeAttribute('transform');
  };
  useLayoutEffect(() => layDown(desk.now.view));
  return (press) =>
    panning(desk.now.view, press, {
      to: (to) => {
        going.current = to;
        if (!desk.over.panning) desk.show({ panning: true });
        shift(to);
        // What lies far out of sight has not been drawn.
        if (Math.hypot(to.x - drawn.current.x, to.y - drawn.current.y) > spare * 0.8) desk.now.setView(to);
      },
      done: (to) => {
        going.current = null;
        desk.now.setView(to);
      },
    });
}

export function useSheetGestures(desk: SheetDesk, board: RefObject<SVGGElement | null>): Gestures<void> {
  const space = useSpace();
  const pan = usePan(desk, board);
  return useGestures({
    press: (press) => (press.middle || space.current || useEditor.getState().sliding ? pan(press) : begun(desk, press)),
    hover: (spot) => hovered(desk, spot),
    typing: () => placingTyped(desk),
    onGoing: (going) => {
      if (!going) desk.show({ dragged: null, area: null, panning: false });
    },
  });
}

/** What follows the pointer while nothing is held. */
function hovered(desk: SheetDesk, spot: Spot): void {
  const { placing: next, taping } = useEditor.getState();
  if (next) return desk.show({ ghost: desk.ghostAt(desk.on(spot), spot.free) });
  const { tape } = desk.over;
  if (taping && tape && !tape.laid) desk.show({ tape: { ...tape, to: pointAt(desk, spot) } });
}

/** What a press begins. */
function begun(desk: SheetDesk, press: Press): Gesture | null {
  const { placing: next, taping } = useEditor.getState();
  if (taping) {
    tapeLaid(desk, press);
    return null;
  }
  if (next) return placing(desk, press);
  const handle = press.target.closest('[data-handle]')?.getAttribute('data-handle');
  if (handle) return drawnByHandle(desk, handle);
  const line = desk.now.lineAt(press.target);
  if (line) {
    choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
    return draggingLine(desk, press, line);
  }
  const box = boxUnder(desk, press);
  return box ? pressed(desk, press, box) : choosing(desk, press);
}

/** The opening that a press is on. A crowd is one figure: which of it is meant is told by the place. */
function boxUnder(desk: SheetDesk, press: Press): Box | undefined {
  const { boxes } = desk.now.shown;
  const own = press.target.closest('[data-opening]')?.getAttribute('data-opening');
  if (own) return boxes.find(({ id }) => id === own);
  if (!press.target.closest('[data-crowd]')) return undefined;
  const { s, t } = desk.on(press);
  return boxes.find((box) => box.s <= s && s <= box.s + box.width && box.t <= t && t <= box.t + box.height);
}

/** An opening that was pressed is chosen; one of several that are chosen takes the others with it, and a plain click chooses it alone. */
function pressed(desk: SheetDesk, press: Press, box: Box): Gesture | null {
  if (press.shift) {
    chooseOpening(box.id, true);
    return null;
  }
  const before = chosenIds(useEditor.getState().chosen);
  const several = before.includes(box.id) && before.length > 1;
  if (!several) chooseOpening(box.id);
  const ids = several ? before : [box.id];
  return dragging(desk, press, {
    box,
    openings: openingsOf(desk.now.committed, ids),
    others: desk.now.shown.boxes.filter(({ id }) => !ids.includes(id)),
    copy: press.control,
  });
}

/** A handle of the chosen opening, or of the wall. */
function drawnByHandle(desk: SheetDesk, name: string): Gesture | null {
  const { committed, element, face, shown } = desk.now;
  const [only] = chosenIds(useEditor.getState().chosen);
  const opening = only ? committed.openings[only] : undefined;
  const box = shown.boxes.find(({ id }) => id === only);
  if (opening && box) return drawingSide(desk, opening, box, name as BoxSide);
  if (!isInPlan(element)) return null;
  const handle = wallHandles(element, withinOf(committed, element, face)).find(({ kind }) => kind === name);
  return handle ? drawingWall(desk, element, handle) : null;
}
