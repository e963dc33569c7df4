/** A bay in plan: its half severies, and how high what stands over them is. Metres. */
import type { Vector } from '../vector.ts';
import type { Spot } from './line.ts';

export type InPlan = readonly [number, number];

/** A place of the profile: the share of the half span, how high it is, and the way out of it there (towards the crown, up). */
export interface Row {
  w: number;
  z: number;
  out: Spot;
}

/** Half a severy in plan: from a corner to the crown of its side; `hand` is 1 where that runs on counter-clockwise, −1 back. */
export interface Half {
  corner: InPlan;
  foot: InPlan;
  hand: 1 | -1;
}

export interface BayPlan {
  halves: readonly Half[];
  middle: InPlan;
  groin: boolean;
  /** How far the profile reaches over the first half severy, metres. */
  reach: number;
}

export const difference = ([ax, ay]: InPlan, [bx, by]: InPlan): InPlan => [ax - bx, ay - by];
export const between = ([ax, ay]: InPlan, [bx, by]: InPlan, share: number): InPlan => [
  ax + share * (bx - ax),
  ay + share * (by - ay),
];

/** The directions of half a severy in plan, square to each other: that in which its profile runs up, and how far, and that of its level rulings. */
export function waysOf(
  { middle, groin }: BayPlan,
  { corner, foot }: Half,
): { across: InPlan; level: InPlan; wide: number } {
  const [ex, ey] = difference(foot, corner);
  const [mx, my] = difference(middle, foot);
  const [lx, ly] = groin ? [mx, my] : [ex, ey];
  const [rx, ry] = groin ? [ex, ey] : [mx, my];
  const long = Math.hypot(lx, ly);
  const level: InPlan = [lx / long, ly / long];
  const off = rx * level[0] + ry * level[1];
  const [ax, ay] = [rx - off * level[0], ry - off * level[1]];
  const wide = Math.hypot(ax, ay);
  return { across: [ax / wide, ay / wide], level, wide };
}

/** How high rows are above a place in plan, and the way out there. */
export function heightAt(bay: BayPlan, rows: readonly Row[], place: InPlan): { z: number; normal: Vector } | null {
  for (const { corner, foot } of bay.halves) {
    const [ex, ey] = difference(foot, corner);
    const [mx, my] = difference(bay.middle, foot);
    const [px, py] = difference(place, corner);
    const det = ex * my - ey * mx;
    const [a, b] = [(px * my - py * mx) / det, (ex * py - ey * px) / det];
    if (a < -1e-9 || a > 1 + 1e-9 || b < -1e-9 || b > a + 1e-9) continue;
    const w = bay.groin ? a : b;
    const k = Math.max(
      1,
      rows.findIndex((row) => row.w >= w - 1e-12),
    );
    const [p, q] = [rows[k - 1]!, rows[k]!];
    const share = q.w - p.w > 1e-12 ? (w - p.w) / (q.w - p.w) : 1;
    const { across, wide } = waysOf(bay, { corner, foot, hand: 1 });
    const [run, rise] = [(q.w - p.w) * wide, q.z - p.z];
    const size = Math.hypot(run, rise) || 1;
    return {
      z: p.z + share * (q.z - p.z),
      normal: [(-rise * across[0]) / size, (-rise * across[1]) / size, run / size],
    };
  }
  return null;
}
