/** The API before it has any routes: limits, bodies that are none, and problems in place of faults. */
import { OpenAPIHono } from '@hono/zod-openapi';
import { faultsOf, mostFaults, parseJson, sentence } from '@yard-arch/document';
import { bodyLimit } from 'hono/body-limit';
import { Malformed } from '../edits.ts';
import { answer, ProblemError } from '../problem.ts';

const megabyte = 1024 * 1024;

/** Where files are sent as they are. */
const takesBytes = /\/(assets|projects\/upload)$/;

/** Where what is sent is read in bounds of its own, and may be large. */
const takesLarge = /\/(assets|projects\/upload|changes|shelf(\/[^/]+)?)$/;
const takesScripts = /\/script$/;

/** Methods that send a body. */
const sending = new Set(['POST', 'PUT', 'PATCH']);

/** An API without routes: what cannot be read ends as a problem on each of them. */
export function bareApi(): OpenAPIHono {
  const api = new OpenAPIHono({
    defaultHook: (result) => {
      if (result.success) return;
      const faults = faultsOf(result.error).slice(0, mostFaults);
      const count = result.error.issues.length;
      return answer(
        new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, sentence(faults, count), {
          faults,
          count,
        }),
      ) as never;
    },
  });
  const limits = {
    large: bodyLimit({ maxSize: 64 * megabyte, onError: () => tooLarge('64 MB') }),
    script: bodyLimit({ maxSize: 8 * megabyte, onError: () => tooLarge('8 MB') }),
    small: bodyLimit({ maxSize: megabyte / 4, onError: () => tooLarge('256 kB') }),
  };
  api.use('*', (c, next) =>
    limits[takesLarge.test(c.req.path) ? 'large' : takesScripts.test(c.req.path) ? 'script' : 'small'](c, next),
  );
  api.use('*', async (c, next) => {
    // Read once here, so that a body that is none ends as a problem on every route.
    if (
      sending.has(c.req.method) &&
      !takesBytes.test(c.req.path) &&
      c.req.header('content-type') !== undefined &&
      !/^application\/([\w.+-]*\+)?json\b/i.test(c.req.header('content-type')!)
    )
      return answer(
        new ProblemError(
          415,
          { kind: 'not-json', title: 'The request cannot be read' },
          `It holds ${c.req.header('content-type')!.slice(0, 80)}, but this takes application/json.`,
        ),
      );
    await next();
  });
  api.use('*', async (c, next) => {
    if (sending.has(c.req.method) && !takesLarge.test(c.req.path) && !takesScripts.test(c.req.path))
      checkJson(await c.req.text());
    await next();
  });
  api.onError((error) => answer(error));
  return api;
}

/** @throws Malformed where what was sent is no JSON within bounds. Nothing at all is left to the schemas. */
function checkJson(text: string): void {
  if (text === '') return;
  try {
    parseJson(text);
  } catch (error) {
    throw new Malformed((error as Error).message);
  }
}

function tooLarge(most: string): Response {
  return answer(
    new ProblemError(413, { kind: 'too-large', title: 'That is too large' }, `This takes at most ${most}.`),
  );
}
