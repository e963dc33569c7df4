/**
 * The register of elements as a person uses it: found, renamed, hidden, locked, grouped and removed.
 * @jest-environment jsdom
 */
import { afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import { act, fireEvent, screen, within } from '@testing-library/react';
import { setGroup } from '@yard-arch/edit';
import { applyChangeSet, kindNames } from '@yard-arch/document';
import { Register } from '../src/register/Register.tsx';
import { useEditor } from '../src/state/state.ts';
import { undo } from '../src/state/store.ts';
import { asInBrowser, bareGranary, closed, opened, twoWalls, type Opened } from './opened.tsx';

beforeAll(asInBrowser);
afterEach(closed);

const show = (document = twoWalls()): Promise<Opened> => opened(document, (now) => <Register document={now} />);
const entry = (name: string): HTMLElement =>
  within(screen.getByRole('navigation')).getByRole('button', { name: new RegExp(`^${name}`) });
const names = (): string[] => [...window.document.querySelectorAll('.entry b')].map((found) => found.textContent ?? '');

/** Does what an item of the menu that is open says, by the keyboard: there are no places here to click at. */
async function take({ user }: Opened, item: HTMLElement): Promise<void> {
  for (let i = 0; i < 30 && !item.hasAttribute('data-highlighted'); i++) await user.keyboard('{ArrowDown}');
  await user.keyboard('{Enter}');
}

/** Does something of an entry's menu. */
async function does(shown: Opened, name: string, what: RegExp): Promise<void> {
  await shown.user.click(screen.getByRole('button', { name: `What to do with ${name}` }));
  await take(shown, await screen.findByRole('menuitem', { name: what }));
}

describe('an entry', () => {
  it('leads to its sheet', async () => {
    const { user } = await show();
    act(() => useEditor.setState({ board: 'table' }));
    await user.click(entry('Quay wall'));
    expect(useEditor.getState()).toMatchObject({ element: 'quay', chosen: { kind: 'wall' }, board: 'sheet' });
    expect(entry('Quay wall').getAttribute('aria-current')).toBe('true');
  });

  it('is renamed by F2, and not by Escape or by nothing', async () => {
    const { user, wall } = await show();
    const rename = async (typed: string): Promise<void> => {
      fireEvent.keyDown(entry(wall('quay').name), { key: 'F2' });
      const field = screen.getByRole('textbox', { name: /^New name of/ });
      await user.clear(field);
      await user.type(field, typed);
    };
    await rename('River wall{Enter}');
    expect(wall('quay').name).toBe('River wall');
    await rename('Other{Escape}');
    expect(wall('quay').name).toBe('River wall');
    await rename('   {Enter}');
    expect(wall('quay').name).toBe('River wall');
    act(undo);
    expect(names()).toContain('Quay wall');
  });

  it('is hidden, shown alone, and all are shown again', async () => {
    const shown = await show();
    await does(shown, 'Quay wall', /^Hide/);
    expect([...useEditor.getState().hidden]).toEqual(['quay']);
    await shown.user.click(screen.getByRole('button', { name: '1 hidden · show all' }));
    expect(useEditor.getState().hidden.size).toBe(0);
    await does(shown, 'Quay wall', /alone/);
    expect([...useEditor.getState().hidden]).toEqual(['courtyard']);
  });

  it('is locked, and says so', async () => {
    const shown = await show();
    await does(shown, 'Quay wall', /^Lock/);
    expect(shown.wall('quay').locked).toBe(true);
    expect(within(entry('Quay wall')).getByLabelText('locked')).toBeTruthy();
    await does(shown, 'Quay wall', /^Unlock/);
    expect(shown.wall('quay').locked).toBeFalsy();
  });

  it('is duplicated, and removed with all that is on it', async () => {
    const shown = await show();
    await does(shown, 'Quay wall', /^Duplicate/);
    expect(names()).toHaveLength(3);
    await does(shown, 'Quay wall', /^Remove/);
    expect(shown.document().elements.quay).toBeUndefined();
    expect(Object.values(shown.document().openings).some(({ element }) => element === 'quay')).toBe(false);
    expect(names()).toHaveLength(2);
  });
});

describe('the register', () => {
  it('of more than a few is searched, and says when nothing is like that', async () => {
    const { user } = await show(bareGranary());
    const all = names().length;
    const search = screen.getByRole('searchbox');
    await user.type(search, 'shed');
    const found = names();
    expect(found.length).toBeGreaterThan(0);
    expect(found.length).toBeLessThan(all);
    expect(found.every((name) => /shed/i.test(name))).toBe(true);
    await user.clear(search);
    await user.type(search, 'xyzzy');
    expect(screen.getByText('No wall is like that.')).toBeTruthy();
  });

  it('by group lists each group, which is hidden as one', async () => {
    const whole = bareGranary();
    const shed = Object.values(whole.elements).filter(({ name }) => name.startsWith('Cart shed'));
    const { user } = await show(applyChangeSet(whole, setGroup(shed, 'Cart shed')).document);
    await user.selectOptions(screen.getByLabelText('List'), 'groups');
    const part = screen.getByRole('region', { name: 'Cart shed' });
    expect(part.querySelectorAll('.entry')).toHaveLength(shed.length);
    await user.click(within(part).getByRole('button', { name: 'Hide Cart shed' }));
    expect([...useEditor.getState().hidden].sort()).toEqual(shed.map(({ id }) => id).sort());
    await user.click(within(part).getByRole('button', { name: 'Show Cart shed' }));
    expect(useEditor.getState().hidden.size).toBe(0);
    await user.click(within(part).getByRole('button', { name: /Cart shed \d+$/ }));
    expect(part.querySelectorAll('.entry')).toHaveLength(0);
    await user.selectOptions(screen.getByLabelText('Show'), 'openings');
    expect(names()).toContain('Courtyard wall');
    expect(names().some((name) => /^Undercroft/.test(name))).toBe(false);
  });

  it('adds an element of each kind that there is, and chooses it', async () => {
    const shown = await show();
    const { user, document } = shown;
    await user.click(screen.getByRole('button', { name: /Add an element/ }));
    expect(await screen.findAllByRole('menuitem')).toHaveLength(kindNames.length + 1);
    const before = Object.keys(document().elements);
    await take(shown, screen.getAllByRole('menuitem')[0]!);
    const [made] = Object.keys(document().elements).filter((id) => !before.includes(id));
    expect(document().elements[made!]!.kind).toBe(kindNames[0]);
    expect(useEditor.getState().element).toBe(made);
  });
});
