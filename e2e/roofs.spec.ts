/** Roofs on the real interface: laid over walls, made gabled edge by edge, pitched, lit by windows that are spread, and cut across the ridge. */
import type { Page } from '@playwright/test';
import { cutModel, prove } from '@yard-arch/core';
import { emptyDocument, kinds, type ProjectDocument, type Roof, type Wall } from '@yard-arch/document';
import { Desk, expect, test } from './fixtures.ts';

test.use({ goesOn: true });

/** Four walls of 4.2 m round a yard of 12 m by 7 m, and two patterns. */
function fourWalls(): ProjectDocument {
  const document = emptyDocument('Quay store');
  document.materials.brick = { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9 };
  const wall = (id: string, x: number, y: number, turn: number, length: number): void => {
    document.elements[id] = {
      ...kinds.wall.fresh({ id, name: `${id} wall`, start: { x, y, z: 0 }, turn }, 'brick'),
      length,
      height: 4.2,
      ends: { start: 'mitred', end: 'mitred' },
    };
  };
  wall('South', 0, 0, 0, 12);
  wall('East', 12, 0, 90, 7);
  wall('North', 12, 7, 180, 12);
  wall('West', 0, 7, 270, 7);
  const pattern = (id: string, name: string, shape: 'rectangle' | 'ellipse', width: number, height: number): void => {
    document.patterns[id] = {
      id,
      name,
      profile: { shape },
      sizes: { a: { id: 'a', name: '', dimensions: { width, height } } },
      reveal: { material: null },
    };
  };
  pattern('light', 'Roof window', 'rectangle', 0.78, 1.18);
  pattern('well', 'Lantern well', 'ellipse', 2.4, 1.6);
  return document;
}

/** The setting-out page of a project with four walls. */
async function withWalls(url: string, page: Page): Promise<Desk> {
  const made = await page.request.post(`${url}/api/projects/upload`, { data: fourWalls() });
  const desk = new Desk(page, url, ((await made.json()) as { id: string }).id);
  await desk.open();
  return desk;
}

/** Draws the ridge of the chosen roof up in the model: its grip is where the pointer says that it can be taken. */
async function raiseRidge(page: Page, by: number): Promise<void> {
  const box = (await page.getByTestId('model').boundingBox())!;
  const isGrip = async (x: number, y: number): Promise<boolean> => {
    await page.mouse.move(x, y);
    return page.evaluate(() => document.body.style.cursor === 'grab');
  };
  // The ridge is what is highest of it.
  for (let y = box.y + 20; y < box.y + box.height - 20; y += 6)
    for (let x = box.x + 0.2 * box.width; x < box.x + 0.8 * box.width; x += 6)
      if (await isGrip(x, y)) {
        await page.mouse.move(x, y + 4);
        await page.mouse.down();
        await page.mouse.move(x, y + 4 + by, { steps: 5 });
        await page.mouse.up();
        return;
      }
  throw new Error('no grip is found in the model');
}

