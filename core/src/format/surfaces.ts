/** What every export starts from: a cut element's faces gathered by material, in the y-up axes that renderers expect. */
import type { ElementCut } from '../model/cut-element.ts';

/** Faces of one element that share a material. Positions and normals are y up: (x, z, −y) of the document's. */
export interface Surface {
  material: string;
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  /** Triangles, three corners each. */
  indices: Uint32Array;
  /** The same faces as polygons: corners of polygon p are polygons[p]. */
  polygons: number[][];
}

/** Gathers an element's surfaces by material, in the order in which the materials first occur. Corners that no face of a surface uses are left out of it. */
export function surfacesOf(cut: ElementCut): Surface[] {
  const { mesh } = cut;
  const byMaterial = new Map<string, { corners: number[]; polygons: number[] }>();
  for (const run of mesh.runs) {
    const found = byMaterial.get(run.material) ?? { corners: [], polygons: [] };
    for (let i = 3 * run.first; i < 3 * (run.first + run.count); i++) found.corners.push(mesh.triangles[i]!);
    for (let p = run.firstPolygon; p < run.firstPolygon + run.polygons; p++) found.polygons.push(p);
    byMaterial.set(run.material, found);
  }
  return [...byMaterial].map(([material, { corners, polygons }]) => {
    const known = new Map<number, number>();
    for (const c of corners) if (!known.has(c)) known.set(c, known.size);
    const surface: Surface = {
      material,
      positions: new Float32Array(3 * known.size),
      normals: new Float32Array(3 * known.size),
      uvs: new Float32Array(2 * known.size),
      indices: Uint32Array.from(corners, (c) => known.get(c)!),
      polygons: polygons.map((p) => Array.from(mesh.polygonCorners.subarray(mesh.polygonStart[p], mesh.polygonStart[p + 1]), (c) => known.get(c)!)),
    };
    for (const [c, i] of known) {
      const v = 3 * mesh.vertices[c]!;
      surface.positions.set([mesh.points[v]!, mesh.points[v + 2]!, -mesh.points[v + 1]!], 3 * i);
      surface.normals.set([mesh.normals[3 * c]!, mesh.normals[3 * c + 2]!, -mesh.normals[3 * c + 1]!], 3 * i);
      surface.uvs.set([mesh.uvs[2 * c]!, mesh.uvs[2 * c + 1]!], 2 * i);
    }
    return surface;
  });
}

/** A colour such as #C58562 as three linear values from 0 to 1, by the sRGB transfer function (IEC 61966-2-1). */
export function linearColour(hex: string): [number, number, number] {
  const channel = (at: number): number => {
    const value = parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return [channel(1), channel(3), channel(5)];
}
