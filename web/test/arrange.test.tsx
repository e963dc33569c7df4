/**
 * Arranging as a person does it in the particulars: lining up, evening out, mirroring, copying and changing many at once, each one edit.
 * @jest-environment jsdom
 */
import { afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import { act, screen, within } from '@testing-library/react';
import { boxOf, lengthOf, resolveOpening, type Box, type Placed } from '@yard-arch/core';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { openingsOf } from '@yard-arch/edit';
import type { ReactElement } from 'react';
import { AlignSection } from '../src/arrange/AlignSection.tsx';
import { CopySection, CopyToSection, MirrorSection } from '../src/arrange/CopySection.tsx';
import { EvenOutSection } from '../src/arrange/EvenOutSection.tsx';
import { SettingOutButtons } from '../src/arrange/SettingOutSection.tsx';
import { SwapSection } from '../src/arrange/SwapSection.tsx';
import { chosenIds, useEditor } from '../src/state/state.ts';
import { undo } from '../src/state/store.ts';
import { asInBrowser, closed, opened, twoWalls, type Opened } from './opened.tsx';

beforeAll(asInBrowser);
afterEach(closed);

const box = (document: ProjectDocument, id: string): Box =>
  boxOf(resolveOpening(document, document.openings[id]!) as Placed, id);

type Section = (props: { document: ProjectDocument; openings: readonly Opening[] }) => ReactElement;

/** Shows a section for some openings, unfolded. */
async function shown(Section: Section, ids: readonly string[], document = twoWalls()): Promise<Opened> {
  const open = await opened(document, (now) => {
    const openings = openingsOf(now, ids);
    return openings.length > 0 ? <Section document={now} openings={openings} /> : null;
  });
  const fold = window.document.querySelector('details')!;
  if (!fold.open) await open.user.click(fold.querySelector('summary')!);
  return open;
}

const button = (name: string | RegExp): HTMLElement => screen.getByRole('button', { name });
const madeSince = (before: ProjectDocument, now: ProjectDocument): Opening[] =>
  Object.values(now.openings).filter(({ id }) => !before.openings[id]);
/** How many edits can be undone. */
const edits = (): number => useEditor.getState().undo.length;

describe('lining up', () => {
  it.each([
    ['sills', (at: Box) => at.t],
    ['heads', (at: Box) => at.t + at.height],
    ['left jambs', (at: Box) => at.s],
    ['right jambs', (at: Box) => at.s + at.width],
  ] as const)('by their %s brings all to the one that was chosen first, in one step', async (by, of) => {
    const { user, document } = await shown(AlignSection, ['o9', 'o16', 'o4']);
    const before = document();
    await user.click(button(by));
    const first = of(box(document(), 'o9'));
    expect(first).toBe(of(box(before, 'o9')));
    for (const id of ['o16', 'o4']) expect(of(box(document(), id))).toBeCloseTo(first, 9);
    expect(edits()).toBe(1);
    act(undo);
    expect(document().openings).toEqual(before.openings);
  });

  it('gives all the pattern and size of the first', async () => {
    const { user, opening } = await shown(AlignSection, ['o9', 'o16', 'o4']);
    await user.click(button(/^pattern and size of/));
    for (const id of ['o16', 'o4'])
      expect(opening(id)).toMatchObject({ pattern: opening('o9').pattern, size: opening('o9').size });
  });
});

describe('evening out', () => {
  const uneven = (): ProjectDocument => {
    const document = twoWalls();
    const raised = (id: string, by: number): [string, Opening] => {
      const opening = document.openings[id]!;
      return [id, { ...opening, up: { ...opening.up, distance: opening.up.distance + by } as Opening['up'] }];
    };
    return {
      ...document,
      openings: { ...document.openings, ...Object.fromEntries([raised('o9', 0.007), raised('o11', -0.006)]) },
    };
  };
  const ids = ['o8', 'o9', 'o10', 'o11', 'o12'];

  it('tells what almost agrees before and after, and makes it equal', async () => {
    const { user, document } = await shown(EvenOutSection, ids, uneven());
    expect(screen.getByRole('checkbox', { name: /^Sills? of 5/i })).toBeTruthy();
    await user.click(button('Make equal'));
    const [first, ...others] = ids.map((id) => box(document(), id).t);
    for (const other of others) expect(other).toBeCloseTo(first!, 9);
    expect(screen.getByText(/^Nothing almost agrees/)).toBeTruthy();
  });

  it('leaves what is taken off the list as it is, and finds no more than what is within what is asked for', async () => {
    const { user, document, type } = await shown(EvenOutSection, ids, uneven());
    const before = document();
    for (const tick of screen.getAllByRole('checkbox')) await user.click(tick);
    expect(button('Make equal')).toHaveProperty('disabled', true);
    await type('Within', '2');
    expect(screen.getByText(/^Nothing almost agrees/)).toBeTruthy();
    expect(document()).toBe(before);
  });
});

describe('mirroring', () => {
  it('about the middle of the wall makes linked copies where their mirrors stand', async () => {
    const { user, document } = await shown(MirrorSection, ['o8', 'o15']);
    const before = document();
    const length = lengthOf(before, before.elements.courtyard!);
    await user.selectOptions(screen.getByLabelText('About'), 'middle');
    await user.click(button('Mirror'));
    const made = madeSince(before, document());
    expect(made).toHaveLength(2);
    for (const id of ['o8', 'o15']) {
      const own = box(before, id);
      const places = made.map((one) => box(document(), one.id));
      expect(
        places.some(({ s, t, width }) => Math.abs(s - (length - own.s - width)) < 1e-9 && Math.abs(t - own.t) < 1e-9),
      ).toBe(true);
    }
    expect(chosenIds(useEditor.getState().chosen)).toEqual(made.map(({ id }) => id));
  });

  it('of themselves about their own middle makes none, and twice is as before', async () => {
    const { user, document } = await shown(MirrorSection, ['o8', 'o15', 'o4']);
    const before = document();
    await user.selectOptions(screen.getByLabelText('About'), 'own');
    await user.selectOptions(screen.getByLabelText('What'), 'themselves');
    await user.click(button('Mirror'));
    expect(madeSince(before, document())).toHaveLength(0);
    expect(box(document(), 'o4').s).not.toBeCloseTo(box(before, 'o4').s, 3);
    await user.click(button('Mirror'));
    for (const id of ['o8', 'o15', 'o4']) expect(box(document(), id).s).toBeCloseTo(box(before, id).s, 9);
  });
});

describe('copying', () => {
  it('by figures, several times, and on by as much as the last time', async () => {
    const { user, document, type } = await shown(CopySection, ['o4']);
    const before = document();
    expect(button('Repeat the last copy')).toHaveProperty('disabled', true);
    await type('Along by', '500');
    await type('Up by', '250');
    await type('Times', '3');
    await user.click(button('Copy 3 times'));
    const own = box(before, 'o4');
    const at = (one: Opening): [number, number] => [
      box(document(), one.id).s - own.s,
      box(document(), one.id).t - own.t,
    ];
    const made = madeSince(before, document());
    expect(made.map(at).sort(([a], [b]) => a - b)).toEqual(
      [1, 2, 3].map((n) => [expect.closeTo(0.5 * n, 9), expect.closeTo(0.25 * n, 9)]),
    );
    expect(new Set(made.map(({ pattern }) => pattern))).toEqual(new Set([before.openings.o4!.pattern]));
    expect(edits()).toBe(1);
    expect(button('Repeat the last copy')).toHaveProperty('disabled', false);
  });

  it('with a pattern of their own, which can be changed without the first', async () => {
    const { user, document } = await shown(CopySection, ['o4']);
    const before = document();
    await user.selectOptions(screen.getByLabelText('Copies'), 'own patterns');
    await user.click(button('Copy'));
    const [made] = madeSince(before, document());
    expect(made!.pattern).not.toBe(before.openings.o4!.pattern);
    expect(document().patterns[made!.pattern]!.profile).toEqual(before.patterns[before.openings.o4!.pattern]!.profile);
  });

  it('to other walls and levels, with what they are held to', async () => {
    const { user, document } = await shown(CopyToSection, ['o8', 'o9']);
    const before = document();
    const held = before.openings.o8!.up;
    expect(button('Copy there')).toHaveProperty('disabled', true);
    await user.click(screen.getByLabelText('Quay wall'));
    await user.click(button('Copy there'));
    const made = madeSince(before, document());
    expect(made.map(({ element }) => element)).toEqual(['quay', 'quay']);
    for (const one of made) expect(one.up).toEqual(held);
  });
});

describe('another pattern for many', () => {
  it('is shown while it is thought over, left, or taken in one step', async () => {
    const { user, document, opening } = await shown(SwapSection, ['o8', 'o9', 'o10']);
    const before = document();
    await user.selectOptions(screen.getByLabelText('Becomes'), 'light');
    const { draft } = useEditor.getState();
    expect(['o8', 'o9', 'o10'].map((id) => draft!.openings[id]!.pattern)).toEqual(['light', 'light', 'light']);
    expect(document()).toBe(before);
    await user.click(button('Leave them'));
    expect(useEditor.getState().draft).toBeNull();
    await user.selectOptions(screen.getByLabelText('Becomes'), 'light');
    await user.click(button('Change 3 openings'));
    for (const id of ['o8', 'o9', 'o10']) expect(opening(id).pattern).toBe('light');
    expect(edits()).toBe(1);
  });

  it('says when there is nothing to change', async () => {
    const { user } = await shown(SwapSection, ['o8', 'o9']);
    await user.selectOptions(screen.getByLabelText('Becomes'), 'arch');
    expect(screen.getByText('All of them are of it already.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Change/ })).toBeNull();
  });
});

describe('a wall’s setting-out', () => {
  it('is copied from one wall and pasted on another', async () => {
    let wall = 'courtyard';
    const { user, document } = await opened(twoWalls(), (now) => (
      <SettingOutButtons document={now} element={now.elements[wall]!} />
    ));
    const before = document();
    await user.click(button('copy its setting-out'));
    expect(screen.queryByRole('button', { name: /^paste/ })).toBeNull();
    wall = 'quay';
    // Another wall is chosen.
    act(() => useEditor.setState({ document: { ...document() } }));
    await user.click(button('paste the setting-out of Courtyard wall'));
    const made = madeSince(before, document());
    expect(made).toHaveLength(21);
    expect(new Set(made.map(({ element }) => element))).toEqual(new Set(['quay']));
    await user.click(within(window.document.body).getByRole('button', { name: 'choose all' }));
    expect(chosenIds(useEditor.getState().chosen)).toHaveLength(27);
  });
});
