/** Walls in plan on the real interface: drawn, bent, moved, split, joined and reversed, and what no longer fits. */
import { alongAt, courseOf, gripOffset, resolveOpening, upAt, type Placed } from '@yard-arch/core';
import { facade } from '@yard-arch/demo';
import type { ProjectDocument, Wall } from '@yard-arch/document';
import { Desk, expect, granary, test } from './fixtures.ts';

test.use({ filled: false, goesOn: true });

const walls = (document: ProjectDocument): Wall[] =>
  Object.values(document.elements).filter((element): element is Wall => element.kind === 'wall');
const made = (document: ProjectDocument): Wall[] => walls(document).filter(({ id }) => !granary.elements[id]);

async function openPlan(desk: Desk): Promise<(x: number, y: number) => Promise<{ x: number; y: number }>> {
  await desk.page.getByRole('tab', { name: 'Plan' }).click();
  await expect(desk.page.getByTestId('plan').locator('[data-element]')).toHaveCount(19);
  return (x, y) => desk.inPlan(x, y);
}

test('walls are drawn as a ring with an arc in it, figures typed, and close facing outward', async ({ desk, page }) => {
  const at = await openPlan(desk);
  await page.getByRole('button', { name: 'Draw walls' }).click();
  const go = async (x: number, y: number): Promise<void> => {
    const spot = await at(x, y);
    await page.mouse.move(spot.x - 3, spot.y, { steps: 2 });
    await page.mouse.move(spot.x, spot.y, { steps: 2 });
    await page.waitForTimeout(50);
  };
  const click = async (x: number, y: number): Promise<void> => {
    await go(x, y);
    const spot = await at(x, y);
    await page.mouse.click(spot.x, spot.y);
  };
  await click(6, -6);
  await go(9, -5.9);
  await page.keyboard.type('4800');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Wall', exact: true })).toBeVisible();
  await page.keyboard.press('a');
  await click(12.4, -4.4);
  await page.keyboard.press('a');
  await click(6, -4.35);
  await click(6, -5.9);
  await expect(page.getByRole('button', { name: 'Done' })).toBeHidden();
  const document = await desk.saved();
  const [a, arc, b, c] = made(document);
  expect(a).toMatchObject({ length: 4.8, turn: 0 });
  expect(arc!.sweep).toBeGreaterThan(60);
  for (const [one, next] of [
    [a!, arc!],
    [arc!, b!],
    [b!, c!],
    [c!, a!],
  ] as const) {
    const [from, to] = [courseOf(one).end, courseOf(next).start];
    expect(Math.hypot(from[0] - to[0], from[1] - to[1])).toBeLessThan(0.002);
  }
  await expect(page.getByTestId('plan').locator('[data-element]')).toHaveCount(23);
});

