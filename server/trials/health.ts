/** Asks for a server's health again and again, in a thread of its own: what the test itself does keeps no answer waiting. */
import { Worker } from 'node:worker_threads';

const code = `
  const { parentPort, workerData } = require('node:worker_threads');
  let over = false;
  parentPort.on('message', () => (over = true));
  (async () => {
    let [longest, bad] = [0, 0];
    while (!over) {
      const begun = performance.now();
      const { status } = await fetch(workerData + '/api/health').catch(() => ({ status: 0 }));
      if (status !== 200) bad += 1;
      longest = Math.max(longest, performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    parentPort.postMessage({ longest, bad });
    parentPort.close();
  })();`;

export interface HealthTold {
  /** The longest that an answer took, milliseconds. */
  longest: number;
  /** How many answers were others than that all is well. */
  bad: number;
}

/** Begins to ask. @returns what ends it, and tells. */
export function askHealth(url: string): () => Promise<HealthTold> {
  const worker = new Worker(code, { eval: true, workerData: url });
  return () =>
    new Promise((resolve) => {
      worker.once('message', resolve);
      worker.postMessage('over');
    });
}
