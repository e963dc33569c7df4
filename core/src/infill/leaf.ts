/** Leaves: frames with what they hold, as meshes of their own that turn, slide or fold. */
import type { Leaf } from '@yard-arch/document';
import { extentOf, half, moved, type Area, type Spot } from './area.ts';
import { NotDivided } from './divide.ts';
import { amid } from './fillings.ts';
import { nanometre } from '../tolerances.ts';
import { type Range } from './solids.ts';

/** How a leaf moves: it turns about an axis through a point, by so many degrees, or slides by a share of a way. In directions of a part's own. */
export interface Motion {
  kind: 'turn' | 'slide';
  at: readonly [number, number, number];
  /** The axis that it turns about, as the right hand turns; or all the way that it slides, metres. */
  along: readonly [number, number, number];
  /** By how much it has moved: degrees, or a share. */
  by: number;
  /** By how much that is varied from opening to opening, at most. */
  vary: number;
  /** How many times as far it turns as its leaf stands open: leaves that fold turn back on those before them twice as far. */
  times: number;
  /** In how many other leaves the leaf hangs. */
  level: number;
  /** Which leaf it is of: those that fold together vary alike. */
  of: string;
}

/** One leaf as it is to be built, and how it moves, from the first that it hangs on. */
export interface Hung {
  area: Area;
  range: Range;
  motions: readonly Motion[];
  /** How drawings mark it. */
  mark: Spot[];
}

const uprightAxis = [0, 0, 1] as const;
const levelAxis = [1, 0, 0] as const;

/** The leaves that stand in an area, each clear of what is about it: one, or as many as fold. @throws NotDivided */
export function hungIn(leaf: Leaf, area: Area, range: Range, level: number): Hung[] {
  const depth = leaf.hung.startsWith('slides')
    ? amid(trackOf(leaf, range), leaf.frame.depth)
    : amid(range, leaf.frame.depth);
  const blocked = range.lip !== undefined && (range.against === 'from') === (leaf.opens === 'outward');
  if (blocked && leaf.hung !== 'fixed' && !leaf.hung.startsWith('slides'))
    throw new NotDivided('its leaf opens against the rebate of its frame');
  if (range.lip !== undefined && leaf.hung.startsWith('pivoted'))
    throw new NotDivided('its leaf is pivoted, and cannot turn in the rebate of its frame');
  const clearOf = (one: Area): Area => {
    const clear = moved(one, () => -leaf.clearance);
    if (!clear) throw new NotDivided('it is too small for its leaf');
    return clear.area;
  };
  if (leaf.hung !== 'folds left' && leaf.hung !== 'folds right') {
    const clear = clearOf(area);
    const motion = motionOf(leaf, clear, depth, level);
    return [{ area: clear, range: depth, motions: motion ? [motion] : [], mark: markOf(leaf.hung, clear) }];
  }
  return folding(leaf, area, depth, level).map(({ area: one, ...rest }) => ({ area: clearOf(one), ...rest }));
}

/** Where what slides runs: behind or before what it passes. */
function trackOf({ opens }: Leaf, range: Range): Range {
  const { from, to, against } = range;
  const middle = (from + to) / 2;
  return opens === 'inward'
    ? { ...range, from: middle, against: against ?? 'from' }
    : { ...range, to: middle, against: against ?? 'to' };
}

function motionOf(leaf: Leaf, area: Area, { from, to }: Range, level: number): Motion | null {
  const { hung, opens, angle, slid = 0, vary = 0 } = leaf;
  if (hung === 'fixed') return null;
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const [x, y, z] = [(left + right) / 2, (from + to) / 2, (low + high) / 2];
  const inward = opens === 'inward' ? 1 : -1;
  const edge = opens === 'inward' ? to : from;
  const turn = (at: Motion['at'], along: Motion['at'], way: number): Motion => ({
    kind: 'turn',
    at,
    along: [along[0] * way, along[1] * way, along[2] * way],
    by: angle,
    vary,
    times: 1,
    level,
    of: at.join(' '),
  });
  const slide = (along: Motion['at']): Motion => ({
    kind: 'slide',
    at: [0, 0, 0],
    along,
    by: slid,
    vary: vary / 100,
    times: 1,
    level,
    of: along.join(' '),
  });
  switch (hung) {
    // Turned about z by the right hand, what lies to the right of the hinge goes into the wall.
    case 'left':
    case 'folds left':
      return turn([left, edge, 0], uprightAxis, inward);
    case 'right':
    case 'folds right':
      return turn([right, edge, 0], uprightAxis, -inward);
    case 'bottom':
      return turn([0, edge, low], levelAxis, -inward);
    case 'top':
      return turn([0, edge, high], levelAxis, inward);
    case 'pivoted upright':
      return turn([x, y, 0], uprightAxis, inward);
    case 'pivoted level':
      return turn([0, y, z], levelAxis, -inward);
    case 'slides left':
      return slide([left - right, 0, 0]);
    case 'slides right':
      return slide([right - left, 0, 0]);
    case 'slides up':
      return slide([0, 0, high - low]);
    case 'slides down':
      return slide([0, 0, low - high]);
  }
}

