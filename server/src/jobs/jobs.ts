/** Long work: asked for once for each state of a project, queued in the database, done by whichever process has room, and its results kept for whoever asks next. */
import { randomUUID } from 'node:crypto';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { LeftOut } from '@yard-arch/core/format';
import PgBoss from 'pg-boss';
import { notifying, type Announcer, type JobNews } from '../announcer.ts';
import { rowOf } from '../change-log.ts';
import { namedIn, type Assets } from '../assets.ts';
import { alone, type Database } from '../database.ts';
import { JobEntity, JobPieceEntity, type JobRow } from '../entities.ts';
import { patience } from '../patience.ts';
import { databaseProblem, ProblemError, type Problem } from '../problem.ts';
import type { Projects } from '../projects.ts';
import type { JobKind } from './kinds.ts';
import { longestTask, type Pool } from './pool.ts';
import { beat, Teller } from './teller.ts';

/** How a job stands. */
export type JobState = 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
export type Job = Omit<JobRow, 'state' | 'kind'> & { state: JobState; kind: JobKind };

/** What is heard of a job. */
export type Heard = Pick<Job, 'state' | 'progress' | 'stage' | 'problem'> & { leftOut?: string | null | undefined };

const queue = 'yard-work';
/** One of which nothing was heard for so long was begun by a process that is gone: another takes it over. */
const deaf = 8000;
/** Work at which so many processes have ended is not begun once more. */
const mostTries = 3;
/** Whoever waits for work while the database is away is told so after as long, milliseconds. */
const patient = 60_000;
/** As many elements are told of that were left out of a file. */
const mostLeftOut = 1000;
/** Results are kept for so long, and so many bytes of them. */
const [keptHours, keptBytes] = [24, 2_000_000_000];

/**
 * Marks the jobs that were left: begun by a process of which nothing is heard, or fetched from the queue by one that ended before it began.
 * Marked, so that of several processes one queues them.
 */
const leftBehind = `
  update "job" set "state" = 'waiting', "beat_at" = now() where "id" in (
    select "id" from "job" where coalesce("beat_at", "created_at") < now() - interval '${deaf} milliseconds' and (
      "state" = 'working'
      or "state" = 'waiting' and not exists (
        select 1 from "yard_jobs"."job" as "entry"
        where "entry"."name" = '${queue}' and "entry"."state" < 'active' and "entry"."data"->>'job' = "job"."id"::text
      )
    ) for update skip locked
  ) returning "id"`;

const ended = (state: string): boolean => state === 'done' || state === 'failed' || state === 'cancelled';

export class Jobs {
  private readonly boss: PgBoss;
  private readonly ending = new Map<string, AbortController>();
  private readonly off: () => void;
  private looking: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setInterval> | undefined;
  private closed = false;

  constructor(
    private readonly services: {
      database: Database;
      announcer: Announcer;
      projects: Projects;
      assets: Assets;
      pool: Pool;
      url: string;
    },
  ) {
    this.boss = new PgBoss({
      connectionString: services.url,
      schema: 'yard_jobs',
      max: 2,
      schedule: false,
      expireInSeconds: Math.round(longestTask / 1000) + 60,
      retryLimit: 0,
      application_name: 'yard jobs',
      ...patience,
    });
    // It goes on by itself when the database is back; those who ask are told meanwhile.
    this.boss.on('error', () => {});
    this.off = services.announcer.on(
      'yard_job',
      (news) => this.hear(news),
      () => this.look(),
    );
  }

  private get em(): EntityManager {
    return this.services.database.em.fork();
  }

  async open(): Promise<void> {
    // Two that make the queue's tables at once lock each other out.
    await alone(this.services.url, async () => {
      await this.boss.start();
      await this.boss.createQueue(queue);
    });
    this.timer = setInterval(() => this.takeOver(), beat);
    this.timer.unref();
    await this.purge();
    this.takeOver();
  }

  /** Asks for work on a state of a project; the same work that was asked for before where there is some. @throws ProblemError 404 */
  async ask(project: string, kind: JobKind, revision?: number): Promise<Job> {
    return this.em.transactional(async (em) => {
      const row = await rowOf(em, project);
      const at = Math.min(revision ?? row.revision, row.revision);
      const known = await em.findOne(JobEntity, { project, revision: at, kind, state: { $ne: 'cancelled' } });
      // What failed is tried anew when it is asked for, but not the picture of each card at each visit.
      if (known?.state === 'failed' && kind !== 'picture') await em.nativeDelete(JobEntity, { id: known.id });
      else if (known) return known as Job;
      const made = {
        id: randomUUID(),
        project,
        revision: at,
        kind,
        state: 'waiting',
        progress: 0,
        stage: 'waiting for its turn',
        problem: null,
        type: null,
        name: null,
        leftOut: null,
        size: null,
        createdAt: new Date(),
        endedAt: null,
      } as const;
      const inserted = await em.execute<{ id: string }[]>(
        `insert into "job" ("id", "project", "revision", "kind", "state", "progress", "stage", "created_at") values (?, ?, ?, ?, 'waiting', 0, ?, now()) on conflict do nothing returning "id"`,
        [made.id, project, at, kind, made.stage],
      );
      // Asked for at the same time by somebody else.
      if (inserted.length === 0)
        return (await em.findOneOrFail(JobEntity, { project, revision: at, kind, state: { $ne: 'cancelled' } })) as Job;
      await this.send(em, made.id);
      return made;
    });
  }

