/** Edit scripts by the API: done as one edit in the log, once for each key. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import type { ProjectDocument } from '@yard-arch/document';
import { ask, startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('script');
});
afterAll(() => harness?.remove());

const project = async (): Promise<string> => (await harness.services.projects.create(granary())).id;
const send = (id: string, body: unknown) =>
  ask<{ revision: number; made: string[][]; faults?: { path: string }[]; detail?: string }>(
    harness.app,
    'POST',
    `/projects/${id}/script`,
    body,
  );
const held = async (id: string): Promise<ProjectDocument> => (await harness.services.projects.read(id)).document;

describe('a script', () => {
  it('is done as one edit, and told by step', async () => {
    const id = await project();
    const { status, body } = await send(id, {
      name: 'two more',
      do: [
        { do: 'copy', openings: ['o9'], along: 0.3 },
        { do: 'copy', openings: ['o9'], along: 0.6 },
      ],
    });
    expect([status, body.revision]).toEqual([201, 1]);
    expect(body.made.flat()).toHaveLength(2);
    expect(Object.keys((await held(id)).openings)).toEqual(expect.arrayContaining(body.made.flat()));
    const log = await ask<{ name: string }[]>(harness.app, 'GET', `/projects/${id}/changes`);
    expect(log.body.map(({ name }) => name)).toEqual(['two more']);
  });

  it('that is sent twice is done once; one that is for another revision is not done', async () => {
    const id = await project();
    const script = { key: 'k', onlyAt: 0, do: [{ do: 'copy', openings: ['o9'], along: 0.3 }] };
    const [first, again] = [await send(id, script), await send(id, script)];
    expect([first.status, again.status, again.body.revision]).toEqual([201, 201, 1]);
    expect(Object.keys((await held(id)).openings)).toHaveLength(Object.keys(granary().openings).length + 1);
    expect((await send(id, { ...script, key: 'other' })).status).toBe(409);
  });

  it.each<[string, unknown, number]>([
    ['of nothing', null, 422],
    ['that is no JSON', '{', 400],
    ['that names what is not there', { do: [{ do: 'move', openings: ['nobody'], up: 1 }] }, 422],
    ['with a bad key', { key: 7, do: [{ do: 'move', openings: ['o9'], up: 1 }] }, 422],
  ])('%s is refused with the reason, and nothing is done', async (_, script, status) => {
    const id = await project();
    expect((await send(id, script)).status).toBe(status);
    expect(await held(id)).toEqual(granary());
  });

  it('for a project that is not there is not done', async () => {
    expect((await send(crypto.randomUUID(), { do: [{ do: 'move', openings: ['o9'], up: 1 }] })).status).toBe(404);
    expect((await send('no-id', { do: [] })).status).toBeGreaterThanOrEqual(400);
  });
});
