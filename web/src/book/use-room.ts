/** How much room something has on the page. */
import { useLayoutEffect, useState, type RefObject } from 'react';

export function useRoom(of: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [room, setRoom] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const box = of.current!;
    const look = (): void => setRoom({ width: box.clientWidth, height: box.clientHeight });
    look();
    const sized = new ResizeObserver(look);
    sized.observe(box);
    return () => sized.disconnect();
  }, [of]);
  return room;
}
