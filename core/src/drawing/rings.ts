/** Strokes joined end to end into closed rings, and what lies in what. */
import type { FreeOutline, OutlinePoint } from '@yard-arch/document';
import Flatbush from 'flatbush';
import { arcPoint } from '../profile/profile.ts';
import { boundsOf, edgesOf } from '../profile/free.ts';
import type { Spot } from './affine.ts';
import type { Stroke } from './pen.ts';

export interface Ring {
  outline: FreeOutline;
  /** Of the box about it: left, low, right, high. */
  box: readonly [number, number, number, number];
  /** What it encloses, always positive. */
  area: number;
  /** The ring that it lies in directly, by its index. */
  within: number | null;
  /** In how many rings it lies. */
  depth: number;
}

/** A row of strokes that does not close, with both its ends. */
export interface Gap {
  points: readonly OutlinePoint[];
  ends: readonly [Spot, Spot];
}

export interface Rings {
  /** The largest first. */
  rings: Ring[];
  open: Gap[];
}

const spot = ({ x, y }: OutlinePoint): Spot => [x, y];

/** Joins strokes whose ends are no further apart than a gap (in the drawing's units). */
export function ringsOf(strokes: readonly Stroke[], gap: number): Rings {
  const whole = strokes.filter(({ points }) => points.every(({ x, y, bulge = 0 }) => Number.isFinite(x + y + bulge)));
  const { closed, open } = chained(whole, gap);
  const rings = closed.flatMap((outline) => ringOf(outline)).sort((a, b) => b.area - a.area);
  return {
    rings: nested(rings),
    open: open.map((points) => ({ points, ends: [spot(points[0]!), spot(points.at(-1)!)] })),
  };
}

/** What a ring encloses, or none where that is nothing. */
export function ringOf(outline: OutlinePoint[]): Ring[] {
  if (outline.length < 2) return [];
  const edges = edgesOf(outline);
  if (edges.length < 2) return [];
  const polygon = edges.flatMap((edge): Spot[] =>
    edge.kind === 'line'
      ? [[edge.ax, edge.ay]]
      : Array.from({ length: 16 }, (_, k) => arcPoint(edge, edge.from + ((edge.to - edge.from) * k) / 16)),
  );
  const area = Math.abs(enclosed(polygon));
  const box = boundsOf(edges);
  if (!(area > 1e-9 * Math.hypot(box[2] - box[0], box[3] - box[1]) ** 2)) return [];
  return [{ outline, box, area, within: null, depth: 0 }];
}

const enclosed = (polygon: readonly Spot[]): number =>
  polygon.reduce((sum, [ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % polygon.length]!;
    return sum + (ax * by - bx * ay) / 2;
  }, 0);

/** Each ring with the smallest that holds its first point; rings come largest first. */
function nested(rings: Ring[]): Ring[] {
  const polygons = rings.map(({ outline }) => outline.map(spot));
  for (const [i, ring] of rings.entries())
    for (let j = i - 1; j >= 0; j--) {
      if (!holds(polygons[j]!, polygons[i]![0]!) || !boxed(rings[j]!, ring)) continue;
      ring.within = j;
      ring.depth = rings[j]!.depth + 1;
      break;
    }
  return rings;
}

const boxed = ({ box: a }: Ring, { box: b }: Ring): boolean =>
  a[0] <= b[0] && a[1] <= b[1] && a[2] >= b[2] && a[3] >= b[3];

/** By the even-odd rule. */
function holds(polygon: readonly Spot[], [x, y]: Spot): boolean {
  let inside = false;
  polygon.forEach(([ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % polygon.length]!;
    if (ay > y !== by > y && x < ax + ((bx - ax) * (y - ay)) / (by - ay)) inside = !inside;
  });
  return inside;
}

/** Strokes in rows: each is joined to the one that begins or ends nearest to where the row ends. */
function chained(strokes: readonly Stroke[], gap: number): { closed: OutlinePoint[][]; open: OutlinePoint[][] } {
  const closed: OutlinePoint[][] = [];
  const loose: OutlinePoint[][] = [];
  for (const { points, closed: shut } of strokes)
    if (shut || near(points[0]!, points.at(-1)!, gap)) closed.push(shutUp(points, gap));
    else loose.push(points);
  const open: OutlinePoint[][] = [];
  if (loose.length === 0) return { closed, open };
  const index = new Flatbush(2 * loose.length);
  for (const points of loose) for (const { x, y } of [points[0]!, points.at(-1)!]) index.add(x, y, x, y);
  index.finish();
  const taken = loose.map(() => false);
  /** Goes on from the end of a row as far as there is something to go on with. */
  const grow = (row: OutlinePoint[]): void => {
    for (;;) {
      const { x, y } = row.at(-1)!;
      if (row.length > 2 && near(row[0]!, row.at(-1)!, gap)) return;
      const [found] = index.neighbors(x, y, 1, gap, (i) => !taken[i >> 1]!);
      if (found === undefined) return;
      taken[found >> 1] = true;
      const next = loose[found >> 1]!;
      append(row, found % 2 === 0 ? next : turned(next));
    }
  };
  loose.forEach((points, i) => {
    if (taken[i]!) return;
    taken[i] = true;
    let row = points.map((point) => ({ ...point }));
    grow(row);
    if (!near(row[0]!, row.at(-1)!, gap)) {
      row = turned(row);
      grow(row);
    }
    if (near(row[0]!, row.at(-1)!, gap) && row.length > 2) closed.push(shutUp(row, gap));
    else open.push(row);
  });
  return { closed, open };
}

const near = (a: OutlinePoint, b: OutlinePoint, gap: number): boolean => Math.hypot(a.x - b.x, a.y - b.y) <= gap;

/** The row's last point becomes where the next begins. */
function append(row: OutlinePoint[], next: readonly OutlinePoint[]): void {
  row.pop();
  const [first, ...rest] = next.map((point) => ({ ...point }));
  row.push(first!, ...rest);
}

/** A closed ring without its last point, which is its first once more. */
function shutUp(points: readonly OutlinePoint[], gap: number): OutlinePoint[] {
  const ring = points.map((point) => ({ ...point }));
  if (ring.length > 2 && near(ring[0]!, ring.at(-1)!, gap)) ring.pop();
  return ring;
}

/** A row the other way round. */
function turned(points: readonly OutlinePoint[]): OutlinePoint[] {
  return points
    .map(({ x, y }, i): OutlinePoint => {
      const bulge = points[i - 1]?.bulge;
      return bulge ? { x, y, bulge: -bulge } : { x, y };
    })
    .reverse();
}
