/** The routes of the API with their schemas, from which the OpenAPI document is made. */
import { createRoute, z } from '@hono/zod-openapi';
import { writtenFormats, type WrittenFormat } from '@yard-arch/core/formats';
import { examples } from '@yard-arch/demo';
import {
  changeSetSchema,
  fieldSchema,
  nameSchema,
  patternFormat,
  unitsSchema,
  type Material,
  type Pattern,
} from '@yard-arch/document';
import { beginnings } from '@yard-arch/edit';
import { jobKinds } from './jobs/kinds.ts';
import { headSchema } from './edits.ts';
import { ProblemError, problemSchema } from './problem.ts';

// Fields lie in fields: a name lets the description of the API come to an end. Schemas made before the library was there have its methods from the prototype.
(z.ZodType.prototype as unknown as { openapi: (this: z.ZodType, name: string) => unknown }).openapi.call(
  fieldSchema,
  'Field',
);

const id = z.object({ id: z.uuid('must be a project’s id').openapi({ param: { name: 'id', in: 'path' } }) });
/** The id of a project from an address. @throws ProblemError where it is none. */
export function projectId(text: string): string {
  const checked = id.safeParse({ id: text });
  if (checked.success) return checked.data.id;
  throw new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, 'id must be a project’s id.', {
    faults: [{ path: 'id', reason: 'must be a project’s id' }],
    count: 1,
  });
}

const jobId = z.object({ job: z.uuid('must be a job’s id').openapi({ param: { name: 'job', in: 'path' } }) });
const revision = z.coerce
  .number('must be a revision’s number')
  .int('must be a whole number')
  .min(0, 'must not be negative')
  .max(2_147_483_647, 'is larger than any revision');

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
const format = z
  .number()
  .int()
  .openapi({ description: 'The version of the format in which the change set is written' });
const mark = z.string().openapi({
  description:
    'The identity of the change log at this revision; another where the server’s data was put back and went on otherwise',
});
export const logEntrySchema = z
  .object({
    revision: z.number().int(),
    mark,
    key: z.string(),
    name: z.string(),
    at: z.iso.datetime(),
    format,
    changeSet: changeSetSchema,
  })
  .openapi('LogEntry');
const appendedSchema = z
  .object({
    revision: z.number().int(),
    mark,
    missed: z
      .array(logEntrySchema)
      .openapi({ description: 'What others did between the base revision and this change' }),
    format,
    changeSet: changeSetSchema,
  })
  .openapi('Appended');
const shelfItem = z
  .object({
    id: z.uuid(),
    revision: z.number().int(),
    name: z.string(),
    at: z.iso.datetime(),
    file: z.object({
      format: z.literal(patternFormat),
      version: z.number().int(),
      pattern: z.custom<Pattern>().openapi({ type: 'object', description: 'A pattern, as in a document' }),
      materials: z.custom<Record<string, Material>>().openapi({ type: 'object', description: 'Materials, by id' }),
    }),
  })
  .openapi('ShelfItem');
const unreadItem = shelfItem
  .extend({ file: z.null(), why: z.string().openapi({ description: 'Why it cannot be read' }) })
  .openapi('UnreadShelfItem');
const onShelf = z.object({ item: z.uuid('must be an item’s id').openapi({ param: { name: 'item', in: 'path' } }) });
const versionSchema = z
  .object({ id: z.uuid(), revision: z.number().int(), name: z.string(), automatic: z.boolean(), at: z.iso.datetime() })
  .openapi('Version');
const conflictSchema = problemSchema
  .extend({ revision: z.number().int(), mark, missed: z.array(logEntrySchema).optional() })
  .openapi('Conflict');
const assetFacts = z
  .object({
    sha256: z.string(),
    type: z.string(),
    bytes: z.number().int(),
    width: z.number().int().optional().openapi({ description: 'Of a picture, in dots' }),
    height: z.number().int().optional(),
    triangles: z.number().int().optional().openapi({ description: 'Of a mesh' }),
    openEdges: z.number().int().optional(),
    size: z.array(z.number()).optional().openapi({ description: 'Of a mesh: its width, depth and height, metres' }),
    materials: z.array(z.string()).optional(),
  })
  .openapi('Asset');
