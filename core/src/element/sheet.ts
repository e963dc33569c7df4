/** Sheets: an element as a chart, an outline on it and a build-up, which is all that the cut needs to know of it. */
import type { Element, Layer, Top } from '@yard-arch/document';
import { tolerance } from '../cut/arrangement.ts';

/** Names of a sheet's own edges, by the side of its outline. */
export type SheetEdge = 'base' | 'end' | 'top' | 'start';

/**
 * A flat chart: the point (s, t, n) is at origin + s·along + t·up + n·inward, all metres. The three directions are unit vectors
 * at right angles, and along × up = −inward.
 */
export interface Chart {
  origin: readonly [number, number, number];
  along: readonly [number, number, number];
  up: readonly [number, number, number];
  inward: readonly [number, number, number];
}

/** An element as a sheet: its face's outline in (s, t), counter-clockwise as seen from outside, and its layers along n. */
export interface Sheet {
  element: string;
  chart: Chart;
  length: number;
  /** Height of its highest point. */
  height: number;
  outline: { xs: Float64Array; ys: Float64Array; names: SheetEdge[] };
  /** Depths at which layers begin and end, from 0 on the outer face to the thickness. One more than there are layers. */
  boundaries: Float64Array;
  layers: readonly Layer[];
  thickness: number;
}

/** Cosine and sine of an angle in degrees, exact at whole quarter turns, so that square walls have square coordinates. */
export function turned(degrees: number): [number, number] {
  const quarter = degrees / 90;
  if (Number.isInteger(quarter)) {
    const i = ((quarter % 4) + 4) % 4;
    return [[1, 0, -1, 0][i] ?? 1, [0, 1, 0, -1][i] ?? 0];
  }
  const radians = (degrees * Math.PI) / 180;
  return [Math.cos(radians), Math.sin(radians)];
}

/** The sheet of an element. */
export function sheetOf(element: Element): Sheet {
  const [cos, sin] = turned(element.turn);
  const { length } = element;
  const outline = outlineOf(length, element.height, element.top);
  const boundaries = new Float64Array(element.layers.length + 1);
  element.layers.forEach((layer, i) => {
    boundaries[i + 1] = (boundaries[i] ?? 0) + layer.thickness;
  });
  return {
    element: element.id,
    chart: {
      origin: [element.start.x, element.start.y, element.start.z],
      along: [cos, sin, 0],
      up: [0, 0, 1],
      inward: [0 - sin, cos, 0],
    },
    length,
    height: Math.max(...outline.ys),
    outline,
    boundaries,
    layers: element.layers,
    thickness: boundaries[element.layers.length] ?? 0,
  };
}

/** A wall's outline, from its start along the base and back along the top. */
function outlineOf(length: number, height: number, top: Top): Sheet['outline'] {
  /** The top from the start to the end. */
  const line: [number, number][] = [[0, height]];
  if (top.kind === 'level') line.push([length, height]);
  else if (top.kind === 'raked') line.push([length, top.end]);
  else if (top.kind === 'gabled') {
    line.push([top.at * length, top.apex], [length, height]);
  } else {
    // Of several steps at one place the last holds.
    const heights = new Map(top.steps.map((step) => [step.at, step.height]));
    let now = height;
    for (const [at, next] of [...heights].sort(([a], [b]) => a - b)) {
      line.push([at * length, now], [at * length, next]);
      now = next;
    }
    line.push([length, now]);
  }
  const points = [[0, 0], [length, 0], ...line.reverse()];
  const names = points.map((_, i): SheetEdge => (i === 0 ? 'base' : i === 1 ? 'end' : i === points.length - 1 ? 'start' : 'top'));
  dropNeedless(points, names);
  return { xs: Float64Array.from(points, (point) => point[0]!), ys: Float64Array.from(points, (point) => point[1]!), names };
}

/** Drops points that say nothing: those on the straight line between their neighbours, within the tolerance, such as steps of no height. */
function dropNeedless(points: number[][], names: SheetEdge[]): void {
  for (let i = 0; i < points.length && points.length > 3; ) {
    const [ax, ay] = points[(i + points.length - 1) % points.length]! as [number, number];
    const [x, y] = points[i]! as [number, number];
    const [bx, by] = points[(i + 1) % points.length]! as [number, number];
    const size = Math.hypot(bx - ax, by - ay);
    const off = size > tolerance ? Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / size : 0;
    if (off > tolerance && Math.hypot(x - ax, y - ay) > tolerance) i += 1;
    else {
      points.splice(i, 1);
      names.splice(i, 1);
      i = Math.max(0, i - 2);
    }
  }
}

/** The point (s, t, n) of a chart in space, metres. */
export function pointAt(chart: Chart, s: number, t: number, n: number): [number, number, number] {
  const { origin, along, up, inward } = chart;
  return [
    origin[0] + s * along[0] + t * up[0] + n * inward[0],
    origin[1] + s * along[1] + t * up[1] + n * inward[1],
    origin[2] + s * along[2] + t * up[2] + n * inward[2],
  ];
}
