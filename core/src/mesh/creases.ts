/** Creases: the lines of a cut element that are drawn in ink, where its surfaces meet at an angle. */
import type { CutMesh } from './cut-mesh.ts';

/** Edges at which normals turn less than this are of one rounded surface: cosine of 25°. */
const rounded = Math.cos((25 * Math.PI) / 180);

/**
 * Lines as pairs of points (x, y, z each), metres, relative to an origin: edges of the mesh at which the triangles on either side face differently, or one of them is an imprint.
 */
export function creasesOf(mesh: CutMesh, origin: readonly [number, number, number]): Float32Array {
  const { triangles, vertices, points, vertexCount, runs } = mesh;
  const count = triangles.length / 3;
  const normals = new Float32Array(3 * count);
  for (let i = 0; i < count; i++) {
    const [a, b, c] = [3 * vertices[triangles[3 * i]!]!, 3 * vertices[triangles[3 * i + 1]!]!, 3 * vertices[triangles[3 * i + 2]!]!];
    const [ux, uy, uz] = [points[b]! - points[a]!, points[b + 1]! - points[a + 1]!, points[b + 2]! - points[a + 2]!];
    const [vx, vy, vz] = [points[c]! - points[a]!, points[c + 1]! - points[a + 1]!, points[c + 2]! - points[a + 2]!];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
    const size = Math.hypot(...n) || 1;
    for (let k = 0; k < 3; k++) normals[3 * i + k] = n[k]! / size;
  }
  const imprint = new Uint8Array(count);
  for (const run of runs) if (run.role === 'imprint') imprint.fill(1, run.first, run.first + run.count);
  const waiting = new Map<number, number>();
  const lines: number[] = [];
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 3; k++) {
      const [p, q] = [triangles[3 * i + k]!, triangles[3 * i + ((k + 1) % 3)]!];
      const [a, b] = [vertices[p]!, vertices[q]!];
      const key = a < b ? a * vertexCount + b : b * vertexCount + a;
      const other = waiting.get(key);
      if (other === undefined) {
        waiting.set(key, i);
        continue;
      }
      waiting.delete(key);
      const turn = normals[3 * i]! * normals[3 * other]! + normals[3 * i + 1]! * normals[3 * other + 1]! + normals[3 * i + 2]! * normals[3 * other + 2]!;
      if (turn >= rounded && imprint[i] === imprint[other]) continue;
      for (const v of [a, b]) for (let j = 0; j < 3; j++) lines.push(points[3 * v + j]! - origin[j]!);
    }
  return Float32Array.from(lines);
}
