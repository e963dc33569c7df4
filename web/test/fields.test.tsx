/**
 * Fields as a person uses them: what is typed, what is taken, what is refused and said, and what happens meanwhile.
 * @jest-environment jsdom
 */
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { limits } from '@yard-arch/document';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent, { PointerEventsCheckLevel, type UserEvent } from '@testing-library/user-event';
import {
  AngleField,
  Cell,
  Choice,
  CountField,
  FreeLength,
  FreeName,
  LengthField,
  NameField,
  ShareField,
  Tick,
} from '../src/fields/Fields.tsx';

let user: UserEvent;
beforeEach(() => {
  user = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never });
});
afterEach(cleanup);

const field = (): HTMLInputElement => screen.getByRole<HTMLInputElement>('textbox');

/** Types over what stands there, and leaves the field. */
async function typeOver(text: string): Promise<void> {
  await user.clear(field());
  if (text) await user.type(field(), text);
  await user.tab();
}

describe('a length', () => {
  const length = (value: number, over: Partial<Parameters<typeof LengthField>[0]> = {}) => {
    const onChange = jest.fn<(metres: number) => boolean | string>(() => true);
    const props = { label: 'Width', value, units: 'mm' as const, onChange, ...over };
    const { rerender } = render(<LengthField {...props} />);
    return { onChange, show: (next: number) => rerender(<LengthField {...props} value={next} />) };
  };

  it.each([
    ['1500', 1.5],
    ['1.5 m', 1.5],
    ['4\' 7 1/8"', 1.400175],
  ])('typed as %s is taken in metres', async (text, metres) => {
    const { onChange } = length(1);
    await typeOver(text);
    expect(onChange).toHaveBeenCalledTimes(1);
    expect(onChange.mock.calls[0]![0]).toBeCloseTo(metres, 9);
  });

  it('left as it was writes nothing', async () => {
    const { onChange } = length(1);
    await user.click(field());
    await user.tab();
    expect(onChange).not.toHaveBeenCalled();
  });

  it('that is none stays where it was typed, and says what to try', async () => {
    const { onChange } = length(1);
    await typeOver('wide');
    expect(screen.getByRole('alert').textContent).toMatch(/“wide” is not a length\. Try 1400/);
    expect(field().value).toBe('wide');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(onChange).not.toHaveBeenCalled();
  });

  it('given up by Escape shows what stands there', async () => {
    const { onChange } = length(1);
    await user.clear(field());
    await user.type(field(), '12{Escape}');
    expect(field().value).toMatch(/^1.000$/);
    await user.tab();
    expect(onChange).not.toHaveBeenCalled();
  });

  it('is taken by Enter once, and not again on leaving', async () => {
    const { onChange } = length(1);
    await user.clear(field());
    await user.type(field(), '1200{Enter}');
    await user.tab();
    expect(onChange).toHaveBeenCalledTimes(1);
  });

  it.each([
    ['0', { positive: true }, 'Width must be more than 0.'],
    ['-5', { within: { least: 0, most: 1 } }, 'Width must be at least 0.'],
    ['1001', { within: { least: 0, most: 1 } }, /^Width must be at most 1.000\.$/],
    ['100001 m', {}, /at most/],
  ] as const)('of %s beyond its limits is refused in its own units', async (text, over, said) => {
    const { onChange } = length(0.5, over);
    await typeOver(text);
    const told = screen.getByRole('alert').textContent!;
    if (typeof said === 'string') expect(told).toBe(said);
    else expect(told).toMatch(said);
    expect(onChange).not.toHaveBeenCalled();
  });

  it('that cannot be says why where it stands', async () => {
    const { onChange } = length(1);
    onChange.mockReturnValueOnce('It would cover the door.').mockReturnValueOnce(false);
    await typeOver('2000');
    expect(screen.getByRole('alert').textContent).toBe('It would cover the door.');
    await typeOver('2100');
    expect(screen.getByRole('alert').textContent).toBe('Width was not changed.');
  });

  it('follows what it shows until something is typed, and then says that it changed meanwhile', async () => {
    const { onChange, show } = length(0.801);
    await user.click(field());
    show(0.802);
    expect(field().value).toBe('802');
    await user.clear(field());
    await user.type(field(), '80');
    show(0.803);
    expect(field().value).toBe('80');
    expect(screen.getByRole('status').textContent).toMatch(/changed meanwhile, to 803/);
    await user.keyboard('{Escape}');
    expect(field().value).toBe('803');
    await user.tab();
    expect(onChange).not.toHaveBeenCalled();
  });

  it('steps by the arrow keys, tenfold with Shift, and takes what was typed first', async () => {
    const { onChange } = length(1);
    await user.click(field());
    await user.keyboard('{ArrowUp}{Shift>}{ArrowDown}{/Shift}');
    expect(onChange.mock.calls.map(([metres]) => metres)).toEqual([1.01, 0.9]);
    await user.clear(field());
    await user.type(field(), '3000');
    await user.keyboard('{ArrowUp}');
    expect(onChange.mock.calls.slice(2).map(([metres]) => metres)).toEqual([3, 1.01]);
  });
});

describe('a length that may be left open', () => {
  it('is taken as none where nothing or its own word stands', async () => {
    const onChange = jest.fn();
    render(<FreeLength label="Rise" value={0.4} otherwise="half the span" units="mm" onChange={onChange} />);
    await typeOver('');
    await typeOver('half the span');
    expect(onChange.mock.calls).toEqual([[null], [null]]);
    await typeOver('-1');
    expect(screen.getByRole('alert').textContent).toBe('Rise must be at least 0.');
    await typeOver('soon');
    expect(screen.getByRole('alert').textContent).toMatch(/Leave it empty for “half the span”/);
  });
});

