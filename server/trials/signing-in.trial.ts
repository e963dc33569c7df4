/** Signing in and out as a person does, in a real browser: on loopback, under another name, and behind a proxy with TLS. */
import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import { createServer, type Server } from 'node:https';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { Application } from '../../e2e/application.ts';
import { chromiumFlags } from '../../e2e/playwright.config.ts';
import { chromiumPath } from '../../ops/debian.mjs';
import { freePort } from '../../ops/cluster.ts';

const here = dirname(fileURLToPath(import.meta.url));
const name = 'arch.studio.example';
const passphrase = 'a quay, a granary and a crane';

let app: Application;
let proxy: Server;
let proxyPort: number;
let browser: Browser;

beforeAll(async () => {
  app = await Application.make('start', { YARD_PASSPHRASE: passphrase, YARD_HOSTS: name });
  expect(await app.start()).toBeNull();
  proxyPort = await freePort();
  proxy = await startProxy(proxyPort);
  browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? chromiumPath() ?? '/usr/bin/chromium',
    args: [...chromiumFlags, `--host-resolver-rules=MAP ${name} 127.0.0.1`],
  });
});
afterAll(async () => {
  await browser?.close();
  proxy?.close();
  proxy?.closeAllConnections();
  await app?.remove();
});

/** A proxy as the README sets it up: it holds the certificate, and passes requests on by the name without a port. */
function startProxy(port: number): Promise<Server> {
  const [key, cert] = ['proxy-key.pem', 'proxy-cert.pem'].map((file) => readFileSync(join(here, file)));
  const server = createServer({ key, cert }, (asked, answer) => {
    const headers = {
      ...asked.headers,
      host: asked.headers.host!.replace(/:\d+$/, ''),
      'x-forwarded-proto': 'https',
      'x-forwarded-for': asked.socket.remoteAddress ?? '',
    };
    const passed = request({ port: app.port, method: asked.method, path: asked.url, headers }, (from) => {
      answer.writeHead(from.statusCode!, from.headers);
      from.pipe(answer);
    });
    passed.on('error', () => answer.destroy());
    asked.pipe(passed);
  });
  return new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(server)));
}

async function fresh(): Promise<{ page: Page; context: BrowserContext }> {
  const context = await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 1280, height: 800 } });
  return { context, page: await context.newPage() };
}

async function signIn(page: Page, typed: string): Promise<void> {
  await page.getByLabel('Passphrase').fill(typed);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

async function signOut(page: Page, how: string): Promise<void> {
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByRole('menuitem', { name: how }).click();
  await page.getByLabel('Passphrase').waitFor();
}

const projects = (page: Page) => page.getByRole('button', { name: 'New project' }).first();

describe.each([
  ['on loopback', () => app.url],
  ['under another name', () => `http://${name}:${app.port}`],
  ['behind a proxy with TLS', () => `https://${name}:${proxyPort}`],
])('signing in %s', (_, base) => {
  it('by hand, with a wrong passphrase first, leads to where one was going, and out again', async () => {
    const { page, context } = await fresh();
    await page.goto(`${base()}/?from=a-link`);
    await page.waitForURL(/sign-in/);
    await signIn(page, 'not the passphrase');
    expect(await page.getByRole('alert').textContent()).toContain('That is not the passphrase');
    await signIn(page, passphrase);
    await projects(page).waitFor();
    expect(page.url()).toBe(`${base()}/?from=a-link`);
    // Kept by the browser it would be shown after signing out.
    expect(await page.evaluate(async () => (await fetch('/')).headers.get('cache-control'))).toBe('no-cache');
    const kept = await context.cookies();
    expect(kept.map((cookie) => [cookie.name, cookie.secure]).sort()).toEqual(
      ['known', 'session', 'signed-in'].map((one) => [`yard-arch-${one}`, base().startsWith('https')]),
    );
    // What the page does goes through as well.
    await projects(page).click();
    await page.getByLabel('Name').fill('Quay');
    await page.getByRole('button', { name: /^(Begin|Make|Create)/ }).click();
    await page.waitForURL(/\/projects\//);
    await page.goto(base());
    await signOut(page, 'In this browser');
    await page.goto(base());
    await page.getByLabel('Passphrase').waitFor();
    expect((await fetch(app.url, { redirect: 'manual' })).status).toBe(303);
    // A copy of the session that somebody has kept is no use.
    await context.addCookies(kept);
    await page.goto(base());
    await page.getByLabel('Passphrase').waitFor();
    await context.close();
  });

  it('ends the sessions of all browsers when asked to', async () => {
    const [one, other] = [await fresh(), await fresh()];
    for (const { page } of [one, other]) {
      await page.goto(base());
      await signIn(page, passphrase);
      await projects(page).waitFor();
    }
    await signOut(one.page, 'Everywhere');
    await other.page.reload();
    await other.page.getByLabel('Passphrase').waitFor();
    expect(await other.page.evaluate(async () => (await fetch('/api/projects')).status)).toBe(401);
    await one.context.close();
    await other.context.close();
  });
});

describe('another site', () => {
  it('cannot sign anybody in or out by a form of its own', async () => {
    const { page, context } = await fresh();
    await page.goto(app.url);
    await signIn(page, passphrase);
    await projects(page).waitFor();
    await page.route('http://evil.example/**', (route) =>
      route.fulfill({
        contentType: 'text/html',
        body: `<form method="post" action="${app.url}/sign-out?everywhere=yes"><button>Win a prize</button></form>`,
      }),
    );
    await page.goto('http://evil.example/');
    await page.getByRole('button').click();
    await page.waitForURL(`${app.url}/sign-out?everywhere=yes`);
    expect(await page.textContent('body')).toContain('That came from another site');
    await page.goto(app.url);
    await projects(page).waitFor();
    await context.close();
  });
});
