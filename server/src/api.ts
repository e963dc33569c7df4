/** The API: routes with their schemas, from which the OpenAPI document is made. */
import { createRoute, OpenAPIHono, z } from '@hono/zod-openapi';
import { cutModel, reportOn } from '@yard-arch/core';
import { drawPicture, writeGlb, writeObj } from '@yard-arch/core/format';
import { solidLibrary } from '@yard-arch/core/solid';
import { changeSetSchema, checkDocument, emptyDocument, Refused, sentence, unitsSchema, writeDocument, type ProjectDocument } from '@yard-arch/document';
import { strToU8, zipSync } from 'fflate';
import { bodyLimit } from 'hono/body-limit';
import { streamSSE } from 'hono/streaming';
import { databaseProblem, ProblemError, problemSchema } from './problem.ts';
import type { Projects } from './projects.ts';

const megabyte = 1024 * 1024;

const id = z.object({ id: z.uuid('must be a project’s id').openapi({ param: { name: 'id', in: 'path' } }) });
const summarySchema = z
  .object({
    id: z.uuid(),
    name: z.string(),
    revision: z.number().int(),
    elements: z.number().int(),
    openings: z.number().int(),
    createdAt: z.iso.datetime(),
    updatedAt: z.iso.datetime(),
  })
  .openapi('ProjectSummary');
const revisionSchema = z.object({ revision: z.number().int() }).openapi('Revision');
const logEntrySchema = z
  .object({ revision: z.number().int(), name: z.string(), at: z.iso.datetime(), changeSet: changeSetSchema })
  .openapi('LogEntry');
const versionSchema = z.object({ id: z.uuid(), revision: z.number().int(), name: z.string(), automatic: z.boolean(), at: z.iso.datetime() }).openapi('Version');
const conflictSchema = problemSchema.extend({ revision: z.number().int(), missed: z.array(logEntrySchema) }).openapi('Conflict');
// The document is checked on the way in by checkDocument, which tells of every fault at once; its schema is published on its own.
const anyDocument = z.looseObject({ format: z.literal('yard-arch') }).openapi('ProjectDocument', {
  externalDocs: { url: '/api/project.schema.json', description: 'JSON Schema of a project file' },
});

const json = <T extends z.ZodType>(schema: T, description: string) => ({ description, content: { 'application/json': { schema } } });
const problem = (description: string) => ({ description, content: { 'application/problem+json': { schema: problemSchema } } });
const file = (type: string, description: string) => ({ description, content: { [type]: { schema: z.string().openapi({ format: 'binary' }) } } });
const missing = { 404: problem('There is no such project') };
const refused = { 422: problem('What was sent does not fit, with the path and reason of each fault') };

