/** Triangles of patches, each laid flat in its own plane. */
import type { Patch } from './patches.ts';
import { earsAlike, relative, roundEar, rounding } from '../tolerances.ts';

/** Patches of more corners than this are cut up ear by ear: weighing every way of it takes as long as their number cubed. */
const mostWeighed = 16;

/** Triangles of a patch, such that the thinnest of them is as little thin as can be. */
export function cutUp(patch: Patch, first: number, a: Float64Array, l: Float64Array, out: number[]): void {
  const count = patch.nodes.length;
  if (count === 3) out.push(first, first + 1, first + 2);
  else if (count === 4) cutQuad(first, a, l, out);
  else if (count > mostWeighed || !cutBest(count, first, a, l, out)) cutEars(count, first, a, l, out);
}

/**
 * Of all ways to divide a patch the one whose thinnest triangle is the least thin (by dynamic programming over the parts between two corners: Klincsek, "Minimal triangulations of polygonal domains", 1980). Triangles
 * that all turn as the patch does fill it, each place once.
 * @returns false, having written nothing, where there is no such way: the patch crosses itself, or has no area.
 */
function cutBest(count: number, first: number, a: Float64Array, l: Float64Array, out: number[]): boolean {
  let turn = 0;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    turn += a[first + j]! * l[first + i]! - a[first + i]! * l[first + j]!;
  }
  const sign = turn >= 0 ? 1 : -1;
  // By part i … j: how thin its thinnest triangle is, and the corner that stands on i and j.
  const worst = new Float64Array(count * count).fill(Infinity);
  const apex = new Int8Array(count * count).fill(-1);
  for (let size = 2; size < count; size++)
    for (let i = 0; i + size < count; i++) {
      const j = i + size;
      let best = -Infinity;
      for (let k = i + 1; k < j; k++) {
        const round = sign * thinness(a, l, first + i, first + k, first + j);
        if (!(round > rounding)) continue;
        const least = Math.min(round, worst[i * count + k]!, worst[k * count + j]!);
        // Of equals the first, rounding apart, so that the choice is steady.
        if (least > best * (1 + relative) + earsAlike) {
          best = least;
          apex[i * count + j] = k;
        }
      }
      worst[i * count + j] = best;
    }
  if (!(worst[count - 1]! > 0)) return false;
  const write = (i: number, j: number): void => {
    if (j - i < 2) return;
    const k = apex[i * count + j]!;
    write(i, k);
    out.push(first + i, first + k, first + j);
    write(k, j);
  };
  write(0, count - 1);
  return true;
}

function cutEars(count: number, first: number, a: Float64Array, l: Float64Array, out: number[]): void {
  // In (a, l) the patch runs clockwise, since l points down the section.
  const x = (i: number): number => a[first + i]!;
  const y = (i: number): number => -l[first + i]!;
  const area = (i: number, j: number, k: number): number =>
    (x(j) - x(i)) * (y(k) - y(i)) - (y(j) - y(i)) * (x(k) - x(i));
  const left = Array.from({ length: count }, (_, i) => i);
  let turn = 0;
  for (let i = 0; i < count; i++) turn += x(i) * y((i + 1) % count) - x((i + 1) % count) * y(i);
  const sign = turn >= 0 ? 1 : -1;
  let whole = Math.abs(turn);
  while (left.length > 3) {
    // What is left should not have all its corners in one line, nor nearly so: its neighbour across that line would have them too, and both would cut off the same ear.
    let best = roundestEar(roundEar);
    if (best < 0) best = roundestEar(relative);
    if (best < 0)
      best = left.findIndex(
        (_, q) => sign * area(left[(q + left.length - 1) % left.length]!, left[q]!, left[(q + 1) % left.length]!) > 0,
      );
    if (best < 0) best = 0;
    const [i, j, k] = [left[(best + left.length - 1) % left.length]!, left[best]!, left[(best + 1) % left.length]!];
    out.push(first + i, first + j, first + k);
    whole -= Math.abs(area(i, j, k));
    left.splice(best, 1);
  }
  out.push(first + left[0]!, first + left[1]!, first + left[2]!);

  /** The roundest ear that lies clear of all other corners and leaves more than a share of its longest side's square; −1 where there is none. */
  function roundestEar(least: number): number {
    let best = -1;
    let roundest = -Infinity;
    for (let q = 0; q < left.length; q++) {
      const i = left[(q + left.length - 1) % left.length]!;
      const j = left[q]!;
      const k = left[(q + 1) % left.length]!;
      const twice = sign * area(i, j, k);
      const longest = Math.max(
        (x(j) - x(i)) ** 2 + (y(j) - y(i)) ** 2,
        (x(k) - x(j)) ** 2 + (y(k) - y(j)) ** 2,
        (x(i) - x(k)) ** 2 + (y(i) - y(k)) ** 2,
      );
      if (twice <= rounding * longest || whole - twice <= least * longest) continue;
      // What touches it, rounding apart, is in its way too.
      const touch = -rounding * longest;
      let clear = true;
      for (const m of left)
        if (
          m !== i &&
          m !== j &&
          m !== k &&
          sign * area(i, j, m) >= touch &&
          sign * area(j, k, m) >= touch &&
          sign * area(k, i, m) >= touch
        ) {
          clear = false;
          break;
        }
      if (!clear) continue;
      const roundness = left.length === 4 ? Math.min(twice / longest, rest(left, q)) : twice / longest;
      if (roundness > roundest + rounding) {
        roundest = roundness;
        best = q;
      }
    }
    return best;
  }

  function rest(four: readonly number[], q: number): number {
    const [i, j, k] = four.filter((_, at) => at !== q) as [number, number, number];
    const longest = Math.max(
      (x(j) - x(i)) ** 2 + (y(j) - y(i)) ** 2,
      (x(k) - x(j)) ** 2 + (y(k) - y(j)) ** 2,
      (x(i) - x(k)) ** 2 + (y(i) - y(k)) ** 2,
    );
    return (sign * area(i, j, k)) / longest;
  }
}

/** Two triangles of a four-sided patch, by the diagonal that leaves the thinner of the two less thin. */
function cutQuad(first: number, a: Float64Array, l: Float64Array, out: number[]): void {
  const [start, end] = [thinness(a, l, first, first + 1, first + 2), thinness(a, l, first, first + 2, first + 3)];
  const turn = start + end >= 0 ? 1 : -1;
  const p = Math.min(turn * start, turn * end);
  const q = Math.min(
    turn * thinness(a, l, first + 1, first + 2, first + 3),
    turn * thinness(a, l, first + 1, first + 3, first),
  );
  if (p >= q - rounding) out.push(first, first + 1, first + 2, first, first + 2, first + 3);
  else out.push(first + 1, first + 2, first + 3, first + 1, first + 3, first);
}

/** Twice a triangle's area over its longest side's square; negative where it turns clockwise. */
function thinness(a: Float64Array, l: Float64Array, i: number, j: number, k: number): number {
  const ux = a[j]! - a[i]!;
  const uy = l[i]! - l[j]!;
  const vx = a[k]! - a[i]!;
  const vy = l[i]! - l[k]!;
  const longest = Math.max(ux * ux + uy * uy, vx * vx + vy * vy, (vx - ux) ** 2 + (vy - uy) ** 2);
  return longest > 0 ? (ux * vy - uy * vx) / longest : 0;
}
