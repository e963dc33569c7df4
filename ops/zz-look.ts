import { everyDormer, everyVault } from '@yard-arch/demo';
import { onStage } from './stage.ts';
export async function main(): Promise<number> {
  await onStage(async ({ url, projects, page }) => {
    const made = await projects.create(everyDormer());
    await page.goto(`${url}/projects/${made.id}/book`);
    await page.waitForTimeout(6000);
    await page.getByRole('tab', { name: 'Pattern book' }).click();
    await page.waitForTimeout(3000);
    await page.getByText('Chimney stack, three pots').first().click();
    await page.waitForTimeout(4000);
    await page.screenshot({ path: '/tmp/z1.png' });
    await page.getByText('Gabled dormer').first().click();
    await page.waitForTimeout(3000);
    const form = page.getByText('Parts about it').first();
    await form.scrollIntoViewIfNeeded();
    await page.screenshot({ path: '/tmp/z2.png' });
    const vaults = await projects.create(everyVault());
    await page.goto(`${url}/projects/${vaults.id}`);
    await page.waitForTimeout(8000);
    await page.getByText('Barrel with lunettes').first().click();
    await page.getByRole('button', { name: 'Enlarge the model' }).click();
    await page.getByRole('button', { name: 'Chosen' }).click();
    await page.waitForTimeout(4000);
    await page.screenshot({ path: '/tmp/z3.png' });
    await page.getByText('Wall of the lunettes').first().click();
    await page.waitForTimeout(2000);
    await page.screenshot({ path: '/tmp/z4.png' });
  });
  return 0;
}
