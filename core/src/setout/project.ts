/** Projection: an outline carried along a direction onto whatever face stands there; distance does not matter, direction does. */
import { LRUCache } from 'lru-cache';
import { fault } from '../finding.ts';
import { extentOf, type Opening, type ProjectDocument } from '@yard-arch/document';
import {
  directionsAt,
  hitsOn,
  placedIn,
  pointAt,
  turned,
  turnedIn,
  upright,
  type BentChart,
  type FlatChart,
  type Rigid,
  type Vector,
} from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { sheetsOf } from '../element/sheets.ts';
import { backwards, type Chord, type Outline } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import { fromBehind } from './across.ts';
import type { Placed, Unplaced } from './placed.ts';
import { dot } from '../vector.ts';
import { relative, rounding } from '../tolerances.ts';

/** The plane in which an outline is drawn, and the way it is carried from there: a point of it, the directions of x and y, and a unit vector. */
export interface Aim {
  point: Vector;
  x: Vector;
  y: Vector;
  direction: Vector;
}

const plus = (a: Vector, b: Vector, by: number): Vector => [a[0] + by * b[0], a[1] + by * b[1], a[2] + by * b[2]];

/** The aim of an opening on its own element: as it asks, or square to the face where it stands. Its point is the outline's bottom middle. */
export function aimOf(sheet: Sheet, opening: Opening, placed: Placed): Aim {
  const middle = placed.s + placed.profile.width / 2;
  const point = pointAt(sheet.chart, middle, placed.t, 0);
  if (!opening.aim) {
    const { along, up, inward } = directionsAt(sheet.chart, middle);
    return { point, x: along, y: up, direction: inward };
  }
  const [cos, sin] = turned(opening.aim.turn);
  const [level, rise] = turned(opening.aim.rise ?? 0);
  return { point, x: [sin, -cos, 0], y: [0, 0, 1], direction: [cos * level, sin * level, rise] };
}

/** An opening as it lies on its own face, where it is aimed as well. @param sheet of the face on which it is set out */
export const onOwnFace = (sheet: Sheet, opening: Opening, placed: Placed): Placed | Unplaced =>
  opening.aim ? projectOnto(sheet, placed, aimOf(sheet, opening, placed)) : placed;

/** The aim of what is carried level into the flank of a barrel, upright there: about the middle of its place on the face. */
export function levelAim({ chart }: Sheet, { s, t, profile }: Placed): Aim {
  const middle = s + profile.width / 2;
  const { inward } = directionsAt(chart, middle);
  const size = Math.hypot(inward[0], inward[1]);
  const upright: Vector = [0, 0, 1];
  const [cos, sin] = size < rounding ? [1, 0] : [inward[0] / size, inward[1] / size];
  return {
    point: plus(pointAt(chart, middle, t + profile.height / 2, 0), upright, -profile.height / 2),
    x: [sin, -cos, 0],
    y: upright,
    direction: [cos, sin, 0],
  };
}

/** Nearer to the face's own plane than this a direction does not cut it: sine of about 3°. */
const grazing = 0.05;

/** Outlines by a number each: the same for those that are the very same, and another for any other, whatever they look like. */
const numbers = new WeakMap<Outline, number>();
let lastNumber = 0;
function likenessOf(outline: Outline): number {
  const known = numbers.get(outline) ?? ++lastNumber;
  numbers.set(outline, known);
  return known;
}

const kept = new LRUCache<
  string,
  { outline: Outline; s: number; t: number; drift: readonly [number, number]; width: number; height: number }
>({ max: 4096 });

/**
 * An opening as it lands on a sheet when it is carried along an aim.
 * @returns the opening there, or why it does not land. On a flat sheet its outline is drawn on that face and drifts with the depth; through a curved wall it is carried as it is drawn.
 */
