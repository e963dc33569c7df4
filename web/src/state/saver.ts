/**
 * The saving of one project: what the server holds, what it has yet to be told, and what it would not take. It knows neither the page nor the browser: it is given a server, a keeper and somebody to tell, and
 * can be tested with any.
 */
import {
  applyChangeSet,
  formatVersion,
  pathsMeet,
  rebased,
  Refused,
  sameValue,
  valuesChanged,
  withChanges,
  type ChangedValue,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import type { Pending, SetAside } from './kept.ts';

/** A state of a project: its revision, and the identity of the log there. */
export interface State {
  revision: number;
  mark: string;
}

export interface LogEntry extends State {
  /** The sender's own key. */
  key: string;
  /** The version of the format in which it is written. */
  format: number;
  changeSet: ChangeSet;
}

/** What a server answered when it could not do what was asked. */
export interface Trouble {
  status: number;
  /** The kind of problem, such as `stale-revision`. */
  kind: string;
  title: string;
  message: string;
  missed: readonly LogEntry[];
  revision: number | null;
  /** Whether the same request may succeed later: the server or its database is away, or the disk is full. */
  passing: boolean;
}

/** What of a server the saving needs. Each raises what `troubleOf` understands. */
export interface SavingServer {
  read(): Promise<State & { document: ProjectDocument }>;
  /** Entries after a state; raises `other-log` where the log has none such. */
  log(after: State): Promise<readonly LogEntry[]>;
  append(edit: {
    baseRevision: number;
    baseMark: string;
    key: string;
    format: number;
    changeSet: ChangeSet;
    over?: boolean;
  }): Promise<State & { missed: readonly LogEntry[]; format: number; changeSet: ChangeSet }>;
  /** What went wrong, where it is the server's; null where it is a fault of the program's. */
  troubleOf(error: unknown): Trouble | null;
}

/** How the saving stands: all saved; edits on their way; kept here as the server is away; the project was deleted; the server's data was put back to an earlier state; the server writes in a
 * version of the format that this page is too old to read. */
export type Standing = 'saved' | 'saving' | 'kept here' | 'deleted' | 'put back' | 'outdated';

/** What is told of the saving whenever it changes. */
export interface SavingState {
  saving: Standing;
  /** Why edits are only kept here. */
  trouble: string | null;
  pending: readonly Pending[];
  aside: readonly SetAside[];
}

/** An edit of one's own that somebody's later edit replaced. */
export interface Replaced {
  /** What the later edit is called. */
  by: string;
  values: readonly ChangedValue[];
  /** Brings back what was replaced. */
  back: ChangeSet;
}

/** Who is told. */
export interface SavingListener {
  /** A document is to be shown. @param revision the server's that it is, where it is no more than that. */
  shows(document: ProjectDocument, revision: number | null): void;
  stands(state: SavingState): void;
  /** An edit was set aside. */
  setAside(edit: SetAside): void;
  replaced(replaced: Replaced): void;
}

/** Waits between tries, milliseconds. */
const [firstWait, longestWait] = [500, 8000];
/** An edit at which the server fails is tried so often before it is set aside. */
const mostFailures = 3;
/** Of the states on which kept edits were made as many are asked for, the last ones. */
const mostGrounds = 5;

export interface SaverOptions {
  /** Calls back after so many milliseconds. */
  later?: (what: () => void, wait: number) => void;
  newKey?: () => string;
}

export class Saver {
  private base: ProjectDocument | null = null;
  private at: State = { revision: 0, mark: '' };
  /** The newest state that the server has told of. */
  private heard: State | null = null;
  /** Whether it told of an older one than before: its data may have been put back. */
  private doubtful = false;
  /** States that were held, by their marks: news of them is late. */
  private readonly past = new Set<string>();
  private pending: Pending[] = [];
  private aside: SetAside[] = [];
  private saving: Standing = 'saved';
  private trouble: string | null = null;
  private busy = false;
  /** States on which edits were made before the page was loaded, by their marks, as long as it is not known whether the server's log still has them. */
  private grounds = new Map<string, State>();
  private over = false;
  private wait = firstWait;
  private failures = 0;
  /** Whether the edit that is sent may replace what others changed: they have been taken in once already. */
  private insists = false;
  /** Values that this tab has set, as the server has them, by their paths. */
  private readonly mine = new Map<string, unknown>();
  private readonly ownKeys = new Set<string>();
  private readonly later: (what: () => void, wait: number) => void;
  private readonly newKey: () => string;

  constructor(
    private readonly server: SavingServer,
    private readonly listener: SavingListener,
    { later = (what, wait) => void setTimeout(what, wait), newKey = () => crypto.randomUUID() }: SaverOptions = {},
  ) {
    this.later = later;
    this.newKey = newKey;
  }

  /** Begins with what the server holds and what was kept of edits. */
  begin(
    read: State & { document: ProjectDocument },
    kept: { pending: readonly Pending[]; aside: readonly SetAside[] },
  ): void {
    this.take(read);
    this.pending = [...kept.pending];
    this.aside = [...kept.aside];
    this.grounds = new Map(
      kept.pending.flatMap(({ on }): [string, State][] => (on && on.mark !== read.mark ? [[on.mark, on]] : [])),
    );
    this.show();
    this.tell();
    void this.flush();
  }

  /** Ends it; what is not yet sent stays kept. */
  end(): void {
    this.over = true;
  }

  /** Takes an edit that has been made on the document that is shown. @returns its key. */
  add(changeSet: ChangeSet, inverse: ChangeSet): string {
    const key = this.newKey();
    this.pending = [...this.pending, { key, changeSet, inverse, on: this.at }];
    this.tell();
    void this.flush();
    return key;
  }

  /** The server has told of a state. */
  hear(state: State): void {
    if (this.heard !== null && state.revision < this.heard.revision) this.doubtful = true;
    this.heard = state;
    if (this.saving === 'deleted') void this.comeBack();
    else void this.takeIn();
  }

  /** The server has told that the project was deleted. */
  hearDeleted(): void {
    this.stand('deleted', 'The project was deleted. It can be brought back for 30 days.');
  }

  /** Tries at once what waits to be tried again. */
  nudge(): void {
    this.wait = firstWait;
    void this.flush();
  }

  /** Tries again what was set aside; what still does not fit is set aside anew. */
  retry(keys: readonly string[]): void {
    const again = this.aside.filter(({ key }) => keys.includes(key));
    this.aside = this.aside.filter(({ key }) => !keys.includes(key));
    // Under new keys: the old ones may be known for something else by now.
    this.pending = [
      ...this.pending,
      ...again.map(({ changeSet, inverse }) => ({ key: this.newKey(), changeSet, ...(inverse ? { inverse } : {}) })),
    ];
    this.show();
    this.tell();
    void this.flush();
  }

  /** Lets go of edits that were set aside. */
  drop(keys: readonly string[]): void {
    this.aside = this.aside.filter(({ key }) => !keys.includes(key));
    this.tell();
  }

  /** Lets go of all that is not yet sent, of a project that was deleted. */
  letGo(): void {
    this.pending = [];
    this.tell();
  }

  /** The server's data was put back: what it holds now is taken, and one's own unsent edits are set aside. */
  async takeServers(): Promise<void> {
    await this.readAnew();
    const reason = 'It was made before the server’s data was put back to an earlier state.';
    for (const edit of this.pending) this.putAside(edit, reason);
    this.pending = [];
    this.goOn();
  }

  /** The server's data was put back: what this page shows is put on top of it, as one edit. */
  async keepOurs(
    ours: ProjectDocument,
    differenceOf: (from: ProjectDocument, to: ProjectDocument) => ChangeSet['changes'],
  ): Promise<void> {
    await this.readAnew();
    const changes = differenceOf(this.base!, ours);
    this.pending =
      changes.length > 0
        ? [{ key: this.newKey(), changeSet: { name: 'keep what was there before the data was put back', changes } }]
        : [];
    this.goOn();
  }

  private async readAnew(): Promise<void> {
    this.take(await this.server.read());
    this.mine.clear();
    this.grounds.clear();
    this.heard = null;
  }

  private goOn(): void {
    this.saving = 'saved';
    this.trouble = null;
    this.show();
    this.tell();
    void this.flush();
  }

  private take({ document, revision, mark }: State & { document: ProjectDocument }): void {
    this.base = document;
    this.stepTo({ revision, mark });
  }

  private stepTo({ revision, mark }: State): void {
    this.at = { revision, mark };
    this.past.add(mark);
    if (this.past.size > 2000) this.past.delete(this.past.values().next().value!);
  }

  private tell(): void {
    const saving = this.saving === 'saved' && this.pending.length > 0 ? 'saving' : this.saving;
    this.listener.stands({ saving, trouble: this.trouble, pending: this.pending, aside: this.aside });
  }

  private stand(saving: Standing, trouble: string | null = null): void {
    if (this.saving === saving && this.trouble === trouble) return;
    this.saving = saving;
    this.trouble = trouble;
    this.tell();
  }

  /** Shows the server's document with the edits that are still to be sent; those that no longer fit are set aside. */
  private show(): void {
    let document = this.base!;
    this.pending = this.pending.flatMap((edit) => {
      try {
        const changeSet = edit.inverse ? rebased(edit.changeSet, edit.inverse, document) : edit.changeSet;
        const { document: next, inverse } = applyChangeSet(document, changeSet);
        document = next;
        // The very same where it has stayed the same, so that it need not be kept anew.
        return changeSet === edit.changeSet ? [edit] : [{ ...edit, changeSet, inverse }];
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.putAside(edit, `The project was changed meanwhile, and the edit no longer fits it. ${error.message}`);
        return [];
      }
    });
    this.listener.shows(document, this.pending.length === 0 ? this.at.revision : null);
  }

  private putAside(edit: Pending, reason: string): void {
    const aside: SetAside = { ...edit, reason, at: new Date().toISOString() };
    this.aside = [...this.aside, aside];
    this.listener.setAside(aside);
  }

  private get stopped(): boolean {
    return this.over || this.saving === 'deleted' || this.saving === 'put back' || this.saving === 'outdated';
  }

  /** Sends edits one after the other until none is left. While the server is away it tries again, ever less often. */
  private async flush(): Promise<void> {
    if (this.busy || this.stopped || this.base === null) return;
    this.busy = true;
    try {
      if (this.pending.length > 0) await this.checkGrounds();
      while (this.pending.length > 0 && !this.stopped) await this.send(this.pending[0]!);
      if (!this.stopped) this.stand('saved');
    } catch (error) {
      if (!this.over) this.tryLater(error);
    } finally {
      this.busy = false;
    }
    if (this.saving === 'saved') await this.takeIn();
  }

  /** Asks whether the server's log has the states on which kept edits were made: its data may have been put back while the page was away. @throws what is passing */
  private async checkGrounds(): Promise<void> {
    for (const [mark, state] of [...this.grounds].slice(-mostGrounds)) {
      try {
        await this.server.log(state);
      } catch (error) {
        const trouble = this.server.troubleOf(error);
        if (trouble?.kind === 'other-log') return this.wasPutBack();
        if (trouble?.status === 404) return this.hearDeleted();
        throw error;
      }
      this.grounds.delete(mark);
    }
    this.grounds.clear();
  }

  private tryLater(error: unknown): void {
    const trouble = this.server.troubleOf(error);
    if (!trouble) throw error;
    this.stand('kept here', `${trouble.title}. ${trouble.message}`);
    this.later(() => void this.flush(), this.wait);
    this.wait = Math.min(2 * this.wait, longestWait);
  }

  /** @throws what is passing. */
  private async send(first: Pending): Promise<void> {
    if (this.saving === 'saved') this.stand('saving');
    try {
      this.ownKeys.add(first.key);
      const answer = await this.server.append({
        baseRevision: this.at.revision,
        baseMark: this.at.mark,
        key: first.key,
        format: formatVersion,
        changeSet: first.changeSet,
        ...(this.insists ? { over: true } : {}),
      });
      if (this.over) return;
      await this.acknowledge(first, answer);
      this.insists = false;
      this.failures = 0;
      this.wait = firstWait;
      if (!this.stopped) this.stand('saving');
    } catch (error) {
      if (this.over) return;
      await this.refused(first, error);
    }
  }

  private async acknowledge(
    first: Pending,
    answer: State & { missed: readonly LogEntry[]; format: number; changeSet: ChangeSet },
  ): Promise<void> {
    const without = this.pending.filter(({ key }) => key !== first.key);
    if (this.isOutdated(answer.format)) {
      this.pending = without;
      this.tell();
      return;
    }
    if (answer.missed.length !== answer.revision - this.at.revision - 1) {
      // Taken in long ago, in an answer that never came: how things stand is read.
      this.pending = without;
      await this.readThrough();
      return;
    }
    for (const entry of answer.missed) this.takeEntry(entry);
    const before = this.base!;
    this.base = withChanges(before, answer.changeSet.changes);
    this.stepTo(answer);
    this.remember(answer.changeSet, before);
    this.pending = without;
    if (answer.missed.length > 0) this.show();
    this.tell();
  }

  private async refused(first: Pending, error: unknown): Promise<void> {
    const trouble = this.server.troubleOf(error);
    if (!trouble || trouble.passing) throw error;
    if (trouble.status === 404) return this.hearDeleted();
    if (trouble.kind === 'other-log') return this.wasPutBack();
    if (this.isOutdated(...trouble.missed.map(({ format }) => format))) return;
    if (trouble.status === 409) {
      this.insists = true;
      return this.catchUp(trouble);
    }
    if (trouble.status >= 500 && ++this.failures < mostFailures) {
      await new Promise<void>((resolve) => this.later(resolve, firstWait));
      return;
    }
    this.failures = 0;
    this.pending = this.pending.filter(({ key }) => key !== first.key);
    this.putAside(first, `${trouble.title}. ${trouble.message}`);
    this.show();
    this.tell();
  }

  /** Whether something is written in a version of the format that this page does not know: the server has been renewed since it was loaded. From then on edits are only kept. */
  private isOutdated(...formats: readonly number[]): boolean {
    if (formats.every((format) => format <= formatVersion)) return false;
    this.stand('outdated', 'Yard Arch was renewed on the server.');
    return true;
  }

  private wasPutBack(): void {
    this.stand('put back', 'The server’s data was put back to an earlier state.');
  }

  /** A project that was deleted is there again. */
  private async comeBack(): Promise<void> {
    try {
      await this.readThrough();
      this.saving = 'saved';
      this.trouble = null;
      this.tell();
      void this.flush();
    } catch (error) {
      if (!this.server.troubleOf(error)) throw error;
    }
  }

  /** Whether there is news to take in: not late news of states that were held already. */
  private get news(): boolean {
    const { heard, at } = this;
    return (
      heard !== null &&
      heard.mark !== at.mark &&
      (this.doubtful || heard.revision > at.revision || !this.past.has(heard.mark))
    );
  }

  /** Takes in what was heard of, unless edits are being sent: that takes it in itself. */
  private async takeIn(): Promise<void> {
    if (this.busy || this.stopped || this.base === null || !this.news) return;
    this.busy = true;
    try {
      await this.catchUp();
    } catch (error) {
      const trouble = this.server.troubleOf(error);
      if (!trouble) throw error;
      if (trouble.kind === 'other-log') this.wasPutBack();
      // Otherwise the next edit, or the next thing heard, tries again.
    } finally {
      this.busy = false;
    }
    if (this.pending.length > 0) void this.flush();
  }

  /** Takes in what others did meanwhile, under the edits that are still to be sent. */
  private async catchUp(conflict?: Trouble): Promise<void> {
    const missed = conflict ? conflict.missed : await this.server.log(this.at);
    if (this.over || this.isOutdated(...missed.map(({ format }) => format))) return;
    this.doubtful = false;
    if (missed.length === 0 && !conflict) {
      this.heard = this.at;
      return;
    }
    const newest = Math.max(conflict?.revision ?? 0, missed.at(-1)?.revision ?? 0, this.heard?.revision ?? 0);
    const complete =
      missed.length > 0 && missed[0]!.revision === this.at.revision + 1 && missed.at(-1)!.revision >= newest;
    if (!complete) return this.readThrough();
    for (const entry of missed) this.takeEntry(entry);
    this.show();
    this.tell();
  }

  /** Reads the document whole; what of it replaces one's own is told as one. */
  private async readThrough(): Promise<void> {
    const read = await this.server.read();
    if (this.over || this.isOutdated(read.document.version)) return;
    // A log of fewer entries than were known is another one.
    if (read.revision < this.at.revision) return this.wasPutBack();
    this.take(read);
    if (this.heard === null || this.heard.revision < read.revision) this.heard = read;
    this.show();
    this.tell();
  }

  private takeEntry(entry: LogEntry): void {
    const before = this.base!;
    this.base = withChanges(before, entry.changeSet.changes);
    this.stepTo(entry);
    // One's own, of which the answer never came.
    if (this.ownKeys.has(entry.key)) this.remember(entry.changeSet, before);
    else this.tellReplaced(entry, before);
  }

  /** Remembers the values that an edit of one's own has set. */
  private remember(changeSet: ChangeSet, before: ProjectDocument): void {
    for (const { path, now } of valuesChanged(changeSet, before, this.base!)) this.mine.set(path, now);
  }

  private tellReplaced({ changeSet }: LogEntry, before: ProjectDocument): void {
    if (this.mine.size === 0) return;
    const values = valuesChanged(changeSet, before, this.base!);
    const lost = values.filter(({ path, was, now }) =>
      now === undefined
        ? [...this.mine.keys()].some((own) => pathsMeet(own, path))
        : this.mine.has(path) && sameValue(this.mine.get(path), was),
    );
    for (const { path } of lost)
      for (const own of [...this.mine.keys()]) if (pathsMeet(own, path)) this.mine.delete(own);
    if (lost.length === 0) return;
    const back = {
      name: `put back what “${changeSet.name}” replaced`.slice(0, 200),
      changes: puttingBack(lost, before, this.base!),
    };
    this.listener.replaced({ by: changeSet.name, values: lost, back });
  }
}

/** The changes that bring values back. */
function puttingBack(
  values: readonly ChangedValue[],
  before: ProjectDocument,
  after: ProjectDocument,
): ChangeSet['changes'] {
  const rows = new Set(values.map(({ path }) => path.split('/').slice(0, 2).join('/')));
  const was = [...rows].flatMap((path): ChangeSet['changes'] => {
    const [table, id] = path.split('/') as ['openings', string];
    if (path.startsWith('settings/')) return [{ op: 'settings', value: { [id]: before[id as 'name'] ?? null } }];
    const own = before[table][id];
    return own ? [{ op: 'put', table, value: withValues(after[table][id], own, values, path) }] : [];
  });
  return was;
}

/** A row as it is, with the values that it had at some paths; as it was where it is gone. */
function withValues<T extends object>(now: T | undefined, was: T, values: readonly ChangedValue[], row: string): T {
  if (!now) return was;
  const copy = structuredClone(now) as Record<string, unknown>;
  for (const { path, was: value } of values) {
    if (!path.startsWith(`${row}/`)) continue;
    const way = path.slice(row.length + 1).split('/');
    const last = way.pop()!;
    const holder = way.reduce<Record<string, unknown>>((at, key) => (at[key] ??= {}) as Record<string, unknown>, copy);
    if (value === undefined) Reflect.deleteProperty(holder, last);
    else holder[last] = value;
  }
  return copy as T;
}
