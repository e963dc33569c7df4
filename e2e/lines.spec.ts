/** Datums, axes, panels, slabs and materials on the real interface. */
import { resolveOpening, type Placed } from '@yard-arch/core';
import type { Panel, ProjectDocument } from '@yard-arch/document';
import { expect, granary, test } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

const levels = (document: ProjectDocument): string =>
  JSON.stringify(
    Object.values(document.openings).map((opening) => (resolveOpening(document, opening) as Placed).t.toFixed(6)),
  );

test('a datum that is dragged takes along what is held to it, on every wall', async ({ desk, page }) => {
  const mark = desk.sheet.getByRole('button', { name: /Datum First sill/ });
  const box = (await mark.locator('.grip').boundingBox())!;
  const scale = Number(await desk.sheet.getAttribute('data-scale'));
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 0.2 * scale, { steps: 5 });
  await page.mouse.up();
  await expect(desk.particulars).toContainText('Held to it');
  const document = await desk.saved();
  const rise = document.datums.first!.level - granary.datums.first!.level;
  expect(rise).toBeGreaterThan(0.1);
  for (const opening of Object.values(granary.openings)) {
    const held = opening.up.from === 'datum' && opening.up.datum === 'first';
    const t = (d: ProjectDocument): number => (resolveOpening(d, d.openings[opening.id]!) as Placed).t;
    expect(t(document) - t(granary)).toBeCloseTo(held ? rise : 0, 9);
  }
  await expect(page.getByRole('button', { name: /Undo move First sill with \d+ openings/ })).toBeVisible();
});

test('a line is added, named, typed, nudged and removed, by keyboard too', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Axis', exact: true }).click();
  await desk.type('Name', 'Hoist');
  await desk.type('Along', '5.2 m');
  const axis = desk.sheet.getByRole('button', { name: /Axis Hoist/ });
  await axis.focus();
  await page.keyboard.press('Shift+ArrowRight');
  let document = await desk.saved();
  expect(Object.values(document.axes).find(({ name }) => name === 'Hoist')!.along).toBeCloseTo(5.3, 9);
  await axis.focus();
  await page.keyboard.press('Delete');
  await expect(axis).toHaveCount(0);
  // One that holds openings asks first, and leaves them where they stand.
  const before = levels(await desk.saved());
  const mark = desk.sheet.getByRole('button', { name: /Datum First sill/ });
  await mark.focus();
  await page.keyboard.press('Delete');
  await expect(page.getByText('First sill was not removed')).toBeVisible();
  await desk.particulars.getByRole('button', { name: 'Remove datum' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /leave them/ })
    .click();
  await expect(mark).toHaveCount(0);
  document = await desk.saved();
  expect(document.datums.first).toBeUndefined();
  expect(levels(document)).toBe(before);
});

test('a panel is added, redrawn point by point and cut; a slab knows no levels', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Add an element…' }).click();
  await page.getByRole('menuitem', { name: /Panel/ }).click();
  await expect(desk.particulars).toContainText('Outline, 4 points');
  await desk.particulars.getByRole('textbox', { name: 'Outline, point 3 up' }).fill('5000');
  await page.keyboard.press('Enter');
  await desk.particulars.getByRole('textbox', { name: 'Outline, edge 3 bends by' }).fill('60');
  await page.keyboard.press('Enter');
  await desk.particulars.getByRole('button', { name: 'add a hole' }).click();
  const document = await desk.saved();
  const panel = Object.values(document.elements).find(({ kind }) => kind === 'panel') as Panel;
  expect(panel.outline[2]).toMatchObject({ x: 4, y: 5, bulge: expect.closeTo(Math.tan(Math.PI / 12), 6) });
  expect(panel.holes).toHaveLength(1);
  await expect(desk.titleBlock).toContainText('sound');
  await desk.particulars.getByRole('textbox', { name: 'Outline, point 3 up' }).fill('high');
  await page.keyboard.press('Enter');
  await expect(desk.particulars.getByRole('alert')).toContainText('is not a length');
  await page.getByRole('button', { name: 'Add an element…' }).click();
  await page.getByRole('menuitem', { name: /Slab/ }).click();
  await expect(desk.sheet.locator('.datum')).toHaveCount(0);
});

test('materials, textures, side materials and how finely arcs are drawn are set', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Materials' }).click();
  await desk.particulars.getByRole('button', { name: 'Add a material' }).click();
  await desk.type('Arcs within', '0.5');
  let document = await desk.saved();
  expect(document.chord).toBeCloseTo(0.0005, 12);
  const made = Object.values(document.materials).find(({ id }) => !granary.materials[id])!;
  expect(made).toMatchObject({ texture: 'plaster' });
  await desk.strip.getByRole('button', { name: /Granary arch/ }).click();
  const sill = desk.particulars.getByRole('button', { name: /^Sill:/ });
  if (!(await sill.isVisible())) await desk.particulars.getByText(/Sides of the reveal/).click();
  await sill.click();
  await page.getByRole('menuitem', { name: made.name }).click();
  await desk.particulars.getByText('Texture, as it is unrolled').click();
  await desk.particulars.getByLabel('On the').selectOption('head');
  await desk.particulars.getByLabel('Seam at').selectOption('crown');
  document = await desk.saved();
  const arch = Object.values(document.patterns).find(({ name }) => name === 'Granary arch')!;
  expect(arch.reveal.sides).toMatchObject({ sill: made.id });
  expect(arch.texture).toEqual({ head: { seam: 'crown' } });
  await expect(desk.titleBlock).toContainText('sound');
});
