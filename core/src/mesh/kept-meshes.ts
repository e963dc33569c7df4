/** Meshes from outside that have come in, by the SHA-256 of their bytes: what they hold never changes, so they are known for all documents at once. */
import type { ProjectDocument } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import { meshFacts, readPlainGlb, welded, type PlainMesh } from './plain-glb.ts';

export interface KnownMesh extends PlainMesh {
  /** The lower corner of the box about it, and the size of that. */
  low: readonly [number, number, number];
  size: readonly [number, number, number];
}

/** So many triangles are kept at hand. */
const most = 4_000_000;
const known = new LRUCache<string, KnownMesh>({
  maxSize: most,
  sizeCalculation: ({ slots }) => Math.max(1, slots.length),
});
let times = 0;

/** Takes in a mesh's bytes. @throws NotPlain where they are no mesh that is kept. */
export function learnMesh(sha256: string, bytes: Uint8Array): void {
  if (known.has(sha256)) return;
  const mesh = welded(readPlainGlb(bytes));
  const { low, size } = meshFacts(mesh);
  known.set(sha256, { ...mesh, low, size });
  times += 1;
}

/** Takes in those meshes of a document that are to be had; what lacks one says so where it stands. */
export function learnMeshes(
  { meshes }: Pick<ProjectDocument, 'meshes'>,
  source: (sha256: string) => Uint8Array | null,
): void {
  for (const { sha256 } of Object.values(meshes)) {
    const bytes = known.has(sha256) ? null : source(sha256);
    if (bytes) learnMesh(sha256, bytes);
  }
}

export const isMeshKnown = (sha256: string): boolean => known.has(sha256);
export const meshBy = (sha256: string): KnownMesh | undefined => known.get(sha256);

/** How often one has come in: what was made before may lack it. */
export const meshesLearnt = (): number => times;
