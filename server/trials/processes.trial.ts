/** The application as it is started: killed at any time, its database killed, several processes on one database, a bad start, a backup. */
import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from '@jest/globals';
import { facade, granary } from '@yard-arch/demo';
import { putting, type ChangeSet } from '@yard-arch/document';
import { Application } from '../../e2e/application.ts';
import { ensureDatabase, startCluster } from '../../ops/cluster.ts';
import { Odd, rounds } from './odd.ts';

const document = granary();
const made: Application[] = [];

async function application(env: Record<string, string> = {}): Promise<Application> {
  const one = await Application.make('start', env);
  made.push(one);
  return one;
}

afterEach(async () => {
  for (const one of made.splice(0)) await one.remove();
});

const moved = (n: number): ChangeSet => ({
  name: `move ${n}`,
  changes: [putting('openings', { ...document.openings.o9!, along: { from: 'start', distance: n / 1000 } })],
});

/** The longest that any answer is waited for. */
const patience = (): AbortSignal => AbortSignal.timeout(30_000);

async function sent(
  url: string,
  path: string,
  body: unknown,
): Promise<{ status: number; body: { id: string; revision: number } }> {
  const answer = await fetch(`${url}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal: patience(),
  });
  return { status: answer.status, body: (await answer.json()) as { id: string; revision: number } };
}
const read = async <T>(url: string, path: string): Promise<T> =>
  (await (await fetch(`${url}${path}`, { signal: patience() })).json()) as T;

async function until<T>(what: string, look: () => Promise<T | null>): Promise<T> {
  for (let i = 0; i < 600; i++) {
    const found = await look().catch(() => null);
    if (found !== null) return found;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`it did not come about: ${what}`);
}

const healthy = (url: string): Promise<true> =>
  until(`${url} is healthy`, async () => ((await fetch(`${url}/api/health`, { signal: patience() })).ok ? true : null));
const processesOf = (folder: string): string => spawnSync('pgrep', ['-f', folder], { encoding: 'utf8' }).stdout.trim();
const killDatabase = (folder: string): void =>
  void process.kill(Number(readFileSync(join(folder, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL');

/** The files of a data folder in which tables lie. */
const tableFilesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /\/base\/\d+\/\d+$/.test(path))
    .sort();

/** The files of a data folder that others than their owner may read. */
const othersMayRead = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((path) => {
    const stat = lstatSync(join(folder, path), { throwIfNoEntry: false });
    return stat?.isFile() === true && (stat.mode & 0o077) !== 0;
  });

describe('a process that is killed', () => {
  it('loses nothing that it acknowledged, and applies nothing twice', async () => {
    const odd = new Odd('kills');
    const app = await application();
    expect(await app.start()).toBeNull();
    const { id } = (await sent(app.url, '/api/projects/upload', document)).body;
    const acknowledged: string[] = [];
    let n = 0;
    for (let round = 0; round < 2 + rounds; round++) {
      const base = (await read<{ revision: number }>(app.url, `/api/projects/${id}`)).revision;
      const killing = setTimeout(
        () => (odd.below(2) === 0 ? void app.crash() : killDatabase(app.folder)),
        100 + odd.below(500),
      );
      for (let i = 0; ; i++) {
        const key = `k${++n}`;
        try {
          const answer = await sent(app.url, `/api/projects/${id}/changes`, {
            baseRevision: base + i,
            key,
            changeSet: moved(n),
          });
          if (answer.status !== 201) break;
          acknowledged.push(key);
        } catch {
          break;
        }
      }
      clearTimeout(killing);
      await app.crash();
      expect(await app.start()).toBeNull();
      await healthy(app.url);
    }
    const log: { key: string }[] = [];
    for (;;) {
      const more = await read<{ key: string }[]>(app.url, `/api/projects/${id}/changes?after=${log.length}`);
      if (more.length === 0) break;
      log.push(...more);
    }
    const keys = log.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(acknowledged.filter((key) => !keys.includes(key))).toEqual([]);
    expect(acknowledged.length).toBeGreaterThan(0);
  });
});

describe('a database that is killed', () => {
  it('is started again, and health tells the truth meanwhile', async () => {
    const app = await application();
    expect(await app.start()).toBeNull();
    const { id } = (await sent(app.url, '/api/projects/upload', document)).body;
    killDatabase(app.folder);
    await until('health tells that the database is away', async () =>
      (await fetch(`${app.url}/api/health`, { signal: patience() })).status === 503 ? true : null,
    );
    await healthy(app.url);
    await until('an edit is taken again', async () =>
      (await sent(app.url, `/api/projects/${id}/changes`, { baseRevision: 0, key: 'after', changeSet: moved(1) }))
        .status === 201
        ? true
        : null,
    );
    expect(app.output).toContain('starting it again');
    expect(await app.stop()).toBe(0);
    expect(processesOf(app.folder)).toBe('');
  });
});

describe('a start that cannot be', () => {
  it.each<[string, (folder: string) => void, RegExp]>([
    [
      'without the password file',
      (folder) => rmSync(join(folder, 'postgres-password')),
      /password of the database should be in .*postgres-password, but that file is missing/,
    ],
    [
      'with garbage for a process number',
      (folder) => writeFileSync(join(folder, 'postgres', 'postmaster.pid'), 'garbage\n'),
      /postmaster\.pid should begin with the number/,
    ],
    [
      'with data that is not whole',
      (folder) => rmSync(join(folder, 'postgres', 'global'), { recursive: true }),
      /is damaged: global\/pg_control is missing.*Nothing was changed or started/,
    ],
    [
      'without the version file',
      (folder) => rmSync(join(folder, 'postgres', 'PG_VERSION')),
      /is damaged: PG_VERSION is missing.*backup/,
    ],
    [
      'with garbage for the control file',
      (folder) => writeFileSync(join(folder, 'postgres', 'global', 'pg_control'), 'garbage'),
      /The database did not start/,
    ],
    [
      'with an empty folder where the data was',
      (folder) => {
        renameSync(join(folder, 'postgres'), join(folder, 'elsewhere'));
        mkdirSync(join(folder, 'postgres'));
      },
      /should be in .*postgres, which is empty/,
    ],
  ])('%s says what is wrong, leaves nothing running, and all that was there', async (_, spoil, words) => {
    const app = await application();
    expect(await app.start()).toBeNull();
    expect(await app.stop()).toBe(0);
    spoil(app.folder);
    const then = tableFilesIn(app.folder);
    expect(then.length).toBeGreaterThan(500);
    expect(await app.start()).toBe(1);
    expect(app.output).toMatch(words);
    expect(processesOf(app.folder)).toBe('');
    expect(tableFilesIn(app.folder)).toEqual(then);
    // Only what asks for it starts over.
    expect(await app.start('--reset')).toBeNull();
    expect(await read(app.url, '/api/projects')).toEqual([]);
  });

  it('before, nobody else can read what is kept', async () => {
    const app = await application();
    expect(await app.start()).toBeNull();
    expect(othersMayRead(app.folder)).toEqual([]);
    expect(await app.stop()).toBe(0);
    expect(othersMayRead(app.folder)).toEqual([]);
  });

  it('beyond loopback without a passphrase says so; with one it asks for it', async () => {
    const app = await application({ HOST: '0.0.0.0' });
    expect(await app.start()).toBe(1);
    expect(app.output).toContain('YARD_PASSPHRASE=new');
    expect(processesOf(app.folder)).toBe('');
    const open = await application({ HOST: '0.0.0.0', YARD_PASSPHRASE: 'new' });
    expect(await open.start()).toBeNull();
    const passphrase = /[a-z2-9]{5}(-[a-z2-9]{5}){4}/.exec(open.output)![0];
    expect((await fetch(`${open.url}/api/projects`)).status).toBe(401);
    const entered = await fetch(`${open.url}/sign-in`, {
      method: 'POST',
      body: new URLSearchParams({ passphrase }),
      redirect: 'manual',
    });
    const session = entered.headers.get('set-cookie')!.split(';')[0]!;
    expect((await fetch(`${open.url}/api/projects`, { headers: { cookie: session } })).status).toBe(200);
    // A name by which others ask for it takes one as well.
    const named = await application({ YARD_HOSTS: 'arch.studio.example' });
    expect(await named.start()).toBe(1);
    expect(named.output).toContain('YARD_HOSTS names arch.studio.example');
  });

  it('serves none of what it is built from', async () => {
    const app = await application();
    expect(await app.start()).toBeNull();
    for (const path of ['/.built-from', '/%2ebuilt-from', '/assets/../.built-from', '/.env'])
      expect((await fetch(`${app.url}${path}`)).status).toBe(404);
  });
});

/** Work that one process has begun is done by another where it is killed, and whoever waits is answered. */
async function takenOver(one: Application, two: Application): Promise<void> {
  const large = (await sent(one.url, '/api/projects/upload', facade(3000))).body.id;
  const begun = await Promise.all(
    ['obj', 'glb', 'report'].map(
      async (kind) => (await sent(one.url, `/api/projects/${large}/jobs`, { kind })).body.id,
    ),
  );
  await until('one of them is worked on', async () =>
    (await Promise.all(begun.map((job) => read<{ state: string }>(two.url, `/api/jobs/${job}`)))).some(
      ({ state }) => state === 'working',
    )
      ? true
      : null,
  );
  await one.crash();
  const answers = await Promise.all(
    begun.map((job) => fetch(`${two.url}/api/jobs/${job}/result`, { signal: AbortSignal.timeout(90_000) })),
  );
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
  for (const answer of answers) expect((await answer.arrayBuffer()).byteLength).toBeGreaterThan(10_000);
}

describe('work that is waited for', () => {
  it('is done though the database goes and comes', async () => {
    const app = await application();
    expect(await app.start()).toBeNull();
    const { id } = (await sent(app.url, '/api/projects/upload', facade(3000))).body;
    const job = (await sent(app.url, `/api/projects/${id}/jobs`, { kind: 'obj' })).body.id;
    const result = fetch(`${app.url}/api/jobs/${job}/result`, { signal: AbortSignal.timeout(120_000) });
    await until('it is worked on', async () =>
      (await read<{ state: string }>(app.url, `/api/jobs/${job}`)).state === 'working' ? true : null,
    );
    killDatabase(app.folder);
    expect((await result).status).toBe(200);
    expect((await (await result).arrayBuffer()).byteLength).toBeGreaterThan(1_000_000);
  });
});

describe('several processes on one database', () => {
  it('hear of each other’s edits, share the work, and go on when one is killed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yard-arch-shared-'));
    chmodSync(folder, 0o711);
    const cluster = await startCluster(folder, true);
    try {
      const DATABASE_URL = await ensureDatabase(cluster, 'studio');
      // Both at once: the tables are made under a lock.
      const [one, two] = await Promise.all([application({ DATABASE_URL }), application({ DATABASE_URL })]);
      expect(await Promise.all([one.start(), two.start()])).toEqual([null, null]);
      const { id } = (await sent(one.url, '/api/projects/upload', document)).body;
      const heard: number[] = [];
      const events = await fetch(`${two.url}/api/projects/${id}/events`);
      void (async () => {
        for await (const chunk of events.body!)
          for (const [, data] of new TextDecoder().decode(chunk as Uint8Array).matchAll(/"revision":(\d+)/g))
            heard.push(Number(data));
      })().catch(() => {});
      expect(
        (await sent(one.url, `/api/projects/${id}/changes`, { baseRevision: 0, key: 'a', changeSet: moved(1) })).status,
      ).toBe(201);
      await until('the other process tells of the edit', async () => (heard.includes(1) ? true : null));
      // Asked of one, there for the other.
      const job = (await sent(one.url, `/api/projects/${id}/jobs`, { kind: 'glb' })).body;
      expect((await fetch(`${two.url}/api/jobs/${job.id}/result`)).status).toBe(200);
      await takenOver(one, two);
      expect(
        (await sent(two.url, `/api/projects/${id}/changes`, { baseRevision: 1, key: 'b', changeSet: moved(2) })).status,
      ).toBe(201);
      await until('it still hears', async () => (heard.includes(2) ? true : null));
      expect((await fetch(`${two.url}/api/projects/${id}/picture`)).status).toBe(200);
    } finally {
      for (const app of made) await app.stop();
      cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe('a backup', () => {
  const backup = (app: Application, ...args: string[]) =>
    spawnSync(process.execPath, ['ops/bootstrap.mjs', 'backup', ...args], {
      encoding: 'utf8',
      env: { ...process.env, YARD_DATA: app.folder, NODE_OPTIONS: '' },
    });

  it('is made while the application runs, and puts all back', async () => {
    const app = await application();
    expect(await app.start()).toBeNull();
    const { id } = (await sent(app.url, '/api/projects/upload', document)).body;
    for (const n of [1, 2])
      await sent(app.url, `/api/projects/${id}/changes`, { baseRevision: n - 1, key: `k${n}`, changeSet: moved(n) });
    const done = backup(app);
    expect([done.status, done.stderr]).toEqual([0, expect.stringContaining('Backed up')]);
    const file = done.stdout.trim();
    expect(lstatSync(file).mode & 0o777).toBe(0o600);
    expect(othersMayRead(app.folder)).toEqual([]);
    const then = await read<object>(app.url, `/api/projects/${id}/document`);
    await sent(app.url, `/api/projects/${id}/changes`, { baseRevision: 2, key: 'k3', changeSet: moved(3) });
    // Not under those who are at it.
    expect(backup(app, '--restore', file)).toMatchObject({
      status: 1,
      stderr: expect.stringContaining('already running'),
    });
    expect(await app.stop()).toBe(0);
    const broken = join(app.folder, 'broken.backup');
    writeFileSync(broken, readFileSync(file).subarray(0, 2000));
    expect(backup(app, '--restore', broken)).toMatchObject({ status: 1 });
    expect(backup(app, '--restore', file)).toMatchObject({ status: 0 });
    expect(await app.start()).toBeNull();
    expect(await read(app.url, `/api/projects/${id}/document`)).toEqual(then);
    expect((await read<unknown[]>(app.url, `/api/projects/${id}/changes`)).length).toBe(2);
    expect(
      (await sent(app.url, `/api/projects/${id}/changes`, { baseRevision: 2, key: 'k4', changeSet: moved(4) })).status,
    ).toBe(201);
    expect(readdirSync(join(app.folder, 'backups')).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
});
