/** The passphrase of a server that can be reached from elsewhere, and the sessions of those who know it. */
import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import type { Database } from './database.ts';
import { ProblemError } from './problem.ts';

const derived = promisify(scrypt) as (secret: string, salt: string, length: number) => Promise<Buffer>;

/** How long a session lasts, in days. */
export const sessionDays = 30;

/** After so many wrong guesses every further one waits, twice as long each time, up to this many milliseconds. */
const [freeGuesses, firstWait, longestWait] = [3, 500, 60_000];

/** The least length of a passphrase. */
export const leastLength = 12;

/** The same letters that are not mistaken for one another. */
const letters = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A passphrase of five groups, of about 120 bits. */
export function newPassphrase(): string {
  const bytes = randomBytes(25);
  return Array.from({ length: 5 }, (_, group) =>
    Array.from(bytes.subarray(5 * group, 5 * group + 5), (byte) => letters[byte % letters.length]).join(''),
  ).join('-');
}

interface Kept {
  salt: string;
  hash: string;
  secret: string;
}

/** What is kept of a passphrase is kept in the database, so that all processes on it take the same one, and one another's sessions. */
export class SignIn {
  private wrong = 0;
  private shut = 0;

  constructor(private readonly database: Database) {}

  private async kept(): Promise<Kept | null> {
    const [row] = await this.database.em
      .fork()
      .execute<{ value: string }[]>(`select "value" from "setting" where "key" = 'passphrase'`);
    return row ? (JSON.parse(row.value) as Kept) : null;
  }

  /** Whether a passphrase was set at some time. */
  async isSet(): Promise<boolean> {
    return (await this.kept()) !== null;
  }

  /** Sets the passphrase; sessions under another one end. @throws Error where it is too short. */
  async set(passphrase: string): Promise<void> {
    if (passphrase.length < leastLength)
      throw new Error(`The passphrase must have at least ${leastLength} characters.`);
    const known = await this.kept();
    if (known && (await matches(passphrase, known))) return;
    const salt = randomBytes(16).toString('hex');
    const value: Kept = {
      salt,
      hash: (await derived(passphrase, salt, 32)).toString('hex'),
      secret: randomBytes(32).toString('hex'),
    };
    await this.database.em
      .fork()
      .execute(
        `insert into "setting" ("key", "value") values ('passphrase', ?) on conflict ("key") do update set "value" = excluded."value"`,
        [JSON.stringify(value)],
      );
  }

  /** Forgets the passphrase, and ends all sessions. */
  async forget(): Promise<void> {
    await this.database.em.fork().execute(`delete from "setting" where "key" = 'passphrase'`);
  }

  /**
   * Takes a guess.
   * @returns the session's token. @throws ProblemError 401 where it is wrong, 429 where there were too many wrong ones just now.
   */
  async enter(passphrase: string): Promise<string> {
    const wait = this.shut - Date.now();
    if (wait > 0)
      throw new ProblemError(
        429,
        { kind: 'too-many-guesses', title: 'Too many wrong passphrases' },
        `Try again in ${Math.ceil(wait / 1000)} s.`,
        { after: Math.ceil(wait / 1000) },
      );
    const known = await this.kept();
    // Shut while one is being weighed, so that many at once are no way round it.
    this.wrong += 1;
    if (this.wrong > freeGuesses)
      this.shut = Date.now() + Math.min(longestWait, firstWait * 2 ** (this.wrong - freeGuesses));
    if (!known || !(await matches(passphrase, known)))
      throw new ProblemError(
        401,
        { kind: 'wrong-passphrase', title: 'That is not the passphrase' },
        'Whoever runs this server knows it.',
      );
    this.wrong = 0;
    this.shut = 0;
    const until = String(Date.now() + sessionDays * 86_400_000);
    return `${until}.${signature(known, until)}`;
  }

  /** Whether a token is of a session that lasts. */
  async isOpen(token: string | undefined): Promise<boolean> {
    const [until = '', signed = ''] = (token ?? '').split('.');
    if (!(Number(until) > Date.now())) return false;
    const known = await this.kept();
    return known !== null && same(Buffer.from(signed), Buffer.from(signature(known, until)));
  }
}

const signature = ({ secret }: Kept, until: string): string => createHmac('sha256', secret).update(until).digest('hex');
const same = (a: Buffer, b: Buffer): boolean => a.length === b.length && timingSafeEqual(a, b);

async function matches(passphrase: string, { salt, hash }: Kept): Promise<boolean> {
  return same(await derived(passphrase, salt, 32), Buffer.from(hash, 'hex'));
}
