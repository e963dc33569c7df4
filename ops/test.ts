/** npm test: lint, types, arrows, unit tests, then the real interface in a real browser. */
import { spawnSync } from 'node:child_process';
import { chromiumPath } from './debian.mjs';
import { projectFolder } from './data-folder.ts';
import { buildWeb } from './web-build.ts';

interface Step {
  name: string;
  command: string[];
  env?: Record<string, string>;
}

/** Runs every step, or those whose names begin with an argument. @returns the exit code. */
export async function main(args: string[]): Promise<number> {
  const bin = (name: string): string => `node_modules/.bin/${name}`;
  const steps: Step[] = [
    { name: 'lint', command: [bin('eslint'), '.'] },
    {
      name: 'lint of layout',
      command: [bin('prettier'), '--check', '--log-level', 'warn', '**/*.{ts,tsx,mts,mjs,cjs,js,css}'],
    },
    { name: 'types', command: [bin('tsc'), '-p', 'tsconfig.json'] },
    { name: 'web types', command: [bin('tsc'), '-p', 'web/tsconfig.json'] },
    {
      name: 'arrows',
      command: [
        bin('depcruise'),
        '--config',
        'ops/arrows.cjs',
        'document/src',
        'core/src',
        'edit/src',
        'server/src',
        'web/src',
        'cli/src',
        'bench/src',
        'demo/src',
        'ops',
      ],
    },
    {
      name: 'unit',
      command: [process.execPath, '--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js'],
    },
    {
      name: 'trials',
      command: [
        process.execPath,
        '--experimental-vm-modules',
        '--no-warnings',
        'node_modules/jest/bin/jest.js',
        '--config',
        'jest.trials.config.js',
        '--runInBand',
      ],
    },
    {
      name: 'e2e',
      command: [bin('playwright'), 'test', '--config', 'e2e/playwright.config.ts'],
      env: { CHROMIUM: chromiumPath() ?? '' },
    },
  ];
  const wanted = args.length === 0 ? steps : steps.filter((step) => args.some((arg) => step.name.startsWith(arg)));
  let failed = 0;
  for (const { name, command, env } of wanted) {
    process.stdout.write(`\n== ${name}\n`);
    if (name === 'e2e' || name === 'trials') await buildWeb();
    const started = Date.now();
    const [program, ...rest] = command as [string, ...string[]];
    const done = spawnSync(program, rest, {
      cwd: projectFolder,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    const good = done.status === 0;
    if (!good) failed += 1;
    process.stdout.write(
      `== ${name} ${good ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s\n`,
    );
  }
  process.stdout.write(`\nsteps: ${wanted.length - failed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
