/** Runs of a mesh as columns: the cutting worker tells the page of very many. */
import type { CutMesh } from '@yard-arch/core';
import type { DrawnRuns } from './cut-messages.ts';

export function drawnRunsOf({ runs }: CutMesh): DrawnRuns {
  const column = (): Uint32Array => new Uint32Array(runs.length);
  const [first, count, material, opening, face] = [column(), column(), column(), column(), column()];
  const [materials, openings, faces] = [
    new Map<string, number>(),
    new Map<string, number>(),
    new Map<string, number>(),
  ];
  const numberIn = (all: Map<string, number>, name: string): number =>
    all.get(name) ?? all.set(name, all.size).size - 1;
  runs.forEach((run, i) => {
    first[i] = run.first;
    count[i] = run.count;
    material[i] = numberIn(materials, run.material);
    face[i] = run.face === undefined ? 0 : numberIn(faces, run.face) + 1;
    opening[i] = run.opening === null ? 0 : numberIn(openings, run.opening) + 1;
  });
  return {
    first,
    count,
    material,
    materials: [...materials.keys()],
    opening,
    openings: [...openings.keys()],
    face,
    faces: [...faces.keys()],
  };
}
