/** The server as the pages see it: what is asked is asked of the right place, and what went wrong is told in its words. */
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { api, assetUrl, fileUrl, pictureUrl, ServerProblem, troubleOf } from '../src/state/api.ts';

/** What was asked of the network last, and what it answers. */
const asked: { method: string; url: string; body: string; type: string | null }[] = [];
let answer: () => Response | Promise<Response>;
const { fetch: fetching } = globalThis;

beforeEach(() => {
  asked.length = 0;
  answer = () => Response.json({ fine: true });
  globalThis.fetch = async (input, init) => {
    const request = new Request(new URL(String(input instanceof Request ? input.url : input), 'http://here'), init);
    asked.push({
      method: request.method,
      url: request.url.replace('http://here', ''),
      body: await request.text(),
      type: request.headers.get('content-type'),
    });
    return answer();
  };
});
afterEach(() => {
  globalThis.fetch = fetching;
});

const problem = (status: number, body: unknown): (() => Response) => {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  return () => new Response(text, { status });
};

async function failing(call: Promise<unknown>): Promise<ServerProblem> {
  const error = await call.then(
    () => null,
    (reason: unknown) => reason,
  );
  expect(error).toBeInstanceOf(ServerProblem);
  return error as ServerProblem;
}

describe('what is asked', () => {
  it.each([
    ['a project by its id', () => api.read('p1'), 'GET', '/api/projects/p1/document', ''],
    ['a state of it', () => api.read('p1', 4), 'GET', '/api/projects/p1/document?revision=4', ''],
    [
      'what was missed',
      () => api.log('p1', { revision: 3, mark: 'm' } as never),
      'GET',
      '/api/projects/p1/changes?after=3&mark=m',
      '',
    ],
    ['a name', () => api.rename('p1', 'Quay'), 'PATCH', '/api/projects/p1', '{"name":"Quay"}'],
    ['a copy', () => api.duplicate('p1'), 'POST', '/api/projects/p1/duplicate', ''],
    ['its removal', () => api.remove('p1'), 'DELETE', '/api/projects/p1', ''],
    ['that it be brought back', () => api.restore('p1'), 'POST', '/api/projects/p1/restore', ''],
    ['a file of it', () => api.begin('p1', 'glb'), 'POST', '/api/projects/p1/jobs', '{"kind":"glb"}'],
    ['an end to that', () => api.cancel('j1'), 'DELETE', '/api/jobs/j1', ''],
    ['a version’s removal', () => api.removeVersion('p1', 'v2'), 'DELETE', '/api/projects/p1/versions/v2', ''],
    ['the shelf', () => api.shelf(), 'GET', '/api/shelf', ''],
    ['less on it', () => api.takeFromShelf('s1'), 'DELETE', '/api/shelf/s1', ''],
  ] as const)('is %s', async (_, call, method, url, body) => {
    expect(await call()).toEqual({ fine: true });
    expect(asked).toEqual([expect.objectContaining({ method, url, body })]);
  });

  it('goes with what it is, so that the server need not guess', async () => {
    await api.uploadZip(new Blob([Uint8Array.of(80, 75)]));
    await api.keepPicture(new Blob(['x'], { type: 'image/png' }));
    await api.keepPicture(new Blob(['x']));
    await api.append('p1', { changeSet: {} } as never);
    expect(asked.map(({ url, type }) => [url, type])).toEqual([
      ['/api/projects/upload', 'application/zip'],
      ['/api/assets', 'image/png'],
      ['/api/assets', 'application/octet-stream'],
      ['/api/projects/p1/changes', 'application/json'],
    ]);
  });

  it('has its place for pictures, files and assets', () => {
    expect(assetUrl('abc')).toBe('/api/assets/abc');
    expect(fileUrl('p1')).toBe('/api/projects/p1/file');
    expect(pictureUrl({ id: 'p1', revision: 9 } as never)).toBe('/api/projects/p1/picture?revision=9');
  });

  it('is nothing where the answer is empty', async () => {
    answer = () => new Response(null, { status: 204 });
    expect(await api.remove('p1')).toBeNull();
  });
});

describe('what went wrong', () => {
  it('is told in the server’s words, with what it found', async () => {
    const faults = [{ path: 'elements.w1', reason: 'it has no layers' }];
    answer = problem(422, { type: '/problems/invalid', title: 'It was not taken', detail: 'See below.', faults });
    const error = await failing(api.upload({}));
    expect(error).toMatchObject({ status: 422, title: 'It was not taken', message: 'See below.', passing: false });
    expect(error.faults).toEqual(faults);
    expect(troubleOf(error)).toMatchObject({ kind: 'invalid', status: 422, missed: [], revision: null });
  });

  it('tells what was missed meanwhile', async () => {
    answer = problem(409, {
      type: '/problems/moved-on',
      title: 'Moved on',
      detail: '…',
      missed: [{ revision: 5 }],
      revision: 5,
    });
    const error = await failing(api.append('p1', {} as never));
    expect(troubleOf(error)).toMatchObject({ kind: 'moved-on', missed: [{ revision: 5 }], revision: 5 });
  });

  it.each([401, 429, 502, 503, 504, 507])('passes by itself at %d', async (status) => {
    answer = problem(status, {});
    expect((await failing(api.list())).passing).toBe(true);
  });

  it.each([400, 404, 409, 413, 422, 500])('stays at %d', async (status) => {
    answer = problem(status, {});
    expect((await failing(api.list())).passing).toBe(false);
  });

  it('is told as such where a proxy answers, and where nobody does', async () => {
    answer = problem(502, '<html>Bad gateway</html>');
    expect(await failing(api.list())).toMatchObject({ title: 'The server failed', message: 'It answered 502.' });
    answer = () => Promise.reject(new TypeError('Failed to fetch'));
    const away = await failing(api.list());
    expect(away).toMatchObject({ status: 0, passing: true, title: 'The server does not answer' });
    expect(troubleOf(away)).toMatchObject({ passing: true });
  });

  it('is no trouble of the server’s where it is the page’s own', () => {
    expect(troubleOf(new Error('a mistake'))).toBeNull();
  });
});
