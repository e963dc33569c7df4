/** Problem details (RFC 9457): the one form in which the API says what went wrong. */
import { z } from '@hono/zod-openapi';

export const faultSchema = z.object({ path: z.string(), reason: z.string() }).openapi('Fault');

export const problemSchema = z
  .object({
    type: z.string().openapi({ example: '/problems/refused' }),
    title: z.string(),
    status: z.number().int(),
    detail: z.string(),
    faults: z.array(faultSchema).optional(),
  })
  .openapi('Problem');
export type Problem = z.infer<typeof problemSchema>;

/** Raised by a service where a request cannot be done; it becomes a problem in the answer. */
export class ProblemError extends Error {
  constructor(
    readonly status: 400 | 404 | 409 | 413 | 422 | 500 | 503 | 507,
    readonly kind: string,
    readonly title: string,
    detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }

  body(): Problem & Record<string, unknown> {
    return { type: `/problems/${this.kind}`, title: this.title, status: this.status, detail: this.message, ...this.more };
  }
}

/** What a failure of the database means to the person: it is away, or its disk is full. Null where it is neither. */
export function databaseProblem(error: unknown): ProblemError | null {
  for (let at: unknown = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth++) {
    const code = String((at as { code?: unknown }).code ?? '');
    if (code === '53100')
      return new ProblemError(507, 'disk-full', 'The disk is full', 'The database has no room left, so the change was not saved. Free some space; then it can be sent again.');
    const away =
      /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND)$/.test(code) ||
      /^(57P0[123]|08\w{3}|53300)$/.test(code) ||
      /Connection terminated|timeout exceeded when trying to connect|Timeout acquiring a connection|Connection ended|not queryable|server closed the connection|Transaction query already complete/i.test(at.message);
    if (away)
      return new ProblemError(
        503,
        'database-away',
        'The database cannot be reached',
        'The server runs, but its database does not answer. Nothing that was saved is lost; try again in a moment, or start the application anew.',
      );
  }
  return null;
}
