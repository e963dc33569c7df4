/** Who is let in: hosts, other sites' pages, and the passphrase. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Hono } from 'hono';
import { makeApplication, newPassphrase } from '../src/index.ts';
import { startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('guard');
});
afterAll(() => harness?.remove());

const ask = async (
  app: Hono,
  path: string,
  init: RequestInit & { headers?: Record<string, string> } = {},
): Promise<Response> => app.request(`http://127.0.0.1:4600${path}`, init);

describe('hosts', () => {
  it.each([
    ['127.0.0.1:4600', 200],
    ['localhost:4600', 200],
    ['[::1]:4600', 200],
    ['evil.example', 421],
    ['127.0.0.1.evil.example', 421],
    ['192.168.1.5:4600', 421],
    ['studio.example', 421],
  ])('%s: %d', async (host, status) => {
    expect((await ask(harness.app, '/api/projects', { headers: { host } })).status).toBe(status);
  });

  it('that the server is given are its own', async () => {
    const app = makeApplication({ services: harness.services, web: null, hosts: ['studio.example'] });
    expect((await ask(app, '/api/projects', { headers: { host: 'studio.example' } })).status).toBe(200);
    expect((await ask(app, '/api/projects', { headers: { host: 'other.example' } })).status).toBe(421);
  });
});

describe('pages of other sites', () => {
  it('can write nothing, on any route', async () => {
    const { id } = await harness.services.projects.create((await import('@yard-arch/demo')).granary());
    const routes: [string, string][] = [
      ['POST', '/api/projects'],
      ['POST', '/api/projects/upload'],
      ['PATCH', `/api/projects/${id}`],
      ['DELETE', `/api/projects/${id}`],
      ['POST', `/api/projects/${id}/duplicate`],
      ['POST', `/api/projects/${id}/restore`],
      ['POST', `/api/projects/${id}/changes`],
      ['POST', `/api/projects/${id}/versions`],
      ['POST', `/api/projects/${id}/jobs`],
      ['DELETE', `/api/jobs/${id}`],
    ];
    for (const [method, path] of routes)
      for (const headers of [
        { origin: 'http://evil.example' },
        { origin: 'null' },
        { origin: 'http://127.0.0.1:9999' },
        { 'sec-fetch-site': 'cross-site' },
      ] as Record<string, string>[]) {
        const answer = await ask(harness.app, path, { method, headers: { host: '127.0.0.1:4600', ...headers } });
        expect([method, path, JSON.stringify(headers), answer.status]).toEqual([
          method,
          path,
          JSON.stringify(headers),
          403,
        ]);
      }
    expect(
      (
        await ask(harness.app, `/api/projects/${id}/duplicate`, {
          method: 'POST',
          headers: { host: '127.0.0.1:4600', origin: 'http://127.0.0.1:4600', 'sec-fetch-site': 'same-origin' },
        })
      ).status,
    ).toBe(201);
  });
});

describe('a passphrase', () => {
  const passphrase = newPassphrase();
  let app: Hono;
  beforeAll(async () => {
    await harness.services.signIn.set(passphrase);
    app = makeApplication({ services: harness.services, web: null, closed: true });
  });
  const enter = (given: string) =>
    ask(app, '/sign-in?to=/projects/x', {
      method: 'POST',
      body: new URLSearchParams({ passphrase: given }).toString(),
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
    });

  it('keeps everything but health and the sign-in page from those who do not know it', async () => {
    expect((await ask(app, '/api/health')).status).toBe(200);
    expect((await ask(app, '/api/projects')).status).toBe(401);
    const page = await ask(app, '/projects/x');
    expect([page.status, page.headers.get('location')]).toEqual([303, '/sign-in?to=%2Fprojects%2Fx']);
    expect(await (await ask(app, '/sign-in')).text()).toContain('Passphrase');
  });

  it('gives a session that scripts cannot read and other sites cannot use', async () => {
    const answer = await enter(passphrase);
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/projects/x']);
    const cookie = answer.headers.get('set-cookie')!;
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    const session = cookie.split(';')[0]!;
    expect((await ask(app, '/api/projects', { headers: { cookie: session } })).status).toBe(200);
    for (const forged of [
      session.replace(/.$/, (last) => (last === '0' ? '1' : '0')),
      session.replace(/=\d/, '=9'),
      'yard-arch-session=9999999999999.',
    ])
      expect((await ask(app, '/api/projects', { headers: { cookie: forged } })).status).toBe(401);
    // Another passphrase ends the sessions under the old one.
    await harness.services.signIn.set('another one altogether');
    expect((await ask(app, '/api/projects', { headers: { cookie: session } })).status).toBe(401);
    await harness.services.signIn.set(passphrase);
  });

  it('tells the page that there is a session, and ends it', async () => {
    const given = (await enter(passphrase)).headers.getSetCookie();
    const shown = given.find((cookie) => cookie.startsWith('yard-arch-signed-in='))!;
    expect(shown).not.toMatch(/HttpOnly/);
    expect((await ask(app, '/api/projects', { headers: { cookie: shown.split(';')[0]! } })).status).toBe(401);
    const out = await ask(app, '/sign-out', {
      method: 'POST',
      headers: { cookie: given.map((cookie) => cookie.split(';')[0]).join('; ') },
    });
    expect([out.status, out.headers.get('location')]).toEqual([303, '/sign-in']);
    expect(out.headers.getSetCookie().map((cookie) => [cookie.split('=')[0], /Max-Age=0/.test(cookie)])).toEqual([
      ['yard-arch-session', true],
      ['yard-arch-signed-in', true],
    ]);
  });

  it('leads nowhere else after signing in', async () => {
    for (const to of ['//evil.example', 'http://evil.example', '/\\evil.example', '\\evil'])
      expect(await (await ask(app, `/sign-in?to=${encodeURIComponent(to)}`)).text()).toContain(
        'action="/sign-in?to=%2F"',
      );
  });

  it('is guessed ever more slowly', async () => {
    const answers: number[] = [];
    for (let i = 0; i < 6; i++) answers.push((await enter(`guess ${i}`)).status);
    expect(answers.filter((status) => status === 401).length).toBeLessThanOrEqual(4);
    expect(answers.at(-1)).toBe(429);
    // Whoever knows it waits as well.
    expect((await enter(passphrase)).status).toBe(429);
  });

  it('must be long', async () => {
    await expect(harness.services.signIn.set('short')).rejects.toThrow('at least 12');
  });
});
