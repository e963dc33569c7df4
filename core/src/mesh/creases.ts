/** Creases: the lines of a cut element that are drawn in ink, where its surfaces meet at an angle. */
import type { CutMesh } from './cut-mesh.ts';
import { halfEdgesOf, sameEdge } from './edges.ts';

/** Edges at which normals turn less than this are of one rounded surface: cosine of 25°. */
const rounded = Math.cos((25 * Math.PI) / 180);

/**
 * Lines as pairs of points (x, y, z each), metres, relative to an origin: edges of the mesh at which the triangles on either side face differently, or one of them is an imprint.
 */
export function creasesOf(mesh: CutMesh, origin: readonly [number, number, number]): Float32Array {
  const { triangles, vertices, points, runs } = mesh;
  const count = triangles.length / 3;
  const normals = new Float32Array(3 * count);
  for (let i = 0; i < count; i++) {
    const [a, b, c] = [
      3 * vertices[triangles[3 * i]!]!,
      3 * vertices[triangles[3 * i + 1]!]!,
      3 * vertices[triangles[3 * i + 2]!]!,
    ];
    const [ux, uy, uz] = [points[b]! - points[a]!, points[b + 1]! - points[a + 1]!, points[b + 2]! - points[a + 2]!];
    const [vx, vy, vz] = [points[c]! - points[a]!, points[c + 1]! - points[a + 1]!, points[c + 2]! - points[a + 2]!];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    normals[3 * i] = nx / size;
    normals[3 * i + 1] = ny / size;
    normals[3 * i + 2] = nz / size;
  }
  const imprint = new Uint8Array(count);
  for (const run of runs) if (run.role === 'imprint') imprint.fill(1, run.first, run.first + run.count);
  const edges = halfEdgesOf(mesh);
  const { order, from, to } = edges;
  let lines = new Float32Array(1024);
  let at = 0;
  for (let e = 0; e + 1 < order.length; e++) {
    const [h, g] = [order[e]!, order[e + 1]!];
    if (!sameEdge(edges, h, g)) continue;
    e += 1;
    const [i, j] = [(h / 3) | 0, (g / 3) | 0];
    const turn =
      normals[3 * i]! * normals[3 * j]! +
      normals[3 * i + 1]! * normals[3 * j + 1]! +
      normals[3 * i + 2]! * normals[3 * j + 2]!;
    if (turn >= rounded && imprint[i] === imprint[j]) continue;
    if (at + 6 > lines.length) {
      const more = new Float32Array(2 * lines.length);
      more.set(lines);
      lines = more;
    }
    for (let k = 0; k < 3; k++) {
      lines[at + k] = points[3 * from[h]! + k]! - origin[k]!;
      lines[at + 3 + k] = points[3 * to[h]! + k]! - origin[k]!;
    }
    at += 6;
  }
  return lines.slice(0, at);
}
