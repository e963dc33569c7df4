/** What is kept in this browser for a project: edits not yet sent, and the way back and forth through edits. */
import type { ChangeSet } from '@yard-arch/document';
import { del, get, keys, set } from 'idb-keyval';

/** An edit with the key under which the server knows it. */
export interface Pending {
  key: string;
  changeSet: ChangeSet;
  /** What takes it back; by it the edit is made on a document that others have changed meanwhile. */
  inverse?: ChangeSet;
}

/** An edit that can be undone or done again. */
export interface Step {
  changeSet: ChangeSet;
  inverse: ChangeSet;
}

export interface Kept {
  pending: Pending[];
  undo: Step[];
  redo: Step[];
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
function holdTab(): Promise<string> {
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

const nameOf = (project: string, owner: string): string => `project ${project} ${owner}`;

/** Reads what this tab kept of a project, and takes over what tabs that are gone had not sent. */
export async function readKept(project: string): Promise<Kept> {
  const owner = await holdTab();
  const kept: Kept = (await get<Kept>(nameOf(project, owner))) ?? { pending: [], undo: [], redo: [] };
  const { held = [] } = await navigator.locks.query();
  const living = new Set(held.map((lock) => lock.name));
  for (const key of await keys<string>()) {
    const match = /^project (\S+) (\S+)$/.exec(key);
    if (!match || match[1] !== project || match[2] === owner || living.has(`yard-arch-tab-${match[2]}`)) continue;
    const orphan = await get<Kept>(key);
    if (orphan) kept.pending.unshift(...orphan.pending);
    // First into our own record, then out of the other: lost in neither.
    await set(nameOf(project, owner), kept);
    await del(key);
  }
  return kept;
}

let writing: Promise<void> = Promise.resolve();

/** Keeps a project's edits; writes go one after the other. @throws when the browser has no room left. */
export function writeKept(project: string, kept: Kept): Promise<void> {
  const done = writing.then(async () => set(nameOf(project, await holdTab()), kept));
  writing = done.catch(() => {});
  return done;
}
