/** npm run screenshots: takes the pictures in docs/screenshots from the demo project, all of them anew. */
import { mkdirSync, mkdtempSync, readFileSync, rmSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { readDocument } from '@yard-arch/document';
import { listen, makeApplication, openDatabase, Projects } from '@yard-arch/server';
import { solidLibrary } from '@yard-arch/core/solid';
import { chromiumFlags } from '../e2e/playwright.config.ts';
import { ensureDatabase, startCluster } from './cluster.ts';
import { projectFolder } from './data-folder.ts';
import { chromiumPath } from './debian.mjs';
import { galleryPages } from './gallery.ts';
import { buildWeb, webFolder } from './web-build.ts';

export async function main(): Promise<number> {
  const pictures = join(projectFolder, 'docs', 'screenshots');
  mkdirSync(pictures, { recursive: true });
  await buildWeb();
  const folder = mkdtempSync(join(tmpdir(), 'yard-arch-pictures-'));
  chmodSync(folder, 0o711);
  const cluster = await startCluster(folder, true);
  const database = await openDatabase(await ensureDatabase(cluster, 'yard'));
  const projects = new Projects(database);
  const granary = await projects.create(readDocument(readFileSync(join(projectFolder, 'demo', 'granary.json'), 'utf8')));
  const served = await listen(makeApplication({ database, web: webFolder }), '127.0.0.1', 0);
  const browser = await chromium.launch({ executablePath: chromiumPath()!, args: chromiumFlags });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const take = async (name: string): Promise<void> => {
      await page.waitForTimeout(900);
      await page.screenshot({ path: join(pictures, `${name}.png`) });
    };
    await page.goto(served.url);
    await page.getByRole('article').first().waitFor();
    await take('projects');
    await page.goto(`${served.url}/projects/${granary.id}`);
    await settled(page);
    await page.locator('[data-opening=o10]').click();
    await take('setting-out');
    await page.getByRole('button', { name: 'Enlarge the model' }).click();
    await page.waitForTimeout(600);
    await take('model');
    await page.getByRole('button', { name: 'How the model is shown' }).click();
    await page.getByRole('menu').getByText('Cut through by a plane').click();
    await page.keyboard.press('Escape');
    await take('section');
    await page.getByRole('button', { name: 'How the model is shown' }).click();
    await page.getByRole('menu').getByText('Cut through by a plane').click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Make the model small' }).click();
    await page.getByRole('button', { name: 'edit pattern' }).click();
    await take('pattern');
    await page.getByTestId('sheet').focus();
    await page.keyboard.press('Control+a');
    for (const title of ['Line up', 'Spread']) await page.locator('summary', { hasText: new RegExp(`^${title}$`) }).click();
    await take('many');
    await page.getByRole('tab', { name: 'Plan' }).click();
    await page.keyboard.press('Escape');
    await take('plan');
    await page.getByRole('tab', { name: 'Openings' }).click();
    await take('openings');
    await page.getByRole('tab', { name: /^Sheet/ }).click();
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
    await solidLibrary();
    for (const [name, html] of Object.entries(galleryPages())) {
      await page.setContent(html);
      await page.waitForTimeout(600);
      await page.screenshot({ path: join(pictures, `${name}.png`), fullPage: true });
    }
    return 0;
  } finally {
    await browser.close();
    await served.close();
    await database.close(true);
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function settled(page: Page): Promise<void> {
  await page.getByText(/^sound/).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(1500);
}
