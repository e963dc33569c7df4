/** How what stands in and about an opening goes through the element with it: straight, turning in with a curve, or aside. */
import { omit } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import {
  directionsAt,
  facetAt,
  pointAt,
  ribAt,
  turnedOut,
  upright,
  type BentChart,
  type Chart,
  type Rigid,
} from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { straightFrame, type StraightFrame } from '../reveal/frame.ts';
import type { Placed } from '../setout/placed.ts';
import { bentParts, goingThrough, sheared, turningIn, type Bend, type Place, type Reach } from './bent.ts';
import { guarded } from './guarded.ts';
import type { InfillPart, Stands } from './infill.ts';
import { dot, minus, type Vector } from '../vector.ts';

/** An opening as far as something can stand in it. */
export const clearIn = (placed: Placed): Placed => (placed.clear ? { ...placed, outline: placed.clear } : placed);

/** Where an opening's parts stand: on its own face at the middle of its width, square to the face or to the way in which the opening is carried through a curved one. */
export function placementOf({ chart }: Pick<Sheet, 'chart'>, placed: Placed): Rigid {
  const { s, t, profile, carrier } = placed;
  const middle = s + profile.width / 2;
  if (!carrier || chart.kind === 'flat') {
    const { along, up, inward } = directionsAt(chart, middle);
    return { origin: pointAt(chart, middle, t, 0), x: along, y: inward, z: up };
  }
  const frame = frameOf(chart, placed);
  const [x, y, z] = pointAt(upright(chart), middle, t, 0);
  const lift = carrier.slope * ((x - carrier.x) * carrier.way[0] + (y - carrier.y) * carrier.way[1]);
  const own: Rigid = { origin: [x, y, z + lift], x: frame.along, y: frame.inward, z: [0, 0, 1] };
  const { frame: at } = chart;
  if (!at) return own;
  const turned = turnedOut(at, own.origin);
  return {
    origin: [at.origin[0] + turned[0], at.origin[1] + turned[1], at.origin[2] + turned[2]],
    x: turnedOut(at, own.x),
    y: turnedOut(at, own.y),
    z: at.z,
  };
}

/** The way in which an opening goes straight through a curved face, from the middle of its place there. */
function frameOf(chart: BentChart, { s, profile, carrier }: Placed): StraightFrame {
  const square = straightFrame(upright(chart), s + profile.width / 2);
  return carrier
    ? { ...square, along: [...carrier.along, 0], inward: [...carrier.way, 0], slope: carrier.slope }
    : square;
}

/** How far an opening moves aside and up with every metre of depth, in the directions in which its parts stand; null where it goes square. */
function driftOf(chart: Chart, { drift, carrier }: Placed): readonly [number, number] | null {
  if (chart.kind === 'flat') return drift && (drift[0] !== 0 || drift[1] !== 0) ? drift : null;
  return carrier && carrier.slope !== 0 ? [0, carrier.slope] : null;
}

/** An opening as what stands in it finds it. */
export type Stood = Placed & Pick<Stands, 'narrowing' | 'ahead' | 'until'>;

const turnsIn = ({ pattern, carrier }: Placed): boolean => pattern.jambs === 'radial' && !carrier;

/**
 * An opening as what stands in it finds it: how it moves aside with the depth, and on a curve with radial jambs how it narrows; what follows a curve finds it square.
 * @returns the opening, and words for what differs
 */
export function asStoodIn({ chart }: Sheet, placed: Placed, follows = false): { stands: Stood; key: string } {
  const clear = clearIn(placed);
  const plain = placed.drift ? omit(clear, 'drift') : clear;
  if (follows && chart.kind === 'bent') return { stands: plain, key: '' };
  const drift = driftOf(chart, placed);
  const radial = chart.kind === 'bent' && turnsIn(placed);
  const bend = radial ? turningIn(chart, placeOf(chart, placed), { half: placed.profile.width / 2 }) : null;
  if (!drift && !bend) return { stands: plain, key: '' };
  return {
    stands: { ...plain, ...(drift ? { drift } : {}), ...(bend ? { narrowing: narrowingBy(bend) } : {}) },
    key: `${drift?.join() ?? ''} ${bend?.key ?? ''}`,
  };
}

/** An opening as its shutters find it, that lie against a curved face from its jambs to so far beyond: they hang where it is nearest. */
export function asShuttered({ chart }: Sheet, placed: Placed, lap: number): { stands: Stood; key: string } {
  if (chart.kind === 'flat') return { stands: placed, key: '' };
  const half = placed.profile.width / 2;
  const bend = bendFor('planted', chart, placed, { half: half + lap, near: 0, far: 0 });
  if (!bend || bend === 'square') return { stands: placed, key: '' };
  // What laps over the head has the face behind it all along.
  const all = bend.fold.at.map(({ along }) => along).filter((x) => Math.abs(x) < half + lap);
  const places = lap > 0 ? [0, half + lap, 0 - half - lap, ...all] : [];
  const ahead = Math.min(...[half, 0 - half, ...places].map((x) => bend.fold.point(x, 0, 0)[1]));
  return { stands: { ...placed, ahead }, key: `${ahead}` };
}

/** How far in below its face what goes through a curve with an opening meets a plane, metres: where that is furthest in, from jamb to jamb. */
export function depthTo({ chart }: Sheet, placed: Placed, { at, normal }: { at: Vector; normal: Vector }): number {
  const half = placed.profile.width / 2;
  const bend = bendFor('set in', chart, placed, { half, near: 0, far: placed.depth });
  if (!bend || bend === 'square') return placed.depth;
  const beyond = (x: number, depth: number): number => dot(normal, minus(bend.fold.point(x, depth, 0), at));
  const depths = [half, 0, 0 - half, ...bend.fold.at.map(({ along }) => along)].map((x) => {
    const [near, far] = [beyond(x, 0), beyond(x, placed.depth)];
    return (placed.depth * near) / (near - far);
  });
  return Math.max(...depths);
}

