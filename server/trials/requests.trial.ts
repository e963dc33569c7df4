/** Odd requests: each is answered in time, none with a failure of the server's, and what is there is not harmed. */
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { listen, type Listening } from '../src/index.ts';
import { startHarness, type Harness } from '../test/harness.ts';
import { longest, Odd, rounds } from './odd.ts';

let harness: Harness;
let id: string;
let kept: string;
let server: Listening;

beforeAll(async () => {
  jest.spyOn(console, 'log').mockImplementation(() => {});
  harness = await startHarness('requests');
  id = (await harness.services.projects.create(granary())).id;
  kept = JSON.stringify((await harness.services.projects.read(id)).document);
  server = await listen(harness.app, '127.0.0.1', 0);
  // The workers are there before anything is timed.
  await harness.app.request(`/api/projects/${id}/picture`);
});
afterAll(async () => {
  await server?.close();
  await harness?.remove();
});

interface Request {
  method: string;
  path: string;
  body?: string | Uint8Array;
  headers?: Record<string, string>;
}

async function asked({
  method,
  path,
  body,
  headers,
}: Request): Promise<{ status: number; type: string; text: string; took: number }> {
  const begun = performance.now();
  const response = await fetch(`${server.url}${path}`, {
    method,
    ...(body === undefined ? {} : { body: body as string }),
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
  });
  // Of what goes on for ever only that it began.
  const text = response.headers.get('content-type')?.includes('event-stream')
    ? (await response.body?.cancel(), '')
    : await response.text();
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    text,
    took: performance.now() - begun,
  };
}

async function survives(request: Request): Promise<void> {
  const answer = await asked(request);
  const what = `${request.method} ${request.path.slice(0, 120)} ${String(request.body ?? '').slice(0, 200)} → ${answer.status} ${answer.text.slice(0, 300)} in ${Math.round(answer.took)} ms`;
  if (answer.status >= 500 || answer.took > longest) throw new Error(what);
  if (answer.status >= 400 && request.path.startsWith('/api/') && request.method !== 'HEAD')
    expect({ what, type: answer.type }).toMatchObject({ type: 'application/problem+json' });
}

const paths = [
  '',
  '/document',
  '/events',
  '/changes',
  '/versions',
  '/file',
  '/export?format=glb',
  '/export?format=',
  '/check',
  '/picture',
  '/jobs',
  '/duplicate',
  '/restore',
  '/versions/x',
  '/document?revision=',
  '/changes?after=',
  '/changes?after=-1',
  '/document?revision=99999999999',
  '/nothing',
];

