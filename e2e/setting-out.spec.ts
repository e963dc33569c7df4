/** The setting-out page: the whole path from placing an opening to taking the model away. */
import type { Wall } from '@yard-arch/document';
import { readFileSync } from 'node:fs';
import { cutModel, prove, resolveOpening } from '@yard-arch/core';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import { changed, expect, granary, isBrick, test } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

test('an opening is placed by a click, where its preview was', async ({ desk, page }) => {
  await desk.strip.getByRole('button', { name: /Oculus/ }).click();
  const { x, y } = await desk.at(10.9, 2.2);
  await page.mouse.move(x - 20, y);
  await page.mouse.move(x, y, { steps: 3 });
  await expect(page.getByTestId('ghost')).toBeVisible();
  const ghost = (await page.getByTestId('ghost').boundingBox())!;
  await page.mouse.click(x, y);
  await expect(desk.titleBlock).toContainText('21 cut');
  const document = await desk.saved();
  const made = Object.values(document.openings).find((opening) => !granary.openings[opening.id])!;
  expect(made).toMatchObject({ element: 'courtyard', pattern: 'oculus', mark: 'O-54' });
  const box = (await desk.shape(made.id).locator('.shape').boundingBox())!;
  expect(Math.abs(box.x - ghost.x)).toBeLessThan(2.5);
  expect(Math.abs(box.y - ghost.y)).toBeLessThan(2.5);
});

test('a drag snaps to heads and sills and says why, and Escape gives it up', async ({ desk, page }) => {
  await desk.drag([14.8, 1.7], [13.4, 1.74]);
  await expect(page.getByTestId('reason')).toContainText(/sill|head/);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect((await desk.openingOf('o6')).along).toEqual(granary.openings.o6!.along);
  await desk.drag([14.8, 1.7], [13.4, 1.74]);
  await page.mouse.up();
  const moved = await desk.openingOf('o6');
  expect(moved.up).toEqual({ from: 'datum', datum: 'ground', distance: 0 });
  // It came into line with what stands above it, and is held to that now.
  const placed = resolveOpening(await desk.saved(), moved);
  expect('outline' in placed && placed.s).toBeLessThan(14.8 - 0.55 - 1);
});

test('what an opening comes into line with it is held to, and a click lets it go', async ({ desk, page }) => {
  const middle = await desk.at(9.6, 7.9);
  await desk.strip.getByRole('button', { name: /Lamp niche/ }).click();
  await page.mouse.move(middle.x - 30, middle.y);
  await page.mouse.move(middle.x + 2, middle.y, { steps: 4 });
  await expect(page.getByTestId('reason')).toContainText(/axis D|middle/);
  await page.mouse.click(middle.x + 2, middle.y);
  await page.keyboard.press('Escape');
  const made = Object.values((await desk.saved()).openings).find((opening) => !granary.openings[opening.id])!;
  expect(made.along).toMatchObject({ distance: 0 });
  expect(['axis', 'middle']).toContain(made.along.from);
  const chip = page.getByTestId('held').first();
  await expect(chip).toContainText(/axis D|middle/);
  await chip.click();
  expect((await desk.openingOf(made.id)).along).toEqual({ from: 'start', distance: 9.6 });
  await expect(page.getByTestId('held').filter({ hasText: /axis D|middle/ })).toHaveCount(0);
  // Dragged under its neighbour it is held to that, and goes where that goes.
  await desk.choose('o10');
  await desk.drag([6.9, 4.6], [8.16, 4.6]);
  await page.mouse.up();
  const held = await desk.openingOf('o10');
  expect(held.along.from).not.toBe('start');
  await page.keyboard.press('Control+z');
  expect((await desk.openingOf('o10')).along).toEqual(granary.openings.o10!.along);
});

