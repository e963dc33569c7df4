/** Who is let in: only under the names that the server has, from its own pages, and where it asks for a passphrase, with a session. */
import { isIP } from 'node:net';
import type { Context, MiddlewareHandler } from 'hono';
import { getCookie, setCookie, deleteCookie } from 'hono/cookie';
import { answer, ProblemError } from './problem.ts';
import { sessionDays, type SignIn } from './sign-in.ts';
import { signInPage } from './sign-in-page.ts';

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
  const foreign = origin !== undefined && hostOf(origin) !== host.toLowerCase();
  const writes = !reading.has(c.req.method);
  if (
    (writes && (foreign || site === 'cross-site' || site === 'same-site')) ||
    (site === 'cross-site' && mode !== 'navigate' && c.req.path.startsWith('/api/'))
  )
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

const cookie = 'yard-arch-session';
/** Says to the page, which cannot read the session, that there is one to end. It opens nothing. */
const shown = 'yard-arch-signed-in';
const fieldName = 'passphrase';

/** Lets in only those who have a session, and gives one to those who know the passphrase. */
export function behindSignIn(signIn: SignIn): MiddlewareHandler {
  return async (c, next) => {
    if (c.req.path === '/api/health') return next();
    if (c.req.path === '/sign-in')
      return c.req.method === 'POST' ? enter(c, signIn) : c.html(signInPage(wanted(c), null));
    if (c.req.path === '/sign-out' && c.req.method === 'POST') {
      deleteCookie(c, cookie, { path: '/' });
      deleteCookie(c, shown, { path: '/' });
      return c.redirect('/sign-in', 303);
    }
    if (await signIn.isOpen(getCookie(c, cookie))) return next();
    if (c.req.path.startsWith('/api/'))
      return answer(
        new ProblemError(
          401,
          { kind: 'signed-out', title: 'You are signed out' },
          'Open the page anew and sign in. Edits that are not sent yet are kept in this browser.',
        ),
      );
    return c.redirect(`/sign-in?to=${encodeURIComponent(c.req.path)}`, 303);
  };
}

/** Where to go after signing in: a path of our own, and nothing else. */
function wanted(c: Context): string {
  const to = c.req.query('to') ?? '/';
  return /^\/(?![/\\])[^\\]*$/.test(to) ? to : '/';
}

async function enter(c: Context, signIn: SignIn): Promise<Response> {
  const form = await c.req.parseBody();
  const given = form[fieldName];
  try {
    const token = await signIn.enter(typeof given === 'string' ? given : '');
    const lasts = {
      sameSite: 'Strict',
      path: '/',
      maxAge: sessionDays * 86_400,
      secure: c.req.header('x-forwarded-proto') === 'https',
    } as const;
    setCookie(c, cookie, token, { ...lasts, httpOnly: true });
    setCookie(c, shown, 'yes', lasts);
    return c.redirect(wanted(c), 303);
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    if (error.status === 429) c.header('retry-after', String(error.more.after));
    return c.html(signInPage(wanted(c), `${error.title}. ${error.message}`), error.status as 401);
  }
}
