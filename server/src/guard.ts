/** Who is let in: only under the names that the server has, and from its own pages. */
import { isIP } from 'node:net';
import type { MiddlewareHandler } from 'hono';
import { answer, ProblemError } from './problem.ts';

const reading = new Set(['GET', 'HEAD', 'OPTIONS']);

const nameOf = (host: string): string =>
  host
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .replace(/\.$/, '')
    .toLowerCase();

/** Whether a host is this machine itself, as seen from itself. */
export function isLoopback(host: string): boolean {
  const name = nameOf(host);
  return name === 'localhost' || name.endsWith('.localhost') || name === '::1' || /^127\.\d+\.\d+\.\d+$/.test(name);
}

/**
 * Refuses requests for hosts that are not the server's: a name of somebody else's that leads to this machine would make a page of theirs one of ours.
 * @param names further names and addresses that the server goes by. With a passphrase any bare address is one, since nobody can give one a meaning of his own.
 */
export function knownHosts(names: readonly string[], addresses: boolean): MiddlewareHandler {
  const known = new Set(names.map(nameOf));
  return async (c, next) => {
    const host = c.req.header('host') ?? new URL(c.req.url).host;
    if (isLoopback(host) || known.has(nameOf(host)) || (addresses && isIP(nameOf(host)) !== 0)) return next();
    return answer(
      new ProblemError(
        421,
        { kind: 'other-host', title: 'This server does not go by that name' },
        `It was asked for as “${host.slice(0, 100)}”. Use the address that it said when it started, or give it this name with YARD_HOSTS.`,
      ),
    );
  };
}

/** Refuses what another site's page asks for: all writes, and anything but following a link. */
export const ownOrigin: MiddlewareHandler = async (c, next) => {
  const [origin, site, mode] = [c.req.header('origin'), c.req.header('sec-fetch-site'), c.req.header('sec-fetch-mode')];
  const host = c.req.header('host') ?? new URL(c.req.url).host;
  // What the browser itself says of where it comes from counts for more: a proxy may know the server by another port than its pages do.
  const foreign =
    site === undefined
      ? origin !== undefined && hostOf(origin) !== host.toLowerCase()
      : site !== 'same-origin' && site !== 'none';
  const writes = !reading.has(c.req.method);
  if ((writes && foreign) || (site === 'cross-site' && mode !== 'navigate' && c.req.path.startsWith('/api/')))
    return answer(
      new ProblemError(
        403,
        { kind: 'other-origin', title: 'That came from another site' },
        'Only this server’s own pages may do that.',
      ),
    );
  return next();
};

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
