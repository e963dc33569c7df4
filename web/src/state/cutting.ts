/** The page's side of the cutting worker: what it is told, and what it tells is put into the state. */
import type { Outcome } from '@yard-arch/core';
import { listen, makeWorker, type Ahead } from './ahead.ts';
import type { FromWorker, NewStatuses, ToWorker } from './cut-messages.ts';
import { useEditor } from './state.ts';

const { getState, setState } = useEditor;

/** The worker, and the number of what was sent last before it began with this project: what it says of anything before is not heard. */
let running: { worker: Worker; before: number } | null = null;
/** A worker that has nothing to do: what it has run is compiled, so that it cuts the next project in half the time. */
let spare: Worker | null = null;
/** The number of what was sent last, and of what was proved last: all that there was to do for it is done. */
let sent = 0;
let proved = 0;
/** The number of what was sent last to be cut, of what was told last of that, and who waits for it. */
let wanted = 0;
let told = 0;
let waiting: (() => void)[] = [];

/** How long what can wait does so at most, ms. */
const mostWait = 1000;

/** Resolves when what was sent last has been cut and drawn, at once where it has been, and soon in any case: what a person looks at is first. */
export function whenShown(): Promise<void> {
  if (!running || told >= wanted) return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, mostWait);
    waiting.push(() =>
      requestAnimationFrame(() =>
        requestAnimationFrame(() => {
          clearTimeout(timer);
          resolve();
        }),
      ),
    );
  });
}

/** What was sent so far is cut, or will not be. */
function isTold(number: number): void {
  told = number;
  if (told < wanted) return;
  waiting.forEach((go) => go());
  waiting = [];
}

/** Starts the worker, unless it runs. @param begun one that has begun already, and what it has told. */
export function startWorker(begun?: Pick<Ahead, 'worker' | 'told'>): Worker {
  if (running) return running.worker;
  if (begun) endSpare();
  const [worker, before] = [begun?.worker ?? spare ?? makeWorker(), sent];
  spare = null;
  running = { worker, before };
  begun?.told.forEach(take);
  listen(worker, (message) => {
    // What has stopped says so without a number.
    if (message.number > before || message.number === 0) take(message);
  });
  return worker;
}

function endSpare(): void {
  spare?.terminate();
  spare = null;
}

/** Tells the worker of the document, an edit, or one that is being made. */
export function post(
  message: ToWorker extends infer M ? (M extends ToWorker ? Omit<M, 'number'> : never) : never,
): void {
  startWorker().postMessage({ ...message, number: ++sent });
  if (message.kind !== 'drawn') wanted = sent;
}

function take(message: FromWorker): void {
  if (message.kind === 'failed') {
    isTold(sent);
    return setState({ cutFailure: message.message });
  }
  if (message.kind === 'proofs') {
    proved = message.number;
    if (message.number === sent) setState({ proofs: new Map(message.proofs) });
    return;
  }
  if (message.kind === 'faces')
    return setState(({ lateFaces }) => ({ lateFaces: new Map([...lateFaces, ...message.faces]) }));
  const drawn = new Map(getState().drawn);
  if (message.kind === 'creases') {
    for (const [id, creases] of message.creases) {
      const known = drawn.get(id);
      if (known) drawn.set(id, { ...known, creases, lined: true });
    }
    return setState({ drawn });
  }
  for (const id of message.removed) drawn.delete(id);
  for (const element of message.elements) drawn.set(element.element, element);
  const parts = message.parts.length > 0 ? new Map(getState().parts) : getState().parts;
  for (const part of message.parts) (parts as Map<string, (typeof message.parts)[number]>).set(part.key, part);
  setState({
    drawn,
    parts,
    statuses: withNew(getState().statuses, message.statuses),
    cuts: getState().cuts + 1,
    cutFailure: null,
  });
  isTold(message.number);
}

/** The statuses as they are now; the very ones that there were where nothing has changed, so that nothing is drawn again for them. */
function withNew(known: ReadonlyMap<string, Outcome>, { changed, gone }: NewStatuses): ReadonlyMap<string, Outcome> {
  if (changed.length + gone.length === 0) return known;
  const next = new Map(known);
  for (const status of changed) next.set(status.opening, status);
  for (const id of gone) next.delete(id);
  return next;
}

/** Stops the worker: what it was about is of no more use. One that has nothing left to do forgets it, and waits for the next project. */
export function stopWorker(): void {
  if (!running) return;
  const { worker, before } = running;
  running = null;
  endSpare();
  if (sent > before && proved === sent) {
    worker.onmessage = worker.onerror = null;
    worker.postMessage({ kind: 'forget', number: ++sent } satisfies ToWorker);
    spare = worker;
  } else {
    worker.terminate();
    sent = proved = wanted = told = 0;
  }
  waiting.forEach((go) => go());
  waiting = [];
}
