/** Second migration: versions, revisions of a project that can be gone back to. */
import { Migration } from '@mikro-orm/migrations';

export class Migration002 extends Migration {
  override up(): void {
    this.addSql(`
      create table "version" (
        "id" uuid primary key,
        "project" uuid not null references "project" ("id") on delete cascade,
        "revision" integer not null,
        "name" text not null,
        "automatic" boolean not null,
        "at" timestamptz not null
      )`);
    this.addSql('create index "version_project" on "version" ("project", "at")');
  }

  override down(): void {
    this.addSql('drop table "version"');
  }
}
