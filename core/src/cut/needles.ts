/** Needles: triangles that are thin only because a row or a column passes close by a corner without going through it. */
import type { Sheet } from '../element/sheet.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { FaceLines } from '../reveal/placed.ts';
import { needle, passing } from '../tolerances.ts';

/** Heights of triangles below this are needles, metres; and how near to one of their corners a line must pass that made them. */

/** The lines but those that pass close by a corner of a needle without going through it; the very same where there are none. */
export function withoutNeedles(lines: FaceLines, mesh: CutMesh, { chart }: Sheet): FaceLines {
  const near = { columns: new Set<number>(), rows: new Set<number>() };
  const { points, vertices, triangles } = mesh;
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => 3 * vertices[triangles[i + k]!]!) as [number, number, number];
    if (heightOf(points, corners) >= needle) continue;
    for (const v of corners) {
      const at = [
        points[v]! - chart.origin[0],
        points[v + 1]! - chart.origin[1],
        points[v + 2]! - chart.origin[2],
      ] as const;
      const [up, along] = chart.kind === 'flat' ? [dot(at, chart.up), dot(at, chart.along)] : [at[2], NaN];
      lines.rows.forEach((row, k) => Math.abs(row - up) < passing && near.rows.add(k));
      lines.columns.forEach((column, k) => Math.abs(column - along) < passing && near.columns.add(k));
    }
  }
  if (near.rows.size + near.columns.size === 0) return lines;
  return {
    rows: lines.rows.filter((_, k) => !near.rows.has(k)),
    columns: lines.columns.filter((_, k) => !near.columns.has(k)),
  };
}

const dot = (a: readonly [number, number, number], b: readonly [number, number, number]): number =>
  a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** The least height of a triangle, metres. */
function heightOf(points: Float64Array, [a, b, c]: readonly [number, number, number]): number {
  const [ux, uy, uz] = [points[b]! - points[a]!, points[b + 1]! - points[a + 1]!, points[b + 2]! - points[a + 2]!];
  const [vx, vy, vz] = [points[c]! - points[a]!, points[c + 1]! - points[a + 1]!, points[c + 2]! - points[a + 2]!];
  const twice = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
  const longest = Math.max(Math.hypot(ux, uy, uz), Math.hypot(vx, vy, vz), Math.hypot(vx - ux, vy - uy, vz - uz));
  return longest > 0 ? twice / longest : 0;
}
