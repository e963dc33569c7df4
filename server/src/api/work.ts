/** Work that takes its time: what is heard of it, and what comes of it. */
import { type OpenAPIHono } from '@hono/zod-openapi';
import { answerEvents, answerPieces } from '../streams.ts';
import { attachment } from '../jobs/file-name.ts';
import type { Job } from '../jobs/jobs.ts';
import type { JobKind } from '../jobs/kinds.ts';
import { routes } from '../routes.ts';
import type { Services } from '../services.ts';
import { leftOutOf, problemOf } from './told.ts';

export function workRoutes(api: OpenAPIHono, services: Services): void {
  heard(api, services);
  results(api, services);
}

function heard(api: OpenAPIHono, { projects, jobs }: Services): void {
  api.openapi(routes.events, async (c) =>
    answerEvents(c, (tell) =>
      projects.listen(c.req.valid('param').id, ({ revision, mark, deleted }) =>
        tell(deleted ? { event: 'deleted', data: {} } : { event: 'state', data: { revision, mark } }),
      ),
    ),
  );
  api.openapi(routes.jobEvents, async (c) => {
    const { id } = await jobs.get(c.req.valid('param').job);
    return answerEvents(c, (tell) =>
      jobs.follow(id, ({ state, progress, stage, problem, leftOut }) => {
        const ended = state !== 'waiting' && state !== 'working';
        const data = { state, progress, stage, problem: problemOf(problem), leftOut: leftOutOf({ leftOut }) };
        tell({ event: 'job', data, last: ended });
      }),
    );
  });
}

function results(api: OpenAPIHono, { jobs }: Services): void {
  /** The result of work on the project as it stands; the work ends when whoever asked for it goes away, unless it was there before. */
  const finished = async (project: string, kind: JobKind, signal: AbortSignal): Promise<Job> => {
    const job = await jobs.ask(project, kind);
    const mine = job.state === 'waiting';
    try {
      return await jobs.result(job.id, signal);
    } catch (error) {
      if (signal.aborted && mine) await jobs.cancel(job.id);
      throw error;
    }
  };

  api.openapi(routes.jobResult, async (c) => {
    const job = await jobs.result(c.req.valid('param').job, c.req.raw.signal);
    return answerPieces(c, jobs.pieces(job.id), {
      'content-type': job.type!,
      'content-length': String(job.size),
      'content-disposition': attachment(job.name!),
    });
  });
  api.openapi(routes.export, async (c) => {
    const job = await finished(c.req.valid('param').id, c.req.valid('query').format, c.req.raw.signal);
    return answerPieces(c, jobs.pieces(job.id), {
      'content-type': job.type!,
      'content-length': String(job.size),
      'content-disposition': attachment(job.name!),
      ...(job.leftOut ? { 'yard-left-out': String(leftOutOf(job).length) } : {}),
    });
  });
  api.openapi(routes.check, async (c) => {
    const job = await finished(c.req.valid('param').id, 'report', c.req.raw.signal);
    return answerPieces(c, jobs.pieces(job.id), {
      'content-type': 'application/json',
      'content-length': String(job.size),
    }) as never;
  });
  api.openapi(routes.picture, async (c) => {
    const job = await finished(c.req.valid('param').id, 'picture', c.req.raw.signal);
    return c.body(await jobs.bytes(job.id), 200, {
      'content-type': 'image/png',
      'cache-control': 'private, max-age=86400',
    });
  });
}
