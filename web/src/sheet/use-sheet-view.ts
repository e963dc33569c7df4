/** How the sheet is looked at: the whole face until one zooms or pans, another wall whole again. */
import { useCallback, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { useRoom, useWheel, type Room } from '../boards/use-board.ts';
import { fit, zoom, type Viewport } from '../boards/viewport.ts';

/** Where nothing is drawn yet, for it is not known how much room there is. */
const nowhere: Viewport = { x: 0, y: 0, scale: 1 };

interface Shown {
  frame: RefObject<HTMLDivElement | null>;
  svg: RefObject<SVGSVGElement | null>;
  /** Of which face. */
  subject: string;
  length: number;
  tall: number;
}

export interface SheetView {
  view: Viewport;
  room: Room;
  /** Whether it is known how much room there is. */
  ready: boolean;
  showWhole: () => void;
  /** Pans; null shows the whole face. */
  pan: (view: Viewport | null) => void;
  nearer: (factor: number) => void;
  /** Keeps the drawing where it is while it is drawn on: else the whole would be fitted anew while it grows. */
  hold: (held: boolean) => void;
}

export function useSheetView({ frame, svg, subject, length, tall }: Shown, panning: RefObject<boolean>): SheetView {
  const room = useRoom(frame);
  const [view, setView] = useState(nowhere);
  const [own, setOwn] = useState(false);
  const wasWhole = useRef(true);
  const showWhole = useCallback(() => {
    setOwn(false);
    if (room.width > 0) setView(fit(room.width, room.height, length, tall));
  }, [room, length, tall]);
  useLayoutEffect(() => setOwn(false), [subject]);
  useLayoutEffect(() => {
    if (!own) showWhole();
  }, [own, showWhole]);
  useWheel(svg, (factor, x, y) => {
    if (panning.current) return;
    setOwn(true);
    setView((before) => zoom(before, factor, x, y));
  });
  const pan = (next: Viewport | null): void => {
    if (!next) return showWhole();
    setOwn(true);
    setView(next);
  };
  return {
    view,
    room,
    ready: view !== nowhere,
    showWhole,
    pan,
    nearer: (factor) => pan(zoom(view, factor, room.width / 2, room.height / 2)),
    hold: (held) => {
      wasWhole.current = held ? !own : wasWhole.current;
      setOwn(held || !wasWhole.current);
    },
  };
}
