/** Debian's packages: finds what is installed, and installs what is not where it may. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const say = (text) => process.stderr.write(`${text}\n`);

/** Folder with PostgreSQL's own programs (initdb, postgres, pg_ctl), the newest version's, or null. */
export function postgresPrograms() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const versions = readdirSync(base)
    .filter(
      (version) =>
        existsSync(join(base, version, 'bin', 'initdb')) && existsSync(join(base, version, 'bin', 'postgres')),
    )
    .sort((a, b) => Number(b) - Number(a));
  return versions.length > 0 ? join(base, versions[0], 'bin') : null;
}

/** Chromium's program, or null. */
export function chromiumPath() {
  return ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => existsSync(path)) ?? null;
}

function apt(args) {
  return (
    spawnSync('apt-get', args, { stdio: ['ignore', 2, 2], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } })
      .status === 0
  );
}

/**
 * Sees to it that a package is there. As root it is installed; otherwise, or when that fails, a message says which is missing, and
 * the command ends where it cannot do without.
 */
export function ensurePackage(name, title, isThere, required) {
  if (isThere()) return;
  const isRoot = process.getuid?.() === 0;
  if (isRoot && existsSync('/usr/bin/apt-get')) {
    say(`Installing ${title} from Debian's packages…`);
    if (name === 'postgresql' && !existsSync('/etc/postgresql-common/createcluster.conf')) {
      // The project makes a cluster of its own; Debian's would only lie about and take a port.
      mkdirSync('/etc/postgresql-common', { recursive: true });
      writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
    }
    const install = ['install', '-y', '-qq', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', name];
    if (apt(install) || (apt(['update', '-qq']) && apt(install))) if (isThere()) return;
  }
  say(
    `${title} is missing${isRoot ? ' and could not be installed' : ''}. Install Debian's package “${name}”${isRoot ? '' : ` (as root: apt-get install ${name})`}, then run the command again.`,
  );
  if (required) process.exit(1);
  say('(It is needed for tests and screenshots only; going on without it.)');
}
