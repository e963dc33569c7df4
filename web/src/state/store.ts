/**
 * The document and its edits. The document that is shown is what the server holds plus the edits not yet sent; every edit is a change set,
 * goes to the worker to be cut and to the saver to be saved, and can be undone by its inverse.
 */
import {
  applyChangeSet,
  differenceOf,
  rebased,
  Refused,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import { api, eventsUrl, ServerProblem, troubleOf } from './api.ts';
import { complain, notify } from '../common/notices.tsx';
import { holdTab, Keeper, livingTabs, nothingKept } from './kept.ts';
import { Saver, type Replaced, type SavingListener, type SavingState } from './saver.ts';
import { takeAhead } from './ahead.ts';
import { chooseOpenings, rememberedChoice, rememberedElement, rememberedHidden, rememberedTurned } from './choice.ts';
import { post, startWorker, stopWorker } from './cutting.ts';
import { lockedBy } from '@yard-arch/edit';
import { replacedWords } from './replaced-words.ts';
import { initial, useEditor } from './state.ts';

const { getState, setState } = useEditor;

/** What is there while a project is open. */
interface Session {
  project: string;
  saver: Saver;
  keeper: Keeper;
  line: Line;
}

let session: Session | null = null;

/** Opens a project: reads it, takes up edits that were kept in this browser, and cuts it. */
export async function openProject(project: string): Promise<void> {
  closeProject();
  setState({ project, hidden: rememberedHidden(project), turned: rememberedTurned(project) });
  const keeper = new Keeper(project, holdTab, livingTabs);
  const mine: Session = {
    project,
    keeper,
    saver: new Saver(
      serverOf(project),
      listenerOf(() => mine),
    ),
    line: new Line(project),
  };
  session = mine;
  // It starts while the document is read, or has started before.
  const ahead = takeAhead(project);
  startWorker(ahead ?? undefined);
  const kept = await keeper.read().catch((error: Error) => {
    complain(
      'What this browser keeps cannot be read',
      `${error.message}. Edits are still sent to the server as you make them.`,
    );
    return nothingKept;
  });
  try {
    const read = await (ahead ? api.readFrom(ahead.read) : api.read(project));
    if (mine !== session) return;
    setState({ undo: [...kept.undo], redo: [...kept.redo] });
    mine.saver.begin(read, kept);
    chooseAsBefore(project, getState().document!);
    mine.line.open(mine.saver);
  } catch (error) {
    if (mine !== session) return;
    if (!(error instanceof ServerProblem)) throw error;
    const { title, message, passing, status } = error;
    setState({
      failure: {
        title,
        detail: message,
        passing,
        deleted: status === 404,
        kept: kept.pending.length + kept.aside.length,
      },
    });
  }
}

function chooseAsBefore(project: string, document: ProjectDocument): void {
  const remembered = rememberedElement(project);
  const element =
    remembered && document.elements[remembered] ? remembered : (Object.keys(document.elements)[0] ?? null);
  setState({ element });
  const choice = rememberedChoice(project);
  if (
    choice.kind === 'openings'
      ? choice.ids.every((id) => document.openings[id]?.element === element)
      : choice.kind === 'pattern' && document.patterns[choice.id]
  )
    setState({ chosen: choice });
}

/** Leaves the project; what is not yet sent stays kept. */
export function closeProject(): void {
  session?.saver.end();
  session?.line.close();
  session = null;
  stopWorker();
  setState(initial());
}

/** Brings a deleted project back, with what this browser keeps of it. */
export async function bringBack(project: string): Promise<void> {
  try {
    await api.restore(project);
    if (getState().failure) await openProject(project);
  } catch (error) {
    complain('The project was not brought back', (error as Error).message);
  }
}

/** Lets go of the edits that this browser keeps of a project that was deleted. */
export async function letGo(project: string): Promise<void> {
  session?.saver.letGo();
  const keeper = new Keeper(project, holdTab, livingTabs);
  await keeper.read();
  await keeper.write(nothingKept);
  setState(({ failure }) => ({ failure: failure && { ...failure, kept: 0 } }));
}

const serverOf = (project: string): ConstructorParameters<typeof Saver>[0] => ({
  read: () => api.read(project),
  log: (after) => api.log(project, after),
  append: (edit) => api.append(project, edit),
  troubleOf,
});

function listenerOf(mine: () => Session): SavingListener {
  const current = (): boolean => session === mine();
  return {
    shows: (document, revision) => void (current() && show(document, revision)),
    stands: (state) => void (current() && stands(state)),
    setAside(edit) {
      if (!current()) return;
      // What it did is not there, and so cannot be undone.
      setState(({ undo }) => ({ undo: undo.filter(({ key }) => key !== edit.key) }));
      complain(`“${edit.changeSet.name}” was set aside`, edit.reason, {
        label: 'Show',
        onClick: () => setState({ dialog: 'aside' }),
      });
    },
    replaced: (replaced) => void (current() && tellReplaced(replaced)),
  };
}

function stands({ saving, trouble, pending, aside }: SavingState): void {
  const gone = saving === 'deleted' && getState().saving !== 'deleted';
  setState({ saving, trouble, pendingCount: pending.length, aside });
  if (gone)
    complain(
      'The project was deleted',
      pending.length > 0
        ? 'Edits that are not saved yet stay in this browser until it is back.'
        : 'It can be brought back for 30 days.',
    );
  kept = { pending, aside };
  keep();
}

let kept: Pick<SavingState, 'pending' | 'aside'> = { pending: [], aside: [] };

/** Keeps in this browser what there is to keep. */
function keep(): void {
  const { undo, redo } = getState();
  session?.keeper.write({ ...kept, undo, redo }).catch((error: Error) => {
    complain(
      'Edits cannot be kept in this browser',
      `${error.message}. They are still sent to the server as you make them.`,
    );
  });
}

function tellReplaced(replaced: Replaced): void {
  setState((state) => ({ replaced: [...state.replaced, replaced].slice(-50) }));
  const { document } = getState();
  if (document)
    complain(`Somebody’s later edit, “${replaced.by}”, replaced yours`, replacedWords(replaced, document), {
      label: 'Put mine back',
      onClick: () => putBack(replaced),
    });
}

/** Brings back what somebody's later edit replaced; an edit like any other. */
export function putBack(replaced: Replaced): void {
  if (commit(replaced.back)) setState((state) => ({ replaced: state.replaced.filter((other) => other !== replaced) }));
}

/** Edits that were set aside: tried again, or let go. */
export const retryAside = (keys: readonly string[]): void => session?.saver.retry(keys);
export const dropAside = (keys: readonly string[]): void => session?.saver.drop(keys);

/** The server's data was put back: what is to stand, this page's or the server's. */
export async function choosePutBack(which: 'ours' | 'theirs'): Promise<void> {
  const { document } = getState();
  if (!session || !document) return;
  try {
    if (which === 'theirs') await session.saver.takeServers();
    else await session.saver.keepOurs(document, differenceOf);
    notify(which === 'theirs' ? 'The server’s state stands' : 'This page’s state stands');
  } catch (error) {
    if (!(error instanceof ServerProblem)) throw error;
    complain('That cannot be done now', error.message);
  }
}

/** The line on which the server tells what others do. */
class Line {
  private source: EventSource | null = null;
  private again: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly project: string) {}

  open(saver: Saver): void {
    this.source = new EventSource(eventsUrl(this.project));
    this.source.addEventListener('state', ({ data }) =>
      saver.hear(JSON.parse(data as string) as { revision: number; mark: string }),
    );
    this.source.addEventListener('deleted', () => saver.hearDeleted());
    this.source.addEventListener('error', () => {
      // It tries again by itself, unless it was refused.
      if (this.source?.readyState === EventSource.CLOSED) this.again = setTimeout(() => this.open(saver), 4000);
    });
  }

  close(): void {
    clearTimeout(this.again);
    this.source?.close();
  }
}

