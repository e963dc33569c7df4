/** Whether the database lives, as it was last felt: whoever asks is answered at once. */
import type { Database } from './database.ts';
import { ProblemError } from './problem.ts';

/** How often it is felt, and how long an answer may take, milliseconds. */
const [every, patience] = [400, 2000];

export class Pulse {
  private trouble: string | null = null;
  private over = false;
  private next: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly database: Database) {}

  /** Feels it once, and from then on again and again. */
  async begin(): Promise<void> {
    this.trouble = await this.feel();
    if (this.over) return;
    this.next = setTimeout(() => void this.begin(), every);
    this.next.unref();
  }

  end(): void {
    this.over = true;
    clearTimeout(this.next);
  }

  /** @throws ProblemError where the database did not answer when it was last felt. */
  check(): void {
    if (this.trouble !== null)
      throw new ProblemError(
        503,
        { kind: 'database-away', title: 'The database cannot be reached' },
        `The server runs, but its database does not answer (${this.trouble}). Nothing that was saved is lost; try again in a moment.`,
      );
  }

  private async feel(): Promise<string | null> {
    let clock: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<string>((resolve) => {
      clock = setTimeout(() => resolve(`no answer within ${patience / 1000} s`), patience);
    });
    const asked = this.database.em
      .fork()
      .execute('select 1')
      .then(
        () => null,
        (error: Error) => error.message.split('\n').at(-1)!.slice(0, 200),
      );
    const felt = await Promise.race([asked, late]);
    clearTimeout(clock);
    return felt;
  }
}
