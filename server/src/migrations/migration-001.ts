/** First migration: projects and their change log. */
import { Migration } from '@mikro-orm/migrations';

export class Migration001 extends Migration {
  override up(): void {
    this.addSql(`
      create table "project" (
        "id" uuid primary key,
        "name" text not null,
        "revision" integer not null,
        "document" text not null,
        "elements" integer not null,
        "openings" integer not null,
        "created_at" timestamptz not null,
        "updated_at" timestamptz not null,
        "deleted_at" timestamptz null
      )`);
    this.addSql(`
      create table "change" (
        "project" uuid not null references "project" ("id") on delete cascade,
        "revision" integer not null,
        "key" text not null,
        "name" text not null,
        "change_set" text not null,
        "inverse" text not null,
        "at" timestamptz not null,
        primary key ("project", "revision"),
        unique ("project", "key")
      )`);
  }

  override down(): void {
    this.addSql('drop table "change"');
    this.addSql('drop table "project"');
  }
}
