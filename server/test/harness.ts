/** What the tests over HTTP share: the application on a real PostgreSQL of their own. */
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Hono } from 'hono';
import { ensureDatabase, startCluster, type Cluster } from '../../ops/cluster.ts';
import { makeApplication, openServices, type ApplicationOptions, type Services } from '../src/index.ts';

export interface Harness {
  app: Hono;
  cluster: Cluster;
  services: Services;
  url: string;
  remove(): Promise<void>;
}

/** Starts a cluster, durable as in use, and the application on a database in it. */
export async function startHarness(name: string, options: Partial<ApplicationOptions> = {}): Promise<Harness> {
  const folder = mkdtempSync(join(tmpdir(), `yard-arch-${name}-`));
  chmodSync(folder, 0o711);
  const cluster = await startCluster(folder);
  const url = await ensureDatabase(cluster, `${name}_test`);
  const services = await openServices(url, { worker: process.env.YARD_WORKER });
  return {
    app: makeApplication({ services, web: null, ...options }),
    cluster,
    services,
    url,
    async remove() {
      await services.close();
      cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Asks an application, and reads JSON where it answers with it. */
export async function ask<T = Record<string, unknown>>(
  app: Hono,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: T; type: string }> {
  const response = await app.request(`/api${path}`, {
    method,
    ...(body === undefined
      ? {}
      : {
          body: typeof body === 'string' ? body : JSON.stringify(body),
          headers: { 'content-type': 'application/json' },
        }),
  });
  const type = response.headers.get('content-type') ?? '';
  const text = await response.text();
  return { status: response.status, type, body: (text && type.includes('json') ? JSON.parse(text) : text) as T };
}
