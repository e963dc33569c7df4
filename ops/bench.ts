/** npm run bench: builds the bench as the application is built, so that what is timed is what ships, and runs it. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'vite';

export async function main(args: string[]): Promise<number> {
  const outDir = join('node_modules', '.yard-arch', 'bench');
  await build({
    configFile: false,
    logLevel: 'warn',
    build: {
      ssr: 'bench/src/main.ts',
      outDir,
      emptyOutDir: true,
      target: 'es2022',
      rolldownOptions: { output: { entryFileNames: 'main.mjs' } },
    },
    // lru-cache is bundled too: beside the bundle lies another version of it, for other packages.
    ssr: { noExternal: [/^@yard-arch\//, 'lru-cache'] },
  });
  return spawnSync(process.execPath, [join(outDir, 'main.mjs'), ...args], { stdio: 'inherit' }).status ?? 1;
}