test('a wall is moved with what meets it, bent in steps of 15°, and its openings follow', async ({ desk, page }) => {
  const at = await openPlan(desk);
  const quay = await at(14, 9.5);
  await page.mouse.click(quay.x, quay.y);
  await expect(desk.particulars.getByLabel('Name')).toHaveValue('Quay wall');
  const [from, to] = [await at(14, 9.5), await at(14, 10.5)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await expect(page.getByTestId('reason')).toContainText('along y');
  await page.mouse.up();
  let document = await desk.saved();
  const moved = (document.elements.quay as Wall).start.y - 9.6;
  expect(moved).toBeGreaterThan(0.5);
  expect((document.elements.east as Wall).length).toBeCloseTo(9.6 + moved, 6);
  const [grip, bent] = [await at(9.6, 9.6 + moved), await at(9.6, 12.4)];
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(bent.x, bent.y, { steps: 6 });
  await page.mouse.up();
  document = await desk.saved();
  const quayWall = document.elements.quay as Wall;
  expect(quayWall.sweep! % 15).toBe(0);
  expect(quayWall.sweep).not.toBe(0);
  for (const id of ['o26', 'o28']) expect(document.openings[id]).toEqual(granary.openings[id]);
  const placed = resolveOpening(document, document.openings.o28!) as Placed;
  expect(placed.s + placed.profile.width / 2).toBeCloseTo(quayWall.length / 2, 6);
});

test('walls are split, joined and reversed, and drawing can be undone step by step', async ({ desk, page }) => {
  const at = await openPlan(desk);
  await page.getByRole('button', { name: 'Split', exact: true }).click();
  const spot = await at(8.3, 0.1);
  await page.mouse.move(spot.x, spot.y);
  await page.mouse.click(spot.x, spot.y);
  let document = await desk.saved();
  const [second] = made(document);
  expect(Object.values(document.openings).filter(({ element }) => element === second!.id).length).toBeGreaterThan(5);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Courtyard wall \d+ cut/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Join' }).click();
  document = await desk.saved();
  expect(made(document)).toEqual([]);
  expect((document.elements.courtyard as Wall).length).toBeCloseTo(19.2, 6);
  await page.getByRole('button', { name: 'Reverse' }).click();
  document = await desk.saved();
  expect((document.elements.courtyard as Wall).turn).toBe(-180);
  await page.getByTestId('plan').focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  document = await desk.saved();
  expect(document.elements.courtyard).toEqual(granary.elements.courtyard);
  expect(document.openings).toEqual(granary.openings);
});

test.describe('with what fills the openings', () => {
  test.use({ filled: true });

  test('what no longer fits is marked, listed, and mended by one of the ways', async ({ desk, page }) => {
    await page.getByTestId('sheet').locator('[data-figure=length]').click();
    await page.getByRole('textbox', { name: /Length of the wall/ }).fill('17000');
    await page.keyboard.press('Enter');
    await expect(page.getByText('3 openings reach beyond the wall now')).toBeVisible();
    const list = page.getByRole('group', { name: 'What does not fit' });
    await expect(list).toContainText('3 openings do not fit');
    await expect(list).toContainText(/is 1.050 mm beyond the end/);
    await expect(desk.sheet.locator('.opening.misfit')).toHaveCount(3);
    const ways = (mark: string) => list.getByRole('listitem').filter({ hasText: mark });
    await ways('G-14').getByRole('button', { name: 'slide it in' }).click();
    await ways('G-21').getByRole('button', { name: 'take it away' }).click();
    await ways('G-07')
      .getByRole('button', { name: /cut it down/ })
      .click();
    // What is left of the last one is too narrow for its casements, and arches too near for their rings, which is said as well.
    await expect(list).toContainText('3 openings do not fit');
    await expect(list).not.toContainText('beyond');
    await expect(list).toContainText('G-07');
    const document = await desk.saved();
    expect(document.openings.o21).toBeUndefined();
    expect(document.openings.o7!.own!.width).toBeLessThan(1.1);
    const placed = resolveOpening(document, document.openings.o14!) as Placed;
    expect(placed.s + 1.3).toBeCloseTo(17, 6);
  });
});

test('ten edits of walls in a row keep every intent', async ({ desk, page }) => {
  const names = ['Courtyard wall', 'East gable', 'Quay wall', 'West gable', 'Gate wall'];
  let previous = '';
  for (const [i, name] of [...names, ...names].entries()) {
    await page
      .getByRole('navigation')
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .click();
    await expect(desk.particulars.getByLabel('Name')).toHaveValue(name);
    if (i < 5) await desk.type(name === 'Gate wall' ? 'Thickness' : 'Thick', String(340 + 10 * i));
    else if (i < 8) await desk.type('Length', String(20_000 + 500 * i));
    else {
      await desk.unfold('Where it stands');
      await desk.type('Turned by', String(-85 + i));
    }
    const title = await page.getByRole('button', { name: /^Undo / }).getAttribute('title');
    expect(i > 0 && title === previous).toBe(false);
    previous = title!;
  }
  const document = await desk.saved();
  expect(document.openings).toEqual(granary.openings);
  expect(document.elements).not.toEqual(granary.elements);
  for (const opening of Object.values(document.openings)) {
    const element = document.elements[opening.element]!;
    const placed = resolveOpening(document, opening) as Placed;
    const [dx, dy] = gripOffset(placed.profile, opening.grip);
    expect(placed.s + dx).toBeCloseTo(alongAt(document, element, opening.along)!, 8);
    expect(placed.t + dy).toBeCloseTo(upAt(document, element, opening.up)!, 8);
  }
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Courtyard wall/ })
    .click();
  await expect(desk.titleBlock).toContainText('sound');
  await expect(desk.sheet.locator('[data-opening]')).toHaveCount(21);
});

