/** Edits of many openings at once, and of what one opening is: places and intents after them, on the granary. */
import { describe, expect, it } from '@jest/globals';
import { resolveOpening, type Placed } from '@yard-arch/core';
import { facade, granary } from '@yard-arch/demo';
import {
  applyChangeSet,
  Refused,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import {
  alignAll,
  changeElement,
  changeOwn,
  changePatternOf,
  changeSizeOf,
  copyBy,
  copyTo,
  dimensionsFor,
  duplicateElement,
  evenOut,
  fillFace,
  keepAsSize,
  makeOneOff,
  mirrorAll,
  moveAll,
  openingsOf,
  pasteSettingOut,
  removeAll,
  sizeAll,
  sizeForRectangle,
  spreadAll,
  unevenSizes,
} from '@yard-arch/edit';

const document = granary();
const after = (changeSet: ChangeSet, before = document): ProjectDocument => applyChangeSet(before, changeSet).document;
const placed = (d: ProjectDocument, id: string): Placed => resolveOpening(d, d.openings[id]!) as Placed;
const firstFloor = ['o8', 'o9', 'o10', 'o11', 'o12', 'o13', 'o14'];
const these = (ids: readonly string[], d = document): Opening[] => openingsOf(d, ids);
const measured = (d: ProjectDocument, id: string, from: string, distance: number): ProjectDocument =>
  after(
    {
      name: 'measure',
      changes: [
        {
          op: 'put',
          table: 'openings',
          value: { ...d.openings[id]!, along: { from: 'neighbour', opening: from, edge: 'right', distance } },
        },
      ],
    },
    d,
  );

describe('neighbours', () => {
  const chained = measured(measured(document, 'o9', 'o8', 2), 'o10', 'o9', 1.5);

  it('are followed, one after the other', () => {
    const moved = after(moveAll(chained, these(['o8'], chained), { ds: 0.4, dt: 0 }), chained);
    for (const id of ['o8', 'o9', 'o10']) expect(placed(moved, id).s).toBeCloseTo(placed(chained, id).s + 0.4, 8);
  });

  it('that are moved together keep their distances', () => {
    const moved = after(moveAll(chained, these(['o10', 'o9', 'o8'], chained), { ds: 1, dt: 0.2 }), chained);
    for (const id of ['o8', 'o9', 'o10']) expect(placed(moved, id).s).toBeCloseTo(placed(chained, id).s + 1, 8);
    expect(moved.openings.o10!.along).toMatchObject({
      from: 'neighbour',
      opening: 'o9',
      distance: expect.closeTo(chained.openings.o10!.along.distance, 8),
    });
  });

  it('that are moved together come to be where they are to be past one between them that is not chosen, and round about by both ways', () => {
    const about = after(
      {
        name: 'measure upwards',
        changes: [
          {
            op: 'put',
            table: 'openings',
            value: { ...chained.openings.o8!, up: { from: 'neighbour', opening: 'o10', edge: 'sill', distance: 0.1 } },
          },
        ],
      },
      chained,
    );
    const moved = after(moveAll(about, these(['o10', 'o8'], about), { ds: 1, dt: 0.2 }), about);
    for (const id of ['o8', 'o10']) {
      expect(placed(moved, id).s).toBeCloseTo(placed(about, id).s + 1, 8);
      expect(placed(moved, id).t).toBeCloseTo(placed(about, id).t + 0.2, 8);
    }
  });

  it('are moved together however many they are, and however long their chain', () => {
    const many = facade(8000);
    const ids = Object.keys(many.openings);
    const openings = { ...many.openings };
    for (const [i, id] of ids.slice(1).entries())
      openings[id] = { ...openings[id]!, along: { from: 'neighbour', opening: ids[i]!, edge: 'left', distance: 1e-3 } };
    const chain = { ...many, openings };
    const moved = after(moveAll(chain, Object.values(openings).reverse(), { ds: 0.5, dt: 0.1 }), chain);
    for (const id of ids) expect(placed(moved, id).s).toBeCloseTo(placed(chain, id).s + 0.5, 5);
  });

  it('can be removed: what was measured from them stays where it is', () => {
    const less = after(removeAll(chained, these(['o9'], chained)), chained);
    expect(placed(less, 'o10').s).toBeCloseTo(placed(chained, 'o10').s, 8);
    expect(less.openings.o10!.along.from).toBe('start');
  });

  it('cannot be measured from themselves, however far round', () => {
    expect(() => measured(chained, 'o8', 'o10', 1)).toThrow(Refused);
    expect(() => measured(chained, 'o8', 'o10', 1)).toThrow(/measured from itself, by way of/);
    expect(() => measured(document, 'o8', 'o8', 1)).toThrow(/its own jamb/);
    expect(() => measured(document, 'o8', 'o30', 1)).toThrow(/another element/);
  });
});

describe('many at once', () => {
  it('are spread with equal piers, and stay so when the wall is lengthened', () => {
    const change = spreadAll(document, these(firstFloor), {
      spacing: { kind: 'equal piers' },
      over: 'face',
      margins: { start: null, end: null },
    }) as ChangeSet;
    expect(change.name).toBe('spread 7 openings');
    let now = after(change);
    for (const length of [19.2, 25, 14]) {
      now = after(changeElement(now.elements.courtyard as Wall, { length }, 'lengthen'), now);
      const lefts = firstFloor.map((id) => placed(now, id).s);
      const pier = (length - 7 * 1.3) / 8;
      lefts.forEach((s, i) => expect(s).toBeCloseTo(pier + i * (1.3 + pier), 7));
    }
  });

  it('are spread between the outermost two, which stay', () => {
    const moved = after(moveAll(document, these(['o10']), { ds: 0.5, dt: 0 }));
    const change = spreadAll(moved, these(firstFloor, moved), {
      spacing: { kind: 'equal piers' },
      over: 'outermost',
      margins: { start: null, end: null },
    }) as ChangeSet;
    const even = after(change, moved);
    firstFloor.forEach((id) => expect(placed(even, id).s).toBeCloseTo(placed(document, id).s, 7));
  });

  it('are lined up and keep what they are held to', () => {
    const lined = after(alignAll(document, these(['o1', 'o2', 'o6']), 'heads', 2.4));
    for (const id of ['o1', 'o2', 'o6']) {
      expect(placed(lined, id).t + placed(lined, id).profile.height).toBeCloseTo(2.4, 8);
      expect(lined.openings[id]!.up).toMatchObject({ from: 'datum', datum: 'ground' });
    }
  });

  it('are evened out in one step that undo takes back', () => {
    let rough = after(moveAll(document, these(['o2']), { ds: 0, dt: 0.004 }));
    rough = after(moveAll(rough, these(['o6'], rough), { ds: 0, dt: -0.003 }), rough);
    const boxes = ['o1', 'o2', 'o6', 'o7'].map((id) => ({ id, mark: id, at: placed(rough, id).t }));
    const { document: even, inverse } = applyChangeSet(
      rough,
      evenOut(rough, [{ by: 'sills', openings: boxes, to: 1.2 }]),
    );
    for (const { id } of boxes) expect(placed(even, id).t).toBeCloseTo(1.2, 8);
    expect(after(inverse, even)).toEqual(rough);
  });

  it('whose sizes almost agree are found, and take the one that most have', () => {
    const odd = after(changeOwn(document, document.openings.o9!, { span: 1.304, height: 1.897 }) as ChangeSet);
    const [group, ...rest] = unevenSizes(odd, these(firstFloor, odd), 0.01);
    expect(rest).toEqual([]);
    expect(group!.openings.map(({ id }) => id)).toEqual(['o9']);
    const even = after(sizeAll(group!.openings, group!.to), odd);
    expect(even.openings.o9).toMatchObject({ size: 'a' });
    expect(even.openings.o9!.own).toBeUndefined();
  });
});

describe('copies', () => {
  it('go on by the same way, with marks and ids of their own', () => {
    const { changeSet, ids } = copyBy(document, these(['o1', 'o2']), { ds: 0.2, dt: 1.3, times: 3 });
    const now = after(changeSet);
    expect(ids).toHaveLength(6);
    ids.forEach((id, i) => {
      expect(placed(now, id).s).toBeCloseTo(placed(document, i % 2 ? 'o2' : 'o1').s + 0.2 * (1 + (i >> 1)), 8);
      expect(now.openings[id]!.pattern).toBe('light');
    });
    expect(new Set(Object.values(now.openings).map(({ mark }) => mark)).size).toBe(Object.keys(now.openings).length);
  });

  it('with a pattern of their own no longer follow the first', () => {
    const { changeSet, ids } = mirrorAll(document, these(['o8', 'o9']), 9.6, 'own patterns');
    const now = after(changeSet);
    const pattern = now.openings[ids[0]!]!.pattern;
    expect(pattern).not.toBe('arch');
    expect(now.patterns[pattern]).toMatchObject({ name: 'Granary arch copy', sizes: document.patterns.arch!.sizes });
    expect(now.openings[ids[1]!]!.pattern).toBe(pattern);
  });

  it('are mirrored about a line, twice to where they were', () => {
    const once = after(mirrorAll(document, these(['o3', 'o6']), 8, null).changeSet);
    expect(placed(once, 'o3').s).toBeCloseTo(16 - placed(document, 'o3').s - 1, 8);
    const twice = after(mirrorAll(once, these(['o3', 'o6'], once), 8, null).changeSet, once);
    for (const id of ['o3', 'o6']) expect(placed(twice, id).s).toBeCloseTo(placed(document, id).s, 8);
  });

  it('to another wall keep their intent: axes by name, datums, and distances from the end', () => {
    const withAxis = after({
      name: 'axis',
      changes: [{ op: 'put', table: 'axes', value: { id: 'quay-c', name: 'C', element: 'quay', along: 3 } }],
    });
    const { changeSet, ids } = copyTo(withAxis, these(['o10', 'o30'], withAxis).concat(withAxis.openings.o9!), {
      elements: ['quay'],
      datums: new Map(),
    });
    const now = after(changeSet, withAxis);
    expect(now.openings[ids[0]!]).toMatchObject({
      element: 'quay',
      along: { from: 'axis', axis: 'quay-c', distance: 0 },
      up: { from: 'datum', datum: 'first' },
    });
    expect(now.openings[ids.at(-1)!]!.along).toEqual({ from: 'start', distance: expect.closeTo(4.4, 8) });
  });

  it('to other floors of the same wall hang on the other datum', () => {
    const { changeSet, ids } = copyTo(document, these(['o1', 'o2']), {
      elements: ['courtyard'],
      datums: new Map([['ground', ['loft']]]),
    });
    const now = after(changeSet);
    expect(ids).toHaveLength(2);
    for (const id of ids) expect(now.openings[id]!.up).toEqual({ from: 'datum', datum: 'loft', distance: 0 });
  });

  it('of a whole setting-out bring its axes along, and a duplicate brings everything', () => {
    const pasted = after(pasteSettingOut(document, document.elements.courtyard!, document.elements.quay!).changeSet);
    const on = (d: ProjectDocument, element: string): Opening[] =>
      Object.values(d.openings).filter((opening) => opening.element === element);
    expect(on(pasted, 'quay')).toHaveLength(6 + 21);
    expect(
      Object.values(pasted.axes)
        .filter(({ element }) => element === 'quay')
        .map(({ name }) => name),
    ).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G']);
    const { changeSet, id } = duplicateElement(document, document.elements.courtyard!);
    const twice = after(changeSet);
    expect(twice.elements[id]).toMatchObject({
      name: 'Courtyard wall copy',
      length: 19.2,
      start: { y: expect.closeTo(-2.45, 6) },
    });
    const places = (element: string): string[] =>
      on(twice, element)
        .map((opening) => `${placed(twice, opening.id).s.toFixed(6)} ${placed(twice, opening.id).t.toFixed(6)}`)
        .sort();
    expect(places(id)).toEqual(places('courtyard'));
  });

  it('fill a face by columns and rows held to datums', () => {
    const made = fillFace(document, document.elements['shed-back']!, {
      pattern: 'light',
      size: 'a',
      columns: 4,
      spacing: { kind: 'equal centres' },
      margins: { start: null, end: null },
      rows: [{ datum: 'ground' }, { base: 2.6 }],
    });
    if ('reason' in made) throw new Error(made.reason);
    const now = after(made.changeSet);
    expect(made.ids.map((id) => Number((placed(now, id).s + 0.55).toFixed(6)))).toEqual([
      1.2, 3.6, 6, 8.4, 1.2, 3.6, 6, 8.4,
    ]);
    expect(now.openings[made.ids[0]!]!.up).toEqual({ from: 'datum', datum: 'ground', distance: 0 });
    expect(
      fillFace(document, document.elements['shed-back']!, {
        pattern: 'light',
        size: 'a',
        columns: 40,
        spacing: { kind: 'equal piers' },
        margins: { start: null, end: null },
        rows: [],
      }),
    ).toMatchObject({ mend: expect.stringContaining('8 would fit') });
  });
});

describe('what an opening is', () => {
  it('a window made a door drops to the floor and says so', () => {
    const { changeSet, told } = changePatternOf(document, document.openings.o2!, 'door');
    const now = after(changeSet);
    expect(placed(now, 'o2').t).toBeCloseTo(0, 9);
    expect(now.openings.o2).toMatchObject({ up: { from: 'datum', datum: 'yard', distance: 0 }, size: 'a' });
    expect(told).toBe('B-02 is a Yard door now, and stands on Yard');
    const back = changePatternOf(now, now.openings.o2!, 'light');
    expect(back.told).toBeNull();
  });

  it('becomes a one-off with its size’s dimensions, is changed alone, and is brought back or kept as a size', () => {
    const pattern = document.patterns.arch!;
    const own = after(makeOneOff(document.openings.o9!, pattern));
    expect(own.openings.o9!.own).toEqual({ span: 1.3, height: 1.9 });
    const wider = after(changeOwn(own, own.openings.o9!, { span: 1.6, height: 1.9 }) as ChangeSet, own);
    expect(placed(wider, 'o9').profile.width).toBeCloseTo(1.6, 9);
    expect(placed(wider, 'o8').profile.width).toBeCloseTo(1.3, 9);
    expect(changeOwn(own, own.openings.o9!, { span: 9, height: 1.9 })).toMatchObject({
      mend: expect.stringMatching(/span at most/),
    });
    expect(after(changeSizeOf(wider.openings.o9!, pattern, 'b', wider), wider).openings.o9).toMatchObject({
      size: 'b',
    });
    const kept = after(keepAsSize(wider, wider.openings.o9!), wider);
    expect(kept.patterns.arch!.sizes[kept.openings.o9!.size]!.dimensions).toEqual({ span: 1.6, height: 1.9 });
  });

  it('with own dimensions of another shape is not cut and says so', () => {
    const own = after(makeOneOff(document.openings.o9!, document.patterns.arch!));
    const odd = { ...own, openings: { ...own.openings, o9: { ...own.openings.o9!, pattern: 'oculus' } } };
    expect(resolveOpening(odd, odd.openings.o9)).toMatchObject({
      reason: expect.stringContaining('another shape'),
      mend: expect.stringContaining('back to its size'),
    });
  });

  it('drawn out as a rectangle takes the nearest size, or makes one', () => {
    const pattern = document.patterns.light!;
    expect(sizeForRectangle(document, pattern, 'a', { width: 1.38, height: 1.02, reach: 0.05 })).toEqual({
      size: 'b',
      made: null,
    });
    const made = sizeForRectangle(document, pattern, 'a', { width: 1.847, height: 0.624, reach: 0.05 });
    expect(made).toMatchObject({ made: { dimensions: { width: 1.85, height: 0.62 } } });
    expect(dimensionsFor('segmental-arch', { span: 1, height: 2, rise: 0.2 }, 2, 1.5)).toEqual({
      span: 2,
      height: 1.5,
      rise: 0.4,
    });
    expect(dimensionsFor('circle', { diameter: 1 }, 2, 1.5)).toEqual({ diameter: 1.5 });
  });
});
