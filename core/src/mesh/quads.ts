/** Quads: triangles of a face joined two by two where they make a convex four-sided one. */
import { parallel } from '../tolerances.ts';

/**
 * Joins triangles in pairs, the squarest first.
 * @param lines pairs of points between which an edge must stay.
 * @returns triangles in a new order, pairs side by side, and how many of the first of them are pairs; a pair's corners run round as first[0], first[1], second's other, first[2].
 */
export function paired(
  triangles: Uint32Array,
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  lines: ArrayLike<number>,
): { triangles: Uint32Array; pairs: number } {
  const count = triangles.length / 3;
  const held = new Set<number>();
  const total = xs.length;
  for (let i = 0; i < lines.length; i += 2)
    held.add(Math.min(lines[i]!, lines[i + 1]!) * total + Math.max(lines[i]!, lines[i + 1]!));
  const waiting = new Map<number, { triangle: number; k: number }>();
  const found: { a: number; ka: number; b: number; kb: number; badness: number }[] = [];
  for (let t = 0; t < count; t++)
    for (let k = 0; k < 3; k++) {
      const [p, q] = [triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!];
      const key = Math.min(p, q) * total + Math.max(p, q);
      if (held.has(key)) continue;
      const other = waiting.get(key);
      if (!other) {
        waiting.set(key, { triangle: t, k });
        continue;
      }
      const badness = badnessOf(other.triangle, other.k, t, k);
      if (badness < 1) found.push({ a: other.triangle, ka: other.k, b: t, kb: k, badness });
    }
  found.sort((f, g) => f.badness - g.badness || f.a - g.a || f.b - g.b);
  const used = new Uint8Array(count);
  const out = new Uint32Array(triangles.length);
  let at = 0;
  let pairs = 0;
  for (const { a, ka, b, kb } of found) {
    if (used[a] || used[b]) continue;
    used[a] = used[b] = 1;
    pairs += 1;
    // The shared edge runs from the first triangle's third corner to its first.
    const [p, q, r] = [0, 1, 2].map((i) => triangles[3 * a + ((ka + 1 + i) % 3)]!) as [number, number, number];
    const s = triangles[3 * b + ((kb + 2) % 3)]!;
    out.set([p, q, r, p, r, s], at);
    at += 6;
  }
  for (let t = 0; t < count; t++)
    if (!used[t]) {
      out.set(triangles.subarray(3 * t, 3 * t + 3), at);
      at += 3;
    }
  return { triangles: out, pairs };

  /** The greatest cosine of the four corners' angles; 1 or more where they are not convex. */
  function badnessOf(a: number, ka: number, b: number, kb: number): number {
    const corners = [
      triangles[3 * a + ((ka + 1) % 3)]!,
      triangles[3 * a + ((ka + 2) % 3)]!,
      triangles[3 * a + ka]!,
      triangles[3 * b + ((kb + 2) % 3)]!,
    ];
    let worst = 0;
    for (let i = 0; i < 4; i++) {
      const [p, q, r] = [corners[(i + 3) % 4]!, corners[i]!, corners[(i + 1) % 4]!];
      const [ux, uy, vx, vy] = [xs[q]! - xs[p]!, ys[q]! - ys[p]!, xs[r]! - xs[q]!, ys[r]! - ys[q]!];
      const size = Math.hypot(ux, uy) * Math.hypot(vx, vy);
      if (ux * vy - uy * vx <= parallel * size) return 1;
      worst = Math.max(worst, Math.abs(ux * vx + uy * vy) / size);
    }
    return worst;
  }
}
