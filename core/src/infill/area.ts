/** Areas: what a member or a pane fills as it is seen, its edges keeping their side and the arc that they are of. Metres. */
import type { Outline } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import { jointed, type EdgeLoop, type LoopEdge } from '../reveal/loop.ts';
import { makeTube, type Tube } from '../reveal/tube.ts';
import type { SectionLine } from '../profile/section.ts';
import { micrometre, nanometre } from '../tolerances.ts';

export type Spot = readonly [number, number];

/** Exact normals out of the area at an edge's start and end, where it is a chord of an arc. */
export interface Chord {
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

/** The edge that begins at a point. */
export interface AreaEdge {
  /** Null where it was made by dividing. */
  side: Side | null;
  chord: Chord | null;
}

/** Points counter-clockwise, and the edges from each to the next. */
export interface Area {
  points: readonly Spot[];
  edges: readonly AreaEdge[];
}

/** The area within an outline; null where that is more than one loop. */
export function areaOf({ xs, ys, next, loops, arcs, side }: Outline): Area | null {
  if (loops.length !== 1) return null;
  const points: Spot[] = [];
  const edges: AreaEdge[] = [];
  let v = loops[0]!;
  do {
    const arc = arcs[v];
    points.push([xs[v]!, ys[v]!]);
    edges.push({
      side: side[v]!,
      chord: arc ? { ax: -arc.ax, ay: -arc.ay, bx: -arc.bx, by: -arc.by } : null,
    });
    v = next[v]!;
  } while (v !== loops[0]);
  return { points, edges };
}

/** A strip along an edge between where it was and where it has been moved to. */
export interface Strip {
  /** Counter-clockwise. */
  points: readonly Spot[];
  /** How far on the way each of them is: 0 where the edge was, 1 where it has come. */
  reach: readonly number[];
  /** The edge's direction, a unit vector. */
  along: Spot;
  side: Side | null;
}

export interface Moved {
  /** What lies between the two, edge by edge, mitred; none along edges that stay. */
  strips: Strip[];
  area: Area;
}

/** An edge's section that moves it from where it is by so much, outward where positive, over a depth of one. */
const moving = (by: number): SectionLine => ({ n: [0, 1], offset: [0, by], smooth: [false, false] });

/**
 * An area whose edges are moved in or out, each staying parallel to itself: edges that vanish on the way leave none behind.
 * @param by how far each edge goes, outward where positive.
 * @returns null where nothing would be left of it.
 */
export function moved(area: Area, by: (edge: AreaEdge, i: number) => number): Moved | null {
  const sections = new Map<number, SectionLine>();
  const loop = area.points.map((_, i): LoopEdge => {
    const far = by(area.edges[i]!, i);
    let section = sections.get(far);
    if (!section) sections.set(far, (section = moving(far)));
    return loopEdge(area, i, section);
  });
  let tube: Tube;
  try {
    tube = makeTube([jointed(loop) as EdgeLoop], { from: 0, to: 1 }, [0, 1]);
  } catch {
    // Sides that meet, or cross one another: nothing is left between them.
    return null;
  }
  const ring = tube.far[0]!;
  const points = ring.nodes.map((node): Spot => [tube.x[node]!, tube.y[node]!]);
  if (points.length < 3 || areaWithin(points) < micrometre) return null;
  const strips = tube.faces.flatMap(({ edge, nodes }): Strip[] => {
    const outline = turnedLeft(nodes.map((node): Spot => [tube.x[node]!, tube.y[node]!]));
    const { dx, dy, side } = tube.edges[edge]!;
    const reach = outline?.points.map((_, i) => tube.n[nodes[outline.from[i]!]!]!);
    return outline ? [{ points: outline.points, reach: reach!, along: [dx, dy], side }] : [];
  });
  return {
    strips,
    area: {
      points,
      // What joins two sides that went differently far is of neither.
      edges: ring.edges.map((edge) => {
        const { joint, side, chord } = tube.edges[edge]!;
        return { side: joint ? null : side, chord };
      }),
    },
  };
}

/** An edge of an area as a loop's edge that moves as a section says. */
export function loopEdge({ points, edges }: Area, i: number, section: SectionLine): LoopEdge {
  const [[x, y], [toX, toY]] = [points[i]!, points[(i + 1) % points.length]!];
  const length = Math.hypot(toX - x, toY - y);
  const { side, chord } = edges[i]!;
  return {
    x,
    y,
    dx: (toX - x) / length,
    dy: (toY - y) / length,
    length,
    section,
    drift: [0, 0],
    sense: 1,
    operand: 1,
    source: i,
    side,
    chord,
    seam: false,
    joint: false,
  };
}

/** Twice a polygon's area, halved: positive where it goes counter-clockwise. */
export function areaWithin(points: readonly Spot[]): number {
  let twice = 0;
  points.forEach(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    twice += x * ny - nx * y;
  });
  return twice / 2;
}

/** A polygon counter-clockwise, without points that are the same, and which of those given they were; null where nothing is left of it. */
function turnedLeft(points: readonly Spot[]): { points: Spot[]; from: number[] } | null {
  const from = points.flatMap(([x, y], i) => {
    const [px, py] = points[(i + points.length - 1) % points.length]!;
    return Math.hypot(x - px, y - py) > nanometre ? [i] : [];
  });
  const own = from.map((i) => points[i]!);
  const size = areaWithin(own);
  if (own.length < 3 || Math.abs(size) < nanometre) return null;
  return size > 0 ? { points: own, from } : { points: own.reverse(), from: from.reverse() };
}

/** Whether a place lies within a polygon. */
export function holds(points: readonly Spot[], [x, y]: Spot): boolean {
  let within = false;
  points.forEach(([ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) within = !within;
  });
  return within;
}

/** From where to where an area reaches, along (0) or up (1). */
export function extentOf({ points }: Area, axis: 0 | 1): [number, number] {
  const values = points.map((point) => point[axis]);
  return [Math.min(...values), Math.max(...values)];
}

/**
 * What of an area lies on one side of an upright (axis 0) or level (axis 1) line.
 * @returns null where nothing does; `apart` where that is more than one piece.
 */
export function half({ points, edges }: Area, axis: 0 | 1, at: number, beyond: boolean): Area | null | 'apart' {
  const side = (point: Spot): number => (beyond ? point[axis] - at : at - point[axis]);
  const [kept, keptEdges]: [Spot[], AreaEdge[]] = [[], []];
  let borders = 0;
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length]!;
    const [p, q] = [side(a), side(b)];
    if (p > -nanometre) {
      kept.push(a);
      keptEdges.push(q > -nanometre || p > nanometre ? edges[i]! : made);
    }
    if (p > -nanometre !== q > -nanometre) borders += 1;
    if ((p > nanometre && q < -nanometre) || (p < -nanometre && q > nanometre)) {
      const share = p / (p - q);
      kept.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
      keptEdges.push(p > 0 ? made : edges[i]!);
    }
  });
  if (borders > 2) return 'apart';
  const tidied = withoutDoubles({ points: kept, edges: keptEdges });
  return tidied.points.length < 3 || areaWithin(tidied.points) < micrometre * micrometre ? null : tidied;
}

const made: AreaEdge = { side: null, chord: null };

function withoutDoubles({ points, edges }: Area): Area {
  const keep = points.map(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return Math.hypot(nx - x, ny - y) > nanometre;
  });
  return { points: points.filter((_, i) => keep[i]), edges: edges.filter((_, i) => keep[i]) };
}
