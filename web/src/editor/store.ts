/**
 * The document and its saving. The document that is shown is what the server holds plus the edits not yet sent; every edit is a change set,
 * goes to the worker to be cut and into the queue to be saved, and can be undone by its inverse.
 */
import { applyChangeSet, differenceOf, rebased, Refused, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { api, eventsUrl, ServerProblem } from '../common/api.ts';
import { complain } from '../common/notices.tsx';
import { takeAhead } from './ahead.ts';
import { chooseOpenings, rememberedChoice, rememberedElement, rememberedHidden } from './choice.ts';
import { post, startWorker, stopWorker } from './cutting.ts';
import { readKept, writeKept, type Pending } from './kept.ts';
import { lockedBy } from './locks.ts';
import { initial, useEditor } from './state.ts';

const { getState, setState } = useEditor;

// What the server holds, and what it has yet to be told.
let base: ProjectDocument | null = null;
let revision = 0;
let pending: Pending[] = [];
let session = 0;

/** The newest revision that the server has told of, and the line on which it tells. */
let heard = 0;
let line: EventSource | null = null;

/** Opens a project: reads it, takes up edits that were kept in this browser, and cuts it. */
export async function openProject(project: string): Promise<void> {
  const mine = ++session;
  line?.close();
  heard = 0;
  stopWorker();
  setState({ ...initial(), project, hidden: rememberedHidden(project) });
  // It starts while the document is read, or has started before.
  const ahead = takeAhead(project);
  startWorker(ahead ?? undefined);
  try {
    const kept = await readKept(project);
    const read = await (ahead ? api.readFrom(ahead.read) : api.read(project));
    if (mine !== session) return;
    base = read.document;
    revision = read.revision;
    pending = kept.pending;
    setState({ undo: kept.undo, redo: kept.redo });
    show(replayed(), pending.length === 0 ? revision : null);
    const element = rememberedElement(project) ?? Object.keys(getState().document!.elements)[0] ?? null;
    setState({ element: element && getState().document!.elements[element] ? element : (Object.keys(getState().document!.elements)[0] ?? null) });
    const choice = rememberedChoice(project);
    const known = getState().document!;
    if (choice.kind === 'openings' ? choice.ids.every((id) => known.openings[id]?.element === getState().element) : choice.kind === 'pattern' && known.patterns[choice.id])
      setState({ chosen: choice });
    hear(project);
    if (pending.length > 0) void save();
  } catch (error) {
    if (mine !== session) return;
    const problem = error instanceof ServerProblem ? error : null;
    setState({ failure: { title: problem?.title ?? 'The project cannot be opened', detail: (error as Error).message, passing: problem?.passing ?? false } });
  }
}

/** Leaves the project; what is not yet sent stays kept. */
export function closeProject(): void {
  session += 1;
  line?.close();
  stopWorker();
  setState(initial());
}

/** The server's document with the edits that are still to be sent; edits that no longer fit are dropped, and said so. */
function replayed(): ProjectDocument {
  let document = base!;
  pending = pending.flatMap((edit) => {
    try {
      const changeSet = edit.inverse ? rebased(edit.changeSet, edit.inverse, document) : edit.changeSet;
      const applied = applyChangeSet(document, changeSet);
      document = applied.document;
      return [{ key: edit.key, changeSet, inverse: applied.inverse }];
    } catch (error) {
      complain(`“${edit.changeSet.name}” could not be kept`, `The project was changed meanwhile, and the edit no longer fits it. ${(error as Error).message}`);
      return [];
    }
  });
  return document;
}

/** Shows a document. @param revision the server's that it is, where it is no more than that. */
function show(document: ProjectDocument, revision: number | null = null): void {
  setState({ document, draft: null });
  post({ kind: 'document', document, revision });
  settle();
}

/** After any change of the document: nothing that is gone stays chosen. */
function settle(): void {
  const { document, element, chosen, placing } = getState();
  if (!document) return;
  if (element && !document.elements[element]) setState({ element: Object.keys(document.elements)[0] ?? null, chosen: { kind: 'wall' } });
  if (chosen.kind === 'openings' && !chosen.ids.every((id) => document.openings[id])) chooseOpenings(chosen.ids);
  if (chosen.kind === 'pattern' && !document.patterns[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (chosen.kind === 'datum' && !document.datums[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (chosen.kind === 'axis' && !document.axes[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (placing && !document.patterns[placing.pattern]?.sizes[placing.size]) setState({ placing: null });
}

function keep(): void {
  const { project, undo, redo } = getState();
  setState({ pendingCount: pending.length });
  if (!project) return;
  writeKept(project, { pending, undo, redo }).catch((error: Error) => {
    complain('Edits cannot be kept in this browser', `${error.message}. They are still sent to the server as you make them.`);
  });
}

function enter(changeSet: ChangeSet): ChangeSet | null {
  const { document } = getState();
  if (!document) return null;
  try {
    const applied = applyChangeSet(document, changeSet);
    setState({ document: applied.document, draft: null });
    post({ kind: 'apply', changeSet });
    pending = [...pending, { key: crypto.randomUUID(), changeSet, inverse: applied.inverse }];
    settle();
    return applied.inverse;
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    dropPreview();
    complain(`Cannot ${changeSet.name}`, `${error.faults.map((fault) => `${fault.path.split('/').slice(2).join(' ') || fault.path} ${fault.reason}`).join('; ')}.`);
    return null;
  }
}

/** Makes an edit. @returns false when it was refused; the person has been told why. */
export function commit(changeSet: ChangeSet): boolean {
  const { document } = getState();
  const lock = document && lockedBy(document, changeSet);
  if (lock) {
    dropPreview();
    complain(`Cannot ${changeSet.name}`, `${lock} is locked. Unlock it in the register first.`);
    return false;
  }
  const inverse = enter(changeSet);
  if (!inverse) return false;
  setState((state) => ({ undo: [...state.undo, { changeSet, inverse }], redo: [] }));
  keep();
  void save();
  return true;
}

/** Shows an edit that is being made without making it; null gives it up. */
export function preview(changeSet: ChangeSet | null): void {
  const { document } = getState();
  if (!document) return;
  if (!changeSet) return dropPreview();
  try {
    setState({ draft: applyChangeSet(document, changeSet).document });
    post({ kind: 'preview', changeSet });
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
  }
}

function dropPreview(): void {
  if (getState().draft === null) return;
  setState({ draft: null });
  post({ kind: 'preview', changeSet: null });
}

function step(from: 'undo' | 'redo'): void {
  const stack = getState()[from];
  const last = stack.at(-1);
  if (!last) return;
  const { document } = getState();
  if (!document) return;
  // Only what the edit itself changed is taken back or made again, whatever others have changed since.
  const changeSet = from === 'undo' ? { ...rebased(last.inverse, last.changeSet, document), name: `undo ${last.changeSet.name}`.slice(0, 200) } : rebased(last.changeSet, last.inverse, document);
  const inverse = enter(changeSet);
  // One that no longer fits is passed over, so that those before it can still be reached.
  const to = from === 'undo' ? 'redo' : 'undo';
  setState((state) => ({
    [from]: state[from].slice(0, -1),
    ...(inverse ? { [to]: [...state[to], from === 'undo' ? last : { changeSet: last.changeSet, inverse }] } : {}),
  }));
  keep();
  void save();
}

export const undo = (): void => step('undo');
export const redo = (): void => step('redo');

let busy = false;
let wait = 500;
let again: ReturnType<typeof setTimeout> | undefined;

/** Sends edits one after the other until none is left. While the server is away it tries again, ever less often. */
async function save(): Promise<void> {
  if (busy) return;
  busy = true;
  clearTimeout(again);
  const mine = session;
  const project = getState().project!;
  try {
    while (pending.length > 0 && mine === session) {
      if (getState().saving === 'saved') setState({ saving: 'saving' });
      const first = pending[0]!;
      try {
        const answer = await api.append(project, revision, first.key, first.changeSet);
        if (mine !== session) return;
        if (answer.revision === revision + 1) {
          base = applyChangeSet(base!, first.changeSet).document;
          revision = answer.revision;
          pending = pending.slice(1);
        } else {
          // It had been taken in before, in an answer that never came: read how things stand.
          pending = pending.slice(1);
          await catchUp(project);
        }
        wait = 500;
        setState({ saving: 'saving', trouble: null });
        keep();
      } catch (error) {
        if (mine !== session) return;
        if (!(error instanceof ServerProblem)) throw error;
        if (error.status === 409) await catchUp(project, error);
        else if (error.passing) throw error;
        else {
          pending = pending.slice(1);
          complain(`“${first.changeSet.name}” was not saved`, `${error.message} The project is shown as it is saved.`);
          keep();
          await catchUp(project);
        }
      }
    }
    if (mine === session) setState({ saving: 'saved', trouble: null });
  } catch (error) {
    // Away while an edit was sent, or while what was missed was read: either way it is tried again.
    if (mine !== session) return;
    if (!(error instanceof ServerProblem)) throw error;
    setState({ saving: 'kept here', trouble: `${error.title}. ${error.message}` });
    again = setTimeout(() => void save(), wait);
    wait = Math.min(wait * 2, 8000);
  } finally {
    busy = false;
    if (mine === session) void takeIn(project);
  }
}

/** Listens for what other tabs and people do, and takes it in. */
function hear(project: string): void {
  line = new EventSource(eventsUrl(project));
  line.addEventListener('revision', ({ data }) => {
    heard = Math.max(heard, Number(data));
    void takeIn(project);
  });
}

/** Takes in what was heard of, unless edits are being sent: that takes it in itself. */
async function takeIn(project: string): Promise<void> {
  if (busy || heard <= revision) return;
  busy = true;
  const mine = session;
  try {
    await catchUp(project);
  } catch {
    // The next edit, or the next thing heard, tries again.
  } finally {
    busy = false;
    if (mine === session && pending.length > 0) void save();
  }
}

/** Takes in what others did meanwhile, under the edits that are still to be sent. */
async function catchUp(project: string, conflict?: ServerProblem): Promise<void> {
  const mine = session;
  const missed = conflict ? conflict.missed : await api.log(project, revision);
  if (mine !== session) return;
  const newest = conflict?.revision ?? missed.at(-1)?.revision ?? revision;
  const complete = missed.length > 0 && missed[0]!.revision === revision + 1 && missed.at(-1)!.revision === newest && newest >= heard;
  if (complete) {
    base = missed.reduce((document, { changeSet }) => applyChangeSet(document, changeSet).document, base!);
    revision = newest;
  } else if (missed.length > 0 || heard > revision) {
    const read = await api.read(project);
    if (mine !== session) return;
    base = read.document;
    revision = read.revision;
  }
  show(replayed());
  keep();
}

/** Goes back to a version: an edit like any other, that can be undone. @returns false when there was nothing to change. */
export async function goBackTo(version: { revision: number; name: string }): Promise<boolean> {
  const { project, document } = getState();
  if (!project || !document) return false;
  const then = await api.read(project, version.revision);
  const changes = differenceOf(getState().document!, then.document);
  return changes.length > 0 && commit({ name: `go back to ${version.name}`.slice(0, 200), changes });
}

/** Steps through the history: to where so many edits of this tab are made. */
export function stepTo(count: number): void {
  while (getState().undo.length > count) {
    const { length } = getState().undo;
    undo();
    if (getState().undo.length === length) return;
  }
  while (getState().undo.length < count && getState().redo.length > 0) {
    const { length } = getState().redo;
    redo();
    if (getState().redo.length === length) return;
  }
}

window.addEventListener('online', () => {
  if (pending.length > 0) void save();
});
