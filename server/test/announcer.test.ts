/** An announcer that is closed while its line to the database is lost leaves nothing behind that keeps a process alive. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
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

/** Starts that process. @returns what closes its announcer, and what came of it */
async function started(url: string): Promise<{ close: () => void; outcome: () => Promise<string> }> {
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', listening(url)], {
    stdio: ['pipe', 'pipe', 'inherit'],
    cwd: new URL('../..', import.meta.url).pathname,
  });
  const ended = once(child, 'exit').then(() => 'it ended by itself');
  await once(child.stdout, 'data');
  return {
    close: () => void child.stdin.write('close'),
    outcome: async () => {
      const outcome = await Promise.race([ended, pause(12_000, 'it runs on', { ref: false })]);
      child.kill('SIGKILL');
      return outcome;
    },
  };
}

it.each([
  ['the database stays away', false],
  ['the database comes back', true],
])('closed while it tries again, %s', async (_, back) => {
  const { close, outcome } = await started(harness.url);
  harness.cluster.kill();
  await pause(400);
  close();
  if (back) await harness.cluster.restart();
  const what = await outcome();
  if (!back) await harness.cluster.restart();
  expect(what).toBe('it ended by itself');
});

/** A line to the database that a test can cut, and on which it says what goes through, and when. @param passes asked with what is sent and on the how-manieth connection. */
async function line(
  url: string,
  passes: (text: string, connection: number) => Promise<boolean>,
): Promise<{ url: string; cut(): void; close(): void }> {
  const { hostname, port } = new URL(url);
  const open = new Set<Socket>();
  let connections = 0;
  const server = createServer((near) => {
    const connection = ++connections;
    const far = connect(Number(port), hostname);
    for (const socket of [near, far]) open.add(socket.on('error', () => {}));
    near.on('data', async (bytes) => (await passes(bytes.toString('latin1'), connection)) && far.write(bytes));
    far.pipe(near);
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const through = new URL(url);
  through.port = String((server.address() as AddressInfo).port);
  const cut = (): void => {
    for (const socket of open) socket.destroy();
    open.clear();
  };
  return { url: through.href, cut, close: () => (cut(), server.close()) };
}

it('closed just while it comes through again, and lost once more', async () => {
  let began = false;
  const through = await line(harness.url, async (text, connection) => {
    if (connection === 1) return true;
    if (!began) {
      began = true;
      close();
      await pause(400);
    }
    if (!text.includes('LISTEN')) return true;
    through.cut();
    return false;
  });
  const { close, outcome } = await started(through.url);
  through.cut();
  const what = await outcome();
  through.close();
  expect(what).toBe('it ended by itself');
});
