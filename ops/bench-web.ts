/**
 * npm run bench:web: times the application itself in headless Chromium and prints each figure beside the one that it is to reach; with --json as an array of
 * { name, ours_ms, reference_ms, ratio }, where the reference is that limit (and _kb in place of _ms for sizes, nothing for ratios).
 */
import { facade } from '@yard-arch/demo';
import { onStage } from './stage.ts';
import type { Bench, Figure } from './web-figures/figures.ts';
import { firstLoad } from './web-figures/first-load.ts';
import { measureOpening, open } from './web-figures/opening.ts';
import { drag, orbit, pan, scripting } from './web-figures/scripting.ts';

const suffix = { ms: '_ms', kb: '_kb', '×': '' } as const;

export async function main(args: string[]): Promise<number> {
  const figures: Figure[] = [];
  await onStage(async ({ url, projects, page }) => {
    const told = (figure: Figure): void => {
      figures.push(figure);
      console.error(`${figure.name}: ${figure.value.toFixed(2)} ${figure.unit}, to reach ${figure.limit}`);
    };
    const bench: Bench = { url, projects, page, told };
    told({ name: 'first load before the 3D view, gzipped', value: await firstLoad(url), limit: 500, unit: 'kb' });
    await measureScripting(bench, await measureOpening(bench));
  });
  if (args.includes('--json')) console.log(JSON.stringify(figures.map(asJson), null, 2));
  else
    for (const { name, value, limit, unit } of figures)
      console.log(
        `${name.padEnd(104)} ${value.toFixed(2).padStart(9)} ${unit}   of ${limit} (${(value / limit).toFixed(2)})`,
      );
  return figures.every(({ value }) => Number.isFinite(value)) ? 0 : 1;
}

const asJson = ({ name, value, limit, unit }: Figure): Record<string, string | number> => ({
  name,
  [`ours${suffix[unit]}`]: value,
  [`reference${suffix[unit]}`]: limit,
  ratio: value / limit,
});

/** How long script takes while the model is orbited, an opening is dragged, and a sheet is panned. @param filled a project of very many filled windows */
async function measureScripting(bench: Bench, filled: string): Promise<void> {
  const { page, projects, told } = bench;
  const session = (): ReturnType<ReturnType<typeof page.context>['newCDPSession']> =>
    page.context().newCDPSession(page);
  await open(bench, filled);
  await page.waitForTimeout(3000);
  // Its code is compiled by the first, which is not counted, as with opening.
  await orbit(page);
  told({
    name: 'scripting a frame while a model of 2,000 filled windows is orbited',
    value: await scripting(page, await session(), () => orbit(page)),
    limit: 2,
    unit: 'ms',
  });

  const usual = await projects.create({ ...facade(160), name: 'A hundred and sixty' });
  await open(bench, usual.id);
  await page.getByTestId('title-block').getByText('sound').waitFor({ timeout: 30_000 });
  told({
    name: 'scripting a frame while one of 160 openings is dragged',
    value: await scripting(page, await session(), (spot) => drag(page, spot)),
    limit: 5,
    unit: 'ms',
  });

  const screen = await projects.create({ ...facade(5000), name: 'Five thousand' });
  await open(bench, screen.id);
  await page.waitForTimeout(3000);
  told({
    name: 'scripting a frame while a sheet of 5,000 openings is panned',
    value: await scripting(page, await session(), (spot) => pan(page, spot)),
    limit: 16,
    unit: 'ms',
  });
}
