/** What placing on every chart has in common: a tube that is about to be placed, and the lines at which its edges are divided. */
import type { PlacedTube } from './patches.ts';
import type { Tube } from './tube.ts';
import { touch } from '../tolerances.ts';

/** Lines on a face at which edges are divided: ribs of a bent chart, or rows and columns of quads. Ids are unique over both directions. */
export interface FaceLines {
  /** Distances along (metres, rising) of the upright lines, and heights of the level ones. Ribs of a bent chart are not listed: they are always divided at. */
  columns: Float64Array;
  rows: Float64Array;
}

/** Calls with each of rising values that lies between two others, and not at either. */
export function within(values: Float64Array, a: number, b: number, take: (i: number) => void): void {
  const [low, high] = a < b ? [a, b] : [b, a];
  for (let i = 0; i < values.length; i++) if (values[i]! > low + touch && values[i]! < high - touch) take(i);
}

/** A tube none of whose nodes has a place yet. */
export function begin(tube: Tube): PlacedTube {
  return {
    tube,
    positions: [],
    u: [],
    v: [],
    n: [...tube.n],
    patches: [],
    patchStart: [],
    near: [],
    far: [],
    frame: operandsOf(tube),
  };
}

/** Whose frame each node has: that of the greatest operand of the edges that meet there. */
function operandsOf(tube: Tube): number[] {
  const frame = new Array<number>(tube.x.length).fill(0);
  for (const { edge, nodes } of tube.faces) {
    const { operand } = tube.edges[edge]!;
    for (const v of nodes) frame[v] = Math.max(frame[v]!, operand);
  }
  for (const ring of [...tube.near, ...tube.far])
    ring.nodes.forEach((v, i) => {
      const before = ring.edges[(i + ring.edges.length - 1) % ring.edges.length]!;
      frame[v] = Math.max(frame[v]!, tube.edges[ring.edges[i]!]!.operand, tube.edges[before]!.operand);
    });
  return frame;
}

/** Nodes on edges, made once for the two faces that an edge has. */
export class Splits {
  private readonly made = new Map<number, number[]>();

  /** The nodes between two others, in the order from the one to the other. @param make makes them, from the lesser to the greater. */
  between(a: number, b: number, make: (p: number, q: number) => number[]): number[] {
    const [p, q] = a < b ? [a, b] : [b, a];
    const key = p * 0x400000 + q;
    let found = this.made.get(key);
    if (!found) this.made.set(key, (found = make(p, q)));
    return a < b ? found : [...found].reverse();
  }
}
