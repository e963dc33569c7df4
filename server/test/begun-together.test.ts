/** Several server processes that begin at once on an empty database make its tables one after the other. */
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { ensureDatabase } from '../../ops/cluster.ts';
import { openServices } from '../src/index.ts';
import { startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('together');
});
afterAll(() => harness?.remove());

it('none is locked out by another, in ten beginnings of three', async () => {
  for (let i = 0; i < 10; i++) {
    const url = await ensureDatabase(harness.cluster, `together_${i}`);
    const begun = await Promise.allSettled([1, 2, 3].map(() => openServices(url, { workers: 1 })));
    for (const each of begun) if (each.status === 'fulfilled') await each.value.close();
    expect(begun.map((each) => (each.status === 'rejected' ? String(each.reason) : 'open'))).toEqual([
      'open',
      'open',
      'open',
    ]);
  }
}, 120_000);
