/** npm test: lint, types, arrows, unit tests, then the real interface in a real browser. */
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { chromiumPath } from './debian.mjs';
import { projectFolder } from './data-folder.ts';
import { buildForNode } from './node-build.ts';
import { buildWeb } from './web-build.ts';

interface Step {
  name: string;
  command: [program: string, ...rest: string[]];
  env?: Record<string, string>;
  /** Whether it reads and writes nothing that others do, and runs on one core: it runs beside others of its kind. */
  beside?: boolean;
  /** What has to be built before. */
  before?: () => Promise<unknown>;
}

const bin = (name: string): string => `node_modules/.bin/${name}`;
const jest = (...more: string[]): Step['command'] => [
  process.execPath,
  '--experimental-vm-modules',
  '--no-warnings',
  'node_modules/jest/bin/jest.js',
  ...more,
];
const layout = '**/*.{ts,tsx,mts,mjs,cjs,js,css}';
const rooms = ['document', 'core', 'edit', 'server', 'web', 'cli', 'bench', 'demo'];

const steps: readonly Step[] = [
  { name: 'web types', command: [bin('tsc'), '-p', 'web/tsconfig.json'], beside: true },
  { name: 'lint', command: [bin('eslint'), '.'], beside: true },
  { name: 'types', command: [bin('tsc'), '-p', 'tsconfig.json'], beside: true },
  { name: 'lint of layout', command: [bin('prettier'), '--check', '--log-level', 'warn', layout], beside: true },
  {
    name: 'arrows',
    command: [bin('depcruise'), '--config', 'ops/arrows.cjs', ...rooms.map((room) => `${room}/src`), 'ops'],
    beside: true,
  },
  { name: 'unit', command: jest() },
  { name: 'trials', command: jest('--config', 'jest.trials.config.js', '--runInBand'), before: buildWeb },
  {
    name: 'e2e',
    command: [bin('playwright'), 'test', '--config', 'e2e/playwright.config.ts'],
    env: { CHROMIUM: chromiumPath() ?? '' },
    before: async () => {
      await buildWeb();
      await buildForNode('worker');
    },
  },
];

/** Runs every step, or those whose names begin with an argument. @returns the exit code. */
export async function main(args: string[]): Promise<number> {
  const wanted = args.length === 0 ? steps : steps.filter((step) => args.some((arg) => step.name.startsWith(arg)));
  const failed: string[] = [];
  const take = async (queue: Step[]): Promise<void> => {
    for (let step = queue.shift(); step; step = queue.shift()) if (!(await passes(step))) failed.push(step.name);
  };
  const together = wanted.filter(({ beside }) => beside);
  await Promise.all(Array.from({ length: Math.min(availableParallelism(), 4) }, () => take(together)));
  await take(wanted.filter(({ beside }) => !beside));
  process.stdout.write(`\nsteps: ${wanted.length - failed.length} passed, ${failed.length} failed\n`);
  if (failed.length > 0) process.stdout.write(`failed: ${failed.join(', ')}\n`);
  return failed.length === 0 ? 0 : 1;
}

/** Runs a step. What runs beside others is told when it is over, in one piece. */
async function passes({ name, command: [program, ...rest], env, beside = false, before }: Step): Promise<boolean> {
  await before?.();
  const heading = `\n== ${name}\n`;
  if (!beside) process.stdout.write(heading);
  const started = Date.now();
  const child = spawn(program, rest, {
    cwd: projectFolder,
    stdio: ['ignore', beside ? 'pipe' : 'inherit', beside ? 'pipe' : 'inherit'],
    env: { ...process.env, ...env },
  });
  const said: Buffer[] = [];
  child.stdout?.on('data', (chunk: Buffer) => said.push(chunk));
  child.stderr?.on('data', (chunk: Buffer) => said.push(chunk));
  const good = await new Promise<boolean>((resolve) => {
    child.on('error', (error) => {
      said.push(Buffer.from(`${error.message}\n`));
      resolve(false);
    });
    child.on('close', (code) => resolve(code === 0));
  });
  if (beside) process.stdout.write(heading + Buffer.concat(said).toString());
  process.stdout.write(`== ${name} ${good ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s\n`);
  return good;
}
