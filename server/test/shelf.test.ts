/** The shelf over HTTP against a real PostgreSQL: patterns put there, changed, listed and taken off; and what is no pattern file refused. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { patternFile, type Pattern, type PatternFile } from '@yard-arch/document';
import { materialsIn, shipped, shippedMaterials } from '@yard-arch/edit';
import { ask, startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('shelf');
});
afterAll(() => harness?.remove());

const call = <T>(method: string, path: string, body?: unknown) => ask<T>(harness.app, method, path, body);

interface Item {
  id: string;
  revision: number;
  name: string;
  file: PatternFile;
}

const fileFor = (pattern: Pattern): PatternFile =>
  patternFile(
    pattern,
    materialsIn(pattern).map((id) => shippedMaterials[id]!),
  );
const arch = shipped.find(({ id }) => id === 'fanlight')!;

describe('the shelf', () => {
  it('keeps patterns with their materials, counts how often each was put there anew, and lets them go', async () => {
    expect((await call<Item[]>('GET', '/shelf')).body).toEqual([]);
    const put = await call<Item>('POST', '/shelf', fileFor(arch));
    expect(put).toMatchObject({ status: 201, body: { revision: 1, name: 'Granary arch', file: fileFor(arch) } });
    const again = await call<Item>('PUT', `/shelf/${put.body.id}`, fileFor({ ...arch, name: 'Loft arch' }));
    expect(again).toMatchObject({ status: 200, body: { id: put.body.id, revision: 2, name: 'Loft arch' } });
    const [kept, ...others] = (await call<Item[]>('GET', '/shelf')).body;
    expect(others).toEqual([]);
    expect(kept).toMatchObject({ revision: 2, file: { pattern: { infill: arch.infill } } });
    expect((await call('DELETE', `/shelf/${put.body.id}`)).status).toBe(204);
    expect((await call('DELETE', `/shelf/${put.body.id}`)).status).toBe(404);
    expect((await call('PUT', `/shelf/${put.body.id}`, fileFor(arch))).status).toBe(404);
  });

  it('tells of what it cannot read, and lets that go too', async () => {
    const { body } = await call<Item>('POST', '/shelf', fileFor(arch));
    await harness.services.database.em
      .fork()
      .execute(`update "shelf" set "file" = ? where "id" = ?`, [
        JSON.stringify({ ...fileFor(arch), version: 99 }),
        body.id,
      ]);
    const list = (await call<(Item & { why?: string })[]>('GET', '/shelf')).body;
    expect(list).toMatchObject([
      { id: body.id, name: 'Granary arch', file: null, why: expect.stringMatching(/newer/) },
    ]);
    expect((await call('DELETE', `/shelf/${body.id}`)).status).toBe(204);
    expect((await call('GET', '/shelf')).body).toEqual([]);
  });

  it('takes every shipped pattern, and gives it back the same', async () => {
    for (const pattern of shipped) {
      const put = await call<Item>('POST', '/shelf', fileFor(pattern));
      expect([pattern.id, put.status, put.body.file]).toEqual([pattern.id, 201, fileFor(pattern)]);
    }
    const names = (await call<Item[]>('GET', '/shelf')).body.map(({ name }) => name);
    expect(names).toEqual([...shipped.map(({ name }) => name)].sort());
  });

  it('refuses what is no pattern file, with the place of the fault, and what names no item', async () => {
    const refused = async (body: unknown) => {
      const answer = await call<{ faults?: { path: string }[] }>('POST', '/shelf', body);
      return [answer.status, answer.body.faults?.[0]?.path];
    };
    expect(await refused({ format: 'yard-arch' })).toEqual([422, 'format']);
    expect(await refused({ ...fileFor(arch), version: 99 })).toEqual([422, 'version']);
    expect(await refused({ ...fileFor(arch), pattern: { ...arch, gap: 1 } })).toEqual([422, 'patterns/fanlight']);
    expect(await refused({ ...fileFor(arch), materials: {} })).toMatchObject([422, expect.stringMatching(/material/)]);
    expect((await call('PUT', '/shelf/nonsense', fileFor(arch))).status).toBe(422);
    expect((await call('DELETE', '/shelf/nonsense')).status).toBe(422);
  });
});
