import { expect, it } from '@jest/globals';
import { undoAll } from '../undo.ts';

it('ends what was begun, the last first, past what fails and what does not end', async () => {
  const done: string[] = [];
  const told: string[] = [];
  await undoAll(
    [
      () => void done.push('lock'),
      () => {
        throw new Error('the server was not there');
      },
      async () => void done.push('database'),
      () => new Promise(() => {}),
      async () => Promise.reject(new Error('the services were gone')),
      () => void done.push('listening'),
    ],
    (text) => void told.push(text),
    50,
  );
  expect(done).toEqual(['listening', 'database', 'lock']);
  expect(told).toEqual([
    'the services were gone',
    'Something did not end within 0.05 s; it is left to end by itself.',
    'the server was not there',
  ]);
});