test('distances are typed where they stand on the sheet', async ({ desk, page }) => {
  await desk.choose('o9');
  await desk.sheet.locator('[data-figure="before"]').click();
  await page.getByRole('textbox', { name: /Pier before it/ }).fill('1500');
  await page.keyboard.press('Enter');
  const document = await desk.saved();
  const [a, b] = ['o8', 'o9'].map((id) => resolveOpening(document, document.openings[id]!) as { s: number });
  expect(b!.s - a!.s - 1.3).toBeCloseTo(1.5, 9);
  await expect(desk.sheet.locator('[data-figure="before"]')).toContainText('1 500');
  await desk.sheet.locator('[data-figure="sill"]').click();
  await page.getByRole('textbox', { name: /Base to sill/ }).fill('3.9 m');
  await page.keyboard.press('Enter');
  expect((await desk.openingOf('o9')).up.distance).toBeCloseTo(0.15, 9);
});

test('a size that is changed changes all its openings, and impossible ones are refused where they are typed', async ({
  desk,
}) => {
  const width = async (id: string): Promise<number> => (await desk.shape(id).locator('.shape').boundingBox())!.width;
  const before = await Promise.all(['o8', 'o9', 'o14'].map(width));
  await desk.strip.getByRole('button', { name: /Granary arch/ }).click();
  await desk.type('Span', '1500');
  await desk.particulars.getByLabel('Span').first().fill('0');
  await desk.particulars.getByLabel('Span').first().press('Enter');
  await expect(desk.particulars.getByRole('alert')).toContainText('must be more than 0');
  await desk.particulars.getByLabel('Span').first().fill('5000');
  await desk.particulars.getByLabel('Span').first().press('Enter');
  await expect(desk.particulars.getByRole('alert')).toContainText('at least 2 500 mm high');
  const after = await Promise.all(['o8', 'o9', 'o14'].map(width));
  after.forEach((w, i) => expect(w / before[i]!).toBeCloseTo(1.5 / 1.3, 1));
  expect((await desk.saved()).patterns.arch!.sizes.a!.dimensions.span).toBe(1.5);
});

test('walls are lengthened, thickened, moved and turned, and their openings follow', async ({ desk, page }) => {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^East gable/ })
    .click();
  await expect(desk.particulars).toContainText('Openings, 4');
  // By itself, for it is moved out from under its roof.
  await desk.particulars.getByLabel('Top', { exact: true }).selectOption('gabled');
  await desk.type('Apex', '12.2 m');
  await desk.type('Length', '12 m');
  await desk.type('Thick', '600');
  await desk.unfold('Where it stands');
  await desk.type('Start, x', '22000');
  await desk.type('Turned by', '80');
  const document = await desk.saved();
  expect(document.elements.east).toMatchObject({ length: 12, turn: 80, start: { x: 22 } });
  expect(document.elements.east!.layers[0]!.thickness).toBe(0.6);
  expect(document.openings).toEqual(granary.openings);
  const middle = resolveOpening(document, document.openings.o23!) as { s: number; profile: { width: number } };
  expect(middle.s + middle.profile.width / 2).toBeCloseTo(6 - 1.8, 9);
  await expect(desk.titleBlock).toContainText('sound');
});

test('a wall is given a gable, and its sheet shows it', async ({ desk, page }) => {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Quay wall/ })
    .click();
  const before = (await page.getByTestId('face').boundingBox())!;
  await desk.particulars.getByLabel('Top').selectOption('gabled');
  await desk.type('Apex', '12 m');
  await desk.type('Apex at', '4800');
  const document = await desk.saved();
  expect(document.elements.quay).toMatchObject({ top: { kind: 'gabled', apex: 12, at: 0.25 } });
  const after = (await page.getByTestId('face').boundingBox())!;
  expect(after.height / after.width).toBeCloseTo((before.height / before.width) * (12 / 8.4), 1);
  await desk.type('Apex at', '30 m');
  await expect(desk.particulars.getByRole('alert')).toContainText('between the start and the end');
});

