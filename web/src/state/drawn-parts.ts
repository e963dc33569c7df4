/** Parts as the cutting worker tells the page of them: each mesh once, and where they stand. */
import { creasesOf, frontOf, originOf, type ElementCut, type PartMesh } from '@yard-arch/core';
import type { DrawnInstances, DrawnPart } from './cut-messages.ts';
import { drawnTrianglesOf } from './drawn-runs.ts';

const here = [0, 0, 0] as const;

export function drawnPart(part: PartMesh): DrawnPart {
  const { key, name, mesh, within } = part;
  const { points, vertices } = mesh;
  const positions = new Float32Array(3 * vertices.length);
  for (let c = 0; c < vertices.length; c++) {
    const v = 3 * vertices[c]!;
    for (let k = 0; k < 3; k++) positions[3 * c + k] = points[v + k]!;
  }
  return {
    key,
    name,
    positions,
    normals: mesh.normals.slice(),
    uvs: mesh.uvs.slice(),
    creases: creasesOf(mesh, here),
    ...drawnTrianglesOf(mesh),
    within: within ?? false,
    front: frontOf(part),
  };
}

/** The parts of an element, gathered by their meshes. @param onMesh hears of each mesh. */
export function drawnInstances({ parts, sheet }: ElementCut, onMesh: (part: PartMesh) => void): DrawnInstances[] {
  const [ox, oy, oz] = originOf(sheet.chart);
  const byMesh = new Map<PartMesh, ElementCut['parts'][number][]>();
  for (const one of parts) {
    const list = byMesh.get(one.part);
    if (list) list.push(one);
    else byMesh.set(one.part, [one]);
  }
  return [...byMesh].map(([part, list]) => {
    onMesh(part);
    const matrices = new Float32Array(16 * list.length);
    list.forEach(({ placement: { origin, x, y, z } }, i) =>
      matrices.set([...x, 0, ...y, 0, ...z, 0, origin[0] - ox, origin[1] - oy, origin[2] - oz, 1], 16 * i),
    );
    return {
      key: part.key,
      openings: list.map(({ opening }) => opening),
      faces: list.map(({ face }) => face),
      matrices,
    };
  });
}
