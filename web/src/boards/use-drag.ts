/** Dragging something by its handle: the pointer is followed once a frame, Escape gives up, and figures typed meanwhile end it. */
import { useEffect, useRef, type PointerEvent } from 'react';
import { useOnceAFrame } from './use-board.ts';

export interface Drag<Held> {
  /** The pointer has left where it went down: before that it may be but a click. */
  onBegin?: (held: Held) => void;
  /** Follows the pointer, pixels in the window. */
  onMove: (held: Held, x: number, y: number, free: boolean) => void;
  /** @param keep whether it was let go, or given up. */
  onEnd: (held: Held, keep: boolean) => void;
  /** A figure was begun to be typed. @returns whether that ends the drag. */
  onTyped?: (held: Held, key: string) => boolean;
}

interface Going<Held> {
  held: Held;
  x: number;
  y: number;
  moved: boolean;
}

/** @returns what begins a drag, for a handle's `onPointerDown`. */
export function useDrag<Held>(drag: Drag<Held>): (event: PointerEvent<Element>, held: Held) => void {
  const latest = useRef(drag);
  useEffect(() => {
    latest.current = drag;
  });
  const going = useRef<Going<Held> | null>(null);
  const stop = useRef<(() => void) | null>(null);
  const frames = useOnceAFrame();
  useEffect(() => () => stop.current?.(), []);
  return (event, held) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    going.current = { held, x: event.clientX, y: event.clientY, moved: false };
    const end = (keep: boolean): void => {
      const now = going.current;
      stop.current?.();
      if (now?.moved) latest.current.onEnd(now.held, keep);
    };
    const move = ({ clientX, clientY, altKey }: globalThis.PointerEvent): void => {
      const now = going.current;
      if (!now || (!now.moved && Math.hypot(clientX - now.x, clientY - now.y) < 4)) return;
      if (!now.moved) latest.current.onBegin?.(now.held);
      now.moved = true;
      frames.ask(() => latest.current.onMove(now.held, clientX, clientY, altKey));
    };
    const up = (): void => end(true);
    const cancel = (): void => end(false);
    const key = (pressed: KeyboardEvent): void => {
      const now = going.current;
      if (pressed.key === 'Escape') end(false);
      else if (!now?.moved || !/^[\d.]$/.test(pressed.key) || !latest.current.onTyped?.(now.held, pressed.key)) return;
      else stop.current?.();
      pressed.preventDefault();
      pressed.stopPropagation();
    };
    stop.current = () => {
      frames.drop();
      going.current = null;
      stop.current = null;
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', cancel);
      window.removeEventListener('keydown', key, true);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', cancel);
    window.addEventListener('keydown', key, true);
  };
}
