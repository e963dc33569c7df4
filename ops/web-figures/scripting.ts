/** How long script takes between frames while something is done on the page. */
import type { CDPSession, Page } from '@playwright/test';
import { median, type Spot } from './figures.ts';

/** Orbits the model to and fro, a second and a half long. */
export async function orbit(page: Page): Promise<void> {
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
export async function drag(page: Page, { x, y }: Spot): Promise<void> {
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 90; i++) {
    await page.mouse.move(x + 24 * Math.sin(i / 9), y + 6 * Math.sin(i / 5));
    await page.waitForTimeout(16);
  }
  await page.keyboard.press('Escape');
  await page.mouse.up();
}

export async function pan(page: Page, { x, y }: Spot): Promise<void> {
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
export async function scripting(page: Page, session: CDPSession, act: (spot: Spot) => Promise<void>): Promise<number> {
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