  /** Queues anew what processes have left that are no more, and looks for work. */
  private takeOver(): void {
    void this.em
      .transactional(async (em) => {
        for (const { id } of await em.execute<{ id: string }[]>(leftBehind)) await this.send(em, id);
      })
      .catch(() => {
        // The database is away; it is looked again soon.
      })
      .then(() => this.look());
  }

  /** Queues a job, in the transaction in which it is written down. */
  private async send(em: EntityManager, job: string): Promise<void> {
    const executeSql = async (text: string, values: unknown[]): Promise<{ rows: unknown[] }> => {
      const ordered: unknown[] = [];
      const sql = text.replace(/\$(\d+)/g, (_, n: string) => (ordered.push(values[Number(n) - 1] ?? null), '?'));
      return { rows: await em.execute<unknown[]>(sql, ordered) };
    };
    await this.boss.send(queue, { job }, { db: { executeSql } } as PgBoss.SendOptions);
    await em.execute(...notifying('yard_job', { job, state: 'waiting', progress: 0, stage: '' }));
  }

  async get(id: string): Promise<Job> {
    const row = await this.em.findOne(JobEntity, { id });
    if (!row)
      throw new ProblemError(
        404,
        { kind: 'no-such-job', title: 'There is no such work' },
        'Its result may have been cleared away. Ask for it again.',
      );
    return row as Job;
  }

  /** Tells how a job goes, until it has ended or the function that is returned is called. */
  async follow(id: string, listener: (job: Heard) => void): Promise<() => void> {
    let over = false;
    const tell = (job: Heard): void => {
      if (over) return;
      over = ended(job.state);
      listener(job);
    };
    let away: number | null = null;
    const look = (): void =>
      void this.get(id).then(
        (job) => {
          away = null;
          tell(job);
        },
        (error: Error) => {
          away ??= Date.now();
          if (isAway(error) && Date.now() - away < patient) return;
          tell({ state: 'failed', progress: 0, stage: '', problem: JSON.stringify(asProblem(error)) });
        },
      );
    const off = this.services.announcer.on(
      'yard_job',
      (news) =>
        news.job === id &&
        (ended(news.state) ? look() : tell({ ...news, state: news.state as JobState, problem: null })),
      look,
    );
    // A process may die, and with it what it would have told.
    const again = setInterval(look, deaf / 2);
    again.unref();
    look();
    return () => {
      over = true;
      off();
      clearInterval(again);
    };
  }

  /** Waits for a job. @throws ProblemError with what it failed of, or when it was cancelled; the signal's reason when that ends the waiting. */
  async result(id: string, signal?: AbortSignal): Promise<Job> {
    let off = (): void => {};
    try {
      const outcome = await new Promise<Pick<Job, 'state' | 'problem'>>((resolve, reject) => {
        signal?.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
        this.follow(id, (job) => ended(job.state) && resolve(job)).then((end) => (off = end), reject);
      });
      if (outcome.state === 'done') return await this.get(id);
      if (outcome.state === 'cancelled')
        throw new ProblemError(409, { kind: 'cancelled', title: 'It was cancelled' }, 'Ask for it again.');
      const { status, type, title, detail, ...more } = JSON.parse(outcome.problem ?? '{}') as Problem;
      throw new ProblemError(
        (status as 422) ?? 500,
        { kind: String(type).replace('/problems/', ''), title },
        detail,
        more,
      );
    } finally {
      off();
    }
  }

  /** The bytes of a result, piece by piece. */
  async *pieces(id: string): AsyncGenerator<Uint8Array> {
    for (let number = 0; ; number++) {
      const piece = await this.em.findOne(JobPieceEntity, { job: id, number });
      if (!piece) return;
      yield piece.bytes;
    }
  }

  /** All bytes of a small result. */
  async bytes(id: string): Promise<Uint8Array<ArrayBuffer>> {
    const parts: Uint8Array[] = [];
    for await (const piece of this.pieces(id)) parts.push(piece);
    return new Uint8Array(Buffer.concat(parts));
  }

  /** Ends a job that nobody wants any more, wherever it runs. */
  async cancel(id: string): Promise<void> {
    await this.em.transactional(async (em) => {
      await em.nativeUpdate(
        JobEntity,
        { id, state: { $in: ['waiting', 'working'] } },
        { state: 'cancelled', endedAt: new Date() },
      );
      await em.execute(...notifying('yard_job', { job: id, state: 'cancelled', progress: 0, stage: '' }));
    });
  }

