/** The model view on the real interface: ways of looking, a plane through it, and openings dragged along their walls. */
import { resolveOpening, type Placed } from '@yard-arch/core';
import { changed, Desk, expect, granary, isBrick, test } from './fixtures.ts';

test.use({ folded: false, goesOn: true });

const look = async ({ page }: Desk, ...names: string[]): Promise<void> => {
  await page.getByRole('button', { name: 'How the model is shown' }).click();
  for (const name of names) await page.getByRole('menu').getByText(name, { exact: true }).click();
  await page.keyboard.press('Escape');
  await page.waitForTimeout(500);
};

test('a model that grows out of view says so, and is brought back', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Whole' }).click();
  await page.waitForTimeout(800);
  await desk.type('Length', '90000');
  const mark = page.getByRole('button', { name: /out of view/ });
  await expect(mark).toBeVisible();
  await mark.click();
  await expect(mark).toHaveCount(0);
  await desk.type('Length', '91000');
  await expect(mark).toHaveCount(0);
});

test('the model is folded away, stays so over a reload, and shows what was done meanwhile when it is back', async ({
  desk,
  page,
}) => {
  const model = page.getByRole('complementary', { name: 'Model' });
  const room = async (): Promise<number> => (await page.locator('.particulars').boundingBox())!.height;
  const [before, brick] = [await room(), await desk.modelShare(isBrick)];
  await desk.sheet.focus();
  await page.keyboard.press('m');
  await expect(model.locator('canvas')).toHaveCount(0);
  expect(await room()).toBeGreaterThan(before + 150);
  await desk.choose('o10');
  await desk.type('Along', '100');
  await expect(desk.titleBlock).toContainText('sound');
  await page.reload();
  await expect(desk.titleBlock).toContainText('sound');
  await expect(model.locator('canvas')).toHaveCount(0);
  await desk.particulars.getByLabel('Along', { exact: true }).first().focus();
  // In a field it is a letter.
  await page.keyboard.press('m');
  await expect(model.getByTestId('model')).toHaveCount(0);
  await model.getByRole('button', { name: 'Show the model' }).click();
  await expect.poll(() => desk.modelShare(isBrick)).toBeGreaterThan(brick / 2);
  await expect.poll(room).toBeCloseTo(before, 0);
});

test('an opening is dragged in the model along its own wall, on a round one too, square and level', async ({
  desk,
  page,
}) => {
  await page.getByRole('button', { name: 'Enlarge the model' }).click();
  await page.getByRole('button', { name: 'Face on' }).click();
  await page.waitForTimeout(700);
  // The cart arch stands in the middle of the courtyard wall, at its foot.
  const middle = await desk.modelMiddle();
  const [x, y] = [middle.x, middle.y + 60];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y - 3, { steps: 4 });
  await page.mouse.move(x + 61, y - 3, { steps: 6 });
  await page.waitForTimeout(100);
  await page.mouse.up();
  let document = await desk.saved();
  const before = resolveOpening(granary, granary.openings.o4!) as Placed;
  const after = resolveOpening(document, document.openings.o4!) as Placed;
  expect(after.s - before.s).toBeGreaterThan(0.5);
  expect(after.t).toBeCloseTo(before.t, 6);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Stair drum/ })
    .click();
  await page.getByRole('button', { name: 'Face on' }).click();
  await page.waitForTimeout(700);
  const slits = Object.values(granary.openings).filter(({ pattern }) => pattern === 'slit');
  await desk.shape(slits[1]!.id).click();
  await page.getByRole('button', { name: 'Chosen' }).click();
  await page.waitForTimeout(700);
  const { x: sx, y: sy } = middle;
  await page.mouse.move(sx, sy);
  await page.mouse.down();
  await page.keyboard.down('Alt');
  await page.mouse.move(sx - 20, sy, { steps: 4 });
  await page.mouse.move(sx - 60, sy, { steps: 6 });
  await page.waitForTimeout(100);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  document = await desk.saved();
  const [was, is] = [
    resolveOpening(granary, slits[1]!) as Placed,
    resolveOpening(document, document.openings[slits[1]!.id]!) as Placed,
  ];
  expect(Math.abs(is.s - was.s)).toBeGreaterThan(0.05);
  await expect(desk.titleBlock).toContainText('sound');
});

