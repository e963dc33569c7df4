/** Where the database and its like are kept: .data in the project, or elsewhere when the database's account cannot reach that. */
import { createHash } from 'node:crypto';
import { accessSync, chmodSync, constants, mkdirSync, readdirSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { isRoot, runAsDatabase } from './account.ts';

/** The project's own folder. */
export const projectFolder = join(dirname(fileURLToPath(import.meta.url)), '..');

/**
 * The data folder, made when it is not there. YARD_DATA names another.
 * @throws Error that says what to do, when no folder can be used.
 */
export function dataFolder(): string {
  const own = join(projectFolder, '.data');
  const wanted = process.env.YARD_DATA ? [resolve(process.env.YARD_DATA)] : [own, ...(isRoot ? [elsewhere()] : [])];
  const reasons: string[] = [];
  for (const folder of wanted) {
    try {
      mkdirSync(folder, { recursive: true });
      accessSync(folder, constants.W_OK);
    } catch (error) {
      reasons.push((error as Error).message);
      continue;
    }
    keepToOneself(folder);
    if (!isRoot) return folder;
    if (runAsDatabase('test', ['-x', folder]).status === 0) {
      if (folder !== wanted[0])
        process.stderr.write(`The account postgres cannot reach ${wanted[0]}; the data is kept in ${folder}.\n`);
      return folder;
    }
    reasons.push(`the account postgres cannot reach ${folder}`);
  }
  throw new Error(
    `There is no place for the database: ${reasons.join('; ')}. Name a folder with YARD_DATA=/some/folder.`,
  );
}

/** Lets nobody else read what is kept. The database's account needs to pass through, not to look around. */
function keepToOneself(folder: string): void {
  chmodSync(folder, isRoot ? 0o711 : 0o700);
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isFile()) chmodSync(path, 0o600);
    // Backups that were written before they were kept to oneself.
    else if (entry.isDirectory() && entry.name === 'backups') {
      chmodSync(path, 0o700);
      for (const name of readdirSync(path)) chmodSync(join(path, name), 0o600);
    }
  }
}

function elsewhere(): string {
  return join('/var/lib/yard-arch', createHash('sha256').update(projectFolder).digest('hex').slice(0, 12));
}
