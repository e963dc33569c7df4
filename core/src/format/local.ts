/** Local coordinates: what is written in 32-bit figures is written about a point near by, so that nothing is lost far from the origin. */
import type { CutMesh } from '../mesh/cut-mesh.ts';

export type Point = readonly [number, number, number];

const nowhere: Point = [0, 0, 0];

/** Nearer to the origin than this 32-bit figures are fine enough (to 8 µm) as they are, metres. */
const near = 128;

/** The origin about which meshes are written, whole metres: the document's own where they lie near it, otherwise the middle of their box. */
export function originOf(meshes: readonly CutMesh[]): Point {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const { points } of meshes)
    for (let i = 0; i < points.length; i++) {
      const k = i % 3;
      if (points[i]! < low[k]!) low[k] = points[i]!;
      if (points[i]! > high[k]!) high[k] = points[i]!;
    }
  const farthest = Math.max(...low.map(Math.abs), ...high.map(Math.abs));
  if (!(farthest > near && farthest < Infinity)) return nowhere;
  return low.map((value, k) => Math.round((value + high[k]!) / 2)) as unknown as Point;
}

/** A mesh with its points where a reader of 32-bit figures has them. */
export function asWritten(mesh: CutMesh): CutMesh {
  const origin = originOf([mesh]);
  return { ...mesh, points: mesh.points.map((value, i) => Math.fround(value - origin[i % 3]!)) };
}

/** How far any point lies from where a reader of 32-bit figures has it, metres. */
export function writtenError(mesh: CutMesh): number {
  const origin = originOf([mesh]);
  let most = 0;
  mesh.points.forEach((value, i) => {
    const local = value - origin[i % 3]!;
    most = Math.max(most, Math.abs(Math.fround(local) - local));
  });
  return most;
}
