/** What a browser keeps of a project: read as it was written, little written for each edit, and taken over from tabs that are gone. */
import 'fake-indexeddb/auto';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { openDB } from 'idb';
import { Keeper, nothingKept, type Kept, type Pending, type SetAside, type Step } from '../src/state/kept.ts';

const changeSet = (name: string): Step['changeSet'] => ({ name, changes: [{ op: 'settings', value: { name } }] });
const step = (name: string): Step => ({ changeSet: changeSet(name), inverse: changeSet(`not ${name}`) });
const pending = (key: string): Pending => ({ key, changeSet: changeSet(key) });
const aside = (key: string): SetAside => ({ ...pending(key), reason: 'no', at: '2026-11-27T00:00:00Z' });

let number = 0;
const fresh = (): string => `project-${++number}`;
const keeper = (project: string, owner = 'a', lives: (owner: string) => boolean = () => false): Keeper =>
  new Keeper(
    project,
    async () => owner,
    async () => lives,
  );

/** How many records there are, and how many are put while something is done. */
async function putsIn(what: () => Promise<void>): Promise<number> {
  const { put } = IDBObjectStore.prototype;
  let puts = 0;
  IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args) {
    puts += 1;
    return put.apply(this, args);
  };
  await what();
  IDBObjectStore.prototype.put = put;
  return puts;
}

describe('what is kept', () => {
  it('is read as it was written last, whatever came and went', async () => {
    const rows = fc.record({
      pending: fc.integer({ min: -2, max: 3 }),
      undo: fc.integer({ min: -2, max: 3 }),
      redo: fc.integer({ min: -2, max: 3 }),
      aside: fc.integer({ min: -1, max: 1 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(rows, { minLength: 1, maxLength: 12 }), async (moves) => {
        const [project, it] = [fresh(), 0];
        const own = keeper(project);
        await own.read();
        let now: Kept = nothingKept;
        let n = it;
        for (const move of moves) {
          // Edits that are sent go from the front; steps come and go at the end.
          const front = <T>(row: readonly T[], by: number, make: (name: string) => T): T[] =>
            by < 0 ? row.slice(-by) : [...row, ...Array.from({ length: by }, () => make(`e${n++}`))];
          const back = (row: readonly Step[], by: number): Step[] =>
            by < 0 ? row.slice(0, by) : [...row, ...Array.from({ length: by }, () => step(`s${n++}`))];
          now = {
            pending: front(now.pending, move.pending, pending),
            undo: back(now.undo, move.undo),
            redo: back(now.redo, move.redo),
            aside: front(now.aside, move.aside, aside),
          };
          await own.write(now);
        }
        expect(await keeper(project).read()).toEqual(now);
      }),
      { numRuns: 40 },
    );
  });

  it('costs as little at the ten thousandth edit as at the first', async () => {
    const project = fresh();
    const own = keeper(project);
    await own.read();
    const undo = Array.from({ length: 10_000 }, (_, i) => step(`s${i}`));
    await own.write({ ...nothingKept, undo });
    const [more, sent] = [[...undo, step('one more')], [pending('p')]];
    expect(await putsIn(() => own.write({ ...nothingKept, undo: more, pending: sent }))).toBe(2);
    expect(await putsIn(() => own.write({ ...nothingKept, undo: more }))).toBe(0);
    expect(await putsIn(() => own.write({ ...nothingKept, undo: more.slice(0, -1), redo: more.slice(-1) }))).toBe(1);
    expect((await keeper(project).read()).undo).toHaveLength(10_000);
  });

  it('is taken over from a tab that is gone, not from one that lives', async () => {
    const project = fresh();
    for (const owner of ['gone', 'living']) {
      const other = keeper(project, owner, () => true);
      await other.read();
      await other.write({
        ...nothingKept,
        pending: [pending(owner)],
        aside: [aside(`${owner} aside`)],
        undo: [step('theirs')],
      });
    }
    const own = await keeper(project, 'own', (owner) => owner === 'living').read();
    expect(own.pending.map(({ key }) => key)).toEqual(['gone']);
    expect(own.aside.map(({ key }) => key)).toEqual(['gone aside']);
    expect(own.undo).toEqual([]);
    expect((await keeper(project, 'living', () => true).read()).pending.map(({ key }) => key)).toEqual(['living']);
    expect((await keeper(project, 'gone', () => true).read()).pending).toEqual([]);
  });

  it('is found as an earlier version of the program kept it', async () => {
    const project = fresh();
    const old = await openDB('keyval-store', 1, { upgrade: (database) => void database.createObjectStore('keyval') });
    await old.put(
      'keyval',
      { pending: [pending('p')], undo: [step('s'), step('t')], redo: [] },
      `project ${project} a`,
    );
    old.close();
    expect(await keeper(project).read()).toEqual({
      pending: [pending('p')],
      aside: [],
      undo: [step('s'), step('t')],
      redo: [],
    });
    expect(await keeper(project).read()).toMatchObject({ undo: [step('s'), step('t')] });
  });

  it('by an earlier version of the program is brought up to date; by a newer one it is set aside as it is, and its way back let go', async () => {
    const project = fresh();
    const own = keeper(project);
    await own.read();
    const database = await openDB('yard-arch');
    const wall = (name: string) => ({ op: 'put', table: 'elements', value: { id: 'w', kind: 'wall', name } }) as never;
    await database.put('kept', { key: 'old', changeSet: { name: 'draw', changes: [wall('Quay\twall')] } }, [
      project,
      'a',
      'pending',
      0,
    ]);
    await database.put('kept', { key: 'new', format: 99, changeSet: changeSet('from tomorrow') }, [
      project,
      'a',
      'pending',
      1,
    ]);
    await database.put('kept', { ...step('before'), format: 99 }, [project, 'a', 'undo', 0]);
    await database.put('kept', step('after'), [project, 'a', 'undo', 1]);
    database.close();
    const read = await keeper(project).read();
    expect(read.pending).toMatchObject([
      { key: 'old', changeSet: { changes: [{ value: { name: 'Quay wall', top: { kind: 'level' } } }] } },
    ]);
    expect(read.aside).toMatchObject([
      { key: 'new', reason: expect.stringContaining('newer Yard Arch'), changeSet: changeSet('from tomorrow') },
    ]);
    expect(read.undo).toEqual([step('after')]);
    // What is not understood is kept as what it is, for the program that does.
    expect((await keeper(project).read()).aside).toMatchObject([{ key: 'new', format: 99 }]);
  });
});