test('a roof is laid over four walls, gabled by two verges, pitched, and cut on its planes and across the ridge', async ({
  application,
  page,
}) => {
  const desk = await withWalls(application.url, page);

  // Laid over the ring that is clicked: hipped, and all four walls reach up under it.
  await page.getByRole('tab', { name: 'Plan', exact: true }).click();
  await page.getByRole('button', { name: 'Lay a roof' }).click();
  const south = (await page.locator('[data-element="South"] .body').boundingBox())!;
  await page.mouse.move(south.x + south.width / 2, south.y + south.height / 2, { steps: 2 });
  await expect(page.getByText('click to lay a roof over its ring of 4 walls')).toBeVisible();
  await page.mouse.click(south.x + south.width / 2, south.y + south.height / 2);
  await expect(page.getByRole('heading', { name: 'Roof', exact: true })).toBeVisible();
  let document = await desk.saved();
  const roof = (): Roof =>
    Object.values(document.elements).find((element): element is Roof => element.kind === 'roof')!;
  expect(roof().edges.map(({ is }) => is)).toEqual(['eaves', 'eaves', 'eaves', 'eaves']);
  for (const id of ['South', 'East', 'North', 'West'])
    expect((document.elements[id] as Wall).top).toEqual({ kind: 'under', roof: roof().id });

  // Two edges become verges, and the gables come by themselves.
  for (const edge of ['East edge', 'West edge']) {
    await page.getByRole('button', { name: new RegExp(`^${edge}`) }).click();
    await desk.particulars.getByLabel('Is', { exact: true }).selectOption('verge');
    await page.getByRole('button', { name: 'the whole of Roof' }).click();
  }
  await desk.type('Pitch', '1:2');
  document = await desk.saved();
  expect(roof().edges.map(({ is }) => is)).toEqual(['eaves', 'verge', 'eaves', 'verge']);
  expect(Math.round((roof().edges[0] as { pitch: number }).pitch * 1e6)).toBe(45e6);
  const height = (): number => cutModel(document).cuts.get('East')!.sheet.height;
  expect(height()).toBeCloseTo(4.2 + 3.5, 6);

  // Undone and done again, the walls follow.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => ((document = await desk.saved()), roof().edges[0])).toMatchObject({ pitch: 40 });
  expect(height()).toBeCloseTo(4.2 + 3.5 * Math.tan((40 * Math.PI) / 180), 6);

  // Drawn in its section: the slope comes to where it is let go, and all eaves with it.
  const section = desk.particulars.getByRole('group', { name: 'The eaves in section' });
  const grip = (await section.locator('.grip').last().boundingBox())!;
  const by = async (dx: number, dy: number): Promise<void> => {
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await page.mouse.down();
    await page.mouse.move(grip.x + grip.width / 2 + dx, grip.y + grip.height / 2 + dy, { steps: 4 });
  };
  await by(0, 14);
  await expect(section).toContainText('°');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await by(0, 14);
  await page.mouse.up();
  await expect
    .poll(async () => ((document = await desk.saved()), (roof().edges[0] as { pitch: number }).pitch))
    .toBeLessThan(38);
  const pitches = roof().edges.map((edge) => (edge.is === 'eaves' ? edge.pitch : null));
  expect(pitches).toEqual([pitches[0], null, pitches[0], null]);
  expect(pitches[0]! % 0.5).toBe(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => ((document = await desk.saved()), roof().edges[0])).toMatchObject({ pitch: 40 });

  // Its ridge is raised in the model: both planes are steeper.
  await page.getByRole('button', { name: 'Show the model' }).click();
  await page.getByRole('button', { name: 'Chosen', exact: true }).click();
  await raiseRidge(page, -30);
  await page.getByRole('button', { name: 'Fold the model away' }).click();
  await expect
    .poll(async () => ((document = await desk.saved()), (roof().edges[0] as { pitch: number }).pitch))
    .toBeGreaterThan(41);
  expect(roof().edges[2]).toMatchObject({ pitch: (roof().edges[0] as { pitch: number }).pitch });
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => ((document = await desk.saved()), roof().edges[0])).toMatchObject({ pitch: 40 });

  // Roof windows on the south plane, spread along it.
  await page.getByRole('button', { name: 'South plane' }).click();
  await expect(page.getByRole('tab', { name: 'Sheet of South plane' })).toHaveAttribute('aria-selected', 'true');
  await desk.strip.getByRole('button', { name: /^Roof window/ }).click();
  for (const s of [2, 3.5, 9]) {
    const spot = await desk.at(s, 1.6);
    await page.mouse.move(spot.x, spot.y, { steps: 3 });
    await page.mouse.click(spot.x, spot.y);
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  await desk.unfold('Spread');
  await desk.particulars.getByRole('button', { name: 'Spread 3 openings' }).click();
  document = await desk.saved();
  const windows = Object.values(document.openings);
  expect(windows.map(({ face }) => face)).toEqual(['e1', 'e1', 'e1']);

  // A curved outline over the ridge, from above.
  await page.getByRole('navigation').getByRole('button', { name: /^Roof/ }).first().click();
  await desk.strip.getByRole('button', { name: /^Lantern well/ }).click();
  const over = await desk.at(6.3, 3.85 - 0.8);
  await page.mouse.move(over.x, over.y, { steps: 3 });
  await page.mouse.click(over.x, over.y);
  await page.keyboard.press('Escape');
  await expect(desk.titleBlock).toContainText('4 cut');
  await expect(desk.titleBlock).toContainText('sound', { timeout: 30_000 });
  document = await desk.saved();
  const model = cutModel(document);
  expect([...model.cuts.values()].every(({ mesh, fault }) => fault === null && prove(mesh).closed)).toBe(true);

  // A dormer is put on a roof window's pattern, moved along, and follows with its window.
  await page.getByRole('button', { name: 'South plane' }).click();
  await desk.sheet.locator('[data-opening]').first().click();
  await desk.particulars.getByRole('button', { name: 'edit pattern' }).click();
  await desk.unfold('Parts about it');
  await desk.particulars.getByLabel('Add', { exact: true }).selectOption('dormer');
  await desk.particulars.getByLabel('On slopes').selectOption('plumb');
  await expect
    .poll(async () => {
      document = await desk.saved();
      return Object.values(document.patterns).some(({ parts }) => parts?.some(({ kind }) => kind === 'dormer'));
    })
    .toBe(true);
  const dormers = (): [number, number, number][] =>
    cutModel(document)
      .cuts.get(roof().id)!
      .parts.filter(({ part }) => part.name === 'dormer')
      .map(({ placement }) => placement.origin as [number, number, number]);
  expect(dormers()).toHaveLength(3);
  const [first] = dormers();
  await desk.sheet.locator('[data-opening]').first().click();
  await page.keyboard.press('Shift+ArrowRight');
  document = await desk.saved();
  expect(dormers()[0]![0]).toBeCloseTo(first![0] + 0.1, 6);
  await expect(desk.titleBlock).toContainText('all cut', { timeout: 60_000 });

  // Split along a line in plan, one side of it dropped; brought back as an element of its own.
  await page.getByRole('tab', { name: 'Plan', exact: true }).click();
  const volumeBefore = prove(cutModel(document).cuts.get(roof().id)!.mesh).volume;
  await page.getByRole('button', { name: 'Split along a line' }).click();
  await page.keyboard.down('Alt');
  for (const [px, py] of [
    [4, -2],
    [4.2, 9],
  ] as const) {
    const { x, y } = await desk.inPlan(px, py);
    await page.mouse.click(x, y, { delay: 30 });
  }
  await page.keyboard.up('Alt');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'side B' }).click();
  document = await desk.saved();
  expect(roof().splits).toHaveLength(1);
  const dropped = prove(cutModel(document).cuts.get(roof().id)!.mesh);
  expect(dropped.closed).toBe(true);
  expect(dropped.volume).toBeLessThan(0.8 * volumeBefore);
  await expect(desk.particulars.getByText('it lies in what was split off').first()).toBeVisible();
  await desk.unfold('Splits');
  await desk.particulars.getByRole('button', { name: 'keep both, as two' }).click();
  document = await desk.saved();
  const halves = Object.values(document.elements).filter(({ kind }) => kind === 'roof');
  const volumes = halves.map(({ id }) => prove(cutModel(document).cuts.get(id)!.mesh).volume);
  expect(volumes[0]! + volumes[1]!).toBeCloseTo(volumeBefore, 4);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Object.keys((await desk.saved()).elements)).toHaveLength(5);

  // A wall is split along the tape on its sheet.
  await page.getByRole('navigation').getByRole('button', { name: /^East/ }).click();
  await page.getByRole('tab', { name: 'Sheet of East' }).click();
  await page.getByRole('button', { name: 'Tape' }).click();
  await page.keyboard.down('Alt');
  for (const [s, t] of [
    [-0.4, 2],
    [7.4, 3],
  ] as const) {
    const spot = await desk.at(s, t);
    await page.mouse.click(spot.x, spot.y, { delay: 30 });
  }
  await page.keyboard.up('Alt');
  await page.getByRole('button', { name: 'Split along the tape' }).click();
  await page.getByRole('button', { name: 'side B' }).click();
  document = await desk.saved();
  expect(document.elements.East!.splits).toMatchObject([{ turn: expect.anything(), tilt: expect.anything() }]);
  await expect(desk.titleBlock).toContainText('sound', { timeout: 30_000 });
  await page.keyboard.press('Control+z');

  // What is on a plane that goes is told of, and kept.
  await page.getByRole('navigation').getByRole('button', { name: /^Roof/ }).first().click();
  await page.getByRole('button', { name: /^South edge/ }).click();
  await desk.particulars.getByLabel('Is', { exact: true }).selectOption('verge');
  await expect(page.getByText('no longer has the plane that it is on').first()).toBeVisible();
  expect(Object.keys((await desk.saved()).openings)).toHaveLength(4);
});