test('walls are hidden, shown alone, locked, renamed, grouped and found in the register', async ({ desk, page }) => {
  const register = page.getByRole('navigation');
  const menu = async (wall: string, item: string): Promise<void> => {
    await register.getByRole('button', { name: `What to do with ${wall}` }).click({ force: true });
    await page.getByRole('menu').getByText(item, { exact: true }).click();
  };
  const share = await desk.modelShare(isBrick);
  await menu('Courtyard wall', 'Hide');
  await page.waitForTimeout(500);
  expect(await desk.modelShare(isBrick)).toBeLessThan(share);
  await register.getByText(/1 hidden · show all/).click();
  await menu('Stair drum', 'Show alone');
  await expect(register).toContainText('18 hidden');
  await page.reload();
  await expect(register).toContainText('18 hidden');
  await register.getByText(/show all/).click();
  await menu('Courtyard wall', 'Lock');
  await desk.drag([4.4, 4.4], [5, 4.4]);
  await page.mouse.up();
  await expect(page.getByText('Courtyard wall is locked.', { exact: false })).toBeVisible();
  expect((await desk.openingOf('o9')).along).toEqual(granary.openings.o9!.along);
  await menu('Courtyard wall', 'Unlock');
  await register.getByRole('button', { name: /^Courtyard wall/ }).dblclick();
  await page.getByRole('textbox', { name: 'New name of Courtyard wall' }).fill('Yard front');
  await page.keyboard.press('Enter');
  await desk.type('Group', 'Granary');
  await register.getByLabel('List').selectOption('by group');
  await expect(register.getByRole('region', { name: 'Granary' })).toContainText('Yard front');
  await register.getByLabel('Search elements and openings').fill('slit');
  await expect(register.getByRole('listitem')).toHaveCount(1);
  await expect(register.getByRole('listitem')).toContainText('Stair drum');
  expect((await desk.saved()).elements.courtyard).toMatchObject({ name: 'Yard front', group: 'Granary' });
});

test('context menus open on the model and in the register, and the right button still pans', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Enlarge the model' }).click();
  await page.getByRole('button', { name: 'Face on' }).click();
  await page.waitForTimeout(700);
  const box = (await page.getByTestId('model').boundingBox())!;
  // The middle arch of the first floor stands over the middle of the wall.
  const middle = Object.values(granary.openings).find(({ mark }) => mark === 'D-11')!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2 - 12];
  await page.mouse.click(x, y, { button: 'right' });
  // It is about what was under the pointer, which is chosen by it.
  await page.getByRole('menuitem', { name: /^Block up D-11/ }).click({ timeout: 20_000 });
  expect((await desk.openingOf(middle.id)).blockedUp).toBe(true);
  const before = await desk.modelPixels();
  await page.mouse.move(x, y);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(x + 60, y + 30, { steps: 4 });
  await page.mouse.up({ button: 'right' });
  await page.waitForTimeout(500);
  await expect(page.getByRole('menu')).toBeHidden();
  expect(changed(before, await desk.modelPixels())).toBeGreaterThan(0.1);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Quay wall/ })
    .click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Lock' }).click();
  const document = await desk.saved();
  expect(
    Object.values(document.elements)
      .filter(({ locked }) => locked)
      .map(({ name }) => name),
  ).toEqual(['Quay wall']);
  // The edges in which a wall ends are looked at square on too.
  const face = await desk.modelPixels();
  await look(desk, 'End edge on');
  expect(changed(face, await desk.modelPixels())).toBeGreaterThan(0.2);
});

