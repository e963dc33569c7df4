/** The API: what each route does. */
import { OpenAPIHono } from '@hono/zod-openapi';
import { Refused, sentence, writeDocument, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { newProject } from '@yard-arch/edit';
import { examples } from '@yard-arch/demo';
import { bodyLimit } from 'hono/body-limit';
import { randomUUID } from 'node:crypto';
import { namedIn } from './assets.ts';
import { answerEvents, answerPieces } from './streams.ts';
import { attachment, fileName } from './jobs/file-name.ts';
import type { Job } from './jobs/jobs.ts';
import type { JobKind } from './jobs/kinds.ts';
import { headSchema, readEdit, readJson, type Head } from './edits.ts';
import { answer, ProblemError, refusedBy, type Problem } from './problem.ts';
import { projectId, routes } from './routes.ts';
import type { Services } from './services.ts';

const megabyte = 1024 * 1024;

/** Edits of more bytes than this are read in a worker. */
const largeEdit = 150_000;

const whole = ({ head, changeSet }: { head: Head; changeSet: ChangeSet }) => ({ ...head, edit: { changeSet } });

/** Where files are sent as they are. */
const takesBytes = /\/(assets|projects\/upload)$/;

/** Methods that send a body. */
const sending = new Set(['POST', 'PUT', 'PATCH']);

const problemOf = (text: string | null | undefined): Problem | null => (text ? (JSON.parse(text) as Problem) : null);

function told(job: Job) {
  const { id, project, revision, kind, state, progress, stage, problem, size } = job;
  return { id, project, revision, kind, state, progress, stage, problem: problemOf(problem), size: size ?? null };
}

/** The API over the services, to be mounted at /api. */
export function makeApi({ projects, jobs, assets, pool, alive }: Services) {
  const api = new OpenAPIHono({
    defaultHook: (result) => {
      if (result.success) return;
      const faults = result.error.issues
        .slice(0, 100)
        .map((issue) => ({ path: issue.path.map(String).join('/'), reason: issue.message }));
      const count = result.error.issues.length;
      return answer(
        new ProblemError(422, 'refused', 'What was sent does not fit', sentence(faults, count), { faults, count }),
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
          'not-json',
          'The request cannot be read',
          `It holds ${c.req.header('content-type')!.slice(0, 80)}, but this takes application/json.`,
        ),
      );
    await next();
  });
  api.onError((error) => answer(error));

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

  const routed = api
    .openapi(routes.health, (c) => {
      alive();
      return c.json({ ok: true as const }, 200);
    })
    .openapi(routes.list, async (c) => c.json(await projects.list(), 200))
    .openapi(routes.create, async (c) => {
      const { name, units = 'mm', begin = 'empty', example } = c.req.valid('json');
      const from = examples.find(({ id }) => id === example);
      if (!from && name === undefined)
        throw new Refused('The project has no name.', [{ path: 'name', reason: 'is missing' }]);
      const document = from ? { ...from.make(), name: name ?? from.name } : newProject(name!, units, begin);
      return c.json(await projects.create(document), 201);
    })
    .openapi(routes.examples, (c) =>
      c.json(
        examples.map(({ id, name, about }) => ({ id, name, about })),
        200,
      ),
    )
    .openapi(routes.get, async (c) => c.json(await projects.get(c.req.valid('param').id), 200))
    .openapi(routes.rename, async (c) =>
      c.json(await projects.rename(c.req.valid('param').id, c.req.valid('json').name), 200),
    )
    .openapi(routes.duplicate, async (c) => c.json(await projects.duplicate(c.req.valid('param').id), 201))
    .openapi(routes.remove, async (c) => {
      await projects.remove(c.req.valid('param').id);
      return c.body(null, 204);
    })
    .openapi(routes.restore, async (c) => c.json(await projects.restore(c.req.valid('param').id), 200))
    .openapi(routes.read, async (c) => {
      const [{ id }, { revision: at }] = [c.req.valid('param'), c.req.valid('query')];
      if (at !== undefined) return c.json(await projects.read(id, at), 200);
      const { revision, mark, document } = await projects.text(id);
      return c.body(`{"revision":${revision},"mark":${JSON.stringify(mark)},"document":${document}}`, 200, {
        'content-type': 'application/json',
      }) as never;
    })
    .openapi(routes.log, async (c) =>
      c.json(await projects.log(c.req.valid('param').id, c.req.valid('query').after, c.req.valid('query').mark), 200),
    )
    .openapi(routes.versions, async (c) => c.json(await projects.versions(c.req.valid('param').id), 200))
    .openapi(routes.keepVersion, async (c) =>
      c.json(await projects.keepVersion(c.req.valid('param').id, c.req.valid('json').name), 201),
    )
    .openapi(routes.removeVersion, async (c) => {
      const { id: project, version } = c.req.valid('param');
      await projects.removeVersion(project, version);
      return c.body(null, 204);
    })
    .openapi(routes.begin, async (c) =>
      c.json(told(await jobs.ask(c.req.valid('param').id, c.req.valid('json').kind)), 202),
    )
    .openapi(routes.job, async (c) => c.json(told(await jobs.get(c.req.valid('param').job)), 200))
    .openapi(routes.cancelJob, async (c) => {
      const { id } = await jobs.get(c.req.valid('param').job);
      await jobs.cancel(id);
      return c.body(null, 204);
    });

  // Not by their schemas: what is large is read and checked in a worker.
  api.openAPIRegistry.registerPath(routes.append);
  api.post('/projects/:id/changes', async (c) => {
    const id = projectId(c.req.param('id'));
    const bytes = new Uint8Array(await c.req.arrayBuffer());
    return c.json(
      await projects.append(
        id,
        bytes.length < largeEdit ? whole(readEdit(bytes)) : { ...(await headOf(bytes)), edit: { bytes } },
      ),
      201,
    );
  });
  const headOf = async (bytes: Uint8Array): Promise<Head> => {
    const outcome = await pool.run({ kind: 'read edit', bytes }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('head' in outcome)) throw new Error('a worker answered what was not asked');
    return outcome.head;
  };
  // Its steps are looked into by a worker.
  api.openAPIRegistry.registerPath(routes.script);
  api.post('/projects/:id/script', async (c) => {
    const id = projectId(c.req.param('id'));
    const sent = readJson(new Uint8Array(await c.req.arrayBuffer()));
    const { key, onlyAt, ...script } =
      typeof sent === 'object' && sent !== null ? (sent as { key?: unknown; onlyAt?: unknown }) : {};
    const head = headSchema
      .pick({ key: true })
      .partial()
      .extend({ onlyAt: headSchema.shape.baseRevision.optional() })
      .safeParse({ key, onlyAt });
    if (!head.success)
      throw new Refused(
        'The script cannot be read.',
        head.error.issues.map((issue) => ({ path: issue.path.map(String).join('/'), reason: issue.message })),
      );
    return c.json(
      await projects.script(id, { key: head.data.key ?? randomUUID(), onlyAt: head.data.onlyAt, script }),
      201,
    );
  });
  api.openAPIRegistry.registerPath(routes.upload);
  api.post('/projects/upload', async (c) => {
    const bytes = new Uint8Array(await c.req.arrayBuffer());
    // Pictures that are here already need not come along.
    const known = await assets.known(namedIn(new TextDecoder('latin1').decode(bytes).replaceAll(/\s/g, '')));
    const outcome = await pool.run({ kind: 'upload', bytes, known }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('text' in outcome)) throw new Error('a worker answered what was not asked');
    for (const held of outcome.assets.values()) await assets.put(held);
    return c.json(await projects.createFrom(outcome), 201);
  });
  api.openAPIRegistry.registerPath(routes.putAsset);
  api.post('/assets', async (c) => c.json(await assets.put(new Uint8Array(await c.req.arrayBuffer())), 201));
  api.openapi(routes.asset, async (c) => {
    const { type, bytes } = await assets.get(c.req.valid('param').sha256);
    // What is named by its own bytes never changes.
    return c.body(bytes, 200, {
      'content-type': type,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    }) as never;
  });

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
      jobs.follow(id, ({ state, progress, stage, problem }) => {
        const ended = state !== 'waiting' && state !== 'working';
        tell({ event: 'job', data: { state, progress, stage, problem: problemOf(problem) }, last: ended });
      }),
    );
  });
  api.openapi(routes.jobResult, async (c) => {
    const job = await jobs.result(c.req.valid('param').job, c.req.raw.signal);
    return answerPieces(c, jobs.pieces(job.id), {
      'content-type': job.type!,
      'content-length': String(job.size),
      'content-disposition': attachment(job.name!),
    });
  });
  api.openapi(routes.download, async (c) => {
    const { id } = c.req.valid('param');
    const { name } = await projects.get(id);
    // What cannot be read can be had as it is.
    const document = await projects.text(id).then(
      (state) => state.document,
      (error: unknown) =>
        error instanceof ProblemError && error.status === 422 ? projects.kept(id) : Promise.reject(error as Error),
    );
    const pictures = namedIn(document);
    if (pictures.length > 0 && c.req.valid('query').pictures !== 'no') {
      const outcome = await pool.run(
        { kind: 'pack', text: document, assets: await assets.some(pictures) },
        { limit: 60_000 },
      );
      if ('refused' in outcome) throw refusedBy(outcome);
      if (!('packed' in outcome)) throw new Error('a worker answered what was not asked');
      return c.body(new Uint8Array(outcome.packed), 200, {
        'content-type': outcome.zip ? 'application/zip' : 'application/json',
        'content-disposition': attachment(fileName(name, outcome.zip ? 'zip' : 'json')),
      });
    }
    // A large one is written as it is kept: setting it out in lines would keep others waiting.
    const text = document.length < 1_000_000 ? writeDocument(JSON.parse(document) as ProjectDocument) : document;
    return c.body(text, 200, {
      'content-type': 'application/json',
      'content-disposition': attachment(fileName(name, 'json')),
    });
  });
  api.openapi(routes.export, async (c) => {
    const job = await finished(c.req.valid('param').id, c.req.valid('query').format, c.req.raw.signal);
    return answerPieces(c, jobs.pieces(job.id), {
      'content-type': job.type!,
      'content-length': String(job.size),
      'content-disposition': attachment(job.name!),
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
  api.doc31('/openapi.json', {
    openapi: '3.1.0',
    info: {
      title: 'Yard Arch',
      version: '1',
      description: 'Projects, their documents, their change logs, and exports. Lengths are metres.',
    },
    servers: [{ url: '/api' }],
  });
  api.all('*', noSuchRoute);
  return routed;
}

/** The API's type, from which the web's client takes its own. */
export type Api = ReturnType<typeof makeApi>;

function noSuchRoute(): Response {
  return answer(
    new ProblemError(
      404,
      'no-such-route',
      'There is nothing here',
      'The API has no such address; /api/openapi.json lists those that it has.',
    ),
  );
}

function tooLarge(): Response {
  return answer(new ProblemError(413, 'too-large', 'That is too large', 'A request may hold at most 64 MB.'));
}
