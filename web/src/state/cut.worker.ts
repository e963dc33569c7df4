/** The cutting worker: what cuts, with a network and a page to tell. */
import { isMeshKnown, learnMesh } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import wasm from 'manifold-3d/manifold.wasm?url';
import type { FromWorker, ToWorker } from './cut-messages.ts';
import { Cutter } from './cutter.ts';

const scope = self as unknown as {
  name: string;
  postMessage(message: FromWorker, transfer?: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

const cutter = new Cutter({
  tell: (message, transfer) => scope.postMessage(message, transfer),
  later: (what, ms) => {
    const timer = setTimeout(what, ms);
    return () => clearTimeout(timer);
  },
  now: () => performance.now(),
  fetchSolidPath: async () => {
    const { solidLibrary } = await import('@yard-arch/core/solid');
    await solidLibrary(wasm);
  },
  fetchMeshes,
});

const asked = new Set<string>();

/** Fetches the meshes that a document names; what lacks one is made once it has come. */
function fetchMeshes({ meshes }: ProjectDocument, arrived: () => void): void {
  for (const { sha256 } of Object.values(meshes)) {
    if (isMeshKnown(sha256) || asked.has(sha256)) continue;
    asked.add(sha256);
    void fetch(`/api/assets/${sha256}`)
      .then(async (response) => {
        if (!response.ok) return;
        learnMesh(sha256, new Uint8Array(await response.arrayBuffer()));
        arrived();
      })
      // It is asked for again with the next cut: the network may be back by then.
      .catch(() => void asked.delete(sha256));
  }
}

/** Reads the document before the page has it to send. */
async function readAhead(url: string): Promise<void> {
  try {
    const response = await fetch(url);
    if (!response.ok) return;
    const read = (await response.json()) as { revision: number; document: ProjectDocument };
    cutter.takeAhead(read.document, read.revision);
  } catch {
    // The page reads it too, and says what is wrong.
  }
}

// Its name is where the document is read, where the page has not got it yet.
if (scope.name) void readAhead(scope.name);

scope.onmessage = ({ data }) => cutter.hear(data);
