/** What is begun ahead of the application itself: reading and cutting the project that the address names, while everything else is still being fetched and set up. */
import type { FromWorker } from './cut-messages.ts';

/** A project that was begun with before there was a page for it. */
export interface Ahead {
  project: string;
  worker: Worker;
  /** What the worker has told so far. */
  told: FromWorker[];
  /** The server's answer to the first reading. */
  read: Promise<Response>;
}

let ahead: Ahead | null = null;

/** @param url of a document that it is to read by itself as soon as it runs; a message would wait for the page to be less busy. */
export function makeWorker(url = ''): Worker {
  return new Worker(new URL('./cut.worker.ts', import.meta.url), { type: 'module', name: url });
}

/** Hears all that a worker tells, and that it has stopped. */
export function listen(worker: Worker, hear: (message: FromWorker) => void): void {
  worker.onmessage = ({ data }: MessageEvent<FromWorker>) => hear(data);
  worker.onerror = (event) =>
    hear({ kind: 'failed', number: 0, message: event.message || 'the cutting worker has stopped' });
}

/** Where a project's document is read. */
export function documentUrl(project: string): string {
  return `/api/projects/${encodeURIComponent(project)}/document`;
}

/** Begins with the project that an address names, if it names one. */
export function begin(path: string): void {
  const named = /^\/projects\/([^/]+)/.exec(path)?.[1];
  if (!named) return;
  const project = decodeURIComponent(named);
  const worker = makeWorker(documentUrl(project));
  const told: FromWorker[] = [];
  listen(worker, (message) => told.push(message));
  const read = fetch(documentUrl(project));
  // Whoever takes it hears of a failure; until then there is nobody to be told.
  read.catch(() => {});
  ahead = { project, worker, told, read };
}

/** Takes what was begun with for a project, once; what was begun for another is given up. */
export function takeAhead(project: string): Ahead | null {
  const found = ahead;
  ahead = null;
  if (!found || found.project === project) return found;
  found.worker.terminate();
  return null;
}
