/** Edit scripts: what a pipeline can do to a document, as one edit, all of it or nothing. */
import { describe, expect, it } from '@jest/globals';
import { cutModel } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, emptyDocument, Refused, type ProjectDocument } from '@yard-arch/document';
import { doScript, scriptHelp, steps } from '../src/index.ts';

const brick = { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9 };
const light = {
  id: 'p',
  name: 'Loft light',
  profile: { shape: 'rectangle' as const },
  sizes: { a: { id: 'a', name: 'small', dimensions: { width: 1, height: 1.2 } } },
  reveal: { material: null },
};
const empty: ProjectDocument = { ...emptyDocument('Granary'), materials: { brick }, patterns: { p: light } };

/** A wall of 12 m with three windows. */
const walled = doScript(empty, {
  do: [
    { do: 'draw wall', from: [0, 0], to: [12, 0] },
    { do: 'place', element: 'Wall 1', pattern: 'Loft light', along: 2, up: 0.9, mark: 'A', id: 'a' },
    { do: 'place', element: 'Wall 1', pattern: 'Loft light', size: 'small', along: 5, up: 0.9, mark: 'B', id: 'b' },
    {
      do: 'place',
      element: 'Wall 1',
      pattern: 'Loft light',
      along: { from: 'end', distance: 2 },
      up: { from: 'top', distance: 2 },
      mark: 'C',
      id: 'c',
    },
  ],
});

const refusal = (document: ProjectDocument, script: unknown): string[] => {
  try {
    doScript(document, script);
  } catch (error) {
    if (error instanceof Refused) return error.faults.map(({ path, reason }) => `${path} ${reason}`);
    throw error;
  }
  return [];
};
const along = (document: ProjectDocument, id: string): number =>
  cutModel(document)
    .cuts.get(document.openings[id]!.element)!
    .placed.find((placed) => placed.id === id)!.s + 0.5;

describe('very many placements', () => {
  const placing = (i: number) => ({
    do: 'place',
    element: 'Wall 1',
    pattern: 'Loft light',
    along:
      i < 2 ? 1.5 * i : { from: 'neighbour' as const, opening: `o${i - 1}`, edge: 'right' as const, distance: 0.4 },
    up: 0.9,
    id: `o${i}`,
    ...(i % 7 === 3 ? { mark: `L-${100 + i}` } : {}),
  });
  const wall = { do: 'draw wall', from: [0, 0], to: [900, 0] };

  it('come to the same as one after the other', () => {
    const steps = [wall, ...Array.from({ length: 60 }, (_, i) => placing(i))];
    const together = doScript(empty, { do: steps });
    const wallId = together.made[0]![0]!;
    let at = { document: empty };
    for (const step of steps) at = doScript(at.document, { do: [step] });
    const plain = (document: ProjectDocument) =>
      JSON.parse(JSON.stringify(document).replaceAll(Object.keys(document.elements)[0]!, wallId)) as unknown;
    expect(plain(together.document)).toEqual(plain(at.document));
    expect(new Set(Object.values(together.document.openings).map(({ mark }) => mark)).size).toBe(60);
  });

  it('are refused by the one that cannot be', () => {
    const steps = [wall, ...Array.from({ length: 40 }, (_, i) => placing(i))];
    const spoiled = (change: object) => steps.map((step, i) => (i === 23 ? { ...step, ...change } : step));
    expect(refusal(empty, { do: spoiled({ pattern: 'Barn light' }) })).toEqual([
      'do/23/pattern names the pattern "Barn light", which does not exist',
    ]);
    const [lost] = refusal(empty, {
      do: spoiled({ along: { from: 'neighbour', opening: 'none', edge: 'right', distance: 1 } }),
    });
    expect(lost).toMatch(/^do\/23\/.*none/);
  });

  it('and what stands on them do as many as a script may hold', () => {
    const steps = [wall, ...Array.from({ length: 4998 }, (_, i) => placing(i))];
    const { document } = doScript(empty, { do: [...steps, { do: 'move', openings: ['o0'], along: 0.1 }] });
    expect(Object.keys(document.openings).length).toBe(4998);
  });
});

