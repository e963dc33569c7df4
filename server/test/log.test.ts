/** The change log: edits made on an earlier state, the identity of the log, and old states read from snapshots. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, putting, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { ask, startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('log');
});
afterAll(() => harness?.remove());

const document = granary();
const project = async (): Promise<string> => (await harness.services.projects.create(granary())).id;
const moved = (id: string, distance: number): ChangeSet => ({
  name: `move ${id}`,
  changes: [putting('openings', { ...document.openings[id]!, along: { from: 'start', distance } })],
});

interface Answer {
  revision: number;
  mark: string;
  type: string;
  missed: { revision: number; name: string }[];
  changeSet: ChangeSet;
}
const append = (id: string, baseRevision: number, changeSet: ChangeSet, more: object = {}) =>
  ask<Answer>(harness.app, 'POST', `/projects/${id}/changes`, {
    baseRevision,
    key: crypto.randomUUID(),
    changeSet,
    ...more,
  });
const held = async (id: string, at?: number): Promise<ProjectDocument> =>
  (await harness.services.projects.read(id, at)).document;

describe('an edit made on an earlier state', () => {
  it('is applied to the present one where it meets nothing that was changed, and keeps what was', async () => {
    const id = await project();
    await append(id, 0, moved('o9', 3));
    const blocked = { name: 'block up', changes: [putting('openings', { ...document.openings.o9!, blockedUp: true })] };
    const answer = await append(id, 0, blocked);
    expect(answer).toMatchObject({ status: 201, body: { revision: 2, missed: [{ revision: 1, name: 'move o9' }] } });
    expect((await held(id)).openings.o9).toEqual({
      ...document.openings.o9,
      along: { from: 'start', distance: 3 },
      blockedUp: true,
    });
    // What the log holds is what was applied, and leads to the same document.
    const log = await ask<{ changeSet: ChangeSet }[]>(harness.app, 'GET', `/projects/${id}/changes`);
    expect(log.body.reduce((at, { changeSet }) => applyChangeSet(at, changeSet).document, document)).toEqual(
      await held(id),
    );
  });

  it('of the same value is refused with what was missed, unless it may replace it', async () => {
    const id = await project();
    await append(id, 0, moved('o9', 3));
    expect(await append(id, 0, moved('o9', 4))).toMatchObject({
      status: 409,
      body: { type: '/problems/stale-revision', missed: [{ revision: 1 }] },
    });
    expect(await append(id, 0, moved('o9', 4), { over: true })).toMatchObject({ status: 201, body: { revision: 2 } });
    expect((await held(id)).openings.o9!.along.distance).toBe(4);
  });

  it('of a row that was removed, or that names one, is refused with what was missed', async () => {
    const id = await project();
    await append(id, 0, { name: 'remove', changes: [{ op: 'remove', table: 'openings', id: 'o9' }] });
    expect((await append(id, 0, moved('o9', 4))).status).toBe(409);
    const other = await project();
    const onGate = Object.values(document.openings).filter((opening) => opening.element === 'gate');
    await append(other, 0, {
      name: 'remove gate',
      changes: [
        ...onGate.map(({ id: gone }) => ({ op: 'remove', table: 'openings', id: gone }) as const),
        { op: 'remove', table: 'elements', id: 'gate' },
      ],
    });
    expect(
      (await append(other, 0, { name: 'place', changes: [putting('openings', { ...onGate[0]!, id: 'new' })] })).status,
    ).toBe(409);
  });
});

describe('the identity of a log', () => {
  it('is another after each edit, and tells a log that has no such state', async () => {
    const id = await project();
    const first = (await append(id, 0, moved('o9', 1))).body;
    const second = (await append(id, 1, moved('o9', 2), { baseMark: first.mark })).body;
    expect(second.mark).not.toBe(first.mark);
    expect(await append(id, 1, moved('o10', 2), { baseMark: 'another' })).toMatchObject({
      status: 409,
      body: { type: '/problems/other-log', revision: 2, mark: second.mark },
    });
    expect(await append(id, 7, moved('o10', 2))).toMatchObject({ status: 409, body: { type: '/problems/other-log' } });
    expect((await ask(harness.app, 'GET', `/projects/${id}/changes?after=1&mark=${first.mark}`)).status).toBe(200);
    expect(await ask(harness.app, 'GET', `/projects/${id}/changes?after=1&mark=x`)).toMatchObject({
      status: 409,
      body: { type: '/problems/other-log' },
    });
    expect((await ask<Answer>(harness.app, 'GET', `/projects/${id}/document?revision=1`)).body.mark).toBe(first.mark);
  });
});

describe('an old state', () => {
  it('is read from the nearest snapshot, whatever came after it', async () => {
    const id = await project();
    const { projects, database } = harness.services;
    for (let n = 1; n <= 230; n++)
      await projects.append(id, { baseRevision: n - 1, key: `k${n}`, edit: { changeSet: moved('o9', n) } });
    const em = database.em.fork();
    expect(await em.execute('select "revision" from "snapshot" where "project" = ? order by 1', [id])).toEqual([
      { revision: 100 },
      { revision: 200 },
    ]);
    for (const at of [0, 1, 99, 100, 101, 150, 200, 229, 230])
      expect((await held(id, at)).openings.o9!.along.distance).toBe(
        at === 0 ? document.openings.o9!.along.distance : at,
      );
    // The way back from later states is not gone: without their entries it still can be read.
    await em.execute('delete from "change" where "project" = ? and "revision" > 101 and "revision" < 230', [id]);
    expect((await held(id, 42)).openings.o9!.along.distance).toBe(42);
  });

  it('of a log from before there were snapshots is read too, and leaves some for the next time', async () => {
    const id = await project();
    const { projects, database } = harness.services;
    for (let n = 1; n <= 230; n++)
      await projects.append(id, { baseRevision: n - 1, key: `k${n}`, edit: { changeSet: moved('o9', n) } });
    const em = database.em.fork();
    await em.execute('delete from "snapshot" where "project" = ?', [id]);
    expect((await held(id, 5)).openings.o9!.along.distance).toBe(5);
    expect(
      (await em.execute<{ n: string }[]>('select count(*) as "n" from "snapshot" where "project" = ?', [id]))[0],
    ).toEqual({ n: '2' });
  });
});

describe('what was kept when names could still hold control characters', () => {
  it('opens, without them', async () => {
    const id = await project();
    const em = harness.services.database.em.fork();
    await em.execute(`update "project" set "document" = ?, "mark" = 'old' where "id" = ?`, [
      JSON.stringify({ ...document, version: 1, name: 'Two\nlines\ttabbed' }),
      id,
    ]);
    expect((await held(id)).name).toBe('Two lines tabbed');
    expect(
      (await ask<{ document: ProjectDocument }>(harness.app, 'GET', `/projects/${id}/document`)).body.document.name,
    ).toBe('Two lines tabbed');
    expect((await append(id, 0, moved('o9', 3))).status).toBe(201);
  });
});

describe('large edits', () => {
  it('are made in a worker as they would be here', async () => {
    const id = await project();
    const changes = Array.from({ length: 900 }, (_, i) =>
      putting('openings', {
        ...document.openings.o9!,
        id: `n${i}`,
        mark: `N-${i}`,
        along: { from: 'start' as const, distance: i / 100 },
      }),
    );
    const changeSet = { name: 'place 900', changes };
    const answer = await append(id, 0, changeSet);
    expect(answer).toMatchObject({ status: 201, body: { revision: 1 } });
    expect(await held(id)).toEqual(applyChangeSet(document, changeSet).document);
    expect(
      await append(id, 1, {
        name: 'spoiled',
        changes: [
          ...changes,
          { ...changes[0]!, value: { ...document.openings.o9!, id: 'gone', element: 'nowhere' } } as never,
        ],
      }),
    ).toMatchObject({ status: 422, body: { type: '/problems/refused' } });
    expect((await held(id)).openings.gone).toBeUndefined();
  });
});