export function projectOnto(sheet: Sheet, placed: Placed, aim: Aim): Placed | Unplaced {
  const refuse = (reason: string, mend: string): Unplaced => ({
    id: placed.id,
    element: sheet.element,
    ...fault('aimed-past', reason, mend),
  });
  if (sheet.chart.kind !== 'flat')
    return ontoBent(sheet, upright(sheet.chart), placed, { drawnAs: seenFrom(sheet.chart.frame, aim), refuse });
  const chart: FlatChart = sheet.chart;
  const { direction } = aim;
  const into = dot(direction, chart.inward);
  if (Math.abs(into) < grazing)
    return refuse(
      `its direction runs along the face of the ${sheet.noun}`,
      'Turn its direction more squarely to the face.',
    );
  const key = JSON.stringify([
    chart,
    aim,
    placed.profile.width,
    placed.profile.height,
    placed.outline.count,
    likenessOf(placed.outline),
    placed.own,
  ]);
  let made = kept.get(key);
  if (!made) {
    /** Where a point of the drawing plane lands at depth 0, along and up. */
    const land = (p: Vector): [number, number] => {
      const q = plus(p, direction, -dot(plus(p, chart.origin, -1), chart.inward) / into);
      const r = plus(q, chart.origin, -1);
      return [dot(r, chart.along), dot(r, chart.up)];
    };
    const origin = plus(aim.point, aim.x, -placed.profile.width / 2);
    const [ox, oy] = land(origin);
    const [ax, ay] = land(plus(origin, aim.x, 1));
    const [bx, by] = land(plus(origin, aim.y, 1));
    const outline = carried(
      placed.outline,
      { ax: ax - ox, ay: ay - oy, bx: bx - ox, by: by - oy },
      placed.own === 'inner',
    );
    const left = Math.min(...outline.xs);
    const low = Math.min(...outline.ys);
    for (let i = 0; i < outline.count; i++) {
      outline.xs[i]! -= left;
      outline.ys[i]! -= low;
    }
    made = {
      outline,
      s: ox + left,
      t: oy + low,
      drift: [dot(direction, chart.along) / into, dot(direction, chart.up) / into].map((d) =>
        Math.abs(d) < rounding ? 0 : d,
      ) as [number, number],
      width: Math.max(...outline.xs),
      height: Math.max(...outline.ys),
    };
    kept.set(key, made);
  }
  return {
    ...placed,
    element: sheet.element,
    s: made.s,
    t: made.t,
    outline: made.outline,
    drift: made.drift,
    profile: { width: made.width, height: made.height, springing: null, edges: [] },
  };
}

/** An aim as it is seen from a frame. */
function seenFrom(frame: Rigid | undefined, aim: Aim): Aim {
  if (!frame) return aim;
  return {
    point: placedIn(frame, aim.point),
    x: turnedIn(frame, aim.x),
    y: turnedIn(frame, aim.y),
    direction: turnedIn(frame, aim.direction),
  };
}

