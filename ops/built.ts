/** Builds only what has changed since the last time. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { projectFolder } from './data-folder.ts';

const passedOver = new Set(['node_modules', 'dist', 'test', 'trials', '.built-from']);

function* files(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => a.name.localeCompare(b.name))) {
    if (passedOver.has(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else yield path;
  }
}

/** What is built, and what of. */
export interface Built {
  /** A file that is there once it is built. */
  result: string;
  /** The file that keeps what it was built from. */
  mark: string;
  /** Folders of the project that it is built from; the packages count too. */
  rooms: readonly string[];
}

/** Builds, unless what it is built from is the same as at the last time. */
export async function unlessBuilt({ result, mark, rooms }: Built, build: () => Promise<void>): Promise<void> {
  const hash = createHash('sha256').update(readFileSync(join(projectFolder, 'package-lock.json')));
  for (const room of rooms)
    for (const path of files(join(projectFolder, room))) hash.update(path).update(readFileSync(path));
  const digest = hash.digest('hex');
  if (existsSync(result) && existsSync(mark) && readFileSync(mark, 'utf8') === digest) return;
  await build();
  writeFileSync(mark, digest);
}
