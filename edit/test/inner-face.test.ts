/** Edits of what is set out on the inner face: everything that is done from within is measured there, and stays where it stands in space. */
import { describe, expect, it } from '@jest/globals';
import { pointAt, resolveOpening, sheetsOf, type Placed } from '@yard-arch/core';
import {
  applyChangeSet,
  emptyDocument,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import {
  alignAll,
  copyBy,
  fillFace,
  join,
  moveAll,
  moveTo,
  placeOpening,
  reverse,
  setOutOn,
  split,
  spreadAll,
  type SpreadWish,
} from '../src/index.ts';

const wall = (over: Partial<Wall> = {}): Wall => ({
  id: 'w',
  kind: 'wall',
  name: 'Malt wall',
  start: { x: 1, y: 2, z: 0 },
  turn: 25,
  length: 9,
  height: 4,
  top: { kind: 'level' },
  layers: [{ thickness: 0.5, material: 'brick' }],
  ...over,
});

const at = (id: string, s: number, over: Partial<Opening> = {}): Opening => ({
  id,
  mark: id.toUpperCase(),
  element: 'w',
  face: 'inner',
  pattern: 'light',
  size: 'a',
  along: { from: 'start', distance: s },
  up: { from: 'base', distance: 1 },
  grip: { across: 'left', level: 'sill' },
  blockedUp: false,
  ...over,
});

const documentOf = (element: Wall, ...openings: Opening[]): ProjectDocument => ({
  ...emptyDocument('Malt house'),
  chord: 1e-5,
  elements: { w: element },
  materials: { brick: { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9 } },
  patterns: {
    light: {
      id: 'light',
      name: 'Light',
      profile: { shape: 'rectangle' },
      sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1 } } },
      reveal: { material: null },
    },
  },
  openings: Object.fromEntries(openings.map((one) => [one.id, one])),
});

const done = (document: ProjectDocument, changeSet: ChangeSet): ProjectDocument =>
  applyChangeSet(document, changeSet).document;

const placed = (document: ProjectDocument, id: string): Placed =>
  resolveOpening(document, document.openings[id]!) as Placed;

/** The middle of an opening's sill on its own face, in space. */
function middleOf(document: ProjectDocument, id: string): number[] {
  const { element, face } = document.openings[id]!;
  const { s, t, profile } = placed(document, id);
  return pointAt(sheetsOf(document).on(element, face)!.chart, s + profile.width / 2, t, 0);
}

const near = (a: readonly number[], b: readonly number[]): void =>
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i]!, 2));

describe.each([
  ['straight', {}],
  ['curved', { sweep: 60 }],
  ['mitred', { ends: { start: 'square', end: 'square' } }],
] as [string, Partial<Wall>][])('on a %s wall', (_, over) => {
  const start = documentOf(wall(over), at('a', 1), at('b', 4, { along: { from: 'end', distance: 3 } }), at('c', 6.5));

  it('split, joined and reversed, everything stays where it stands', () => {
    const parts = split(start, start.elements.w as Wall, 4.2) as { changeSet: ChangeSet; id: string };
    const apart = done(start, parts.changeSet);
    for (const id of ['a', 'b', 'c']) near(middleOf(apart, id), middleOf(start, id));
    expect(new Set(['a', 'b', 'c'].map((id) => apart.openings[id]!.element)).size).toBe(2);
    const again = done(apart, join(apart, apart.elements.w as Wall) as ChangeSet);
    for (const id of ['a', 'b', 'c']) near(middleOf(again, id), middleOf(start, id));
    const over = done(start, reverse(start, start.elements.w as Wall) as ChangeSet);
    const shift = (document: ProjectDocument, id: string): number[] => {
      // On its own face then, which is the other one: a wall's thickness away.
      const { s, t, profile } = placed(document, id);
      return pointAt(sheetsOf(document).on('w', 'inner')!.chart, s + profile.width / 2, t, 0.5);
    };
    for (const id of ['a', 'b', 'c']) near(shift(over, id), middleOf(start, id));
  });

  it('is set out on the other face where it stands, and back again', () => {
    const out = done(start, setOutOn(start, start.openings.a!, 'outer'));
    expect(out.openings.a!.face).toBeUndefined();
    const back = done(out, setOutOn(out, out.openings.a!, 'inner'));
    expect(placed(back, 'a').s).toBeCloseTo(1, 6);
    const { s, t, profile } = placed(out, 'a');
    near(pointAt(sheetsOf(out).of('w')!.chart, s + profile.width / 2, t, 0.5), middleOf(start, 'a'));
  });

  it('is moved, copied and lined up as it is seen from within', () => {
    const a = placed(start, 'a').s;
    expect(placed(done(start, moveAll(start, [start.openings.a!], { ds: 0.3, dt: 0 })), 'a').s).toBeCloseTo(a + 0.3, 9);
    // To the right as seen from outside is to the left from within.
    const seen = placed(
      done(start, moveAll(start, [start.openings.a!], { ds: 0.3, dt: 0, what: 'move', face: 'outer' })),
      'a',
    ).s;
    expect(seen).toBeLessThan(a - 0.2);
    const copies = copyBy(start, [start.openings.a!], { ds: 1, dt: 0 });
    expect(placed(done(start, copies.changeSet), copies.ids[0]!).s).toBeCloseTo(a + 1, 9);
    const lined = done(start, alignAll(start, [start.openings.a!], 'centres', 3));
    expect(placed(lined, 'a').s).toBeCloseTo(2.6, 9);
    const moved = moveTo(start, start.openings.a!, { s: 2, t: 1.5 });
    expect([placed(done(start, moved), 'a').s, placed(done(start, moved), 'a').t]).toEqual([2, 1.5]);
    const fromOutside = moveTo(start, start.openings.a!, {
      s: 2,
      t: 1.5,
      face: 'outer',
      holds: [{ along: { from: 'middle', distance: 0 } }],
    });
    expect(done(start, fromOutside).openings.a!.along.from).toBe('start');
  });

  it('is spread and filled over the length that the face has within', () => {
    const length = sheetsOf(start).on('w', 'inner')!.length;
    const all = ['a', 'b', 'c'].map((id) => start.openings[id]!);
    const wish: SpreadWish = { spacing: { kind: 'equal piers' }, over: 'face', margins: { start: null, end: null } };
    const spread = done(start, spreadAll(start, all, wish) as ChangeSet);
    const lefts = ['c', 'b', 'a'].map((id) => placed(spread, id).s).sort((p, q) => p - q);
    const pier = (length - 2.4) / 4;
    lefts.forEach((s, i) => expect(s).toBeCloseTo(pier + i * (pier + 0.8), 6));
    const put = placeOpening(
      start,
      start.elements.w!,
      { pattern: 'light', size: 'a' },
      { s: 2, t: 0.5, face: 'inner' },
    );
    const one = done(start, put.changeSet);
    expect(one.openings[put.id]!.face).toBe('inner');
    expect(placed(one, put.id).s).toBeCloseTo(2, 9);
    const filled = fillFace(start, start.elements.w!, {
      pattern: 'light',
      size: 'a',
      face: 'inner',
      columns: 2,
      rows: [{ base: 1 }],
      spacing: wish.spacing,
      margins: wish.margins,
    }) as { changeSet: ChangeSet; ids: string[] };
    expect(placed(done(start, filled.changeSet), filled.ids[1]!).face).toBe('inner');
  });
});