/** Shows a document. @param revision the server's that it is, where it is no more than that. */
function show(document: ProjectDocument, revision: number | null): void {
  setState({ document, draft: null });
  post({ kind: 'document', document, revision });
  settle();
}

/** After any change of the document: nothing that is gone stays chosen. */
function settle(): void {
  const { document, element, chosen, placing } = getState();
  if (!document) return;
  if (element && !document.elements[element])
    setState({ element: Object.keys(document.elements)[0] ?? null, chosen: { kind: 'wall' } });
  if (chosen.kind === 'openings' && !chosen.ids.every((id) => document.openings[id])) chooseOpenings(chosen.ids);
  if (chosen.kind === 'pattern' && !document.patterns[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (chosen.kind === 'datum' && !document.datums[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (chosen.kind === 'axis' && !document.axes[chosen.id]) setState({ chosen: { kind: 'wall' } });
  if (placing && !document.patterns[placing.pattern]?.sizes[placing.size]) setState({ placing: null });
}

function enter(changeSet: ChangeSet): { inverse: ChangeSet; key: string } | null {
  const { document } = getState();
  if (!document || !session) return null;
  try {
    const { document: next, inverse } = applyChangeSet(document, changeSet);
    setState({ document: next, draft: null });
    post({ kind: 'apply', changeSet });
    settle();
    return { inverse, key: session.saver.add(changeSet, inverse) };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    dropPreview();
    complain(
      `Cannot ${changeSet.name}`,
      `${error.faults.map((fault) => `${fault.path.split('/').slice(2).join(' ') || fault.path} ${fault.reason}`).join('; ')}.`,
    );
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
  const entered = enter(changeSet);
  if (!entered) return false;
  setState((state) => ({ undo: [...state.undo, { changeSet, ...entered }], redo: [] }));
  keep();
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
  const last = getState()[from].at(-1);
  const { document } = getState();
  if (!last || !document) return;
  // Only what the edit itself changed is taken back or made again, whatever others have changed since.
  const changeSet =
    from === 'undo'
      ? { ...rebased(last.inverse, last.changeSet, document), name: `undo ${last.changeSet.name}`.slice(0, 200) }
      : rebased(last.changeSet, last.inverse, document);
  const entered = enter(changeSet);
  // One that no longer fits is passed over, so that those before it can still be reached.
  const to = from === 'undo' ? 'redo' : 'undo';
  setState((state) => ({
    [from]: state[from].slice(0, -1),
    ...(entered ? { [to]: [...state[to], from === 'undo' ? last : { changeSet: last.changeSet, ...entered }] } : {}),
  }));
  keep();
}

export const undo = (): void => step('undo');
export const redo = (): void => step('redo');

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

window.addEventListener('online', () => session?.saver.nudge());
