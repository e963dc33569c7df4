/** The API over HTTP against a real PostgreSQL: projects, changes, conflicts, files, and a database that dies. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { unzipSync, strFromU8 } from 'fflate';
import type { Hono } from 'hono';
import {
  applyChangeSet,
  checkDocument,
  putting,
  removing,
  type ChangeSet,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import type { Cluster } from '../../ops/cluster.ts';
import type { Services } from '../src/index.ts';
import { ask, startHarness, type Harness } from './harness.ts';

const granary = checkDocument(JSON.parse(readFileSync(new URL('../../demo/granary.json', import.meta.url), 'utf8')));

let harness: Harness;
let cluster: Cluster;
let services: Services;
let app: Hono;

beforeAll(async () => {
  harness = await startHarness('api');
  ({ app, cluster, services } = harness);
});
afterAll(() => harness?.remove());

const call = <T = Record<string, unknown>>(method: string, path: string, body?: unknown) =>
  ask<T>(app, method, path, body);

interface Summary {
  id: string;
  name: string;
  revision: number;
  openings: number;
}

async function upload(document: ProjectDocument = granary): Promise<string> {
  const made = await call<Summary>('POST', '/projects/upload', document);
  expect(made.status).toBe(201);
  return made.body.id;
}

const lengthen = (length: number): ChangeSet => ({
  name: `lengthen wall to ${length}`,
  changes: [putting('elements', { ...(granary.elements.courtyard as Wall), length })],
});

describe('a new project', () => {
  it('begins with what is asked for, sound and ready to be set out', async () => {
    for (const [begin, walls, patterns] of [
      [undefined, 0, 0],
      ['empty', 0, 0],
      ['patterns', 0, 7],
      ['wall', 1, 7],
    ] as const) {
      const { body } = await ask<{ id: string }>(harness.app, 'POST', '/projects', {
        name: 'New',
        ...(begin ? { begin } : {}),
      });
      const { document } = await harness.services.projects.read(body.id);
      expect([Object.keys(document.elements).length, Object.keys(document.patterns).length]).toEqual([walls, patterns]);
    }
  });

  it('begins from any example, under its name or another', async () => {
    const { body: all } = await ask<{ id: string; name: string }[]>(harness.app, 'GET', '/examples');
    expect(all.length).toBeGreaterThan(2);
    for (const { id, name } of all)
      expect((await ask<{ name: string }>(harness.app, 'POST', '/projects', { example: id })).body.name).toBe(name);
    expect(
      (await ask<{ name: string }>(harness.app, 'POST', '/projects', { example: 'layers', name: 'Mine' })).body.name,
    ).toBe('Mine');
    for (const bad of [{}, { example: 'none' }, { name: 'x', begin: 'all' }])
      expect((await ask(harness.app, 'POST', '/projects', bad)).status).toBe(422);
  });
});

describe('projects', () => {
  it('are made, listed, renamed, duplicated, deleted and brought back', async () => {
    const made = await call<Summary>('POST', '/projects', { name: ' Stair drum ' });
    expect(made).toMatchObject({ status: 201, body: { name: 'Stair drum', revision: 0, openings: 0 } });
    const { id } = made.body;
    expect(await call('PATCH', `/projects/${id}`, { name: 'Undercroft' })).toMatchObject({
      status: 200,
      body: { name: 'Undercroft', revision: 1 },
    });
    expect((await call<{ document: ProjectDocument }>('GET', `/projects/${id}/document`)).body.document.name).toBe(
      'Undercroft',
    );
    const copy = await call<Summary>('POST', `/projects/${id}/duplicate`);
    expect(copy.body.name).toBe('Undercroft (copy)');
    expect((await call<Summary>('POST', `/projects/${id}/duplicate`)).body.name).toBe('Undercroft (copy 2)');
    expect((await call('DELETE', `/projects/${id}`)).status).toBe(204);
    expect((await call<Summary[]>('GET', '/projects')).body.map((p) => p.id)).not.toContain(id);
    expect((await call('GET', `/projects/${id}`)).status).toBe(404);
    expect((await call('POST', `/projects/${id}/restore`)).status).toBe(200);
    expect((await call<Summary[]>('GET', '/projects')).body.map((p) => p.id)).toContain(id);
  });

  it('forgets what was deleted long ago, and nothing else', async () => {
    const [gone, kept] = [await upload(), await upload()];
    await call('DELETE', `/projects/${gone}`);
    const { projects } = services;
    await projects.purge();
    expect((await call('POST', `/projects/${gone}/restore`)).status).toBe(200);
    await call('DELETE', `/projects/${gone}`);
    await projects.purge(new Date(Date.now() + 31 * 86_400_000));
    expect((await call('POST', `/projects/${gone}/restore`)).status).toBe(404);
    expect((await call('GET', `/projects/${kept}`)).status).toBe(200);
  });

  it('come back from a file as they went into one, row for row', async () => {
    const id = await upload();
    const { body, status } = await call<ProjectDocument>('GET', `/projects/${id}/file`);
    expect(status).toBe(200);
    expect(JSON.stringify(body)).toBe(JSON.stringify(granary));
  });
});

describe('changes', () => {
  it('are appended against a revision and stand in the log', async () => {
    const id = await upload();
    expect(
      await call('POST', `/projects/${id}/changes`, { baseRevision: 0, key: 'a', changeSet: lengthen(20) }),
    ).toMatchObject({ status: 201, body: { revision: 1 } });
    expect(
      await call('POST', `/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: lengthen(21) }),
    ).toMatchObject({ status: 201, body: { revision: 2 } });
    const read = await call<{ revision: number; document: ProjectDocument }>('GET', `/projects/${id}/document`);
    expect(read.body.revision).toBe(2);
    expect(read.body.document.elements.courtyard).toMatchObject({ length: 21 });
    const log = await call<{ revision: number; name: string; changeSet: ChangeSet }[]>(
      'GET',
      `/projects/${id}/changes?after=1`,
    );
    expect(log.body).toMatchObject([{ revision: 2, name: 'lengthen wall to 21', changeSet: lengthen(21) }]);
  });

  it('sent twice are applied once', async () => {
    const id = await upload();
    const change = { baseRevision: 0, key: 'same', changeSet: lengthen(20) };
    await call('POST', `/projects/${id}/changes`, change);
    expect(await call('POST', `/projects/${id}/changes`, change)).toMatchObject({ status: 201, body: { revision: 1 } });
    expect((await call('GET', `/projects/${id}`)).body).toMatchObject({ revision: 1 });
  });

  it('on a stale revision are answered with what was missed, which brings the sender up to date', async () => {
    const id = await upload();
    await call('POST', `/projects/${id}/changes`, { baseRevision: 0, key: 'a', changeSet: lengthen(20) });
    const conflict = await call<{ revision: number; missed: { changeSet: ChangeSet }[] }>(
      'POST',
      `/projects/${id}/changes`,
      { baseRevision: 0, key: 'b', changeSet: lengthen(22) },
    );
    expect(conflict).toMatchObject({
      status: 409,
      type: 'application/problem+json',
      body: { title: 'The project has been changed meanwhile', revision: 1 },
    });
    const caughtUp = conflict.body.missed.reduce(
      (document, { changeSet }) => applyChangeSet(document, changeSet).document,
      granary,
    );
    expect(caughtUp.elements.courtyard).toMatchObject({ length: 20 });
    expect(
      (await call('POST', `/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: lengthen(22) })).status,
    ).toBe(201);
  });

  it('made at once are put in an order, none lost', async () => {
    const id = await upload();
    const answers = await Promise.all(
      [1, 2, 3, 4, 5, 6].map((n) =>
        call('POST', `/projects/${id}/changes`, { baseRevision: 0, key: `k${n}`, changeSet: lengthen(20 + n) }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409, 409, 409, 409, 409]);
    expect((await call<unknown[]>('GET', `/projects/${id}/changes`)).body).toHaveLength(1);
  });

  it.each<[string, unknown, RegExp]>([
    [
      'a width of 0',
      putting('patterns', {
        ...granary.patterns.light!,
        sizes: { ...granary.patterns.light!.sizes, a: { id: 'a', name: '', dimensions: { width: 0, height: 1 } } },
      }),
      /must be more than 0/,
    ],
    [
      'an opening on a wall that was removed',
      putting('openings', { ...granary.openings.o1!, element: 'gone' }),
      /does not exist/,
    ],
    ['a wall removed from under its openings', removing('elements', 'courtyard'), /still names "courtyard"/],
    [
      'a number that is none',
      { op: 'put', table: 'datums', value: { id: 'yard', name: 'Yard', level: 'NaN', element: null } },
      /must be a number/,
    ],
    ['a table that there is not', { op: 'put', table: 'roofs', value: {} }, /must be a put|must put into/],
  ])('with %s are refused with the reason, and change nothing', async (_, change, reason) => {
    const id = await upload();
    const answer = await call<{ detail: string; faults: unknown[] }>('POST', `/projects/${id}/changes`, {
      baseRevision: 0,
      key: 'x',
      changeSet: { name: 'edit', changes: [change] },
    });
    expect(answer).toMatchObject({ status: 422, type: 'application/problem+json' });
    expect(answer.body.detail).toMatch(reason);
    expect(answer.body.faults.length).toBeGreaterThan(0);
    expect((await call('GET', `/projects/${id}`)).body).toMatchObject({ revision: 0 });
  });
});

describe('requests that are wrong', () => {
  it.each<[string, string, unknown, number]>([
    ['POST', '/projects', { name: '' }, 422],
    ['POST', '/projects', '{', 400],
    ['POST', '/projects/upload', { format: 'other' }, 422],
    ['POST', '/projects/upload', { ...granary, elements: { a: 1 } }, 422],
    ['GET', '/projects/not-an-id', undefined, 422],
    ['GET', '/projects/00000000-0000-4000-8000-000000000000', undefined, 404],
    ['GET', '/nothing', undefined, 404],
  ])('%s %s is answered with problem details', async (method, path, body, status) => {
    const answer = await call<{ title: string; detail: string }>(method, path, body);
    expect(answer).toMatchObject({ status, type: 'application/problem+json' });
    expect(answer.body.title.length).toBeGreaterThan(5);
    expect(answer.body.detail.length).toBeGreaterThan(5);
  });

  it('that are too large are refused', async () => {
    const answer = await call('POST', '/projects/upload', `"${'x'.repeat(65 * 1024 * 1024)}"`);
    expect(answer).toMatchObject({ status: 413, body: { title: 'That is too large' } });
  });
});

describe('exports', () => {
  it('are a GLB, a ZIP of OBJ and MTL, a picture and a report', async () => {
    const id = await upload();
    const glb = new Uint8Array(await (await app.request(`/api/projects/${id}/export?format=glb`)).arrayBuffer());
    expect(new TextDecoder().decode(glb.slice(0, 4))).toBe('glTF');
    const zip = unzipSync(
      new Uint8Array(await (await app.request(`/api/projects/${id}/export?format=obj`)).arrayBuffer()),
    );
    expect(Object.keys(zip).filter((name) => !name.endsWith('.png'))).toEqual([
      'fennel-quay-granary.obj',
      'fennel-quay-granary.mtl',
    ]);
    expect(strFromU8(zip['fennel-quay-granary.mtl']!)).toContain('map_Kd fennel-quay-granary-Old_brick.png');
    expect(Object.keys(zip)).toContain('fennel-quay-granary-Old_brick.png');
    expect(strFromU8(zip['fennel-quay-granary.obj']!)).toContain('o Courtyard_wall');
    const picture = await app.request(`/api/projects/${id}/picture`);
    expect(picture.headers.get('content-type')).toBe('image/png');
    expect((await call('GET', `/projects/${id}/check`)).body).toMatchObject({ sound: true });
    expect((await call('GET', `/projects/${id}/export?format=exe`)).status).toBe(422);
  });
});

describe('the description of the API', () => {
  it('lists every route, with the schemas of what it takes', async () => {
    const { body } = await call<{ openapi: string; paths: Record<string, unknown>; components: { schemas: object } }>(
      'GET',
      '/openapi.json',
    );
    expect(body.openapi).toBe('3.1.0');
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining(['/projects', '/projects/{id}/changes', '/projects/{id}/export']),
    );
    expect(JSON.stringify(body.paths['/projects/{id}/changes'])).toContain('baseRevision');
    expect((await call('GET', '/project.schema.json')).body).toMatchObject({ title: 'Yard Arch project' });
  });
});

describe('a database that dies', () => {
  it('is told of clearly, and has lost nothing when it is back', async () => {
    const id = await upload();
    await call('POST', `/projects/${id}/changes`, { baseRevision: 0, key: 'a', changeSet: lengthen(20) });
    cluster.kill();
    const away = await call('POST', `/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: lengthen(21) });
    expect(away).toMatchObject({
      status: 503,
      type: 'application/problem+json',
      body: { title: 'The database cannot be reached' },
    });
    await cluster.restart();
    // Connections that died in the pool are still told of; the sender tries again, as the page does.
    let again = await call('POST', `/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: lengthen(21) });
    for (let tries = 0; again.status === 503 && tries < 10; tries++)
      again = await call('POST', `/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: lengthen(21) });
    expect(again).toMatchObject({ status: 201, body: { revision: 2 } });
    expect((await call<unknown[]>('GET', `/projects/${id}/changes`)).body).toHaveLength(2);
  });
});
