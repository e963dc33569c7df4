/** Versions and what is told of new revisions, over HTTP against a real PostgreSQL. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { checkDocument, putting, type ProjectDocument, type Wall } from '@yard-arch/document';
import { ask, startHarness, type Harness } from './harness.ts';

const granary = checkDocument(JSON.parse(readFileSync(new URL('../../demo/granary.json', import.meta.url), 'utf8')));
let harness: Harness;

beforeAll(async () => {
  harness = await startHarness('versions');
});
afterAll(() => harness?.remove());

const call = <T>(method: string, path: string, body?: unknown) => ask<T>(harness.app, method, path, body);
const made = async (): Promise<string> => (await call<{ id: string }>('POST', '/projects/upload', granary)).body.id;
const lengthen = (id: string, baseRevision: number, length: number) =>
  call<{ revision: number }>('POST', `/projects/${id}/changes`, {
    baseRevision,
    key: `k${length}`,
    changeSet: {
      name: `lengthen to ${length}`,
      changes: [putting('elements', { ...(granary.elements.courtyard as Wall), length })],
    },
  });
const lengthAt = async (id: string, revision?: number): Promise<number> => {
  const { body } = await call<{ document: ProjectDocument }>(
    'GET',
    `/projects/${id}/document${revision === undefined ? '' : `?revision=${revision}`}`,
  );
  return (body.document.elements.courtyard as Wall).length;
};

interface Version {
  id: string;
  revision: number;
  name: string;
  automatic: boolean;
}

describe('versions', () => {
  it('are kept by name, and the document is to be had as it was at each', async () => {
    const id = await made();
    await lengthen(id, 0, 20);
    const kept = await call<Version>('POST', `/projects/${id}/versions`, { name: 'For the client' });
    expect(kept).toMatchObject({ status: 201, body: { revision: 1, name: 'For the client', automatic: false } });
    for (let i = 1; i < 6; i++) expect((await lengthen(id, i, 20 + i)).status).toBe(201);
    expect(await lengthAt(id)).toBe(25);
    expect(await lengthAt(id, 1)).toBe(20);
    expect(await lengthAt(id, 0)).toBe(19.2);
    const whole = await call<{ document: ProjectDocument }>('GET', `/projects/${id}/document?revision=0`);
    expect(whole.body.document).toEqual(granary);
    expect((await call<Version[]>('GET', `/projects/${id}/versions`)).body).toHaveLength(1);
    expect((await call('DELETE', `/projects/${id}/versions/${kept.body.id}`)).status).toBe(204);
    expect((await call('DELETE', `/projects/${id}/versions/${kept.body.id}`)).status).toBe(404);
    expect((await call('POST', `/projects/${id}/versions`, { name: '  ' })).status).toBe(422);
  });

  it('are made by themselves before the first edit after a pause', async () => {
    const id = await made();
    await lengthen(id, 0, 21);
    await lengthen(id, 1, 22);
    expect((await call<Version[]>('GET', `/projects/${id}/versions`)).body).toEqual([]);
    await harness.services.database.em
      .fork()
      .getConnection()
      .execute(`update "project" set "updated_at" = now() - interval '1 hour' where "id" = '${id}'`);
    await lengthen(id, 2, 23);
    const { body } = await call<Version[]>('GET', `/projects/${id}/versions`);
    expect(body).toMatchObject([{ revision: 2, automatic: true, name: 'before “lengthen to 23”' }]);
    expect(await lengthAt(id, body[0]!.revision)).toBe(22);
  });
});

describe('events', () => {
  it('tell of the revision at once and of every new one', async () => {
    const id = await made();
    const response = await harness.app.request(`/api/projects/${id}/events`);
    expect(response.headers.get('content-type')).toContain('text/event-stream');
    const reader = response.body!.getReader();
    const read = async (): Promise<string> => new TextDecoder().decode((await reader.read()).value);
    expect(await read()).toContain('"revision":0');
    await lengthen(id, 0, 20);
    expect(await read()).toContain('"revision":1');
    await call('PATCH', `/projects/${id}`, { name: 'Fennel Quay' });
    expect(await read()).toContain('"revision":2');
    await reader.cancel();
    expect((await harness.app.request('/api/projects/00000000-0000-4000-8000-000000000000/events')).status).toBe(404);
  });
});
