/** Rims: edges that bound some part of a region, and the loops that they make. */
import type { Region } from './region.ts';

/** Directed edges between points of a region, what they bound on their left. */
export class Rim {
  private readonly leaving = new Map<number, number[]>();

  add(from: number, to: number): void {
    const list = this.leaving.get(from);
    if (list) list.push(to);
    else this.leaving.set(from, [to]);
  }

  /**
   * Follows all edges, each once; where several lead on from a point, by the first one clockwise, so that loops which touch there do not cross.
   * @returns the points passed, and by place among them which follows each; null where an edge leads nowhere. May be called once only.
   */
  loops(region: Region): { points: number[]; next: number[] } | null {
    const { leaving } = this;
    const points: number[] = [];
    const next: number[] = [];
    for (const start of leaving.keys())
      while (leaving.has(start)) {
        const first = points.length;
        let at = start;
        let from = -1;
        do {
          const list = leaving.get(at);
          if (!list) return null;
          const pick = list.length === 1 || from < 0 ? 0 : mostClockwise(region, from, at, list);
          const [to] = list.splice(pick, 1);
          if (list.length === 0) leaving.delete(at);
          points.push(at);
          next.push(points.length);
          from = at;
          at = to!;
        } while (at !== start);
        next[points.length - 1] = first;
      }
    return { points, next };
  }
}

/** The region that has some points of another, in an order, and edges of its own. */
export function partOf({ xs, ys }: Region, points: readonly number[], next: readonly number[]): Region {
  const count = points.length;
  const part = { count, xs: new Float64Array(count), ys: new Float64Array(count), next: Uint32Array.from(next) };
  for (let i = 0; i < count; i++) {
    part.xs[i] = xs[points[i]!]!;
    part.ys[i] = ys[points[i]!]!;
  }
  return part;
}

/** Of the ways on from a point, the first one clockwise from the way back. */
function mostClockwise({ xs, ys }: Region, from: number, at: number, list: readonly number[]): number {
  const angle = (v: number): number => Math.atan2(ys[v]! - ys[at]!, xs[v]! - xs[at]!);
  const back = angle(from);
  let best = 0;
  let least = Infinity;
  list.forEach((v, i) => {
    const turn = (((back - angle(v)) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    if (turn > 1e-12 && turn < least) {
      least = turn;
      best = i;
    }
  });
  return best;
}