  private hear({ job, state }: JobNews): void {
    if (state === 'cancelled')
      this.ending
        .get(job)
        ?.abort(new ProblemError(409, { kind: 'cancelled', title: 'It was cancelled' }, 'Ask for it again.'));
    else if (state === 'waiting') this.look();
  }

  /** Takes on what waits, as long as there is room. */
  private look(): void {
    this.looking = this.looking.then(async () => {
      try {
        while (!this.closed && this.ending.size < this.services.pool.size) {
          const [found] = await this.boss.fetch<{ job: string }>(queue, { batchSize: 1 });
          if (!found) return;
          const control = new AbortController();
          this.ending.set(found.data.job, control);
          void this.work(found.data.job, control.signal)
            .catch(() => {})
            .then(() => this.boss.complete(queue, found.id).catch(() => {}))
            .then(() => {
              this.ending.delete(found.data.job);
              this.look();
            });
        }
      } catch {
        // The database is away; it is looked again soon.
      }
    });
  }

  private async work(id: string, signal: AbortSignal): Promise<void> {
    const runner = randomUUID();
    const [job] = await this.em.execute<{ project: string; revision: number; kind: JobKind; tries: number }[]>(
      `update "job" set "state" = 'working', "runner" = ?, "beat_at" = now(), "tries" = "tries" + 1 where "id" = ? and "state" = 'waiting' returning "project", "revision", "kind", "tries"`,
      [runner, id],
    );
    if (!job) return;
    const teller = new Teller(this.services.database, id, runner);
    try {
      if (job.tries > mostTries) throw endedTheServer();
      await this.em.nativeDelete(JobPieceEntity, { job: id });
      const outcome = await this.done(job, signal, teller);
      const size = await teller.finish();
      const { type, name } = outcome;
      const leftOut = outcome.leftOut.length > 0 ? JSON.stringify(outcome.leftOut.slice(0, mostLeftOut)) : null;
      await teller.end({ state: 'done', progress: 1, stage: '', type, name, leftOut, size });
    } catch (error) {
      await teller.finish().catch(() => {});
      // Where the database is away nothing can be written down: it is begun anew when it is back.
      if (signal.aborted || isAway(error as Error)) return;
      await teller.end({ state: 'failed', problem: JSON.stringify(asProblem(error as Error)) });
    } finally {
      teller.stop();
    }
  }

  /** Does the work. @throws ProblemError where it cannot be done. */
  private async done(
    { project, revision, kind }: { project: string; revision: number; kind: JobKind },
    signal: AbortSignal,
    teller: Teller,
  ): Promise<{ type: string; name: string; leftOut: readonly LeftOut[] }> {
    const { projects, pool, assets } = this.services;
    const { mark, document } = await projects.textAt(project, revision);
    const outcome = await pool.run(
      { kind, mark, text: document, assets: await assets.some(namedIn(document)) },
      { signal, onNews: (news) => teller.take(news) },
    );
    if ('type' in outcome) return outcome;
    throw new ProblemError(
      422,
      { kind: 'refused', title: 'The project cannot be read' },
      'refused' in outcome ? outcome.refused : 'It holds nothing.',
    );
  }

  /** Clears old results away; what failed is tried anew after a while. */
  async purge(): Promise<void> {
    const em = this.em;
    await em.execute(
      `delete from "job" where "ended_at" < now() - interval '${keptHours} hours' or ("state" = 'failed' and "ended_at" < now() - interval '1 hour')`,
    );
    await em.execute(
      `delete from "job" where "id" in (select "id" from (select "id", sum(coalesce("size", 0)) over (order by "created_at" desc) as "sum" from "job" where "ended_at" is not null) as "summed" where "sum" > ?)`,
      [keptBytes],
    );
  }

  async close(): Promise<void> {
    this.closed = true;
    this.off();
    clearInterval(this.timer);
    for (const control of this.ending.values()) control.abort(new Error('the server stops'));
    await this.looking;
    await this.boss.stop({ graceful: false, wait: false, close: true }).catch(() => {});
  }
}

/** Whether something failed because the database is away, so that it can be done when it is back. */
const isAway = (error: Error): boolean =>
  (error instanceof ProblemError ? error : databaseProblem(error))?.status === 503;

const endedTheServer = (): ProblemError =>
  new ProblemError(
    500,
    { kind: 'failed', title: 'That failed' },
    `It was begun ${mostTries} times, and each time the server ended while it was at it. Divide the project, or set a coarser chord for its arcs.`,
  );

function asProblem(error: Error): Problem {
  if (error instanceof ProblemError) return error.body();
  const database = databaseProblem(error);
  if (database) return database.body();
  return new ProblemError(
    500,
    { kind: 'failed', title: 'That failed' },
    `It ended with: ${error.message.slice(0, 300)}`,
  ).body();
}
