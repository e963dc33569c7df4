/** Hostile files: each is answered in time and with little, and the server answers others meanwhile. */
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { emptyDocument } from '@yard-arch/document';
import { startHarness, type Harness } from '../test/harness.ts';
import { longestHealth, Odd, rounds } from './odd.ts';

let harness: Harness;
beforeAll(async () => {
  jest.spyOn(console, 'log').mockImplementation(() => {});
  harness = await startHarness('files');
  await harness.app.request(`/api/projects/${(await harness.services.projects.create(granary())).id}/picture`);
});
afterAll(() => harness?.remove());

const upload = (body: string): Promise<Response> =>
  Promise.resolve(
    harness.app.request('/api/projects/upload', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    }),
  );

/** Does something while health is asked for again and again. @returns how long the slowest of its answers took, milliseconds. */
async function slowestHealth(what: () => Promise<unknown>): Promise<number> {
  let over = false;
  let slowest = 0;
  const asking = (async () => {
    while (!over) {
      const begun = performance.now();
      const { status } = await harness.app.request('/api/health');
      slowest = Math.max(slowest, performance.now() - begun);
      if (status !== 200) throw new Error(`health answered ${status}`);
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
  })();
  await what();
  over = true;
  await asking;
  return slowest;
}

const material = { id: 'm', name: 'Brick', colour: '#aa6644', roughness: 0.9 };
const wall = (id: string, over: object = {}) => ({
  id,
  name: id,
  kind: 'wall',
  start: { x: 0, y: 0, z: 0 },
  turn: 0,
  length: 100,
  height: 3,
  top: { kind: 'level' },
  layers: [{ thickness: 0.3, material: 'm' }],
  ...over,
});
const pattern = {
  id: 'p',
  name: 'Light',
  profile: { shape: 'rectangle' },
  sizes: { s: { id: 's', name: '', dimensions: { width: 1, height: 1 } } },
  reveal: { material: null },
};
const opening = (i: number, along: object) => ({
  id: `o${i}`,
  mark: `A${i}`,
  element: 'w',
  pattern: 'p',
  size: 's',
  along,
  up: { from: 'base', distance: 0.5 },
  grip: { across: 'left', level: 'sill' },
  blockedUp: false,
});
const rows = (n: number, make: (i: number) => { id: string }): object =>
  Object.fromEntries(Array.from({ length: n }, (_, i) => make(i)).map((row) => [row.id, row]));
const frame = () => ({ ...emptyDocument('Trial'), materials: { m: material }, patterns: { p: pattern } });

const bombs: Record<string, () => object> = {
  'two hundred runs of long arcs at a fine chord': () => ({
    ...frame(),
    chord: 0.0001,
    elements: {
      w: wall('w', { length: 100_000, sweep: 1, runs: Array(200).fill({ turn: 0, length: 100_000, sweep: 1 }) }),
    },
  }),
  'many walls of many arcs': () => ({
    ...frame(),
    chord: 0.0001,
    elements: rows(60, (i) =>
      wall(`w${i}`, { length: 100_000, sweep: 1, runs: Array(40).fill({ turn: 0, length: 100_000, sweep: 1 }) }),
    ),
  }),
  'a chain of openings, each measured from the one before': () => ({
    ...frame(),
    elements: { w: wall('w', { length: 90_000 }) },
    openings: rows(5000, (i) =>
      opening(
        i,
        i === 0
          ? { from: 'start', distance: 1 }
          : { from: 'neighbour', opening: `o${i - 1}`, edge: 'right', distance: 0.4 },
      ),
    ),
  }),
  'openings heaped on one another': () => ({
    ...frame(),
    elements: { w: wall('w') },
    openings: rows(3000, (i) => opening(i, { from: 'start', distance: 1 + i * 1e-5 })),
  }),
};

describe('files that ask for endless work', () => {
  it.each(Object.keys(bombs))(
    '%s: taken, drawn or refused in bounded time, while others are answered',
    async (name) => {
      let pictures: Response[] = [];
      const slowest = await slowestHealth(async () => {
        const made = await upload(JSON.stringify(bombs[name]!()));
        expect(made.status).toBe(201);
        const { id } = (await made.json()) as { id: string };
        pictures = await Promise.all([0, 1].map(async () => harness.app.request(`/api/projects/${id}/picture`)));
        await harness.services.projects.remove(id);
      });
      for (const picture of pictures) expect([200, 422]).toContain(picture.status);
      expect(slowest).toBeLessThan(longestHealth);
    },
  );

  it('a ring of openings, each measured from the next, is refused with the first faults', async () => {
    const answer = await upload(
      JSON.stringify({
        ...frame(),
        elements: { w: wall('w', { length: 90_000 }) },
        openings: rows(20_000, (i) =>
          opening(i, { from: 'neighbour', opening: `o${(i + 1) % 20_000}`, edge: 'right', distance: 0.4 }),
        ),
      }),
    );
    expect(answer.status).toBe(422);
    const { faults, count } = (await answer.json()) as { faults: unknown[]; count: number };
    expect([faults.length, count]).toEqual([100, 20_000]);
  });
});

describe('files that are nothing but faults', () => {
  const bad: Record<string, () => string> = {
    'a million rows of nothing': () =>
      JSON.stringify({
        ...frame(),
        openings: Object.fromEntries(Array.from({ length: 300_000 }, (_, i) => [`o${i}`, { a: 1 }])),
      }),
    'an outline of a million points that are none': () =>
      JSON.stringify({
        ...frame(),
        elements: { w: { ...wall('w'), kind: 'panel', outline: Array(1_000_000).fill({}) } },
      }),
    'lists within lists': () => `${'['.repeat(100_000)}${']'.repeat(100_000)}`,
    'objects within objects': () => `${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}`,
    'a name of ten megabytes': () => JSON.stringify({ ...frame(), name: 'x'.repeat(10_000_000) }),
    'not JSON at all': () => '\u0000\u0001PNG',
    'keys that are names of methods': () =>
      JSON.stringify({ ...frame(), elements: { __proto__x: 1, constructor: {}, toString: null } }).replace(
        '__proto__x',
        '__proto__',
      ),
  };
  it.each(Object.keys(bad))('%s: refused with little', async (name) => {
    const text = bad[name]!();
    let answer: Response | null = null;
    const slowest = await slowestHealth(async () => {
      answer = await upload(text);
    });
    expect([400, 422]).toContain(answer!.status);
    expect((await answer!.text()).length).toBeLessThan(60_000);
    expect(slowest).toBeLessThan(longestHealth);
  });

  it('spoiled documents are refused, or taken and drawn', async () => {
    for (let round = 0; round < rounds; round++) {
      const odd = new Odd(`files ${round}`);
      for (let i = 0; i < 60; i++) {
        const answer = await upload(JSON.stringify(odd.spoiled(granary())));
        expect(answer.status).toBeLessThan(500);
        if (answer.status !== 201) continue;
        const { id } = (await answer.json()) as { id: string };
        expect((await harness.app.request(`/api/projects/${id}/picture`)).status).toBeLessThan(500);
      }
    }
  });
});