test('openings are blocked up, opened, nudged, changed and removed; everything is undone and done again', async ({
  desk,
  page,
}) => {
  await desk.choose('o10');
  await desk.sheet.press('b');
  await expect(desk.shape('o10')).toHaveAttribute('data-state', 'blocked up');
  await desk.sheet.press('ArrowRight');
  await desk.sheet.press('Shift+ArrowUp');
  await desk.particulars.getByLabel('Size').selectOption('b');
  await desk.particulars.getByRole('button', { name: 'Open up' }).click();
  await expect(desk.shape('o10')).toHaveAttribute('data-state', 'cut');
  await desk.choose('o11');
  await desk.sheet.press('Delete');
  await expect(desk.shape('o11')).toHaveCount(0);
  await desk.particulars.getByRole('button', { name: /Remove wall and its 20 openings/ }).click();
  await expect(page.getByRole('navigation').getByRole('button', { name: /^Courtyard wall/ })).toHaveCount(0);
  const changed = await desk.saved();
  expect(changed.elements.courtyard).toBeUndefined();

  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  const back = await desk.saved();
  expect(back.openings).toEqual(granary.openings);
  expect(back.elements).toEqual(granary.elements);
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+Shift+z');
  expect((await desk.saved()).openings).toEqual(changed.openings);
});

test('what cannot be cut is shown and explained, never dropped', async ({ desk }) => {
  await desk.choose('o14');
  await desk.type('Along', '4000');
  await expect(desk.shape('o14')).toHaveAttribute('data-state', 'not cut');
  await expect(desk.particulars.getByRole('alert')).toContainText('It lies off the wall');
  await expect(desk.titleBlock).toContainText('1 opening not cut');
  await desk.strip.getByRole('button', { name: /Oculus/ }).click();
  await desk.type('Diameter', '40 m');
  await expect(desk.shape('o18')).toHaveAttribute('data-state', 'not cut');
  await expect(desk.titleBlock).toContainText('2 openings not cut');
  expect(Object.keys((await desk.saved()).openings)).toHaveLength(53);
});

test('a pattern becomes a niche with a section of its own, and a wall takes layers and joins', async ({
  desk,
  page,
}) => {
  await desk.shape('o15').click();
  await page.getByRole('button', { name: 'edit pattern' }).click();
  const { particulars } = desk;
  await particulars.getByRole('button', { name: /^Cut:/ }).click();
  await page.getByRole('menuitem', { name: 'niche to a depth' }).click();
  // The pattern's brick check stands at 112.5 mm: at 100 mm deep it does not fit, which is said on the sheet and where it is drawn.
  await desk.type('Depth', '100');
  await expect(particulars.getByRole('alert').first()).toContainText('no less deep than the cut');
  await expect(desk.titleBlock).toContainText('not cut');
  await desk.type('Depth', '200');
  await expect(desk.titleBlock).toContainText('10 niches');
  await particulars.getByLabel('Side', { exact: true }).selectOption('head');
  await particulars.getByLabel('Arris', { exact: true }).selectOption('chamfered');
  await expect
    .poll(async () => (await desk.saved()).patterns.light!.sections?.head?.arris)
    .toEqual({ kind: 'chamfered', size: 0.012 });
  await expect(desk.shape('o15')).toHaveAttribute('data-state', 'niche');

  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Cart shed back/ })
    .click();
  await particulars.getByRole('button', { name: 'add a layer inside' }).click();
  await expect(desk.titleBlock).toContainText('sound');
  await expect.poll(async () => (await desk.saved()).elements['shed-back']!.layers.length).toBe(2);
  await expect(particulars).toContainText('start mitred with Cart shed north');
  await desk.type('Curves by', '30');
  await expect.poll(async () => ((await desk.saved()).elements['shed-back'] as Wall).sweep).toBe(30);
  await expect(desk.titleBlock).toContainText('sound');
});

