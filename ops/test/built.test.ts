/** What is built is built once for each state of what it is built from. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { afterEach, beforeEach, expect, it } from '@jest/globals';
import { unlessBuilt } from '../built.ts';
import { projectFolder } from '../data-folder.ts';

let folder = '';
let builds = 0;
const room = (name: string): string => join(folder, name);
const result = (): string => join(folder, 'out', 'made.mjs');

/** @param fails whether building fails, after something was written. */
const build = (fails = false): Promise<void> =>
  unlessBuilt(
    {
      result: result(),
      mark: join(folder, '.built-from'),
      rooms: ['a', 'b'].map((at) => relative(projectFolder, room(at))),
    },
    async () => {
      builds += 1;
      writeFileSync(result(), '// made');
      if (fails) throw new Error('it does not compile');
    },
  );

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'yard-arch-built-'));
  for (const name of ['a', 'b', 'out', 'a/test', 'a/src']) mkdirSync(room(name), { recursive: true });
  writeFileSync(join(room('a'), 'src', 'one.ts'), 'export const one = 1;');
  builds = 0;
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

it('is built where it is not there, and not again', async () => {
  await build();
  await build();
  expect(builds).toBe(1);
});

it('is built again where a file has changed, has come, has another name, or the result is gone', async () => {
  await build();
  const one = join(room('a'), 'src', 'one.ts');
  writeFileSync(one, 'export const one = 2;');
  await build();
  expect(builds).toBe(2);
  writeFileSync(join(room('b'), 'two.ts'), '');
  await build();
  expect(builds).toBe(3);
  rmSync(one);
  writeFileSync(join(room('a'), 'src', 'other.ts'), 'export const one = 2;');
  await build();
  expect(builds).toBe(4);
  rmSync(result());
  await build();
  expect(builds).toBe(5);
});

it('is not built again for tests, or for what was built', async () => {
  await build();
  writeFileSync(join(room('a'), 'test', 'one.test.ts'), '');
  mkdirSync(join(room('a'), 'dist'));
  writeFileSync(join(room('a'), 'dist', 'made.mjs'), '');
  await build();
  expect(builds).toBe(1);
});

it('that failed is tried again', async () => {
  await expect(build(true)).rejects.toThrow('it does not compile');
  await build();
  expect(builds).toBe(2);
});
