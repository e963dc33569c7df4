/** What server processes on one database tell each other, by PostgreSQL's own LISTEN and NOTIFY: whoever is behind the balancer hears of it. */
import createSubscriber, { type Subscriber } from 'pg-listen';
import { patience } from './patience.ts';

/** A new state of a project. */
export interface NewState {
  project: string;
  revision: number;
  mark: string;
  /** Whether the project was deleted. */
  deleted?: boolean;
}

/** How far a job has come. */
export interface JobNews {
  job: string;
  state: string;
  progress: number;
  stage: string;
}

/** What is told, by channel. */
export interface Told {
  yard_state: NewState;
  yard_job: JobNews;
}

/** The statement that tells of something once the transaction in which it stands is done. */
export const notifying = <C extends keyof Told>(channel: C, what: Told[C]): [string, string[]] => [
  'select pg_notify(?, ?)',
  [channel, JSON.stringify(what)],
];

type Listener<C extends keyof Told> = (what: Told[C]) => void;

/** Hears what any process tells. After the line to the database was lost, those who listen are told to look for themselves. */
export class Announcer {
  private readonly subscriber: Subscriber<{ [C in keyof Told]: Told[C] }>;
  private readonly listeners = {
    yard_state: new Set<Listener<'yard_state'>>(),
    yard_job: new Set<Listener<'yard_job'>>(),
  };
  private readonly again = new Set<() => void>();
  private closed = false;

  constructor(url: string) {
    this.subscriber = createSubscriber(
      { connectionString: url, ...patience },
      {
        retryInterval: 250,
        retryTimeout: Number.POSITIVE_INFINITY,
        retryLimit: Number.POSITIVE_INFINITY,
        paranoidChecking: 10_000,
      },
    );
    this.subscriber.notifications.on('yard_state', (told) =>
      this.listeners.yard_state.forEach((listener) => listener(told)),
    );
    this.subscriber.notifications.on('yard_job', (told) =>
      this.listeners.yard_job.forEach((listener) => listener(told)),
    );
    this.subscriber.events.on('connected', () => {
      // What was being tried when it was closed came through after all.
      if (this.closed) return void this.subscriber.close().catch(() => {});
      for (const look of this.again) look();
    });
    // The only way to keep it from trying for ever once it is closed: it gives up where this throws.
    this.subscriber.events.on('reconnect', () => {
      if (this.closed) throw new Error('the announcer is closed');
    });
    // It tries again by itself; what fails meanwhile is told by whatever asks the database.
    this.subscriber.events.on('error', () => {
      // Came through after it was closed, and was lost again: it would go on looking after that line for ever.
      if (this.closed) void this.subscriber.close().catch(() => {});
    });
  }

  async open(): Promise<void> {
    await this.subscriber.connect();
    for (const channel of ['yard_state', 'yard_job'] as const) await this.subscriber.listenTo(channel);
  }

  /** @param look called after a time in which something may have been missed. @returns what ends it. */
  on<C extends keyof Told>(channel: C, listener: Listener<C>, look: () => void = () => {}): () => void {
    const known = this.listeners[channel] as Set<Listener<C>>;
    known.add(listener);
    this.again.add(look);
    return () => {
      known.delete(listener);
      this.again.delete(look);
    };
  }

  async close(): Promise<void> {
    if (this.closed) return;
    this.closed = true;
    await this.subscriber.close().catch(() => {});
  }
}
