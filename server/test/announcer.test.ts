/** An announcer that is closed while its line to the database is lost leaves nothing behind that keeps a process alive. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('announcer');
  // Its own line would try again too.
  await harness.services.close();
});
afterAll(() => harness?.remove());

/** A process that opens an announcer, says so, and closes it when it is told anything. */
const listening = (url: string): string => `
  import { Announcer } from ${JSON.stringify(new URL('../src/announcer.ts', import.meta.url).href)};
  const announcer = new Announcer(${JSON.stringify(url)});
  await announcer.open();
  process.stdout.write('open');
  process.stdin.once('data', async () => {
    await announcer.close();
    process.stdin.destroy();
  });
`;

it.each([
  ['the database stays away', false],
  ['the database comes back', true],
])('closed while it tries again, %s', async (_, back) => {
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', listening(harness.url)], {
    stdio: ['pipe', 'pipe', 'inherit'],
    cwd: new URL('../..', import.meta.url).pathname,
  });
  const ended = once(child, 'exit').then(() => 'it ended by itself');
  await once(child.stdout, 'data');
  harness.cluster.kill();
  await pause(400);
  child.stdin.write('close');
  if (back) await harness.cluster.restart();
  const outcome = await Promise.race([ended, pause(12_000, 'it runs on', { ref: false })]);
  child.kill('SIGKILL');
  if (!back) await harness.cluster.restart();
  expect(outcome).toBe('it ended by itself');
});
