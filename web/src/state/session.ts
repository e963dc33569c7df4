/**
 * An open project: the document with its edits, each saved, kept and undone; it begins, and it ends. It knows neither page nor browser: what it shows, and to whom it speaks, it is given.
 * The document that is shown is what the server holds plus the edits not yet sent.
 */
import {
  applyChangeSet,
  differenceOf,
  rebased,
  Refused,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import { lockedBy } from '@yard-arch/edit';
import { nothingKept, type Kept, type SetAside, type Step } from './kept.ts';
import { Saver, type Replaced, type SavingServer, type SavingState, type Standing, type State } from './saver.ts';

/** What is shown of a session. */
export interface Shown {
  /** The document with all edits, or null while it is being read. */
  document: ProjectDocument | null;
  /** The document with the edit that is just being made, such as a drag; null when none is. */
  draft: ProjectDocument | null;
  saving: Standing;
  /** Why edits are only kept here. */
  trouble: string | null;
  pendingCount: number;
  /** Edits that could not be taken. */
  aside: readonly SetAside[];
  /** Edits of this tab that later ones of others replaced, the newest last. */
  replaced: readonly Replaced[];
  undo: Step[];
  redo: Step[];
}

/** To whom it speaks. */
export interface Host {
  shown: () => Shown;
  show: (over: Partial<Shown>) => void;
  /** The document has changed otherwise than by an edit. @param revision the server's that it is, where it is no more than that. */
  onDocument: (document: ProjectDocument, revision: number | null) => void;
  /** An edit was made, or is being made (null: given up). */
  onEdit: (changeSet: ChangeSet) => void;
  onPreview: (changeSet: ChangeSet | null) => void;
  /** After any change of the document. */
  settle: () => void;
  complain: (title: string, text: string, way?: { label: string; onClick: () => void }) => void;
  showAside: () => void;
  replacedWords: (replaced: Replaced, document: ProjectDocument) => string;
}

/** Where edits are kept meanwhile. */
export interface KeptBy {
  read: () => Promise<Kept>;
  write: (kept: Kept) => Promise<void>;
}

/** The most of others' replacements that are told of. */
const mostReplaced = 50;

export class Session {
  readonly saver: Saver;
  private over = false;
  private kept: Pick<SavingState, 'pending' | 'aside'> = { pending: [], aside: [] };

  constructor(
    readonly project: string,
    server: SavingServer,
    private readonly keeper: KeptBy,
    private readonly host: Host,
  ) {
    const alive =
      <A extends unknown[]>(work: (...given: A) => void) =>
      (...given: A): void => {
        if (!this.over) work(...given);
      };
    this.saver = new Saver(server, {
      shows: alive((document, revision) => this.shows(document, revision)),
      stands: alive((state) => this.stands(state)),
      setAside: alive((edit) => this.setAside(edit)),
      replaced: alive((replaced) => this.tellReplaced(replaced)),
    });
  }

  /** What this browser keeps of the project; nothing where that cannot be read, which is told. */
  async takeKept(): Promise<Kept> {
    return this.keeper.read().catch((error: Error) => {
      this.host.complain(
        'What this browser keeps cannot be read',
        `${error.message}. Edits are still sent to the server as you make them.`,
      );
      return nothingKept;
    });
  }

  /** Begins with what the server has, and with what was kept. */
  begin(read: State & { document: ProjectDocument }, kept: Kept): void {
    if (this.over) return;
    this.host.show({ undo: [...kept.undo], redo: [...kept.redo] });
    this.saver.begin(read, kept);
  }

  get ended(): boolean {
    return this.over;
  }

  /** Ends it; what is not yet sent stays kept. */
  end(): void {
    this.saver.end();
    this.over = true;
  }

  private shows(document: ProjectDocument, revision: number | null): void {
    this.host.show({ document, draft: null });
    this.host.onDocument(document, revision);
    this.host.settle();
  }

  private stands({ saving, trouble, pending, aside }: SavingState): void {
    const gone = saving === 'deleted' && this.host.shown().saving !== 'deleted';
    this.host.show({ saving, trouble, pendingCount: pending.length, aside });
    if (gone)
      this.host.complain(
        'The project was deleted',
        pending.length > 0
          ? 'Edits that are not saved yet stay in this browser until it is back.'
          : 'It can be brought back for 30 days.',
      );
    this.kept = { pending, aside };
    this.keep();
  }

  private setAside(edit: SetAside): void {
    // What it did is not there, and so cannot be undone.
    this.host.show({ undo: this.host.shown().undo.filter(({ key }) => key !== edit.key) });
    this.host.complain(`“${edit.changeSet.name}” was set aside`, edit.reason, {
      label: 'Show',
      onClick: this.host.showAside,
    });
  }

  private tellReplaced(replaced: Replaced): void {
    const { replaced: before, document } = this.host.shown();
    this.host.show({ replaced: [...before, replaced].slice(-mostReplaced) });
    if (document)
      this.host.complain(
        `Somebody’s later edit, “${replaced.by}”, replaced yours`,
        this.host.replacedWords(replaced, document),
        { label: 'Put mine back', onClick: () => this.putBack(replaced) },
      );
  }

  /** Keeps in this browser what there is to keep. */
  private keep(): void {
    const { undo, redo } = this.host.shown();
    this.keeper.write({ ...this.kept, undo, redo }).catch((error: Error) => {
      this.host.complain(
        'Edits cannot be kept in this browser',
        `${error.message}. They are still sent to the server as you make them.`,
      );
    });
  }

  private enter(changeSet: ChangeSet): { inverse: ChangeSet; key: string } | null {
    const { document } = this.host.shown();
    if (!document || this.over) return null;
    try {
      const { document: next, inverse } = applyChangeSet(document, changeSet);
      this.host.show({ document: next, draft: null });
      this.host.onEdit(changeSet);
      this.host.settle();
      return { inverse, key: this.saver.add(changeSet, inverse) };
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.dropPreview();
      this.host.complain(
        `Cannot ${changeSet.name}`,
        `${error.faults.map((fault) => `${fault.path.split('/').slice(2).join(' ') || fault.path} ${fault.reason}`).join('; ')}.`,
      );
      return null;
    }
  }

  /** Makes an edit. @returns false when it was refused; the person has been told why. */
  commit(changeSet: ChangeSet): boolean {
    const { document } = this.host.shown();
    const lock = document && lockedBy(document, changeSet);
    if (lock) {
      this.dropPreview();
      this.host.complain(`Cannot ${changeSet.name}`, `${lock} is locked. Unlock it in the register first.`);
      return false;
    }
    const entered = this.enter(changeSet);
    if (!entered) return false;
    this.host.show({ undo: [...this.host.shown().undo, { changeSet, ...entered }], redo: [] });
    this.keep();
    return true;
  }

  /** Shows an edit that is being made without making it; null gives it up. */
  preview(changeSet: ChangeSet | null): void {
    const { document } = this.host.shown();
    if (!document) return;
    if (!changeSet) return this.dropPreview();
    try {
      this.host.show({ draft: applyChangeSet(document, changeSet).document });
      this.host.onPreview(changeSet);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
    }
  }

  private dropPreview(): void {
    if (this.host.shown().draft === null) return;
    this.host.show({ draft: null });
    this.host.onPreview(null);
  }

  undo(): void {
    this.step('undo');
  }

  redo(): void {
    this.step('redo');
  }

  private step(from: 'undo' | 'redo'): void {
    const last = this.host.shown()[from].at(-1);
    const { document } = this.host.shown();
    if (!last || !document) return;
    // Only what the edit itself changed is taken back or made again, whatever others have changed since.
    const changeSet =
      from === 'undo'
        ? { ...rebased(last.inverse, last.changeSet, document), name: `undo ${last.changeSet.name}`.slice(0, 200) }
        : rebased(last.changeSet, last.inverse, document);
    const entered = this.enter(changeSet);
    // One that no longer fits is passed over, so that those before it can still be reached.
    const to = from === 'undo' ? 'redo' : 'undo';
    const shown = this.host.shown();
    this.host.show({
      [from]: shown[from].slice(0, -1),
      ...(entered ? { [to]: [...shown[to], from === 'undo' ? last : { changeSet: last.changeSet, ...entered }] } : {}),
    });
    this.keep();
  }

  /** Steps through the history: to where so many edits of this tab are made. */
  stepTo(count: number): void {
    const walk = (from: 'undo' | 'redo', left: () => boolean): void => {
      while (left()) {
        const { length } = this.host.shown()[from];
        this.step(from);
        if (this.host.shown()[from].length === length) return;
      }
    };
    walk('undo', () => this.host.shown().undo.length > count);
    walk('redo', () => this.host.shown().undo.length < count && this.host.shown().redo.length > 0);
  }

  /** Brings back what somebody's later edit replaced; an edit like any other. */
  putBack(replaced: Replaced): void {
    if (this.commit(replaced.back))
      this.host.show({ replaced: this.host.shown().replaced.filter((other) => other !== replaced) });
  }

  /** Goes to what a document was: an edit like any other. @returns false when there was nothing to change. */
  goTo(then: ProjectDocument, name: string): boolean {
    const { document } = this.host.shown();
    const changes = document ? differenceOf(document, then) : [];
    return changes.length > 0 && this.commit({ name: name.slice(0, 200), changes });
  }

  /** The server's data was put back: what is to stand, this page's or the server's. */
  async choosePutBack(which: 'ours' | 'theirs'): Promise<void> {
    const { document } = this.host.shown();
    if (which === 'theirs') await this.saver.takeServers();
    else if (document) await this.saver.keepOurs(document, differenceOf);
  }
}
