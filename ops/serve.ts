/** Serves the application: lock, database, migrations, web application, and an end in good order. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { listen, makeApplication, openDatabase, Projects, type Database, type Listening } from '@yard-arch/server';
import { ensureDatabase, startCluster, type Cluster } from './cluster.ts';
import { dataFolder } from './data-folder.ts';
import { takeLock } from './lock.ts';
import { buildWeb, webFolder } from './web-build.ts';

export interface ServeOptions {
  /** Starts over: what was kept is removed first. */
  reset: boolean;
  /** Called with the projects before the application listens. */
  prepare?: (projects: Projects) => Promise<void>;
  /** Serves in another way, from the URL of the database. */
  instead?: (databaseUrl: string) => Promise<Listening>;
}

const say = (text: string): void => void process.stderr.write(`${text}\n`);

/** Serves until it is told to stop. @returns the exit code. */
export async function serveApplication(options: ServeOptions): Promise<number> {
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 4600);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    say(`PORT must be a port’s number, not “${process.env.PORT}”.`);
    return 2;
  }
  let told: () => void = () => {};
  let stopping = false;
  const stopped = new Promise<void>((resolve) => (told = resolve));
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (!stopping) say('\nStopping…');
      stopping = true;
      told();
    });

  const undo: (() => void | Promise<void>)[] = [];
  try {
    const folder = dataFolder();
    const lock = takeLock(folder);
    undo.push(() => lock.release());
    if (options.reset) {
      say('Starting over: removing what was kept…');
      stopLeftOver(await startCluster(folder).catch(() => null));
      rmSync(join(folder, 'postgres'), { recursive: true, force: true });
    }
    if (!options.instead) await buildWeb();
    if (stopping) return 0;
    const cluster = await startCluster(folder);
    undo.push(() => cluster.stop());
    const databaseUrl = await ensureDatabase(cluster, 'yard');
    const database: Database = await openDatabase(databaseUrl);
    undo.push(() => database.close(true));
    const projects = new Projects(database);
    await projects.purge();
    await options.prepare?.(projects);
    const served = options.instead ? await options.instead(databaseUrl) : await listenNear(makeApplication({ database, web: webFolder }), host, port);
    undo.push(() => served.close());
    lock.tell(served.url);
    process.stdout.write(`\n  Yard Arch is ready: ${served.url}\n  Ctrl-C stops it; what you drew is kept.\n\n`);
    if (!stopping) await stopped;
    return 0;
  } catch (error) {
    say((error as Error).message);
    return 1;
  } finally {
    for (const step of undo.reverse()) await Promise.resolve(step()).catch?.((error: Error) => say(error.message));
  }
}

function stopLeftOver(cluster: Cluster | null): void {
  cluster?.stop();
}

/** Listens on the port, or the next free one after it. */
async function listenNear(app: ReturnType<typeof makeApplication>, host: string, port: number): Promise<Listening> {
  for (let tries = 0; ; tries++) {
    try {
      return await listen(app, host, port === 0 ? 0 : port + tries);
    } catch (error) {
      if ((error as { code?: string }).code !== 'EADDRINUSE' || tries >= 20 || process.env.PORT) throw error;
    }
  }
}
