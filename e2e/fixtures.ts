/** What the tests share: the application, a granary of their own, and the setting-out page as a person sees it. */
import { readFileSync } from 'node:fs';
import { test as base, expect, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { bare } from '@yard-arch/demo';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { decode, type DecodedPng } from 'fast-png';
import { Application } from './application.ts';

export const granaryFile = new URL('../demo/granary.json', import.meta.url);
export const granary = JSON.parse(readFileSync(granaryFile, 'utf8')) as ProjectDocument;

/** The same with nothing in its openings: for what is not about infill. */
export const bareGranary = bare(granary);

/** Goes to another page of the application without loading that anew, as its own links do. */
export async function goTo(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
}

/** How the model is shown: drawn finely once it rests, or folded away. */
type ShownAs = Pick<Fixtures, 'finer' | 'folded'>;

/** What a browser keeps in which the model is shown so. */
const keptFor = ({ finer, folded }: ShownAs): [key: string, value: string][] => [
  ...(finer ? [] : [['yard-arch-model', '{"finer":false}'] as [string, string]]),
  ...(folded ? [['yard-arch-model-room', 'folded'] as [string, string]] : []),
];

/** The setting-out page of one project. */
export class Desk {
  readonly sheet: Locator;
  readonly strip: Locator;
  readonly particulars: Locator;
  readonly titleBlock: Locator;
  readonly saving: Locator;

  constructor(
    readonly page: Page,
    readonly url: string,
    readonly id: string,
    /** Where the model is drawn finely it is waited for until all has been checked, and the page has nothing left to do. */
    private readonly as: ShownAs = { finer: true, folded: true },
  ) {
    this.sheet = page.getByTestId('sheet');
    this.strip = page.getByRole('toolbar', { name: 'Patterns' });
    this.particulars = page.getByTestId('particulars');
    this.titleBlock = page.getByTestId('title-block');
    this.saving = page.getByTestId('saving');
  }

  /** Opens the project: from another that the page shows without loading the application anew. */
  async open(): Promise<void> {
    if (this.page.url().startsWith(this.url)) return this.goOn();
    await this.page.goto(`${this.url}/projects/${this.id}`);
    await this.isOpen();
  }

  private async goOn(): Promise<void> {
    const path = `/projects/${this.id}`;
    await this.page.evaluate((kept) => {
      localStorage.clear();
      sessionStorage.clear();
      for (const [key, value] of kept) localStorage.setItem(key, value);
    }, keptFor(this.as));
    await goTo(this.page, path);
    // The address names a wall once the document is there.
    await this.page.waitForURL((url) => url.pathname.startsWith(`${path}/`));
    await this.isOpen();
  }

  private async isOpen(): Promise<void> {
    await expect(this.titleBlock).toContainText(this.as.finer ? 'sound' : /being checked|sound/, { timeout: 120_000 });
  }

  /** The document as the server holds it, once all is saved. */
  async saved(): Promise<ProjectDocument> {
    // Beside what was set aside, all is.
    await expect(this.saving).toHaveText(/^(all else )?saved$/);
    const response = await this.page.request.get(`${this.url}/api/projects/${this.id}/document`);
    return ((await response.json()) as { document: ProjectDocument }).document;
  }

  async openingOf(id: string): Promise<Opening> {
    return (await this.saved()).openings[id]!;
  }

  /** Where a point of the face (metres) is on the page. */
  at(s: number, t: number): Promise<{ x: number; y: number }> {
    return this.on(this.sheet, s, t);
  }

  /** Where a point of the plan (metres) is on the page. */
  inPlan(x: number, y: number): Promise<{ x: number; y: number }> {
    return this.on(this.page.getByTestId('plan'), x, y);
  }

  private async on(board: Locator, s: number, t: number): Promise<{ x: number; y: number }> {
    const box = (await board.boundingBox())!;
    const read = async (name: string): Promise<number> => Number(await board.getAttribute(name));
    const [scale, x, y] = [await read('data-scale'), await read('data-x'), await read('data-y')];
    return { x: box.x + x + s * scale, y: box.y + y - t * scale };
  }

  shape(id: string): Locator {
    return this.sheet.locator(`[data-opening="${id}"]`);
  }

  /** Opens a fold of the particulars, unless it is open. */
  async unfold(title: string): Promise<void> {
    const summary = this.page.locator('summary', { hasText: new RegExp(`^${title}`) });
    const fold = this.particulars.locator('details', { has: summary }).first();
    if ((await fold.getAttribute('open')) === null) await fold.locator('summary').click();
  }

  async choose(id: string): Promise<void> {
    await this.shape(id).click();
    await expect(this.particulars).toContainText(`Opening ${granary.openings[id]?.mark ?? ''}`);
  }

  async type(label: string, text: string): Promise<void> {
    const field = this.particulars.getByLabel(label, { exact: true }).first();
    await field.fill(text);
    await field.press('Enter');
  }

  /** Drags from one point of the face to another, holding at the end. */
  async drag(from: [number, number], to: [number, number]): Promise<void> {
    const [a, b] = [await this.at(...from), await this.at(...to)];
    await this.page.mouse.move(a.x, a.y);
    await this.page.mouse.down();
    await this.page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 4 });
    await this.page.mouse.move(b.x, b.y, { steps: 4 });
    await this.page.waitForTimeout(60);
  }

  /** The model view's pixels. */
  async modelPixels() {
    return decode(await this.page.getByTestId('model').screenshot());
  }

  /** Where what the model is turned to stands: the middle of the room above the view's tools, which cover 44 pixels at its foot. */
  async modelMiddle(): Promise<{ x: number; y: number; width: number }> {
    const { x, y, width, height } = (await this.page.getByTestId('model').boundingBox())!;
    return { x: x + width / 2, y: y + (height - 44) / 2, width };
  }

  /** Share of the model view's pixels that a test says yes to. */
  async modelShare(is: (r: number, g: number, b: number) => boolean): Promise<number> {
    const { data, channels, width, height } = await this.modelPixels();
    let count = 0;
    for (let i = 0; i < width * height; i++)
      if (is(data[channels * i]!, data[channels * i + 1]!, data[channels * i + 2]!)) count += 1;
    return count / (width * height);
  }
}

