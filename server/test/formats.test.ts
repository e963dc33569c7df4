/** What earlier versions of the program left in the database: brought up to date as it is read. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { formatVersion, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { ChangeEntity, ProjectEntity } from '../src/entities.ts';
import { ask, startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('formats');
});
afterAll(() => harness?.remove());

const first = readFileSync(new URL('../../document/test/fixtures/1-first.json', import.meta.url), 'utf8').trim();
const old = JSON.parse(first) as ProjectDocument;
const [wall] = Object.values(old.elements);

/** A project as the first version left it: one edit, that renamed a wall which had no top. */
async function left(text: string): Promise<string> {
  const em = harness.services.database.em.fork();
  const [id, mark, now] = [randomUUID(), randomUUID(), new Date()];
  const put = (name: string): ChangeSet => ({
    name: 'rename',
    changes: [{ op: 'put', table: 'elements', value: { ...wall!, name } as never }],
  });
  await em.insert(ProjectEntity, {
    id,
    revision: 1,
    mark,
    firstMark: randomUUID(),
    createdAt: now,
    updatedAt: now,
    deletedAt: null,
    document: text,
    name: old.name,
    elements: 1,
    openings: 1,
  });
  await em.insert(ChangeEntity, {
    project: id,
    revision: 1,
    key: 'k',
    mark,
    name: 'rename',
    format: 1,
    changeSet: JSON.stringify(put(wall!.name)),
    inverse: JSON.stringify(put('Old wall')),
    at: now,
  });
  return id;
}

const kept = async (id: string): Promise<string> =>
  (await harness.services.database.em.fork().findOneOrFail(ProjectEntity, { id })).document;

describe('a project that the first version left', () => {
  it('is brought up to date as it is read, checked, and kept so', async () => {
    const id = await left(first);
    const { status, body } = await ask<{ document: ProjectDocument }>(harness.app, 'GET', `/projects/${id}/document`);
    expect(status).toBe(200);
    expect(body.document).toMatchObject({
      version: formatVersion,
      elements: { [wall!.id]: { top: { kind: 'level' } } },
    });
    expect(JSON.parse(await kept(id))).toEqual(body.document);
  });

  it('has a log whose entries are told in the present version, and can be gone back in', async () => {
    const id = await left(first);
    const log = await ask<{ format: number; changeSet: ChangeSet }[]>(harness.app, 'GET', `/projects/${id}/changes`);
    expect(log.body).toMatchObject([
      { format: formatVersion, changeSet: { changes: [{ value: { top: { kind: 'level' } } }] } },
    ]);
    const before = await ask<{ document: ProjectDocument }>(harness.app, 'GET', `/projects/${id}/document?revision=0`);
    expect(before.body.document.elements[wall!.id]).toMatchObject({ name: 'Old wall', top: { kind: 'level' } });
  });

  it('takes edits in any version that is known, and says which it knows', async () => {
    const id = await left(first);
    const changeSet = { name: 'heighten', changes: [{ op: 'put', table: 'elements', value: { ...wall, height: 9 } }] };
    const append = (format: number) =>
      ask<{ format: number; faults?: { reason: string }[] }>(harness.app, 'POST', `/projects/${id}/changes`, {
        baseRevision: 1,
        key: randomUUID(),
        format,
        changeSet,
      });
    expect(await append(1)).toMatchObject({
      status: 201,
      body: { format: formatVersion, changeSet: { changes: [{ value: { height: 9, top: { kind: 'level' } } }] } },
    });
    expect(await append(formatVersion + 1)).toMatchObject({
      status: 422,
      body: { faults: [{ path: 'version', reason: expect.stringContaining('newer') }] },
    });
    const [, entry] = await harness.services.database.em
      .fork()
      .find(ChangeEntity, { project: id }, { orderBy: { revision: 'asc' } });
    expect(entry!.format).toBe(formatVersion);
  });
});

describe('a project that cannot be brought up to date', () => {
  it.each([
    ['of a newer version', first.replace('"version":1', '"version":99'), 'newer Yard Arch'],
    ['with what does not fit', first.replace('"length":19.2', '"length":"long"'), 'length'],
  ])('%s says so, can be had as it is kept, and is left as it is', async (_, text, reason) => {
    const id = await left(text);
    const { status, body } = await ask<{ detail: string; type: string }>(
      harness.app,
      'GET',
      `/projects/${id}/document`,
    );
    expect([status, body.type]).toEqual([422, '/problems/unreadable']);
    expect(body.detail).toContain(reason);
    const file = await harness.app.request(`http://localhost/api/projects/${id}/file`);
    expect(JSON.parse(await file.text())).toEqual(JSON.parse(text));
    expect(await kept(id)).toBe(text);
    expect(
      (
        await ask(harness.app, 'POST', `/projects/${id}/changes`, {
          baseRevision: 1,
          key: randomUUID(),
          changeSet: { name: 'rename', changes: [{ op: 'settings', value: { name: 'x' } }] },
        })
      ).status,
    ).toBe(422);
  });
});