test('five thousand openings are opened, panned, zoomed and chosen', async ({ page, application, request }) => {
  const made = (await (
    await request.post(`${application.url}/api/projects/upload`, { data: facade(5000) })
  ).json()) as { id: string };
  await page.goto(`${application.url}/projects/${made.id}`);
  const desk = new Desk(page, application.url, made.id);
  await expect(desk.sheet.locator('[data-crowd="5000"]')).toBeVisible({ timeout: 60_000 });
  await expect(desk.titleBlock).toContainText('5000 cut', { timeout: 60_000 });
  // The list beside it begins short, and is whole when it is asked for.
  const list = desk.particulars.getByRole('listitem');
  expect(await list.count()).toBeLessThan(100);
  await expect(desk.particulars.getByRole('button', { name: 'show all 5000' })).toBeVisible();
  const placed = resolveOpening(facade(5000), facade(5000).openings.o2500!) as Placed;
  const middle = async (): Promise<{ x: number; y: number }> =>
    desk.at(placed.s + placed.profile.width / 2, placed.t + placed.profile.height / 2);
  const first = await middle();
  await page.mouse.click(first.x, first.y);
  await expect(desk.particulars).toContainText(`Opening ${facade(5000).openings.o2500!.mark}`);
  await page.mouse.move(first.x, first.y);
  for (let i = 0; i < 8; i++) await page.mouse.wheel(0, -400);
  // Nearer, those in sight are drawn one by one.
  await expect(desk.sheet.locator('[data-crowd]')).toHaveCount(0);
  await expect(desk.shape('o2500')).toBeVisible();
  const before = await middle();
  await page.mouse.move(before.x, before.y);
  await page.mouse.down({ button: 'middle' });
  await page.mouse.move(before.x + 90, before.y + 40, { steps: 5 });
  await page.mouse.up({ button: 'middle' });
  await expect.poll(async () => Math.round((await middle()).x - before.x)).toBe(90);
  await request.delete(`${application.url}/api/projects/${made.id}`);
});

test('a single sheet from another program is given a thickness, and is cut like any wall', async ({ desk, page }) => {
  await page.getByRole('button', { name: 'Add an element…' }).click();
  await page.getByRole('menuitem', { name: 'Single sheets from an OBJ or GLB file…' }).click();
  const file = page.getByTestId('sheets-file');
  const obj = (text: string) => ({ name: 'Quay hoarding.obj', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await file.setInputFiles(obj('v 0 0 0\n'));
  await expect(page.getByRole('alert')).toContainText('“Quay hoarding.obj” holds no faces.');
  await file.setInputFiles(obj('v 0 0 4000\nv 4000 0 4000\nv 4000 2500 4000\nv 0 2500 4000\nf 1 2 3\nf 1 3 4\n'));
  await page.getByLabel('Its unit').selectOption('millimetres');
  await expect(page.getByText('4 000 × 2 500, 10 m², upright')).toBeVisible();
  await page.getByLabel('Thickness').fill('60');
  await page.getByLabel('Thickness').press('Tab');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByRole('tab', { name: 'Sheet of Quay hoarding' })).toBeVisible();
  const { elements } = await desk.saved();
  expect(Object.values(elements).find(({ name }) => name === 'Quay hoarding')).toMatchObject({
    kind: 'panel',
    start: { x: 0, y: -4, z: 0 },
    tilt: 90,
    layers: [{ thickness: 0.06 }],
  });
  await expect(page.getByTestId('title-block')).toContainText('sound: closed');

  // One that is bent becomes one curved wall.
  const points = Array.from({ length: 13 }, (_, i) => (i * Math.PI) / 24).flatMap((angle) =>
    [0, 3].map((up) => `v ${5 * Math.sin(angle)} ${up} ${20 + 5 * Math.cos(angle)}`),
  );
  const faces = Array.from({ length: 12 }, (_, i) => `f ${2 * i + 1} ${2 * i + 3} ${2 * i + 4} ${2 * i + 2}`);
  await page.getByRole('button', { name: 'Add an element…' }).click();
  await page.getByRole('menuitem', { name: 'Single sheets from an OBJ or GLB file…' }).click();
  await file.setInputFiles({ ...obj([...points, ...faces].join('\n')), name: 'Bow front.obj' });
  await expect(page.getByText('7 854 × 3 000, 23.55 m², a wall, curved by 90°')).toBeVisible();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByRole('tab', { name: 'Sheet of Bow front' })).toBeVisible();
  expect(Object.values((await desk.saved()).elements).find(({ name }) => name === 'Bow front')).toMatchObject({
    kind: 'wall',
    sweep: 90,
    height: 3,
  });
  await expect(page.getByTestId('title-block')).toContainText('sound: closed');
});
