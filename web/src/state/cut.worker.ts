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

/** Cuts one project after another, each from nothing. */
class Cutting {
  private readonly timers = new Set<ReturnType<typeof setTimeout>>();
  private left = false;
  readonly cutter = new Cutter({
    tell: (message, transfer) => {
      if (!this.left) scope.postMessage(message, transfer);
    },
    later: (what, ms) => {
      const timer = setTimeout(() => {
        this.timers.delete(timer);
        what();
      }, ms);
      if (this.left) clearTimeout(timer);
      else this.timers.add(timer);
      return () => {
        clearTimeout(timer);
        this.timers.delete(timer);
      };
    },
    now: () => performance.now(),
    fetchSolidPath: async () => {
      const { solidLibrary } = await import('@yard-arch/core/solid');
      await solidLibrary(wasm);
    },
    fetchMeshes,
  });

  leave(): void {
    this.left = true;
    this.timers.forEach(clearTimeout);
  }
}

let cutting = new Cutting();

/** Meshes that are on their way. */
const asked = new Map<string, Promise<void>>();

/** Fetches the meshes that a document names; what lacks one is made once it has come. */
function fetchMeshes({ meshes }: ProjectDocument, arrived: () => void): void {
  for (const { sha256 } of Object.values(meshes)) {
    if (isMeshKnown(sha256)) continue;
    const fetched = asked.get(sha256) ?? fetchMesh(sha256);
    asked.set(sha256, fetched);
    void fetched.then(() => isMeshKnown(sha256) && arrived());
  }
}

async function fetchMesh(sha256: string): Promise<void> {
  try {
    const response = await fetch(`/api/assets/${sha256}`);
    if (response.ok) learnMesh(sha256, new Uint8Array(await response.arrayBuffer()));
  } catch {
    // It is asked for again with the next cut: the network may be back by then.
    asked.delete(sha256);
  }
}

/** Reads the document before the page has it to send. */
async function readAhead(url: string): Promise<void> {
  try {
    const response = await fetch(url);
    if (!response.ok) return;
    const read = (await response.json()) as { revision: number; document: ProjectDocument };
    cutting.cutter.takeAhead(read.document, read.revision);
  } catch {
    // The page reads it too, and says what is wrong.
  }
}

// Its name is where the document is read, where the page has not got it yet.
if (scope.name) void readAhead(scope.name);

scope.onmessage = ({ data }) => {
  if (data.kind !== 'forget') return cutting.cutter.hear(data);
  cutting.leave();
  cutting = new Cutting();
};
