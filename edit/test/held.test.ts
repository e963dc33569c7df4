/** What a placement came into line with it is held to from then on, whatever becomes of the wall and of what stands beside it. */
import { describe, expect, it } from '@jest/globals';
import { boxOf, heldWords, resolveOpening, snap, type Box, type Lines } from '@yard-arch/core';
import {
  applyChangeSet,
  checkDocument,
  emptyDocument,
  kinds,
  Refused,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import fc from 'fast-check';
import {
  changeElement,
  copyBy,
  letGoOf,
  mirrorAll,
  moveAll,
  moveTo,
  placeOpening,
  putAt,
  removeAll,
  reverse,
  split,
} from '../src/index.ts';

const wall: Wall = {
  id: 'w',
  kind: 'wall',
  name: 'Quay wall',
  start: { x: 0, y: 0, z: 0 },
  turn: 0,
  length: 12,
  height: 5,
  top: { kind: 'level' },
  layers: [{ thickness: 0.4, material: 'brick' }],
};
const opening = (id: string, s: number, t: number): Opening => ({
  id,
  mark: id.toUpperCase(),
  element: 'w',
  pattern: 'p',
  size: 'a',
  along: { from: 'start', distance: s },
  up: { from: 'base', distance: t },
  grip: { across: 'left', level: 'sill' },
  blockedUp: false,
});
const empty: ProjectDocument = {
  ...emptyDocument('Granary'),
  materials: {
    brick: { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9, texture: 'stretcher bond' },
    ashlar: { id: 'ashlar', name: 'Ashlar', colour: '#d8d2c4', roughness: 0.9, texture: 'ashlar' },
  },
  patterns: {
    p: {
      id: 'p',
      name: 'Arch',
      profile: { shape: 'semicircular-arch' },
      sizes: { a: { id: 'a', name: '', dimensions: { span: 1, height: 1.5 } } },
      reveal: { material: null },
    },
  },
  elements: { w: wall },
  datums: { d: { id: 'd', name: 'First sill', level: 1.3, element: null } },
  axes: { x: { id: 'x', name: 'B', element: 'w', along: 7.1 } },
};
const lines: Lines = {
  length: 12,
  height: 5,
  datums: [{ id: 'd', name: 'First sill', t: 1.3 }],
  axes: [{ id: 'x', name: 'B', s: 7.1 }],
  course: 0.075,
};
const holding = (document: ProjectDocument, ...openings: Opening[]): ProjectDocument => ({
  ...document,
  openings: Object.fromEntries(openings.map((one) => [one.id, one])),
});
const boxAt = (document: ProjectDocument, id: string): Box => {
  const placed = resolveOpening(document, document.openings[id]!);
  if (!('outline' in placed)) throw new Error(placed.reason);
  return boxOf(placed, document.openings[id]!.mark);
};
const after = (document: ProjectDocument, changeSet: ChangeSet | { reason: string }): ProjectDocument => {
  if ('reason' in changeSet) throw new Error(changeSet.reason);
  return checkDocument(applyChangeSet(document, changeSet).document);
};
const longer = (document: ProjectDocument, length: number): ProjectDocument =>
  after(document, changeElement(document.elements.w as Wall, { length }, 'lengthen'));

/** An opening dragged to a spot, with whatever pulls it there. */
function dragged(document: ProjectDocument, id: string, s: number, t: number, reach = 0.08): ProjectDocument {
  const boxes = Object.keys(document.openings).map((other) => boxAt(document, other));
  const spot = snap({ ...boxAt(document, id), s, t }, boxes, lines, reach);
  return after(
    document,
    moveTo(document, document.openings[id]!, {
      ...spot,
      holds: [spot.along?.hold, spot.up?.hold].filter((hold) => hold !== undefined),
    }),
  );
}

describe('an opening that is put down', () => {
  it('stands where it was snapped to, and is held to nothing that is measured from it', () => {
    const place = fc.integer({ min: 0, max: 110 }).map((n) => n / 10);
    const level = fc.integer({ min: 0, max: 34 }).map((n) => n / 10);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, level), { minLength: 2, maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(5), place, level), { minLength: 1, maxLength: 8 }),
        (at, drags) => {
          let document = holding(empty, ...at.map(([s, t], i) => opening(`o${i}`, s, t)));
          for (const [n, s, t] of drags) {
            const id = `o${n % at.length}`;
            const others = Object.keys(document.openings).filter((other) => other !== id);
            const boxes = Object.keys(document.openings).map((other) => boxAt(document, other));
            const spot = snap({ ...boxAt(document, id), s, t }, boxes, lines, 0.3);
            const next = after(
              document,
              moveTo(document, document.openings[id]!, {
                ...spot,
                holds: [spot.along?.hold, spot.up?.hold].filter((hold) => hold !== undefined),
              }),
            );
            const box = boxAt(next, id);
            expect([box.s, box.t]).toEqual([expect.closeTo(spot.s, 9), expect.closeTo(spot.t, 9)]);
            for (const other of others) expect(boxAt(next, other)).toBeTruthy();
            document = next;
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('in the middle of the wall is in the middle when the wall grows', () => {
    const document = dragged(holding(empty, opening('a', 1, 1)), 'a', 5.46, 2);
    expect(heldWords(document, document.openings.a!).along).toBe('in the middle of the wall');
    expect(boxAt(longer(document, 15), 'a').s).toBeCloseTo(7, 9);
    // Words name what it is on.
    const slab = kinds.slab.fresh({ id: 'w', name: 'Floor', start: wall.start, turn: 0 }, 'brick');
    const onSlab = { ...document, elements: { w: slab } };
    expect(heldWords(onSlab, document.openings.a!).along).toBe('in the middle of the slab');
  });

  it('is held to the end, an axis, a datum, the top, a neighbour and a course', () => {
    const moved = (s: number, t: number, ...others: Opening[]) =>
      dragged(holding(empty, opening('a', 1, 1), ...others), 'a', s, t);
    expect(boxAt(longer(moved(10.97, 2), 14), 'a').s).toBeCloseTo(13, 9);
    const onAxis = moved(6.57, 1.33);
    expect(heldWords(onAxis, onAxis.openings.a!)).toEqual({ along: 'centred on axis B', up: 'sill on First sill' });
    const level = after(onAxis, {
      name: 'raise',
      changes: [
        { op: 'put', table: 'datums', value: { ...empty.datums.d!, level: 1.5 } },
        { op: 'put', table: 'axes', value: { ...empty.axes.x!, along: 8 } },
      ],
    });
    expect(boxAt(level, 'a')).toMatchObject({ s: 7.5, t: 1.5 });
    const top = moved(3, 3.47);
    expect(boxAt(after(top, changeElement(top.elements.w as Wall, { height: 6 }, 'heighten')), 'a').t).toBeCloseTo(
      4.5,
      9,
    );
    const beside = moved(4.04, 2.2, opening('b', 4, 0.4));
    expect(heldWords(beside, beside.openings.a!).along).toBe('centred over B');
    expect(boxAt(after(beside, moveAll(beside, [beside.openings.b!], { ds: 0.7, dt: 0 })), 'a').s).toBeCloseTo(4.7, 9);
    const course = moved(2.4, 1.97);
    expect(heldWords(course, course.openings.a!).up).toMatch(/^sill on the course nearest to 1.950$/);
    expect(boxAt(course, 'a').t).toBeCloseTo(1.95, 9);
    const stone = after(
      course,
      changeElement(course.elements.w as Wall, { layers: [{ thickness: 0.4, material: 'ashlar' }] }, 'face'),
    );
    expect(boxAt(stone, 'a').t).toBeCloseTo(2.1, 9);
  });

  it('with equal piers on both sides keeps them, whatever moves', () => {
    const document = dragged(
      holding(empty, opening('a', 1, 1), opening('b', 5, 1), opening('c', 9.3, 1)),
      'b',
      5.2,
      1,
      0.1,
    );
    expect(document.openings.b!.along).toEqual({ from: 'between', left: 'a', right: 'c', distance: 0 });
    const wider = after(document, moveAll(document, [document.openings.c!], { ds: 1, dt: 0 }));
    const [a, b, c] = ['a', 'b', 'c'].map((id) => boxAt(wider, id)) as [Box, Box, Box];
    expect(b.s - a.s - a.width).toBeCloseTo(c.s - b.s - b.width, 9);
    expect(heldWords(wider, wider.openings.b!).along).toBe('equal piers between A and C');
  });

  it('is placed held, and let go of where it stands', () => {
    const made = placeOpening(
      empty,
      wall,
      { pattern: 'p', size: 'a' },
      { s: 5.5, t: 1, holds: [{ along: { from: 'middle', distance: 0 }, across: 'centre' }] },
    );
    const document = after(empty, made.changeSet);
    const loose = after(longer(document, 14), letGoOf(longer(document, 14), document.openings[made.id]!, 'along'));
    expect(loose.openings[made.id]!.along).toEqual({ from: 'start', distance: 7 });
    expect(boxAt(longer(loose, 20), made.id).s).toBeCloseTo(6.5, 9);
  });
});

describe('openings held to one another', () => {
  const held = holding(empty, opening('a', 1, 1), opening('c', 9.3, 1.2), {
    ...opening('b', 0, 0),
    along: { from: 'between', left: 'a', right: 'c', distance: 0 },
    up: { from: 'neighbour', opening: 'c', edge: 'head', distance: 0 },
    grip: { across: 'centre', level: 'head' },
  });
  const spots = (document: ProjectDocument, ids: readonly string[]): number[][] =>
    ids.map((id) => [boxAt(document, id).s, boxAt(document, id).t]);
  const near = (places: number[][]): unknown => places.map((place) => place.map((value) => expect.closeTo(value, 9)));

  it('are copied, each copy held to the copies', () => {
    const { changeSet, ids } = copyBy(held, Object.values(held.openings), { ds: 0, dt: 1.8 });
    const document = after(held, changeSet);
    expect(spots(document, ids).map(([s]) => s)).toEqual(
      spots(held, ['a', 'c', 'b']).map(([s]) => expect.closeTo(s!, 9)),
    );
    const copyOfC = document.openings[ids[1]!]!;
    const moved = after(document, moveAll(document, [copyOfC], { ds: 1, dt: 0.1 }));
    expect(boxAt(moved, ids[2]!).s - boxAt(document, ids[2]!).s).toBeCloseTo(0.5, 9);
    expect(boxAt(moved, 'b')).toEqual(boxAt(document, 'b'));
  });

  it('stay where they stand when what they are held to goes', () => {
    const document = after(held, removeAll(held, [held.openings.c!]));
    expect(spots(document, ['b'])).toEqual(near(spots(held, ['b'])));
    expect(document.openings.b).toMatchObject({ along: { from: 'start' }, up: { from: 'base' } });
  });

  it('stay where they stand when their wall is split or mirrored, and stand mirrored when it is reversed', () => {
    const parts = split(held, wall, 7);
    if ('reason' in parts) throw new Error(parts.reason);
    const document = after(held, parts.changeSet);
    expect(spots(document, ['a', 'b', 'c'])).toEqual(near([[1, 1], spots(held, ['b'])[0]!, [2.3, 1.2]]));
    const back = after(held, reverse(held, wall));
    expect(spots(back, ['a', 'b', 'c'])).toEqual(near(spots(held, ['a', 'b', 'c']).map(([s, t]) => [12 - s! - 1, t!])));
    const mirrored = after(held, mirrorAll(held, Object.values(held.openings), 6, null).changeSet);
    expect(spots(mirrored, ['a', 'b', 'c'])).toEqual(
      near(spots(held, ['a', 'b', 'c']).map(([s, t]) => [12 - s! - 1, t!])),
    );
  });

  it('are never held in a ring, along or up', () => {
    const ring = {
      ...held.openings.a!,
      along: { from: 'neighbour', opening: 'b', edge: 'left', distance: 0 },
    } as Opening;
    expect(putAt(held, wall, held.openings.a!, { s: 1, t: 1, holds: [{ along: ring.along }] }).along).toEqual({
      from: 'start',
      distance: 1,
    });
    for (const bad of [
      ring,
      { ...held.openings.c!, up: { from: 'neighbour', opening: 'b', edge: 'sill', distance: 0 } } as Opening,
    ])
      expect(() =>
        applyChangeSet(held, { name: 'hold', changes: [{ op: 'put', table: 'openings', value: bad }] }),
      ).toThrow(Refused);
    // Along and up are measured each by itself.
    const crossed = {
      ...held.openings.c!,
      up: { from: 'base', distance: 1 },
      along: { from: 'neighbour', opening: 'a', edge: 'right', distance: 2 },
    } as Opening;
    expect(() =>
      applyChangeSet(held, { name: 'hold', changes: [{ op: 'put', table: 'openings', value: crossed }] }),
    ).not.toThrow();
  });
});
