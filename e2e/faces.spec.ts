/** Faces and handles of the sheet: setting out from within, drawing sides out, and going back and forth between walls. */
import { boxOf, resolveOpening, type Placed } from '@yard-arch/core';
import type { ProjectDocument, Wall } from '@yard-arch/document';
import { expect, granary, test } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

const box = (document: ProjectDocument, id: string) =>
  boxOf(resolveOpening(document, document.openings[id]!) as Placed, '');

test('a sheet is turned over, and a niche set out from within', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Turn over' }).click();
  await expect(desk.titleBlock).toContainText('inner face, seen from within');
  // What was on the left is on the right.
  const [a, g] = [(await desk.shape('o8').boundingBox())!, (await desk.shape('o14').boundingBox())!];
  expect(a.x).toBeGreaterThan(g.x);
  await desk.strip.getByRole('button', { name: /Lamp niche/ }).click();
  const spot = await desk.at(4.2, 0.9);
  await page.mouse.move(spot.x - 20, spot.y);
  await page.mouse.move(spot.x, spot.y, { steps: 3 });
  await page.mouse.click(spot.x, spot.y);
  await page.keyboard.press('Escape');
  const document = await desk.saved();
  const made = Object.values(document.openings).find((opening) => !granary.openings[opening.id])!;
  expect(made).toMatchObject({ face: 'inner', element: 'courtyard' });
  await expect(desk.titleBlock).toContainText('1 niche');
  await expect(desk.titleBlock).toContainText('sound');
  // An arrow to the right goes to the right, as it is seen.
  const before = box(document, made.id).s;
  await desk.sheet.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => box(await desk.saved(), made.id).s).toBeGreaterThan(before + 0.005);
  // Set out on the outer face it stands where it stood, and the sheet shows that.
  await desk.particulars.getByLabel('Set out on').selectOption('outer');
  await expect(desk.titleBlock).toContainText('outer face');
  expect((await desk.openingOf(made.id)).face).toBeUndefined();
  await desk.sheet.focus();
  await page.keyboard.press('o');
  await expect(desk.sheet).toHaveAttribute('data-face', 'inner');
  await page.reload();
  await expect(desk.sheet).toHaveAttribute('data-face', 'inner');
});

test('a jamb is drawn out, and one alone, all of its size or a new size takes it', async ({ desk, page }) => {
  await desk.choose('o10');
  const handle = async (side: string) => {
    const at = (await desk.sheet.locator(`[data-handle="${side}"]`).boundingBox())!;
    return { x: at.x + at.width / 2, y: at.y + at.height / 2 };
  };
  const pull = async (side: string, metres: number): Promise<void> => {
    const { x, y } = await handle(side);
    const scale = Number(await desk.sheet.getAttribute('data-scale'));
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.keyboard.down('Alt');
    await page.mouse.move(x + (metres * scale) / 2, y, { steps: 2 });
    await page.mouse.move(x + metres * scale, y, { steps: 2 });
    await expect(page.getByTestId('reason')).toContainText('width');
  };
  await pull('right', 0.3);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await page.getByRole('radio', { name: 'C-10 alone' }).check();
  await page.keyboard.press('Enter');
  const document = await desk.saved();
  const [was, now] = [box(granary, 'o10'), box(document, 'o10')];
  expect(now.s).toBeCloseTo(was.s, 6);
  expect(now.width).toBeCloseTo(was.width + 0.3, 1);
  expect(document.openings.o10!.own).toBeDefined();
  expect(box(document, 'o9').width).toBeCloseTo(was.width, 9);
  // Given up, nothing is changed; typed meanwhile, the figure counts.
  await pull('right', 0.4);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.keyboard.up('Alt');
  expect(box(await desk.saved(), 'o10').width).toBeCloseTo(now.width, 9);
  await pull('left', -0.2);
  await page.keyboard.up('Alt');
  await page.keyboard.type('1750');
  await page.mouse.up();
  await page.keyboard.press('Enter');
  await expect.poll(async () => box(await desk.saved(), 'o10').width).toBeCloseTo(1.75, 6);
  const last = box(await desk.saved(), 'o10');
  expect(last.s + last.width).toBeCloseTo(now.s + now.width, 6);
});

test('a wall’s end and an apex are drawn on its sheet', async ({ desk, page }) => {
  const pull = async (kind: string, dx: number, dy: number): Promise<void> => {
    const at = (await desk.sheet.locator(`[data-handle="${kind}"]`).boundingBox())!;
    const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 2 });
    await page.mouse.move(x + dx, y + dy, { steps: 2 });
    await expect(page.getByTestId('reason')).toContainText(/length|height/);
    await page.mouse.up();
  };
  const endAt = async (): Promise<number> => (await desk.sheet.locator('[data-handle="end"]').boundingBox())!.x;
  const whole = await endAt();
  // A click alone draws nothing out, and leaves the sheet to show the whole wall whatever its length.
  await desk.sheet.locator('[data-handle="end"]').click();
  await pull('end', 30, 0);
  await expect.poll(async () => Math.abs((await endAt()) - whole)).toBeLessThan(5);
  const long = (document: ProjectDocument): number => (document.elements.courtyard as Wall).length;
  await expect.poll(async () => long(await desk.saved())).toBeGreaterThan(long(granary) + 0.5);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => long(await desk.saved())).toBe(long(granary));
  await page.getByRole('navigation', { name: 'Register of elements' }).getByText('East gable').click();
  await desk.particulars.getByLabel('Top', { exact: true }).selectOption('gabled');
  await expect(desk.sheet.locator('[data-handle="apex"]')).toBeVisible();
  await pull('apex', 0, 20);
  const apex = async (): Promise<number> => {
    const { top } = (await desk.saved()).elements.east as Wall;
    return top.kind === 'gabled' ? top.apex : 0;
  };
  await expect.poll(apex).toBeLessThan(10.8);
});

test('back and forward lead from wall to wall, and a choice made since is not taken back', async ({ desk, page }) => {
  const register = page.getByRole('navigation', { name: 'Register of elements' });
  await register.getByText('Quay wall').click();
  await expect(desk.titleBlock).toContainText('Quay wall');
  await register.getByText('Stair drum').click();
  await expect(desk.titleBlock).toContainText('Stair drum');
  await page.goBack();
  await expect(desk.titleBlock).toContainText('Quay wall');
  await page.goForward();
  await expect(desk.titleBlock).toContainText('Stair drum');
  await register.getByText('Gate wall').click();
  await expect(desk.titleBlock).toContainText('Gate wall');
  await page.waitForTimeout(300);
  await expect(desk.titleBlock).toContainText('Gate wall');
});
