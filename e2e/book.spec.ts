/** The pattern book in the real interface: a pattern from nothing to a placed window, its drawing edited where its dimensions stand, the shelf between two projects, files. */
import { readFileSync } from 'node:fs';
import { writePlainGlb } from '@yard-arch/core';
import { expect, goTo, test, type Desk } from './fixtures.ts';

test.use({ goesOn: true });

/** Opens the book on a pattern. */
async function openBook({ page, id }: Desk, pattern: string): Promise<void> {
  await goTo(page, `/projects/${id}/patterns/${pattern}`);
  await expect(page.getByTestId('detail').locator('svg')).toBeVisible({ timeout: 30_000 });
}

test('a pattern is made from nothing to a window with a casement, and placed', async ({ desk, page }) => {
  await page.getByRole('tab', { name: 'Pattern book' }).click();
  const list = page.getByRole('navigation', { name: 'Pattern book' });
  await expect(list.getByRole('listitem')).toHaveCount(12);
  await list.getByRole('searchbox').fill('arch');
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await list.getByRole('searchbox').fill('');
  await page.getByRole('button', { name: 'New pattern' }).click();
  await page
    .getByRole('dialog', { name: 'New pattern' })
    .getByRole('button', { name: 'Rectangle', exact: true })
    .click();
  await expect(page).toHaveURL(/\/patterns\/p/);
  await desk.unfold('Infill');
  await desk.particulars
    .getByRole('group', { name: 'Begin with' })
    .getByRole('button', { name: 'casement', exact: true })
    .click();
  // Its detail has the section cut through frame, leaf and glass.
  await expect(page.getByLabel('Section', { exact: true }).locator('.cut-part')).not.toHaveCount(0);
  await page.getByRole('button', { name: /^Width, 1.200/ }).click();
  await page.getByLabel('Width in mm').fill('900');
  await page.getByLabel('Width in mm').press('Enter');
  const made = async () => Object.values((await desk.saved()).patterns).find(({ name }) => name === 'Rectangle')!;
  await expect.poll(async () => Object.values((await made()).sizes)[0]!.dimensions.width).toBe(0.9);
  await desk.particulars.getByRole('button', { name: 'Place this size' }).click();
  await expect(page).toHaveURL(/setting-out/);
  const free = await desk.at(9.2, 8);
  await page.mouse.move(free.x, free.y, { steps: 3 });
  await page.mouse.click(free.x, free.y);
  const id = (await made()).id;
  await expect
    .poll(async () => Object.values((await desk.saved()).openings).filter(({ pattern }) => pattern === id).length)
    .toBe(1);
});

test('fields are chosen on the elevation, members typed and dragged where they stand', async ({ desk, page }) => {
  await openBook(desk, 'light');
  const light = async () => (await desk.saved()).patterns.light!;
  await page
    .getByRole('button', { name: /^Frame, 70/ })
    .first()
    .click();
  await page.getByLabel('Frame in mm').fill('80');
  await page.getByLabel('Frame in mm').press('Enter');
  await expect.poll(async () => (await light()).infill!.frame.width).toBeCloseTo(0.08, 9);
  // The bar between both casements is dragged aside: both are kept where they stand from then on.
  const bar = (await page.locator('.detail .grab.mullion').first().boundingBox())!;
  await page.mouse.move(bar.x + bar.width / 2, bar.y + bar.height / 2);
  await page.mouse.down();
  await page.mouse.move(bar.x + bar.width / 2 + 30, bar.y + bar.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect
    .poll(async () => (await light()).infill!.field)
    .toMatchObject({ kind: 'divided', lights: { kind: 'at' } });
  // A pane is chosen, and its field is boarded up.
  const box = (await page.getByTestId('detail').locator('.rim').boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.86, box.y + box.height * 0.3);
  const card = page.getByRole('region', { name: 'The chosen field' });
  await expect(card.locator('.crumbs')).toContainText('glass');
  await expect(page.locator('.detail .chosen-field').first()).toBeVisible();
  await card.getByRole('button', { name: /leaf/ }).click();
  await card.getByLabel('Hung').selectOption('top');
  await expect.poll(async () => JSON.stringify((await light()).infill!.field)).toContain('"hung":"top"');
  // The reveal: a step typed by the plan, and a splay in the section that opens on a click.
  await page.getByRole('button', { name: /^Step of the jambs, 57.5/ }).click();
  await page.getByLabel('Step of the jambs in mm').fill('80');
  await page.getByLabel('Step of the jambs in mm').press('Enter');
  await expect.poll(async () => (await light()).sections!['jamb-left']!.checks![0]!.step).toBeCloseTo(0.08, 9);
  await page.getByRole('button', { name: 'Reveal of the sill' }).click();
  const sill = page.getByRole('region', { name: 'Reveal of the sill' });
  await sill.getByLabel('Splays in by').fill('10');
  await sill.getByLabel('Splays in by').press('Enter');
  await expect.poll(async () => (await light()).sections!.sill!.splayInside).toBe(10);
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => (await light()).infill!.frame.width).toBeCloseTo(0.07, 9);
});

