/** Problem details (RFC 9457): the one form in which the API says what went wrong. */
import { randomUUID } from 'node:crypto';
import { z } from '@hono/zod-openapi';
import { Refused } from '@yard-arch/document';
import { Malformed } from './edits.ts';

export const faultSchema = z.object({ path: z.string(), reason: z.string() }).openapi('Fault');

export const problemSchema = z
  .object({
    type: z.string().openapi({ example: '/problems/refused' }),
    title: z.string(),
    status: z.number().int(),
    detail: z.string(),
    faults: z.array(faultSchema).optional().openapi({ description: 'The first 100 of them' }),
    count: z.number().int().optional().openapi({ description: 'How many faults there are in all' }),
  })
  .openapi('Problem');
export type Problem = z.infer<typeof problemSchema>;

/** Raised by a service where a request cannot be done; it becomes a problem in the answer. */
export class ProblemError extends Error {
  readonly kind: string;
  readonly title: string;

  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 421 | 422 | 429 | 500 | 503 | 507,
    { kind, title }: { kind: string; title: string },
    detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
    this.kind = kind;
    this.title = title;
  }

  body(): Problem & Record<string, unknown> {
    return {
      type: `/problems/${this.kind}`,
      title: this.title,
      status: this.status,
      detail: this.message,
      ...this.more,
    };
  }
}

/** The answer where a project is not there, or no more. */
export const noSuchProject = (): ProblemError =>
  new ProblemError(
    404,
    { kind: 'no-such-project', title: 'There is no such project' },
    'It may have been deleted. Go back to the projects to see those that there are.',
  );

/** What a failure of the database means to the person: it is away, or its disk is full. Null where it is neither. */
export function databaseProblem(error: unknown): ProblemError | null {
  for (let at: unknown = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth++) {
    const code = String((at as { code?: unknown }).code ?? '');
    if (code === '53100')
      return new ProblemError(
        507,
        { kind: 'disk-full', title: 'The disk is full' },
        'The database has no room left, so the change was not saved. Free some space; then it can be sent again.',
      );
    const away =
      /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND)$/.test(code) ||
      /^(57P0[123]|08\w{3}|53300)$/.test(code) ||
      /Connection terminated|timeout exceeded when trying to connect|Timeout acquiring a connection|Connection ended|not queryable|server closed the connection|Transaction query already complete/i.test(
        at.message,
      );
    if (away)
      return new ProblemError(
        503,
        { kind: 'database-away', title: 'The database cannot be reached' },
        'The server runs, but its database does not answer. Nothing that was saved is lost; try again in a moment, or start the application anew.',
      );
  }
  return null;
}

/** What a worker refused. */
export function refusedBy({
  refused,
  faults,
  count,
  malformed,
}: {
  refused: string;
  faults: readonly z.infer<typeof faultSchema>[];
  count: number;
  malformed: boolean;
}): ProblemError {
  return malformed
    ? malformedBody(refused)
    : new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, refused, { faults, count });
}

const malformedBody = (why: string): ProblemError =>
  new ProblemError(400, { kind: 'malformed', title: 'The request cannot be read' }, `It is not JSON: ${why}`);

/** The answer to a request that failed. */
export function answer(error: Error): Response {
  const told = asProblem(error);
  return new Response(JSON.stringify(told.body()), {
    status: told.status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

function asProblem(error: Error): ProblemError {
  if (error instanceof ProblemError) return error;
  if (error instanceof Refused)
    return new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, error.message, {
      faults: error.faults,
      count: error.count,
    });
  if (error instanceof Malformed || ('status' in error && error.status === 400)) return malformedBody(error.message);
  if (error.name === 'AbortError')
    return new ProblemError(400, { kind: 'gone', title: 'Nobody waits any more' }, 'The request was given up.');
  return databaseProblem(error) ?? failure(error);
}

/** Something that should not have happened: one line in the log, with a number by which the answer and the line find each other. */
function failure(error: Error): ProblemError {
  const id = randomUUID().slice(0, 8);
  const at =
    error.stack
      ?.split('\n')
      .find((line) => /^\s+at /.test(line))
      ?.trim() ?? '';
  console.error(`failure ${id}: ${error.name}: ${error.message.replace(/\s+/g, ' ').slice(0, 300)} ${at}`);
  return new ProblemError(
    500,
    { kind: 'failed', title: 'The server failed' },
    `Something went wrong that should not. Nothing was saved; what is kept is as it was before. The server’s log tells more under ${id}.`,
  );
}
