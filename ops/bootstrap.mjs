/**
 * First step of every command: needs nothing but Node.js. Installs what is missing (npm packages; PostgreSQL and Chromium from
 * Debian's packages, where it may), then goes on in TypeScript.
 */
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromiumPath, ensurePackage, postgresPrograms } from './debian.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
process.chdir(root);
const [command = 'help', ...rest] = process.argv.slice(2);
const say = (text) => process.stderr.write(`${text}\n`);

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  say(`Yard Arch needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

function installNodePackages() {
  const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const mark = join('node_modules', '.yard-arch-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  say('Installing npm packages…');
  // Not “npm ci”: it refuses a lock file that lacks binaries for other systems, which some registries do not carry.
  const done = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: ['ignore', 2, 2],
  });
  if (done.status !== 0) {
    say(
      'The npm packages could not be installed (see above). Is the npm registry reachable? Then run the command again.',
    );
    process.exit(1);
  }
  writeFileSync(mark, lock);
}

const needs = {
  demo: { postgres: true, chromium: 'if possible' },
  start: { postgres: true },
  dev: { postgres: true },
  test: { postgres: true, chromium: true },
  screenshots: { postgres: true, chromium: true },
  bench: {},
  backup: { postgres: true },
  'bench-web': { postgres: true, chromium: true },
  yard: {},
};
const needed = needs[command];
if (!needed) {
  say(`There is no command “${command}”. There are: ${Object.keys(needs).join(', ')}.`);
  process.exit(2);
}

installNodePackages();
if (needed.postgres) ensurePackage('postgresql', 'PostgreSQL', () => postgresPrograms() !== null, true);
if (needed.chromium) ensurePackage('chromium', 'Chromium', () => chromiumPath() !== null, needed.chromium === true);

const { register } = await import('tsx/esm/api');
register();
const { main } = await import(`./${command}.ts`);
process.exitCode = await main(rest);
