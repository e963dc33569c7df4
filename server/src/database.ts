/** The database: connects and brings its tables up to date. */
import { Migrator } from '@mikro-orm/migrations';
import { MikroORM } from '@mikro-orm/postgresql';
import { ChangeEntity, ProjectEntity, VersionEntity } from './entities.ts';
import { Migration001 } from './migrations/migration-001.ts';
import { Migration002 } from './migrations/migration-002.ts';

export type Database = MikroORM;

/** Connects to a PostgreSQL database and runs the migrations that it lacks. */
export async function openDatabase(url: string): Promise<Database> {
  const orm = await MikroORM.init({
    clientUrl: url,
    entities: [ProjectEntity, ChangeEntity, VersionEntity],
    extensions: [Migrator],
    migrations: {
      migrationsList: [
        { name: 'Migration001', class: Migration001 },
        { name: 'Migration002', class: Migration002 },
      ],
      snapshot: false,
      silent: true,
    },
    pool: { min: 0, max: 8, acquireTimeoutMillis: 5000 },
    driverOptions: { connection: { connectionTimeoutMillis: 4000 } },
    discovery: { disableDynamicFileAccess: true },
  });
  try {
    await orm.migrator.up();
  } catch (error) {
    await orm.close(true);
    throw error;
  }
  return orm;
}
