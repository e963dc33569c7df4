/** Figures of the dimension strings, typed anew: whatever is chosen to give way, what was measured becomes what was typed, and nothing else moves. */
import { describe, expect, it } from '@jest/globals';
import { alongCourse, boxOf, resolveOpening, rowOf, stringAlong, type Box, type Placed } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import {
  applyChangeSet,
  extentOf,
  isManyFaced,
  putting,
  type ChangeSet,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import {
  axisChoices,
  edit,
  type FigureChoice,
  heightChoices,
  lengthChoices,
  levelChoices,
  pierChoices,
  refitted,
  sizeChoices,
} from '@yard-arch/edit';
import fc from 'fast-check';

const document = granary();
// Of many faces each has rows of its own.
const walls = Object.values(document.elements)
  .filter((element) => !isManyFaced(element))
  .map(({ id }) => id);

function boxesOn(d: ProjectDocument, element: string): Box[] {
  return Object.values(d.openings)
    .filter((opening) => opening.element === element)
    .map((opening) => ({ opening, placed: resolveOpening(d, opening) }))
    .filter((found): found is typeof found & { placed: Placed } => 'outline' in found.placed)
    .map(({ opening, placed }) => boxOf(placed, opening.mark));
}
const boxIn = (d: ProjectDocument, id: string): Box =>
  boxesOn(d, d.openings[id]!.element).find((box) => box.id === id)!;
const after = (choice: FigureChoice, value: number, d = document): ProjectDocument => {
  const made = choice.apply(value);
  if ('reason' in made) throw new Error(made.reason);
  return applyChangeSet(d, made).document;
};
/** What of the openings stands elsewhere than it did. */
const movedIn = (d: ProjectDocument): string[] =>
  Object.keys(document.openings).filter(
    (id) => Math.abs(boxIn(d, id).s - boxIn(document, id).s) + Math.abs(boxIn(d, id).t - boxIn(document, id).t) > 1e-7,
  );
/** The openings that follow one that is moved, because they are measured from it. */
const followers = (ids: readonly string[]): string[] => {
  const more = Object.values(document.openings)
    .filter(({ id, along }) => along.from === 'neighbour' && ids.includes(along.opening) && !ids.includes(id))
    .map(({ id }) => id);
  return more.length === 0 ? [...ids] : followers([...ids, ...more]);
};

const row = fc.constantFrom(...walls).chain((element) => {
  const boxes = boxesOn(document, element);
  return boxes.length === 0
    ? fc.constant({ element, row: [] as Box[], chosen: null })
    : fc
        .constantFrom(null, ...boxes)
        .map((chosen) => ({ element, row: rowOf(boxes, chosen), chosen: chosen?.id ?? null }));
});

describe('a pier', () => {
  it('becomes as wide as was typed, whatever gives way', () => {
    let tried = 0;
    fc.assert(
      fc.property(row, fc.nat(), fc.integer({ min: 5, max: 300 }), ({ element, row, chosen }, pick, centimetres) => {
        const { length } = extentOf(document.elements[element]!);
        const piers = stringAlong(row, length).filter(({ kind }) => kind === 'pier');
        fc.pre(piers.length > 0);
        const { before, after: next, from, to } = piers[pick % piers.length]!;
        const wanted = centimetres / 100;
        const choices = pierChoices(document, { row, before, after: next, value: to - from, length, chosen });
        if (chosen && (before === chosen || next === chosen))
          expect(choices[0]!.label).toBe(`${document.openings[chosen]!.mark} moves`);
        for (const choice of choices) {
          const made = choice.apply(wanted);
          // Only piers that leave the row no room are refused.
          if ('reason' in made) {
            expect(choice.label).toBe('every pier of the row');
            continue;
          }
          tried += 1;
          const now = applyChangeSet(document, made).document;
          const left = before === null ? 0 : boxIn(now, before).s + boxIn(now, before).width;
          const right = next === null ? length : boxIn(now, next).s;
          expect(right - left).toBeCloseTo(wanted, 7);
          const moved = movedIn(now);
          if (/^\S+ moves$/.test(choice.label)) {
            const [one] = Object.values(document.openings).filter(
              ({ mark, element: on }) => on === element && choice.label === `${mark} moves`,
            );
            for (const id of moved) expect(followers([one!.id])).toContain(id);
          }
          // No opening of another wall moves, and none up or down.
          for (const id of moved) {
            expect(document.openings[id]!.element).toBe(element);
            expect(boxIn(now, id).t).toBeCloseTo(boxIn(document, id).t, 9);
          }
        }
      }),
      { numRuns: 200 },
    );
    expect(tried).toBeGreaterThan(100);
  });

  it('between the first two makes all of the row as wide', () => {
    const boxes = rowOf(boxesOn(document, 'courtyard'), boxIn(document, 'o9'));
    const every = pierChoices(document, {
      row: boxes,
      before: 'o8',
      after: 'o9',
      value: 1.3,
      length: 19.2,
      chosen: null,
    }).find(({ label }) => label === 'every pier of the row')!;
    const now = after(every, 1);
    const made = stringAlong(rowOf(boxesOn(now, 'courtyard'), boxIn(now, 'o9')), 19.2).filter(
      ({ kind, before, after: next }) => kind === 'pier' && before && next,
    );
    expect(made).toHaveLength(6);
    for (const { from, to } of made) expect(to - from).toBeCloseTo(1, 9);
    expect(every.apply(4)).toMatchObject({ reason: expect.any(String), mend: expect.any(String) });
  });
});

describe('levels and sizes', () => {
  const any = fc.constantFrom(...Object.keys(document.openings));

  it('of sill and head become what was typed', () => {
    fc.assert(
      fc.property(
        any,
        fc.constantFrom('sill' as const, 'head' as const),
        fc.integer({ min: 0, max: 300 }),
        (id, what, centimetres) => {
          const box = boxIn(document, id);
          const { height } = extentOf(document.elements[document.openings[id]!.element]!);
          const measure = (one: Box): number => (what === 'sill' ? one.t : height - one.t - one.height);
          const now = after(levelChoices(document, box, what, measure(box))[0]!, centimetres / 100);
          expect(measure(boxIn(now, id))).toBeCloseTo(centimetres / 100, 7);
          expect(boxIn(now, id).s).toBeCloseTo(box.s, 9);
        },
      ),
    );
  });

  it('of one change that one alone, of all change all of its size', () => {
    const size = document.openings.o8!;
    const same = Object.values(document.openings)
      .filter((other) => other.pattern === size.pattern && other.size === size.size && !other.own)
      .map(({ id }) => id);
    const [all, alone] = sizeChoices(document, boxIn(document, 'o8'), 'width');
    expect(all!.label).toBe(`all ${same.length} of its size`);
    const together = after(all!, 1.1);
    for (const id of Object.keys(document.openings))
      expect(boxIn(together, id).width).toBeCloseTo(same.includes(id) ? 1.1 : boxIn(document, id).width, 9);
    const by = after(alone!, 1.1);
    for (const id of Object.keys(document.openings))
      expect(boxIn(by, id).width).toBeCloseTo(id === 'o8' ? 1.1 : boxIn(document, id).width, 9);
    expect(by.openings.o8!.own).toBeDefined();
    // Then there is only itself to be changed.
    expect(sizeChoices(by, boxIn(by, 'o8'), 'height').map(({ label }) => label)).toEqual([`${size.mark} alone`]);
  });

  it('that make no opening are refused', () => {
    // An arch that is less high than half its span.
    const [all] = sizeChoices(document, boxIn(document, 'o8'), 'height');
    expect(() => after(all!, 0.2)).toThrow();
  });
});

describe('bays and walls', () => {
  const axes = Object.values(document.axes)
    .filter(({ element }) => element === 'courtyard')
    .map(({ id, name, along }) => ({ id, name, s: along }))
    .sort((a, b) => a.s - b.s);
  const along = (d: ProjectDocument): number[] => axes.map(({ id }) => d.axes[id]!.along);

  it('of axes become what was typed, and what is held to them goes with them', () => {
    const [, b, c] = axes;
    const choices = axisChoices(document, {
      element: document.elements.courtyard!,
      face: 'outer',
      axes,
      from: b!.s,
      to: c!.s,
    });
    expect(choices.map(({ label }) => label)).toEqual([
      `axis ${c!.name} moves`,
      `axis ${b!.name} moves`,
      `axis ${c!.name} and all after it move`,
      'every bay, from the first axis on',
    ]);
    for (const choice of choices) {
      const now = along(after(choice, 2.2));
      expect(now[2]! - now[1]!).toBeCloseTo(2.2, 9);
    }
    expect(
      along(after(choices[2]!, 2.2))
        .map((s, i) => s - axes[i]!.s)
        .map((by) => Number(by.toFixed(6))),
    ).toEqual([0, 0, ...axes.slice(2).map(() => Number((2.2 - (c!.s - b!.s)).toFixed(6)))]);
    const every = along(after(choices[3]!, 2.5));
    every.forEach((s, i) => expect(s).toBeCloseTo(axes[0]!.s + 2.5 * i, 9));
    const held = Object.values(document.openings).find(
      ({ along: from }) => from.from === 'axis' && from.axis === c!.id,
    )!;
    expect(boxIn(after(choices[0]!, 2.2), held.id).s - boxIn(document, held.id).s).toBeCloseTo(2.2 - (c!.s - b!.s), 7);
  });

  it('of a wall move the end that was chosen, and leave the other', () => {
    for (const wall of Object.values(document.elements).filter((element): element is Wall => element.kind === 'wall')) {
      const choices = lengthChoices(wall);
      expect(choices).toHaveLength(wall.sweep ? 1 : 2);
      const ends = (d: ProjectDocument) =>
        [
          alongCourse(d.elements[wall.id] as Wall, 0).at,
          alongCourse(d.elements[wall.id] as Wall, extentOf(d.elements[wall.id]!).length).at,
        ] as const;
      choices.forEach((choice, i) => {
        const now = after(choice, wall.length + 1.25);
        expect(extentOf(now.elements[wall.id]!).length).toBeCloseTo(wall.length + 1.25, 9);
        const [kept, was] = [ends(now)[i]!, ends(document)[i]!];
        expect(Math.hypot(kept[0] - was[0], kept[1] - was[1])).toBeLessThan(1e-6);
      });
      if (wall.top.kind === 'level')
        expect(extentOf(after(heightChoices(wall)[0]!, 5).elements[wall.id]!).height).toBe(5);
      else expect(heightChoices(wall)).toEqual([]);
    }
  });

  it('are named as edits that can be undone', () => {
    const made = lengthChoices(document.elements.courtyard!)[0]!.apply(20) as ChangeSet;
    expect(made.name).toBe('lengthen Courtyard wall');
    const { document: now, inverse } = applyChangeSet(document, made);
    expect(applyChangeSet(now, inverse).document).toEqual(document);
  });
});

describe('an edit that was made up before others changed the project', () => {
  it('changes only what it is about', () => {
    const document = granary();
    const o9 = document.openings.o9!;
    const mine = edit('move', putting('openings', { ...o9, along: { from: 'start', distance: 3 } }));
    const theirs = applyChangeSet(document, edit('block up', putting('openings', { ...o9, blockedUp: true }))).document;
    expect(applyChangeSet(theirs, refitted(mine, document, theirs)).document.openings.o9).toEqual({
      ...o9,
      along: { from: 'start', distance: 3 },
      blockedUp: true,
    });
    expect(refitted(mine, document, document)).toBe(mine);
  });
});
