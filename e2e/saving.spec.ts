/** Saving: the server away and back, a reload, and two at one project. */
import { expect, granary, test } from './fixtures.ts';

test('edits made while the server is away are kept and sent when it is back, over a crash and a reload', async ({ desk, page, application }) => {
  await desk.choose('o10');
  await application.crash();
  await desk.type('Along', '111');
  await expect(desk.saving).toHaveText('1 edit kept in this browser');
  await expect(page.getByRole('alert').first()).toContainText('The server does not answer');
  await desk.type('Up', '222');
  await expect(desk.saving).toHaveText('2 edits kept in this browser');
  // The crash has left a database server running; the next start takes over from it.
  expect(await application.start()).toBeNull();
  const document = await desk.saved();
  expect(document.openings.o10).toMatchObject({ along: { distance: 0.111 }, up: { distance: 0.222 } });

  await application.stop();
  await desk.type('Along', '333');
  await expect(desk.saving).toHaveText('1 edit kept in this browser');
  await application.start();
  await page.reload();
  await expect(desk.titleBlock).toContainText('sound');
  expect((await desk.openingOf('o10')).along.distance).toBe(0.333);
  // The way back outlives the reload too.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  expect((await desk.saved()).openings).toEqual(granary.openings);
});

test('a reload brings back the same wall, and what was chosen', async ({ desk, page }) => {
  await desk.choose('o10');
  await page.reload();
  await expect(desk.shape('o10')).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('navigation').getByRole('button', { name: /^Gate wall/ }).click();
  await expect(page).toHaveURL(/setting-out\/gate/);
  await page.reload();
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Gate wall');
  await page.goto(`${desk.url}/projects/${desk.id}`);
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Gate wall');
});

test('an edit made elsewhere meanwhile is taken in, and neither is lost', async ({ desk, page }) => {
  const elsewhere = { ...granary.openings.o8!, along: { ...granary.openings.o8!.along, distance: 0.4 } };
  const sent = await page.request.post(`${desk.url}/api/projects/${desk.id}/changes`, {
    data: { baseRevision: 0, key: 'elsewhere', changeSet: { name: 'move A-08', changes: [{ op: 'put', table: 'openings', value: elsewhere }] } },
  });
  expect(sent.status()).toBe(201);
  await desk.choose('o10');
  await desk.type('Along', '-250');
  const document = await desk.saved();
  expect(document.openings.o8!.along.distance).toBe(0.4);
  expect(document.openings.o10!.along.distance).toBe(-0.25);
  await desk.choose('o8');
  await expect(desk.particulars.getByLabel('Along', { exact: true })).toHaveValue('400');
});

test('an edit that no longer fits what was done elsewhere is explained, and the rest goes on', async ({ desk, page }) => {
  const changes = Object.values(granary.openings)
    .filter((opening) => opening.element === 'gate')
    .map(({ id }) => ({ op: 'remove', table: 'openings', id }));
  await page.getByRole('navigation').getByRole('button', { name: /^Gate wall/ }).click();
  await desk.shape('o44').click();
  // So that it does not hear of it before its own edit is made.
  await page.context().setOffline(true);
  await page.request.post(`${desk.url}/api/projects/${desk.id}/changes`, {
    data: { baseRevision: 0, key: 'elsewhere', changeSet: { name: 'remove gate wall', changes: [...changes, { op: 'remove', table: 'elements', id: 'gate' }] } },
  });
  await desk.type('Along', '2000');
  await page.context().setOffline(false);
  await expect(page.getByText('could not be kept')).toBeVisible();
  await expect(page.getByRole('navigation').getByRole('button', { name: /^Gate wall/ })).toHaveCount(0);
  expect((await desk.saved()).elements.gate).toBeUndefined();
});

test('a full disk is told of, and the edit kept until there is room', async ({ desk, page }) => {
  const full = { type: '/problems/disk-full', title: 'The disk is full', status: 507, detail: 'The database has no room left, so the change was not saved.' };
  await page.route('**/changes', (route) => route.fulfill({ status: 507, contentType: 'application/problem+json', body: JSON.stringify(full) }));
  await desk.choose('o10');
  await desk.type('Along', '50');
  await expect(page.getByRole('alert').first()).toContainText('The disk is full');
  await expect(desk.saving).toHaveText('1 edit kept in this browser');
  await page.unroute('**/changes');
  expect((await desk.openingOf('o10')).along.distance).toBe(0.05);
});
