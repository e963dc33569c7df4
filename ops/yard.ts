/** npm run yard: the shell. Paths are taken from where the command was called. */
import { run } from '@yard-arch/cli';

export function main(args: string[]): Promise<number> {
  if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
  return run(
    args,
    (text) => void process.stdout.write(text),
    (text) => void process.stderr.write(text),
  );
}
