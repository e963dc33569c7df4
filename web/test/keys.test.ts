/** The table of keys: nothing in one place stands for two things, and the list tells of all that should be known. */
import { describe, expect, it } from '@jest/globals';
import { arrowOf, keyList, keys } from '../src/common/keys.ts';

const all = Object.entries(keys);

describe('keys', () => {
  it.each(['sheet', 'plan'] as const)('stand for one thing on the %s', (where) => {
    const seen = new Map<string, string>();
    for (const [id, key] of all)
      if (key.where === where || key.where === 'everywhere')
        for (const hotkey of key.hotkeys) {
          expect([hotkey, seen.get(hotkey) ?? id]).toEqual([hotkey, id]);
          seen.set(hotkey, id);
        }
  });

  it('are written with one way of telling modifiers from keys', () => {
    for (const [, { hotkeys }] of all)
      for (const hotkey of hotkeys) expect(hotkey).toMatch(/^((mod|shift|alt)\|)*([a-z0-9]+|[-+=?_])$/);
  });

  it('are listed but for those that go without saying', () => {
    const listed = keyList.flatMap(({ keys: shown }) => shown.map(([key]) => key));
    for (const [, { does, shown }] of all) if (does !== null) expect(listed).toContain(shown);
    expect(keyList.map(({ title }) => title)).toEqual(['Everywhere', 'On the plan', 'On the sheet']);
  });

  it('step by an arrow as far as its modifier says', () => {
    const steps = [0.01, 0.1, 0.001] as const;
    const press = (key: string, over = {}) => arrowOf({ key, shiftKey: false, altKey: false, ...over }, steps);
    expect(press('ArrowLeft')).toEqual([-0.01, 0]);
    expect(press('ArrowUp', { shiftKey: true })).toEqual([0, 0.1]);
    expect(press('ArrowDown', { altKey: true })).toEqual([0, -0.001]);
    expect(press('Enter')).toEqual([0, 0]);
  });
});
