import { readFileSync } from 'node:fs';
import { readDocument } from '@yard-arch/document';
import { onStage } from './stage.ts';
export async function main(): Promise<number> {
  await onStage(async ({ url, projects, page }) => {
    const made = await projects.create(readDocument(readFileSync('demo/granary.json', 'utf8')));
    await page.goto(`${url}/projects/${made.id}`);
    await page.waitForTimeout(8000);
    await page.getByRole('button', { name: 'Enlarge the model' }).click();
    await page.waitForTimeout(3500);
    await page.screenshot({ path: '/tmp/z1.png' });
    await page.getByRole('button', { name: 'How the model is shown' }).click();
    await page.getByRole('menu').getByText('Cut through by a plane').click();
    await page.keyboard.press('Escape');
    await page.waitForTimeout(3500);
    await page.screenshot({ path: '/tmp/z2.png' });
    await page.getByRole('tab', { name: 'Plan', exact: true }).click();
    await page.getByRole('button', { name: 'Make the model small' }).click();
    await page.waitForTimeout(2500);
    await page.screenshot({ path: '/tmp/z3.png' });
  });
  return 0;
}