/** The same on a curved or bent wall, where the aim first meets its outer face. */
function ontoBent(
  sheet: Sheet,
  chart: BentChart,
  drawn: Placed,
  { drawnAs, refuse }: { drawnAs: Aim; refuse: (reason: string, mend: string) => Unplaced },
): Placed | Unplaced {
  // Across what lies an outline runs up along the face and along its axis: it is told turned by a quarter.
  const { placed, aim } =
    Math.abs(drawnAs.x[2]) > 1 - relative ? quarterTurned(drawn, drawnAs) : { placed: drawn, aim: drawnAs };
  const { point, x, y, direction } = aim;
  const level = Math.hypot(direction[0], direction[1]);
  if (y[2] < 1 - relative || Math.abs(x[0] * direction[0] + x[1] * direction[1]) > relative)
    return refuse(
      'only an outline that is drawn upright can be carried on to a curved wall',
      'Draw it on an upright wall, or let it cut straight walls, panels and slabs only.',
    );
  if (level < grazing)
    return refuse(`its direction runs along the face of the ${sheet.noun}`, 'Let it rise less steeply.');
  const [wx, wy, slope] = [direction[0] / level, direction[1] / level, direction[2] / level];
  const hit = hitsOn(chart, 0, point, [wx, wy]).sort((a, b) => Math.abs(a.at) - Math.abs(b.at))[0];
  if (!hit)
    return refuse(
      `it passes by the ${sheet.noun}`,
      'Move it to where its direction meets the wall, or turn its direction.',
    );
  const { inward } = directionsAt(chart, hit.s);
  const facing = wx * inward[0] + wy * inward[1];
  if (Math.abs(facing) < grazing)
    return refuse(
      `its direction runs along the face of the ${sheet.noun}`,
      'Turn its direction more squarely to the face.',
    );
  // From behind, the face is seen from its other side.
  const sign = facing > 0 ? 1 : -1;
  return {
    ...placed,
    element: sheet.element,
    s: hit.s - placed.profile.width / 2,
    t: point[2] + slope * hit.at - chart.origin[2],
    outline: sign > 0 ? placed.outline : placed.own === 'inner' ? fromBehind(placed.outline) : mirrored(placed.outline),
    carrier: {
      x: point[0] + hit.at * wx,
      y: point[1] + hit.at * wy,
      along: [sign * x[0], sign * x[1]],
      way: [sign * wx, sign * wy],
      slope: sign * slope,
    },
  };
}

/** An opening told the other way up: its x runs where its y ran, and its y, up, where its x ran or came from. Sides keep their names. */
function quarterTurned(placed: Placed, { point, x, y, direction }: Aim): { placed: Placed; aim: Aim } {
  const { width, height } = placed.profile;
  const sign = x[2] > 0 ? 1 : -1;
  const outline = quarters(placed.outline, sign);
  return {
    placed: { ...placed, outline, profile: { width: height, height: width, springing: null, edges: [] } },
    aim: {
      // Half way up it, at the end where its new foot is.
      point: plus(plus(point, x, (-sign * width) / 2), y, height / 2),
      x: [-sign * y[0], -sign * y[1], -sign * y[2]],
      y: [sign * x[0], sign * x[1], sign * x[2]],
      direction,
    },
  };
}

const turnedQuarters = { 1: new WeakMap<Outline, Outline>(), [-1]: new WeakMap<Outline, Outline>() };

/** An outline turned by a quarter, to the left or to the right; it begins at 0 either way. */
function quarters(outline: Outline, sign: 1 | -1): Outline {
  const known = turnedQuarters[sign];
  let made = known.get(outline);
  if (!made) {
    made = carried(outline, { ax: 0, ay: sign, bx: -sign, by: 0 });
    const [left, low] = [Math.min(...made.xs), Math.min(...made.ys)];
    for (let i = 0; i < made.count; i++) {
      made.xs[i]! -= left;
      made.ys[i]! -= low;
    }
    known.set(outline, made);
  }
  return made;
}

const mirrors = new WeakMap<Outline, Outline>();

/** An outline as it is seen from behind; its left end stays at 0. */
function mirrored(outline: Outline): Outline {
  let made = mirrors.get(outline);
  if (!made) {
    made = carried(outline, { ax: -1, ay: 0, bx: 0, by: 1 });
    const left = Math.min(...made.xs);
    for (let i = 0; i < made.count; i++) made.xs[i]! -= left;
    mirrors.set(outline, made);
  }
  return made;
}

