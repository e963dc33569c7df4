/** The passphrase of a server that can be reached from elsewhere. */
import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import type { Database } from './database.ts';
import { Guesses, type Guesser } from './guesses.ts';
import { ProblemError } from './problem.ts';
import { Sessions } from './sessions.ts';

const derived = promisify(scrypt) as (secret: string, salt: string, length: number) => Promise<Buffer>;

/** The least and the greatest length of a passphrase, and how many different characters it has at least. */
export const [leastLength, greatestLength] = [12, 1000];
const leastDifferent = 4;

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
}

/** What is kept of a passphrase is kept in the database, so that all processes on it take the same one, and one another's sessions. */
export class SignIn {
  readonly sessions: Sessions;
  private readonly guesses: Guesses;

  constructor(private readonly database: Database) {
    this.sessions = new Sessions(database);
    this.guesses = new Guesses(database);
  }

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

  /** Sets the passphrase; sessions under another one end. @throws Error where it is too short, or hardly one. */
  async set(passphrase: string): Promise<void> {
    const bare = passphrase.trim();
    if (bare.length < leastLength)
      throw new Error(
        `The passphrase must have at least ${leastLength} characters, without spaces before and after them.`,
      );
    if (bare.length > greatestLength) throw new Error(`The passphrase must have at most ${greatestLength} characters.`);
    if (new Set(bare).size < leastDifferent)
      throw new Error(`The passphrase must have at least ${leastDifferent} different characters.`);
    const known = await this.kept();
    if (known && (await matches(bare, known))) return;
    const salt = randomBytes(16).toString('hex');
    const value: Kept = { salt, hash: (await derived(bare, salt, 32)).toString('hex') };
    await this.database.em
      .fork()
      .execute(
        `insert into "setting" ("key", "value") values ('passphrase', ?) on conflict ("key") do update set "value" = excluded."value"`,
        [JSON.stringify(value)],
      );
    await this.endAll();
  }

  /** Forgets the passphrase, and ends all sessions. */
  async forget(): Promise<void> {
    await this.database.em.fork().execute(`delete from "setting" where "key" = 'passphrase'`);
    await this.endAll();
  }

  private async endAll(): Promise<void> {
    await this.sessions.endAll();
    await this.sessions.forgetBrowsers();
  }

  /**
   * Takes a guess.
   * @throws ProblemError 401 where it is wrong, 429 where there were too many just now.
   */
  async check(passphrase: string, guesser: Guesser): Promise<void> {
    await this.guesses.count(guesser);
    const known = await this.kept();
    if (passphrase.length > greatestLength || !known || !(await this.isRight(passphrase, known)))
      throw new ProblemError(
        401,
        { kind: 'wrong-passphrase', title: 'That is not the passphrase' },
        'Whoever runs this server knows it.',
      );
    await this.guesses.wasRight(guesser);
  }

  /** As it was given, or without the spaces that come along when it is copied. */
  private async isRight(passphrase: string, known: Kept): Promise<boolean> {
    if (await matches(passphrase.trim(), known)) return true;
    // Set before spaces about it were left out.
    return passphrase !== passphrase.trim() && (await matches(passphrase, known));
  }
}

async function matches(passphrase: string, { salt, hash }: Kept): Promise<boolean> {
  const [a, b] = [await derived(passphrase, salt, 32), Buffer.from(hash, 'hex')];
  return a.length === b.length && timingSafeEqual(a, b);
}
