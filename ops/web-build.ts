/** Builds the web application, unless what it is built from is the same as at the last time. */
import { join } from 'node:path';
import { buildApart } from './build-apart.ts';
import { unlessBuilt } from './built.ts';
import { projectFolder } from './data-folder.ts';

/** Folder of the built web application. */
export const webFolder = join(projectFolder, 'web', 'dist');

/** Builds when needed. */
export async function buildWeb(): Promise<void> {
  await unlessBuilt(
    {
      result: join(webFolder, 'index.html'),
      // Beside what is served, not in it.
      mark: join(projectFolder, 'web', '.built-from'),
      rooms: ['document', 'core', 'edit', 'server', 'web'],
    },
    async () => {
      process.stderr.write('Building the web application…\n');
      await buildApart({ root: join(projectFolder, 'web'), logLevel: 'warn' });
    },
  );
}
