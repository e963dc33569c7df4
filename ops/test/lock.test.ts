/** The lock on a data folder: one copy at a time, and none for ever. */
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { takeLock } from '../lock.ts';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'yard-arch-lock-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

describe('a lock', () => {
  it('keeps a second copy out, and tells it where the first can be seen', () => {
    const lock = takeLock(folder);
    expect(() => takeLock(folder)).toThrow(/Another copy/);
    lock.tell('http://127.0.0.1:4600');
    expect(() => takeLock(folder)).toThrow(/already running from this folder, at http:\/\/127.0.0.1:4600/);
    lock.release();
    takeLock(folder).release();
    expect(existsSync(join(folder, 'in-use.json'))).toBe(false);
  });

  it.each([
    ['a process that is gone', JSON.stringify({ pid: 2 ** 22 + 1, started: '1', url: 'http://x' })],
    ['a process whose number another now has', JSON.stringify({ pid: process.pid, started: '1', url: 'http://x' })],
    ['a crash in the middle of writing', '{"pid":'],
  ])('left by %s is taken over', (_, text) => {
    writeFileSync(join(folder, 'in-use.json'), text);
    const lock = takeLock(folder);
    expect(() => takeLock(folder)).toThrow(/Another copy/);
    lock.release();
  });
});
