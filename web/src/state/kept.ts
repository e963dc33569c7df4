/** What is kept in this browser for a project: edits not yet sent, those set aside, and the way back and forth through edits. Each is written by itself, so that the ten thousandth costs what the first did. */
import { changeSetUpToDate, formatVersion, Refused, type ChangeSet } from '@yard-arch/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** An edit with the key under which the server knows it. */
export interface Pending {
  key: string;
  changeSet: ChangeSet;
  /** What takes it back; by it the edit is made on a document that others have changed meanwhile. */
  inverse?: ChangeSet;
  /** The state of the server's log when it was made: by it a server whose data was put back meanwhile is recognised after a reload. */
  on?: { revision: number; mark: string };
}

/** An edit that could not be taken, with the reason. */
export interface SetAside extends Pending {
  reason: string;
  /** When it was set aside, as ISO. */
  at: string;
}

/** An edit that can be undone or done again. */
export interface Step {
  changeSet: ChangeSet;
  inverse: ChangeSet;
  /** The key under which it was sent. */
  key?: string;
}

export interface Kept {
  pending: readonly Pending[];
  aside: readonly SetAside[];
  undo: readonly Step[];
  redo: readonly Step[];
}

type Kind = keyof Kept;
const kinds: readonly Kind[] = ['pending', 'aside', 'undo', 'redo'];

/** Project, tab, kind, place in its row. */
type Place = [project: string, owner: string, kind: Kind, n: number];

interface Shape extends DBSchema {
  kept: { key: Place; value: Written };
}

export const nothingKept: Kept = { pending: [], aside: [], undo: [], redo: [] };

type Written = (Pending | SetAside | Step) & { format?: number };

/** What an earlier version of the program kept, brought up to date; or as it was, with the reason why it cannot be read. What says nothing is of the first version. */
function upToDate({ format = 1, ...value }: Written): { value: Pending | SetAside | Step; reason: string | null } {
  try {
    const { inverse } = value;
    return {
      value: {
        ...value,
        changeSet: changeSetUpToDate(value.changeSet, format),
        ...(inverse ? { inverse: changeSetUpToDate(inverse, format) } : {}),
      },
      reason: null,
    };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { value: { ...value, ...{ format } }, reason: error.message };
  }
}

/** Where all of a tab's are, or all of a project's. */
const all = (...of: [project: string, owner?: string]): IDBKeyRange => IDBKeyRange.bound(of, [...of, []]);

export class Keeper {
  private database: Promise<IDBPDatabase<Shape>> | null = null;
  private writing: Promise<void> = Promise.resolve();
  /** What is written down, in its order, with the places; by it the next writing finds what is new. */
  private written: { [K in Kind]: { value: unknown; n: number }[] } = { pending: [], aside: [], undo: [], redo: [] };

  /**
   * @param owner the name of the tab.
   * @param lives which tabs there are besides.
   */
  constructor(
    private readonly project: string,
    private readonly owner: () => Promise<string>,
    private readonly lives: () => Promise<(owner: string) => boolean>,
  ) {}

  private open(): Promise<IDBPDatabase<Shape>> {
    this.database ??= openDB<Shape>('yard-arch', 1, { upgrade: (database) => void database.createObjectStore('kept') });
    return this.database;
  }

  /** Reads what this tab kept, and takes over what tabs that are gone had not sent. */
  async read(): Promise<Kept> {
    const [database, owner, lives] = [await this.open(), await this.owner(), await this.lives()];
    await this.takeOld(database);
    const owners = new Set((await database.getAllKeys('kept', all(this.project))).map(([, other]) => other));
    const own = await this.readOf(database, owner);
    const orphans = [...owners].filter((other) => other !== owner && !lives(other));
    for (const orphan of orphans) {
      const left = await this.readOf(database, orphan);
      own.pending = [...left.pending, ...own.pending];
      own.aside = [...left.aside, ...own.aside];
    }
    // Into our own and out of theirs at once: lost in neither.
    const transaction = database.transaction('kept', 'readwrite');
    await Promise.all([...orphans, owner].map((of) => transaction.store.delete(all(this.project, of))));
    this.written = { pending: [], aside: [], undo: [], redo: [] };
    this.put(transaction.store, owner, own);
    await transaction.done;
    return own;
  }

