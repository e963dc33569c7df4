/** The page's side of the cutting worker: what it is told, and what it tells is put into the state. */
import type { OpeningStatus } from '@yard-arch/core';
import { sameValue } from '@yard-arch/document';
import { listen, makeWorker, type Ahead } from './ahead.ts';
import type { FromWorker, ToWorker } from './cut-messages.ts';
import { useEditor } from './state.ts';

const { getState, setState } = useEditor;

let worker: Worker | null = null;
let sent = 0;

/** Starts the worker, unless it runs. @param begun one that has begun already, and what it has told. */
export function startWorker(begun?: Pick<Ahead, 'worker' | 'told'>): Worker {
  if (worker) return worker;
  worker = begun?.worker ?? makeWorker();
  begun?.told.forEach(take);
  listen(worker, take);
  return worker;
}

/** Tells the worker of the document, an edit, or one that is being made. */
export function post(message: ToWorker extends infer M ? (M extends ToWorker ? Omit<M, 'number'> : never) : never): void {
  startWorker().postMessage({ ...message, number: ++sent });
}

function take(message: FromWorker): void {
  if (message.kind === 'failed') return setState({ cutFailure: message.message });
  if (message.kind === 'proofs') {
    if (message.number === sent) setState({ proofs: new Map(message.proofs) });
    return;
  }
  const drawn = new Map(getState().drawn);
  for (const id of message.removed) drawn.delete(id);
  for (const element of message.elements) drawn.set(element.element, element);
  setState({ drawn, statuses: sameStatuses(getState().statuses, message.statuses), cutTime: message.milliseconds, cutFailure: null });
}

/** The statuses that came in, or the very ones that there are where nothing has changed, so that nothing is drawn again for them. */
function sameStatuses(known: ReadonlyMap<string, OpeningStatus>, told: readonly [string, OpeningStatus][]): ReadonlyMap<string, OpeningStatus> {
  let changed = known.size !== told.length;
  const next = told.map(([id, status]): [string, OpeningStatus] => {
    const old = known.get(id);
    if (old && sameValue(old, status)) return [id, old];
    changed = true;
    return [id, status];
  });
  return changed ? new Map(next) : known;
}

/** Stops the worker; what it was about is of no more use. */
export function stopWorker(): void {
  worker?.terminate();
  worker = null;
  sent = 0;
}
