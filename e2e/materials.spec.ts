/** Pictures of materials' own on the real interface: chosen, sized, taken along in a file and brought back. */
import { digestOf } from '@yard-arch/core/format';
import { encode } from 'fast-png';
import { readFileSync } from 'node:fs';
import { expect, isBrick, test } from './fixtures.ts';

test.use({ folded: false, filled: false, goesOn: true });

const side = 64;
const blue = Buffer.from(
  encode({
    width: side,
    height: side / 2,
    channels: 3,
    data: new Uint8Array((3 * side * side) / 2).map((_, i) => [20, 60, 200][i % 3]!),
  }),
);

test('a material takes a picture with its true size, shows it, and is taken along with it', async ({ desk, page }) => {
  const bricks = await desk.modelShare(isBrick);
  expect(bricks).toBeGreaterThan(0.03);
  await page.getByRole('button', { name: 'Materials' }).click();
  const file = page.getByLabel('Colour picture of Old brick');
  // What is no picture is refused where it was chosen, and nothing is changed.
  await file.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText('notes.png was not taken')).toBeVisible();
  await file.setInputFiles({ name: 'blue tiles.png', mimeType: 'image/png', buffer: blue });
  await expect(desk.particulars.getByText('blue tiles.png')).toBeVisible();
  await desk.type('Shows, across', '600');
  await expect
    .poll(async () => (await desk.saved()).materials.brick!.pictures)
    .toMatchObject({ width: 0.6, height: 0.3 });
  const document = await desk.saved();
  const [asset] = Object.values(document.assets);
  expect(asset).toMatchObject({ sha256: digestOf(blue), width: side, height: side / 2, name: 'blue tiles.png' });
  await expect.poll(() => desk.modelShare(isBrick), { timeout: 20_000 }).toBeLessThan(bricks / 3);
  // Taken away as one file, and brought back from it.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.evaluate((url) => {
      const link = window.document.createElement('a');
      link.href = url;
      link.click();
    }, `/api/projects/${desk.id}/file`),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.zip$/);
  const zip = readFileSync(await download.path());
  await page.goto(desk.url);
  await page.getByTestId('file').setInputFiles({ name: 'granary.zip', mimeType: 'application/zip', buffer: zip });
  await expect(page.getByText(/Opened “Fennel Quay Granary” from granary.zip/)).toBeVisible();
});

test('the finder tells of openings by what is typed, and kinds of elements can be added from it', async ({
  desk,
  page,
}) => {
  await page.keyboard.press('Control+k');
  await page.getByLabel('Find anything').last().fill('d-18');
  await page.getByRole('option', { name: /D-18, Oculus on Courtyard wall/ }).click();
  await expect(desk.particulars.getByRole('heading', { name: 'Opening D-18' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByLabel('Find anything').last().fill('add a vault');
  await page.keyboard.press('Enter');
  await expect(desk.titleBlock).toContainText('back');
  await expect(desk.titleBlock).toContainText('sound');
  const document = await desk.saved();
  expect(Object.values(document.elements).some(({ kind }) => kind === 'vault')).toBe(true);
  await desk.type('Span', '6000');
  await expect
    .poll(async () => Object.values((await desk.saved()).elements).find(({ kind }) => kind === 'vault'))
    .toMatchObject({ span: 6 });
});
