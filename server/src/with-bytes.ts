/** Statements that carry many bytes. */
import type { Database } from './database.ts';

/**
 * Runs a statement whose values go to the database beside it, outside of any transaction. Other statements have their values written into their text, which takes
 * seconds and several times the room where they are large.
 */
export async function executeWithBytes(
  database: Database,
  sql: string,
  values: readonly (string | number | Buffer)[],
): Promise<void> {
  await database.em.getConnection().getKnex().raw(sql, values);
}
