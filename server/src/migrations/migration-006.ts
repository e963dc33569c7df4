/** Sixth migration: the shelf, patterns that are kept for all projects. */
import { Migration } from '@mikro-orm/migrations';

export class Migration006 extends Migration {
  override up(): void {
    this.addSql(
      `create table "shelf" ("id" uuid not null, "revision" integer not null, "name" text not null, "file" text not null, "at" timestamptz not null, primary key ("id"))`,
    );
  }

  override down(): void {
    this.addSql(`drop table "shelf"`);
  }
}
