/**
 * npm run bench:web: times the application itself in headless Chromium and prints each figure beside the one that it is to reach; with --json as an array of
 * { name, ours_ms, reference_ms, ratio }, where the reference is that limit (and _kb in place of _ms for sizes, nothing for ratios).
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { CDPSession, Page } from '@playwright/test';
import { facade, manyWindows } from '@yard-arch/demo';
import { onStage } from './stage.ts';
import { webFolder } from './web-build.ts';

interface Figure {
  name: string;
  value: number;
  limit: number;
  unit: 'ms' | 'kb' | '×';
}

const suffix = { ms: '_ms', kb: '_kb', '×': '' } as const;

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;

export async function main(args: string[]): Promise<number> {
  const figures: Figure[] = [];
  const told = (figure: Figure): void => {
    figures.push(figure);
    console.error(`${figure.name}: ${figure.value.toFixed(2)} ${figure.unit}, to reach ${figure.limit}`);
  };
  await onStage(async ({ url, projects, page }) => {
    const open = async (id: string): Promise<number> => {
      await page.goto('about:blank');
      // What was there before is given the time to be cleared away, which is no part of opening.
      await page.waitForTimeout(1500);
      const start = Date.now();
      await page.goto(`${url}/projects/${id}`, { waitUntil: 'commit' });
      await page.locator('[data-testid=model][data-elements="1"] canvas[data-engine]').waitFor({ timeout: 60_000 });
      // Two frames on it has been drawn; what is read back from it waits until it truly is.
      await page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))');
      await page.evaluate(
        "(() => { const gl = document.querySelector('[data-testid=model] canvas[data-engine]').getContext('webgl2'); gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4)); })()",
      );
      return Date.now() - start;
    };

    told({ name: 'first load before the 3D view, gzipped', value: await firstLoad(url), limit: 500, unit: 'kb' });

    const large = await projects.create({ ...facade(2000), name: 'Two thousand' });
    const single = await projects.create({ ...facade(1), name: 'A single one' });
    const times: [large: number, single: number][] = [];
    for (let i = 0; i < 8; i++) times.push([await open(large.id), await open(single.id)]);
    // The first openings fill the browser's caches; the measure is of opening again.
    const again = times.slice(1);
    const [slow, fast] = [median(again.map(([of]) => of)), median(again.map(([, of]) => of))];
    console.error(`reopening: 2,000 openings ${slow.toFixed(0)} ms, a single one ${fast.toFixed(0)} ms`);
    told({
      name: 'reopen a project of 2,000 openings until the model can be orbited, beside one of a single opening',
      value: slow / fast,
      limit: 1.6,
      unit: '×',
    });

    const filled = await projects.create({ ...manyWindows(2000), name: 'Two thousand filled' });
    const filledTimes: [filled: number, single: number][] = [];
    for (let i = 0; i < 6; i++) filledTimes.push([await open(filled.id), await open(single.id)]);
    const anew = filledTimes.slice(1);
    const [stocked, bare] = [median(anew.map(([of]) => of)), median(anew.map(([, of]) => of))];
    console.error(`reopening: 2,000 filled windows ${stocked.toFixed(0)} ms, a single opening ${bare.toFixed(0)} ms`);
    told({
      name: 'reopen a project of 2,000 filled windows, beside one of a single opening',
      value: stocked / bare,
      limit: 2.2,
      unit: '×',
    });
    await open(filled.id);
    await page.waitForTimeout(3000);
    told({
      name: 'scripting a frame while a model of 2,000 filled windows is orbited',
      value: await scripting(page, await page.context().newCDPSession(page), () => orbit(page)),
      limit: 2,
      unit: 'ms',
    });

    const usual = await projects.create({ ...facade(160), name: 'A hundred and sixty' });
    await open(usual.id);
    await page.getByTestId('title-block').getByText('sound').waitFor({ timeout: 30_000 });
    told({
      name: 'scripting a frame while one of 160 openings is dragged',
      value: await scripting(page, await page.context().newCDPSession(page), (spot) => drag(page, spot)),
      limit: 5,
      unit: 'ms',
    });

    const screen = await projects.create({ ...facade(5000), name: 'Five thousand' });
    await open(screen.id);
    await page.waitForTimeout(3000);
    const session = await page.context().newCDPSession(page);
    told({
      name: 'scripting a frame while a sheet of 5,000 openings is panned',
      value: await scripting(page, session, (spot) => pan(page, spot)),
      limit: 16,
      unit: 'ms',
    });
  });
  if (args.includes('--json'))
    console.log(
      JSON.stringify(
        figures.map(({ name, value, limit, unit }) => ({
          name,
          [`ours${suffix[unit]}`]: value,
          [`reference${suffix[unit]}`]: limit,
          ratio: value / limit,
        })),
        null,
        2,
      ),
    );
  else
    for (const { name, value, limit, unit } of figures)
      console.log(
        `${name.padEnd(96)} ${value.toFixed(2).padStart(9)} ${unit}   of ${limit} (${(value / limit).toFixed(2)})`,
      );
  return figures.every(({ value }) => Number.isFinite(value)) ? 0 : 1;
}

/** What the page itself loads: its scripts and styles with all that they import at once, gzipped, in kB. */
async function firstLoad(url: string): Promise<number> {
  const html = await (await fetch(url)).text();
  const wanted = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.(?:js|css))"/g)].map((match) => match[1]!);
  let bytes = gzipSync(html).length;
  const seen = new Set<string>();
  for (const path of wanted) {
    if (seen.has(path)) continue;
    seen.add(path);
    const text = readFileSync(join(webFolder, path));
    bytes += gzipSync(text).length;
    for (const [, imported] of text
      .toString('utf8')
      .matchAll(/(?:^|[;}])import\s*(?:[^"'();]*from\s*)?["']\.\/([^"']+\.js)["']/g))
      wanted.push(`/assets/${imported}`);
  }
  return bytes / 1000;
}

interface Spot {
  x: number;
  y: number;
}

/** Orbits the model to and fro, a second and a half long. */
async function orbit(page: Page): Promise<void> {
  const { x, y, width, height } = (await page.getByTestId('model').boundingBox())!;
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  for (let i = 1; i <= 90; i++) {
    await page.mouse.move(x + width / 2 + 40 * Math.sin(i / 9), y + height / 2 + 8 * Math.sin(i / 5));
    await page.waitForTimeout(16);
  }
  await page.mouse.up();
}

/** Drags the opening under a spot to and fro, a second and a half long. */
async function drag(page: Page, { x, y }: Spot): Promise<void> {
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 90; i++) {
    await page.mouse.move(x + 24 * Math.sin(i / 9), y + 6 * Math.sin(i / 5));
    await page.waitForTimeout(16);
  }
  await page.keyboard.press('Escape');
  await page.mouse.up();
}

