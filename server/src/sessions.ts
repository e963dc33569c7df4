/** Sessions of those who know the passphrase, and the browsers that they have used: by tokens of which only hashes are kept. */
import { createHash, randomBytes } from 'node:crypto';
import type { Database } from './database.ts';

/** How long a session lasts, and how long a browser is known, in days. */
export const [sessionDays, knownDays] = [30, 365];

const newToken = (): string => randomBytes(32).toString('base64url');
const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Kept in the database, so that all processes on it take the same ones. What is kept opens nothing. */
export class Sessions {
  constructor(private readonly database: Database) {}

  private async ask<T>(sql: string, values: unknown[] = []): Promise<T[]> {
    return this.database.em.fork().execute<T[]>(sql, values);
  }

  /** Begins a session. @returns its token. */
  async begin(): Promise<string> {
    const token = newToken();
    await this.ask(`insert into "session" ("hash", "until") values (?, now() + interval '${sessionDays} days')`, [
      hashOf(token),
    ]);
    return token;
  }

  /** Whether a token is of a session that lasts. */
  async isOpen(token: string | undefined): Promise<boolean> {
    if (!token) return false;
    return (await this.ask(`select 1 from "session" where "hash" = ? and "until" > now()`, [hashOf(token)])).length > 0;
  }

  async end(token: string): Promise<void> {
    await this.ask(`delete from "session" where "hash" = ?`, [hashOf(token)]);
  }

  async endAll(): Promise<void> {
    await this.ask(`delete from "session"`);
  }

  /** Remembers a browser from which somebody has signed in. @returns its token, by which it can sign in and does nothing else. */
  async know(): Promise<string> {
    const token = newToken();
    await this.ask(`insert into "known_browser" ("hash", "at") values (?, now())`, [hashOf(token)]);
    return token;
  }

  /** Whether somebody has signed in from the browser that shows a token. @returns what it is counted by, or null. */
  async known(token: string | undefined): Promise<string | null> {
    if (!token) return null;
    const [row] = await this.ask<{ hash: string }>(`select "hash" from "known_browser" where "hash" = ?`, [
      hashOf(token),
    ]);
    return row?.hash ?? null;
  }

  /** Forgets all browsers, as under another passphrase. */
  async forgetBrowsers(): Promise<void> {
    await this.ask(`delete from "known_browser"`);
  }

  /** Clears away what lasts no more. */
  async purge(): Promise<void> {
    await this.ask(`delete from "session" where "until" < now()`);
    await this.ask(`delete from "known_browser" where "at" < now() - interval '${knownDays} days'`);
  }
}
