/** Who is let in: hosts, other sites' pages, and the passphrase. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Hono } from 'hono';
import { makeApplication, newPassphrase } from '../src/index.ts';
import { SignIn } from '../src/sign-in.ts';
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
        { 'sec-fetch-site': 'same-site', origin: 'http://127.0.0.1:4600' },
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
  const enter = (given: string, headers: Record<string, string> = {}, to = '/projects/x') =>
    ask(app, `/sign-in?to=${encodeURIComponent(to)}`, {
      method: 'POST',
      body: new URLSearchParams({ passphrase: given }).toString(),
      headers: { 'content-type': 'application/x-www-form-urlencoded', ...headers },
    });
  const sessionOf = async () => (await enter(passphrase)).headers.getSetCookie()[0]!.split(';')[0]!;
  /** Lets what was guessed so far be long ago. */
  const settle = async (): Promise<void> => {
    await harness.services.database.em.fork().execute(`delete from "guess"`);
    app = makeApplication({
      services: { ...harness.services, signIn: new SignIn(harness.services.database) },
      web: null,
      closed: true,
    });
  };

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
      session.replace(/=(.)/, (_, first) => (first === 'A' ? '=B' : '=A')),
      'yard-arch-session=9999999999999.',
    ])
      expect((await ask(app, '/api/projects', { headers: { cookie: forged } })).status).toBe(401);
    // Another passphrase ends the sessions under the old one.
    await harness.services.signIn.set('another one altogether');
    expect((await ask(app, '/api/projects', { headers: { cookie: session } })).status).toBe(401);
    await harness.services.signIn.set(passphrase);
  });

  it('is not kept itself, nor is what opens anything', async () => {
    const session = (await enter(passphrase)).headers.getSetCookie()[0]!.split(';')[0]!.split('=')[1]!;
    const em = harness.services.database.em.fork();
    const [setting, sessions, browsers] = await Promise.all(
      ['setting', 'session', 'known_browser'].map((table) => em.execute(`select * from "${table}"`)),
    );
    expect(JSON.stringify([setting, sessions, browsers])).not.toContain(session);
    expect(Object.keys(JSON.parse((setting as { value: string }[])[0]!.value) as object)).toEqual(['salt', 'hash']);
    expect((sessions as unknown[]).length).toBeGreaterThan(0);
  });

  it('tells the page that there is a session, and ends it', async () => {
    const given = (await enter(passphrase)).headers.getSetCookie();
    const shown = given.find((cookie) => cookie.startsWith('yard-arch-signed-in='))!;
    expect(shown).not.toMatch(/HttpOnly/);
    expect((await ask(app, '/api/projects', { headers: { cookie: shown.split(';')[0]! } })).status).toBe(401);
    const cookie = given.map((one) => one.split(';')[0]).join('; ');
    expect((await ask(app, '/api/projects', { headers: { cookie } })).status).toBe(200);
    const out = await ask(app, '/sign-out', { method: 'POST', headers: { cookie } });
    expect([out.status, out.headers.get('location')]).toEqual([303, '/sign-in']);
    expect(out.headers.getSetCookie().map((one) => [one.split('=')[0], /Max-Age=0/.test(one)])).toEqual([
      ['yard-arch-session', true],
      ['yard-arch-signed-in', true],
    ]);
    // Whoever has kept a copy of it is out as well.
    expect((await ask(app, '/api/projects', { headers: { cookie } })).status).toBe(401);
  });

  it('ends all sessions for one who has one', async () => {
    const [one, other] = [await sessionOf(), await sessionOf()];
    const out = (cookie: string) => ask(app, '/sign-out?everywhere=yes', { method: 'POST', headers: { cookie } });
    await out('yard-arch-session=none');
    expect((await ask(app, '/api/projects', { headers: { cookie: other } })).status).toBe(200);
    await out(one);
    for (const cookie of [one, other])
      expect((await ask(app, '/api/projects', { headers: { cookie } })).status).toBe(401);
  });

  it('leads nowhere else after signing in', async () => {
    const elsewhere = ['//evil.example', 'http://evil.example', '/\\evil.example', '\\evil', '/\t/evil.example'];
    const odd = [
      '/\n/evil.example',
      '/\r\nx: y',
      '/.//evil.example',
      '/x/..//evil.example',
      'javascript:alert(1)',
      ' //evil.example',
    ];
    for (const to of [...elsewhere, ...odd]) {
      const entered = await enter(passphrase, {}, to);
      const location = entered.headers.get('location')!;
      expect([to, entered.status, new URL(location, 'http://127.0.0.1:4600/sign-in').host]).toEqual([
        to,
        303,
        '127.0.0.1:4600',
      ]);
      expect(location).toMatch(/^\/(?![/\\])[^\s]*$/);
    }
    expect((await enter(passphrase, {}, '/projects/x?face=2')).headers.get('location')).toBe('/projects/x?face=2');
  });

  it('takes a small form and nothing else', async () => {
    const body = (type: string, text: string) =>
      ask(app, '/sign-in', { method: 'POST', body: text, headers: { 'content-type': type } });
    expect((await body('multipart/form-data', 'x')).status).toBe(400);
    expect((await body('application/x-www-form-urlencoded', `passphrase=${'x'.repeat(1_000_000)}`)).status).toBe(413);
    expect((await body('text/plain', passphrase)).status).toBe(401);
  });

  it('is guessed slowly, from one address and from many', async () => {
    await settle();
    const from = (address: string) => ({ 'x-forwarded-for': address });
    // Many at once are no way round it.
    const flood = await Promise.all(Array.from({ length: 200 }, (_, i) => enter(`guess ${i}`, from('203.0.113.9'))));
    const of = (answers: Response[], status: number) => answers.filter((answer) => answer.status === status).length;
    expect([of(flood, 401), of(flood, 429)]).toEqual([4, 196]);
    const late = flood.find(({ status }) => status === 429)!;
    expect(Number(late.headers.get('retry-after'))).toBeLessThanOrEqual(15);
    // What an address says it was passed on for by others counts for nothing.
    expect((await enter('a guess', { 'x-forwarded-for': '198.51.100.1, 203.0.113.9' })).status).toBe(429);
    // Networks of IPv6 are one place each.
    const six = await Promise.all(
      Array.from({ length: 20 }, (_, i) => enter('a guess', from(`2001:db8:1:2::${i.toString(16)}`))),
    );
    expect(of(six, 401)).toBe(4);
    // In all, however many places they come from.
    const many = await Promise.all(
      Array.from({ length: 150 }, (_, i) => enter('a guess', from(`198.51.${100 + (i % 2)}.${i}`))),
    );
    expect(of(many, 401)).toBe(60 - 8);
  });

  it('lets the owner in whatever others guess', async () => {
    await settle();
    const first = await enter(passphrase, { 'x-forwarded-for': '192.0.2.7' });
    const known = first.headers.getSetCookie().find((one) => one.startsWith('yard-arch-known='))!;
    expect(known).toMatch(/HttpOnly/);
    const browser = known.split(';')[0]!;
    // It is no session.
    expect((await ask(app, '/api/projects', { headers: { cookie: browser } })).status).toBe(401);
    const guess = (i: number) => enter('a guess', { 'x-forwarded-for': i % 2 ? `198.51.100.${i % 250}` : '192.0.2.7' });
    const others = Promise.all(Array.from({ length: 500 }, (_, i) => guess(i)));
    expect((await enter(passphrase, { 'x-forwarded-for': '192.0.2.7', cookie: browser })).status).toBe(303);
    await others;
    expect((await enter(passphrase, { 'x-forwarded-for': '192.0.2.7', cookie: browser })).status).toBe(303);
    // A browser that is known is slowed by what is guessed from it.
    const own = await Promise.all(Array.from({ length: 9 }, () => enter('a guess', { cookie: browser })));
    expect(own.filter(({ status }) => status === 401).length).toBe(4);
  });

  it.each([
    ['five letters', 'short', 'at least 12'],
    ['twelve spaces', ' '.repeat(12), 'at least 12'],
    ['five letters among spaces', '   short     ', 'at least 12'],
    ['one letter again and again', 'aaaaaaaaaaaaaaaa', 'different'],
    ['a whole page', 'many words '.repeat(200), 'at most'],
  ])('is not made of %s', async (_, given, why) => {
    await expect(harness.services.signIn.set(given)).rejects.toThrow(why);
  });
});
