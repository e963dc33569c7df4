/** Dragging a drawing about. */
import type { Gesture, Spot } from './gesture.ts';
import type { Viewport } from './viewport.ts';

/** @returns the gesture that moves a drawing from a view along with the pointer. */
export function panning(
  from: Viewport,
  press: Spot,
  { to, done, ...rest }: { to: (view: Viewport) => void; done?: (view: Viewport) => void; click?: () => void },
): Gesture {
  let last = from;
  return {
    ...rest,
    move: ({ x, y }) => to((last = { ...from, x: from.x + x - press.x, y: from.y + y - press.y })),
    // Where it has been moved to it stays, however it ends.
    drop: () => done?.(last),
    giveUp: () => last !== from && done?.(last),
  };
}
