/** Infill in the real interface: begun from drawings, changed by figures, proved in its sizes, its leaves opened by opening; and findings mended by a click. */
import { expect, granary, test } from './fixtures.ts';

test.use({ folded: false, goesOn: true });

test('an infill is taken out, begun anew from drawings, and changed by figures', async ({ desk, page }) => {
  await desk.strip.getByRole('button', { name: /Oculus/ }).click();
  await expect(desk.particulars).toHaveAccessibleName('Particulars of Oculus');
  await page.keyboard.press('Escape');
  await expect(
    desk.particulars.getByRole('figure', { name: 'The pattern in its sizes' }).locator('figcaption'),
  ).toHaveText([/800/, /1.100/]);
  await desk.unfold('Infill');
  await desk.particulars.getByRole('button', { name: 'take the infill out' }).click();
  expect((await desk.saved()).patterns.oculus!.infill).toBeUndefined();
  await desk.particulars
    .getByRole('group', { name: 'Begin with' })
    .getByRole('button', { name: 'fixed light' })
    .click();
  await desk.type('Frame', '45');
  await expect.poll(async () => (await desk.saved()).patterns.oculus!.infill?.frame.width).toBeCloseTo(0.045, 9);
  // The project's own glass is taken, none is added.
  expect(Object.keys((await desk.saved()).materials).sort()).toEqual(Object.keys(granary.materials).sort());
  await desk.particulars.getByLabel('Within it').selectOption('divided');
  await desk.particulars.getByLabel('How many').fill('3');
  await desk.particulars.getByLabel('How many').press('Enter');
  await expect
    .poll(async () => (await desk.saved()).patterns.oculus!.infill?.field)
    .toMatchObject({ kind: 'divided', lights: { kind: 'equal', count: 3 }, fields: [{ kind: 'glass' }] });
  // What breaks in a size is said beside it, before it stands a hundred times.
  await desk.type('Frame', '420');
  await expect(desk.particulars.getByRole('alert').first()).toContainText('too small for its frame');
  await expect(desk.titleBlock).toContainText('sound');
});

test('an edge is worked to a section that is drawn, told where it cannot be, and undone', async ({ desk, page }) => {
  await desk.strip.getByRole('button', { name: /Oculus/ }).click();
  await page.keyboard.press('Escape');
  await desk.unfold('Infill');
  await desk.particulars.getByLabel('Edge', { exact: true }).first().selectOption('drawn');
  const mouldingOf = async () => (await desk.saved()).patterns.oculus!.infill?.frame.moulding;
  await expect.poll(mouldingOf).toMatchObject({ kind: 'drawn', outline: { length: 5 } });
  await expect(desk.particulars.getByRole('img', { name: 'Its section, the front below' })).toBeVisible();
  await expect(desk.particulars.getByRole('alert')).toHaveCount(0);
  // Its inner face before its front: it cannot be run.
  const deep = desk.particulars.getByLabel('Section, point 5 deep');
  await deep.fill('-5');
  await deep.press('Enter');
  await expect(desk.particulars.getByRole('alert').first()).toContainText('its moulding');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(desk.particulars.getByRole('alert')).toHaveCount(0);
});

test('a reveal is lined within to the infill, told where it cannot be, and undone', async ({ desk, page }) => {
  await desk.strip.getByRole('button', { name: /Stair slit/ }).click();
  await page.keyboard.press('Escape');
  await desk.unfold('Parts about it');
  await desk.particulars.getByLabel('Add', { exact: true }).selectOption('lining within');
  const part = desk.particulars.getByTestId('part');
  await expect(part.getByRole('heading')).toHaveText('Lining on the face behind');
  await part.getByLabel('Head').uncheck();
  const partsOf = async () => (await desk.saved()).patterns.slit!.parts;
  await expect.poll(partsOf).toMatchObject([{ kind: 'lining', sides: ['jamb-left', 'jamb-right'], behind: true }]);
  await expect(desk.particulars.getByRole('alert')).toHaveCount(0);
  await part.getByLabel('Thickness').fill('200');
  await part.getByLabel('Thickness').press('Enter');
  await expect.poll(async () => (await partsOf())![0]).toMatchObject({ thickness: 0.2 });
  await expect(desk.particulars.getByRole('alert').first()).toContainText('too small for its lining');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(desk.particulars.getByRole('alert')).toHaveCount(0);
});

