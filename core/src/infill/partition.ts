/** Parting an area by strips laid across it: what of it lies in a strip becomes a piece of a bar, what lies in none a light. */
import { arrange, origin, TooTangled, type Arrangement } from '../mesh/arrangement.ts';
import { micrometre, millimetre } from '../tolerances.ts';
import { areaWithin, type Area, type AreaEdge, type Chord, type Spot } from './area.ts';
import { NotDivided } from './divide.ts';

/** A bar as it is seen, reaching over the area's edge where it is to end there. */
export interface StripOutline extends Area {
  /** Along which its texture runs. */
  along: Spot;
}

export interface Piece {
  area: Area;
  /** The first of the strips that it lies in. */
  strip: StripOutline;
}

export interface Parted {
  bars: Piece[];
  lights: Area[];
}

/** The most pieces that one field is parted into. */
export const mostPieces = 4000;

/** The least that a light may be, square metres: a square of a millimetre. */
const leastLight = millimetre * millimetre;

/** Parts an area. Pieces share their corners exactly, and together are the area. @throws NotDivided */
export function parted(area: Area, strips: readonly StripOutline[]): Parted {
  const operands: Area[] = [area, ...strips];
  let laid: Arrangement;
  try {
    laid = arranged(operands);
  } catch (error) {
    if (error instanceof TooTangled) throw new NotDivided('its bars cross each other in too many places');
    throw error;
  }
  const found: Parted = { bars: [], lights: [] };
  for (const [half, patch] of firstHalves(laid)) {
    const winding = laid.winding[patch]!;
    if (!((winding.get(0) ?? 0) > 0)) continue;
    const piece = traced(laid, half, operands);
    const size = areaWithin(piece.points);
    if (size < 0) throw new NotDivided('its bars leave a light that goes all round another');
    const holding = [...winding.keys()].filter((operand) => operand > 0).sort((a, b) => a - b)[0];
    if (holding !== undefined) {
      if (size > micrometre * micrometre) found.bars.push({ area: piece, strip: strips[holding - 1]! });
    } else if (size > leastLight) found.lights.push(piece);
    if (found.bars.length + found.lights.length > mostPieces)
      throw new NotDivided(`it would be in more than ${mostPieces} pieces`);
  }
  return found;
}

/**
 * What two areas have in common, edges keeping their side and arc from whichever they are of; where that is more than one piece, the largest.
 * @returns null where they have nothing in common, or it is hollow.
 */
export function common(a: Area, b: Area): Area | null {
  const operands = [a, b];
  const laid = arranged(operands);
  let [largest, size]: [Area | null, number] = [null, micrometre * micrometre];
  for (const [half, patch] of firstHalves(laid)) {
    const winding = laid.winding[patch]!;
    if (!((winding.get(0) ?? 0) > 0 && (winding.get(1) ?? 0) > 0)) continue;
    const piece = traced(laid, half, operands, true);
    const own = areaWithin(piece.points);
    if (own < 0) return null;
    if (own > size) [largest, size] = [piece, own];
  }
  return largest;
}

/** Areas laid over one another. @throws TooTangled */
const arranged = (areas: readonly Area[]): Arrangement =>
  arrange(
    areas.map(({ points }) => ({
      xs: Float64Array.from(points, ([x]) => x),
      ys: Float64Array.from(points, ([, y]) => y),
      count: points.length,
    })),
  );

/** One half-edge of each patch's boundary, and the patch. */
function firstHalves({ patch }: Arrangement): Map<number, number> {
  const first = new Map<number, number>();
  const seen = new Set<number>();
  patch.forEach((one, half) => {
    if (seen.has(one)) return;
    seen.add(one);
    first.set(half, one);
  });
  return first;
}

/** The boundary that a half-edge is of, edges knowing the side and the arc that they are of. @param sided whether edges of all keep their sides, not of the first alone */
function traced(laid: Arrangement, first: number, operands: readonly Area[], sided = false): Area {
  const [points, edges]: [Spot[], AreaEdge[]] = [[], []];
  let half = first;
  do {
    const from = origin(laid, half);
    const to = origin(laid, half ^ 1);
    points.push([laid.xs[from]!, laid.ys[from]!]);
    edges.push(edgeOf(laid, half, operands, { to: [laid.xs[to]!, laid.ys[to]!], from: points.at(-1)!, sided }));
    const out = laid.around[to]!;
    half = out[(laid.place[half ^ 1]! + out.length - 1) % out.length]!;
  } while (half !== first);
  return { points, edges };
}

function edgeOf(
  laid: Arrangement,
  half: number,
  operands: readonly Area[],
  { to, from, sided }: { to: Spot; from: Spot; sided: boolean },
): AreaEdge {
  const covers = laid.covers[half >> 1]!;
  // The area's own edges come first, so that frames within keep to its sides.
  const cover = covers.reduce((a, b) => (b.operand < a.operand ? b : a));
  const { points, edges } = operands[cover.operand]!;
  const { side, chord } = edges[cover.source]!;
  const same = (cover.way === 1) === ((half & 1) === 0);
  const [start, end] = [points[cover.source]!, points[(cover.source + 1) % points.length]!];
  const own = chord && between(chord, shareOf(start, end, same ? from : to), shareOf(start, end, same ? to : from));
  return {
    side: sided || cover.operand === 0 ? side : null,
    chord: own && (same ? own : { ax: -own.bx, ay: -own.by, bx: -own.ax, by: -own.ay }),
  };
}

function shareOf([ax, ay]: Spot, [bx, by]: Spot, [x, y]: Spot): number {
  const [dx, dy] = [bx - ax, by - ay];
  return Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
}

/** Normals at two places of a chord, as they turn from its start to its end. */
function between({ ax, ay, bx, by }: Chord, from: number, to: number): Chord {
  const at = (share: number): Spot => {
    const [x, y] = [ax + share * (bx - ax), ay + share * (by - ay)];
    const size = Math.hypot(x, y);
    return [x / size, y / size];
  };
  const [a, b] = [at(from), at(to)];
  return { ax: a[0], ay: a[1], bx: b[0], by: b[1] };
}
