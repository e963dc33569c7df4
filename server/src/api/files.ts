/** Files: projects brought in and taken along, and the assets that they name. */
import { type OpenAPIHono } from '@hono/zod-openapi';
import { writeDocument, type ProjectDocument } from '@yard-arch/document';
import { namedIn } from '../assets.ts';
import { attachment, fileName } from '../jobs/file-name.ts';
import { ProblemError, refusedBy } from '../problem.ts';
import { routes } from '../routes.ts';
import type { Services } from '../services.ts';

export function fileRoutes(api: OpenAPIHono, services: Services): void {
  uploads(api, services);
  downloads(api, services);
}

function uploads(api: OpenAPIHono, { projects, assets, pool }: Services): void {
  api.openAPIRegistry.registerPath(routes.upload);
  api.post('/projects/upload', async (c) => {
    const bytes = new Uint8Array(await c.req.arrayBuffer());
    // Pictures that are here already need not come along.
    const outcome = await pool.run({ kind: 'upload', bytes, known: await assets.all() }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('text' in outcome)) throw new Error('a worker answered what was not asked');
    for (const held of outcome.assets) await assets.keep(held.bytes, held.facts);
    return c.json(await projects.createFrom(outcome), 201);
  });
  api.openAPIRegistry.registerPath(routes.putAsset);
  // What it is told by a worker: hashing a large one would keep others waiting.
  api.post('/assets', async (c) => {
    const bytes = new Uint8Array(await c.req.arrayBuffer());
    const outcome = await pool.run({ kind: 'asset', bytes }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('asset' in outcome)) throw new Error('a worker answered what was not asked');
    await assets.keep(bytes, outcome.asset);
    return c.json(outcome.asset, 201);
  });
  api.openapi(routes.asset, async (c) => {
    const { type, bytes } = await assets.get(c.req.valid('param').sha256);
    // What is named by its own bytes never changes.
    return c.body(bytes, 200, {
      'content-type': type,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    }) as never;
  });
}

function downloads(api: OpenAPIHono, { projects, assets, pool }: Services): void {
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
}