describe('odd requests', () => {
  it('by every method on every route, with odd ids and bodies', async () => {
    for (let round = 0; round < rounds; round++) {
      const odd = new Odd(`requests ${round}`);
      for (let i = 0; i < 400; i++) {
        const project = odd.of([
          id,
          '00000000-0000-4000-8000-000000000000',
          'x',
          '%00',
          '..',
          encodeURIComponent(odd.text().replace('\ud800', '')).slice(0, 300) || '-',
        ]);
        const method = odd.of([
          'GET',
          'POST',
          'PUT',
          'PATCH',
          'HEAD',
          'OPTIONS',
          ...(project === id ? [] : ['DELETE']),
        ]);
        const rest = odd.of(paths);
        // What changes the project is tried elsewhere.
        if (project === id && method === 'PATCH') continue;
        const body = ['POST', 'PUT', 'PATCH'].includes(method)
          ? odd.of([JSON.stringify(odd.value()), '{', '', '[]', 'null', '\u0000'])
          : undefined;
        await survives({ method, path: `/api/projects/${project}${rest}`, ...(body === undefined ? {} : { body }) });
      }
    }
  });

  it('with bodies of every content type', async () => {
    const types = [
      'text/plain',
      'application/xml',
      'multipart/form-data',
      'multipart/form-data; boundary=x',
      'application/x-www-form-urlencoded',
      'application/octet-stream',
      'image/png',
      'application/json; charset=latin1',
      'nonsense',
      '',
    ];
    const body = JSON.stringify({ name: 'x' });
    for (const type of types)
      for (const path of [
        '/api/projects',
        '/api/projects/upload',
        `/api/projects/${id}/changes`,
        `/api/projects/${id}/versions`,
        `/api/projects/${id}/jobs`,
      ])
        await survives({ method: 'POST', path, body, headers: { 'content-type': type } });
  });

  it('edits of odd values, spoiled edits, and very many of them', async () => {
    const opening = granary().openings.o9!;
    const edit = {
      baseRevision: 0,
      key: 'k',
      changeSet: { name: 'move', changes: [{ op: 'put', table: 'openings', value: opening }] },
    };
    for (let round = 0; round < rounds; round++) {
      const odd = new Odd(`edits ${round}`);
      for (let i = 0; i < 300; i++) {
        const sent = odd.spoiled(edit);
        if (JSON.stringify(sent) === JSON.stringify(edit)) continue;
        // Only on a project that there is not: what would fit is no edit of this one's.
        await survives({
          method: 'POST',
          path: '/api/projects/00000000-0000-4000-8000-000000000000/changes',
          body: JSON.stringify(sent),
        });
      }
    }
    for (const changes of [
      Array(50_000).fill({ op: 'put', table: 'openings', value: {} }),
      Array(60_000).fill({}),
      Array(50_000).fill(null),
      [[]],
      [{ op: 'put', table: 'openings', value: { ...opening, mark: 'A\u0000' } }],
    ])
      await survives({
        method: 'POST',
        path: `/api/projects/${id}/changes`,
        body: JSON.stringify({ ...edit, changeSet: { name: 'many', changes } }),
      });
    for (const name of ['a\u0000b', 'x\ny', '\u007f'])
      for (const [method, path] of [
        ['POST', '/api/projects'],
        ['PATCH', `/api/projects/${id}`],
        ['POST', `/api/projects/${id}/versions`],
      ] as const) {
        const answer = await asked({ method, path, body: JSON.stringify({ name }) });
        expect([path, answer.status]).toEqual([path, 422]);
      }
    await survives({
      method: 'POST',
      path: `/api/projects/${id}/changes`,
      body: JSON.stringify({ ...edit, key: 'a\u0000' }),
    });
  });

  it('JSON that is nested deeply, or holds very many values or keys, on every route that takes any', async () => {
    const deep = (depth: number): string => `${'{"a":'.repeat(depth)}1${'}'.repeat(depth)}`;
    const many = `[${'[],'.repeat(50_000_000 / 3)}1]`;
    const keys = `{${Array.from({ length: 1_000_000 }, (_, i) => `"key ${i}":1`).join(',')}}`;
    const within = (inner: string): string[] => [
      inner,
      `{"name":"x","do":[{"do":"place","element":${inner}}]}`,
      `{"name":"x","do":[${inner}]}`,
      `{"baseRevision":0,"key":"k","changeSet":{"name":"x","changes":[${inner}]}}`,
      `{"baseRevision":0,"key":"k","changeSet":${inner}}`,
      `{"format":"yard-arch","version":6,"name":"x","units":"mm","elements":{"a":${inner}}}`,
      `{"format":"yard-arch-pattern","version":6,"pattern":{"id":"a","infill":${inner}}}`,
    ];
    const routes = ['changes', 'script', 'versions', 'jobs'].map((rest) => `/api/projects/${id}/${rest}`);
    for (const path of [...routes, '/api/projects', '/api/projects/upload', '/api/shelf', '/api/assets'])
      for (const body of [...within(deep(2000)), deep(1_000_000), ...within(many).slice(0, 2), ...within(keys)]) {
        const answer = await asked({ method: 'POST', path, body });
        const what = `${path} ${body.slice(0, 80)} → ${answer.status} in ${Math.round(answer.took)} ms`;
        expect({
          what,
          told: answer.text.length < 20_000,
          refused: answer.status >= 400 && answer.status < 500,
        }).toEqual({ what, told: true, refused: true });
        if (answer.took > longest) throw new Error(what);
      }
  });

  it('leave what is there as it was', async () => {
    expect(JSON.stringify((await harness.services.projects.read(id)).document)).toBe(kept);
    expect((await asked({ method: 'GET', path: '/api/health' })).status).toBe(200);
  });
});
