/** The lock on a data folder: one copy at a time, and none for ever. */
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { takeLock } from '../lock.ts';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'yard-arch-lock-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

/** A process of its own that takes the lock and is killed while it holds it. */
async function killedHolder(): Promise<void> {
  const module = pathToFileURL(join(import.meta.dirname, '..', 'lock.ts')).href;
  const script = `const { takeLock } = await import(${JSON.stringify(module)}); await takeLock(${JSON.stringify(folder)}); console.log('held'); setInterval(() => {}, 1000);`;
  const held = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', script], {
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  await new Promise<void>((done, fail) => {
    held.stdout.on('data', () => done());
    held.stderr.on('data', (text: Buffer) => fail(new Error(text.toString())));
  });
  const gone = new Promise((done) => held.on('exit', done));
  held.kill('SIGKILL');
  await gone;
}

describe('a lock', () => {
  it('keeps a second copy out, and tells it where the first can be seen', async () => {
    const lock = await takeLock(folder);
    await expect(takeLock(folder)).rejects.toThrow(/Another copy/);
    lock.tell('http://127.0.0.1:4600');
    await expect(takeLock(folder)).rejects.toThrow(/already running from this folder, at http:\/\/127.0.0.1:4600/);
    await lock.release();
    await (await takeLock(folder)).release();
    expect(existsSync(join(folder, 'in-use.json'))).toBe(false);
  });

  it('left by a process that was killed is taken over', async () => {
    await killedHolder();
    const lock = await takeLock(folder);
    await expect(takeLock(folder)).rejects.toThrow(/Another copy/);
    await lock.release();
  }, 30_000);

  it('is free where only a torn note of its holder is left', async () => {
    writeFileSync(join(folder, 'in-use.json'), '{"pid":');
    const lock = await takeLock(folder);
    await expect(takeLock(folder)).rejects.toThrow(/Another copy/);
    await lock.release();
  });
});
