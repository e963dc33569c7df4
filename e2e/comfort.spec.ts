/** Finder, keys, context menus, panes, history, versions, two tabs at once, and the table, on the real interface. */
import AxeBuilder from '@axe-core/playwright';
import { resolveOpening, type Placed } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { Desk, expect, granary, test } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

const at = (document: ProjectDocument, id: string): Placed =>
  resolveOpening(document, document.openings[id]!) as Placed;

test('anything is found and done by name, keys are listed, and a context menu knows what it was opened on', async ({
  desk,
  page,
}) => {
  await desk.choose('o9');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('block b-09');
  await page.keyboard.press('Enter');
  // The finder may still be on its way when that is typed.
  await expect.poll(async () => (await desk.openingOf('o9')).blockedUp).toBe(true);
  await page.getByRole('button', { name: 'Find…' }).click();
  await page.keyboard.type('gate wall');
  await page.keyboard.press('Enter');
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Gate wall');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('nothing is called so');
  await expect(page.getByText('Nothing is called that.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('nudge what is chosen by 10 mm');
  await page.keyboard.press('Escape');
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Courtyard wall/ })
    .click();
  await desk.shape('o2').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Block up B-02' }).click();
  expect((await desk.openingOf('o2')).blockedUp).toBe(true);
  await page.keyboard.press('Control+z');
  expect((await desk.openingOf('o2')).blockedUp).toBe(false);
});

test('the history is stepped through, and a version is gone back to as an edit', async ({ desk, page }) => {
  await desk.choose('o9');
  await page.getByTestId('sheet').focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'History and versions' }).click();
  const history = desk.particulars.getByRole('listitem');
  await expect(history.filter({ hasText: 'nudge B-09' })).toHaveCount(3);
  await expect(desk.saving).toHaveText('saved');
  await desk.particulars.getByRole('textbox', { name: 'Name of the version' }).fill('Three along');
  await page.keyboard.press('Enter');
  await expect(desk.particulars).toContainText('Three along');
  await history.filter({ hasText: 'nudge B-09' }).last().getByRole('button').click();
  expect(at(await desk.saved(), 'o9').s - at(granary, 'o9').s).toBeCloseTo(0.1, 9);
  await desk.particulars.getByRole('button', { name: 'as it was before' }).click();
  expect((await desk.saved()).openings).toEqual(granary.openings);
  await desk.particulars.getByRole('button', { name: 'go back to it' }).click();
  await expect(page.getByText('The project is as it was at “Three along”')).toBeVisible();
  expect(at(await desk.saved(), 'o9').s - at(granary, 'o9').s).toBeCloseTo(0.3, 9);
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  expect((await desk.saved()).openings).toEqual(granary.openings);
});

test('two tabs see each other’s edits and lose none, even of one opening', async ({ desk, page }) => {
  const other = new Desk(await page.context().newPage(), desk.url, desk.id);
  await other.open();
  await desk.choose('o9');
  await desk.type('Along', '300');
  await expect(other.sheet.locator('[data-opening=o9]')).toHaveAttribute('aria-label', /4.050 along/);
  await other.choose('o9');
  await other.particulars.getByRole('button', { name: 'Block up' }).click();
  await expect(desk.shape('o9')).toHaveAttribute('data-state', 'blocked up');
  // At once, and of the same opening: one moves it, the other changes its grip.
  await page.context().setOffline(true);
  await desk.type('Along', '500');
  await other.particulars.getByLabel('Held by').selectOption('head centre');
  await desk.choose('o12');
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('b');
  await page.context().setOffline(false);
  await expect(desk.saving).toHaveText('saved', { timeout: 20_000 });
  await expect(other.saving).toHaveText('saved', { timeout: 20_000 });
  const document = await desk.saved();
  expect(document.openings.o9).toMatchObject({ blockedUp: true, along: { distance: 0.5 }, grip: { level: 'head' } });
  expect(document.openings.o12!.blockedUp).toBe(true);
  for (const one of [desk, other]) {
    await expect(one.shape('o12')).toHaveAttribute('data-state', 'blocked up');
    await expect(one.shape('o9')).toHaveAttribute('aria-label', /4.250 along/);
  }
  // Undo takes back only what was done in that tab.
  await other.page.bringToFront();
  await other.page.getByTestId('sheet').focus();
  await other.page.keyboard.press('Control+z');
  await other.page.keyboard.press('Control+z');
  const back = await other.saved();
  expect(back.openings.o9).toMatchObject({ blockedUp: false, along: { distance: 0.5 }, grip: { level: 'sill' } });
  expect(back.openings.o12!.blockedUp).toBe(true);
});

