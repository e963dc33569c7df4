/** Fifth migration: pictures of materials, each kept once by its SHA-256. */
import { Migration } from '@mikro-orm/migrations';

export class Migration005 extends Migration {
  override up(): void {
    this.addSql(
      `create table "asset" ("sha256" text not null, "type" text not null, "width" integer not null, "height" integer not null, "bytes" bytea not null, "at" timestamptz not null, primary key ("sha256"))`,
    );
  }

  override down(): void {
    this.addSql(`drop table "asset"`);
  }
}
