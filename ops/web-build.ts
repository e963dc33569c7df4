/** Builds the web application, unless what it is built from is the same as at the last time. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { projectFolder } from './data-folder.ts';

/** Folder of the built web application. */
export const webFolder = join(projectFolder, 'web', 'dist');

function* files(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => a.name.localeCompare(b.name))) {
    if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name === 'test' || entry.name === '.built-from')
      continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else yield path;
  }
}

/** Builds when needed. */
export async function buildWeb(): Promise<void> {
  const hash = createHash('sha256').update(readFileSync(join(projectFolder, 'package-lock.json')));
  for (const room of ['document', 'core', 'edit', 'server', 'web'])
    for (const path of files(join(projectFolder, room))) hash.update(path).update(readFileSync(path));
  const digest = hash.digest('hex');
  // Beside what is served, not in it.
  const mark = join(projectFolder, 'web', '.built-from');
  if (existsSync(join(webFolder, 'index.html')) && existsSync(mark) && readFileSync(mark, 'utf8') === digest) return;
  process.stderr.write('Building the web application…\n');
  const { build } = await import('vite');
  await build({ root: join(projectFolder, 'web'), logLevel: 'warn' });
  writeFileSync(mark, digest);
}
