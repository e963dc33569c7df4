/** The pool of workers: each task with limits of time and memory, and an end when nobody wants it any more. */
import { pathToFileURL } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { ProblemError } from '../problem.ts';
import type { News, Outcome, Task } from './kinds.ts';

/** The longest that any task may take, milliseconds. */
export const longestTask = 300_000;

export interface PoolOptions {
  /** How many workers at most. */
  workers?: number;
  /** The most memory of a worker's own, in megabytes. */
  memory?: number;
  /** The file that the workers run, where it was built ahead; else it is compiled as it is read. */
  worker?: string | undefined;
}

/** What a task is run with. */
export interface Running {
  signal?: AbortSignal | undefined;
  /** Hears how far it is. */
  onNews?: (news: News) => void;
  /** The longest that it may take, milliseconds. */
  limit?: number;
}

export class Pool {
  private readonly workers: Piscina;
  readonly size: number;

  constructor({ workers = 2, memory = 3000, worker }: PoolOptions = {}) {
    this.size = workers;
    this.workers = new Piscina({
      filename: (worker === undefined ? new URL('./worker.mjs', import.meta.url) : pathToFileURL(worker)).href,
      minThreads: 0,
      maxThreads: workers,
      idleTimeout: 120_000,
      // Waiting by atomics would keep a worker's messages from being sent.
      atomics: 'disabled',
      resourceLimits: { maxOldGenerationSizeMb: memory },
    });
    this.workers.on('error', () => {
      // Told by the task that it ended.
    });
  }

  /** How many more tasks can begin at once. */
  get room(): number {
    return this.size - this.workers.queueSize - this.running;
  }

  private running = 0;

  /** Runs a task. @throws ProblemError where it took too long or too much memory; the reason of the signal where that ended it. */
  async run(task: Task, { signal, onNews, limit = longestTask }: Running = {}): Promise<Outcome> {
    const { port1, port2 } = new MessageChannel();
    const clock = AbortSignal.timeout(limit);
    const closed = new Promise<void>((resolve) => port1.once('close', resolve));
    port1.on('message', (news: News) => onNews?.(news));
    this.running += 1;
    try {
      const outcome = (await this.workers.run(
        { task, port: port2 },
        // A file that was sent is read by the worker alone, and need not be there twice.
        {
          transferList: task.kind === 'upload' ? [port2, task.bytes.buffer as ArrayBuffer] : [port2],
          signal: AbortSignal.any(signal ? [clock, signal] : [clock]),
        },
      )) as Outcome;
      // What the worker told last may come after its outcome.
      await closed;
      return outcome;
    } catch (error) {
      signal?.throwIfAborted();
      if (clock.aborted)
        throw new ProblemError(
          422,
          { kind: 'too-long', title: 'That takes too long' },
          `It was given up after ${Math.round(limit / 1000)} seconds. Divide the project, or set a coarser chord for its arcs.`,
        );
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ProblemError(
          422,
          { kind: 'too-large', title: 'That is too large' },
          'It takes more memory than there is for it. Divide the project, or set a coarser chord for its arcs.',
        );
      throw error;
    } finally {
      this.running -= 1;
      port1.close();
    }
  }

  async close(): Promise<void> {
    await this.workers.destroy();
  }
}
