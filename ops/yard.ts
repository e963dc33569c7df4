/** npm run yard: the shell. Paths are taken from where the command was called. */
import { pathToFileURL } from 'node:url';
import type { run as runShell } from '@yard-arch/cli';
import { buildForNode } from './node-build.ts';

export async function main(args: string[]): Promise<number> {
  const { run } = (await import(pathToFileURL(await buildForNode('shell')).href)) as { run: typeof runShell };
  if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
  return run(
    args,
    (text) => void process.stdout.write(text),
    (text) => void process.stderr.write(text),
  );
}
