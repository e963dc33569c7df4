/** The projects page. */
import { readFileSync } from 'node:fs';
import type { ProjectDocument } from '@yard-arch/document';
import { expect, granary, granaryFile, test } from './fixtures.ts';
import { fileURLToPath } from 'node:url';

test.use({ goesOn: true });

test('a new project begins with a wall and patterns, and shows the first steps until they are done', async ({
  page,
  application,
}) => {
  await page.goto(application.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Undercroft');
  await page.getByRole('button', { name: 'Make it' }).click();
  const steps = page.getByTestId('first-steps');
  await expect(steps.getByRole('listitem').filter({ has: page.getByLabel('done') })).toHaveText([/Draw a wall/]);
  await steps.getByRole('button', { name: 'take the first pattern' }).click();
  const face = (await page.getByTestId('face').boundingBox())!;
  await page.mouse.move(face.x + face.width / 2 - 40, face.y + face.height / 2);
  await page.mouse.move(face.x + face.width / 2, face.y + face.height / 2, { steps: 4 });
  await page.mouse.click(face.x + face.width / 2, face.y + face.height / 2);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('title-block')).toContainText('1 cut');
  await expect(page.getByTestId('held').first()).toContainText('middle of the wall');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'GLB, for renderers' }).click();
  await download;
  await expect(steps).toContainText('All three are done');
  await page.reload();
  await expect(steps).toContainText('All three are done');
  await steps.getByRole('button', { name: 'Close the first steps' }).click();
  await page.reload();
  await expect(page.getByTestId('title-block')).toContainText('1 cut');
  await expect(steps).toHaveCount(0);
});

test('an example is opened as a project of one’s own', async ({ page, application }) => {
  await page.goto(application.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByText('Built-up wall').click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByTestId('title-block')).toContainText('sound', { timeout: 30_000 });
  await expect(page.getByText('Built-up wall').first()).toBeVisible();
  await expect(page.getByTestId('first-steps')).toHaveCount(0);
});

test('projects are made, renamed, duplicated, deleted and brought back', async ({ page, application }) => {
  await page.goto(application.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Stair drum');
  await page.getByText('Nothing', { exact: true }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('No wall yet')).toBeVisible();
  await page.getByRole('link', { name: 'All projects' }).click();

  const card = (name: string) =>
    page.getByRole('article').filter({ has: page.getByRole('heading', { name, exact: true }) });
  await card('Stair drum').getByRole('button', { name: /More/ }).click();
  await page.getByRole('menuitem', { name: 'Rename…' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Slate roofs');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(card('Slate roofs')).toBeVisible();

  await card('Slate roofs').getByRole('button', { name: /More/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(card('Slate roofs (copy)')).toBeVisible();

  await card('Slate roofs (copy)').getByRole('button', { name: /More/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(card('Slate roofs (copy)')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card('Slate roofs (copy)')).toBeVisible();
});

test('a file is taken in; a bad one is refused with the path and the reason of its faults', async ({
  page,
  application,
}) => {
  await page.goto(application.url);
  await page.getByTestId('file').setInputFiles(fileURLToPath(granaryFile));
  await expect(page.getByText('Opened “Fennel Quay Granary”')).toBeVisible();
  const picture = page.getByRole('article').filter({ hasText: 'Fennel Quay Granary' }).locator('img').first();
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(640);
  const before = await page.getByRole('article').count();

  const bad = structuredClone(granary);
  Object.assign(bad.elements.courtyard!, { length: 0 });
  await page
    .getByTestId('file')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(bad)) });
  await expect(page.getByText('bad.json was not taken in')).toBeVisible();
  await expect(page.getByText('elements/courtyard/length must be more than 0')).toBeVisible();
  await page
    .getByTestId('file')
    .setInputFiles({ name: 'notes.json', mimeType: 'application/json', buffer: Buffer.from('{ not json') });
  await expect(page.getByText(/is not JSON/)).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(before);
});

test('an export without what cannot be made says so, with a way there', async ({ page, application }) => {
  const faulty = JSON.parse(readFileSync('core/test/cases/faults/empty-glb-invalid.json', 'utf8')) as ProjectDocument;
  const document = {
    ...faulty,
    elements: { gate: granary.elements.gate!, ...faulty.elements },
    materials: { ...granary.materials, ...faulty.materials },
  };
  const made = await page.request.post(`${application.url}/api/projects/upload`, { data: document });
  await page.goto(`${application.url}/projects/${((await made.json()) as { id: string }).id}`);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'GLB, for renderers' }).click();
  expect((await download).suggestedFilename()).toBe('nothing-to-write.glb');
  await expect(page.getByText('The GLB was made without an element')).toBeVisible();
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(page.getByRole('heading', { name: 'Bay' }).first()).toBeVisible();
});

test('a project that is not there is told of, with a way back', async ({ page, application }) => {
  await page.goto(`${application.url}/projects/00000000-0000-4000-8000-000000000000`);
  await expect(page.getByRole('heading', { name: 'There is no such project' })).toBeVisible();
  await page.getByRole('link', { name: 'All projects' }).click();
  await expect(page.getByRole('heading', { name: 'Yard Arch' })).toBeVisible();
});

test('a card whose picture cannot be drawn says so, and the others are drawn', async ({
  page,
  application,
  project,
  request,
}) => {
  const wall = {
    id: 'w',
    name: 'Wall',
    kind: 'wall',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: 100,
    height: 3,
    top: { kind: 'level' },
    layers: [{ thickness: 0.3, material: 'm' }],
  };
  const made = await request.post(`${application.url}/api/projects/upload`, {
    data: {
      ...granary,
      name: 'Unpictured',
      elements: { w: wall },
      openings: {},
      axes: {},
      datums: {},
      patterns: {},
      materials: { m: { id: 'm', name: 'Brick', colour: '#aa6644', roughness: 0.9 } },
    },
  });
  const { id } = (await made.json()) as { id: string };
  await page.route(`**/projects/${id}/picture*`, (route) =>
    route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({ title: 'That takes too long', detail: 'It was given up.' }),
    }),
  );
  await page.goto(application.url);
  await expect(page.getByText('That takes too long. It was given up.')).toBeVisible();
  await expect
    .poll(() =>
      page.locator(`a[href="/projects/${project}"] img`).evaluate((image) => (image as HTMLImageElement).naturalWidth),
    )
    .toBeGreaterThan(100);
  await request.delete(`${application.url}/api/projects/${id}`);
});
