/** Fronts: the outline of a roof as it stands at a level, which closes in as the level rises; what of it moves how. */
import { parallel, relative, rounding } from '../tolerances.ts';

/** A part of an edge's way: from a level on (metres) it moves inward by `run` metres for each that it rises; 0 where it stands upright. */
export interface Strip {
  from: number;
  run: number;
}

/** An edge of an outline, from its point to the next one's, the roof on its left. Its first strip is where it begins, and stands upright before that. */
export interface RoofEdge {
  x: number;
  y: number;
  strips: readonly Strip[];
}

/** A plane that an edge makes on its way. */
export interface FrontPlane {
  /** The edge, counted over all loops, or −1 where the front made it itself: an upright step between two that run alike and rise unlike. */
  edge: number;
  /** Which of the edge's strips; −1 for what stands upright below the first. */
  strip: number;
  /** Its unit normal inward in plan; at level z it is where n·(x, y) = reach + run·z, metres. */
  nx: number;
  ny: number;
  reach: number;
  run: number;
}

/** A line of the front: the plane that it is on now, and those that are to follow. */
export interface FrontLine {
  plane: number;
  /** Its direction, the roof on its left. */
  dx: number;
  dy: number;
  /** What is still to come: from these levels on it is on these planes. */
  later: readonly { from: number; plane: number }[];
}

/** A corner of the front, where a line begins; `node` is where it stood at the last event. */
export interface Corner {
  line: FrontLine;
  x: number;
  y: number;
  node: number;
}

/** Loops of corners, each line running from its corner to the next one. */
export type Front = Corner[][];

/** How a corner moves as the level rises by a metre: where its two lines do. */
export function speedOf(planes: readonly FrontPlane[], before: FrontLine, line: FrontLine): readonly [number, number] {
  const [a, b] = [planes[before.plane]!, planes[line.plane]!];
  const det = a.nx * b.ny - a.ny * b.nx;
  if (Math.abs(det) < rounding || (Math.abs(det) < parallel && Math.abs(a.run - b.run) < relative))
    return [b.nx * b.run, b.ny * b.run];
  return [(a.run * b.ny - b.run * a.ny) / det, (b.run * a.nx - a.run * b.nx) / det];
}

/** How far a point is inward of a plane at a level, metres. */
export const inwardOf = ({ nx, ny, reach, run }: FrontPlane, x: number, y: number, z: number): number =>
  nx * x + ny * y - reach - run * z;

/** The front of an outline at a level below all of its edges. @returns it, and the planes of its edges. */
export function frontOf(loops: readonly (readonly RoofEdge[])[]): { front: Front; planes: FrontPlane[] } {
  const planes: FrontPlane[] = [];
  let edge = 0;
  const front = loops.map((loop) =>
    loop.map((at, i): Corner => {
      const to = loop[(i + 1) % loop.length]!;
      const size = Math.hypot(to.x - at.x, to.y - at.y);
      const [dx, dy] = [(to.x - at.x) / size, (to.y - at.y) / size];
      const [nx, ny] = [-dy, dx];
      let reach = nx * at.x + ny * at.y;
      const first = planes.length;
      planes.push({ edge, strip: -1, nx, ny, reach, run: 0 });
      let before = 0;
      const later = at.strips.map(({ from, run }, strip) => {
        // Where one strip ends the next begins.
        reach += (before - run) * from;
        before = run;
        planes.push({ edge, strip, nx, ny, reach, run });
        return { from, plane: first + 1 + strip };
      });
      edge += 1;
      return { line: { plane: first, dx, dy, later }, x: at.x, y: at.y, node: -1 };
    }),
  );
  return { front, planes };
}
