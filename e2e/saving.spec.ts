/** Saving: the server away and back, a reload, and two at one project. */
import { expect, granary, test, type Desk } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

test('edits made while the server is away are kept and sent when it is back, over a crash and a reload', async ({
  desk,
  page,
  application,
}) => {
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
  await expect.poll(async () => (await desk.saved()).openings).toEqual(granary.openings);
});

test('a reload brings back the same wall, and what was chosen', async ({ desk, page }) => {
  await desk.choose('o10');
  await page.reload();
  await expect(desk.shape('o10')).toHaveAttribute('aria-pressed', 'true');
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Gate wall/ })
    .click();
  await expect(page).toHaveURL(/setting-out\/gate/);
  await page.reload();
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Gate wall');
  await page.goto(`${desk.url}/projects/${desk.id}`);
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Gate wall');
});

test('an edit made elsewhere meanwhile is taken in, and neither is lost', async ({ desk, page }) => {
  const elsewhere = { ...granary.openings.o8!, along: { ...granary.openings.o8!.along, distance: 0.4 } };
  const sent = await page.request.post(`${desk.url}/api/projects/${desk.id}/changes`, {
    data: {
      baseRevision: 0,
      key: 'elsewhere',
      changeSet: { name: 'move A-08', changes: [{ op: 'put', table: 'openings', value: elsewhere }] },
    },
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

test('an edit that no longer fits what was done elsewhere is explained, and the rest goes on', async ({
  desk,
  page,
}) => {
  const changes = Object.values(granary.openings)
    .filter((opening) => opening.element === 'gate')
    .map(({ id }) => ({ op: 'remove', table: 'openings', id }));
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Gate wall/ })
    .click();
  await desk.shape('o44').click();
  // So that it does not hear of it before its own edit is made.
  await page.context().setOffline(true);
  await page.request.post(`${desk.url}/api/projects/${desk.id}/changes`, {
    data: {
      baseRevision: 0,
      key: 'elsewhere',
      changeSet: { name: 'remove gate wall', changes: [...changes, { op: 'remove', table: 'elements', id: 'gate' }] },
    },
  });
  await desk.type('Along', '2000');
  await page.context().setOffline(false);
  await expect(page.getByText('was set aside')).toBeVisible();
  await expect(page.getByRole('navigation').getByRole('button', { name: /^Gate wall/ })).toHaveCount(0);
  expect((await desk.saved()).elements.gate).toBeUndefined();
  await expect(desk.saving).toHaveText('all else saved');
  // It is kept with its reason, until it is let go.
  await page.getByRole('button', { name: '1 edit set aside' }).click();
  await expect(page.getByRole('dialog')).toContainText('no longer fits');
  await page.getByRole('button', { name: /^Let go of/ }).click();
  await expect(page.getByRole('dialog')).toContainText('There are none any more');
  await expect(desk.saving).toHaveText('saved');
});

test('a full disk is told of, and the edit kept until there is room', async ({ desk, page }) => {
  const full = {
    type: '/problems/disk-full',
    title: 'The disk is full',
    status: 507,
    detail: 'The database has no room left, so the change was not saved.',
  };
  await page.route('**/changes', (route) =>
    route.fulfill({ status: 507, contentType: 'application/problem+json', body: JSON.stringify(full) }),
  );
  await desk.choose('o10');
  await desk.type('Along', '50');
  await expect(page.getByRole('alert').first()).toContainText('The disk is full');
  await expect(desk.saving).toHaveText('1 edit kept in this browser');
  // A reload knows what is kept as well.
  await page.reload();
  await expect(desk.saving).toHaveText('1 edit kept in this browser');
  await page.unroute('**/changes');
  expect((await desk.openingOf('o10')).along.distance).toBe(0.05);
});

/** An edit made by somebody else. */
async function elsewhere(desk: Desk, base: number, id: string, distance: number): Promise<void> {
  const value = { ...granary.openings[id]!, along: { ...granary.openings[id]!.along, distance } };
  const sent = await desk.page.request.post(`${desk.url}/api/projects/${desk.id}/changes`, {
    data: {
      baseRevision: base,
      key: `elsewhere ${base}`,
      over: true,
      changeSet: { name: `move ${granary.openings[id]!.mark}`, changes: [{ op: 'put', table: 'openings', value }] },
    },
  });
  expect(sent.status()).toBe(201);
}

test('a field with nothing typed follows what others do; one that is typed in says so', async ({ desk, page }) => {
  await desk.choose('o10');
  const along = desk.particulars.getByLabel('Along', { exact: true });
  await desk.type('Along', '801');
  expect((await desk.openingOf('o10')).along.distance).toBe(0.801);
  // The cursor stays in it.
  await expect(along).toBeFocused();
  await elsewhere(desk, 1, 'o10', 0.802);
  await expect(along).toHaveValue('802');
  await along.blur();
  expect((await desk.openingOf('o10')).along.distance).toBe(0.802);
  // What was replaced is told, with both figures and a way back.
  const notice = page.getByText('yours was 801 from the');
  await expect(notice).toContainText('now it is 802');
  await page.getByRole('button', { name: 'Put mine back' }).click();
  await expect(along).toHaveValue('801');
  expect((await desk.openingOf('o10')).along.distance).toBe(0.801);

  await along.fill('900');
  await elsewhere(desk, 3, 'o10', 0.803);
  await expect(desk.particulars.getByText('It was changed meanwhile, to 803')).toBeVisible();
  await along.press('Escape');
  await expect(along).toHaveValue('803');
});

test('an edit at which the server fails is set aside, the next ones go on, and it can be tried again', async ({
  desk,
  page,
}) => {
  await page.route('**/changes', async (route) => {
    if (route.request().postData()?.includes('"distance":0.05'))
      await route.fulfill({
        status: 500,
        contentType: 'application/problem+json',
        body: JSON.stringify({
          type: '/problems/failed',
          title: 'The server failed',
          status: 500,
          detail: 'Something went wrong that should not.',
        }),
      });
    else await route.continue();
  });
  await desk.choose('o10');
  await desk.type('Along', '50');
  await desk.choose('o9');
  await desk.type('Up', '1234');
  expect((await desk.openingOf('o9')).up.distance).toBe(1.234);
  expect((await desk.openingOf('o10')).along).toEqual(granary.openings.o10!.along);
  await page.reload();
  await page.unroute('**/changes');
  await page.getByRole('button', { name: '1 edit set aside' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('The server failed. Something went wrong that should not.');
  const download = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Export them…' }).click();
  expect((await download).suggestedFilename()).toBe('Fennel Quay Granary, edits set aside.json');
  await dialog.getByRole('button', { name: /^Try “/ }).click();
  await dialog.getByRole('button', { name: 'Close' }).first().click();
  expect((await desk.openingOf('o10')).along.distance).toBe(0.05);
});

test('edits of a project that was deleted meanwhile stay until it is back', async ({ desk, page }) => {
  await desk.choose('o10');
  await page.request.delete(`${desk.url}/api/projects/${desk.id}`);
  await desk.type('Along', '111');
  await desk.type('Up', '222');
  await expect(desk.saving).toHaveText('deleted, 2 edits kept in this browser');
  await page.reload();
  await expect(page.getByText('This browser keeps 2 edits of it')).toBeVisible();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  expect((await desk.saved()).openings.o10).toMatchObject({ along: { distance: 0.111 }, up: { distance: 0.222 } });
});

test('a server whose data was put back is recognised, and the person chooses', async ({ desk, page }) => {
  await desk.choose('o10');
  await desk.type('Along', '111');
  await desk.saved();
  // As after a backup was restored: nothing is known of the page's state.
  let asked = 0;
  await page.route('**/changes*', async (route) => {
    asked += 1;
    await route.fulfill({
      status: 409,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: '/problems/other-log',
        title: 'The project was put back to an earlier state',
        status: 409,
        detail: '',
        revision: 0,
        mark: 'other',
      }),
    });
  });
  await desk.type('Up', '222');
  await expect(desk.saving).toHaveText('put back to an earlier state');
  await page.waitForTimeout(1500);
  expect(asked).toBe(1);
  await page.unroute('**/changes*');
  await page.getByRole('button', { name: 'Keep what I see' }).click();
  expect((await desk.saved()).openings.o10).toMatchObject({ along: { distance: 0.111 }, up: { distance: 0.222 } });
});
