/** Long work: in workers, once for each state, told of as it goes, ended when it is not wanted, and never in the way of others. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { facade, granary } from '@yard-arch/demo';
import { fileName, attachment } from '../src/jobs/file-name.ts';
import { Pool } from '../src/jobs/pool.ts';
import { Teller } from '../src/jobs/teller.ts';
import { ask, startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('jobs');
});
afterAll(() => harness?.remove());

interface Job {
  id: string;
  state: string;
  size: number | null;
  problem: { title: string } | null;
}

describe('long work', () => {
  it('is done once for each state, and its result kept', async () => {
    const { id } = await harness.services.projects.create(granary());
    const begin = async (): Promise<Job> =>
      (await ask<Job>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'glb' })).body;
    const [one, two] = await Promise.all([begin(), begin()]);
    expect(two.id).toBe(one.id);
    const result = await harness.app.request(`/api/jobs/${one.id}/result`);
    expect(result.headers.get('content-disposition')).toContain('fennel-quay-granary.glb');
    const bytes = new Uint8Array(await result.arrayBuffer());
    expect(new TextDecoder().decode(bytes.slice(0, 4))).toBe('glTF');
    expect(bytes.length).toBe(Number(result.headers.get('content-length')));
    expect((await begin()).state).toBe('done');
    // Another state is another piece of work.
    await harness.services.projects.rename(id, 'Quay');
    expect((await begin()).id).not.toBe(one.id);
  });

  it('tells how it goes until it is done', async () => {
    const { id } = await harness.services.projects.create(facade(1500));
    const { body: job } = await ask<Job>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'obj' });
    const events = await (await harness.app.request(`/api/jobs/${job.id}/events`)).text();
    const told = [...events.matchAll(/^data: (\{.*\})$/gm)].map(
      ([, data]) => JSON.parse(data!) as { state: string; progress: number },
    );
    expect(told.at(-1)!.state).toBe('done');
    expect(told.map(({ progress }) => progress)).toEqual(told.map(({ progress }) => progress).sort((a, b) => a - b));
  });

  it('leaves health and others answered at once', async () => {
    const { id } = await harness.services.projects.create(facade(2000));
    let over = false;
    const waits: number[] = [];
    const asking = (async () => {
      while (!over) {
        const begun = performance.now();
        await harness.app.request('/api/health');
        waits.push(performance.now() - begun);
        await new Promise((resolve) => setTimeout(resolve, 5));
      }
    })();
    const results = await Promise.all(
      ['glb', 'obj'].map(
        async (format) =>
          (await (await harness.app.request(`/api/projects/${id}/export?format=${format}`)).arrayBuffer()).byteLength,
      ),
    );
    over = true;
    await asking;
    expect(Math.min(...results)).toBeGreaterThan(1_000_000);
    // Work on this thread would show as one wait as long as the work, which is seconds.
    expect(Math.max(...waits)).toBeLessThan(1500);
  });

  it('is ended when it is cancelled, and can be asked for again', async () => {
    const { id } = await harness.services.projects.create(facade(4000));
    const { body: job } = await ask<Job>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'obj' });
    expect((await ask(harness.app, 'DELETE', `/jobs/${job.id}`)).status).toBe(204);
    expect((await ask<Job>(harness.app, 'GET', `/jobs/${job.id}`)).body.state).toBe('cancelled');
    expect(await ask(harness.app, 'GET', `/jobs/${job.id}/result`)).toMatchObject({
      status: 409,
      body: { type: '/problems/cancelled' },
    });
    const again = (await ask<Job>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'report' })).body;
    expect((await harness.app.request(`/api/jobs/${again.id}/result`)).status).toBe(200);
  });

  it.each([
    ['that had begun it', 'working'],
    ['that had only fetched it', 'waiting'],
  ])('is taken over from a process that is gone, %s', async (_, state) => {
    const { id } = await harness.services.projects.create(granary());
    const em = harness.services.database.em.fork();
    const [job] = await em.execute<{ id: string }[]>(
      `insert into "job" ("id", "project", "revision", "kind", "state", "progress", "stage", "runner", "beat_at", "created_at") values (gen_random_uuid(), ?, 0, 'picture', ?, 0.5, '', gen_random_uuid(), now() - interval '1 minute', now()) returning "id"`,
      [id, state],
    );
    // Nobody asks for it anew: whoever waits for it is answered.
    const picture = await harness.app.request(`/api/jobs/${job!.id}/result`);
    expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/png']);
  });

  it('at which processes have ended again and again is given up, and said to be', async () => {
    const { id } = await harness.services.projects.create(granary());
    const [job] = await harness.services.database.em
      .fork()
      .execute<{ id: string }[]>(
        `insert into "job" ("id", "project", "revision", "kind", "state", "progress", "stage", "tries", "beat_at", "created_at") values (gen_random_uuid(), ?, 0, 'glb', 'working', 0.5, '', 3, now() - interval '1 minute', now()) returning "id"`,
        [id],
      );
    expect(await ask(harness.app, 'GET', `/jobs/${job!.id}/result`)).toMatchObject({
      status: 500,
      body: { detail: expect.stringContaining('begun 3 times') },
    });
  });

  it('that another has taken over is the other’s to tell of', async () => {
    const { id } = await harness.services.projects.create(granary());
    const em = harness.services.database.em;
    const [job] = await em
      .fork()
      .execute<{ id: string }[]>(
        `insert into "job" ("id", "project", "revision", "kind", "state", "progress", "stage", "runner", "beat_at", "created_at") values (gen_random_uuid(), ?, 0, 'glb', 'working', 0, '', gen_random_uuid(), now(), now()) returning "id"`,
        [id],
      );
    const late = new Teller(harness.services.database, job!.id, '00000000-0000-4000-8000-000000000000');
    late.take({ piece: new Uint8Array([1, 2, 3]) });
    await late.finish();
    await late.end({ state: 'failed' });
    expect((await harness.services.jobs.get(job!.id)).state).toBe('working');
    expect(await em.fork().execute(`select * from "job_piece" where "job" = ?`, [job!.id])).toEqual([]);
  });

  it('that fails is told of, and the picture of a card is not tried again at each visit', async () => {
    const { id } = await harness.services.projects.create(granary());
    await harness.services.database.em
      .fork()
      .execute(`update "project" set "document" = '{"format":"yard-arch"}' where "id" = ?`, [id]);
    const ids = new Set<string>();
    for (let i = 0; i < 3; i++) {
      expect((await harness.app.request(`/api/projects/${id}/picture`)).status).toBe(422);
      ids.add((await ask<Job>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'picture' })).body.id);
    }
    expect(ids.size).toBe(1);
  });
});

describe('a worker', () => {
  it('is ended where it takes too long, or too much memory, and the next task is done all the same', async () => {
    const pool = new Pool({ workers: 1, memory: 60, worker: process.env.YARD_WORKER });
    try {
      const text = JSON.stringify(facade(2000));
      await expect(pool.run({ kind: 'obj', mark: 'a', text, assets: new Map() }, { limit: 30 })).rejects.toMatchObject({
        status: 422,
        kind: 'too-long',
      });
      const heavy = new TextEncoder().encode(`[${`[${'{"a":[1,2,3]},'.repeat(200_000)}1],`.repeat(4)}1]`);
      await expect(pool.run({ kind: 'upload', bytes: heavy, known: [] })).rejects.toMatchObject({
        status: 422,
        kind: 'too-large',
      });
      expect(
        await pool.run({ kind: 'upload', bytes: new TextEncoder().encode(JSON.stringify(granary())), known: [] }),
      ).toMatchObject({ name: granary().name });
    } finally {
      await pool.close();
    }
  });
});

describe('names of downloads', () => {
  it.each([
    ['Fennel Quay Granary', 'fennel-quay-granary.glb'],
    ['a/../../outside', 'a-outside.glb'],
    ['CON', 'project-con.glb'],
    ['  ', 'project.glb'],
    ['Hof № 8 – Süd', 'hof-8-süd.glb'],
    ['100% #1', '100-1.glb'],
  ])('%s: %s', (name, file) => {
    expect(fileName(name, 'glb')).toBe(file);
  });

  it('are short enough for every system, and told in ASCII too', () => {
    expect(Buffer.byteLength(fileName('Ü'.repeat(300), 'obj.zip'))).toBeLessThan(160);
    expect(attachment('süd "1".glb')).toBe(
      `attachment; filename="sud _1_.glb"; filename*=UTF-8''s%C3%BCd%20%221%22.glb`,
    );
  });
});
