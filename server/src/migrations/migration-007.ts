/** Seventh migration: sessions that can be ended, guesses that are counted for all processes, and which assets projects name. */
import { Migration } from '@mikro-orm/migrations';

/** The SHA-256 of all assets that a text names. */
const named = (text: string): string => `(regexp_matches(${text}, '"sha256":"([0-9a-f]{64})"', 'g'))[1]`;

export class Migration007 extends Migration {
  override up(): void {
    // A backup from before, put back over a newer server, leaves these tables where they are.
    for (const table of ['session', 'known_browser', 'guess', 'asset_use'])
      this.addSql(`drop table if exists "${table}"`);
    this.addSql(`create table "session" ("hash" text primary key, "until" timestamptz not null)`);
    this.addSql(`create table "known_browser" ("hash" text primary key, "at" timestamptz not null)`);
    // Of the shape that the limiter asks for.
    this.addSql(
      `create table "guess" ("key" varchar(255) primary key, "points" integer not null default 0, "expire" bigint)`,
    );
    // Sessions were signed with a secret that lay in backups.
    this.addSql(`update "setting" set "value" = ("value"::jsonb - 'secret')::text where "key" = 'passphrase'`);
    this.addSql(`alter table "job" add column "tries" integer not null default 0, add column "left_out" text null`);
    this.addSql(`alter table "asset" add column "size" integer`);
    this.addSql(`update "asset" set "size" = octet_length("bytes")`);
    this.addSql(`alter table "asset" alter column "size" set not null`);
    this.addSql(
      `create table "asset_use" ("project" uuid not null references "project" ("id") on delete cascade, "sha256" text not null, primary key ("project", "sha256"))`,
    );
    this.addSql(`create index "asset_use_sha256" on "asset_use" ("sha256")`);
    this.addSql(
      `insert into "asset_use" select "id", ${named('"document"')} from "project" union select "project", ${named('"change_set"')} from "change" union select "project", ${named('"inverse"')} from "change"`,
    );
  }

  override down(): void {
    for (const table of ['asset_use', 'guess', 'known_browser', 'session']) this.addSql(`drop table "${table}"`);
    this.addSql(`alter table "asset" drop column "size"`);
    this.addSql(`alter table "job" drop column "tries", drop column "left_out"`);
  }
}
