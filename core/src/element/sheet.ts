/** Sheets: an element as a chart, an outline on it and a build-up, which is all that the cut needs to know of it. */
import { extentOf, runsOf, type Element, type FreeOutline, type Layer } from '@yard-arch/document';
import { tolerance } from '../mesh/orient.ts';
import { defaultFineness, flatten, type Fineness } from '../profile/flatten.ts';
import { edgesOf } from '../profile/free.ts';
import type { SectionLine } from '../profile/section.ts';
import { edgePoints, mostEdgePoints, tooFine } from './edge-points.ts';
import { bentChart, deepest, turned, type Chart } from './chart.ts';
import { topLine } from './top.ts';

/** Names of a sheet's own edges, by the side of its outline. */
export type SheetEdge = 'base' | 'end' | 'top' | 'start' | 'edge' | 'hole';

/**
 * A sheet's outline in (s, t): closed loops, the sheet on the left of each edge. Edge i runs from point i to next[i]. Where an edge does not go square through the thickness, as
 * at a mitred end, its section says how.
 */
export interface SheetOutline {
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  loops: number[];
  names: SheetEdge[];
  sections: (SectionLine | null)[];
  chords: ({ ax: number; ay: number; bx: number; by: number } | null)[];
}

/** An element as a sheet: its face's outline in (s, t), counter-clockwise as seen from outside, and its layers along n. */
export interface Sheet {
  element: string;
  chart: Chart;
  length: number;
  /** Height of its highest point. */
  height: number;
  outline: SheetOutline;
  /** Depths at which layers begin and end, from 0 on the outer face to the thickness. One more than there are layers. */
  boundaries: Float64Array;
  layers: readonly Layer[];
  thickness: number;
  /** What it is called in a sentence. */
  noun: 'wall' | 'panel' | 'slab';
  texture: Element['texture'];
  /** What became of its ends that were to be joined to other walls. */
  joins: string[];
  /** Why the element cannot be made, and what would mend it. */
  fault: { reason: string; mend: string; trouble?: Error } | null;
}

/** How a wall's ends depart from square, and what they meet; by joins. */
export interface WallEnds {
  start: SectionLine | null;
  end: SectionLine | null;
  notes?: string[];
}

const roughly: Fineness = { segmentsPerHalfCircle: 2 };
const square: WallEnds = { start: null, end: null };
const kept = new WeakMap<Element, Sheet>();

/** The sheet of an element; the same object each time where nothing is said of its ends and fineness. */
export function sheetOf(element: Element, ends: WallEnds = square, fineness: Fineness = defaultFineness): Sheet {
  const plain = ends === square && fineness === defaultFineness;
  const known = plain ? kept.get(element) : undefined;
  if (known) return known;
  const sheet = sheetAnew(element, ends, fineness);
  if (plain) kept.set(element, sheet);
  return sheet;
}

function sheetAnew(element: Element, ends: WallEnds, fineness: Fineness): Sheet {
  const boundaries = new Float64Array(element.layers.length + 1);
  element.layers.forEach((layer, i) => {
    boundaries[i + 1] = boundaries[i]! + layer.thickness;
  });
  const thickness = boundaries[element.layers.length]!;
  const points = edgePoints(element, fineness);
  // What is too fine to be begun with is drawn roughly, and cannot be made.
  const drawn = points > mostEdgePoints ? roughly : fineness;
  const chart = chartOf(element, drawn);
  const outline = element.kind === 'wall' ? wallOutline(element, ends, thickness) : panelOutline(element, drawn);
  let fault: Sheet['fault'] = points > mostEdgePoints ? tooFine(element.kind, points) : null;
  if (fault) {
    // Nothing more need be known of it.
  } else if (chart.kind === 'bent' && deepest(chart) <= thickness * (1 + 1e-9))
    fault = {
      reason: 'the wall is as thick as its curve is round, or turns too sharply for its runs',
      mend: 'Make it thinner, give it a larger radius, or longer runs.',
    };
  else if (outline.fault) fault = outline.fault;
  return {
    element: element.id,
    chart,
    length: extentOf(element).length,
    height: Math.max(...outline.ys),
    outline,
    boundaries,
    layers: element.layers,
    thickness,
    noun: element.kind,
    texture: element.texture,
    joins: ends.notes ?? [],
    fault,
  };
}

