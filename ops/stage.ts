/** A stage: the built application on an empty database, with a browser before it, for as long as a job takes. */
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { listen, makeApplication, openServices, type Projects } from '@yard-arch/server';
import { chromiumFlags } from '../e2e/playwright.config.ts';
import { ensureDatabase, startCluster } from './cluster.ts';
import { chromiumPath } from './debian.mjs';
import { buildWeb, webFolder } from './web-build.ts';

export interface Stage {
  url: string;
  projects: Projects;
  /** 1280 × 800. */
  page: Page;
}

/** Sets it up, does the job, and clears everything away again. */
export async function onStage(job: (stage: Stage) => Promise<void>): Promise<void> {
  await buildWeb();
  const folder = mkdtempSync(join(tmpdir(), 'yard-arch-stage-'));
  chmodSync(folder, 0o711);
  const cluster = await startCluster(folder, true);
  const services = await openServices(await ensureDatabase(cluster, 'yard'));
  const served = await listen(makeApplication({ services, web: webFolder }), '127.0.0.1', 0);
  const browser = await chromium.launch({ executablePath: chromiumPath()!, args: chromiumFlags });
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await job({ url: served.url, projects: services.projects, page });
  } finally {
    await browser.close();
    await served.close();
    await services.close();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
