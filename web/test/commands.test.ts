/**
 * What can be done now, by name and by key, and the choice that it is done with.
 * @jest-environment jsdom
 */
import { beforeEach, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import type { ProjectDocument } from '@yard-arch/document';
import { commandsNow, runByKey } from '../src/commands/commands.ts';
import { openingsFound } from '../src/commands/in-project.ts';
import { keys } from '../src/common/keys.ts';
import {
  choose,
  chooseElement,
  chooseOpening,
  chooseOpenings,
  hide,
  place,
  rememberedChoice,
  rememberedElement,
  rememberedHidden,
  rememberedFaces,
  slide,
  tape,
  turnOver,
  turnTo,
  underDialog,
} from '../src/state/choice.ts';
import { chosenIds, faceNow, initial, useEditor } from '../src/state/state.ts';

const document = granary();
const names = (): string[] => commandsNow().map(({ name }) => name);
const now = useEditor.getState;

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  useEditor.setState({ ...initial(), project: 'p', document, element: 'courtyard' });
});

describe('commands', () => {
  it('are none where no project is open', () => {
    useEditor.setState({ document: null });
    expect(commandsNow()).toEqual([]);
    expect(runByKey('all')).toBe(false);
  });

  it('have each its own name, and keys that stand in the table', () => {
    chooseOpening('o10');
    const all = commandsNow();
    expect(new Set(all.map(({ group, name }) => `${group} ${name}`)).size).toBe(all.length);
    for (const { key } of all) if (key) expect(keys[key].hotkeys.length).toBeGreaterThan(0);
  });

  it('with what is chosen are about it: the mark of one, the number of several', () => {
    expect(names().some((name) => name.startsWith('Block up'))).toBe(false);
    chooseOpening('o10');
    expect(names()).toContain(`Block up ${document.openings.o10!.mark}`);
    expect(names()).toContain(`Make ${document.openings.o10!.mark} a one-off`);
    chooseOpening('o9', true);
    expect(names()).toContain('Block up 2 openings');
    expect(names().some((name) => name.includes('one-off'))).toBe(false);
  });

  it('open up what is all blocked up', () => {
    const blocked = Object.values(document.openings).find(({ blockedUp }) => blockedUp)!;
    chooseOpening(blocked.id);
    expect(names()).toContain(`Open up ${blocked.mark}`);
  });

  it('paste only what was copied, and show all only where something is hidden', () => {
    expect(names()).not.toContain('Paste the copied openings');
    chooseOpening('o10');
    expect(runByKey('copy')).toBe(true);
    expect(now().clip).toEqual({ kind: 'openings', ids: ['o10'] });
    expect(names()).toContain('Paste the copied openings');
    expect(names()).not.toContain('Show all walls');
    hide(new Set(['courtyard']));
    expect(names()).toContain('Show all walls');
    expect(names()).toContain('Show Courtyard wall');
  });

  it('done by a key are those that the finder has', () => {
    expect(runByKey('all')).toBe(true);
    expect(chosenIds(now().chosen)).toHaveLength(
      Object.values(document.openings).filter(({ element }) => element === 'courtyard').length,
    );
    expect(runByKey('tape')).toBe(true);
    expect(now().taping).toBe(true);
    expect(runByKey('tape')).toBe(true);
    expect(now().taping).toBe(false);
    expect(runByKey('turnOver')).toBe(true);
    expect(faceNow('courtyard')).toBe('inner');
  });

  it('lead to drawings that are not shown, to walls, and to patterns to be placed', () => {
    expect(names()).toEqual(expect.arrayContaining(['Plan', 'Table of openings', 'East gable']));
    expect(names()).not.toContain('Sheet');
    const pattern = Object.values(document.patterns)[0]!;
    commandsNow()
      .find(({ group, name }) => group === 'Place' && name === pattern.name)!
      .run();
    expect(now().placing).toEqual({ pattern: pattern.id, size: Object.keys(pattern.sizes)[0] });
  });

  it('find openings by all the words that were typed, and only so many', () => {
    expect(openingsFound([], document)).toEqual([]);
    const [first, ...more] = openingsFound(['c-10'], document);
    expect([first?.name.startsWith('C-10, '), more]).toEqual([true, []]);
    first!.run();
    expect(chosenIds(now().chosen)).toEqual(['o10']);
    const many: ProjectDocument = {
      ...document,
      openings: Object.fromEntries(
        Array.from({ length: 300 }, (_, i) => [`x${i}`, { ...document.openings.o10!, id: `x${i}`, mark: `X-${i}` }]),
      ),
    };
    expect(openingsFound(['x'], many)).toHaveLength(40);
    expect(openingsFound(['x', 'nowhere'], many)).toEqual([]);
  });
});

