/** The project that is open in this page: its session, joined to the page's state, the cutting worker and the browser. */
import type { ChangeSet, ProjectDocument } from '@yard-arch/document';
import { api, eventsUrl, ServerProblem, troubleOf } from './api.ts';
import { complain, notify, refuse } from '../common/notices.tsx';
import { holdTab, Keeper, livingTabs, nothingKept } from './kept.ts';
import type { Replaced, Saver, SavingServer } from './saver.ts';
import { takeAhead } from './ahead.ts';
import { chooseOpenings, rememberedChoice, rememberedElement, rememberedHidden, rememberedFaces } from './choice.ts';
import { post, startWorker, stopWorker, whenShown } from './cutting.ts';
import { replacedWords } from './replaced-words.ts';
import { Session, type Host } from './session.ts';
import { initial, useEditor } from './state.ts';

const { getState, setState } = useEditor;

/** What is open, if anything is. */
let open: { session: Session; line: Line } | null = null;

const host: Host = {
  shown: getState,
  show: (over) => setState(over),
  onDocument: (document, revision) => post({ kind: 'document', document, revision }),
  onEdit: (changeSet) => post({ kind: 'apply', changeSet }),
  onPreview: (changeSet) => post({ kind: 'preview', changeSet }),
  settle,
  complain,
  showAside: () => setState({ dialog: 'aside' }),
  replacedWords,
};

/** Opens a project: reads it, takes up edits that were kept in this browser, and cuts it. */
export async function openProject(project: string): Promise<void> {
  closeProject();
  setState({ project, hidden: rememberedHidden(project), faces: rememberedFaces(project) });
  const session = new Session(project, serverOf(project), new Keeper(project, holdTab, livingTabs), host);
  const mine = { session, line: new Line(project) };
  open = mine;
  // It starts while the document is read, or has started before.
  const ahead = takeAhead(project);
  startWorker(ahead ?? undefined);
  const kept = await session.takeKept();
  try {
    const read = await (ahead ? api.readFrom(ahead.read) : api.read(project));
    if (session.ended) return;
    session.begin(read, kept);
    chooseAsBefore(project, getState().document!);
    mine.line.open(session.saver);
  } catch (error) {
    if (session.ended) return;
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
  open?.session.end();
  open?.line.close();
  open = null;
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
  open?.session.saver.letGo();
  const keeper = new Keeper(project, holdTab, livingTabs);
  await keeper.read();
  await keeper.write(nothingKept);
  setState(({ failure }) => ({ failure: failure && { ...failure, kept: 0 } }));
}

const serverOf = (project: string): SavingServer => ({
  read: () => api.read(project),
  log: (after) => api.log(project, after),
  append: async (edit) => {
    await whenShown();
    return api.append(project, edit);
  },
  troubleOf,
});

/** Makes an edit. @returns false when it was refused; the person has been told why. */
export const commit = (changeSet: ChangeSet): boolean => open?.session.commit(changeSet) ?? false;

/** Makes an edit, or says why it cannot be made. */
export function commitOr(outcome: ChangeSet | { reason: string; mend: string }): boolean {
  if (!('reason' in outcome)) return commit(outcome);
  refuse(outcome);
  return false;
}

/** Shows an edit that is being made without making it; null gives it up. */
export const preview = (changeSet: ChangeSet | null): void => open?.session.preview(changeSet);

export const undo = (): void => open?.session.undo();
export const redo = (): void => open?.session.redo();
/** Steps through the history: to where so many edits of this tab are made. */
export const stepTo = (count: number): void => open?.session.stepTo(count);

/** Brings back what somebody's later edit replaced; an edit like any other. */
export const putBack = (replaced: Replaced): void => open?.session.putBack(replaced);

/** Edits that were set aside: tried again, or let go. */
export const retryAside = (keys: readonly string[]): void => open?.session.saver.retry(keys);
export const dropAside = (keys: readonly string[]): void => open?.session.saver.drop(keys);

/** Goes back to a version: an edit like any other, that can be undone. @returns false when there was nothing to change. */
export async function goBackTo(version: { revision: number; name: string }): Promise<boolean> {
  const { project } = getState();
  if (!project) return false;
  const then = await api.read(project, version.revision);
  return open?.session.goTo(then.document, `go back to ${version.name}`) ?? false;
}

/** The server's data was put back: what is to stand, this page's or the server's. */
export async function choosePutBack(which: 'ours' | 'theirs'): Promise<void> {
  if (!open) return;
  try {
    await open.session.choosePutBack(which);
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

window.addEventListener('online', () => open?.session.saver.nudge());
