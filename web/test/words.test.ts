/**
 * What the page says of edits that were replaced, and the first steps that it shows.
 * @jest-environment jsdom
 */
import { beforeEach, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { beginSteps, endSteps, openSteps, stepTaken, useSteps } from '../src/state/first-steps.ts';
import { replacedWords } from '../src/state/replaced-words.ts';
import type { Replaced } from '../src/state/saver.ts';

const document = granary();
const said = (...values: Replaced['values']): string => replacedWords({ values } as Replaced, document);

describe('what was replaced', () => {
  it.each([
    ['elements/courtyard/height', 4.2, 4.5, 'height: yours was 4 200, now it is 4 500.'],
    ['elements/courtyard/turn', 30, 12.5, 'turn: yours was 30°, now it is 12.5°.'],
    ['openings/o10/blockedUp', true, false, 'blockedUp: yours was yes, now it is no.'],
    ['materials/brick/roughness', 0.5, 0.9, 'roughness: yours was 0.5, now it is 0.9.'],
    ['openings/o10/size', 'a', 'b', 'size: yours was “a”, now it is “b”.'],
    ['elements/courtyard/group', undefined, 'Yard', 'group: yours was none, now it is “Yard”.'],
    [
      'openings/o10/along',
      { from: 'start', distance: 1.5 },
      { from: 'middle', distance: 0 },
      'along: yours was 1 500 from the start, now it is 0 from the middle.',
    ],
    [
      'openings/o10/grip',
      { across: 'left', level: 'sill' },
      { across: 'centre', level: 'head' },
      'grip: yours was left sill, now it is centre head.',
    ],
    ['elements/courtyard/layers', [1, 2], [1], 'layers: yours was 2 of them, now it is 1 of them.'],
    ['elements/courtyard/top', { kind: 'level' }, { kind: 'raked' }, 'top: yours was level, now it is raked.'],
  ])('at %s is told with both values', (path, was, now, words) => {
    // Figures are grouped by thin spaces.
    expect(said({ path, was, now }).replaceAll(/[\u2009\u202f\u00a0]/g, ' ')).toContain(words);
  });

  it('as a whole is told as removed or made anew, by the name that it has or had', () => {
    expect(said({ path: 'openings/o10', was: document.openings.o10, now: undefined })).toBe(
      `${document.openings.o10!.mark} was removed.`,
    );
    expect(said({ path: 'openings/gone', was: { mark: 'Z-9' }, now: undefined })).toBe('Z-9 was removed.');
    expect(said({ path: 'openings/gone', was: undefined, now: { mark: 'Z-9' } })).toBe('gone was made anew.');
  });

  it('of the project is told of the project, and of many only the first', () => {
    const one = { path: 'settings/name', was: 'A', now: 'B' };
    expect(said(one)).toBe('the project, name: yours was “A”, now it is “B”.');
    expect(said(one, one, one, one, one)).toMatch(/ And 2 more\.$/);
  });
});

describe('the first steps', () => {
  beforeEach(() => localStorage.clear());

  it('are shown in a project that was begun here, until they are waved away', () => {
    openSteps('p');
    expect(useSteps.getState()).toMatchObject({ shown: false });
    beginSteps('p');
    openSteps('p');
    expect(useSteps.getState()).toMatchObject({ project: 'p', shown: true, taken: false });
    stepTaken();
    openSteps('p');
    expect(useSteps.getState()).toMatchObject({ shown: true, taken: true });
    endSteps();
    openSteps('p');
    expect(useSteps.getState()).toMatchObject({ shown: false, taken: false });
  });

  it('are none of another project’s', () => {
    beginSteps('p');
    openSteps('q');
    stepTaken();
    expect(useSteps.getState()).toMatchObject({ project: 'q', shown: false, taken: false });
    endSteps();
    openSteps('p');
    expect(useSteps.getState().shown).toBe(true);
  });
});
