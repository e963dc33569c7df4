/** Placing in every way, many openings at once, and changing what openings are, on the real interface. */
import { resolveOpening, type Placed } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { bareGranary, expect, granary, test, type Desk } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

const at = (document: ProjectDocument, id: string): Placed =>
  resolveOpening(document, document.openings[id]!) as Placed;
const made = (document: ProjectDocument): string[] =>
  Object.keys(document.openings).filter((id) => !granary.openings[id]);
const firstFloor = ['o8', 'o9', 'o10', 'o11', 'o12', 'o13', 'o14'];

async function chooseFirstFloor(desk: Desk): Promise<void> {
  await desk.drag([0.3, 6.2], [18.9, 3.95]);
  await expect(desk.page.getByTestId('window')).toBeVisible();
  await desk.page.mouse.up();
  await expect(desk.particulars.getByRole('heading', { name: '7 openings' })).toBeVisible();
}

test('a rectangle drawn out takes the nearest size, or makes one', async ({ desk, page }) => {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Cart shed back/ })
    .click();
  await desk.strip.getByRole('button', { name: /Loft light/ }).click();
  await desk.drag([1, 1.22], [2.38, 2.22]);
  await expect(page.getByTestId('draw')).toBeVisible();
  await page.mouse.up();
  await expect(page.getByText(/nearest size, 1.400 × 1.000/)).toBeVisible();
  await desk.drag([6.3, 1.2], [8.2, 1.9]);
  await page.mouse.up();
  await expect(page.getByText(/has a new size/)).toBeVisible();
  const document = await desk.saved();
  const [first, second] = made(document).map((id) => document.openings[id]!);
  expect(first).toMatchObject({ pattern: 'light', size: 'b' });
  expect(Object.keys(granary.patterns.light!.sizes)).not.toContain(second!.size);
  await page.keyboard.press('Control+z');
  const back = await desk.saved();
  expect(back.patterns.light).toEqual(bareGranary.patterns.light);
  expect(made(back)).toHaveLength(1);
});

test('the grip is chosen, doors fall to the floor, and figures are typed while placing and dragging', async ({
  desk,
  page,
}) => {
  await desk.strip.getByRole('button', { name: /Loft light/ }).click();
  await page.getByRole('radio', { name: 'head, right' }).click();
  const { x, y } = await desk.at(11, 3.2);
  await page.mouse.move(x, y, { steps: 3 });
  await expect(page.getByTestId('ghost')).toBeVisible();
  await page.keyboard.type('11.2m; 3200');
  await page.keyboard.press('Enter');
  let document = await desk.saved();
  const [light] = made(document);
  expect(document.openings[light!]).toMatchObject({
    grip: { across: 'right', level: 'head' },
    along: { from: 'start', distance: 11.2 },
    up: { from: 'base', distance: 3.2 },
  });
  await page.keyboard.press('Escape');
  await desk.drag([4.4, 4.4], [5.4, 4.45]);
  await page.keyboard.type('1250');
  await page.mouse.up();
  await page.keyboard.press('Enter');
  document = await desk.saved();
  expect(at(document, 'o9').s - at(granary, 'o9').s).toBeCloseTo(1.25, 9);
  await desk.strip.getByRole('button', { name: /Yard door/ }).click();
  const high = await desk.at(16.2, 2.4);
  await page.mouse.move(high.x, high.y, { steps: 3 });
  await expect(page.getByTestId('reason')).toContainText('stands on Yard');
  await page.mouse.click(high.x, high.y);
  document = await desk.saved();
  expect(at(document, made(document).at(-1)!).t).toBeCloseTo(0, 9);
});

test('a tape measures between corners', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Tape' }).click();
  for (const [s, t] of [
    [3.77, 3.77],
    [12.87, 3.73],
  ] as const) {
    const { x, y } = await desk.at(s, t);
    await page.mouse.move(x, y);
    await page.mouse.click(x, y);
  }
  await expect(page.getByTestId('tape')).toContainText('9\u00a0100 ');
  await expect(page.getByTestId('tape')).toContainText('0 up');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('tape')).toBeHidden();
});

