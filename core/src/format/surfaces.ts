/** What every export starts from: a cut element's triangles gathered by material, in the y-up axes that renderers expect. */
import type { ElementCut } from '../model/cut-element.ts';

/** Triangles of one element that share a material. Positions and normals are y up: (x, z, −y) of the document's. */
export interface Surface {
  material: string;
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  indices: Uint32Array;
}

/** Gathers an element's surfaces by material, in the order in which the materials first occur. Corners that no triangle of a surface uses are left out of it. */
export function surfacesOf(cut: ElementCut): Surface[] {
  const { mesh } = cut;
  const byMaterial = new Map<string, number[]>();
  for (const run of mesh.runs) {
    const list = byMaterial.get(run.material) ?? [];
    for (let i = 3 * run.first; i < 3 * (run.first + run.count); i++) list.push(mesh.triangles[i]!);
    byMaterial.set(run.material, list);
  }
  return [...byMaterial].map(([material, corners]) => {
    const known = new Map<number, number>();
    for (const c of corners) if (!known.has(c)) known.set(c, known.size);
    const surface: Surface = {
      material,
      positions: new Float32Array(3 * known.size),
      normals: new Float32Array(3 * known.size),
      uvs: new Float32Array(2 * known.size),
      indices: Uint32Array.from(corners, (c) => known.get(c)!),
    };
    for (const [c, i] of known) {
      surface.positions.set([mesh.positions[3 * c]!, mesh.positions[3 * c + 2]!, -mesh.positions[3 * c + 1]!], 3 * i);
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
