/** What the server is made of, opened and closed in order. */
import { usualLimits, type AssetLimits } from './asset-uses.ts';
import { Assets } from './assets.ts';
import { Announcer } from './announcer.ts';
import { openDatabase, type Database } from './database.ts';
import { Jobs } from './jobs/jobs.ts';
import { Pool, type PoolOptions } from './jobs/pool.ts';
import { Projects } from './projects.ts';
import { Pulse } from './pulse.ts';
import { Shelf } from './shelf.ts';
import { SignIn } from './sign-in.ts';

export interface Services {
  database: Database;
  projects: Projects;
  jobs: Jobs;
  assets: Assets;
  shelf: Shelf;
  pool: Pool;
  /** @throws ProblemError where the database did not answer when it was last asked. */
  alive(): void;
  signIn: SignIn;
  close(): Promise<void>;
}

/** How often what is old is cleared away, milliseconds. */
const clearing = 3_600_000;

/** Opens the services on a database, bringing its tables up to date. */
export async function openServices(
  url: string,
  { limits: chosen = {}, ...options }: PoolOptions & { limits?: Partial<AssetLimits> } = {},
): Promise<Services> {
  const limits = { ...usualLimits, ...chosen };
  const undo: (() => Promise<unknown>)[] = [];
  const close = async (): Promise<void> => {
    for (const step of undo.splice(0).reverse()) await step().catch(() => {});
  };
  try {
    const database = await openDatabase(url);
    undo.push(() => database.close(true));
    const announcer = new Announcer(url);
    undo.push(() => announcer.close());
    await announcer.open();
    const pulse = new Pulse(database);
    undo.push(async () => pulse.end());
    await pulse.begin();
    const pool = new Pool(options);
    undo.push(() => pool.close());
    const projects = new Projects(database, announcer, pool, limits);
    const assets = new Assets(database, limits);
    const jobs = new Jobs({ database, announcer, projects, assets, pool, url });
    undo.push(() => jobs.close());
    await jobs.open();
    const signIn = new SignIn(database);
    const clear = setInterval(
      () =>
        void Promise.all([projects.purge().then(() => assets.purge()), jobs.purge(), signIn.sessions.purge()]).catch(
          () => {},
        ),
      clearing,
    );
    clear.unref();
    undo.push(async () => clearInterval(clear));
    const shelf = new Shelf(database);
    return {
      database,
      projects,
      jobs,
      assets,
      shelf,
      pool,
      alive: () => pulse.check(),
      signIn,
      close,
    };
  } catch (error) {
    await close();
    throw error;
  }
}