test('patterns go by the shelf to another project, and are updated from it with what would change', async ({
  desk,
  page,
}) => {
  await openBook(desk, 'arch');
  await page.getByRole('button', { name: 'put on the shelf' }).click();
  await expect(page.getByLabel('Shelf', { exact: true })).toContainText('as on the shelf');
  const created = await page.request.post(`${desk.url}/api/projects`, {
    data: { name: 'Chapel', units: 'mm', begin: 'empty' },
  });
  const second = ((await created.json()) as { id: string }).id;
  const chapel = async () => {
    await expect(desk.saving).toHaveText('saved');
    const answer = await page.request.get(`${desk.url}/api/projects/${second}/document`);
    return ((await answer.json()) as { document: Awaited<ReturnType<Desk['saved']>> }).document;
  };
  // One was in the book last, and comes back to it.
  await page.goto(`${desk.url}/projects/${second}`);
  await page.getByRole('button', { name: 'Take one in' }).click();
  await page.getByRole('tab', { name: 'The shelf' }).click();
  await page.getByLabel('Patterns on the shelf').getByRole('button', { name: 'Granary arch', exact: true }).click();
  await expect.poll(async () => Object.values((await chapel()).patterns).length).toBe(1);
  const taken = await chapel();
  // Its materials came with it, glass that is seen through among them.
  expect(Object.values(taken.materials).map(({ name }) => name)).toContain('Glass');
  expect(Object.values(taken.patterns)[0]!.shelf!.revision).toBe(1);

  await page.goto(`${desk.url}/projects/${desk.id}/patterns/arch`);
  await desk.type('Gap', '9');
  await page.getByRole('button', { name: 'put it there as it is here' }).click();
  await expect(page.getByLabel('Shelf', { exact: true })).toContainText('as on the shelf');
  await page.goto(`${desk.url}/projects/${second}/patterns/${Object.keys(taken.patterns)[0]!}`);
  await expect(page.getByLabel('Shelf', { exact: true })).toContainText('The shelf has a newer one.', {
    timeout: 30_000,
  });
  await expect(page.getByLabel('Shelf', { exact: true })).toContainText('its infill');
  await page.getByRole('button', { name: 'update from the shelf' }).click();
  await expect.poll(async () => Object.values((await chapel()).patterns)[0]!.infill!.gap).toBeCloseTo(0.009, 9);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Object.values((await chapel()).patterns)[0]!.infill!.gap).toBeCloseTo(0.005, 9);

  // What the server can no longer read is told, where it is tied and where it would be taken in; it is not said to be gone.
  await page.route('**/api/shelf', async (route) => {
    const items = (await (await route.fetch()).json()) as object[];
    await route.fulfill({ json: items.map((item) => ({ ...item, file: null, why: 'A newer program made it.' })) });
  });
  await page.reload();
  await expect(page.getByLabel('Shelf', { exact: true })).toContainText(
    'What is on the shelf cannot be read: A newer program made it. This project keeps its own.',
    { timeout: 30_000 },
  );
  await page.getByRole('button', { name: 'Take one in' }).click();
  await page.getByRole('tab', { name: 'The shelf' }).click();
  await expect(page.getByLabel('Patterns on the shelf')).toContainText(
    'Granary arch cannot be read: A newer program made it.',
  );
  await page.getByRole('button', { name: 'Take Granary arch off the shelf' }).click();
  await expect(page.getByText('Nothing is on the shelf yet.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'cut the tie' }).click();
  await expect.poll(async () => Object.values((await chapel()).patterns)[0]!.shelf).toBeUndefined();
});

test('ready-made patterns are taken in, and patterns are saved as files and read again', async ({ desk, page }) => {
  await openBook(desk, 'light');
  await page.getByRole('button', { name: 'Take one in' }).click();
  await page.getByRole('searchbox', { name: 'Search what can be taken in' }).fill('chapel pointed');
  await expect(page.getByText('None of that name.')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Search what can be taken in' }).fill('chapel win');
  await page.getByLabel('Ready-made patterns').getByRole('button', { name: 'Chapel window' }).click();
  await expect(page.getByLabel('Detail', { exact: true })).toBeVisible();
  await expect
    .poll(async () => Object.values((await desk.saved()).patterns).some(({ name }) => name === 'Chapel window'))
    .toBe(true);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'save as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Chapel window.pattern.json');
  const file = await download.path();
  await page.getByRole('button', { name: 'Take one in' }).click();
  await page.getByLabel('Pattern file').setInputFiles({
    name: 'no-pattern.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"other"}'),
  });
  await expect(page.getByText('This is no pattern file.')).toBeVisible();
  await page.getByLabel('Pattern file').setInputFiles({
    name: 'chapel.json',
    mimeType: 'application/json',
    buffer: readFileSync(file),
  });
  await expect
    .poll(async () => Object.values((await desk.saved()).patterns).some(({ name }) => name === 'Chapel window 2'))
    .toBe(true);
});

