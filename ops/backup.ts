/** npm run backup: all projects with their history as one file; “-- --restore FILE” puts them back. */
import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';
import { ensureDatabase, startCluster } from './cluster.ts';
import { dataFolder } from './data-folder.ts';
import { postgresPrograms } from './debian.mjs';
import { takeLock, type Lock } from './lock.ts';

const say = (text: string): void => void process.stderr.write(`${text}\n`);

const usage = `Usage:
  npm run backup                      write a backup into the data folder
  npm run backup -- --out FILE        write it there
  npm run backup -- --restore FILE    put back what is in FILE, in place of what there is
`;

/** Results of long work are made anew when they are asked for; whoever is signed in is not so where it is put back. */
const leftOut = [
  '--exclude-schema=yard_jobs',
  ...['job', 'job_piece', 'session', 'known_browser', 'guess'].map((table) => `--exclude-table-data=${table}`),
];

/** @returns the exit code. */
export async function main(args: string[]): Promise<number> {
  try {
    const { values } = parseArgs({ args, options: { out: { type: 'string' }, restore: { type: 'string' } } });
    if (values.restore !== undefined) await restore(resolve(values.restore));
    else await backUp(values.out);
    return 0;
  } catch (error) {
    say((error as Error).message);
    if ((error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS')) say(usage);
    return 1;
  }
}

async function backUp(out: string | undefined): Promise<void> {
  const stamp = new Date().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
  const file = resolve(
    out ?? join(process.env.DATABASE_URL ? '.' : dataFolder(), 'backups', `yard-arch-${stamp}.backup`),
  );
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  // Under its own name only when it is whole; for nobody else to read, from its first byte on.
  const part = `${file}.part`;
  rmSync(part, { force: true });
  closeSync(openSync(part, 'wx', 0o600));
  try {
    await onDatabase(false, (url) =>
      run('pg_dump', ['--format=custom', '--no-owner', ...leftOut, `--file=${part}`, url]),
    );
    chmodSync(part, 0o600);
    renameSync(part, file);
  } finally {
    rmSync(part, { force: true });
  }
  process.stdout.write(`${file}\n`);
  say(`Backed up, ${Math.ceil(statSync(file).size / 1024)} kB.`);
}

async function restore(file: string): Promise<void> {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  // Whether it is one at all, before anything is touched.
  run('pg_restore', ['--list', file], `${file} is not a backup of Yard Arch, or is damaged.`);
  await onDatabase(true, (url) =>
    run(
      'pg_restore',
      ['--clean', '--if-exists', '--no-owner', '--single-transaction', '--exit-on-error', `--dbname=${url}`, file],
      'Nothing was put back; all is as it was.',
    ),
  );
  say('Put back. Pages that are open will say so, and ask which of the two is to stand.');
}

/** Runs something on the database, which is started for it where it does not run. @param alone whether nothing else may use it meanwhile. */
async function onDatabase(alone: boolean, what: (url: string) => void): Promise<void> {
  if (process.env.DATABASE_URL) return what(process.env.DATABASE_URL);
  const folder = dataFolder();
  let lock: Lock;
  try {
    lock = await takeLock(folder);
  } catch (error) {
    if (alone) throw error;
    return what(runningUrl(folder, error as Error));
  }
  try {
    const cluster = await startCluster(folder);
    try {
      what(await ensureDatabase(cluster, 'yard'));
    } finally {
      cluster.stop();
    }
  } finally {
    await lock.release();
  }
}

/** Where the database of a copy that runs can be reached. */
function runningUrl(folder: string, error: Error): string {
  const [pidFile, secret] = [join(folder, 'postgres', 'postmaster.pid'), join(folder, 'postgres-password')];
  if (!existsSync(pidFile) || !existsSync(secret)) throw error;
  // Its fourth line is the port.
  const port = readFileSync(pidFile, 'utf8').split('\n')[3]?.trim();
  return `postgresql://yard:${readFileSync(secret, 'utf8').trim()}@127.0.0.1:${port}/yard`;
}

function run(program: string, args: string[], failing = 'The database’s own words are above.'): void {
  const programs = postgresPrograms();
  const done = spawnSync(programs ? join(programs, program) : program, args, {
    stdio: ['ignore', 'ignore', 'pipe'],
    encoding: 'utf8',
  });
  if (done.status === 0) return;
  throw new Error(
    `${(done.stderr || done.error?.message || '').trim().split('\n').slice(0, 4).join('\n')}\n${failing}`,
  );
}
