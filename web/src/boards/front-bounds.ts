/** How far drawings of parts reach. */
import type { Front } from '@yard-arch/core';

type Bounds = [left: number, low: number, right: number, top: number];

/** What fronts cover, and what else they are to be seen with. */
export function boundsOf(fronts: readonly Front[], about: Bounds): Bounds {
  const found: Bounds = [...about];
  for (const { loops } of fronts)
    for (const loop of loops)
      for (const [x, y] of loop) {
        found[0] = Math.min(found[0], x);
        found[1] = Math.min(found[1], y);
        found[2] = Math.max(found[2], x);
        found[3] = Math.max(found[3], y);
      }
  return found;
}
