/** Curves followed by tangent arcs. */
import type { OutlinePoint } from '@yard-arch/document';
import type { Spot } from './affine.ts';
import { spend, type Budget } from './budget.ts';

/** A curve from 0 to 1. */
export type Curve = (t: number) => Spot;

/** How fine a curve is split at most: into 2¹² pieces. */
const deepest = 12;
/** Where a curve is compared with the arcs that stand for it. */
const looks = [0.15, 0.35, 0.5, 0.65, 0.85];

/** Adds a curve to a row of points as tangent arcs that leave it by no more than the tolerance; its first point is there already, its last is left to the next. */
export function follow(points: OutlinePoint[], curve: Curve, budget: Budget): void {
  const piece = (from: number, to: number, depth: number): void => {
    const arcs = biarc(curve(from), tangent(curve, from, from, to), curve(to), tangent(curve, to, from, to));
    const near = (t: number): boolean => arcs.some((arc) => offArc(arc, curve(t)) <= budget.tolerance);
    if (depth < deepest && !looks.every((share) => near(from + (to - from) * share))) {
      const middle = (from + to) / 2;
      piece(from, middle, depth + 1);
      piece(middle, to, depth + 1);
      return;
    }
    spend(budget, arcs.length);
    for (const { bx, by, bulge } of arcs) {
      const last = points.at(-1)!;
      if (bulge !== 0) last.bulge = bulge;
      points.push({ x: bx, y: by });
    }
  };
  // In two at least: a closed curve has no chord.
  piece(0, 0.5, 1);
  piece(0.5, 1, 1);
}

interface Arc {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  bulge: number;
}

/** The way a curve goes at one of its points, from three points within a piece of it. */
function tangent(curve: Curve, t: number, from: number, to: number): Spot {
  const h = (to - from) * 1e-4 * (t === from ? 1 : -1);
  const [p, q, r] = [curve(t), curve(t + h), curve(t + 2 * h)];
  const [dx, dy] = [0, 1].map((i) => (-3 * p[i]! + 4 * q[i]! - r[i]!) * Math.sign(h)) as [number, number];
  const size = Math.hypot(dx, dy) || 1;
  return [dx / size, dy / size];
}

/** Bulges below this are straight, above that no arc of a curve that is followed. */
const [straight, fullest] = [1e-7, 8];

/** Two arcs that leave the first point and reach the last in given directions, and go on in one direction where they meet; a straight line where they cannot. */
function biarc([ax, ay]: Spot, [ux, uy]: Spot, [bx, by]: Spot, [vx, vy]: Spot): Arc[] {
  const [cx, cy] = [bx - ax, by - ay];
  const chord = cx * cx + cy * cy;
  const line: Arc[] = [{ ax, ay, bx, by, bulge: 0 }];
  if (chord === 0) return [];
  // The lengths of both tangents to where they meet are taken equal: d² · 2(1 − u·v) + 2d · c·(u + v) = c².
  const [along, alike] = [cx * (ux + vx) + cy * (uy + vy), 1 - (ux * vx + uy * vy)];
  const d =
    alike > 1e-9
      ? (-along + Math.sqrt(along * along + 2 * alike * chord)) / (2 * alike)
      : along > 0
        ? chord / (2 * along)
        : NaN;
  if (!(d > 0) || !Number.isFinite(d)) return line;
  const [mx, my] = [(ax + bx + d * (ux - vx)) / 2, (ay + by + d * (uy - vy)) / 2];
  const first = bulgeFrom(ux, uy, mx - ax, my - ay);
  const second = bulgeFrom(bx - mx, by - my, vx, vy);
  if (Math.max(Math.abs(first), Math.abs(second)) > fullest) return line;
  if (Math.abs(first) < straight && Math.abs(second) < straight) return line;
  return [
    { ax, ay, bx: mx, by: my, bulge: Math.abs(first) < straight ? 0 : first },
    { ax: mx, ay: my, bx, by, bulge: Math.abs(second) < straight ? 0 : second },
  ];
}

/** The bulge of an arc whose way turns from one direction into its chord's, or from its chord's into another. */
const bulgeFrom = (ux: number, uy: number, vx: number, vy: number): number =>
  Math.tan(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) / 2);

/** How far a point is off an arc. */
function offArc({ ax, ay, bx, by, bulge }: Arc, [x, y]: Spot): number {
  const [dx, dy] = [bx - ax, by - ay];
  const share = ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1);
  if (share < -0.01 || share > 1.01) return Infinity;
  if (bulge === 0) return Math.abs((x - ax) * dy - (y - ay) * dx) / (Math.hypot(dx, dy) || 1);
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(ax + bx) / 2 - dy * off, (ay + by) / 2 + dx * off];
  return Math.abs(Math.hypot(x - cx, y - cy) - Math.hypot(ax - cx, ay - cy));
}
