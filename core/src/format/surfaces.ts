/** What every export starts from: a cut element's solids, their faces gathered, in the y-up axes that renderers expect. */
import { grouped } from '@yard-arch/document';
import type { ElementCut } from '../model/cut-element.ts';
import type { Model } from '../model/model.ts';
import type { CutMesh, Run } from '../mesh/cut-mesh.ts';
import type { Point } from './local.ts';

/** A solid of an element: all of it, or one of its layers where each is a solid of its own. */
export interface Solid {
  /** The layer, counted from the outside; null where the element is one solid. */
  layer: number | null;
  runs: Run[];
}

/** The solids of an element as cut, in the order of its layers. */
export function solidsOf(cut: ElementCut, byLayer: boolean): Solid[] {
  if (!byLayer) return [{ layer: null, runs: cut.mesh.runs }];
  return [...grouped(cut.mesh.runs, (run) => run.layer)]
    .sort(([a], [b]) => a - b)
    .map(([layer, runs]) => ({ layer, runs }));
}

/** Triangles with their corners one after the other. Positions and normals are y up: (x, z, −y) of the document's. */
export interface Surface {
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  /** Triangles, three corners each. */
  indices: Uint32Array;
}

/** Numbers for the corners that some runs use, in the order in which they first occur. @param numbers for each corner of the mesh 0; left so. */
function numbered(
  { triangles }: CutMesh,
  runs: readonly Run[],
  numbers: Uint32Array<ArrayBuffer>,
): { corners: number[]; indices: Uint32Array } {
  const corners: number[] = [];
  const indices = new Uint32Array(runs.reduce((sum, run) => sum + 3 * run.count, 0));
  let at = 0;
  for (const run of runs)
    for (let i = 3 * run.first; i < 3 * (run.first + run.count); i++) {
      const c = triangles[i]!;
      if (numbers[c] === 0) numbers[c] = corners.push(c);
      indices[at++] = numbers[c]! - 1;
    }
  for (const c of corners) numbers[c] = 0;
  return { corners, indices };
}

/** The triangles of some runs of a mesh, about an origin. Corners that none of them uses are left out. */
export function surfaceOf(
  mesh: CutMesh,
  runs: readonly Run[],
  [ox, oy, oz]: Point,
  numbers: Uint32Array<ArrayBuffer> = new Uint32Array(mesh.vertices.length),
): Surface {
  const { corners, indices } = numbered(mesh, runs, numbers);
  const surface: Surface = {
    positions: new Float32Array(3 * corners.length),
    normals: new Float32Array(3 * corners.length),
    uvs: new Float32Array(2 * corners.length),
    indices,
  };
  const { positions, normals, uvs } = surface;
  corners.forEach((c, i) => {
    const v = 3 * mesh.vertices[c]!;
    positions[3 * i] = mesh.points[v]! - ox;
    positions[3 * i + 1] = mesh.points[v + 2]! - oz;
    positions[3 * i + 2] = oy - mesh.points[v + 1]!;
    normals[3 * i] = mesh.normals[3 * c]!;
    normals[3 * i + 1] = mesh.normals[3 * c + 2]!;
    normals[3 * i + 2] = -mesh.normals[3 * c + 1]!;
    uvs[2 * i] = mesh.uvs[2 * c]!;
    uvs[2 * i + 1] = mesh.uvs[2 * c + 1]!;
  });
  return surface;
}

/** The materials that a model shows, its parts' among them. */
export function materialsIn({ cuts }: Model): Set<string> {
  const used = new Set<string>();
  for (const { mesh, parts } of cuts.values()) {
    for (const run of mesh.runs) used.add(run.material);
    for (const { part } of parts) for (const run of part.mesh.runs) used.add(run.material);
  }
  return used;
}

/** A colour such as #C58562 as three linear values from 0 to 1, by the sRGB transfer function (IEC 61966-2-1). */
export function linearColour(hex: string): [number, number, number] {
  const channel = (at: number): number => {
    const value = parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return [channel(1), channel(3), channel(5)];
}