/** Leaves that fold: the first hung on its side, each further one on the one before, turning back on it twice as far. */
function folding(leaf: Leaf, area: Area, range: Range, level: number): Hung[] {
  const { hung, opens, angle, vary = 0, folds = 2 } = leaf;
  const leftward = hung === 'folds left';
  const [left, right] = extentOf(area, 0);
  const each = (right - left) / folds;
  const inward = opens === 'inward' ? 1 : -1;
  const found: Hung[] = [];
  let motions: Motion[] = [];
  for (let i = 0; i < folds; i++) {
    const [from, to] = leftward ? [left + i * each, left + (i + 1) * each] : [right - (i + 1) * each, right - i * each];
    const joint = leftward ? from : to;
    const back = i % 2 === 1 ? -1 : 1;
    motions = [
      ...motions,
      {
        kind: 'turn',
        at: [joint, (opens === 'inward') === back > 0 ? range.to : range.from, 0],
        along: [0, 0, (leftward ? 1 : -1) * inward * back],
        by: angle,
        vary,
        times: i === 0 ? 1 : 2,
        level,
        of: `folding ${leftward ? left : right}`,
      },
    ];
    const own = between(area, from, to);
    found.push({ area: own, range, motions, mark: markOf(leftward === back > 0 ? 'left' : 'right', own) });
  }
  return found;
}

/** What of an area lies between two uprights. @throws NotDivided */
function between(area: Area, from: number, to: number): Area {
  const right = half(area, 0, from, true);
  const own = right && right !== 'apart' ? half(right, 0, to, false) : right;
  if (!own || own === 'apart') throw new NotDivided('it comes apart where its leaves would fold');
  return own;
}

/** As drawings mark it: lines from the ends of the free side to the middle of the hung one; of what is pivoted, its axis; of what slides, an arrow. */
function markOf(hung: Leaf['hung'], area: Area): Spot[] {
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const [x, z] = [(left + right) / 2, (low + high) / 2];
  const [dx, dz] = [(right - left) / 2, (high - low) / 2];
  const head = 0.3 * Math.min(dx, dz);
  const arrow = (ax: number, az: number): Spot[] => {
    const tip: Spot = [x + 0.55 * ax * dx, z + 0.55 * az * dz];
    const barb = (turn: number): Spot => [tip[0] - head * (ax - turn * az), tip[1] - head * (az + turn * ax)];
    return [[x - 0.55 * ax * dx, z - 0.55 * az * dz], tip, barb(0.5), tip, barb(-0.5)];
  };
  switch (hung) {
    case 'left':
    case 'folds left':
      return [
        [right, high],
        [left, z],
        [right, low],
      ];
    case 'right':
    case 'folds right':
      return [
        [left, high],
        [right, z],
        [left, low],
      ];
    case 'top':
      return [
        [left, low],
        [x, high],
        [right, low],
      ];
    case 'bottom':
      return [
        [left, high],
        [x, low],
        [right, high],
      ];
    case 'pivoted upright':
      return [
        [x, low],
        [x, high],
      ];
    case 'pivoted level':
      return [
        [left, z],
        [right, z],
      ];
    case 'slides left':
      return arrow(-1, 0);
    case 'slides right':
      return arrow(1, 0);
    case 'slides up':
      return arrow(0, 1);
    case 'slides down':
      return arrow(0, -1);
    case 'fixed':
      return [];
  }
}

/** The strip that covers the joint beside a leaf's free stile: where it is seen, and from which depth to which. */
export function coverOf(leaf: Leaf, area: Area, { from, to }: Range): { area: Area; range: Range } | null {
  const { cover, hung, opens, clearance } = leaf;
  if (!cover || (hung !== 'left' && hung !== 'right')) return null;
  const [left, right] = extentOf(area, 0);
  const edge = hung === 'left' ? right + clearance : left - clearance;
  const inner = hung === 'left' ? edge - cover.width / 2 : edge + cover.width / 2;
  const own = half(area, 0, inner, hung === 'left');
  if (!own || own === 'apart') return null;
  // It laps over the joint by as much again as it lies on its own leaf.
  const lap = cover.width / 2 + clearance;
  const points = own.points.map(([x, z]): Spot => [
    Math.abs(x - (hung === 'left' ? right : left)) < nanometre ? x + (hung === 'left' ? lap : -lap) : x,
    z,
  ]);
  const range = opens === 'inward' ? { from: from - cover.depth, to: from } : { from: to, to: to + cover.depth };
  return { area: { points, edges: own.edges.map(() => ({ side: null, chord: null })) }, range };
}