test('leaves stand open as their opening says, or as the pattern does', async ({ desk }) => {
  await desk.choose('o3');
  await expect(desk.sheet.locator('[data-part="o3"] .hung')).toHaveCount(1);
  await desk.type('Leaves at', '60');
  await expect.poll(async () => (await desk.openingOf('o3')).open).toBe(60);
  await desk.type('Leaves at', '200');
  await expect(desk.particulars.getByRole('alert')).toHaveText('Leaves at must be at most 180°.');
  await desk.particulars.getByLabel('Leaves at').press('Escape');
  await desk.particulars.locator('button.link', { hasText: 'as the pattern' }).click();
  await expect.poll(async () => (await desk.openingOf('o3')).open).toBeUndefined();
});

test('a leaf is opened by dragging it in the model, and undone', async ({ desk, page }) => {
  await desk.choose('o3');
  await page.getByRole('button', { name: 'Enlarge the model' }).click();
  await page.getByRole('button', { name: 'Face on' }).click();
  await page.getByRole('button', { name: 'Chosen', exact: true }).click();
  await page.waitForTimeout(1500);
  const box = (await page.getByTestId('model').boundingBox())!;
  const grabs = async (x: number, y: number): Promise<boolean> => {
    await page.mouse.move(x, y);
    return page.evaluate(() => document.body.style.cursor === 'grab');
  };
  // Its grip is where the pointer says that it can be taken: looked for from the middle.
  let grip: [number, number] | null = null;
  for (let ring = 0; ring < 26 && !grip; ring++)
    for (let k = 0; k < 8 * Math.max(1, ring) && !grip; k++) {
      const angle = (2 * Math.PI * k) / (8 * Math.max(1, ring));
      const at: [number, number] = [
        box.x + box.width / 2 + ring * 9 * Math.cos(angle),
        box.y + box.height / 2 + ring * 9 * Math.sin(angle),
      ];
      if (await grabs(...at)) grip = at;
    }
  expect(grip).not.toBeNull();
  await page.mouse.move(...grip!);
  await page.mouse.down();
  await page.mouse.move(grip![0] - 70, grip![1] + 12, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await desk.openingOf('o3')).open ?? 0).toBeGreaterThan(5);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await desk.openingOf('o3')).open).toBeUndefined();
});

test('layers are put in another order by the keyboard, and what is found wrong is mended by a click', async ({
  desk,
  page,
}) => {
  await page
    .getByRole('navigation', { name: 'Register of elements' })
    .getByRole('button', { name: /^Courtyard wall/ })
    .click();
  const before = granary.elements.courtyard!.layers.map(({ material }) => material);
  await desk.particulars.getByRole('button', { name: 'Move layer 1' }).focus();
  const said = (words: string) => expect(page.getByText(words)).toBeAttached();
  await page.keyboard.press('Space');
  await said('layer 1 is at place 1 now.');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowDown');
  await said('layer 1 is at place 2 now.');
  await page.keyboard.press('Space');
  await expect
    .poll(async () => (await desk.saved()).elements.courtyard!.layers.map(({ material }) => material))
    .toEqual([before[1], before[0], before[2]]);
  await page.keyboard.press('Control+z');
  await desk.type('Length', '16000');
  const list = page.getByRole('group', { name: 'What does not fit' });
  await expect(list).toContainText('3 openings do not fit');
  await list.getByRole('button', { name: 'slide all in' }).click();
  // All are within the wall again; that arches stand too near to each other for their rings is told now.
  await expect(list).not.toContainText('beyond');
  await expect(list).toContainText('its arch ring would run into another opening');
  await desk.particulars.getByRole('button', { name: 'let its ends be square' }).click();
  expect((await desk.saved()).elements.courtyard).not.toHaveProperty('ends');
  await expect(desk.titleBlock).toContainText('sound');
});

test('several openings are given another pattern at once, seen before and after, and undone as one', async ({
  desk,
  page,
}) => {
  await page.locator('[data-opening=o15]').click();
  await page.locator('[data-opening=o16]').click({ modifiers: ['Shift'] });
  await desk.unfold('Another pattern');
  await desk.particulars.getByLabel('Becomes').selectOption({ label: 'Oculus' });
  await expect(desk.particulars.locator('.pair figcaption')).toHaveCount(2);
  await expect(desk.particulars.locator('.pair b')).toHaveText('2×');
  // Nothing is changed yet.
  expect((await desk.saved()).openings.o15!.pattern).toBe('light');
  await desk.particulars.getByRole('button', { name: 'Change 2 openings' }).click();
  await expect.poll(async () => (await desk.saved()).openings.o16!.pattern).toBe('oculus');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await desk.saved()).openings.o15!.pattern).toBe('light');
});