test.describe('a model that is drawn finely', () => {
  test.use({ finer: true, goesOn: false });

  test('the model is shown in each way, cut by a plane, in parallel, and copied as a picture', async ({
    desk,
    page,
  }) => {
    await page.getByRole('button', { name: 'Enlarge the model' }).click();
    await page.waitForTimeout(800);
    const edged = await desk.modelPixels();
    await look(desk, 'See-through');
    const through = await desk.modelPixels();
    expect(changed(edged, through)).toBeGreaterThan(0.1);
    await look(desk, 'Outsides and insides');
    expect(await desk.modelShare(isBrick)).toBeLessThan(0.02);
    await look(desk, 'Cut through by a plane');
    const stripes = (r: number, g: number, b: number): boolean =>
      r > 100 && r < 235 && g < 135 && b < 110 && r > g * 1.6;
    expect(await desk.modelShare(stripes)).toBeGreaterThan(0.002);
    await look(desk, 'Materials and edges');
    const cut = await desk.modelPixels();
    await page.getByRole('slider', { name: 'Where the plane stands' }).fill('8');
    await page.waitForTimeout(400);
    expect(changed(cut, await desk.modelPixels())).toBeGreaterThan(0.02);
    await look(desk, 'Cut through by a plane', 'Parallel, not perspective');
    expect(changed(edged, await desk.modelPixels())).toBeGreaterThan(0.02);
    expect(await desk.modelShare(isBrick)).toBeGreaterThan(0.05);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await look(desk, 'Copy the view as PNG');
    await expect(page.getByText(/view is on the clipboard|saved as a PNG/)).toBeVisible();
  });

  test('where the processor draws it, the model is drawn roughly while it is turned and finely once it rests', async ({
    desk,
    page,
  }) => {
    // Dots of the drawing across a pixel of the page.
    const fineness = (): Promise<number> =>
      page
        .locator('[data-testid=model] canvas[data-engine]')
        .evaluate((canvas) => (canvas as HTMLCanvasElement).width / canvas.clientWidth);
    await expect.poll(fineness).toBeCloseTo(2, 1);
    const still = await desk.modelPixels();
    const { x, y } = await desk.modelMiddle();
    await page.mouse.move(x, y + 40);
    await page.mouse.down();
    await page.mouse.move(x + 60, y + 46, { steps: 4 });
    await expect.poll(fineness, { intervals: [20] }).toBeCloseTo(1, 1);
    await page.mouse.up();
    await expect.poll(fineness).toBeCloseTo(2, 1);
    expect(changed(still, await desk.modelPixels())).toBeGreaterThan(0.05);
  });
});

test.describe('a model that cannot be shown', () => {
  test.use({ filled: false, goesOn: false });

  test('stops nothing else, and is tried again when it is asked for', async ({ page, application, project }) => {
    await page.addInitScript(() => {
      const context = HTMLCanvasElement.prototype.getContext;
      Object.assign(window, { without: true });
      HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...more: unknown[]) {
        if (kind.startsWith('webgl') && 'without' in window) return null;
        return context.call(this, kind as '2d', ...(more as [])) as never;
      };
    });
    const desk = new Desk(page, application.url, project, { finer: true, folded: false });
    await desk.open();
    const model = page.getByRole('complementary', { name: 'Model' });
    await expect(model).toContainText('The model cannot be shown');
    await expect(model).toContainText('WebGL is switched off');
    // All else goes on, what is cut too.
    await desk.choose('o10');
    await desk.type('Along', '100');
    await expect(desk.titleBlock).toContainText('sound');
    expect((await desk.openingOf('o10')).along.distance).toBe(0.1);
    await page.evaluate(() => delete (window as { without?: boolean }).without);
    await model.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByTestId('model')).toBeVisible();
    await expect.poll(() => desk.modelShare(isBrick)).toBeGreaterThan(0.02);

    // The graphics card is taken away, and comes back.
    const reset = (how: 'loseContext' | 'restoreContext'): Promise<void> =>
      page.evaluate((how) => {
        const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="model"] canvas:not(.still)')!;
        const held = window as { reset?: WEBGL_lose_context | null | undefined };
        held.reset ??= canvas.getContext('webgl2')!.getExtension('WEBGL_lose_context');
        held.reset![how]();
      }, how);
    await reset('loseContext');
    await expect(model).toContainText('has been taken away');
    await reset('restoreContext');
    await expect(model).not.toContainText('has been taken away');
    await expect.poll(() => desk.modelShare(isBrick)).toBeGreaterThan(0.02);
  });
});

test('the plane through the model can be moved and turned beside the buttons of the pane, and the menu of looks is seen whole', async ({
  desk,
  page,
}) => {
  await expect(desk.titleBlock).toContainText('sound');
  await page.getByRole('button', { name: 'How the model is shown' }).click();
  const menu = (await page.getByRole('menu').boundingBox())!;
  expect(menu.y).toBeGreaterThanOrEqual(0);
  expect(menu.y + menu.height).toBeLessThanOrEqual(800);
  for (const item of await page.locator('.looks [role^=menuitem]').all()) {
    const box = (await item.boundingBox())!;
    expect(box.y + box.height).toBeLessThanOrEqual(menu.y + menu.height);
  }
  await page.getByRole('menuitemcheckbox', { name: 'Cut through by a plane' }).click();
  await page.keyboard.press('Escape');
  const bar = page.getByRole('group', { name: 'Plane through the building' });
  const [right, left] = [
    (await bar.boundingBox())!,
    (await page.getByRole('button', { name: 'Enlarge the model' }).boundingBox())!,
  ];
  expect(right.x + right.width).toBeLessThan(left.x);
  await bar.getByRole('button', { name: 'turn' }).click();
  await expect(bar.locator('output')).toBeVisible();
});
