/** How edges of members are worked: named mouldings, and those that are drawn, as they recede from the front towards the opening. */
import type { Moulding } from '@yard-arch/document';
import { edgesOf } from '../profile/free.ts';
import { arcPoint, type ProfileEdge } from '../profile/profile.ts';
import { nanometre } from '../tolerances.ts';
import { NotDivided } from './divide.ts';

/** A point of a worked edge: so deep behind the front, so much further in towards the opening; rounded where it says so. Metres. */
export interface Step {
  n: number;
  in: number;
  smooth: boolean;
}

export interface Worked {
  /** From the front to the inner face. */
  steps: readonly Step[];
  /** How much of the member's width and of its depth it takes. */
  wide: number;
  deep: number;
  /** How far in lines are seen from the front. */
  arrises: readonly number[];
}

/** Pieces of a quarter round. */
const pieces = 6;

/** @throws NotDivided of one that is drawn and cannot be run */
export function worked(moulding: Moulding): Worked {
  if (moulding.kind === 'drawn') return drawn(moulding.outline);
  const { kind, size } = moulding;
  return { steps: named(kind, size), wide: size, deep: size, arrises: [0, size] };
}

function named(kind: Exclude<Moulding['kind'], 'drawn'>, size: number): Step[] {
  const quarter = (at: (angle: number) => [number, number]): Step[] =>
    Array.from({ length: pieces + 1 }, (_, i) => {
      const [n, inward] = at((i * Math.PI) / 2 / pieces);
      return { n, in: inward, smooth: i > 0 && i < pieces };
    });
  switch (kind) {
    case 'chamfered':
      return [
        { n: 0, in: 0, smooth: false },
        { n: size, in: size, smooth: false },
      ];
    case 'rounded':
      return quarter((angle) => [size * (1 - Math.cos(angle)), size * Math.sin(angle)]);
    case 'hollowed':
      return quarter((angle) => [size * Math.sin(angle), size * (1 - Math.cos(angle))]);
    case 'ogee': {
      const half = size / 2;
      const first = quarter((angle) => [half * (1 - Math.cos(angle)), half * Math.sin(angle)]);
      const second = quarter((angle) => [half + half * Math.sin(angle), half + half * (1 - Math.cos(angle))]);
      first.at(-1)!.smooth = true;
      return [...first, ...second.slice(1)];
    }
  }
}

type Outline = Extract<Moulding, { kind: 'drawn' }>['outline'];

/** Drawn points within this are in one line. */
const near = 1e-5;
/** Edges that turn by less run on into one another: cosine of 10°. */
const tangent = Math.cos((10 * Math.PI) / 180);

const known = new WeakMap<Outline, Worked>();

/** A section as it is drawn. @throws NotDivided */
function drawn(outline: Outline): Worked {
  let made = known.get(outline);
  if (!made) known.set(outline, (made = drawnAnew(outline)));
  return made;
}

function drawnAnew(outline: Outline): Worked {
  const edges = edgesOf(outline).map(flattened);
  const all = edges.flatMap(({ points }) => points);
  const [left, low] = [Math.min(...all.map(([x]) => x)), Math.min(...all.map(([, y]) => y))];
  const [wide, deep] = [Math.max(...all.map(([x]) => x)) - left, Math.max(...all.map(([, y]) => y)) - low];
  const at = ([x, y]: Spot): Spot => [x - left, y - low];
  const chain = workedChain(
    edges.map(({ points, round }) => ({ points: points.map(at), round })),
    deep,
  );
  const steps = stepsOf(chain);
  const back = steps.find((step, i) => i > 0 && step.n < steps[i - 1]!.n - near);
  if (back) throw new NotDivided('its moulding turns back towards its front');
  if (steps.at(-1)!.in < wide - near) throw new NotDivided('its moulding ends before it is furthest in');
  const kept = tidied(steps, deep);
  return { steps: kept, wide, deep, arrises: kept.filter(({ smooth }) => !smooth).map((step) => step.in) };
}

type Spot = readonly [number, number];

/** An edge as points, the last that where the next begins. */
interface Piece {
  points: Spot[];
  round: boolean;
}

function flattened(edge: ProfileEdge): Piece {
  if (edge.kind === 'line')
    return {
      points: [
        [edge.ax, edge.ay],
        [edge.bx, edge.by],
      ],
      round: false,
    };
  const turn = edge.to - edge.from;
  const count = Math.max(2, Math.ceil((Math.abs(turn) * pieces) / (Math.PI / 2) - 1e-9));
  return {
    points: Array.from({ length: count + 1 }, (_, i) => arcPoint(edge, edge.from + (turn * i) / count)),
    round: true,
  };
}

/** The edges from the front to the inner face: all but the straight side on the left and the straight one behind, which meet where the member is whole. @throws NotDivided */
function workedChain(edges: readonly Piece[], deep: number): Piece[] {
  const corner = edges.findIndex(({ points }) => points[0]![0] < near && points[0]![1] > deep - near);
  if (corner < 0)
    throw new NotDivided('its moulding has no corner where it is whole, behind and away from the opening');
  const turned = [...edges.slice(corner), ...edges.slice(0, corner)];
  const isSide = ({ points, round }: Piece): boolean => !round && points.every(([x]) => x < near);
  const isBack = ({ points, round }: Piece): boolean => !round && points.every(([, y]) => y > deep - near);
  const first = turned.findIndex((edge) => !isSide(edge));
  const last = turned.findLastIndex((edge) => !isBack(edge));
  const begins = turned[first]?.points[0];
  if (first < 1 || !begins || begins[1] > near)
    throw new NotDivided('its moulding does not begin at its front, where its straight side ends');
  if (last === turned.length - 1 || last < first) throw new NotDivided('its moulding has no straight back');
  return turned.slice(first, last + 1);
}

/** The points of a chain, smooth where it goes round or runs on. */
function stepsOf(chain: readonly Piece[]): Step[] {
  const [[x, y]] = chain[0]!.points as [Spot];
  const steps: Step[] = [{ n: y, in: x, smooth: false }];
  chain.forEach(({ points, round }, k) => {
    const next = chain[k + 1];
    points.slice(1).forEach(([px, py], i) => {
      const ends = i === points.length - 2;
      const runsOn =
        ends && next !== undefined && (round || next.round)
          ? along(points.at(-2)!, points.at(-1)!, next.points[0]!, next.points[1]!)
          : false;
      steps.push({ n: py, in: px, smooth: ends ? runsOn : true });
    });
  });
  return steps;
}

function along(a: Spot, b: Spot, c: Spot, d: Spot): boolean {
  const [px, py, qx, qy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  return px * qx + py * qy > tangent * Math.hypot(px, py) * Math.hypot(qx, qy);
}

/** Without what says nothing: points that are the same, those in the front itself, and those between the ends of a step. */
function tidied(steps: readonly Step[], deep: number): Step[] {
  const level = steps.map((step, i): Step => {
    const n = Math.min(deep, Math.max(...steps.slice(0, i + 1).map((one) => one.n)));
    return { ...step, n: n < near ? 0 : n };
  });
  return level.filter(({ n }, i) => {
    const [before, after] = [level[i - 1], level[i + 1]];
    if (after && after.n - n < nanometre && n === 0) return false;
    if (before && after && n - before.n < nanometre && after.n - n < nanometre) return false;
    return !(before && n - before.n < nanometre && Math.abs(level[i]!.in - before.in) < nanometre);
  });
}
