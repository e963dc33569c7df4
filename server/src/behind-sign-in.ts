/** Where the server asks for a passphrase: the way in, the way out, and what those see who are not signed in. */
import { getConnInfo } from '@hono/node-server/conninfo';
import { Hono, type Context, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { isLoopback } from './guard.ts';
import { answer, ProblemError } from './problem.ts';
import { knownDays, sessionDays } from './sessions.ts';
import type { SignIn } from './sign-in.ts';
import { signInPage } from './sign-in-page.ts';

const session = 'yard-arch-session';
/** Says to the page, which cannot read the session, that there is one to end. It opens nothing. */
const shown = 'yard-arch-signed-in';
/** Of a browser from which somebody has signed in before: it is not kept waiting for the guesses of others. */
const known = 'yard-arch-known';
const fieldName = 'passphrase';

/** The most bytes of the form. */
const largestForm = 8192;

/** The pages for signing in and out; they lie before all that asks for a session. */
export function signInPages(signIn: SignIn): Hono {
  const pages = new Hono();
  const limit = bodyLimit({
    maxSize: largestForm,
    onError: () =>
      answer(new ProblemError(413, { kind: 'too-large', title: 'That is too large' }, 'The form holds a passphrase.')),
  });
  pages.get('/sign-in', (c) => c.html(signInPage(wanted(c), null)));
  pages.post('/sign-in', limit, (c) => enter(c, signIn));
  pages.post('/sign-out', limit, (c) => leave(c, signIn));
  return pages;
}

/** Lets in only those who have a session. */
export function behindSignIn({ sessions }: SignIn): MiddlewareHandler {
  return async (c, next) => {
    if (c.req.path === '/api/health' || (await sessions.isOpen(getCookie(c, session)))) return next();
    if (c.req.path.startsWith('/api/'))
      return answer(
        new ProblemError(
          401,
          { kind: 'signed-out', title: 'You are signed out' },
          'Open the page anew and sign in. Edits that are not sent yet are kept in this browser.',
        ),
      );
    const { pathname, search } = new URL(c.req.url);
    return c.redirect(`/sign-in?to=${encodeURIComponent(pathname + search)}`, 303);
  };
}

/** Where to go after signing in: a path of our own as a browser reads it, and nothing else. */
function wanted(c: Context): string {
  const own = 'http://own.invalid';
  try {
    const { origin, pathname, search } = new URL(c.req.query('to') ?? '/', own);
    // A path that begins with two strokes names another host where it is followed.
    if (origin === own && !/^\/[/\\]/.test(pathname)) return pathname + search;
  } catch {
    // No address at all.
  }
  return '/';
}

/** The address that a request comes from: what the proxy says that runs on this machine, if one does. */
function addressOf(c: Context): string {
  let address = '';
  try {
    address = getConnInfo(c).remote.address ?? '';
  } catch {
    // Asked without a network, as tests do.
  }
  const passed = c.req.header('x-forwarded-for')?.split(',').at(-1)?.trim();
  const near = address === '' || isLoopback(address.replace(/^::ffff:/i, ''));
  return near && passed ? passed.slice(0, 64) : address;
}

const isSecure = (c: Context): boolean => c.req.header('x-forwarded-proto') === 'https';

async function enter(c: Context, signIn: SignIn): Promise<Response> {
  try {
    const guesser = { address: addressOf(c), known: await signIn.sessions.known(getCookie(c, known)) };
    await signIn.check(await given(c), guesser);
    const shared = { sameSite: 'Strict', path: '/', secure: isSecure(c) } as const;
    const lasts = { ...shared, maxAge: sessionDays * 86_400 };
    setCookie(c, session, await signIn.sessions.begin(), { ...lasts, httpOnly: true });
    setCookie(c, shown, 'yes', lasts);
    if (guesser.known === null)
      setCookie(c, known, await signIn.sessions.know(), { ...shared, httpOnly: true, maxAge: knownDays * 86_400 });
    return c.redirect(wanted(c), 303);
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    if (error.status === 429) c.header('retry-after', String(error.more.after));
    return c.html(signInPage(wanted(c), `${error.title}. ${error.message}`), error.status as 401);
  }
}

/** The passphrase that was typed. @throws ProblemError 400 where the form cannot be read. */
async function given(c: Context): Promise<string> {
  try {
    const value = (await c.req.parseBody())[fieldName];
    return typeof value === 'string' ? value : '';
  } catch {
    throw new ProblemError(400, { kind: 'malformed', title: 'The form cannot be read' }, 'Type the passphrase again.');
  }
}

/** Ends the session on the server, or where it is asked for all there are; and what the browser has of it. */
async function leave(c: Context, { sessions }: SignIn): Promise<Response> {
  const token = getCookie(c, session);
  if (token && (await sessions.isOpen(token)))
    await (c.req.query('everywhere') === 'yes' ? sessions.endAll() : sessions.end(token));
  for (const name of [session, shown]) deleteCookie(c, name, { path: '/', secure: isSecure(c) });
  return c.redirect('/sign-in', 303);
}