const rose = `<svg xmlns="http://www.w3.org/2000/svg" width="180mm" viewBox="0 0 180 120">
  <path d="M0 100V50A50 50 0 0 1 100 50V100Z"/><circle cx="50" cy="50" r="18"/><polyline points="130,20 165,20 165,60"/>
</svg>`;

test('an outline is read from a drawing at a scale, what does not close is pointed at, and a pattern made of it', async ({
  desk,
  page,
}) => {
  await page.getByRole('button', { name: 'New pattern' }).click();
  await page.getByRole('button', { name: 'An outline from an SVG or DXF drawing…' }).click();
  const dialog = page.getByRole('dialog', { name: 'An outline from a drawing' });
  const file = dialog.getByLabel('Drawing to read');
  await file.setInputFiles({ name: 'notes.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<p>no drawing</p>') });
  await expect(dialog.getByRole('alert')).toContainText('holds no SVG drawing');
  await file.setInputFiles({ name: 'rose.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(rose) });
  await expect(dialog.getByText('1 line does not close and is left out; its ends are marked.')).toBeVisible();
  await expect(dialog.locator('.rings .open circle')).toHaveCount(2);
  await expect(dialog.getByLabel('Height')).toHaveValue('100');
  await dialog.getByLabel('Width').fill('1500');
  await dialog.getByLabel('Width').press('Enter');
  await expect(dialog.getByLabel('One unit is')).toHaveValue('15');
  await dialog.getByRole('button', { name: 'Add a pattern' }).click();
  await expect(dialog).toBeHidden();
  const made = async () => Object.values((await desk.saved()).patterns).find(({ name }) => name === 'rose');
  await expect.poll(async () => (await made())?.profile.islands?.length).toBe(1);
  const { profile, sizes } = (await made())!;
  expect(Object.values(sizes)[0]!.dimensions.width).toBeCloseTo(1.5, 9);
  expect(profile.outline!.length).toBeLessThan(6);
  // It is placed as any other.
  const free = await desk.at(9.2, 8);
  await page.mouse.move(free.x, free.y, { steps: 3 });
  await page.mouse.click(free.x, free.y);
  const { id } = (await made())!;
  await expect
    .poll(async () => Object.values((await desk.saved()).openings).some(({ pattern }) => pattern === id))
    .toBe(true);
});

test('an outline is drawn by hand with lines, an arc and typed lengths, and redrawn', async ({ desk, page }) => {
  const board = page.getByTestId('hand');
  const place = async (x: number, y: number): Promise<[number, number]> => {
    const box = (await board.boundingBox())!;
    const read = async (name: string): Promise<number> => Number(await board.getAttribute(name));
    const scale = ((await read('data-scale')) * box.width) / 660;
    return [
      box.x + (x - (await read('data-left'))) * scale,
      box.y + box.height - (y - (await read('data-low'))) * scale,
    ];
  };
  const click = async (x: number, y: number): Promise<void> => page.mouse.click(...(await place(x, y)));
  // The dialog grows as it opens.
  const still = async (): Promise<void> => {
    let width = NaN;
    await expect
      .poll(async () => {
        const before = width;
        width = (await board.boundingBox())?.width ?? NaN;
        return width === before;
      })
      .toBe(true);
  };
  const made = async () =>
    Object.values((await desk.saved()).patterns).find(({ profile }) => profile.shape === 'free')!;
  await desk.strip.getByRole('button', { name: 'New pattern' }).click();
  await page.getByRole('button', { name: /drawn with lines and arcs/ }).click();
  await still();
  await click(0, 0);
  await click(1.2, 0);
  // Typed from the board: the field takes it by itself.
  await page.keyboard.type('900; 90');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Arc' }).click();
  await click(0, 0.9);
  await page.getByRole('button', { name: 'Arc' }).click();
  await click(0, 0);
  await expect(page.getByText('1 200 × 1 500 mm, of 4 points.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a pattern' }).click();
  await expect(board).toBeHidden();
  await expect.poll(async () => (await made())?.profile.outline?.length).toBe(4);
  expect((await made()).profile.outline![2]).toMatchObject({ x: 1.2, bulge: expect.closeTo(1, 6) });
  // One that crosses itself is told, opened again, and taken back point by point.
  await page.keyboard.press('Escape');
  await desk.strip.getByRole('button', { name: /^Free outline/ }).click();
  await page.getByRole('button', { name: 'draw it anew…' }).click();
  await still();
  for (const [x, y] of [
    [0, 0],
    [2, 1.5],
    [2, 0],
    [0, 1],
  ] as const)
    await click(x, y);
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByText(/cross/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take this outline' })).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Close it' }).click();
  await page.getByRole('button', { name: 'Take this outline' }).click();
  await expect.poll(async () => (await made()).profile.outline!.length).toBe(3);
});