test('openings chosen by a window are spread, and stay spread when the wall is lengthened where it is dimensioned', async ({
  desk,
  page,
}) => {
  await desk.drag([4.4, 4.4], [4.9, 4.4]);
  await page.mouse.up();
  await chooseFirstFloor(desk);
  await desk.unfold('Spread');
  await expect(desk.particulars).toContainText('Piers of 1 262.5');
  await desk.particulars.getByRole('button', { name: 'Spread 7 openings' }).click();
  await expect(page.getByRole('button', { name: 'Undo spread 7 openings' })).toBeVisible();
  await page.getByTestId('sheet').locator('[data-figure=length]').click();
  await page.getByRole('textbox', { name: /Length of the wall/ }).fill('24000');
  await page.keyboard.press('Enter');
  const document = await desk.saved();
  expect(document.elements.courtyard).toMatchObject({ length: 24 });
  const pier = (24 - 7 * 1.3) / 8;
  firstFloor.forEach((id, i) => expect(at(document, id).s).toBeCloseTo(pier + i * (1.3 + pier), 6));
  const drawn = await Promise.all(firstFloor.map((id) => desk.shape(id).locator('.shape').boundingBox()));
  const steps = drawn.slice(1).map((box, i) => box!.x - drawn[i]!.x);
  steps.forEach((step) => expect(Math.abs(step - steps[0]!)).toBeLessThan(1.5));
});

test('a spread that does not fit says how many would', async ({ desk }) => {
  await chooseFirstFloor(desk);
  await desk.unfold('Spread');
  await desk.type('At start', '9000');
  await desk.type('At end', '4000');
  await expect(desk.particulars.getByRole('alert')).toContainText('4 would fit');
  await expect(desk.particulars.getByRole('button', { name: /^Spread 7/ })).toBeDisabled();
});

test('many are lined up, dragged together with their distances kept, copied on, and only openings are ever chosen', async ({
  desk,
  page,
}) => {
  await desk.choose('o1');
  await desk.particulars.getByRole('button', { name: /Loft light, 10/ }).click();
  await expect(desk.particulars.getByRole('heading', { name: '10 openings' })).toBeVisible();
  await desk.choose('o1');
  await page.keyboard.down('Shift');
  for (const id of ['o2', 'o6']) {
    const box = (await desk.shape(id).locator('.shape').boundingBox())!;
    await page.mouse.click(box.x + 5, box.y + 5);
  }
  await page.keyboard.up('Shift');
  await desk.unfold('Line up');
  await expect(desk.particulars).toContainText('with A-01, which was chosen first');
  await desk.drag([4.4, 1.9], [4.4, 2.3]);
  await page.mouse.up();
  let document = await desk.saved();
  const rise = at(document, 'o2').t - 1.2;
  expect(rise).toBeGreaterThan(0.2);
  for (const id of ['o1', 'o6']) expect(at(document, id).t - 1.2).toBeCloseTo(rise, 9);
  await desk.unfold('Copy');
  await desk.type('Along by', '0');
  await desk.type('Up by', '600');
  await desk.particulars.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('Control+d');
  document = await desk.saved();
  expect(made(document)).toHaveLength(6);
  expect(at(document, made(document).at(-1)!).t).toBeCloseTo(1.2 + rise + 1.2, 6);
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  document = await desk.saved();
  expect(Object.values(document.openings).filter(({ element }) => element === 'courtyard')).toEqual([]);
  expect(Object.keys(document.datums)).toEqual(Object.keys(granary.datums));
});

test('the sill of one is brought level with that of the one chosen first', async ({ desk, page }) => {
  await desk.choose('o15');
  await desk.shape('o18').click({ modifiers: ['Shift'] });
  await desk.unfold('Line up');
  await desk.particulars.getByRole('button', { name: 'sills' }).click();
  const document = await desk.saved();
  expect(at(granary, 'o18').t).not.toBeCloseTo(at(granary, 'o15').t, 3);
  expect(at(document, 'o18').t).toBeCloseTo(at(granary, 'o15').t, 9);
  expect(document.openings.o15).toEqual(granary.openings.o15);
  await expect(page.getByRole('button', { name: 'Undo align sills of D-18' })).toBeVisible();
});