const routes = {
  health: createRoute({ method: 'get', path: '/health', responses: { 200: json(z.object({ ok: z.literal(true) }), 'The server runs') } }),
  list: createRoute({ method: 'get', path: '/projects', responses: { 200: json(z.array(summarySchema), 'All projects, the one edited last first') } }),
  create: createRoute({
    method: 'post',
    path: '/projects',
    request: { body: { ...json(z.object({ name: z.string().trim().min(1, 'must not be empty').max(120), units: unitsSchema.optional() }), 'A new, empty project'), required: true } },
    responses: { 201: json(summarySchema, 'Made'), ...refused },
  }),
  upload: createRoute({
    method: 'post',
    path: '/projects/upload',
    request: { body: { ...json(anyDocument, 'A project file'), required: true } },
    responses: { 201: json(summarySchema, 'Made'), ...refused },
  }),
  get: createRoute({ method: 'get', path: '/projects/{id}', request: { params: id }, responses: { 200: json(summarySchema, 'The project'), ...missing } }),
  rename: createRoute({
    method: 'patch',
    path: '/projects/{id}',
    request: { params: id, body: { ...json(z.object({ name: z.string().trim().min(1, 'must not be empty').max(120, 'must have at most 120 characters') }), 'Its new name'), required: true } },
    responses: { 200: json(summarySchema, 'Renamed'), ...missing, ...refused },
  }),
  duplicate: createRoute({ method: 'post', path: '/projects/{id}/duplicate', request: { params: id }, responses: { 201: json(summarySchema, 'The copy'), ...missing } }),
  remove: createRoute({ method: 'delete', path: '/projects/{id}', request: { params: id }, responses: { 204: { description: 'Deleted; it can be restored for 30 days' }, ...missing } }),
  restore: createRoute({ method: 'post', path: '/projects/{id}/restore', request: { params: id }, responses: { 200: json(summarySchema, 'Brought back'), ...missing } }),
  read: createRoute({
    method: 'get',
    path: '/projects/{id}/document',
    request: { params: id, query: z.object({ revision: z.coerce.number().int().min(0).optional() }) },
    responses: { 200: json(z.object({ revision: z.number().int(), document: anyDocument }), 'The document and its revision, as it stands or as it was'), ...missing },
  }),
  append: createRoute({
    method: 'post',
    path: '/projects/{id}/changes',
    request: {
      params: id,
      body: {
        ...json(
          z.object({
            baseRevision: z.number().int().min(0),
            key: z.string().min(1).max(100).openapi({ description: 'Of the sender’s choice; a change sent again with the same key is applied once' }),
            changeSet: changeSetSchema,
          }),
          'A change set made against a revision',
        ),
        required: true,
      },
    },
    responses: {
      201: json(revisionSchema, 'Applied; the new revision'),
      409: { description: 'The project has moved on; what was missed', content: { 'application/problem+json': { schema: conflictSchema } } },
      ...missing,
      ...refused,
    },
  }),
  log: createRoute({
    method: 'get',
    path: '/projects/{id}/changes',
    request: { params: id, query: z.object({ after: z.coerce.number().int().min(0).default(0) }) },
    responses: { 200: json(z.array(logEntrySchema), 'The change log after a revision, at most 500 entries'), ...missing },
  }),
  versions: createRoute({ method: 'get', path: '/projects/{id}/versions', request: { params: id }, responses: { 200: json(z.array(versionSchema), 'Revisions that can be gone back to, the newest first'), ...missing } }),
  keepVersion: createRoute({
    method: 'post',
    path: '/projects/{id}/versions',
    request: { params: id, body: { ...json(z.object({ name: z.string().trim().min(1, 'must not be empty').max(120, 'must have at most 120 characters') }), 'What it is to be called'), required: true } },
    responses: { 201: json(versionSchema, 'Kept as it stands'), ...missing, ...refused },
  }),
  removeVersion: createRoute({
    method: 'delete',
    path: '/projects/{id}/versions/{version}',
    request: { params: id.extend({ version: z.uuid('must be a version’s id').openapi({ param: { name: 'version', in: 'path' } }) }) },
    responses: { 204: { description: 'Removed; the change log stays as it is' }, ...missing },
  }),
  download: createRoute({ method: 'get', path: '/projects/{id}/file', request: { params: id }, responses: { 200: file('application/json', 'The project file'), ...missing } }),
  export: createRoute({
    method: 'get',
    path: '/projects/{id}/export',
    request: { params: id, query: z.object({ format: z.enum(['glb', 'obj'], 'must be glb or obj') }) },
    responses: { 200: file('application/octet-stream', 'GLB, or a ZIP of OBJ and MTL'), ...missing, ...refused },
  }),
  check: createRoute({ method: 'get', path: '/projects/{id}/check', request: { params: id }, responses: { 200: json(z.looseObject({ sound: z.boolean() }), 'The report of a check'), ...missing } }),
  picture: createRoute({ method: 'get', path: '/projects/{id}/picture', request: { params: id }, responses: { 200: file('image/png', 'A picture of the model'), ...missing } }),
};

/** A file name made of a project's name. */
function fileName(name: string, extension: string): string {
  return `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '').toLowerCase() || 'project'}.${extension}`;
}