test('a roof’s outline is drawn anew: a courtyard opened, an edge drawn out, bent, given a corner, and a crossing one refused', async ({
  application,
  page,
}) => {
  const desk = await withWalls(application.url, page);
  await page.getByRole('tab', { name: 'Plan', exact: true }).click();
  const outline = async (corners: readonly (readonly [number, number])[]): Promise<void> => {
    await page.keyboard.down('Alt');
    for (const corner of corners) {
      const { x, y } = await desk.inPlan(...corner);
      await page.mouse.click(x, y, { delay: 30 });
    }
    await page.keyboard.up('Alt');
    await page.keyboard.press('Enter');
  };
  const drag = async (from: readonly [number, number], to: readonly [number, number]): Promise<void> => {
    const [a, b] = [await desk.inPlan(...from), await desk.inPlan(...to)];
    await page.mouse.move(a.x, a.y);
    await page.mouse.down();
    await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 3 });
    await page.mouse.move(b.x, b.y, { steps: 3 });
    await page.mouse.up();
  };
  let document = await desk.saved();
  const roof = (): Roof =>
    Object.values(document.elements).find((element): element is Roof => element.kind === 'roof')!;
  const polled = (read: (of: Roof) => unknown) =>
    expect.poll(async () => ((document = await desk.saved()), read(roof())));

  await page.getByRole('button', { name: 'Lay a roof' }).click();
  const { x, y } = await desk.inPlan(6, 0.2);
  await page.mouse.move(x, y, { steps: 2 });
  await page.mouse.click(x, y);
  await expect(page.getByRole('heading', { name: 'Roof', exact: true })).toBeVisible();

  // A courtyard that crosses itself is refused, one that does not is opened, and its eaves fall into it.
  await page.getByRole('button', { name: 'Open a courtyard' }).click();
  await outline([
    [4, 2.5],
    [8, 2.5],
    [4, 4.5],
    [8, 4.5],
  ]);
  await expect(page.getByText('The outline would cross itself').first()).toBeVisible();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Escape');
  await outline([
    [4, 2.5],
    [8, 2.5],
    [8, 4.5],
    [4, 4.5],
  ]);
  await polled(({ courts }) => courts?.map((court) => court.length)).toEqual([4]);

  // An edge is drawn out by half a metre, and a corner is put into it and drawn out by itself.
  await drag([12, 2.2], [12.5, 2.2]);
  await polled(({ edges }) => Math.max(...edges.map((edge) => edge.x))).toBeCloseTo(12.5, 6);
  await desk.particulars.getByRole('button', { name: 'put a corner into its middle' }).click();
  await polled(({ edges }) => edges.length).toBe(5);
  await drag([12.5, 3.5], [14, 3.5]);
  await polled(({ edges }) => Math.max(...edges.map((edge) => edge.x))).toBeCloseTo(14, 6);

  // Bent and typed, it is still closed.
  await page.getByRole('button', { name: 'the whole of Roof' }).click();
  await page
    .getByRole('button', { name: /^West edge\b/ })
    .first()
    .click();
  await desk.type('Curves by', '90');
  await polled(({ edges }) => edges.filter(({ bulge }) => bulge).length).toBe(1);
  const cut = cutModel(document).cuts.get(roof().id)!;
  expect([cut.fault, prove(cut.mesh).closed]).toEqual([null, true]);
  for (const count of [5, 5, 4]) {
    await page.getByRole('button', { name: /^Undo/ }).click();
    await polled(({ edges }) => edges.length).toBe(count);
  }

  // A corner with the focus goes by the arrow keys, and Delete takes it away.
  const corner = page.getByRole('button', { name: 'Corner 2 of Roof' });
  await corner.focus();
  await page.keyboard.press('ArrowRight');
  await polled(({ edges }) => edges[1]!.x).toBeCloseTo(12.6, 6);
  await page.keyboard.press('Shift+ArrowRight');
  await polled(({ edges }) => edges[1]!.x).toBeCloseTo(13.6, 6);
  await expect(corner).toBeFocused();
  // Without it the courtyard would lie across the outline; one of the courtyard's own can go.
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Corner 6 of Roof' }).focus();
  await page.keyboard.press('Delete');
  await polled(({ edges, courts }) => [edges.length, courts![0]!.length]).toEqual([4, 3]);
});

