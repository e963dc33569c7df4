/** Under which account the database runs: PostgreSQL refuses root, so as root it is the system account that its package made. */
import { spawn, spawnSync, type SpawnSyncOptions, type SpawnSyncReturns } from 'node:child_process';

export const isRoot = process.getuid?.() === 0;
const account = 'postgres';

const asDatabase = (program: string, args: string[]): [string, string[]] =>
  isRoot ? ['runuser', ['-u', account, '--', program, ...args]] : [program, args];

/** Runs a program as the database's account and waits for it. */
export function runAsDatabase(
  program: string,
  args: string[],
  options: SpawnSyncOptions = {},
): SpawnSyncReturns<string> {
  const [file, all] = asDatabase(program, args);
  return spawnSync(file, all, { cwd: '/', ...options, encoding: 'utf8' });
}

/** The same without keeping anything else from going on. @returns its exit code. */
export function runAsDatabaseLater(program: string, args: string[]): Promise<number | null> {
  const [file, all] = asDatabase(program, args);
  return new Promise((resolve, reject) => {
    const child = spawn(file, all, { cwd: '/', stdio: 'ignore' });
    child.on('error', reject);
    child.on('exit', resolve);
  });
}

/** Gives a folder to the database's account. */
export function giveToDatabase(folder: string): void {
  if (!isRoot) return;
  const given = spawnSync('chown', ['-R', `${account}:`, folder], { encoding: 'utf8' });
  if (given.status !== 0) throw new Error(`${folder} could not be given to the account ${account}: ${given.stderr}`);
}
