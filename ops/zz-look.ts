import { everyRoof } from '@yard-arch/demo';
import { onStage } from './stage.ts';
export async function main(): Promise<number> {
  await onStage(async ({ url, projects, page }) => {
    const made = await projects.create(everyRoof());
    await page.goto(`${url}/projects/${made.id}`);
    await page.waitForTimeout(6000);
    await page.getByText('Gabled', { exact: true }).first().click();
    await page.waitForTimeout(1500);
    const grip = (await page.locator('.eaves-section .grip').last().boundingBox())!;
    await page.mouse.move(grip.x + 5, grip.y + 5);
    await page.mouse.down();
    await page.mouse.move(grip.x + 5, grip.y + 19, { steps: 4 });
    await page.waitForTimeout(600);
    await page.screenshot({ path: '/tmp/z1.png' });
    await page.mouse.up();
    await page.waitForTimeout(600);
    await page.screenshot({ path: '/tmp/z2.png' });
  });
  return 0;
}