describe('the choice', () => {
  it('of openings is of one element: that of the last one', () => {
    const elsewhere = Object.values(document.openings).find(({ element }) => element !== 'courtyard')!;
    chooseOpenings(['o10', 'o9', elsewhere.id]);
    expect(now().element).toBe(elsewhere.element);
    expect(chosenIds(now().chosen)).toEqual([elsewhere.id]);
    chooseOpenings(['gone']);
    expect(now().chosen).toEqual({ kind: 'wall' });
  });

  it('grows and shrinks by one with Shift', () => {
    chooseOpening('o10');
    chooseOpening('o9', true);
    expect(chosenIds(now().chosen)).toEqual(['o10', 'o9']);
    chooseOpening('o10', true);
    expect(chosenIds(now().chosen)).toEqual(['o9']);
  });

  it('of another element lets go of the openings of the first', () => {
    chooseOpening('o10');
    chooseElement('east');
    expect(now().chosen).toEqual({ kind: 'wall' });
    choose({ kind: 'project' });
    chooseElement('east');
    expect(now().chosen).toEqual({ kind: 'project' });
  });

  it('is remembered in this tab, and the wall, what is hidden and what is turned over with it', () => {
    chooseElement('east');
    chooseOpening('o10');
    hide(new Set(['west']));
    turnOver('courtyard', 'inner');
    expect(rememberedChoice('p')).toEqual({ kind: 'openings', ids: ['o10'] });
    expect(rememberedElement('p')).toBe('courtyard');
    expect(rememberedHidden('p')).toEqual(new Set(['west']));
    expect(rememberedFaces('p')).toEqual(new Map([['courtyard', 'inner']]));
    turnOver('courtyard', 'outer');
    expect(rememberedFaces('p')).toEqual(new Map());
    expect(rememberedChoice('another')).toEqual({ kind: 'wall' });
  });

  it('remembered as no one could have written it is as if there were none', () => {
    sessionStorage.setItem('yard-arch-chosen-p', '{');
    sessionStorage.setItem('yard-arch-faces-p', '7');
    localStorage.setItem('yard-arch-hidden-p', 'null x');
    expect(rememberedChoice('p')).toEqual({ kind: 'wall' });
    expect(rememberedFaces('p')).toEqual(new Map());
    expect(rememberedHidden('p')).toEqual(new Set());
  });

  it('of a tool puts the others away', () => {
    place({ pattern: 'loft', size: 'a' });
    tape(true);
    expect(now()).toMatchObject({ placing: null, taping: true, sliding: false });
    slide(true);
    expect(now()).toMatchObject({ placing: null, taping: false, sliding: true });
    place({ pattern: 'loft', size: 'a' });
    expect(now()).toMatchObject({ taping: false, sliding: false });
    turnTo('plan');
    expect(now()).toMatchObject({ placing: null, board: 'plan' });
    expect(initial().board).toBe('plan');
  });

  it('is no dialog’s: that has the keys while it is open, and Escape closes it', () => {
    expect(underDialog('Escape')).toBe(false);
    useEditor.setState({ dialog: 'keys' });
    expect(underDialog('b')).toBe(true);
    expect(now().dialog).toBe('keys');
    expect(underDialog('Escape')).toBe(true);
    expect(now().dialog).toBeNull();
  });
});
