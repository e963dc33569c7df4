/** Writes down what a worker tells of a job, one after the other, and passes on how far it is. */
import { notifying } from '../announcer.ts';
import { JobEntity, type JobRow } from '../entities.ts';
import type { Database } from '../database.ts';
import { ProblemError } from '../problem.ts';
import { executeWithBytes } from '../with-bytes.ts';
import type { News } from './kinds.ts';

/** Of a job that is being worked on something is told at least so often, milliseconds. */
export const beat = 2000;
/** The largest result. */
const largest = 2_000_000_000;

/** Writes only for as long as the job is this runner's: one that was taken over meanwhile is another's to tell of. */
export class Teller {
  private writing: Promise<void> = Promise.resolve();
  private number = 0;
  private size = 0;
  private told = 0;
  private last = { progress: 0, stage: '' };
  private readonly beating: ReturnType<typeof setInterval>;

  constructor(
    private readonly database: Database,
    private readonly job: string,
    private readonly runner: string,
  ) {
    this.beating = setInterval(() => void this.beat(), beat);
    this.beating.unref();
  }

  take(news: News): void {
    if ('piece' in news) {
      const [number, bytes] = [this.number++, Buffer.from(news.piece.buffer, news.piece.byteOffset, news.piece.length)];
      this.size += bytes.length;
      if (this.size <= largest) this.write(() => this.keep(number, bytes));
      return;
    }
    // As fine as the database keeps it, so that what is read from there is never a hair less than what was told.
    this.last = { ...news, progress: Math.round(news.progress * 1e4) / 1e4 };
    if (Date.now() - this.told < 250) return;
    this.told = Date.now();
    void this.beat();
  }

  private async keep(number: number, bytes: Buffer): Promise<void> {
    await executeWithBytes(
      this.database,
      `insert into "job_piece" ("job", "number", "bytes") select "id", ?, ? from "job" where "id" = ? and "runner" = ? and "state" = 'working' for update`,
      [number, bytes, this.job, this.runner],
    );
  }

  /** One that cannot be told is left out: the next one tells more. */
  private async beat(): Promise<void> {
    const { progress, stage } = this.last;
    try {
      const mine = await this.database.em
        .fork()
        .execute<unknown[]>(
          `update "job" set "beat_at" = now(), "progress" = ?, "stage" = ? where "id" = ? and "runner" = ? and "state" = 'working' returning 1`,
          [progress, stage, this.job, this.runner],
        );
      if (mine.length > 0)
        await this.database.em
          .fork()
          .execute(...notifying('yard_job', { job: this.job, state: 'working', progress, stage }));
    } catch {
      // The database is away.
    }
  }

  /** Writes down how the job ended. */
  async end(what: Partial<JobRow> & { state: string }): Promise<void> {
    await this.database.em.fork().transactional(async (em) => {
      const [mine] = await em.execute<unknown[]>(
        `select 1 from "job" where "id" = ? and "runner" = ? and "state" = 'working' for update`,
        [this.job, this.runner],
      );
      if (!mine) return;
      await em.nativeUpdate(JobEntity, { id: this.job }, { ...what, endedAt: new Date() });
      await em.execute(
        ...notifying('yard_job', { job: this.job, state: what.state, progress: what.progress ?? 0, stage: '' }),
      );
    });
  }

  private write(what: () => Promise<unknown>): void {
    this.writing = this.writing.then(async () => void (await what()));
    this.writing.catch(() => {});
  }

  /** Waits until all is written. @returns how many bytes. @throws what went wrong in writing */
  async finish(): Promise<number> {
    this.stop();
    await this.writing;
    if (this.size > largest)
      throw new ProblemError(
        422,
        { kind: 'too-large', title: 'That is too large' },
        'The file would hold more than 2 GB. Divide the project, or set a coarser chord for its arcs.',
      );
    return this.size;
  }

  stop(): void {
    clearInterval(this.beating);
  }
}
