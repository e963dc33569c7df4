/** The whole application over HTTP: the API at /api, the web application's files everywhere else. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serve, type ServerType } from '@hono/node-server';
import { serveStatic } from '@hono/node-server/serve-static';
import { projectJsonSchema } from '@yard-arch/document';
import { Hono } from 'hono';
import { secureHeaders } from 'hono/secure-headers';
import { makeApi } from './api/index.ts';
import { behindSignIn, signInPages } from './behind-sign-in.ts';
import { knownHosts, ownOrigin } from './guard.ts';
import { answer } from './problem.ts';
import type { Services } from './services.ts';

export interface ApplicationOptions {
  services: Services;
  /** Folder of the built web application, or null to serve the API alone. */
  web: string | null;
  /** Names and addresses besides this machine's own by which the server is asked for. */
  hosts?: readonly string[];
  /** Whether only those who know the passphrase are let in. */
  closed?: boolean;
}

/** Puts the application together, without listening yet. */
export function makeApplication({ services, web, hosts = [], closed = false }: ApplicationOptions): Hono {
  const app = new Hono();
  app.onError((error) => answer(error));
  app.use(
    '*',
    secureHeaders({
      // Without any, browsers would not say that a form comes from the server's own page.
      referrerPolicy: 'same-origin',
      // The application talks to nobody but itself; styles are set by script, workers and pictures come from blobs.
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'", 'data:'],
        connectSrc: ["'self'", 'blob:'],
        frameAncestors: ["'none'"],
      },
    }),
  );
  app.use('*', knownHosts(hosts, closed));
  app.use('*', ownOrigin);
  if (closed) {
    app.route('/', signInPages(services.signIn));
    app.use('*', behindSignIn(services.signIn));
  }
  app.get('/api/project.schema.json', (c) => c.json(projectJsonSchema()));
  app.route('/api', makeApi(services) as unknown as Hono);
  if (web !== null) serveWeb(app, web);
  return app;
}

function serveWeb(app: Hono, web: string): void {
  const page = join(web, 'index.html');
  app.use('/assets/*', async (c, next) => {
    await next();
    if (c.res.ok) c.res.headers.set('cache-control', 'public, max-age=31536000, immutable');
  });
  // All else is asked for anew: a page that a browser has kept would be shown to one who has signed out, and after a renewal.
  app.use('*', async (c, next) => {
    await next();
    if (!c.res.headers.has('cache-control')) c.res.headers.set('cache-control', 'no-cache');
  });
  // What begins with a dot is none of the application's files.
  app.use('*', (c, next) => (/(^|\/)(\.|%2e)/i.test(c.req.path) ? Promise.resolve(c.notFound()) : next()));
  app.use('*', serveStatic({ root: web }));
  app.get('*', (c) => (/\.\w+$/.test(c.req.path) ? c.notFound() : c.html(readFileSync(page, 'utf8'))));
}

export interface Listening {
  url: string;
  close(): Promise<void>;
}

/** Listens on an address; port 0 takes a free one. */
export function listen(app: Hono, host: string, port: number): Promise<Listening> {
  return new Promise((resolve, reject) => {
    const server: ServerType = serve({ fetch: app.fetch, hostname: host, port }, (info) => {
      resolve({
        url: `http://${host.includes(':') ? `[${host}]` : host}:${info.port}`,
        close: () =>
          new Promise((done) => {
            server.close(() => done());
            if ('closeAllConnections' in server) server.closeAllConnections();
          }),
      });
    });
    server.on('error', reject);
  });
}