/** Share of pixels in which two pictures of one size differ plainly. */
export function changed(before: DecodedPng, after: DecodedPng): number {
  const { channels, width, height } = before;
  let count = 0;
  for (let i = 0; i < width * height; i++) {
    let far = 0;
    for (let k = 0; k < 3; k++)
      far = Math.max(far, Math.abs(before.data[channels * i + k]! - after.data[channels * i + k]!));
    if (far > 24) count += 1;
  }
  return count / (width * height);
}

/** The colour of sunlit or shaded brick in the model. */
export const isBrick = (r: number, g: number, b: number): boolean => r > 90 && r > g * 1.35 && g > b * 1.05 && r < 235;

interface Fixtures {
  project: string;
  /** Whether the granary’s openings are filled. */
  filled: boolean;
  /** Whether the model is drawn finely once it rests. */
  finer: boolean;
  /** Whether the model is folded away: most of the time of a browser without a graphics card goes into drawing it. */
  folded: boolean;
  /** Whether the page goes on from the test before in the same file, as a person’s does from project to project: what has run once is compiled. */
  goesOn: boolean;
  desk: Desk;
}

/** The page that goes on, and the file whose tests it serves: others find it as it was first. */
interface Kept {
  page: Page | null;
  file: string;
}

/** A page, with the model as it is wanted: only where it is looked at is it drawn, and drawn finely. */
async function made(context: BrowserContext, as: ShownAs): Promise<Page> {
  const page = await context.newPage();
  await page.addInitScript((kept) => {
    for (const [key, value] of kept) if (!localStorage.getItem(key)) localStorage.setItem(key, value);
  }, keptFor(as));
  return page;
}

async function leave(kept: Kept): Promise<void> {
  await kept.page?.context().close();
  kept.page = null;
}

export const test = base.extend<Fixtures, { application: Application; kept: Kept }>({
  application: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const application = await Application.make();
      const ended = await application.start();
      if (ended !== null) throw new Error(`The application ended with ${ended}:\n${application.output}`);
      await use(application);
      await application.remove();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
  filled: [true, { option: true }],
  project: async ({ application, request, filled }, use) => {
    const data = filled ? granary : bareGranary;
    const made = await request.post(`${application.url}/api/projects/upload`, { data });
    const { id } = (await made.json()) as { id: string };
    await use(id);
    await request.delete(`${application.url}/api/projects/${id}`).catch(() => {});
  },
  finer: [false, { option: true }],
  folded: [true, { option: true }],
  goesOn: [false, { option: true }],
  kept: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const kept: Kept = { page: null, file: '' };
      await use(kept);
      await leave(kept);
    },
    { scope: 'worker' },
  ],
  page: async ({ context, browser, viewport, goesOn, finer, folded, kept }, use, info) => {
    if (kept.file !== info.file) await leave(kept);
    kept.file = info.file;
    if (!goesOn) return use(await made(context, { finer, folded }));
    kept.page ??= await made(await browser.newContext({ viewport, acceptDownloads: true }), { finer, folded });
    await use(kept.page);
    if (info.status !== info.expectedStatus) return leave(kept);
    kept.page.removeAllListeners();
    // Behind another page it would draw once a second.
    for (const other of kept.page.context().pages()) if (other !== kept.page) await other.close();
    await kept.page.unrouteAll({ behavior: 'ignoreErrors' });
    await kept.page.context().setOffline(false);
    await kept.page.setViewportSize(viewport!);
  },
  desk: async ({ page, application, project, finer, folded }, use) => {
    const desk = new Desk(page, application.url, project, { finer, folded });
    const failures: string[] = [];
    page.on('pageerror', (error) => failures.push(error.message));
    await desk.open();
    await use(desk);
    expect(failures).toEqual([]);
  },
});

export { expect };
