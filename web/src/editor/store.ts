/**
 * The editor's state. The document that is shown is what the server holds plus the edits not yet sent; every edit is a change set,
 * goes to the worker to be cut and into the queue to be saved, and can be undone by its inverse.
 */
import type { MeshProof, OpeningStatus } from '@yard-arch/core';
import { applyChangeSet, differenceOf, rebased, Refused, sameValue, type ChangeSet, type Grip, type ProjectDocument } from '@yard-arch/document';
import { create } from 'zustand';
import { api, eventsUrl, ServerProblem } from '../common/api.ts';
import { complain } from '../common/notices.tsx';
import type { DrawnElement, FromWorker, ToWorker } from './cut-messages.ts';
import { readKept, writeKept, type Pending, type Step } from './kept.ts';

/** How the saving of edits stands. */
export type Saving = 'saved' | 'saving' | 'kept here';

/** What is chosen: openings of one element, in the order in which they were chosen, a pattern (to be looked at or placed), a datum or an axis, the project with its materials, its history, or nothing but the wall itself. */
export type Chosen = { kind: 'wall' } | { kind: 'project' } | { kind: 'history' } | { kind: 'datum' | 'axis'; id: string } | { kind: 'openings'; ids: readonly string[] } | { kind: 'pattern'; id: string };

/** What can be on the board: the chosen element's sheet, the plan, or the table of openings. */
const boards = ['sheet', 'plan', 'table'] as const;
export type Board = (typeof boards)[number];

/** The ids of openings that are chosen. */
export const chosenIds = (chosen: Chosen): readonly string[] => (chosen.kind === 'openings' ? chosen.ids : nothing);
const nothing: readonly string[] = [];

interface EditorState {
  project: string | null;
  failure: { title: string; detail: string; passing: boolean } | null;
  /** The document with all edits, or null while it is being read. */
  document: ProjectDocument | null;
  /** The document with the edit that is just being made, such as a drag; null when none is. */
  draft: ProjectDocument | null;
  saving: Saving;
  /** Why edits are only kept here. */
  trouble: string | null;
  pendingCount: number;
  undo: Step[];
  redo: Step[];
  element: string | null;
  chosen: Chosen;
  /** The size that a click on the sheet places, or null. */
  placing: { pattern: string; size: string } | null;
  /** Which drawing is on the board: the chosen element's sheet, or the plan. */
  board: Board;
  /** The dialog that is open over the page. */
  dialog: 'finder' | 'keys' | null;
  /** Elements that are not shown in the model and only faintly in plan; remembered in this browser. */
  hidden: ReadonlySet<string>;
  /** The point by which an opening is placed and held. */
  grip: Grip;
  /** Whether clicks on the sheet measure. */
  taping: boolean;
  /** What was copied last, and how far, to be copied on. */
  lastCopy: { ds: number; dt: number } | null;
  /** Openings, or a whole wall's setting-out, to be pasted. */
  clip: { kind: 'openings'; ids: readonly string[] } | { kind: 'wall'; id: string } | null;
  drawn: ReadonlyMap<string, DrawnElement>;
  statuses: ReadonlyMap<string, OpeningStatus>;
  proofs: ReadonlyMap<string, MeshProof>;
  cutTime: number | null;
  cutFailure: string | null;
}

export const useEditor = create<EditorState>(() => initial());

function initial(): EditorState {
  return {
    project: null,
    failure: null,
    document: null,
    draft: null,
    saving: 'saved',
    trouble: null,
    pendingCount: 0,
    undo: [],
    redo: [],
    element: null,
    chosen: { kind: 'wall' },
    placing: null,
    board: boards.find((board) => board === localStorage.getItem('yard-arch-board')) ?? 'sheet',
    dialog: null,
    hidden: new Set(),
    grip: { across: 'centre', level: 'sill' },
    taping: false,
    lastCopy: null,
    clip: null,
    drawn: new Map(),
    statuses: new Map(),
    proofs: new Map(),
    cutTime: null,
    cutFailure: null,
  };
}

const { getState, setState } = useEditor;

// What the server holds, and what it has yet to be told.
let base: ProjectDocument | null = null;
let revision = 0;
let pending: Pending[] = [];
let session = 0;

/** The newest revision that the server has told of, and the line on which it tells. */
let heard = 0;
let line: EventSource | null = null;

let worker: Worker | null = null;
let sent = 0;

function startWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./cut.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<FromWorker>) => take(data);
  worker.onerror = (event) => setState({ cutFailure: event.message || 'the cutting worker has stopped' });
  return worker;
}

