/** Much at once: large pictures, bodies and forms, while health is asked for; what the server takes of the machine's memory is bounded. */
import { readFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { encode } from 'fast-png';
import { Application } from '../../e2e/application.ts';
import { askHealth, type HealthTold } from './health.ts';
import { longestHealth } from './odd.ts';

const passphrase = 'a quay, a granary and a crane';
/** The most memory that the server's process, with its workers, may ever take in these trials, bytes. */
const mostMemory = 1.5e9;

let app: Application;
let cookie: string;
let health: () => Promise<HealthTold>;

beforeAll(async () => {
  app = await Application.make('start', { YARD_PASSPHRASE: passphrase });
  expect(await app.start()).toBeNull();
  const entered = await fetch(`${app.url}/sign-in`, {
    method: 'POST',
    body: new URLSearchParams({ passphrase }),
    redirect: 'manual',
  });
  cookie = entered.headers.getSetCookie()[0]!.split(';')[0]!;
  health = askHealth(app.url);
});
afterAll(() => app?.remove());

async function posted(path: string, body: RequestInit['body'], type: string): Promise<number> {
  const answer = await fetch(`${app.url}${path}`, {
    method: 'POST',
    body,
    headers: { 'content-type': type, cookie },
    redirect: 'manual',
    ...(body instanceof ReadableStream ? { duplex: 'half' } : {}),
  } as RequestInit);
  await answer.arrayBuffer();
  return answer.status;
}

/** The most memory that the process has had at any time, bytes. */
const mostTaken = (): number =>
  1024 * Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${app.pid}/status`, 'utf8'))![1]);

/** A body of so many megabytes whose length is not told. */
function streamed(megabytes: number): ReadableStream<Uint8Array> {
  let left = megabytes;
  const chunk = new Uint8Array(1_000_000).fill(120);
  return new ReadableStream({
    pull: (controller) => (left-- > 0 ? controller.enqueue(chunk) : controller.close()),
  });
}

describe('a server that is asked for much at once', () => {
  it('takes pictures of 20 MB', async () => {
    const picture = encode({ width: 2500, height: 2500, channels: 3, data: randomBytes(3 * 2500 * 2500) });
    expect(picture.length).toBeGreaterThan(15_000_000);
    // Others by what follows their end.
    const others = Array.from({ length: 8 }, (_, i) => Buffer.concat([picture, Buffer.from([i])]));
    const statuses = await Promise.all(others.map((bytes) => posted('/api/assets', bytes, 'image/png')));
    expect(new Set(statuses)).toEqual(new Set([201]));
  });

  it('refuses forms that are far too large, whether or not they say so', async () => {
    const type = 'application/x-www-form-urlencoded';
    expect(await posted('/sign-in', streamed(400), type).catch(() => 413)).toBe(413);
    expect(await posted('/sign-in', Buffer.alloc(100_000_000, 'x'), type).catch(() => 413)).toBe(413);
  });

  it('refuses large bodies that hold nothing of use', async () => {
    const { id } = (await (
      await fetch(`${app.url}/api/projects/upload`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(granary()),
      })
    ).json()) as { id: string };
    const many = Buffer.from(`[${'[],'.repeat(20_000_000)}1]`);
    const keys = Buffer.from(`{${Array.from({ length: 1_000_000 }, (_, i) => `"key ${i}":1`).join(',')}}`);
    const paths = ['/api/projects/upload', `/api/projects/${id}/changes`, '/api/shelf'];
    const statuses = await Promise.all(
      [many, keys].flatMap((body) => paths.map((path) => posted(path, body, 'application/json'))),
    );
    for (const status of statuses) expect([400, 422]).toContain(status);
  });

  it('answers for its health meanwhile, and keeps within its memory', async () => {
    const { longest, bad } = await health();
    expect(bad).toBe(0);
    expect(longest).toBeLessThan(longestHealth);
    expect(mostTaken()).toBeLessThan(mostMemory);
    process.stdout.write(
      `health at most ${Math.round(longest)} ms, memory at most ${Math.round(mostTaken() / 1e6)} MB\n`,
    );
  });
});