test('the table of openings does what the drawing does', async ({ desk, page }) => {
  await page.getByRole('tab', { name: 'Openings' }).click();
  const table = page.getByRole('region', { name: 'Openings' });
  await expect(table.getByRole('row')).toHaveCount(22);
  await table.getByLabel('Along of B-02').fill('4000');
  await page.keyboard.press('Enter');
  await table.getByLabel('Pattern of A-01').selectOption({ label: 'Yard door' });
  await table.getByLabel('Block up C-10').check();
  await table.getByLabel('Choose F-06').check();
  await table.getByLabel('Choose G-07').check();
  await expect(desk.particulars.getByRole('heading', { name: '2 openings' })).toBeVisible();
  await table.getByRole('button', { name: /^Up/ }).click();
  await expect(table.getByRole('row').nth(1)).toContainText('A-01');
  await page.getByLabel('of all walls').check();
  await page.getByLabel('Search openings').fill('slit');
  await expect(table.getByRole('row')).toHaveCount(5);
  const document = await desk.saved();
  expect(at(document, 'o2').s).toBeCloseTo(4, 9);
  expect(at(document, 'o1').t).toBe(0);
  expect(document.openings.o10!.blockedUp).toBe(true);
});

test('no page has a serious finding of the accessibility checker', async ({ desk, page, application }) => {
  const check = async (what: string, within?: string): Promise<void> => {
    // Entrances fade; what is half there has no contrast yet.
    await page.waitForTimeout(400);
    // There are no frames to go into, and what passes is not asked for.
    const checker = new AxeBuilder({ page })
      .setLegacyMode(true)
      .options({ resultTypes: ['violations'], preload: false });
    const { violations } = await (within ? checker.include(within) : checker).analyze();
    const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
    expect(
      serious.map(
        ({ id, nodes }) =>
          `${what}: ${id} at ${nodes
            .map((node) => node.target.join(' '))
            .slice(0, 3)
            .join(', ')}`,
      ),
    ).toEqual([]);
  };
  await check('sheet');
  await desk.choose('o9');
  await check('opening', '[data-testid=particulars]');
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('Control+a');
  for (const title of ['Line up', 'Spread', 'Even out', 'Mirror', 'Copy', 'Copy to walls and floors'])
    await desk.particulars.locator('summary', { hasText: new RegExp(`^${title}$`) }).click();
  await check('many openings', '[data-testid=particulars]');
  await page.getByRole('button', { name: 'History and versions' }).click();
  await check('history', '[data-testid=particulars]');
  await page.getByRole('tab', { name: 'Plan' }).click();
  await check('plan', 'main');
  await page.getByRole('tab', { name: 'Openings' }).click();
  await check('table', 'main');
  await page.keyboard.press('Control+k');
  await check('finder', '[role=dialog]');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Show the model' }).click();
  await page.getByRole('button', { name: 'How the model is shown' }).click();
  await check('look', '[role=menu]');
  await page.goto(application.url);
  await page.getByRole('article').first().waitFor();
  await check('projects');
});

// The last, for the page goes on with its panes as they were left, and a large model takes longer to draw.
test('panes are resized by dragging and by keys, and stay so; the strip of patterns is drawn up', async ({
  desk,
  page,
}) => {
  await page.getByRole('button', { name: 'More of the patterns' }).click();
  await desk.strip.getByLabel('Search patterns').fill('arch');
  await expect(desk.strip.getByRole('button', { name: /placed|unused/ })).toHaveCount(2);
  await desk.strip.getByRole('button', { name: /^Granary arch/ }).click();
  await desk.strip.getByRole('group', { name: 'Sizes of Granary arch' }).getByText('1 100 × 1 750').click();
  await expect(desk.strip.getByRole('button', { name: /^Granary arch/ })).toHaveAttribute(
    'title',
    'Click to stop placing',
  );
  await page.keyboard.press('Escape');
  const board = page.getByRole('main');
  const before = (await board.boundingBox())!;
  const divider = page.getByRole('separator', { name: 'Width of the model and the particulars' });
  const box = (await divider.boundingBox())!;
  await page.mouse.move(box.x + 5, box.y + 300);
  await page.mouse.down();
  await page.mouse.move(box.x - 140, box.y + 300, { steps: 6 });
  await page.mouse.up();
  const after = (await board.boundingBox())!;
  expect(before.width - after.width).toBeGreaterThan(100);
  await page.reload();
  await expect(desk.titleBlock).toContainText('sound');
  expect(Math.abs((await board.boundingBox())!.width - after.width)).toBeLessThan(4);
  await expect(desk.strip.getByLabel('Search patterns')).toBeVisible();
  await page.getByRole('button', { name: 'Fewer patterns' }).click();
  await expect(desk.strip.getByLabel('Search patterns')).toBeHidden();
  await divider.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  expect((await board.boundingBox())!.width).toBeGreaterThan(after.width);
});