test('what almost agrees is shown before and after, and made equal in one step', async ({ desk, page }) => {
  await desk.drag([7, 4.4], [7, 4.41]);
  await page.mouse.up();
  await desk.choose('o10');
  await desk.type('Up', '7');
  await chooseFirstFloor(desk);
  await desk.unfold('Even out');
  await expect(desk.particulars.getByRole('row', { name: /Sills of 7/ })).toContainText('3 750 (6), 3 757');
  await desk.particulars.getByRole('button', { name: 'Make equal' }).click();
  const document = await desk.saved();
  for (const id of firstFloor) expect(at(document, id).t).toBeCloseTo(3.75, 9);
});

test('a wall’s setting-out is pasted on to another, and a wall is filled with bays and duplicated', async ({
  desk,
  page,
}) => {
  await desk.particulars.getByRole('button', { name: 'copy its setting-out' }).click();
  const walls = page.getByRole('navigation');
  await walls.getByRole('button', { name: /^Quay wall/ }).click();
  await desk.particulars.getByRole('button', { name: /paste the setting-out of Courtyard wall/ }).click();
  let document = await desk.saved();
  expect(Object.values(document.openings).filter(({ element }) => element === 'quay')).toHaveLength(27);
  await walls.getByRole('button', { name: /^Cart shed back/ }).click();
  await desk.unfold('Fill with bays');
  await desk.type('Columns', '4');
  await desk.particulars.getByRole('checkbox', { name: /Ground sill/ }).check();
  await desk.particulars.getByRole('button', { name: 'Fill with 4 openings' }).click();
  await expect(desk.particulars.getByRole('heading', { name: '4 openings' })).toBeVisible();
  await walls.getByRole('button', { name: /^Cart shed back/ }).click();
  await desk.particulars.getByRole('button', { name: /duplicate/ }).click();
  await expect(desk.titleBlock).toContainText('4 cut');
  document = await desk.saved();
  expect(Object.values(document.elements).find(({ name }) => name === 'Cart shed back copy')).toBeDefined();
});

test('a window is made a door in place, another a one-off, and brought back', async ({ desk, page }) => {
  await desk.choose('o2');
  await desk.particulars.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Yard door' });
  await expect(page.getByText('B-02 is a Yard door now, and stands on Yard')).toBeVisible();
  await desk.choose('o9');
  await desk.particulars.getByRole('button', { name: 'make it a one-off' }).click();
  await desk.type('Span', '1600');
  let document = await desk.saved();
  expect(at(document, 'o2').t).toBe(0);
  expect(at(document, 'o9').profile.width).toBeCloseTo(1.6, 9);
  expect(at(document, 'o8').profile.width).toBeCloseTo(1.3, 9);
  await desk.particulars.getByRole('button', { name: /bring it back/ }).click();
  document = await desk.saved();
  expect(document.openings.o9!.own).toBeUndefined();
});

test('every figure can be typed, with the choice of what gives way; neighbours follow each other, never in a ring', async ({
  desk,
  page,
}) => {
  await page.getByTestId('sheet').locator('[data-figure=bay]').nth(2).click();
  await page.getByRole('radio', { name: 'axis C and all after it move' }).check();
  await page.getByRole('textbox', { name: /Between axes/ }).fill('3000');
  await page.keyboard.press('Enter');
  let document = await desk.saved();
  expect(document.axes['courtyard-c']!.along).toBeCloseTo(7.4, 9);
  expect(document.axes['courtyard-g']!.along).toBeCloseTo(17.8, 9);
  expect(document.axes['courtyard-b']!.along).toBeCloseTo(4.4, 9);
  await desk.choose('o9');
  await desk.particulars.getByLabel('Along from').selectOption({ label: 'from A-08, right jamb' });
  await desk.type('Along', '2000');
  await desk.choose('o8');
  await expect(desk.particulars.getByLabel('Along from').locator('option', { hasText: 'B-09' })).toHaveCount(0);
  document = await desk.saved();
  expect(document.openings.o9!.along).toEqual({ from: 'neighbour', opening: 'o8', edge: 'right', distance: 2 });
});