  private async readOf(database: IDBPDatabase<Shape>, owner: string): Promise<{ -readonly [K in Kind]: Kept[K] }> {
    const read: Record<Kind, unknown[]> = { pending: [], aside: [], undo: [], redo: [] };
    const [keys, values] = await Promise.all([
      database.getAllKeys('kept', all(this.project, owner)),
      database.getAll('kept', all(this.project, owner)),
    ]);
    keys.forEach(([, , kind], i) => {
      const { value, reason } = upToDate(values[i]!);
      if (reason === null) read[kind]?.push(value);
      // What cannot be read is not lost: it is kept among those set aside, as it was. A way back through it leads nowhere.
      else if (kind === 'pending' || kind === 'aside')
        read.aside.push({ ...value, reason, at: new Date().toISOString() });
      else read[kind] = [];
    });
    return read as unknown as { -readonly [K in Kind]: Kept[K] };
  }

  /** Moves what an earlier version of the program kept, all of a tab's as one value. */
  private async takeOld(database: IDBPDatabase<Shape>): Promise<void> {
    const known = await indexedDB.databases();
    if (!known.some(({ name }) => name === 'keyval-store')) return;
    const old = await openDB('keyval-store');
    try {
      if (!old.objectStoreNames.contains('keyval')) return;
      for (const key of await old.getAllKeys('keyval')) {
        const [, project, owner] = /^project (\S+) (\S+)$/.exec(String(key)) ?? [];
        if (project !== this.project || !owner) continue;
        const kept = (await old.get('keyval', key)) as Partial<Kept>;
        const transaction = database.transaction('kept', 'readwrite');
        for (const kind of kinds)
          kept[kind]?.forEach((value, n) => void transaction.store.put(value, [project, owner, kind, n]));
        await transaction.done;
        await old.delete('keyval', key);
      }
    } finally {
      old.close();
    }
  }

  /** Keeps what there is; only what is new is written, one writing after the other. @throws when the browser has no room left. */
  write(kept: Kept): Promise<void> {
    const done = this.writing.then(async () => {
      const [database, owner] = [await this.open(), await this.owner()];
      const before = this.written;
      const transaction = database.transaction('kept', 'readwrite');
      try {
        this.put(transaction.store, owner, kept);
        await transaction.done;
      } catch (error) {
        this.written = before;
        throw error;
      }
    });
    this.writing = done.catch(() => {});
    return done;
  }

  private put(
    store: { put(value: Written, key: Place): unknown; delete(key: Place): unknown },
    owner: string,
    kept: Kept,
  ): void {
    const next = { ...this.written };
    for (const kind of kinds) {
      const [before, now] = [this.written[kind], kept[kind]];
      // Edits come and go at the ends: what stays is one row in the middle.
      let first = 0;
      while (first < before.length && before[first]!.value !== now[0]) first++;
      if (now.length === 0) first = before.length;
      let same = 0;
      while (first + same < before.length && same < now.length && before[first + same]!.value === now[same]) same++;
      for (const { n } of [...before.slice(0, first), ...before.slice(first + same)])
        store.delete([this.project, owner, kind, n]);
      const stays = before.slice(first, first + same);
      let n = (stays.at(-1)?.n ?? before.at(-1)?.n ?? -1) + 1;
      next[kind] = [...stays, ...now.slice(same).map((value) => ({ value, n: n++ }))];
      for (const { value, n: place } of next[kind].slice(same))
        store.put({ format: formatVersion, ...(value as Pending) }, [this.project, owner, kind, place]);
    }
    this.written = next;
  }
}

/** This tab, by a name that outlives a reload. */
function tabName(): string {
  const known = sessionStorage.getItem('yard-arch-tab');
  // A duplicated tab copies its storage: it finds the name taken and takes another.
  const made = known ?? crypto.randomUUID();
  sessionStorage.setItem('yard-arch-tab', made);
  return made;
}

let tab: Promise<string> | null = null;

/** Holds the tab's name for as long as the tab lives, so that others can tell whose edits are orphaned. */
export function holdTab(): Promise<string> {
  tab ??= new Promise((resolve) => {
    const take = (name: string): void => {
      void navigator.locks.request(`yard-arch-tab-${name}`, { ifAvailable: true }, (lock) => {
        if (!lock) {
          const other = crypto.randomUUID();
          sessionStorage.setItem('yard-arch-tab', other);
          take(other);
          return undefined;
        }
        resolve(name);
        return new Promise<void>(() => {});
      });
    };
    take(tabName());
  });
  return tab;
}

/** Which tabs there are. */
export async function livingTabs(): Promise<(owner: string) => boolean> {
  const { held = [] } = await navigator.locks.query();
  const names = new Set(held.map((lock) => lock.name));
  return (owner) => names.has(`yard-arch-tab-${owner}`);
}
