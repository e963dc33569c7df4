/** The seventh migration on what there was before it: sizes of assets, which projects name them, and no secret that sessions were signed with. */
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('migration');
});
afterAll(() => harness?.remove());

it('finds what projects name in all their states, and leaves nothing that opens the server', async () => {
  const { database, projects } = harness.services;
  const ask = <T>(sql: string, values: unknown[] = []): Promise<T[]> => database.em.fork().execute<T[]>(sql, values);
  const { id } = await projects.create(granary());
  await projects.rename(id, 'Quay');
  await database.migrator.down({ to: 'Migration006' });
  const [a, b, c] = ['a', 'b', 'c'].map((letter) => letter.repeat(64)) as [string, string, string];
  for (const sha256 of [a, b, c])
    await ask(
      `insert into "asset" ("sha256", "type", "width", "height", "bytes", "at") values (?, 'image/png', 1, 1, '\\x010203', now())`,
      [sha256],
    );
  // One in the document as it stands, one in what an edit took away, one in none.
  await ask(`update "project" set "document" = "document" || ?`, [`{"sha256":"${a}"}`]);
  await ask(`update "change" set "inverse" = "inverse" || ?`, [`[{"sha256":"${b}"}]`]);
  await ask(`insert into "setting" ("key", "value") values ('passphrase', ?)`, [
    JSON.stringify({ salt: 's', hash: 'h', secret: 'signs sessions' }),
  ]);
  await database.migrator.up();
  expect(await ask(`select "project", "sha256" from "asset_use" order by "sha256"`)).toEqual([
    { project: id, sha256: a },
    { project: id, sha256: b },
  ]);
  expect(await ask(`select distinct "size" from "asset"`)).toEqual([{ size: 3 }]);
  const [setting] = await ask<{ value: string }>(`select "value" from "setting" where "key" = 'passphrase'`);
  expect(JSON.parse(setting!.value)).toEqual({ salt: 's', hash: 'h' });
  expect(await ask(`select * from "session"`)).toEqual([]);
});
