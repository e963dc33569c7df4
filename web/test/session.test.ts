/** A session from its beginning to its end, without a browser: edits made, refused, undone and done again, kept, and told of; two at one project. */
import { describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import {
  applyChangeSet,
  formatVersion,
  putting,
  type ChangeSet,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import { changeElement, changeOpening, setLocked } from '@yard-arch/edit';
import { nothingKept, type Kept } from '../src/state/kept.ts';
import type { LogEntry, SavingServer, Trouble } from '../src/state/saver.ts';
import { Session, type Host, type Shown } from '../src/state/session.ts';

class Conflict extends Error {
  constructor(
    readonly missed: LogEntry[],
    readonly revision: number,
  ) {
    super('moved on');
  }
}

/** A server in memory: it takes what fits its last state, and tells what was missed otherwise. */
class Memory {
  revision = 0;
  readonly log: LogEntry[] = [];
  away = false;
  refuse: string | null = null;

  constructor(public document: ProjectDocument) {}

  server(): SavingServer {
    const asked = (): void => {
      if (this.away) throw new Error('away');
    };
    const mark = (): string => `m${this.revision}`;
    return {
      read: async () => (asked(), { revision: this.revision, mark: mark(), document: this.document }),
      log: async ({ revision }) => (asked(), this.log.filter((entry) => entry.revision > revision)),
      append: async ({ baseRevision, key, changeSet }) => {
        asked();
        await Promise.resolve();
        if (this.refuse && changeSet.name.includes(this.refuse)) throw new Error('refused');
        const missed = this.log.filter((entry) => entry.revision > baseRevision);
        if (missed.length > 0) throw new Conflict(missed, this.revision);
        this.document = applyChangeSet(this.document, changeSet).document;
        this.revision += 1;
        const entry = {
          revision: this.revision,
          mark: mark(),
          key,
          name: changeSet.name,
          at: '',
          format: formatVersion,
          changeSet,
        };
        this.log.push(entry as LogEntry);
        return { revision: this.revision, mark: mark(), missed: [], format: formatVersion, changeSet };
      },
      troubleOf: (error): Trouble | null => {
        const told = { title: 'Trouble', message: (error as Error).message, missed: [], revision: null, kind: '' };
        if (error instanceof Conflict)
          return {
            ...told,
            status: 409,
            kind: 'conflict',
            missed: error.missed,
            revision: error.revision,
            passing: false,
          };
        return {
          ...told,
          status: (error as Error).message === 'away' ? 0 : 422,
          passing: (error as Error).message === 'away',
        };
      },
    };
  }
}

interface Page {
  session: Session;
  shown: () => Shown;
  told: string[];
  worker: string[];
  kept: () => Kept;
}

async function pageAt(memory: Memory, kept: Kept | Error = nothingKept): Promise<Page> {
  let shown: Shown = {
    document: null,
    draft: null,
    saving: 'saved',
    trouble: null,
    pendingCount: 0,
    aside: [],
    replaced: [],
    undo: [],
    redo: [],
  };
  let written: Kept = nothingKept;
  const [told, worker]: [string[], string[]] = [[], []];
  const host: Host = {
    shown: () => shown,
    show: (over) => (shown = { ...shown, ...over }),
    onDocument: () => worker.push('document'),
    onEdit: ({ name }) => worker.push(`edit ${name}`),
    onPreview: (changeSet) => worker.push(changeSet ? `preview ${changeSet.name}` : 'given up'),
    settle: () => {},
    complain: (title, text) => told.push(`${title}: ${text}`),
    showAside: () => {},
    replacedWords: () => 'both values',
  };
  const keeper = {
    read: () => (kept instanceof Error ? Promise.reject(kept) : Promise.resolve(kept)),
    write: (next: Kept) => {
      written = next;
      return Promise.resolve();
    },
  };
  const session = new Session('p', memory.server(), keeper, host);
  const taken = await session.takeKept();
  session.begin(
    await new Memory(memory.document)
      .server()
      .read()
      .then((read) => ({ ...read, revision: memory.revision, mark: `m${memory.revision}` })),
    taken,
  );
  return { session, shown: () => shown, told, worker, kept: () => written };
}

const until = async (true_: () => boolean): Promise<void> => {
  for (let i = 0; i < 400 && !true_(); i++) await new Promise((done) => setTimeout(done, 5));
  expect(true_()).toBe(true);
};

const wallOf = (document: ProjectDocument): Wall => document.elements.courtyard as Wall;
const lengthen = (document: ProjectDocument, length: number): ChangeSet =>
  changeElement(wallOf(document), { length }, 'lengthen');

describe('a session', () => {
  it('shows, saves and keeps edits, takes them back and makes them again', async () => {
    const memory = new Memory(granary());
    const { session, shown, worker, kept } = await pageAt(memory);
    const first = shown().document!;
    expect(session.commit(lengthen(first, 20))).toBe(true);
    expect(session.commit(changeElement(wallOf(shown().document!), { height: 9 }, 'heighten'))).toBe(true);
    expect(wallOf(shown().document!)).toMatchObject({ length: 20, height: 9 });
    await until(() => shown().saving === 'saved' && memory.revision === 2);
    expect(memory.document).toEqual(shown().document);
    session.undo();
    expect(wallOf(shown().document!)).toMatchObject({ length: 20, height: wallOf(first).height });
    session.stepTo(0);
    expect(shown().document).toEqual(first);
    expect([shown().undo.length, shown().redo.length]).toEqual([0, 2]);
    session.stepTo(2);
    expect(wallOf(shown().document!)).toMatchObject({ length: 20, height: 9 });
    await until(() => shown().saving === 'saved');
    expect(memory.document).toEqual(shown().document);
    expect(kept().undo).toHaveLength(2);
    expect(worker[0]).toBe('document');
    expect(worker.filter((word) => word.startsWith('edit'))).toHaveLength(6);
  });

  it('shows what is being made without making it, and gives it up', async () => {
    const memory = new Memory(granary());
    const { session, shown, worker } = await pageAt(memory);
    const { document } = shown();
    session.preview(lengthen(document!, 30));
    expect(wallOf(shown().draft!).length).toBe(30);
    expect(shown().document).toBe(document);
    session.preview(null);
    session.preview(null);
    expect(shown().draft).toBeNull();
    expect(worker.slice(1)).toEqual(['preview lengthen Courtyard wall', 'given up']);
    expect(memory.revision).toBe(0);
  });

  it('refuses what does not fit, or is locked, and says why', async () => {
    const { session, shown, told } = await pageAt(new Memory(granary()));
    const before = shown().document!;
    expect(
      session.commit({
        name: 'hold to nothing',
        changes: [putting('openings', { ...before.openings.o1!, pattern: 'gone' })],
      }),
    ).toBe(false);
    expect(told.at(-1)).toContain('Cannot hold to nothing: pattern names the pattern "gone"');
    expect(session.commit(setLocked([wallOf(before)], true))).toBe(true);
    expect(session.commit(lengthen(shown().document!, 12))).toBe(false);
    expect(told.at(-1)).toContain('Courtyard wall is locked');
    expect(shown().undo).toHaveLength(1);
  });

  it('keeps edits while the server is away, and sends them when it is back', async () => {
    const memory = new Memory(granary());
    const { session, shown, kept } = await pageAt(memory);
    memory.away = true;
    session.commit(lengthen(shown().document!, 21));
    await until(() => shown().saving === 'kept here');
    expect(kept().pending).toHaveLength(1);
    memory.away = false;
    session.saver.nudge();
    await until(() => shown().saving === 'saved');
    expect(wallOf(memory.document).length).toBe(21);
    expect(kept().pending).toHaveLength(0);
  });

  it('begins with what was kept, and says where that cannot be read', async () => {
    const memory = new Memory(granary());
    memory.away = true;
    const one = await pageAt(memory);
    one.session.commit(lengthen(one.shown().document!, 22));
    await until(() => one.kept().pending.length === 1);
    one.session.end();
    memory.away = false;
    const again = await pageAt(memory, one.kept());
    expect(wallOf(again.shown().document!).length).toBe(22);
    await until(() => wallOf(memory.document).length === 22);
    again.session.undo();
    expect(wallOf(again.shown().document!).length).toBe(wallOf(granary()).length);
    const broken = await pageAt(memory, new Error('the disk is full'));
    expect(broken.told[0]).toContain('cannot be read: the disk is full');
    expect(broken.shown().document).not.toBeNull();
  });

  it('sets aside what the server cannot take, goes on with the rest, and cannot undo it', async () => {
    const memory = new Memory(granary());
    const { session, shown, told } = await pageAt(memory);
    memory.refuse = 'lengthen';
    session.commit(lengthen(shown().document!, 23));
    session.commit(changeElement(wallOf(shown().document!), { height: 7 }, 'heighten'));
    await until(() => shown().aside.length === 1 && shown().saving === 'saved');
    expect(told.some((line) => line.startsWith('“lengthen Courtyard wall” was set aside'))).toBe(true);
    expect(wallOf(memory.document)).toMatchObject({ length: wallOf(granary()).length, height: 7 });
    expect(shown().undo.map(({ changeSet }) => changeSet.name)).toEqual(['heighten Courtyard wall']);
  });

  it('takes in what others do, and undoes only its own', async () => {
    const memory = new Memory(granary());
    const [a, b] = [await pageAt(memory), await pageAt(memory)];
    a.session.commit(lengthen(a.shown().document!, 24));
    await until(() => a.shown().saving === 'saved');
    b.session.commit(changeOpening(b.shown().document!.openings.o1!, { mark: 'B-1' }, 'rename'));
    await until(() => b.shown().saving === 'saved' && memory.revision === 2);
    expect(wallOf(b.shown().document!).length).toBe(24);
    b.session.undo();
    await until(() => b.shown().saving === 'saved' && memory.revision === 3);
    expect(memory.document.openings.o1!.mark).toBe(granary().openings.o1!.mark);
    expect(wallOf(memory.document).length).toBe(24);
  });

  it('goes to what a document was as an edit, and does nothing once it has ended', async () => {
    const memory = new Memory(granary());
    const { session, shown } = await pageAt(memory);
    const then = shown().document!;
    expect(session.goTo(then, 'go back')).toBe(false);
    session.commit(lengthen(then, 25));
    expect(session.goTo(then, 'go back')).toBe(true);
    expect(shown().document).toEqual(then);
    session.end();
    const last = shown();
    expect(session.commit(lengthen(then, 26))).toBe(false);
    expect(shown()).toEqual(last);
    expect(session.ended).toBe(true);
  });
});
