/** Exports of what cannot be made: told by the job, its events and the answer; a file of nothing is refused. */
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { emptyDocument, type ProjectDocument } from '@yard-arch/document';
import { ask, startHarness, type Harness } from './harness.ts';

const faulty = JSON.parse(
  readFileSync(new URL('../../core/test/cases/faults/empty-glb-invalid.json', import.meta.url), 'utf8'),
) as ProjectDocument;

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('left-out');
});
afterAll(() => harness?.remove());

it('an element that cannot be made is left out and told of', async () => {
  const whole = granary();
  const { id } = await harness.services.projects.create({
    ...whole,
    elements: { gate: whole.elements.gate!, ...faulty.elements },
    openings: {},
    axes: {},
    datums: {},
    materials: { ...whole.materials, ...faulty.materials },
  });
  const exported = await harness.app.request(`/api/projects/${id}/export?format=glb`);
  expect([exported.status, exported.headers.get('yard-left-out')]).toEqual([200, '1']);
  const job = (
    await ask<{ id: string; leftOut: unknown[] }>(harness.app, 'POST', `/projects/${id}/jobs`, { kind: 'glb' })
  ).body;
  expect(job.leftOut).toEqual([{ element: 'v', name: 'Bay', reason: expect.any(String), mend: expect.any(String) }]);
  const events = await (await harness.app.request(`/api/jobs/${job.id}/events`)).text();
  expect(events).toContain('"leftOut":[{"element":"v","name":"Bay"');
});

it.each([
  ['whose elements all have faults', faulty, 'None of its elements can be made'],
  ['without elements', emptyDocument('Nothing'), 'It holds no element'],
])('a file of a project %s is refused', async (_, document, why) => {
  const { id } = await harness.services.projects.create(document);
  for (const format of ['glb', 'glb-instanced', 'obj'])
    expect(await ask(harness.app, 'GET', `/projects/${id}/export?format=${format}`)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining(`There is nothing to write. ${why}`) },
    });
  // It can still be looked at and checked.
  expect((await ask(harness.app, 'GET', `/projects/${id}/check`)).status).toBe(200);
  expect((await harness.app.request(`/api/projects/${id}/picture`)).status).toBe(200);
});
