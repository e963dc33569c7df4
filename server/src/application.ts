/** The whole application over HTTP: the API at /api, the web application's files everywhere else. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serve, type ServerType } from '@hono/node-server';
import { serveStatic } from '@hono/node-server/serve-static';
import { projectJsonSchema } from '@yard-arch/document';
import { Hono } from 'hono';
import { secureHeaders } from 'hono/secure-headers';
import { makeApi } from './api.ts';
import type { Database } from './database.ts';
import { Projects } from './projects.ts';

export interface ApplicationOptions {
  database: Database;
  /** Folder of the built web application, or null to serve the API alone. */
  web: string | null;
}

/** Puts the application together, without listening yet. */
export function makeApplication({ database, web }: ApplicationOptions): Hono {
  const app = new Hono();
  app.use(
    '*',
    secureHeaders({
      // The application talks to nobody but itself; styles are set by script, workers and pictures come from blobs.
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'", 'data:'],
        connectSrc: ["'self'", 'blob:'],
      },
    }),
  );
  app.get('/api/project.schema.json', (c) => c.json(projectJsonSchema()));
  app.route('/api', makeApi(new Projects(database)) as unknown as Hono);
  if (web !== null) {
    const page = join(web, 'index.html');
    app.use('/assets/*', async (c, next) => {
      await next();
      if (c.res.ok) c.res.headers.set('cache-control', 'public, max-age=31536000, immutable');
    });
    app.use('*', serveStatic({ root: web }));
    app.get('*', (c) => (/\.\w+$/.test(c.req.path) ? c.notFound() : c.html(readFileSync(page, 'utf8'))));
  }
  return app;
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