function post(message: ToWorker extends infer M ? (M extends ToWorker ? Omit<M, 'number'> : never) : never): void {
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

/** Opens a project: reads it, takes up edits that were kept in this browser, and cuts it. */
export async function openProject(project: string): Promise<void> {
  const mine = ++session;
  line?.close();
  heard = 0;
  worker?.terminate();
  worker = null;
  sent = 0;
  setState({ ...initial(), project, hidden: rememberedHidden(project) });
  // It starts while the document is read.
  startWorker();
  try {
    const kept = await readKept(project);
    const read = await api.read(project);
    if (mine !== session) return;
    base = read.document;
    revision = read.revision;
    pending = kept.pending;
    setState({ undo: kept.undo, redo: kept.redo });
    show(replayed());
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
  worker?.terminate();
  worker = null;
  setState(initial());
}

function rememberedHidden(project: string): ReadonlySet<string> {
  try {
    return new Set(JSON.parse(localStorage.getItem(`yard-arch-hidden-${project}`) ?? '[]') as string[]);
  } catch {
    return new Set();
  }
}

/** Shows only some elements: hides those given. */
export function hide(hidden: ReadonlySet<string>): void {
  const { project } = getState();
  if (project) localStorage.setItem(`yard-arch-hidden-${project}`, JSON.stringify([...hidden]));
  setState({ hidden });
}

function rememberedElement(project: string): string | null {
  return localStorage.getItem(`yard-arch-element-${project}`);
}

// What is chosen is remembered for this tab, so that a reload comes back to it.
useEditor.subscribe(({ project, document, chosen }, before) => {
  if (project && document && chosen !== before.chosen) sessionStorage.setItem(`yard-arch-chosen-${project}`, JSON.stringify(chosen));
});

function rememberedChoice(project: string): Chosen {
  try {
    return (JSON.parse(sessionStorage.getItem(`yard-arch-chosen-${project}`) ?? 'null') as Chosen | null) ?? { kind: 'wall' };
  } catch {
    return { kind: 'wall' };
  }
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

function show(document: ProjectDocument): void {
  setState({ document, draft: null });
  post({ kind: 'document', document });
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

/** The name of a locked element that a change set would change, or null. Locking and unlocking are changes that a lock does not keep from. */
function lockedBy(document: ProjectDocument, { changes }: ChangeSet): string | null {
  const lockOf = (id: string | null | undefined): string | null => (id && document.elements[id]?.locked ? document.elements[id].name : null);
  for (const change of changes) {
    if (change.op === 'settings') continue;
    const id = change.op === 'put' ? change.value.id : change.id;
    if (change.table === 'elements') {
      const before = document.elements[id];
      if (!before?.locked) continue;
      const rest = (element: object): string => JSON.stringify({ ...element, locked: undefined, group: undefined });
      if (change.op === 'remove' || rest(before) !== rest(change.value)) return before.name;
    } else if (change.table === 'openings') {
      const lock = lockOf(document.openings[id]?.element) ?? lockOf(change.op === 'put' ? (change.value as { element: string }).element : null);
      if (lock) return lock;
    } else if (change.table === 'axes') {
      const lock = lockOf(document.axes[id]?.element);
      if (lock) return lock;
    }
  }
  return null;
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
/** Chooses an element, and remembers it. */
export function chooseElement(element: string | null): void {
  const { project } = getState();
  if (project && element) localStorage.setItem(`yard-arch-element-${project}`, element);
  setState((state) => ({ element, chosen: state.element === element && state.chosen.kind !== 'openings' ? state.chosen : { kind: 'wall' } }));
}

/** Chooses an opening, and the wall that it is in; or adds it to those chosen on the same wall, or takes it from them. */
export function chooseOpening(id: string, more = false): void {
  const ids = more ? chosenIds(getState().chosen) : [];
  chooseOpenings(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id]);
}

/** Chooses openings, all those given that are on the element of the last one. */
export function chooseOpenings(ids: readonly string[]): void {
  const openings = getState().document?.openings ?? {};
  const known = [...new Set(ids)].filter((id) => openings[id]);
  const last = known.at(-1);
  if (!last) return setState({ chosen: { kind: 'wall' } });
  const element = openings[last]!.element;
  if (getState().element !== element) chooseElement(element);
  setState({ chosen: { kind: 'openings', ids: known.filter((id) => openings[id]!.element === element) }, placing: null });
}

export function choose(chosen: Chosen): void {
  setState({ chosen });
}

export function place(placing: { pattern: string; size: string } | null): void {
  setState(placing ? { placing, taping: false, chosen: { kind: 'pattern', id: placing.pattern } } : { placing: null });
}

/** Whether a dialog lies over the page. It has the keys then, and Escape closes it even before it has the focus. */
export function underDialog(key: string): boolean {
  if (getState().dialog === null) return false;
  if (key === 'Escape') setState({ dialog: null });
  return true;
}

/** Begins or ends measuring. */
export function tape(on: boolean): void {
  setState(on ? { taping: true, placing: null } : { taping: false });
}

/** Puts a drawing on the board, and remembers which. */
export function turnTo(board: Board): void {
  localStorage.setItem('yard-arch-board', board);
  setState({ board, placing: null, taping: false });
}
