/** Projects, their versions, and work that is asked for on them. The page’s client takes its types from these. */
import { type OpenAPIHono } from '@hono/zod-openapi';
import { Refused } from '@yard-arch/document';
import { newProject } from '@yard-arch/edit';
import { examples } from '@yard-arch/demo';
import { routes } from '../routes.ts';
import type { Services } from '../services.ts';
import { told } from './told.ts';

/** Adds the routes that answer with what their schemas say. */
export function projectRoutes(api: OpenAPIHono, { projects, jobs, shelf, alive }: Services) {
  return api
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
    })
    .openapi(routes.shelf, async (c) => c.json(await shelf.list(), 200))
    .openapi(routes.takeFromShelf, async (c) => {
      await shelf.remove(c.req.valid('param').item);
      return c.body(null, 204);
    });
}
