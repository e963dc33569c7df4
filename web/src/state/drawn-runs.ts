/** Runs of a mesh as columns, and its triangles in their order: the cutting worker tells the page of very many. */
import type { CutMesh } from '@yard-arch/core';
import type { DrawnRuns } from './cut-messages.ts';

/** The triangles of a mesh, those of one material after each other, so that each material is drawn at once; and its runs as they lie then. */
export function drawnTrianglesOf({ runs, triangles }: CutMesh): { triangles: Uint32Array; runs: DrawnRuns } {
  const column = (): Uint32Array => new Uint32Array(runs.length);
  const [first, count, material, opening, face] = [column(), column(), column(), column(), column()];
  const [materials, openings, faces] = [
    new Map<string, number>(),
    new Map<string, number>(),
    new Map<string, number>(),
  ];
  const numberIn = (all: Map<string, number>, name: string): number =>
    all.get(name) ?? all.set(name, all.size).size - 1;
  const byMaterial: CutMesh['runs'][number][][] = [];
  for (const run of runs) (byMaterial[numberIn(materials, run.material)] ??= []).push(run);
  const ordered = new Uint32Array(triangles.length);
  let [i, at] = [0, 0];
  byMaterial.forEach((list, number) => {
    for (const run of list) {
      ordered.set(triangles.subarray(3 * run.first, 3 * (run.first + run.count)), 3 * at);
      first[i] = at;
      count[i] = run.count;
      material[i] = number;
      face[i] = run.face === undefined ? 0 : numberIn(faces, run.face) + 1;
      opening[i] = run.opening === null ? 0 : numberIn(openings, run.opening) + 1;
      at += run.count;
      i += 1;
    }
  });
  return {
    triangles: ordered,
    runs: {
      first,
      count,
      material,
      materials: [...materials.keys()],
      opening,
      openings: [...openings.keys()],
      face,
      faces: [...faces.keys()],
    },
  };
}
