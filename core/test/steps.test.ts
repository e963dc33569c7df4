/** A model that is shown while it is cut: what each step gives is what the whole has of it. */
import { describe, expect, it } from '@jest/globals';
import { demos } from '@yard-arch/demo';
import { cutInSteps, cutModel, type Model, type Step } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

function stepsOf(steps: Generator<Step, Model>): { steps: Step[]; model: Model } {
  const taken: Step[] = [];
  for (;;) {
    const { done, value } = steps.next();
    if (done) return { steps: taken, model: value };
    taken.push(value);
  }
}

describe('cutting in steps', () => {
  it.each(['cellar', 'layers', 'curved'])('gives every element once, in order, as it stays: %s', (name) => {
    const document = demos[name]!();
    const { steps, model } = stepsOf(cutInSteps(document));
    const elements = Object.keys(document.elements);
    expect(steps.map(({ cut }) => cut.element)).toEqual(elements);
    expect(steps.map(({ done, of }) => [done, of])).toEqual(elements.map((_, k) => [k + 1, elements.length]));
    for (const { cut } of steps) expect(model.cuts.get(cut.element)).toBe(cut);
    expect([...model.statuses.values()]).toEqual([...cutModel(document).statuses.values()]);
  });

  it('tells of openings with their own element, and of what they cut further when all is known', () => {
    const document = project(
      [wall(), wall({ id: 'w2', name: 'Lining', start: { x: 0, y: 1, z: 0 } })],
      [
        { ...opening('a', 'window', 1, 1), further: ['w2'] },
        { ...opening('b', 'window', 4, 1), element: 'gone' },
      ],
    );
    const { steps, model } = stepsOf(cutInSteps(document));
    expect(steps.map(({ statuses }) => statuses.map((status) => status.opening))).toEqual([['a'], []]);
    expect(steps[0]!.statuses[0]!.further).toBeUndefined();
    expect(model.statuses.get('a')!.further).toEqual([expect.objectContaining({ element: 'w2', state: 'cut' })]);
    expect(model.statuses.get('b')).toMatchObject({ state: 'not cut' });
  });

  it('keeps what an edit leaves alone, step by step', () => {
    const walls = [wall(), wall({ id: 'w2', name: 'Quay wall', start: { x: 0, y: 9, z: 0 } })];
    const before = cutModel(project(walls, [opening('a', 'window', 1, 1)]));
    const { steps } = stepsOf(cutInSteps(project(walls, [opening('a', 'window', 2, 1)]), before));
    expect(steps.map(({ cut }) => before.cuts.get(cut.element) === cut)).toEqual([false, true]);
  });
});
