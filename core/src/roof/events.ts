/** Events: the next level at which a front changes otherwise than by moving on. */
import { micrometre, relative } from '../tolerances.ts';
import { inwardOf, speedOf, type Corner, type Front, type FrontPlane } from './front.ts';

interface Moving {
  corner: Corner;
  vx: number;
  vy: number;
  /** Whether the roof turns outward here, so that it may run into another part of the front. */
  reflex: boolean;
}

/** How every corner moves. */
export function movingOf(front: Front, planes: readonly FrontPlane[]): Moving[][] {
  return front.map((loop) =>
    loop.map((corner, i): Moving => {
      const before = loop[(i + loop.length - 1) % loop.length]!.line;
      const [vx, vy] = speedOf(planes, before, corner.line);
      return { corner, vx, vy, reflex: before.dx * corner.line.dy - before.dy * corner.line.dx < -relative };
    }),
  );
}

/**
 * How far the level rises until something happens: an edge has shrunk to nothing, a corner runs into an edge, or an edge begins to move otherwise. Infinity where nothing ever does.
 * @param z the level of the front, metres.
 */
export function riseToNext(moving: readonly (readonly Moving[])[], planes: readonly FrontPlane[], z: number): number {
  let least = Infinity;
  const sooner = (rise: number): void => void (rise < least && (least = Math.max(0, rise)));
  for (const loop of moving)
    loop.forEach(({ corner, vx, vy }, i) => {
      const { line } = corner;
      if (line.later.length > 0) sooner(line.later[0]!.from - z);
      const to = loop[(i + 1) % loop.length]!;
      const shrinks = (vx - to.vx) * line.dx + (vy - to.vy) * line.dy;
      if (shrinks > relative)
        sooner(((to.corner.x - corner.x) * line.dx + (to.corner.y - corner.y) * line.dy) / shrinks);
    });
  for (const loop of moving)
    loop.forEach((point, i) => {
      if (point.reflex)
        sooner(riseToHit(point, loop[(i + loop.length - 1) % loop.length]!.corner, moving, { planes, z, least }));
    });
  return least;
}

/** The rise until a corner runs into an edge that is not its own, or `least` where none is sooner. */
function riseToHit(
  { corner, vx, vy }: Moving,
  before: Corner,
  moving: readonly (readonly Moving[])[],
  { planes, z, least }: { planes: readonly FrontPlane[]; z: number; least: number },
): number {
  let found = least;
  for (const loop of moving)
    for (let j = 0; j < loop.length; j++) {
      const edge = loop[j]!;
      if (edge.corner === corner || edge.corner === before) continue;
      const plane = planes[edge.corner.line.plane]!;
      const nears = plane.run - plane.nx * vx - plane.ny * vy;
      if (nears < relative) continue;
      const away = inwardOf(plane, corner.x, corner.y, z);
      if (away < -micrometre || away >= found * nears) continue;
      const rise = Math.max(0, away) / nears;
      const to = loop[(j + 1) % loop.length]!;
      const { dx, dy } = edge.corner.line;
      const along = (m: Moving): number => (m.corner.x + rise * m.vx) * dx + (m.corner.y + rise * m.vy) * dy;
      const here = (corner.x + rise * vx) * dx + (corner.y + rise * vy) * dy;
      if (here > along(edge) - micrometre && here < along(to) + micrometre) found = rise;
    }
  return found;
}