const leftOutSchema = z
  .object({ element: z.string(), name: z.string(), reason: z.string(), mend: z.string().nullable() })
  .openapi('LeftOut');
const jobSchema = z
  .object({
    id: z.uuid(),
    project: z.uuid(),
    revision: z.number().int(),
    kind: z.enum(jobKinds),
    state: z.enum(['waiting', 'working', 'done', 'failed', 'cancelled']),
    progress: z.number().openapi({ description: 'From 0 to 1' }),
    stage: z.string(),
    problem: problemSchema.nullable(),
    leftOut: z
      .array(leftOutSchema)
      .openapi({ description: 'Elements that are not in its file, since they could not be made' }),
    size: z.number().int().nullable(),
  })
  .openapi('Job');
// The document is checked on the way in by checkDocument, which tells of every fault at once; its schema is published on its own.
const anyDocument = z.looseObject({ format: z.literal('yard-arch') }).openapi('ProjectDocument', {
  externalDocs: { url: '/api/project.schema.json', description: 'JSON Schema of a project file' },
});

const json = <T extends z.ZodType>(schema: T, description: string) => ({
  description,
  content: { 'application/json': { schema } },
});
const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: problemSchema } },
});
const file = (type: string, description: string) => ({
  description,
  content: { [type]: { schema: z.string().openapi({ format: 'binary' }) } },
});
const body = <T extends z.ZodType>(schema: T, description: string) => ({
  ...json(schema, description),
  required: true,
});
const missing = { 404: problem('There is no such project') };
const refused = { 422: problem('What was sent does not fit, with the path and reason of each fault') };
const named = z.object({ name: nameSchema });

