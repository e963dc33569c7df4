/** One copy at a time: a lock on a data folder, and beside it a file that says who holds it and where that can be seen. */
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { lock } from 'proper-lockfile';

/** A lock that its holder has not renewed for so long was left by one that is gone, ms. */
const stale = 3000;
/** How often those wait who find one that seems to be left, ms. */
const again = 250;

interface Holder {
  pid: number;
  url: string | null;
}

export interface Lock {
  /** Tells others where this copy can be seen. */
  tell(url: string): void;
  release(): Promise<void>;
}

function holderIn(path: string): Holder | null {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as Holder;
  } catch {
    // Half-written by a copy that crashed, or not there yet.
    return null;
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as { code?: string }).code === 'EPERM';
  }
}

function refusal({ pid, url }: Holder, cause: unknown): Error {
  return new Error(
    url
      ? `Yard Arch is already running from this folder, at ${url}. Use that, or stop it first (process ${pid}).`
      : `Another copy (process ${pid}) is just using this folder. Wait until it is done, or stop it.`,
    { cause },
  );
}

/** Takes a data folder for this process. One that was killed leaves its lock behind; that is waited for. @throws Error that says where the other copy runs. */
export async function takeLock(folder: string): Promise<Lock> {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'in-use.json');
  const options = {
    stale,
    update: stale / 3,
    lockfilePath: join(folder, 'in-use.lock'),
    // A machine that slept wakes up with a lock that seems to be left: it is taken again.
    onCompromised: () =>
      void lock(folder, options)
        .then((next) => (release = next))
        .catch(() => {}),
  };
  let release: () => Promise<void>;
  try {
    release = await lock(folder, options);
  } catch (error) {
    if ((error as { code?: string }).code !== 'ELOCKED') throw error;
    const holder = holderIn(path);
    if (holder && isAlive(holder.pid)) throw refusal(holder, error);
    const retries = { retries: Math.ceil((2 * stale) / again), factor: 1, minTimeout: again, maxTimeout: again };
    release = await lock(folder, { ...options, retries }).catch((late: unknown) => {
      throw refusal(holderIn(path) ?? { pid: 0, url: null }, late);
    });
  }
  const mine: Holder = { pid: process.pid, url: null };
  writeFileSync(path, JSON.stringify(mine), { mode: 0o600 });
  return {
    tell: (url) => writeFileSync(path, JSON.stringify({ ...mine, url })),
    release: async () => {
      if (existsSync(path) && holderIn(path)?.pid === process.pid) rmSync(path, { force: true });
      await release();
    },
  };
}
