/** How long it takes until the model can be seen: of a project that is opened, and of an edit. */
import type { ProjectDocument } from '@yard-arch/document';
import { facade, manyWindows } from '@yard-arch/demo';
import { median, type Bench } from './figures.ts';

const canvas = 'canvas[data-engine]';

/** Two frames on it has been drawn; what is read back from it waits until it truly is. */
const drawn = `new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))).then(() => {
  const gl = document.querySelector('[data-testid=model] ${canvas}').getContext('webgl2');
  gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
})`;

// Times are taken in the page itself, by its own clock: asking it from outside over and over takes its part of two cores, and comes late by as much.

/** From the beginning of the page until its model of one element has been drawn. */
const opened = `new Promise((done, fail) => {
  setTimeout(() => fail(new Error('the model was not drawn within a minute')), 60_000);
  const look = () =>
    document.querySelector('[data-testid=model][data-elements="1"] ${canvas}') ? done() : requestAnimationFrame(look);
  look();
}).then(() => ${drawn}).then(() => performance.now())`;

/** From the next key that is pressed until the model has been drawn as it was cut because of it. */
const edited = `new Promise((done, fail) => {
  setTimeout(() => fail(new Error('the edit was not drawn within a minute')), 60_000);
  const heard = ({ timeStamp }) =>
    new MutationObserver((_, observer) => {
      observer.disconnect();
      ${drawn}.then(() => done(performance.now() - timeStamp));
    }).observe(document.querySelector('[data-testid=cuts]'), { attributeFilter: ['value'] });
  addEventListener('keydown', heard, { capture: true, once: true });
})`;

/** Opens a project of one element. @returns after how many ms its model can be orbited */
export async function open({ page, url }: Bench, id: string): Promise<number> {
  await page.goto('about:blank');
  // What was there before is given the time to be cleared away, which is no part of opening.
  await page.waitForTimeout(1500);
  await page.goto(`${url}/projects/${id}`, { waitUntil: 'commit' });
  return page.evaluate<number>(opened);
}

/** Opens a project and one of a single opening by turns. @returns the medians, but for the first, which fills the browser’s caches; ms */
async function beside(
  bench: Bench,
  many: string,
  single: string,
  rounds: number,
): Promise<[many: number, single: number]> {
  const times: [many: number, single: number][] = [];
  for (let i = 0; i < rounds; i++) times.push([await open(bench, many), await open(bench, single)]);
  const again = times.slice(1);
  return [median(again.map(([of]) => of)), median(again.map(([, of]) => of))];
}

/** Opening again, and an edit of the pattern of very many, beside that. @returns the project of very many filled windows */
export async function measureOpening(bench: Bench): Promise<string> {
  const { projects, told } = bench;
  const made = async (document: ProjectDocument, name: string): Promise<string> =>
    (await projects.create({ ...document, name })).id;
  const single = await made(facade(1), 'A single one');
  const large = await made(facade(2000), 'Two thousand');
  const [slow, fast] = await beside(bench, large, single, 8);
  console.error(`reopening: 2,000 openings ${slow.toFixed(0)} ms, a single one ${fast.toFixed(0)} ms`);
  told({
    name: 'reopen a project of 2,000 openings until the model can be orbited, beside one of a single opening',
    value: slow / fast,
    limit: 1.6,
    unit: '×',
  });
  await measurePatternEdit(bench, large, slow);
  const filled = await made(manyWindows(2000), 'Two thousand filled');
  const [stocked, bare] = await beside(bench, filled, single, 6);
  console.error(`reopening: 2,000 filled windows ${stocked.toFixed(0)} ms, a single opening ${bare.toFixed(0)} ms`);
  told({
    name: 'reopen a project of 2,000 filled windows, beside one of a single opening',
    value: stocked / bare,
    limit: 2.2,
    unit: '×',
  });
  return filled;
}

/** The next edit is made once the last has been proved, and where the processor draws it the model has been drawn finely: it has nothing left to do. */
async function rests(page: Bench['page']): Promise<void> {
  await page.waitForTimeout(2000);
  const software = await page.evaluate<boolean>("localStorage.getItem('yard-arch-webgl') === 'software'");
  if (software) await page.locator('.model canvas.still:not([hidden])').waitFor({ state: 'attached', timeout: 60_000 });
  await page.evaluate(drawn);
  await page.waitForTimeout(500);
}

/** An edit of the size of all openings of a project, until the model shows it; the first, by which its code is compiled, is not counted, as with opening. @param reopening what opening it takes, ms */
async function measurePatternEdit(bench: Bench, project: string, reopening: number): Promise<void> {
  const { page, told } = bench;
  await open(bench, project);
  await page.getByTestId('title-block').getByText('sound').waitFor({ timeout: 60_000 });
  await page.getByRole('toolbar', { name: 'Patterns' }).getByRole('button', { name: /Arch/ }).click();
  await rests(page);
  const field = page.getByTestId('particulars').getByLabel('Height', { exact: true }).first();
  const times: number[] = [];
  for (let i = 0; i < 9; i++) {
    await field.fill(String(2010 + 10 * i));
    const [time] = await Promise.all([page.evaluate<number>(edited), field.press('Enter')]);
    times.push(time);
    await rests(page);
  }
  const edit = median(times.slice(1));
  console.error(`an edit of the pattern: ${edit.toFixed(0)} ms`);
  told({
    name: 'an edit of the pattern of 2,000 openings until the model shows it, beside opening that project again',
    value: edit / reopening,
    limit: 0.2,
    unit: '×',
  });
}
