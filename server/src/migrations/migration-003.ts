/** Third migration: an identity for each state of a project's log, snapshots by which old states are read, and long work with its results. */
import { Migration } from '@mikro-orm/migrations';

export class Migration003 extends Migration {
  override up(): void {
    // A log that was put back and went on otherwise has other marks from there on.
    this.addSql(`alter table "change" add column "mark" text`);
    this.addSql(`update "change" set "mark" = md5("project"::text || "revision" || "key")`);
    this.addSql(`alter table "change" alter column "mark" set not null`);
    this.addSql(`alter table "project" add column "mark" text, add column "first_mark" text`);
    this.addSql(`update "project" set "first_mark" = md5("id"::text)`);
    this.addSql(
      `update "project" p set "mark" = coalesce((select "mark" from "change" c where c."project" = p."id" and c."revision" = p."revision"), p."first_mark")`,
    );
    this.addSql(`alter table "project" alter column "mark" set not null, alter column "first_mark" set not null`);
    this.addSql(`
      create table "snapshot" (
        "project" uuid not null references "project" ("id") on delete cascade,
        "revision" integer not null,
        "document" bytea not null,
        primary key ("project", "revision")
      )`);
    this.addSql(`
      create table "job" (
        "id" uuid primary key,
        "project" uuid not null references "project" ("id") on delete cascade,
        "revision" integer not null,
        "kind" text not null,
        "state" text not null,
        "progress" real not null,
        "stage" text not null,
        "problem" text null,
        "type" text null,
        "name" text null,
        "size" integer null,
        "runner" uuid null,
        "beat_at" timestamptz null,
        "created_at" timestamptz not null,
        "ended_at" timestamptz null
      )`);
    this.addSql(`create unique index "job_once" on "job" ("project", "revision", "kind") where "state" <> 'cancelled'`);
    this.addSql(`
      create table "job_piece" (
        "job" uuid not null references "job" ("id") on delete cascade,
        "number" integer not null,
        "bytes" bytea not null,
        primary key ("job", "number")
      )`);
    this.addSql(`create table "setting" ("key" text primary key, "value" text not null)`);
  }

  override down(): void {
    for (const table of ['setting', 'job_piece', 'job', 'snapshot']) this.addSql(`drop table "${table}"`);
    this.addSql(`alter table "change" drop column "mark"`);
    this.addSql(`alter table "project" drop column "mark", drop column "first_mark"`);
  }
}
