/** Pairing at a node: which way a boundary goes on where several pass through one point, so that what lies on the left of each stays apart. */

/** A way into a node or out of it, by the direction in which it lies from there, radians. */
export interface Way<T> {
  angle: number;
  of: T;
}

const round = 2 * Math.PI;

/** Pairs each way in with the way out that is next to it clockwise: what lies between, on the left of both, is one corner. @returns pairs of in and out */
export function pairedWays<T>(ins: readonly Way<T>[], outs: readonly Way<T>[]): [T, T][] {
  const left = [...outs];
  return ins.map(({ angle, of }) => {
    let best = 0;
    let least = Infinity;
    left.forEach((out, i) => {
      let turn = (angle - out.angle) % round;
      if (turn <= 1e-9) turn += round;
      if (turn < least) [least, best] = [turn, i];
    });
    return [of, left.splice(best, 1)[0]!.of];
  });
}

/** Chains pieces into loops. @param angleOf the direction in which a piece lies from one of its ends, radians */
export function chained<T>(
  pieces: readonly T[],
  ends: (piece: T) => readonly [from: number, to: number],
  angleOf: (piece: T, at: 'from' | 'to') => number,
): T[][] {
  const into = new Map<number, T[]>();
  const out = new Map<number, T[]>();
  const put = (map: Map<number, T[]>, node: number, piece: T): void => {
    const list = map.get(node);
    if (list) list.push(piece);
    else map.set(node, [piece]);
  };
  for (const piece of pieces) {
    const [from, to] = ends(piece);
    put(out, from, piece);
    put(into, to, piece);
  }
  const following = new Map<T, T>();
  for (const [node, ins] of into) {
    const outs = out.get(node) ?? [];
    if (outs.length !== ins.length) throw new Error('a boundary ends in the air');
    if (ins.length === 1) following.set(ins[0]!, outs[0]!);
    else
      for (const [a, b] of pairedWays(
        ins.map((of) => ({ angle: angleOf(of, 'to'), of })),
        outs.map((of) => ({ angle: angleOf(of, 'from'), of })),
      ))
        following.set(a, b);
  }
  const loops: T[][] = [];
  const seen = new Set<T>();
  for (const first of pieces) {
    if (seen.has(first)) continue;
    const loop: T[] = [];
    for (let at = first; !seen.has(at); at = following.get(at)!) {
      seen.add(at);
      loop.push(at);
    }
    loops.push(loop);
  }
  return loops;
}
