/** Rims: edges that bound some part of a region, and the loops that they make. */
import type { Region } from './region.ts';
import { rounding } from '../tolerances.ts';

/** Directed edges between points of a region, what they bound on their left. */
export class Rim {
  /** By point the last edge that leaves it; by edge where it leads, and the one before it from its point. −1 is none. */
  private readonly leaving: Int32Array;
  private readonly to: number[] = [];
  private readonly before: number[] = [];

  constructor(private readonly region: Region) {
    this.leaving = new Int32Array(region.xs.length).fill(-1);
  }

  add(from: number, to: number): void {
    this.before.push(this.leaving[from]!);
    this.leaving[from] = this.to.push(to) - 1;
  }

  /**
   * Follows all edges, each once; where several lead on from a point, by the first one clockwise, so that loops which touch there do not cross. To be called once.
   * @returns the points passed, and by place among them which follows each; null where an edge leads nowhere.
   */
  loops(): { points: number[]; next: number[] } | null {
    const { leaving } = this;
    const points: number[] = [];
    const next: number[] = [];
    for (let start = 0; start < leaving.length; start++)
      while (leaving[start]! >= 0) {
        const first = points.length;
        let at = start;
        let from = -1;
        do {
          if (leaving[at]! < 0) return null;
          points.push(at);
          next.push(points.length);
          [at, from] = [this.take(from, at), at];
        } while (at !== start);
        next[points.length - 1] = first;
      }
    return { points, next };
  }

  /** Takes away an edge that leaves a point to which one came from another (−1: from none). @returns where it leads. */
  private take(from: number, at: number): number {
    const { leaving, to, before } = this;
    const last = leaving[at]!;
    if (from < 0 || before[last]! < 0) {
      leaving[at] = before[last]!;
      return to[last]!;
    }
    const { xs, ys } = this.region;
    const angle = (v: number): number => Math.atan2(ys[v]! - ys[at]!, xs[v]! - xs[at]!);
    const back = angle(from);
    let best = last;
    let least = Infinity;
    for (let e = last; e >= 0; e = before[e]!) {
      const turn = (((back - angle(to[e]!)) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
      if (turn > rounding && turn < least) {
        least = turn;
        best = e;
      }
    }
    if (best === last) leaving[at] = before[last]!;
    else {
      let e = last;
      while (before[e] !== best) e = before[e]!;
      before[e] = before[best]!;
    }
    return to[best]!;
  }
}

/** The region that has some points of another, in an order, and edges of its own. */
export function partOf({ xs, ys, pinched }: Region, points: readonly number[], next: readonly number[]): Region {
  const count = points.length;
  const part: Region = {
    count,
    xs: new Float64Array(count),
    ys: new Float64Array(count),
    next: Uint32Array.from(next),
    ...(pinched === false ? { places: points } : {}),
  };
  for (let i = 0; i < count; i++) {
    part.xs[i] = xs[points[i]!]!;
    part.ys[i] = ys[points[i]!]!;
  }
  return part;
}
