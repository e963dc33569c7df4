/** What sheet and plan share as drawings: the room that they have, zooming by the wheel, and following the pointer once a frame. */
import { useLayoutEffect, useRef, useState, type RefObject } from 'react';
import type { Frames } from './gesture.ts';

export interface Room {
  width: number;
  height: number;
}

/** The size of a frame, pixels. */
export function useRoom(frame: RefObject<HTMLElement | null>): Room {
  const [room, setRoom] = useState<Room>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const take = ({ width, height }: Room): void =>
      setRoom((before) => (before.width === width && before.height === height ? before : { width, height }));
    const watch = new ResizeObserver(([entry]) => entry && take(entry.contentRect));
    if (frame.current) {
      // Known at once, so that nothing is drawn for a room that it has not got.
      take(frame.current.getBoundingClientRect());
      watch.observe(frame.current);
    }
    return () => watch.disconnect();
  }, [frame]);
  return room;
}

/** Calls for a zoom by a factor about a point (pixels) when the wheel turns over a drawing. */
export function useWheel(
  svg: RefObject<SVGSVGElement | null>,
  onZoom: (factor: number, x: number, y: number) => void,
): void {
  const latest = useRef(onZoom);
  useLayoutEffect(() => {
    latest.current = onZoom;
  });
  useLayoutEffect(() => {
    const surface = svg.current;
    if (!surface) return;
    // React listens to the wheel passively, and zooming must keep the page from scrolling.
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const bounds = surface.getBoundingClientRect();
      latest.current(
        Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0015)),
        event.clientX - bounds.left,
        event.clientY - bounds.top,
      );
    };
    surface.addEventListener('wheel', onWheel, { passive: false });
    return () => surface.removeEventListener('wheel', onWheel);
  }, [svg]);
}

/** Does the last of what it was asked once a frame, whatever the pointer's rate; `drop` forgets it, `flush` does it now. */
export function useOnceAFrame(): Frames {
  const waiting = useRef<{ id: number; work: () => void } | null>(null);
  const drop = (): void => {
    if (waiting.current) cancelAnimationFrame(waiting.current.id);
    waiting.current = null;
  };
  const flush = (): void => {
    const work = waiting.current?.work;
    drop();
    work?.();
  };
  const ask = (work: () => void): void => {
    drop();
    waiting.current = { id: requestAnimationFrame(flush), work };
  };
  return { ask, drop, flush };
}
