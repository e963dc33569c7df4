/** Guesses at the passphrase: so many within some seconds from one place, and so many from all that are not known. */
import { isIPv6 } from 'node:net';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from './database.ts';
import { ProblemError } from './problem.ts';

/** So many guesses are weighed from one place within so many seconds. Whoever knows the passphrase never waits longer than that for somebody else at his address. */
export const [fromOne, seconds] = [4, 15];
/** So many from all places together, but for browsers from which somebody has signed in before. */
export const fromAll = 60;

/** Who guesses. */
export interface Guesser {
  /** The address that he comes from. */
  address: string;
  /** What his browser is counted by where somebody has signed in from it before, or null. */
  known: string | null;
}

/** Counted in the database, at once for all processes on it. */
export class Guesses {
  private readonly each: RateLimiterPostgres;
  private readonly all: RateLimiterPostgres;

  constructor(database: Database) {
    const shared = {
      storeClient: database.em.getConnection().getKnex(),
      storeType: 'knex',
      tableName: 'guess',
      tableCreated: true,
      clearExpiredByTimeout: true,
      duration: seconds,
    };
    this.each = new RateLimiterPostgres({
      ...shared,
      keyPrefix: 'one',
      points: fromOne,
      inMemoryBlockOnConsumed: fromOne + 1,
    });
    this.all = new RateLimiterPostgres({
      ...shared,
      keyPrefix: 'all',
      points: fromAll,
      inMemoryBlockOnConsumed: fromAll + 1,
    });
  }

  /** Counts a guess before it is weighed. @throws ProblemError 429 where there were too many. */
  async count(guesser: Guesser): Promise<void> {
    await taken(this.each, placeOf(guesser));
    if (guesser.known === null) await taken(this.all, 'strangers');
  }

  /** The guess that was counted was right. */
  async wasRight(guesser: Guesser): Promise<void> {
    await this.each.delete(placeOf(guesser));
    if (guesser.known === null) await this.all.reward('strangers', 1);
  }
}

/** What a guesser is counted by: his browser where it is known, else his address; of IPv6 the half that a network is given. */
function placeOf({ address, known }: Guesser): string {
  if (known !== null) return `browser ${known}`;
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '');
  return isIPv6(plain) ? networkOf(plain) : plain;
}

/** The first 64 bits of an IPv6 address. */
function networkOf(address: string): string {
  const [head = '', tail = ''] = address.toLowerCase().split('%')[0]!.split('::');
  const [first, last] = [head.split(':').filter(Boolean), tail.split(':').filter(Boolean)];
  const groups = address.includes('::')
    ? [...first, ...Array<string>(Math.max(0, 8 - first.length - last.length)).fill('0'), ...last]
    : first;
  return groups
    .slice(0, 4)
    .map((group) => group.replace(/^0+(?=.)/, ''))
    .join(':');
}

async function taken(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const after = Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    throw new ProblemError(
      429,
      { kind: 'too-many-guesses', title: 'Too many wrong passphrases' },
      `Try again in ${after} s.`,
      { after },
    );
  }
}