test('an opening cuts the wall behind it too when it is asked to', async ({ desk, page }) => {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Cart shed front/ })
    .click();
  await desk.shape('o34').click();
  await desk.particulars
    .getByLabel(/Cart shed/)
    .first()
    .check();
  await expect.poll(async () => (await desk.saved()).openings.o34!.further?.length ?? 0).toBe(1);
  // The hole is there, in both: the wall behind has lost as much as the opening takes of it.
  const after = await desk.saved();
  const [behind] = after.openings.o34!.further!;
  const model = cutModel(after);
  expect(model.statuses.get('o34')!.further).toMatchObject([
    { element: behind, state: expect.stringMatching(/^(cut|notched)$/) },
  ]);
  const whole = cutModel({ ...after, openings: { ...after.openings, o34: { ...after.openings.o34!, further: [] } } });
  const volumeOf = (of: typeof model): number => prove(of.cuts.get(behind!)!.mesh).volume;
  expect(volumeOf(whole) - volumeOf(model)).toBeGreaterThan(0.5);
  await expect(desk.titleBlock).toContainText('sound');
});

test.describe('beside the sheet', () => {
  test.use({ folded: false });

  test('the model is drawn, follows the sheet, and can be picked from', async ({ desk, page }) => {
    await expect.poll(() => desk.modelShare(isBrick)).toBeGreaterThan(0.04);
    await page.getByRole('button', { name: 'Face on' }).click();
    // In the middle of the wall an arch stands.
    const middle = await desk.modelMiddle();
    // A click before the view has turned picks by the view before it; so it is tried again.
    await expect(async () => {
      await page.mouse.click(middle.x, middle.y);
      await expect(desk.particulars).toContainText('Opening D-11', { timeout: 2000 });
    }).toPass({ timeout: 30_000 });
    await expect(desk.shape('o11')).toHaveAttribute('aria-pressed', 'true');
    await page.mouse.click(middle.x + middle.width * 0.07, middle.y);
    await expect(desk.particulars).toContainText('Wall');

    // Its contact shade comes when it rests.
    await page.waitForTimeout(3000);
    const before = await desk.modelPixels();
    expect(changed(before, await desk.modelPixels())).toBeLessThan(0.01);
    await desk.particulars.getByLabel('Top', { exact: true }).selectOption('level');
    await desk.type('Height', '5000');
    await expect.poll(async () => changed(before, await desk.modelPixels())).toBeGreaterThan(0.08);
  });
});

test.describe('with what fills the openings', () => {
  test.use({ filled: true });

  test('the model is taken away as GLB and OBJ', async ({ desk }) => {
    const { page } = desk;
    const take = async (name: string) => {
      const download = page.waitForEvent('download');
      await page.getByRole('button', { name: 'Export' }).click();
      await page.getByRole('menuitem', { name }).click();
      return download;
    };
    const glb = await take('GLB, for renderers');
    expect(glb.suggestedFilename()).toBe('fennel-quay-granary.glb');
    const gltf = await new WebIO()
      .registerExtensions([KHRTextureTransform])
      .readBinary(new Uint8Array(readFileSync(await glb.path())));
    const [scene] = gltf.getRoot().listScenes();
    expect(scene!.listChildren()).toHaveLength(19);
    // Boards and frames stand at each window, leaves hang in them, and all that are alike are one mesh.
    const boards = gltf
      .getRoot()
      .listNodes()
      .filter((node) => node.getExtras().part);
    expect(boards.length).toBeGreaterThan(120);
    expect(new Set(boards.map((node) => node.getMesh())).size).toBeLessThan(70);
    expect((await take('OBJ with MTL (ZIP)')).suggestedFilename()).toBe('fennel-quay-granary.obj.zip');
  });
});

test('lengths are read and shown in feet and inches when asked', async ({ desk, page }) => {
  await page.getByRole('button', { name: /Units/ }).click();
  await page.getByRole('menuitem', { name: 'Feet and inches' }).click();
  await expect(desk.particulars.getByLabel('Length')).toHaveValue(`62' 11 29/32"`);
  await desk.type('Length', `64' 6 1/2"`);
  const wall = (await desk.saved()).elements.courtyard as Wall;
  expect(wall.length).toBeCloseTo((64 * 12 + 6.5) * 0.0254, 9);
});

