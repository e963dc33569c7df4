/** The shelf's writes: pattern files, checked by their own reader. */
import { z, type OpenAPIHono } from '@hono/zod-openapi';
import { readJson } from '../edits.ts';
import { ProblemError } from '../problem.ts';
import { routes } from '../routes.ts';
import type { Services } from '../services.ts';

/** The most values of a pattern file: it is read where others are answered. */
const mostFileValues = 500_000;

/** @throws ProblemError where an address names no item. */
function itemId(text: string): string {
  const checked = z.uuid().safeParse(text);
  if (checked.success) return checked.data;
  throw new ProblemError(422, { kind: 'refused', title: 'What was sent does not fit' }, 'item must be an item’s id.', {
    faults: [{ path: 'item', reason: 'must be an item’s id' }],
    count: 1,
  });
}

export function shelfRoutes(api: OpenAPIHono, { shelf }: Services): void {
  api.openAPIRegistry.registerPath(routes.putOnShelf);
  api.post('/shelf', async (c) =>
    c.json(await shelf.put(readJson(new Uint8Array(await c.req.arrayBuffer()), mostFileValues)), 201),
  );
  api.openAPIRegistry.registerPath(routes.replaceOnShelf);
  api.put('/shelf/:item', async (c) => {
    const id = itemId(c.req.param('item'));
    return c.json(await shelf.replace(id, readJson(new Uint8Array(await c.req.arrayBuffer()), mostFileValues)), 200);
  });
}