/** Where what is so far from the middle on the outer face comes, at so much depth straight in from there. */
function narrowingBy({ fold }: Bend): (x: number, depth: number) => number {
  return (x, depth) => {
    const [near, far] = [fold.point(x, 0, 0), fold.point(x, 1, 0)];
    return near[0] + ((depth - near[1]) / (far[1] - near[1])) * (far[0] - near[0]);
  };
}

const placeOf = (chart: Chart, placed: Placed): Place => ({
  middle: placed.s + placed.profile.width / 2,
  low: placed.t,
  placement: placementOf({ chart }, placed),
});

/**
 * How something goes with its opening. What is set in its wall or its reveal follows that round a curve, and aside where it goes aside; what is planted on the face goes round a curve
 * with it; what stands there is flat.
 */
export type Going = 'set in' | 'planted' | 'standing';

const bends = new LRUCache<string, readonly InfillPart[] | string>({ max: 2048 });

/** Parts as they go with their opening. @param sheet of the face on which the opening is told @param flat as they are where it goes square through a flat face */
export function carriedWith(
  going: Going,
  { chart }: Sheet,
  placed: Placed,
  flat: readonly InfillPart[] | string,
): readonly InfillPart[] | string {
  if (going === 'standing' || typeof flat === 'string' || flat.length === 0) return flat;
  const bend = bendFor(going, chart, placed, reachOf(flat));
  if (bend === 'square') return flat;
  if (!bend) return 'the curve turns away within its width';
  // A leaf that stands open otherwise is the same mesh, and moves otherwise.
  const key = `${JSON.stringify(flat.map(({ part, motions }) => [part.key, motions]))} ${bend.key}`;
  let made = bends.get(key);
  if (made === undefined) bends.set(key, (made = guarded(flat[0]!.part.name, () => bentParts(flat, bend))));
  return made;
}

function bendFor(going: Going, chart: Chart, placed: Placed, reach: Reach): Bend | null | 'square' {
  if (chart.kind === 'bent' && turnsIn(placed)) return turningIn(chart, placeOf(chart, placed), reach);
  if (chart.kind === 'bent') return goingThrough(chart, frameOf(chart, placed), reach);
  const drift = driftOf(chart, placed);
  return drift && going === 'set in' ? sheared(drift) : 'square';
}

/** How far parts reach to either side, and into the wall. */
function reachOf(parts: readonly InfillPart[]): Reach {
  const reach: Reach = { half: 0, near: 0, far: 0 };
  for (const { part, about } of parts) {
    const { points } = part.mesh;
    const [x, y] = about ?? [0, 0];
    for (let i = 0; i < points.length; i += 3) {
      reach.half = Math.max(reach.half, Math.abs(points[i]! + x));
      reach.near = Math.min(reach.near, points[i + 1]! + y);
      reach.far = Math.max(reach.far, points[i + 1]! + y);
    }
  }
  return reach;
}

/** Where points of what stands in an opening are on its outline, and words for what that depends on. */
export interface OnOutline {
  /** From the middle of the outline: across, how deep below the face, and up. */
  at: (point: Vector) => Vector;
  key: string;
}

/** How an opening is met by what stands in it, if that reaches no further to either side than it is wide. */
export function toldOnOutline({ chart }: Pick<Sheet, 'chart'>, placed: Placed): OnOutline {
  if (chart.kind === 'flat') {
    const [dx, dz] = driftOf(chart, placed) ?? [0, 0];
    return { at: ([x, y, z]) => [x - dx * y, y, z - dz * y], key: `${dx} ${dz}` };
  }
  const plan = upright(chart);
  const frame = frameOf(chart, placed);
  const last = plan.s.length - 2;
  const home = facetAt(plan, frame.s);
  const bend = turningIn(chart, placeOf(chart, placed), { half: 1.5 * placed.profile.width });
  const at = ([x, y, z]: Vector): Vector => {
    const point = [0, 1].map((k) => (k === 0 ? frame.x : frame.y) + x * frame.along[k]! + y * frame.inward[k]!);
    let f = home;
    let told = belowFacet(plan, f, point);
    const way = told.share < 0 ? -1 : 1;
    while (way < 0 ? told.share < 0 && f > 0 : told.share > 1 && f < last) told = belowFacet(plan, (f += way), point);
    const s = plan.s[f]! + told.share * (plan.s[f + 1]! - plan.s[f]!);
    return [turnsIn(placed) ? s - frame.s : x, told.depth, z - frame.slope * y];
  };
  return { at, key: `${bend.key} ${turnsIn(placed)} ${JSON.stringify(placed.carrier ?? null)}` };
}

/** How deep a point in plan is below a facet, and at what share of it. */
function belowFacet(chart: BentChart, f: number, [px, py]: readonly number[]): { share: number; depth: number } {
  const [ax, ay] = ribAt(chart, f, 0);
  const [bx, by] = ribAt(chart, f + 1, 0);
  const length = Math.hypot(bx - ax, by - ay);
  const [dx, dy] = [(bx - ax) / length, (by - ay) / length];
  const depth = (px! - ax) * -dy + (py! - ay) * dx;
  const [cx, cy] = ribAt(chart, f, depth);
  const [ex, ey] = ribAt(chart, f + 1, depth);
  return { depth, share: ((px! - cx) * dx + (py! - cy) * dy) / ((ex - cx) * dx + (ey - cy) * dy) };
}