export const routes = {
  health: createRoute({
    method: 'get',
    path: '/health',
    responses: {
      200: json(z.object({ ok: z.literal(true) }), 'The server and its database run'),
      503: problem('The database cannot be reached'),
    },
  }),
  list: createRoute({
    method: 'get',
    path: '/projects',
    responses: { 200: json(z.array(summarySchema), 'All projects, the one edited last first') },
  }),
  create: createRoute({
    method: 'post',
    path: '/projects',
    request: {
      body: body(
        z.object({
          name: nameSchema.optional().openapi({ description: 'Of an example, its own where none is given' }),
          units: unitsSchema.optional(),
          begin: z
            .enum(beginnings)
            .optional()
            .openapi({ description: 'What it begins with; nothing unless said otherwise' }),
          example: z
            .enum(examples.map(({ id }) => id) as [string, ...string[]])
            .optional()
            .openapi({ description: 'An example to begin from' }),
        }),
        'A new project',
      ),
    },
    responses: { 201: json(summarySchema, 'Made'), ...refused },
  }),
  examples: createRoute({
    method: 'get',
    path: '/examples',
    responses: {
      200: json(
        z.array(z.object({ id: z.string(), name: z.string(), about: z.string() })),
        'Examples that a project can begin from',
      ),
    },
  }),
  putAsset: createRoute({
    method: 'post',
    path: '/assets',
    request: {
      body: {
        ...file('image/*', 'A picture as PNG, JPEG or WebP, or a mesh as plain GLB; at most 20 MB'),
        required: true,
      },
    },
    responses: { 201: json(assetFacts, 'Kept, by its SHA-256'), ...refused },
  }),
  asset: createRoute({
    method: 'get',
    path: '/assets/{sha256}',
    request: {
      params: z.object({
        sha256: z
          .string()
          .regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits')
          .openapi({ param: { name: 'sha256', in: 'path' } }),
      }),
    },
    responses: {
      200: file('image/*', 'The picture or mesh'),
      404: problem('There is no such picture or mesh'),
      ...refused,
    },
  }),
  upload: createRoute({
    method: 'post',
    path: '/projects/upload',
    request: { body: body(anyDocument, 'A project file: JSON, or a ZIP of it and its pictures') },
    responses: { 201: json(summarySchema, 'Made'), ...refused },
  }),
  get: createRoute({
    method: 'get',
    path: '/projects/{id}',
    request: { params: id },
    responses: { 200: json(summarySchema, 'The project'), ...missing },
  }),
  rename: createRoute({
    method: 'patch',
    path: '/projects/{id}',
    request: { params: id, body: body(named, 'Its new name') },
    responses: { 200: json(summarySchema, 'Renamed'), ...missing, ...refused },
  }),
  duplicate: createRoute({
    method: 'post',
    path: '/projects/{id}/duplicate',
    request: { params: id },
    responses: { 201: json(summarySchema, 'The copy'), ...missing },
  }),
  remove: createRoute({
    method: 'delete',
    path: '/projects/{id}',
    request: { params: id },
    responses: { 204: { description: 'Deleted; it can be restored for 30 days' }, ...missing },
  }),
  restore: createRoute({
    method: 'post',
    path: '/projects/{id}/restore',
    request: { params: id },
    responses: { 200: json(summarySchema, 'Brought back'), ...missing },
  }),
  read: createRoute({
    method: 'get',
    path: '/projects/{id}/document',
    request: { params: id, query: z.object({ revision: revision.optional() }) },
    responses: {
      200: json(
        z.object({ revision: z.number().int(), mark, document: anyDocument }),
        'The document and its revision, as it stands or as it was',
      ),
      ...missing,
    },
  }),
  append: createRoute({
    method: 'post',
    path: '/projects/{id}/changes',
    request: {
      params: id,
      body: body(headSchema.extend({ changeSet: changeSetSchema }), 'A change set made against a revision'),
    },
    responses: {
      201: json(
        appendedSchema,
        'Applied, to the present revision also where it was made on an earlier one and meets nothing that was changed meanwhile',
      ),
      409: {
        description: 'The project has moved on in what it touches, with what was missed; or its log is another',
        content: { 'application/problem+json': { schema: conflictSchema } },
      },
      ...missing,
      ...refused,
    },
  }),
  script: createRoute({
    method: 'post',
    path: '/projects/{id}/script',
    request: {
      params: id,
      body: body(
        z.object({
          key: headSchema.shape.key
            .optional()
            .openapi({ description: 'By it a script that is sent twice is done once' }),
          onlyAt: headSchema.shape.baseRevision
            .optional()
            .openapi({ description: 'The revision at which alone it is to be done' }),
          name: z.string().optional(),
          do: z.array(z.looseObject({ do: z.string() })).openapi({
            description:
              'Its steps, such as { "do": "place", "element": "Quay wall", "pattern": "Loft light", "along": 2.4, "up": 0.9 }',
          }),
        }),
        'An edit script: done as one edit, all of it or nothing',
      ),
    },
    responses: {
      201: json(
        z.object({
          revision: z.number().int(),
          mark,
          format,
          changeSet: changeSetSchema,
          made: z.array(z.array(z.string())).openapi({ description: 'By step: the ids of what it has made' }),
        }),
        'Done',
      ),
      409: problem('The project is at another revision'),
      ...missing,
      ...refused,
    },
  }),
  log: createRoute({
    method: 'get',
    path: '/projects/{id}/changes',
    request: { params: id, query: z.object({ after: revision.default(0), mark: z.string().max(100).optional() }) },
    responses: {
      200: json(z.array(logEntrySchema), 'The change log after a revision, at most 500 entries'),
      409: problem('The log has no such state: its data was put back'),
      ...missing,
    },
  }),
  versions: createRoute({
    method: 'get',
    path: '/projects/{id}/versions',
    request: { params: id },
    responses: {
      200: json(z.array(versionSchema), 'Revisions that can be gone back to, the newest first'),
      ...missing,
    },
  }),
  keepVersion: createRoute({
    method: 'post',
    path: '/projects/{id}/versions',
    request: { params: id, body: body(named, 'What it is to be called') },
    responses: { 201: json(versionSchema, 'Kept as it stands'), ...missing, ...refused },
  }),
  removeVersion: createRoute({
    method: 'delete',
    path: '/projects/{id}/versions/{version}',
    request: {
      params: id.extend({
        version: z.uuid('must be a version’s id').openapi({ param: { name: 'version', in: 'path' } }),
      }),
    },
    responses: { 204: { description: 'Removed; the change log stays as it is' }, ...missing },
  }),
  shelf: createRoute({
    method: 'get',
    path: '/shelf',
    responses: {
      200: json(z.array(z.union([shelfItem, unreadItem])), 'Patterns that are kept for all projects, by name'),
    },
  }),
  putOnShelf: createRoute({
    method: 'post',
    path: '/shelf',
    responses: { 201: json(shelfItem, 'A pattern file was put on the shelf'), ...refused },
  }),
  replaceOnShelf: createRoute({
    method: 'put',
    path: '/shelf/{item}',
    request: { params: onShelf },
    responses: {
      200: json(shelfItem, 'A pattern file was put in the place of what was there'),
      ...missing,
      ...refused,
    },
  }),
  takeFromShelf: createRoute({
    method: 'delete',
    path: '/shelf/{item}',
    request: { params: onShelf },
    responses: { 204: { description: 'Taken off the shelf; projects keep what they took' }, ...missing },
  }),
  events: createRoute({
    method: 'get',
    path: '/projects/{id}/events',
    request: { params: id },
    responses: { 200: file('text/event-stream', 'Each new state, as server-sent events'), ...missing },
  }),
  download: createRoute({
    method: 'get',
    path: '/projects/{id}/file',
    request: {
      params: id,
      query: z.object({
        pictures: z
          .enum(['yes', 'no'], 'must be yes or no')
          .optional()
          .openapi({ description: 'Whether pictures of materials come along, in a ZIP; yes unless said otherwise' }),
      }),
    },
    responses: {
      200: file('application/json', 'The project file: JSON, or where it names pictures a ZIP of it and them'),
      ...missing,
      ...refused,
    },
  }),
  export: createRoute({
    method: 'get',
    path: '/projects/{id}/export',
    request: {
      params: id,
      query: z.object({
        format: z.enum(
          writtenFormats.map(({ id }) => id) as [WrittenFormat, ...WrittenFormat[]],
          `must be ${writtenFormats.map(({ id }) => id).join(' or ')}`,
        ),
      }),
    },
    responses: {
      200: {
        ...file('application/octet-stream', 'GLB, or a ZIP of OBJ and MTL'),
        headers: z.object({
          'yard-left-out': z.string().optional().openapi({
            description:
              'How many elements are not in it, since they could not be made; the job, or a check, tells which',
          }),
        }),
      },
      ...missing,
      ...refused,
    },
  }),
  check: createRoute({
    method: 'get',
    path: '/projects/{id}/check',
    request: { params: id },
    responses: { 200: json(z.looseObject({ sound: z.boolean() }), 'The report of a check'), ...missing },
  }),
  picture: createRoute({
    method: 'get',
    path: '/projects/{id}/picture',
    request: { params: id },
    responses: { 200: file('image/png', 'A picture of the model'), ...missing },
  }),
  begin: createRoute({
    method: 'post',
    path: '/projects/{id}/jobs',
    request: {
      params: id,
      body: body(
        z.object({ kind: z.enum(jobKinds, `must be one of ${jobKinds.join(', ')}`) }),
        'What is to be made of the project as it stands',
      ),
    },
    responses: { 202: json(jobSchema, 'Begun, or known already'), ...missing, ...refused },
  }),
  job: createRoute({
    method: 'get',
    path: '/jobs/{job}',
    request: { params: jobId },
    responses: { 200: json(jobSchema, 'How it stands'), ...missing },
  }),
  jobEvents: createRoute({
    method: 'get',
    path: '/jobs/{job}/events',
    request: { params: jobId },
    responses: { 200: file('text/event-stream', 'How it goes on, as server-sent events'), ...missing },
  }),
  jobResult: createRoute({
    method: 'get',
    path: '/jobs/{job}/result',
    request: { params: jobId },
    responses: { 200: file('application/octet-stream', 'What it gave, once it is done'), ...missing, ...refused },
  }),
  cancelJob: createRoute({
    method: 'delete',
    path: '/jobs/{job}',
    request: { params: jobId },
    responses: { 204: { description: 'Cancelled' }, ...missing },
  }),
};
