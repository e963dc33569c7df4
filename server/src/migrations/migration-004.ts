/** Fourth migration: in which version of the format each entry of the change log is written. */
import { Migration } from '@mikro-orm/migrations';

export class Migration004 extends Migration {
  override up(): void {
    // All that was written before said nothing, and is of the first.
    this.addSql(`alter table "change" add column "format" integer not null default 1`);
    this.addSql(`alter table "change" alter column "format" drop default`);
  }

  override down(): void {
    this.addSql(`alter table "change" drop column "format"`);
  }
}