async function pan(page: Page, { x, y }: Spot): Promise<void> {
  await page.mouse.move(x, y);
  await page.mouse.down({ button: 'middle' });
  for (let i = 1; i <= 90; i++) {
    await page.mouse.move(x + 60 * Math.sin(i / 9), y + 40 * Math.sin(i / 7));
    await page.waitForTimeout(16);
  }
  await page.mouse.up({ button: 'middle' });
}

interface Box extends Spot {
  width: number;
  height: number;
}

interface TraceEvent {
  name: string;
  ph: string;
  ts: number;
  dur?: number;
  tid: number;
  pid: number;
  args: { name?: string };
}

/** The median time that script takes on the main thread between two frames, while something is done at an opening in the middle of the sheet; ms. */
async function scripting(page: Page, session: CDPSession, act: (spot: Spot) => Promise<void>): Promise<number> {
  const boxes = await page
    .locator('[data-opening] .shape')
    .evaluateAll((shapes) => shapes.map((shape) => shape.getBoundingClientRect().toJSON() as Box));
  const sheet = (await page.getByTestId('sheet').boundingBox())!;
  const middle = { x: sheet.x + sheet.width / 2, y: sheet.y + sheet.height * 0.4 };
  const far = (box: Box): number => Math.hypot(box.x + box.width / 2 - middle.x, box.y + box.height / 2 - middle.y);
  // Very many are drawn as one figure, which is under every spot.
  const nearest = boxes.reduce(
    (best, box) => (far(box) < far(best) ? box : best),
    boxes[0] ?? { ...middle, width: 0, height: 0 },
  );
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: {
      includedCategories: [
        'devtools.timeline',
        'disabled-by-default-devtools.timeline',
        'devtools.timeline.frame',
        'disabled-by-default-devtools.timeline.frame',
        '__metadata',
      ],
    },
  });
  await act({ x: nearest.x + nearest.width / 2, y: nearest.y + nearest.height / 2 });
  const complete = new Promise((done) => session.once('Tracing.tracingComplete', done));
  await session.send('Tracing.end');
  await complete;
  const threads = events
    .filter((event) => event.name === 'thread_name' && event.args.name === 'CrRendererMain')
    .map(({ pid, tid }) => `${pid} ${tid}`);
  const scripts = new Set([
    'FunctionCall',
    'RunMicrotasks',
    'FireAnimationFrame',
    'TimerFire',
    'EventDispatch',
    'v8.callFunction',
  ]);
  let most: number[] = [];
  for (const thread of threads) {
    const own = events.filter(({ pid, tid }) => `${pid} ${tid}` === thread);
    const frames = own
      .filter(({ name }) => name === 'BeginMainThreadFrame')
      .map(({ ts }) => ts)
      .sort((a, b) => a - b);
    const work = own
      .filter(({ ph, name, dur }) => ph === 'X' && dur !== undefined && scripts.has(name))
      .sort((a, b) => a.ts - b.ts || b.dur! - a.dur!);
    const outermost: TraceEvent[] = [];
    let end = -1;
    for (const event of work) {
      if (event.ts < end) continue;
      outermost.push(event);
      end = event.ts + event.dur!;
    }
    const sums = frames
      .slice(0, -1)
      .map(
        (from, i) =>
          outermost.filter(({ ts }) => ts >= from && ts < frames[i + 1]!).reduce((sum, { dur }) => sum + dur!, 0) /
          1000,
      );
    // Frames in which nothing was asked of the script are no frames of the drag.
    const busy = sums.filter((sum) => sum > 0.3);
    if (busy.length > most.length) most = busy;
  }
  return median(most);
}
