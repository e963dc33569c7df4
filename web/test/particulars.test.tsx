/**
 * Particulars as a person uses them: what is typed and chosen there becomes of the document, is sent, and can be undone.
 * @jest-environment jsdom
 */
import { afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { resolveOpening, type Placed } from '@yard-arch/core';
import { openingsOf } from '@yard-arch/edit';
import type { ProjectDocument } from '@yard-arch/document';
import { ElementParticulars } from '../src/particulars/ElementParticulars.tsx';
import { LineParticulars } from '../src/particulars/LineParticulars.tsx';
import { ManyParticulars } from '../src/particulars/ManyParticulars.tsx';
import { OpeningParticulars } from '../src/particulars/OpeningParticulars.tsx';
import { PatternParticulars } from '../src/particulars/PatternParticulars.tsx';
import { useEditor } from '../src/state/state.ts';
import { redo, undo } from '../src/state/store.ts';
import { asInBrowser, closed, cut, opened, twoWalls, type Opened } from './opened.tsx';

beforeAll(asInBrowser);
afterEach(closed);

const places = (document: ProjectDocument, ...ids: string[]): Placed[] =>
  ids.map((id) => resolveOpening(document, document.openings[id]!) as Placed);

/** Opens a fold by its title. */
async function unfold({ user }: Pick<Opened, 'user'>, title: RegExp): Promise<HTMLElement> {
  const summary = screen.getAllByText(title).find((found) => found.closest('summary'))!;
  const fold = summary.closest('details')!;
  // Folds stay as they were left.
  if (!fold.open) await user.click(summary);
  return fold;
}

const button = (name: string | RegExp): HTMLElement => screen.getByRole('button', { name });
const choice = (label: string): HTMLSelectElement => screen.getByLabelText<HTMLSelectElement>(label);

describe('of an opening', () => {
  const show = (): Promise<Opened> =>
    opened(twoWalls(), (document) =>
      document.openings.o10 ? <OpeningParticulars document={document} opening={document.openings.o10} /> : null,
    );

  it('its mark is renamed, sent to the server, undone and done again', async () => {
    const { type, opening, server } = await show();
    const { mark } = opening('o10');
    await type('Mark', 'W-77');
    expect(opening('o10').mark).toBe('W-77');
    await waitFor(() => expect(server.document.openings.o10!.mark).toBe('W-77'));
    expect(screen.getByRole('heading', { name: 'Opening W-77' })).toBeTruthy();
    act(undo);
    expect(opening('o10').mark).toBe(mark);
    await waitFor(() => expect(server.document.openings.o10!.mark).toBe(mark));
    act(redo);
    expect(screen.getByRole('heading', { name: 'Opening W-77' })).toBeTruthy();
    await waitFor(() => expect(server.edits).toHaveLength(3));
  });

  it('what became of it is told once it is cut, and what its cut gives', async () => {
    await show();
    expect(screen.getByText('being cut…')).toBeTruthy();
    await act(cut);
    expect(screen.getByTestId('state').textContent).toBe('cut through');
    // A semicircular arch of 1.3 m, its springing 1.25 m up.
    const area = 1.3 * 1.25 + (Math.PI * 0.65 * 0.65) / 2;
    expect(screen.getByText(/m² of the face/).textContent).toContain(area.toFixed(2));
  });

  it('its size is another, or dimensions of its own that become a size', async () => {
    const shown = await show();
    const { user, opening, type, document } = shown;
    await user.selectOptions(choice('Size'), 'b');
    expect(opening('o10').size).toBe('b');
    await user.click(button('make it a one-off'));
    expect(opening('o10').own).toEqual({ span: 1.1, height: 1.75 });
    await type('Span', '1250');
    expect(opening('o10').own).toEqual({ span: 1.25, height: 1.75 });
    const before = Object.keys(document().patterns.arch!.sizes).length;
    await user.click(button(/size/));
    expect(opening('o10').own).toBeUndefined();
    const { sizes } = document().patterns.arch!;
    expect(Object.keys(sizes)).toHaveLength(before + 1);
    expect(sizes[opening('o10').size]!.dimensions).toEqual({ span: 1.25, height: 1.75 });
  });

  it('a dimension that cannot be is refused where it is typed, and nothing is changed', async () => {
    const { user, opening, type, document } = await show();
    await user.click(button('make it a one-off'));
    const before = document();
    await type('Span', '-20');
    expect(screen.getByRole('alert').textContent).toBeTruthy();
    expect(document()).toBe(before);
    expect(opening('o10').own!.span).toBe(1.3);
  });

  it('another pattern keeps its place, and names what it was changed to', async () => {
    const { user, opening, document } = await show();
    const [before] = places(document(), 'o10');
    await user.selectOptions(choice('Pattern'), 'light');
    expect(opening('o10').pattern).toBe('light');
    const [after] = places(document(), 'o10');
    expect(after!.t).toBeCloseTo(before!.t, 9);
    expect(after!.s + after!.profile.width / 2).toBeCloseTo(before!.s + before!.profile.width / 2, 9);
  });

  it('what it is measured from is another, and it stays where it stands', async () => {
    const { user, opening, document } = await show();
    const [before] = places(document(), 'o10');
    await user.selectOptions(choice('Along from'), 'end');
    expect(opening('o10').along.from).toBe('end');
    await user.selectOptions(choice('Up from'), 'top');
    expect(opening('o10').up.from).toBe('top');
    await user.selectOptions(choice('Held by'), 'head right');
    expect(opening('o10').grip).toEqual({ across: 'right', level: 'head' });
    const [after] = places(document(), 'o10');
    expect([after!.s, after!.t]).toEqual([expect.closeTo(before!.s, 6), expect.closeTo(before!.t, 6)]);
  });

  it('a distance that is typed moves it by as much', async () => {
    const { user, document, type } = await show();
    await user.selectOptions(choice('Along from'), 'start');
    const [before] = places(document(), 'o10');
    const along = Number(screen.getByLabelText<HTMLInputElement>('Along').value.replace(/\s/g, ''));
    await type('Along', String(along + 125));
    const [after] = places(document(), 'o10');
    expect(after!.s - before!.s).toBeCloseTo(0.125, 9);
  });

  it('it is set out on the inner face where it stands', async () => {
    const { user, document, opening } = await show();
    const [before] = places(document(), 'o10');
    await user.selectOptions(choice('Set out on'), 'inner');
    expect(opening('o10').face).toBe('inner');
    const [after] = places(document(), 'o10');
    expect(after!.s + after!.profile.width).toBeCloseTo(19.2 - before!.s, 6);
  });

  it('it is blocked up, opened, and removed', async () => {
    const { user, opening, document } = await show();
    await user.click(button('Block up'));
    expect(opening('o10').blockedUp).toBe(true);
    await user.click(button('Open up'));
    expect(opening('o10').blockedUp).toBe(false);
    await user.click(button('Remove'));
    expect(document().openings.o10).toBeUndefined();
    act(undo);
    expect(opening('o10')).toBeDefined();
  });

  it('all that are alike are chosen with it', async () => {
    const { user } = await show();
    await user.click(button('Granary arch, 7'));
    const { chosen } = useEditor.getState();
    expect(chosen).toMatchObject({ kind: 'openings' });
    expect(chosen.kind === 'openings' && chosen.ids).toHaveLength(7);
  });
});

describe('of a wall', () => {
  const show = (): Promise<Opened> =>
    opened(twoWalls(), (document) => {
      const wall = document.elements.courtyard;
      return wall ? <ElementParticulars document={document} element={wall} /> : null;
    });

  it('its length, height and lean are typed', async () => {
    const { type, wall } = await show();
    await type('Length', '20 m');
    await type('Height', "30'");
    await type('Leans in by', '2');
    expect(wall('courtyard')).toMatchObject({ length: 20, height: expect.closeTo(9.144, 9) });
    expect(wall('courtyard').batter).toBe(2);
  });

  it('its top becomes a gable, whose apex and place are typed', async () => {
    const { user, type, wall } = await show();
    await user.selectOptions(choice('Top'), 'gabled');
    const { top, height } = wall('courtyard');
    expect(top.kind === 'gabled' && top.apex).toBeGreaterThan(height);
    await type(/^Apex/, '11500');
    expect(wall('courtyard').top).toMatchObject({ kind: 'gabled', apex: 11.5 });
    await user.selectOptions(choice('Top'), 'level');
    expect(wall('courtyard').top).toEqual({ kind: 'level' });
  });

  it('it takes a layer, and stands on a datum', async () => {
    const { user, wall, document } = await show();
    const before = wall('courtyard').layers.length;
    await user.click(button('add a layer inside'));
    expect(wall('courtyard').layers).toHaveLength(before + 1);
    await unfold({ user }, /^Where it stands$/);
    await user.selectOptions(choice('Level with'), 'ground');
    expect(wall('courtyard').stands).toBe('ground');
    expect(wall('courtyard').start.z).toBeCloseTo(document().datums.ground!.level, 9);
  });

  it('its particulars list its openings with what became of each, and one is chosen by a click', async () => {
    const { user } = await show();
    await act(cut);
    const row = button(/^C-10/);
    expect(row.textContent).toContain('cut through');
    await user.click(row);
    expect(useEditor.getState().chosen).toEqual({ kind: 'openings', ids: ['o10'] });
  });

  it('it is filled with bays by figures, as many as are told before', async () => {
    const shown = await show();
    const { user, type, document } = shown;
    const fold = await unfold(shown, /^Fill with bays$/);
    await user.click(within(fold).getByLabelText(/^Loft sill/));
    await type('Columns', '3');
    const fill = within(fold).getByRole('button', { name: /^Fill with/ });
    const count = Number(/\d+/.exec(fill.textContent)![0]);
    const before = Object.keys(document().openings).length;
    await user.click(fill);
    expect(Object.keys(document().openings)).toHaveLength(before + count);
  });

  it('it is duplicated with everything on it, and removed with its openings', async () => {
    const { user, document } = await show();
    await user.click(button('duplicate with everything on it'));
    const copies = Object.values(document().elements).filter(({ name }) => name.startsWith('Courtyard wall'));
    expect(copies).toHaveLength(2);
    const copy = copies.find(({ id }) => id !== 'courtyard')!;
    expect(Object.values(document().openings).filter(({ element }) => element === copy.id)).toHaveLength(21);
    await user.click(button(/^Remove wall and its 21 openings$/));
    expect(document().elements.courtyard).toBeUndefined();
    expect(Object.values(document().openings).some(({ element }) => element === 'courtyard')).toBe(false);
  });
});

describe('of several openings', () => {
  const ids = ['o8', 'o9', 'o10'];
  const show = (): Promise<Opened> =>
    opened(twoWalls(), (document) => {
      const openings = openingsOf(document, ids);
      return openings.length > 1 ? <ManyParticulars document={document} openings={openings} /> : null;
    });

  it('they are spread over the wall with equal piers', async () => {
    const shown = await show();
    const { user, document } = shown;
    const fold = await unfold(shown, /^Spread$/);
    await user.click(within(fold).getByRole('button', { name: 'Spread 3 openings' }));
    const [a, b, c] = places(document(), ...ids).sort((one, other) => one.s - other.s) as [Placed, Placed, Placed];
    const piers = [a.s, b.s - a.s - a.profile.width, c.s - b.s - b.profile.width, 19.2 - c.s - c.profile.width];
    for (const pier of piers) expect(pier).toBeCloseTo(piers[0]!, 6);
  });

  it('what is in the way of spreading them is told, and nothing is done', async () => {
    const shown = await show();
    const { user, type } = shown;
    const fold = await unfold(shown, /^Spread$/);
    await user.selectOptions(within(fold).getByLabelText('Spacing'), 'given pier');
    await type('Pier', '30000');
    expect(fold.textContent).toMatch(/only|fit|room/);
    expect(within(fold).getByRole('button', { name: 'Spread 3 openings' })).toHaveProperty('disabled', true);
  });

  it('all are blocked up at once, undone at once, and removed', async () => {
    const { user, document } = await show();
    await user.click(button('Block up'));
    expect(ids.every((id) => document().openings[id]!.blockedUp)).toBe(true);
    act(undo);
    expect(ids.some((id) => document().openings[id]!.blockedUp)).toBe(false);
    await user.click(button('Remove all 3'));
    expect(ids.some((id) => document().openings[id])).toBe(false);
  });
});

describe('of a pattern', () => {
  const show = (): Promise<Opened> =>
    opened(twoWalls(), (document) => {
      const pattern = document.patterns.arch;
      return pattern ? <PatternParticulars document={document} pattern={pattern} /> : null;
    });

  it('a size that is changed changes every opening of it, and no other', async () => {
    const { type, document } = await show();
    const before = document();
    await type('Span', '1400');
    const arches = Object.values(document().openings).filter(({ pattern }) => pattern === 'arch');
    for (const { id, size } of arches) {
      const [was, now] = [places(before, id)[0]!, places(document(), id)[0]!];
      expect(now.profile.width).toBeCloseTo(size === 'a' ? 1.4 : was.profile.width, 9);
    }
  });

  it('its section takes a check, loses it, and splays', async () => {
    const shown = await show();
    const { user, type, document } = shown;
    const jambs = () => document().patterns.arch!.sections!['jamb-left']!;
    await unfold(shown, /^Section of the reveal/);
    const before = jambs().checks!.length;
    await user.click(button('add a check'));
    expect(jambs().checks).toHaveLength(before + 1);
    await user.click(screen.getAllByRole('button', { name: 'remove this check' })[0]!);
    expect(jambs().checks).toHaveLength(before);
    await type('Splays out by', '5');
    expect(jambs().splayOutside).toBe(5);
    await user.selectOptions(screen.getAllByLabelText('Arris')[0]!, 'chamfered');
    expect(JSON.stringify(jambs())).toContain('chamfer');
  });

  it('an infill is begun from a drawing, and taken out', async () => {
    const shown = await show();
    const { user, document } = shown;
    await unfold(shown, /^Infill/);
    await user.click(button('pair of casements'));
    expect(document().patterns.arch!.infill).toBeDefined();
    await user.click(button('take the infill out'));
    expect(document().patterns.arch!.infill).toBeUndefined();
  });

  it('a part is added to all its openings, with a material of the project', async () => {
    const shown = await show();
    const { user, document } = shown;
    await unfold(shown, /^Parts about it/);
    await user.selectOptions(choice('Add'), 'arch ring');
    const [part] = document().patterns.arch!.parts!;
    expect(part!.kind).toBe('arch ring');
    expect(document().materials[(part as { material: string }).material]).toBeDefined();
  });

  it('it is copied without its openings, and removed with them', async () => {
    const { user, document } = await show();
    const uses = (id: string) => Object.values(document().openings).filter(({ pattern }) => pattern === id).length;
    const known = Object.keys(document().patterns);
    const count = uses('arch');
    await user.click(button('Copy pattern'));
    const [copy] = Object.keys(document().patterns).filter((id) => !known.includes(id));
    expect(uses(copy!)).toBe(0);
    await user.click(button(`Remove with its ${count} openings`));
    expect(document().patterns.arch).toBeUndefined();
    expect(uses('arch')).toBe(0);
  });
});

describe('of a datum', () => {
  const show = (): Promise<Opened> =>
    opened(twoWalls(), (document) => {
      const datum = document.datums.yard;
      return datum ? <LineParticulars document={document} line={{ kind: 'datum', datum }} /> : null;
    });

  it('what is held to it goes with it, and a click leads there', async () => {
    const { user, type, document } = await show();
    const before = document();
    const held = screen.getByRole('heading', { name: /^Held to it, 4 on 2 walls$/ });
    expect(held).toBeTruthy();
    await type('Level', '150');
    for (const opening of Object.values(document().openings)) {
      const rise = places(document(), opening.id)[0]!.t - places(before, opening.id)[0]!.t;
      expect(rise).toBeCloseTo(opening.up.from === 'datum' && opening.up.datum === 'yard' ? 0.15 : 0, 9);
    }
    await user.click(button(/^W-31/));
    expect(useEditor.getState()).toMatchObject({ element: 'quay', chosen: { kind: 'openings', ids: ['o31'] } });
  });

  it('it is renamed, and is removed while what was held to it stays', async () => {
    const { user, type, document } = await show();
    await type('Name', 'Paving');
    expect(document().datums.yard!.name).toBe('Paving');
    const before = document();
    await user.click(button('Remove datum'));
    expect(document().datums.yard).toBeDefined();
    await user.click(button('Remove, leave them where they are'));
    expect(document().datums.yard).toBeUndefined();
    for (const id of Object.keys(before.openings))
      expect(places(document(), id)[0]!.t).toBeCloseTo(places(before, id)[0]!.t, 9);
  });
});