test('a mesh from outside is brought in, told of, put about a door, repeated, and undone', async ({ desk, page }) => {
  await openBook(desk, 'door');
  await desk.unfold('Parts about it');
  await desk.particulars.getByLabel('Add', { exact: true }).selectOption('mesh');
  const dialog = page.getByRole('dialog', { name: 'A mesh from outside' });
  const file = dialog.getByLabel('Mesh to read');
  await file.setInputFiles({ name: 'boss.glb', mimeType: 'model/gltf-binary', buffer: Buffer.from('no mesh') });
  await expect(dialog.getByRole('alert')).toContainText('cannot be read as GLB');
  // A pyramid without its base.
  const mesh = writePlainGlb({
    points: Float64Array.from([-0.05, -0.05, 0, 0.05, -0.05, 0, 0.05, 0.05, 0, -0.05, 0.05, 0, 0, 0, 0.2]),
    triangles: Uint32Array.from([0, 1, 4, 1, 2, 4, 2, 3, 4, 3, 0, 4]),
    slots: new Uint8Array(4),
    materials: ['Wrought iron'],
  });
  await file.setInputFiles({ name: 'boss.glb', mimeType: 'model/gltf-binary', buffer: Buffer.from(mesh) });
  await expect(dialog.getByText('100 wide, 100 deep, 200 high, in mm; 4 triangles')).toBeVisible();
  await expect(dialog.getByText('It is not closed: 4 open edges are marked.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(dialog).toBeHidden();
  const parts = async () => (await desk.saved()).patterns.door!.parts ?? [];
  await expect.poll(async () => (await parts()).at(-1)?.kind).toBe('imported');
  const part = desk.particulars.getByTestId('part').last();
  await part.getByLabel('Upward').selectOption('repeat');
  await expect.poll(async () => (await parts()).at(-1)).toMatchObject({ up: { rule: 'repeat' } });
  // It stands in the model of the project, too: nothing is told to be missing.
  await page.getByText('setting out', { exact: true }).click();
  await expect(page.getByText('is not here')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Object.keys((await desk.saved()).meshes).length).toBe(0);
});