test('a groin vault is made of a barrel, given ribs and repeated in rows; a dome gets oculi about its axis', async ({
  application,
  page,
}) => {
  const desk = await withWalls(application.url, page);
  const add = async (kind: RegExp): Promise<void> => {
    await page.getByRole('button', { name: 'Add an element…' }).click();
    await page.getByRole('menuitem', { name: kind }).click();
  };

  await add(/^Vault\b/);
  // Arches under it, and its end walled up as far as the soffit.
  await desk.particulars.getByLabel('Transverse arches').check({ force: true });
  await desk.type('Arches', '3');
  await desk.particulars.getByRole('button', { name: 'wall up its south end' }).click();
  await expect(desk.particulars.getByLabel('Top', { exact: true })).toHaveValue('under');
  const walledUp = await desk.saved();
  const vault = Object.values(walledUp.elements).find((element) => element.kind === 'vault')!;
  expect(vault).toMatchObject({ arches: { count: 3 } });
  const end = Object.values(walledUp.elements).find(({ name }) => name.endsWith('south end'))!;
  expect(cutModel(walledUp).cuts.get(end.id)!.fault).toBeNull();
  await page
    .getByRole('navigation')
    .getByRole('button', { name: new RegExp(`^${vault.name}\\b`) })
    .first()
    .click();
  await desk.particulars.getByLabel('Transverse arches').uncheck({ force: true });
  await desk.particulars.getByRole('button', { name: 'make a groin vault of it' }).click();
  await expect(page.getByRole('heading', { name: 'Vaulted bay', exact: true })).toBeVisible();
  await desk.particulars.getByLabel('Ribs', { exact: true }).check({ force: true });
  await desk.type('Deep', '5 m');
  await desk.particulars.getByRole('button', { name: 'repeat it 3 by 1' }).click();
  let document = await desk.saved();
  const bays = Object.values(document.elements).filter(({ kind }) => kind === 'bay');
  expect(bays).toHaveLength(3);
  const model = cutModel(document);
  for (const { id } of bays) {
    const { mesh, fault } = model.cuts.get(id)!;
    expect(fault).toBeNull();
    expect(prove(mesh).closed).toBe(true);
  }

  await add(/^Dome\b/);
  await expect(page.getByRole('heading', { name: 'Dome', exact: true })).toBeVisible();
  await desk.strip.getByRole('button', { name: /^Roof window/ }).click();
  const spot = await desk.at(5.2, 3.25);
  await page.mouse.move(spot.x, spot.y, { steps: 3 });
  await page.mouse.click(spot.x, spot.y);
  await page.keyboard.press('Escape');
  await desk.sheet.locator('[data-opening]').first().click();
  await desk.particulars.getByRole('button', { name: 'repeat it about the axis' }).click();
  await expect(desk.titleBlock).toContainText('8 cut', { timeout: 60_000 });
  document = await desk.saved();
  const dome = Object.values(document.elements).find(({ kind }) => kind === 'dome')!;
  expect(prove(cutModel(document).cuts.get(dome.id)!.mesh).closed).toBe(true);
});

test('a roof from above shows what stands on its planes', async ({ desk, page }) => {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Main roof/ })
    .click();
  await expect(desk.sheet.locator('.on-plane')).toHaveCount(2);
  await expect(desk.sheet.locator('.on-plane .mark')).toHaveText([
    'W-45',
    'W-46',
    'W-47',
    'W-48',
    'W-49',
    'W-51',
    'W-52',
    'W-53',
  ]);
  // Each lies where its plane has it: those to the yard below the ridge.
  const of = async (mark: string) => (await desk.sheet.locator('.on-plane .mark', { hasText: mark }).boundingBox())!;
  expect((await of('W-46')).y).toBeGreaterThan((await of('W-49')).y);
  expect((await of('W-47')).x).toBeGreaterThan((await of('W-46')).x);
});
