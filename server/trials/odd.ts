/** Odd values and requests, made from a seed. */
import seedrandom from 'seedrandom';

/**
 * The longest that any answer, and that an answer about the server's health, may take, milliseconds. On a machine that has other things to do nothing can be said of so short times, unless asked to: what keeps the
 * server from answering takes many times as long.
 */
export const [longest, longestHealth] = process.env.TRIAL_STRICT === 'yes' ? [2000, 100] : [10_000, 1500];

export const rounds = Math.max(1, Number(process.env.TRIAL_ROUNDS ?? 1));

export class Odd {
  private readonly random: () => number;

  constructor(seed: string) {
    this.random = seedrandom(seed);
  }

  below(n: number): number {
    return Math.floor(this.random() * n);
  }

  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }

  text(): string {
    return this.of([
      '',
      ' ',
      '\u0000',
      'a\u0000b',
      '\ud800',
      '../../etc/passwd',
      '%00',
      '%2e%2e',
      'x'.repeat(5000),
      '\u202e',
      "'; drop table project; --",
      '𝔘',
      'NaN',
      '-1',
      '1e400',
      'null',
      '00000000-0000-4000-8000-000000000000',
      '{"a":1}',
      '\n',
      'ﬃ',
    ]);
  }

  number(): number {
    return this.of([0, -1, 1, 0.1, -0, 1e308, -1e308, 2 ** 31, 2 ** 53, 1e-320, 4_294_967_296, 123456]);
  }

  value(depth = 0): unknown {
    const kinds = depth > 3 ? 4 : 7;
    switch (this.below(kinds)) {
      case 0:
        return this.text();
      case 1:
        return this.number();
      case 2:
        return null;
      case 3:
        return this.random() < 0.5;
      case 4:
        return Array.from({ length: this.below(5) }, () => this.value(depth + 1));
      default:
        return Object.fromEntries(
          Array.from({ length: this.below(5) }, () => [
            this.of([
              'id',
              'name',
              'key',
              'changeSet',
              'changes',
              'op',
              'table',
              'value',
              'baseRevision',
              '__proto__',
              'constructor',
              'kind',
              this.text(),
            ]),
            this.value(depth + 1),
          ]),
        );
    }
  }

  /** A document or an edit with one value in it made odd. */
  spoiled<T>(value: T): T {
    const copy = structuredClone(value) as Record<string, unknown>;
    let at: Record<string, unknown> = copy;
    for (let i = 0; i < 12; i++) {
      const keys = Object.keys(at);
      if (keys.length === 0) break;
      const key = this.of(keys);
      const inner = at[key];
      if (typeof inner === 'object' && inner !== null && this.random() < 0.8) at = inner as Record<string, unknown>;
      else {
        if (this.random() < 0.3) Reflect.deleteProperty(at, key);
        else at[key] = this.value();
        break;
      }
    }
    return copy as T;
  }
}
