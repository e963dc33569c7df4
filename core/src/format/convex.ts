/** Polygons as every reader takes them: convex and flat, since many fan a polygon from its first corner. */
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { flatPolygon as flat, micrometre as straight } from '../tolerances.ts';

type Polygon = number[];

/** Cosine of how far a corner may lean out of its polygon's plane, less than two degrees; and from what turn on, as a sine, it tells. */
const alike = 0.9995;
const telling = 1e-3;

/**
 * One polygon of a mesh, as it is where it is convex and flat, otherwise divided along the edges of its triangles into as few as those allow, one edge after another (Hertel and Mehlhorn, "Fast triangulation of the
 * plane with respect to simple polygons", 1985).
 * @param firstTriangle the first of its triangles. @returns rows of corners.
 */
export function convexParts(mesh: CutMesh, polygon: number, firstTriangle: number): Polygon[] {
  const corners = Array.from(mesh.polygonCorners.subarray(mesh.polygonStart[polygon], mesh.polygonStart[polygon + 1]));
  if (corners.length === 3 || isConvex(mesh, corners)) return [corners];
  const parts: Polygon[] = [];
  for (let t = firstTriangle; t < firstTriangle + corners.length - 2; t++)
    parts.push(Array.from(mesh.triangles.subarray(3 * t, 3 * t + 3)));
  for (let i = 0; i < parts.length; i++)
    for (let j = i + 1; j < parts.length; j++) {
      const joined = join(parts[i]!, parts[j]!);
      if (!joined || !isConvex(mesh, joined)) continue;
      parts[i] = joined;
      parts.splice(j, 1);
      // What it has become may take others that it could not take before.
      j = i;
    }
  return parts;
}

/** Two polygons as one, across an edge that they share; null where they share none. */
function join(a: Polygon, b: Polygon): Polygon | null {
  for (let i = 0; i < a.length; i++) {
    const [from, to] = [a[i]!, a[(i + 1) % a.length]!];
    const k = b.indexOf(to);
    if (k < 0 || b[(k + 1) % b.length] !== from) continue;
    const rest = Array.from({ length: b.length - 2 }, (_, n) => b[(k + 2 + n) % b.length]!);
    return [...a.slice(0, i + 1), ...rest, ...a.slice(i + 1)];
  }
  return null;
}

function isConvex({ points, vertices }: CutMesh, corners: Polygon): boolean {
  const n = corners.length;
  const at = (i: number): number => 3 * vertices[corners[i % n]!]!;
  // The plane's normal by all of the outline (Newell's sum).
  let [nx, ny, nz, cx, cy, cz] = [0, 0, 0, 0, 0, 0];
  const o = at(0);
  for (let i = 0; i < n; i++) {
    const [p, q] = [at(i), at(i + 1)];
    const [px, py, pz] = [points[p]! - points[o]!, points[p + 1]! - points[o + 1]!, points[p + 2]! - points[o + 2]!];
    const [qx, qy, qz] = [points[q]! - points[o]!, points[q + 1]! - points[o + 1]!, points[q + 2]! - points[o + 2]!];
    nx += (py - qy) * (pz + qz);
    ny += (pz - qz) * (px + qx);
    nz += (px - qx) * (py + qy);
    cx += px / n;
    cy += py / n;
    cz += pz / n;
  }
  const size = Math.hypot(nx, ny, nz);
  if (size === 0) return false;
  for (let i = 0; i < n; i++) {
    const [p, q, r] = [at(i), at(i + 1), at(i + 2)];
    const off =
      ((points[p]! - points[o]! - cx) * nx +
        (points[p + 1]! - points[o + 1]! - cy) * ny +
        (points[p + 2]! - points[o + 2]! - cz) * nz) /
      size;
    if (Math.abs(off) > flat) return false;
    const [ux, uy, uz] = [points[q]! - points[p]!, points[q + 1]! - points[p + 1]!, points[q + 2]! - points[p + 2]!];
    const [vx, vy, vz] = [points[r]! - points[q]!, points[r + 1]! - points[q + 1]!, points[r + 2]! - points[q + 2]!];
    const [kx, ky, kz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const turn = (kx * nx + ky * ny + kz * nz) / size;
    const sides = Math.hypot(ux, uy, uz) * Math.hypot(vx, vy, vz);
    if (turn <= straight * sides) return false;
    // A narrow one can be flat to the width of a hair and bent all the same.
    if (turn > telling * sides && turn < alike * Math.hypot(kx, ky, kz)) return false;
  }
  return true;
}
