/** npm run screenshots: takes the pictures in docs/screenshots from the demo project, all of them anew. */
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { solidLibrary } from '@yard-arch/core/solid';
import { readDocument } from '@yard-arch/document';
import { projectFolder } from './data-folder.ts';
import { galleryPages } from './gallery.ts';
import { onStage } from './stage.ts';

/** Takes a picture of what the page shows. */
type Take = (name: string) => Promise<void>;

export async function main(): Promise<number> {
  const pictures = join(projectFolder, 'docs', 'screenshots');
  mkdirSync(pictures, { recursive: true });
  await onStage(async ({ url, projects, page }) => {
    const { id } = await projects.create(
      readDocument(readFileSync(join(projectFolder, 'demo', 'granary.json'), 'utf8')),
    );
    const take: Take = async (name) => {
      await page.waitForTimeout(900);
      // The model rests, and is drawn finely then, where it is shown at all.
      const still = page.locator('canvas.still');
      if ((await still.count()) > 0) await expect(still).toBeVisible({ timeout: 20_000 });
      await page.screenshot({ path: join(pictures, `${name}.png`) });
    };
    await ofProjects(page, take, url);
    await page.goto(`${url}/projects/${id}`);
    await settled(page);
    for (const part of [ofSheet, ofModel, ofPatterns, ofMany, ofPlan, ofTable, ofPlacing]) await part(page, take);
    await solidLibrary();
    for (const [name, html] of Object.entries(galleryPages())) {
      await page.setContent(html);
      await page.waitForTimeout(600);
      await page.screenshot({ path: join(pictures, `${name}.png`), fullPage: true });
    }
  });
  return 0;
}

async function ofProjects(page: Page, take: Take, url: string): Promise<void> {
  const drawn = page.waitForResponse((response) => response.url().includes('/picture'), { timeout: 60_000 });
  await page.goto(url);
  await page.getByRole('article').first().waitFor();
  // Its picture is drawn by the server, which takes its time at first.
  await drawn;
  await take('projects');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await take('new-project');
  await page.keyboard.press('Escape');
}

async function ofSheet(page: Page, take: Take): Promise<void> {
  await page.locator('[data-opening=o10]').click();
  await take('setting-out');
  await page.getByRole('button', { name: 'Turn over' }).click();
  await take('within');
  await page.getByRole('button', { name: 'Turn over' }).click();
}

async function ofModel(page: Page, take: Take): Promise<void> {
  const turnPlane = async (): Promise<void> => {
    await page.getByRole('button', { name: 'How the model is shown' }).click();
    await page.getByRole('menu').getByText('Cut through by a plane').click();
    await page.keyboard.press('Escape');
  };
  await page.getByRole('button', { name: 'Enlarge the model' }).click();
  // Its contact shade comes when it rests.
  await page.waitForTimeout(5000);
  await take('model');
  await turnPlane();
  await page.waitForTimeout(3000);
  await take('section');
  await turnPlane();
  await page.getByRole('button', { name: 'Make the model small' }).click();
}

async function ofPatterns(page: Page, take: Take): Promise<void> {
  await page.getByRole('button', { name: 'edit pattern' }).click();
  await take('pattern');
  await page.getByRole('tab', { name: 'Pattern book' }).click();
  await page.getByTestId('detail').locator('svg').waitFor();
  await page.waitForTimeout(4000);
  const rim = (await page.getByTestId('detail').locator('.rim').boundingBox())!;
  await page.mouse.click(rim.x + rim.width * 0.3, rim.y + rim.height * 0.6);
  await take('book');
  await page.getByRole('button', { name: 'Take one in' }).click();
  await take('take-in');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'setting out' }).click();
}

async function ofMany(page: Page, take: Take): Promise<void> {
  await page.locator('[data-opening=o10]').click();
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('Control+a');
  for (const title of ['Line up', 'Spread'])
    await page.locator('summary', { hasText: new RegExp(`^${title}$`) }).click();
  await take('many');
  await page.getByRole('button', { name: 'Materials' }).click();
  await page.getByRole('button', { name: /^Texture: english bond/ }).click();
  await take('materials');
  await page.keyboard.press('Escape');
}

async function ofPlan(page: Page, take: Take): Promise<void> {
  const register = page.getByRole('navigation');
  await register
    .getByRole('button', { name: /^Main roof/ })
    .first()
    .click();
  await page.getByRole('tab', { name: 'Plan' }).click();
  await page.keyboard.press('Escape');
  await page.locator('.roof-edge').first().click({ force: true });
  await take('plan');
  await register.getByRole('button', { name: /^South plane/ }).click();
  await page.locator('[data-opening=o46]').click();
  await take('roof');
}

async function ofTable(page: Page, take: Take): Promise<void> {
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Courtyard wall/ })
    .first()
    .click();
  await page.getByRole('tab', { name: 'Openings' }).click();
  await take('openings');
  await page.getByRole('tab', { name: /^Sheet/ }).click();
}

async function ofPlacing(page: Page, take: Take): Promise<void> {
  const strip = page.getByRole('toolbar', { name: 'Patterns' });
  await strip.getByRole('button', { name: /Oculus/ }).click();
  const face = (await page.getByTestId('face').boundingBox())!;
  await page.mouse.move(face.x + face.width * 0.637, face.y + face.height * 0.65, { steps: 4 });
  await take('placing');
  await page.keyboard.press('Escape');
  await page.locator('[data-opening=o14]').click();
  await page.getByLabel('Along', { exact: true }).fill('2600');
  await page.keyboard.press('Enter');
  await page.locator('[data-opening=o19]').click();
  await page.getByLabel('Along', { exact: true }).fill('700');
  await page.keyboard.press('Enter');
  await page.locator('[data-opening=o14]').click();
  await take('not-cut');
}

async function settled(page: Page): Promise<void> {
  await page.getByText(/^sound/).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(1500);
}