function chartOf(element: Element, fineness: Fineness): Chart {
  if (element.kind === 'wall' && (element.sweep || element.runs?.length)) return bentChart(element, fineness);
  const [cos, sin] = turned(element.turn);
  const tilt = element.kind === 'wall' ? 90 - (element.batter ?? 0) : element.kind === 'slab' ? 0 : element.tilt;
  const [level, rise] = turned(tilt);
  // In plan inward is (−sin, cos); the face leans that way as it rises.
  return {
    kind: 'flat',
    origin: [element.start.x, element.start.y, element.start.z],
    along: [cos, sin, 0],
    up: [0 - sin * level, cos * level, rise],
    inward: [0 - sin * rise, cos * rise, 0 - level],
  };
}

/** A wall's outline, from its start along the base and back along the top. */
function wallOutline(
  wall: Extract<Element, { kind: 'wall' }>,
  ends: WallEnds,
  thickness: number,
): SheetOutline & { fault: Sheet['fault'] } {
  const length = runsOf(wall).reduce((sum, run) => sum + run.length, 0);
  const points: number[][] = [[0, 0], [length, 0], ...topLine(wall.top, length, wall.height).reverse()];
  const names = points.map((_, i): SheetEdge =>
    i === 0 ? 'base' : i === 1 ? 'end' : i === points.length - 1 ? 'start' : 'top',
  );
  dropNeedless(points, names);
  const lean = Math.tan(((wall.batter ?? 0) * Math.PI) / 180);
  const sections = points.map(([x, y], i): SectionLine | null => {
    if (names[i] === 'start' && ends.start) return ends.start;
    if (names[i] === 'end' && ends.end) return ends.end;
    if (lean === 0) return null;
    // Level edges of a leaning wall stay level through its thickness.
    const [bx, by] = points[(i + 1) % points.length]! as [number, number];
    const out = -(bx - x!) / Math.hypot(bx - x!, by - y!);
    return Math.abs(out) < 1e-12
      ? null
      : { n: [0, thickness], offset: [0, out * lean * thickness], smooth: [false, false] };
  });
  const short = [ends.start, ends.end].some((line) => line && Math.min(...line.offset) < -length);
  return {
    xs: Float64Array.from(points, (point) => point[0]!),
    ys: Float64Array.from(points, (point) => point[1]!),
    next: Uint32Array.from(points, (_, i) => (i + 1) % points.length),
    loops: [0],
    names,
    sections,
    chords: points.map(() => null),
    fault: short
      ? {
          reason: 'the wall is shorter than what its ends lose where they meet other walls',
          mend: 'Make it longer, or let its ends be square.',
        }
      : null,
  };
}

/** Drops points that say nothing: those on the straight line between their neighbours, within the tolerance, such as steps of no height. */
function dropNeedless(points: number[][], names: SheetEdge[]): void {
  for (let i = 0; i < points.length && points.length > 3;) {
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

function panelOutline(
  element: { outline: FreeOutline; holes?: FreeOutline[] | undefined },
  fineness: Fineness,
): SheetOutline & { fault: Sheet['fault'] } {
  const loops = [edgesOf(element.outline), ...(element.holes ?? []).map((hole) => edgesOf(hole, true))];
  const starts: number[] = [];
  let at = 0;
  for (const loop of loops) {
    starts.push(at);
    at += loop.length;
  }
  const flat = flatten({ width: 0, height: 0, springing: null, edges: loops.flat(), loops: starts }, fineness);
  const holesFrom = flat.loops[1] ?? flat.count;
  return {
    xs: flat.xs,
    ys: flat.ys,
    next: flat.next,
    loops: flat.loops,
    names: Array.from(flat.xs, (_, i): SheetEdge => (i < holesFrom ? 'edge' : 'hole')),
    sections: Array.from(flat.xs, () => null),
    // The sheet is within its outline, so its normals point the other way from an opening's.
    chords: flat.arcs.map((arc) => arc && { ax: -arc.ax, ay: -arc.ay, bx: -arc.bx, by: -arc.by }),
    fault:
      loops[0]!.length < 2
        ? { reason: 'its outline encloses nothing', mend: 'Draw an outline of at least three points.' }
        : null,
  };
}
