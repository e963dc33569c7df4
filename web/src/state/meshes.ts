/** Meshes from outside, fetched when a document names them: drawings and studies are made anew once one has come. */
import type { ProjectDocument } from '@yard-arch/document';
import { useEffect } from 'react';
import { assetUrl } from './api.ts';
import { useEditor } from './state.ts';

const asked = new Set<string>();

async function fetchMesh(sha256: string): Promise<void> {
  try {
    const response = await fetch(assetUrl(sha256));
    if (response.ok) await take(sha256, new Uint8Array(await response.arrayBuffer()));
  } catch {
    // It is asked for again when the document is another: the network may be back by then.
    asked.delete(sha256);
  }
}

/** Takes in a mesh that is at hand. What reads it is fetched by those who have one. */
export async function take(sha256: string, bytes: Uint8Array): Promise<void> {
  const { learnMesh, meshesLearnt } = await import('@yard-arch/core/meshes');
  learnMesh(sha256, bytes);
  asked.add(sha256);
  useEditor.setState({ meshes: meshesLearnt() });
}

/** Fetches those that a document names and that are not here yet. */
export function useMeshes(document: ProjectDocument | null): void {
  const meshes = document?.meshes;
  useEffect(() => {
    for (const sha256 of Object.keys(meshes ?? {}))
      if (!asked.has(sha256)) {
        asked.add(sha256);
        void fetchMesh(sha256);
      }
  }, [meshes]);
}