/** A map of a plane: (x, y) → x (ax, ay) + y (bx, by). */
interface Linear {
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

/** An outline under a map; turned round where that mirrors it. @param keep whether its sides keep the names that they have as seen from behind. */
export function carried(outline: Outline, { ax, ay, bx, by }: Linear, keep = false): Outline {
  const { count, xs, ys, next, side, arcs, loops } = outline;
  const mirrored = ax * by - ay * bx < 0;
  const before = backwards(next);
  const x = xs.map((value, i) => value * ax + ys[i]! * bx);
  const y = xs.map((value, i) => value * ay + ys[i]! * by);
  // Normals go by the inverse transpose.
  const normal = (nx: number, ny: number): [number, number] => {
    const [mx, my] = [by * nx - ay * ny, ax * ny - bx * nx];
    const size = Math.hypot(mx, my) * (mirrored ? -1 : 1);
    return [mx / size, my / size];
  };
  const turnedSide: Record<Side, Side> = {
    sill: 'sill',
    head: 'head',
    'jamb-left': 'jamb-right',
    'jamb-right': 'jamb-left',
  };
  const chord = (c: Chord | null, flip: boolean, seam: boolean): Chord | null => {
    if (!c) return null;
    const [a, b] = [normal(c.ax, c.ay), normal(c.bx, c.by)];
    const [p, q] = flip ? [b, a] : [a, b];
    return { ax: p[0], ay: p[1], bx: q[0], by: q[1], seam };
  };
  if (!mirrored)
    return { count, xs: x, ys: y, next, loops, side, arcs: arcs.map((c) => chord(c, false, c?.seam ?? false)) };
  // Edge i of the turned outline leaves point i towards the point before it: it is the old edge that came from there.
  return {
    count,
    xs: x,
    ys: y,
    next: before,
    loops,
    side: Array.from(before, (e) => (keep ? side[e]! : turnedSide[side[e]!])),
    arcs: Array.from(before, (e, i) => chord(arcs[e]!, true, arcs[i]?.seam ?? false)),
  };
}

/** An element that stands in the way of an opening, in front of its own or behind. */
export interface Along {
  element: string;
  /** From the outer face of its own element along its direction to the nearer face, metres; less than 0 where it stands in front. */
  distance: number;
}

/** The elements that an opening's axis passes through besides its own, the nearest first. */
export function elementsAlong(document: ProjectDocument, opening: Opening, placed: Placed): Along[] {
  const own = document.elements[opening.element];
  if (!own) return [];
  const sheets = sheetsOf(document);
  const aim = aimOf(sheets.on(own.id, opening.face)!, opening, placed);
  const axis = plus(aim.point, aim.y, placed.profile.height / 2);
  const found: Along[] = [];
  for (const element of Object.values(document.elements)) {
    if (element.id === own.id) continue;
    const distance = distanceTo(sheets.of(element.id)!, extentOf(element), axis, aim.direction);
    if (distance !== null) found.push({ element: element.id, distance });
  }
  return found.sort((a, b) => Math.abs(a.distance) - Math.abs(b.distance));
}

/** How far along a line an element's nearer face is, or null where the line passes it by. */
function distanceTo(
  { chart, thickness }: Sheet,
  { length, height }: { length: number; height: number },
  from: Vector,
  way: Vector,
): number | null {
  const frame = chart.kind === 'bent' ? chart.frame : undefined;
  const [point, direction] = frame ? [placedIn(frame, from), turnedIn(frame, way)] : [from, way];
  if (chart.kind !== 'flat') {
    const level = Math.hypot(direction[0], direction[1]);
    if (level < grazing) return null;
    const at = [0, thickness]
      .flatMap((n) => hitsOn(chart, n, point, [direction[0] / level, direction[1] / level]))
      .map((hit) => hit.at / level)
      .filter((far) => {
        const t = point[2] + far * direction[2] - chart.origin[2];
        return t >= 0 && t <= height;
      });
    return at.length > 0 ? at.reduce((best, far) => (Math.abs(far) < Math.abs(best) ? far : best)) : null;
  }
  const into = dot(direction, chart.inward);
  if (Math.abs(into) < grazing) return null;
  const hits = [0, thickness].map((n) => {
    const at = (n - dot(plus(point, chart.origin, -1), chart.inward)) / into;
    const r = plus(plus(point, direction, at), chart.origin, -1);
    const [s, t] = [dot(r, chart.along), dot(r, chart.up)];
    return s >= 0 && s <= length && t >= 0 && t <= height ? at : null;
  });
  const inside = hits.filter((at): at is number => at !== null);
  return inside.length > 0 ? Math.min(...inside) : null;
}
