/** Slices: the outlines in which a plane cuts closed meshes, as sections are drawn from them. */
import type { CutMesh } from './cut-mesh.ts';

/** Which plane cuts: upright across the wall at a place along, or level at a height. */
export interface Plane {
  axis: 'x' | 'z';
  /** Metres. */
  at: number;
}

/** An outline that the plane cuts. Points are (into the wall, up) of an upright plane, (along, into the wall) of a level one; metres. */
export interface Slice {
  points: (readonly [number, number])[];
  material: string;
  layer: number;
}

/** By so much a plane is off what it is asked for, so that it passes no corner: less than anyone can see. */
const aside = 1.37e-6;

/**
 * The outlines in which a plane cuts a mesh, one for each layer or solid that it goes through. Triangles that it crosses each leave
 * a line between two of their edges; an edge has two triangles, so that lines meet end to end, in loops.
 */
export function sliced({ points, vertices, triangles, runs }: CutMesh, { axis, at }: Plane): Slice[] {
  const [across, one, other] = axis === 'x' ? [0, 1, 2] : [2, 0, 1];
  const plane = at + aside;
  const side = (v: number): number => points[3 * v + across]! - plane;
  const place = (a: number, b: number): readonly [number, number] => {
    const share = side(a) / (side(a) - side(b));
    const mixed = (k: number): number => points[3 * a + k]! + share * (points[3 * b + k]! - points[3 * a + k]!);
    return [mixed(one), mixed(other)];
  };
  const key = (a: number, b: number): number => Math.min(a, b) * 2 ** 26 + Math.max(a, b);
  const next = new Map<number, { to: number; spot: readonly [number, number]; run: number }>();
  runs.forEach(({ first, count }, run) => {
    for (let t = first; t < first + count; t++) {
      const [a, b, c] = [0, 1, 2].map((k) => vertices[triangles[3 * t + k]!]!) as [number, number, number];
      let [enters, leaves, from]: [number, number, readonly [number, number] | null] = [-1, -1, null];
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a],
      ] as const) {
        const [sp, sq] = [side(p), side(q)];
        if (sp > 0 === sq > 0) continue;
        if (sp > 0) {
          leaves = key(p, q);
          from = place(p, q);
        } else enters = key(p, q);
      }
      if (from && enters >= 0) next.set(leaves, { to: enters, spot: from, run });
    }
  });
  const found: Slice[] = [];
  for (const start of next.keys()) {
    if (!next.has(start)) continue;
    const loop: (readonly [number, number])[] = [];
    const { run } = next.get(start)!;
    for (let at = start; ;) {
      const step = next.get(at);
      if (!step) break;
      next.delete(at);
      loop.push(step.spot);
      at = step.to;
    }
    if (loop.length > 2) found.push({ points: loop, material: runs[run]!.material, layer: runs[run]!.layer });
  }
  return found;
}