describe('a whole number', () => {
  it('is from its least to its most, and no part of one', async () => {
    const onChange = jest.fn();
    render(<CountField label="Times" value={3} within={{ least: 1, most: 200 }} onChange={onChange} />);
    for (const wrong of ['0', '2.5', '201', 'two', '']) {
      await typeOver(wrong);
      expect(screen.getByRole('alert').textContent).toBe('Times must be a whole number from 1 to 200.');
    }
    expect(onChange).not.toHaveBeenCalled();
    await typeOver('12');
    expect(onChange).toHaveBeenLastCalledWith(12);
    await user.click(field());
    await user.keyboard('{ArrowDown}');
    expect(onChange).toHaveBeenLastCalledWith(2);
  });
});

describe('an angle', () => {
  it.each([
    ['90', 90],
    ['-22.5°', -22.5],
    ['−45', -45],
    ['12,5', 12.5],
  ])('typed as %s is taken in degrees', async (text, degrees) => {
    const onChange = jest.fn<(value: unknown) => boolean>(() => true);
    render(<AngleField label="Turn" value={0} onChange={onChange} />);
    await typeOver(text);
    expect(onChange).toHaveBeenCalledWith(degrees);
  });

  it('is refused beyond its limits, and steps only up to them', async () => {
    const onChange = jest.fn<(value: unknown) => boolean>(() => true);
    render(<AngleField label="Splays out by" value={79.5} within={limits.splay} onChange={onChange} />);
    await typeOver('81');
    expect(screen.getByRole('alert').textContent).toBe('Splays out by must be at most 80°.');
    await user.keyboard('{Escape}');
    await user.click(field());
    await user.clear(field());
    await user.keyboard('{Escape}{ArrowUp}');
    expect(onChange).toHaveBeenLastCalledWith(80);
    await typeOver('upright');
    expect(screen.getByRole('alert').textContent).toMatch(/is not an angle/);
  });
});

describe('a share', () => {
  it('is typed in per cent, between nothing and all', async () => {
    const onChange = jest.fn<(value: unknown) => boolean>(() => true);
    render(<ShareField label="At" value={0.625} onChange={onChange} />);
    expect(field().value).toBe('62.5 %');
    for (const wrong of ['0', '100', 'half', '']) {
      await typeOver(wrong);
      expect(screen.getByRole('alert').textContent).toBe('At must be more than 0 and less than 100 %.');
    }
    expect(onChange).not.toHaveBeenCalled();
    await typeOver('33,3 %');
    expect(onChange).toHaveBeenLastCalledWith(0.333);
  });
});

describe('a name', () => {
  it('is neither blank nor too long, and holds no control characters', async () => {
    const onChange = jest.fn<(value: unknown) => boolean>(() => true);
    render(<NameField label="Name" value="East gable" onChange={onChange} />);
    await typeOver('   ');
    expect(screen.getByRole('alert').textContent).toBe('Name must not be empty.');
    await user.clear(field());
    await user.paste('x'.repeat(121));
    await user.tab();
    expect(screen.getByRole('alert').textContent).toMatch(/at most 120 characters/);
    await user.clear(field());
    await user.paste('a\u0000b');
    await user.tab();
    expect(screen.getByRole('alert').textContent).toMatch(/control characters/);
    expect(onChange).not.toHaveBeenCalled();
    await typeOver('  West gable ');
    expect(onChange).toHaveBeenCalledWith('West gable');
  });

  it('that may be left out is none where nothing stands', async () => {
    const onChange = jest.fn();
    render(<FreeName label="Group" value="Yard" otherwise="none" known={['Yard', 'Quay']} onChange={onChange} />);
    const named = screen.getByRole<HTMLInputElement>('combobox');
    await user.clear(named);
    await user.tab();
    await user.clear(named);
    await user.type(named, 'Quay{Enter}');
    expect(onChange.mock.calls).toEqual([[null], ['Quay']]);
  });
});

describe('what is chosen', () => {
  it('is told by its value, and has its label', async () => {
    const onChange = jest.fn();
    const options = [
      { value: 'a', label: 'lean' },
      { value: 'b', label: 'quads in rows' },
    ];
    render(<Choice label="Faces" value="a" options={options} onChange={onChange} note="as is" />);
    await user.selectOptions(screen.getByLabelText('Faces'), 'quads in rows');
    expect(onChange).toHaveBeenCalledWith('b');
    expect(screen.getByText('as is')).toBeDefined();
  });

  it('as yes or no is turned over', async () => {
    const onChange = jest.fn();
    render(<Tick label="Stands on the floor" value={false} onChange={onChange} />);
    await user.click(screen.getByLabelText('Stands on the floor'));
    expect(onChange).toHaveBeenCalledWith(true);
  });

  it('in a table is named by what it is of', async () => {
    const onType = jest.fn((text: string) => (text === '5' ? null : 'Not that.'));
    render(<Cell label="Along of C-07" shown="4" hint="In mm" onType={onType} />);
    expect(screen.getByLabelText('Along of C-07')).toBe(field());
    await typeOver('6');
    expect(screen.getByRole('alert').textContent).toBe('Not that.');
    await typeOver('5');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
