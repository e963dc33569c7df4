/** Edits as the pages make them: each keeps the place that it should, says what it did, and can be undone. */
import { describe, expect, it } from '@jest/globals';
import { resolveOpening, type Placed } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import {
  applyChangeSet,
  profileShapes,
  type Along,
  type ChangeSet,
  type Grip,
  type ProfileShape,
  type ProjectDocument,
  type Up,
} from '@yard-arch/document';
import {
  addElement,
  addMaterial,
  addPattern,
  addSize,
  blockAll,
  changeOpening,
  moveAll,
  placeOpening,
  removeAll,
  removeElement,
  removeSize,
  replaceIntent,
  resize,
  setChord,
  setUnits,
  uses,
} from '@yard-arch/edit';
import fc from 'fast-check';

const document = granary();
const at = (d: ProjectDocument, id: string): [number, number] => {
  const { s, t } = resolveOpening(d, d.openings[id]!) as Placed;
  return [s, t];
};
const after = (changeSet: ChangeSet, before = document): ProjectDocument => applyChangeSet(before, changeSet).document;

describe('placing', () => {
  it('puts an opening where it was asked to be, with a mark of its own', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5000, max: 25_000 }),
        fc.integer({ min: -2000, max: 9000 }),
        fc.constantFrom(...Object.keys(document.patterns)),
        (s, t, pattern) => {
          const size = Object.keys(document.patterns[pattern]!.sizes)[0]!;
          const { changeSet, id } = placeOpening(
            document,
            document.elements.courtyard!,
            { pattern, size },
            { s: s / 1000, t: t / 1000 },
          );
          const next = after(changeSet);
          const [x, y] = at(next, id);
          expect(x).toBeCloseTo(s / 1000, 8);
          expect(y).toBeCloseTo(t / 1000, 8);
          expect(Object.values(document.openings).map((o) => o.mark)).not.toContain(next.openings[id]!.mark);
        },
      ),
    );
  });

  it('on an axis and a datum holds the opening to them', () => {
    const { changeSet, id } = placeOpening(
      document,
      document.elements.courtyard!,
      { pattern: 'door', size: 'a' },
      { s: 4.4 - 0.5, t: 3.75 },
    );
    expect(after(changeSet).openings[id]).toMatchObject({
      along: { from: 'axis', axis: 'courtyard-b', distance: 0 },
      up: { from: 'datum', datum: 'first', distance: 0 },
    });
  });
});

describe('moving', () => {
  it('moves to the place and keeps what the opening is measured from', () => {
    const moved = after(
      moveAll(document, [document.openings.o10!], { ds: 5 - at(document, 'o10')[0], dt: 4 - at(document, 'o10')[1] }),
    );
    expect(at(moved, 'o10')).toEqual([expect.closeTo(5, 9), expect.closeTo(4, 9)]);
    expect(moved.openings.o10).toMatchObject({
      along: { from: 'axis', axis: 'courtyard-c' },
      up: { from: 'datum', datum: 'first' },
    });
  });

  it('measures from elsewhere, or holds by another grip, without moving', () => {
    const alongs: Along[] = [
      { from: 'start', distance: 0 },
      { from: 'end', distance: 0 },
      { from: 'middle', distance: 0 },
      { from: 'axis', axis: 'courtyard-f', distance: 0 },
    ];
    const ups: Up[] = [
      { from: 'base', distance: 0 },
      { from: 'top', distance: 0 },
      { from: 'datum', datum: 'loft', distance: 0 },
    ];
    const grips: Grip[] = [
      { across: 'left', level: 'head' },
      { across: 'right', level: 'springing' },
      { across: 'centre', level: 'middle' },
    ];
    const [s, t] = at(document, 'o10');
    for (const over of [
      ...alongs.map((along) => ({ along })),
      ...ups.map((up) => ({ up })),
      ...grips.map((grip) => ({ grip })),
    ]) {
      const [x, y] = at(after(replaceIntent(document, document.openings.o10!, over, { s, t })), 'o10');
      expect(x).toBeCloseTo(s, 8);
      expect(y).toBeCloseTo(t, 8);
    }
  });
});

describe('patterns', () => {
  it.each(Object.keys(profileShapes) as ProfileShape[])('a new %s can be placed as it is', (shape) => {
    const { changeSet, id } = addPattern(document, shape);
    const next = after(changeSet);
    const placed = placeOpening(next, next.elements.quay!, { pattern: id, size: 'a' }, { s: 2, t: 1 });
    const resolved = resolveOpening(after(placed.changeSet, next), after(placed.changeSet, next).openings[placed.id]!);
    expect(resolved).toHaveProperty('outline');
  });

  it('resizing says how many follow, and refuses what makes no profile', () => {
    const { arch } = document.patterns;
    const wider = resize(document, arch!, arch!.sizes.a!, { span: 1.5, height: 1.9 });
    expect(wider).toMatchObject({ name: 'resize Granary arch to 1\u00a0500 × 1\u00a0900 (12 openings)' });
    expect(resize(document, arch!, arch!.sizes.a!, { span: 9, height: 1.9 })).toMatchObject({
      mend: expect.stringMatching(/span at most/),
    });
  });

  it('gain and lose sizes', () => {
    const { arch } = document.patterns;
    const { changeSet, id } = addSize(arch!, arch!.sizes.a!);
    const next = after(changeSet);
    expect(Object.keys(next.patterns.arch!.sizes)).toContain(id);
    expect(uses(next, 'arch', id)).toBe(0);
    expect(after(removeSize(next.patterns.arch!, next.patterns.arch!.sizes[id]!), next).patterns.arch).toEqual(arch);
    expect(() => after(removeSize(arch!, arch!.sizes.a!))).toThrow(/size/);
  });
});

describe('every edit', () => {
  const o = document.openings.o10!;
  it.each<[string, ChangeSet]>([
    ['block up', blockAll([o])],
    ['remove an opening', removeAll(document, [o])],
    ['remove a wall', removeElement(document, document.elements.courtyard!)],
    ['add a wall', addElement(document, 'wall').changeSet],
    ['add a panel', addElement(document, 'panel').changeSet],
    ['add a slab', addElement(document, 'slab').changeSet],
    ['add a material', addMaterial(document)],
    ['draw arcs finer', setChord(0.0005, '0.5 mm')],
    ['change a size', changeOpening(o, { size: 'b' }, 'change the size of')],
    ['change units', setUnits('ft-in')],
    ['move', moveAll(document, [o], { ds: 1, dt: 1 })],
  ])('can be undone to the letter: %s', (_, changeSet) => {
    const { document: next, inverse } = applyChangeSet(document, changeSet);
    expect(next).not.toEqual(document);
    expect(applyChangeSet(next, inverse).document).toEqual(document);
    expect(changeSet.name.length).toBeGreaterThan(3);
  });

  it('on a wall removes with it all that hangs on it, and nothing else', () => {
    const next = after(removeElement(document, document.elements.courtyard!));
    expect(Object.keys(next.openings)).toHaveLength(32);
    expect(Object.values(next.axes)).toEqual(
      Object.values(document.axes).filter(({ element }) => element !== 'courtyard'),
    );
    expect(Object.keys(next.datums)).toHaveLength(Object.keys(document.datums).length);
  });
});
