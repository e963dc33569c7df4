/** The database: connects and brings its tables up to date. */
import { Migrator } from '@mikro-orm/migrations';
import { MikroORM } from '@mikro-orm/postgresql';
import pg from 'pg';
import {
  AssetEntity,
  ChangeEntity,
  JobEntity,
  JobPieceEntity,
  ProjectEntity,
  ShelfEntity,
  SnapshotEntity,
  VersionEntity,
} from './entities.ts';
import { patience } from './patience.ts';
import { Migration001 } from './migrations/migration-001.ts';
import { Migration002 } from './migrations/migration-002.ts';
import { Migration003 } from './migrations/migration-003.ts';
import { Migration004 } from './migrations/migration-004.ts';
import { Migration005 } from './migrations/migration-005.ts';
import { Migration006 } from './migrations/migration-006.ts';
import { Migration007 } from './migrations/migration-007.ts';

const { Client } = pg;

export type Database = MikroORM;

/** Connects to a PostgreSQL database and runs the migrations that it lacks. */
export async function openDatabase(url: string): Promise<Database> {
  const orm = await MikroORM.init({
    clientUrl: url,
    entities: [
      ProjectEntity,
      ChangeEntity,
      SnapshotEntity,
      VersionEntity,
      JobEntity,
      JobPieceEntity,
      AssetEntity,
      ShelfEntity,
    ],
    extensions: [Migrator],
    migrations: {
      migrationsList: [
        { name: 'Migration001', class: Migration001 },
        { name: 'Migration002', class: Migration002 },
        { name: 'Migration003', class: Migration003 },
        { name: 'Migration004', class: Migration004 },
        { name: 'Migration005', class: Migration005 },
        { name: 'Migration006', class: Migration006 },
        { name: 'Migration007', class: Migration007 },
      ],
      snapshot: false,
      silent: true,
    },
    pool: { min: 0, max: 8, acquireTimeoutMillis: 5000 },
    driverOptions: { connection: { ...patience } },
    discovery: { disableDynamicFileAccess: true },
  });
  try {
    await alone(url, () => orm.migrator.up());
  } catch (error) {
    await orm.close(true);
    throw error;
  }
  return orm;
}

/** The number of the lock under which tables are brought up to date: any, but the same for all. */
const migrationLock = 4_600_460;

/** Does something that makes tables while no other process on the database does. */
export async function alone(url: string, what: () => Promise<unknown>): Promise<void> {
  const client = new Client({ connectionString: url, ...patience });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [migrationLock]);
    await what();
  } finally {
    // The lock goes with the connection.
    await client.end();
  }
}
