/** The outline that clipping leaves of an opening. */
import type { ClippedLoop } from '../cut/clip.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from '../setout/placed.ts';

/** What an edge is: its side, and the arc that it is of. */
type Edge = { side: Outline['side'][number]; arc: Outline['arcs'][number] };

/** @param edgeOf what an edge of what is left is, by the operand and the edge of it that it was, and by the way that it runs */
export function outlineLeft(
  loops: readonly ClippedLoop[],
  { s, t }: Pick<Placed, 's' | 't'>,
  edgeOf: (operand: number, source: number, dx: number, dy: number) => Edge,
): Outline {
  const [xs, ys, next]: [number[], number[], number[]] = [[], [], []];
  const [starts, edges]: [number[], Edge[]] = [[], []];
  for (const loop of loops) {
    const first = xs.length;
    starts.push(first);
    loop.xs.forEach((x, i) => {
      const j = (i + 1) % loop.xs.length;
      xs.push(x - s);
      ys.push(loop.ys[i]! - t);
      next.push(first + j);
      edges.push(edgeOf(loop.operand[i]!, loop.source[i]!, loop.xs[j]! - x, loop.ys[j]! - loop.ys[i]!));
    });
  }
  return {
    count: xs.length,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(next),
    loops: starts,
    side: edges.map(({ side }) => side),
    arcs: edges.map(({ arc }) => arc),
  };
}
