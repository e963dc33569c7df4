/** The API before it has any routes: limits, bodies that are none, and problems in place of faults. */
import { OpenAPIHono } from '@hono/zod-openapi';
import { sentence } from '@yard-arch/document';
import { bodyLimit } from 'hono/body-limit';
import { answer, ProblemError } from '../problem.ts';

const megabyte = 1024 * 1024;

/** Where files are sent as they are. */
const takesBytes = /\/(assets|projects\/upload)$/;

/** Methods that send a body. */
const sending = new Set(['POST', 'PUT', 'PATCH']);

/** An API without routes: what cannot be read ends as a problem on each of them. */
export function bareApi(): OpenAPIHono {
  const api = new OpenAPIHono({
    defaultHook: (result) => {
      if (result.success) return;
      const faults = result.error.issues
        .slice(0, 100)
        .map((issue) => ({ path: issue.path.map(String).join('/'), reason: issue.message }));
      const count = result.error.issues.length;
      return answer(
        new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, sentence(faults, count), {
          faults,
          count,
        }),
      ) as never;
    },
  });
  api.use('*', bodyLimit({ maxSize: 64 * megabyte, onError: () => tooLarge() }));
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
  api.onError((error) => answer(error));
  return api;
}

function tooLarge(): Response {
  return answer(
    new ProblemError(413, { kind: 'too-large', title: 'That is too large' }, 'A request may hold at most 64 MB.'),
  );
}
