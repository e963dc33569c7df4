/** Runs of a mesh as columns, and its triangles in their order: the cutting worker tells the page of very many. */
import type { CutMesh } from '@yard-arch/core';
import type { DrawnElement, DrawnFlat, DrawnRuns } from './cut-messages.ts';

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

/** Fewer triangles are drawn sooner than it is found out whether they need be. */
const fewest = 1000;

/** Normals are of 32 bits. */
const sameWay = 1e-5;

/** Those of the runs with very many triangles that all face one way. */
export function flatsOf(
  drawn: Pick<DrawnElement, 'triangles' | 'runs' | 'positions'> & { normals: Float32Array },
): DrawnFlat[] {
  const { first, count } = drawn.runs;
  return Array.from(first, (start, i) => (count[i]! < fewest ? null : flatOf(drawn, start, count[i]!))).filter(
    (flat) => flat !== null,
  );
}

/** By the corners from its first to its last, for a face has those to itself, and far fewer than its triangles have together. */
function flatOf(
  { triangles, positions, normals }: Parameters<typeof flatsOf>[0],
  first: number,
  count: number,
): DrawnFlat | null {
  let [low, high] = [Infinity, 0];
  for (let i = 3 * first; i < 3 * (first + count); i++) {
    const corner = triangles[i]!;
    if (corner < low) low = corner;
    if (corner > high) high = corner;
  }
  const [x, y, z] = [normals[3 * low]!, normals[3 * low + 1]!, normals[3 * low + 2]!];
  let least = Infinity;
  for (let c = 3 * low; c <= 3 * high; c += 3) {
    const turned = Math.abs(normals[c]! - x) + Math.abs(normals[c + 1]! - y) + Math.abs(normals[c + 2]! - z);
    if (turned > sameWay) return null;
    const along = x * positions[c]! + y * positions[c + 1]! + z * positions[c + 2]!;
    if (along < least) least = along;
  }
  return { first, normal: [x, y, z], least };
}