test('a new project is drawn from nothing by keyboard alone', async ({ page, application, request }) => {
  const made = await request.post(`${application.url}/api/projects`, { data: { name: 'Undercroft' } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${application.url}/projects/${id}`);
  await page.getByRole('button', { name: 'Add a wall' }).last().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('title-block')).toContainText('0 cut');
  await page.getByRole('button', { name: 'New pattern' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Find a shape')).toBeFocused();
  await page.keyboard.type('rounded rect');
  await expect(page.getByRole('dialog', { name: 'New pattern' }).locator('.grid button')).toHaveText([
    'Rounded rectangle',
  ]);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Find a shape')).toHaveCount(0);
  // What closes gives the focus back when it has gone; only then can it be taken to the sheet for good.
  await expect(async () => {
    await page.getByTestId('sheet').focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByTestId('ghost')).toBeVisible({ timeout: 500 });
    await page.waitForTimeout(200);
    await expect(page.getByTestId('sheet')).toBeFocused({ timeout: 100 });
  }).toPass();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('title-block')).toContainText('1 cut');
  await expect(page.getByTestId('title-block')).toContainText('sound');
});

test('the drawing is dragged about with the pan tool, without the middle button', async ({ desk, page }) => {
  const left = async (): Promise<number> => Number(await desk.sheet.getAttribute('data-x'));
  const before = await left();
  const tool = page.getByRole('button', { name: 'Pan', exact: true });
  await tool.click();
  // Even on an opening, which stays where it is.
  const from = await desk.at(9, 1);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x - 80, from.y, { steps: 4 });
  await page.mouse.up();
  expect(await left()).toBeCloseTo(before - 80, 0);
  expect((await desk.saved()).openings).toEqual(granary.openings);
  await desk.sheet.press('Escape');
  await expect(tool).toHaveAttribute('aria-pressed', 'false');
});

test('while it is panned the drawing goes with the pointer, and far out of sight it is still there', async ({
  desk,
  page,
}) => {
  // Near enough that it is wider than the sheet.
  const middle = await desk.at(6, 2);
  await page.mouse.move(middle.x, middle.y);
  for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -300);
  await expect.poll(async () => Number(await desk.sheet.getAttribute('data-scale'))).toBeGreaterThan(150);
  const place = async (): Promise<number> => (await page.getByTestId('face').boundingBox())!.x;
  const tick = async (): Promise<number> => (await desk.sheet.locator('.string .tick').first().boundingBox())!.x;
  const [face, string] = [await place(), await tick()];
  await page.mouse.down({ button: 'middle' });
  for (const [x, y] of [
    [60, 10],
    [180, 20],
    [300, 30],
    [420, 40],
  ] as const) {
    await page.mouse.move(middle.x + x, middle.y + y, { steps: 3 });
    await expect.poll(place).toBeCloseTo(face + x, 0);
    expect(await tick()).toBeCloseTo(string + x, 0);
  }
  // The wheel waits until the hand is off.
  const scale = await desk.sheet.getAttribute('data-scale');
  await page.mouse.wheel(0, -300);
  await page.mouse.up({ button: 'middle' });
  expect(await desk.sheet.getAttribute('data-scale')).toBe(scale);
  expect(await place()).toBeCloseTo(face + 420, 0);
  expect(await tick()).toBeCloseTo(string + 420, 0);
  await desk.sheet.press('0');
  await expect.poll(async () => Number(await desk.sheet.getAttribute('data-scale'))).toBeLessThan(150);
});

test('arrows and Delete go on after a button of the particulars was pressed', async ({ desk, page }) => {
  await desk.choose('o10');
  const before = (await desk.openingOf('o10')).up;
  const button = page.getByTestId('particulars').getByRole('button').first();
  await button.focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await desk.openingOf('o10')).up).not.toEqual(before);
  await button.focus();
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await desk.saved()).openings.o10).toBeUndefined();
});