describe('a script', () => {
  it('draws, places and cuts, as one edit that can be taken back', () => {
    expect(walled.made.map((ids) => ids.length)).toEqual([1, 1, 1, 1]);
    const model = cutModel(walled.document);
    expect([...model.statuses.values()].map(({ state }) => state)).toEqual(['cut', 'cut', 'cut']);
    const { document, inverse } = applyChangeSet(empty, walled.changeSet);
    expect(document).toEqual(walled.document);
    expect(applyChangeSet(document, inverse).document).toEqual(empty);
    expect(walled.changeSet.name).toBe('draw Wall 1 and 3 more steps');
  });

  it('names things by marks and names or by ids, and steps see what those before them did', () => {
    const { document, made } = doScript(walled.document, {
      name: 'set out the quay side',
      do: [
        { do: 'spread', openings: ['A', 'b', 'C'], over: 'face' },
        { do: 'copy', openings: ['A'], up: 1.4, times: 1 },
        { do: 'align', openings: ['A', 'B', 'C'], by: 'sills', at: 0.5 },
        { do: 'block up', openings: ['B'] },
        { do: 'size', opening: 'C', own: { width: 1.5 } },
      ],
    });
    expect(['a', 'b', 'c'].map((id) => along(document, id)).slice(0, 2)).toEqual([
      expect.closeTo(2.75, 9),
      expect.closeTo(6, 9),
    ]);
    expect(document.openings.b!.blockedUp).toBe(true);
    expect(document.openings.c!.own).toEqual({ width: 1.5, height: 1.2 });
    expect(document.openings[made[1]![0]!]!.mark).not.toBe('A');
  });

  it('fills, mirrors, resizes, moves and removes', () => {
    const { document, made } = doScript(walled.document, {
      do: [
        { do: 'remove openings', openings: ['A', 'B', 'C'] },
        { do: 'fill', element: 'Wall 1', pattern: 'p', columns: 4, rows: [0.4, 2] },
        { do: 'resize pattern', pattern: 'p', dimensions: { width: 0.8 } },
        {
          do: 'change',
          table: 'elements',
          id: Object.keys(walled.document.elements)[0]!,
          with: { name: 'Quay wall', group: 'Quay' },
        },
      ],
    });
    expect(Object.keys(document.openings).sort()).toEqual([...made[1]!].sort());
    expect(made[1]).toHaveLength(8);
    expect(document.patterns.p!.sizes.a!.dimensions.width).toBe(0.8);
    expect(Object.values(document.elements)[0]).toMatchObject({ name: 'Quay wall', group: 'Quay' });
    const ungrouped = doScript(document, {
      do: [
        { do: 'change', table: 'elements', id: Object.keys(document.elements)[0]!, with: { group: null } },
        { do: 'split wall', element: 'Quay wall', at: 6 },
      ],
    });
    expect(Object.values(ungrouped.document.elements).map(({ name, group }) => [name, group])).toEqual([
      ['Quay wall', undefined],
      ['Quay wall 2', undefined],
    ]);
    const mirrored = doScript(document, {
      do: [
        { do: 'mirror', openings: [made[1]![0]!], at: 6 },
        { do: 'move', openings: [made[1]![1]!], up: 0.1 },
        { do: 'bend wall', element: 'Quay wall', sweep: 20 },
        { do: 'reverse wall', element: 'Quay wall' },
      ],
    });
    expect(Object.values(mirrored.document.elements)[0]).toMatchObject({ sweep: -20 });
  });

  it('does all that changes can, by their own shape', () => {
    const { document } = doScript(granary(), {
      do: [{ do: 'changes', changes: [{ op: 'settings', value: { units: 'm' } }] }],
    });
    expect(document.units).toBe('m');
  });
});

describe('a script that cannot be done', () => {
  it.each<[unknown, string]>([
    [null, ' '],
    [{ do: [] }, 'do must hold at least one step'],
    [{ do: [{ do: 'explode' }] }, 'do/0/do must be one of place, fill'],
    [
      { do: [{ do: 'place', element: 'Wall 9', pattern: 'p', along: 1, up: 1 }] },
      'do/0/element names the element "Wall 9", which does not exist',
    ],
    [
      { do: [{ do: 'place', element: 'Wall 1', pattern: 'p', size: 'huge', along: 1, up: 1 }] },
      'do/0/size names the size "huge", which the pattern "Loft light" does not have; it has small',
    ],
    [
      {
        do: [
          { do: 'move', openings: ['A'], along: 1 },
          { do: 'move', openings: ['A', 'Z'], along: 1 },
        ],
      },
      'do/1/openings/1 names the opening "Z", which does not exist',
    ],
    [{ do: [{ do: 'move', openings: ['A'], sideways: 1 }] }, 'do/0 has sideways, which “move” does not take'],
    [
      { do: [{ do: 'spread', openings: ['A', 'B', 'C'], spacing: { kind: 'given pier', pier: 40 } }] },
      'do/0 cannot be done: ',
    ],
    [
      { do: [{ do: 'place', element: 'Wall 1', pattern: 'p', along: 1, up: 1, id: 'no id!' }] },
      'do/0/openings/no id!/id must be an id',
    ],
    [
      { do: [{ do: 'change', table: 'openings', id: 'a', with: { pattern: 'gone' } }] },
      'do/0/openings/a/pattern names the pattern "gone", which does not exist',
    ],
    [{ do: [{ do: 'split wall', element: 'Wall 1', at: 99 }] }, 'do/0/at cannot be done: '],
  ])('says where and why: %j', (script, reason) => {
    const before = JSON.stringify(walled.document);
    const faults = refusal(walled.document, script);
    expect(faults.length).toBeGreaterThan(0);
    expect(faults[0]).toContain(reason);
    expect(JSON.stringify(walled.document)).toBe(before);
  });

  it('leaves locked elements alone until a step unlocks them', () => {
    const [id] = Object.keys(walled.document.elements);
    const unlock = (locked: true | null) => ({ do: 'change', table: 'elements', id, with: { locked } });
    const locked = doScript(walled.document, { do: [unlock(true)] }).document;
    const move = { do: 'move', openings: ['A'], along: 0.1 };
    expect(refusal(locked, { do: [move] })).toEqual(['do/0 cannot be done: Wall 1 is locked; unlock it first']);
    expect(along(doScript(locked, { do: [unlock(null), move] }).document, 'a')).toBeCloseTo(2.1, 9);
  });

  it('asks for an id where a name is that of several', () => {
    const twice = {
      ...walled.document,
      openings: { ...walled.document.openings, d: { ...walled.document.openings.a!, id: 'd' } },
    };
    expect(refusal(twice, { do: [{ do: 'move', openings: ['A'], along: 1 }] })[0]).toMatch(
      /of which there are 2; use an id: a, d/,
    );
  });
});

it('the help tells of every step what it takes', () => {
  const help = scriptHelp();
  for (const [name, { about }] of Object.entries(steps)) {
    expect(help).toContain(`  ${name}\n`);
    expect(help).toContain(about);
  }
  expect(help).toContain('takes element, pattern, [size], along, up, [grip], [face], [mark], [id]');
});