function attachment(name: string): string {
  return `attachment; filename="${name.replace(/[^\x20-\x7e]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

/** Pictures already drawn, by project and revision. */
class Pictures {
  private readonly kept = new Map<string, Uint8Array<ArrayBuffer>>();

  of(id: string, revision: number, document: ProjectDocument): Uint8Array<ArrayBuffer> {
    const key = `${id} ${revision}`;
    const known = this.kept.get(key);
    if (known) return known;
    const drawn = drawPicture(document, cutModel(document), { width: 640, height: 400 }) as Uint8Array<ArrayBuffer>;
    if (this.kept.size > 200) this.kept.delete(this.kept.keys().next().value!);
    this.kept.set(key, drawn);
    return drawn;
  }
}

/** The API over a store of projects, to be mounted at /api. */
export function makeApi(projects: Projects) {
  const pictures = new Pictures();
  const api = new OpenAPIHono({
    defaultHook: (result, c) => {
      if (result.success) return;
      const faults = result.error.issues.map((issue) => ({ path: issue.path.map(String).join('/'), reason: issue.message }));
      return c.json({ type: '/problems/refused', title: 'What was sent does not fit', status: 422, detail: sentence(faults), faults }, 422, {
        'content-type': 'application/problem+json',
      });
    },
  });
  api.use('*', bodyLimit({ maxSize: 64 * megabyte, onError: () => tooLarge() }));
  api.onError((error) => answer(error));

  const routed = api
    .openapi(routes.health, (c) => c.json({ ok: true as const }, 200))
    .openapi(routes.list, async (c) => c.json(await projects.list(), 200))
    .openapi(routes.create, async (c) => {
      const { name, units } = c.req.valid('json');
      return c.json(await projects.create(emptyDocument(name, units)), 201);
    })
    .openapi(routes.upload, async (c) => c.json(await projects.create(checkDocument(c.req.valid('json'))), 201))
    .openapi(routes.get, async (c) => c.json(await projects.get(c.req.valid('param').id), 200))
    .openapi(routes.rename, async (c) => c.json(await projects.rename(c.req.valid('param').id, c.req.valid('json').name), 200))
    .openapi(routes.duplicate, async (c) => c.json(await projects.duplicate(c.req.valid('param').id), 201))
    .openapi(routes.remove, async (c) => {
      await projects.remove(c.req.valid('param').id);
      return c.body(null, 204);
    })
    .openapi(routes.restore, async (c) => c.json(await projects.restore(c.req.valid('param').id), 200))
    .openapi(routes.read, async (c) => {
      const [{ id }, { revision: at }] = [c.req.valid('param'), c.req.valid('query')];
      if (at !== undefined) return c.json(await projects.read(id, at), 200);
      const { revision, document } = await projects.text(id);
      return c.body(`{"revision":${revision},"document":${document}}`, 200, { 'content-type': 'application/json' }) as never;
    })
    .openapi(routes.append, async (c) => {
      const { baseRevision, key, changeSet } = c.req.valid('json');
      return c.json(await projects.append(c.req.valid('param').id, baseRevision, key, changeSet), 201);
    })
    .openapi(routes.log, async (c) => c.json(await projects.log(c.req.valid('param').id, c.req.valid('query').after), 200))
    .openapi(routes.versions, async (c) => c.json(await projects.versions(c.req.valid('param').id), 200))
    .openapi(routes.keepVersion, async (c) => c.json(await projects.keepVersion(c.req.valid('param').id, c.req.valid('json').name), 201))
    .openapi(routes.removeVersion, async (c) => {
      const { id: project, version } = c.req.valid('param');
      await projects.removeVersion(project, version);
      return c.body(null, 204);
    })
    .openapi(routes.check, async (c) => {
      const { document } = await projects.read(c.req.valid('param').id);
      await solidLibrary();
      return c.json({ ...reportOn(document, cutModel(document)) }, 200);
    });

  // Told as server-sent events: each new revision, by its number.
  api.get('/projects/:id/events', async (c) => {
    const project = c.req.param('id');
    const { revision } = await projects.get(project);
    return streamSSE(c, async (stream) => {
      let wake: () => void = () => {};
      let heard = revision;
      const deaf = projects.listen(project, (now) => {
        heard = Math.max(heard, now);
        wake();
      });
      let told = -1;
      stream.onAbort(() => {
        deaf();
        wake();
      });
      while (!stream.aborted) {
        if (heard > told) {
          told = heard;
          await stream.writeSSE({ event: 'revision', data: String(told) });
        }
        // Proxies close connections that are silent for long.
        const silent = setTimeout(() => wake(), 25_000);
        await new Promise<void>((resolve) => {
          wake = resolve;
          if (heard > told || stream.aborted) resolve();
        });
        clearTimeout(silent);
        if (heard === told && !stream.aborted) await stream.writeSSE({ event: 'still', data: '' });
      }
    });
  });
  api.openapi(routes.download, async (c) => {
    const { document } = await projects.read(c.req.valid('param').id);
    return c.body(writeDocument(document), 200, { 'content-type': 'application/json', 'content-disposition': attachment(fileName(document.name, 'json')) });
  });
  api.openapi(routes.export, async (c) => {
    const { document } = await projects.read(c.req.valid('param').id);
    await solidLibrary();
    const model = cutModel(document);
    if (c.req.valid('query').format === 'glb')
      return c.body(await writeGlb(document, model), 200, {
        'content-type': 'model/gltf-binary',
        'content-disposition': attachment(fileName(document.name, 'glb')),
      });
    const mtlName = fileName(document.name, 'mtl');
    const { obj, mtl, images } = writeObj(document, model, mtlName);
    const zip = zipSync({ [fileName(document.name, 'obj')]: strToU8(obj), [mtlName]: strToU8(mtl), ...images });
    return c.body(zip as Uint8Array<ArrayBuffer>, 200, { 'content-type': 'application/zip', 'content-disposition': attachment(fileName(document.name, 'obj.zip')) });
  });
  api.openapi(routes.picture, async (c) => {
    const { id: project } = c.req.valid('param');
    const { revision, document } = await projects.read(project);
    await solidLibrary();
    return c.body(pictures.of(project, revision, document), 200, { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400' });
  });
  api.doc31('/openapi.json', {
    openapi: '3.1.0',
    info: { title: 'Yard Arch', version: '1', description: 'Projects, their documents, their change logs, and exports. Lengths are metres.' },
    servers: [{ url: '/api' }],
  });
  api.all('*', noSuchRoute);
  return routed;
}

/** The API's type, from which the web's client takes its own. */
export type Api = ReturnType<typeof makeApi>;

function noSuchRoute(): Response {
  return answer(new ProblemError(404, 'no-such-route', 'There is nothing here', 'The API has no such address; /api/openapi.json lists those that it has.'));
}

function tooLarge(): Response {
  return answer(new ProblemError(413, 'too-large', 'That is too large', 'A request may hold at most 64 MB.'));
}

function answer(error: Error): Response {
  const told = asProblem(error);
  return new Response(JSON.stringify(told.body()), { status: told.status, headers: { 'content-type': 'application/problem+json' } });
}

function asProblem(error: Error): ProblemError {
  if (error instanceof ProblemError) return error;
  if (error instanceof Refused) return new ProblemError(422, 'refused', 'What was sent does not fit', error.message, { faults: error.faults });
  if ('status' in error && error.status === 400)
    return new ProblemError(400, 'malformed', 'The request cannot be read', `It is not JSON: ${error.message}`);
  const database = databaseProblem(error);
  if (database) return database;
  console.error(error);
  return new ProblemError(500, 'failed', 'The server failed', 'Something went wrong that should not. Nothing was saved; what is kept is as it was before.');
}
