/** What a failure of the database is told as. */
import { describe, expect, it } from '@jest/globals';
import { databaseProblem } from '../src/problem.ts';

const failure = (code: string, message = 'query failed'): Error =>
  Object.assign(new Error('while flushing', { cause: Object.assign(new Error(message), { code }) }));

describe('a failure of the database', () => {
  it.each([
    ['53100', 507, /no room/],
    ['ECONNREFUSED', 503, /does not answer/],
    ['57P01', 503, /does not answer/],
    ['08006', 503, /does not answer/],
  ])('with code %s is told as %i', (code, status, words) => {
    const problem = databaseProblem(failure(code));
    expect(problem?.status).toBe(status);
    expect(problem?.message).toMatch(words);
  });

  it('that is none is left to be told otherwise', () => {
    expect(databaseProblem(failure('23505', 'duplicate key'))).toBeNull();
    expect(databaseProblem(new Error('a fault of our own'))).toBeNull();
  });
});
