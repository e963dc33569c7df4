/** Edits: change sets as the page sends them, and scripts. Not by their schemas: what is large is read and checked in a worker. */
import { type OpenAPIHono } from '@hono/zod-openapi';
import { faultsOf, Refused, type ChangeSet } from '@yard-arch/document';
import { randomUUID } from 'node:crypto';
import { headSchema, readEdit, readJson, type Head } from '../edits.ts';
import { refusedBy } from '../problem.ts';
import { projectId, routes } from '../routes.ts';
import type { Services } from '../services.ts';

/** Edits of more bytes than this are read in a worker. */
const largeEdit = 150_000;

/** The most values of a script: it is read where others are answered. */
const mostScriptValues = 1_000_000;

const whole = ({ head, changeSet }: { head: Head; changeSet: ChangeSet }) => ({ ...head, edit: { changeSet } });

export function editRoutes(api: OpenAPIHono, { projects, pool }: Services): void {
  const headOf = async (bytes: Uint8Array): Promise<Head> => {
    const outcome = await pool.run({ kind: 'read edit', bytes }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('head' in outcome)) throw new Error('a worker answered what was not asked');
    return outcome.head;
  };
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
  // Its steps are looked into by a worker.
  api.openAPIRegistry.registerPath(routes.script);
  api.post('/projects/:id/script', async (c) => {
    const id = projectId(c.req.param('id'));
    const sent = readJson(new Uint8Array(await c.req.arrayBuffer()), mostScriptValues);
    const { key, onlyAt, ...script } =
      typeof sent === 'object' && sent !== null ? (sent as { key?: unknown; onlyAt?: unknown }) : {};
    const head = headSchema
      .pick({ key: true })
      .partial()
      .extend({ onlyAt: headSchema.shape.baseRevision.optional() })
      .safeParse({ key, onlyAt });
    if (!head.success) throw new Refused('The script cannot be read.', faultsOf(head.error));
    return c.json(
      await projects.script(id, { key: head.data.key ?? randomUUID(), onlyAt: head.data.onlyAt, script }),
      201,
    );
  });
}
