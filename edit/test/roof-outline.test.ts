/** A roof's outline drawn anew: what is asked for comes about, the rest keeps its directions, and what is no outline is refused. */
import { describe, expect, it } from '@jest/globals';
import { cutModel, drawnOutline, prove } from '@yard-arch/core';
import {
  applyChangeSet,
  checkDocument,
  edgesOfRoof,
  emptyDocument,
  kinds,
  type ChangeSet,
  type ProjectDocument,
  type Roof,
} from '@yard-arch/document';
import {
  addOutlineCorner,
  bendOutlineEdge,
  closeCourt,
  isCourts,
  lengthenOutlineEdge,
  moveOutlineCorner,
  moveOutlineEdge,
  openCourt,
  openCourtAlong,
  outlineCorners,
  outlineLength,
  outlineSweep,
  removeOutlineCorner,
  roofOver,
  wouldCross,
  type Refused,
} from '@yard-arch/edit';
import fc from 'fast-check';
import { ell, near, tee, type Place } from '../../core/test/outlines.ts';

const points = (places: readonly Place[]) => places.map(([x, y]) => ({ x, y }));

/** A document of one roof over an outline, turned and put somewhere. */
function laid(places: readonly Place[], turn = 0): { document: ProjectDocument; roof: Roof } {
  const empty = emptyDocument('Quay store');
  empty.materials.slate = { id: 'slate', name: 'Slate', colour: '#666d77', roughness: 0.7 };
  const made = roofOver(empty, points(places), 4);
  if ('reason' in made) throw new Error(made.reason);
  const { document } = applyChangeSet(empty, made.changeSet);
  const own = document.elements[made.id] as Roof;
  const roof: Roof = { ...own, turn, start: { x: 31.5, y: -7.25, z: 4 } };
  return { document: { ...document, elements: { [roof.id]: roof } }, roof };
}

/** The roof after an edit that was made, in a document that still is one. */
function after(document: ProjectDocument, roof: Roof, outcome: ChangeSet | Refused): Roof {
  if ('reason' in outcome) throw new Error(outcome.reason);
  return checkDocument(applyChangeSet(document, outcome).document).elements[roof.id] as Roof;
}

/** Which way each edge of the outline runs, degrees. */
const waysOf = ({ edges }: Roof): number[] =>
  edges.map(({ x, y }, i) => {
    const to = edges[(i + 1) % edges.length]!;
    return (Math.atan2(to.y - y, to.x - x) * 180) / Math.PI;
  });

const areaOf = (roof: Roof): number => {
  const { loops } = drawnOutline(roof);
  return loops!.reduce(
    (sum, loop) =>
      sum +
      loop.reduce((part, a, i) => {
        const b = loop[(i + 1) % loop.length]!;
        return part + (a.x * b.y - b.x * a.y) / 2;
      }, 0),
    0,
  );
};

const outlines = fc
  .record({ wide: near(6, 12), deep: near(4, 8), tee: fc.boolean(), turn: fc.integer({ min: -180, max: 180 }) })
  .map(({ wide, deep, tee: isTee, turn }) => laid(isTee ? tee(wide, deep) : ell(wide, deep), turn));

describe('an edge of a roof’s outline', () => {
  it('moves out and back, grows the area by what it sweeps, and all edges keep their directions', () => {
    let made = 0;
    fc.assert(
      fc.property(outlines, fc.nat(7), near(-1.4, 3), ({ document, roof }, k, by) => {
        const edge = roof.edges[k % roof.edges.length]!;
        const long = outlineLength(roof, edge.id);
        const outcome = moveOutlineEdge(roof, edge.id, by);
        // Drawn out as far as the wing is deep, the flank beside it is used up.
        if ('reason' in outcome) return expect(outcome.reason).toContain('nothing left');
        made += 1;
        const moved = after(document, roof, outcome);
        waysOf(moved).forEach((way, i) => expect(way).toBeCloseTo(waysOf(roof)[i]!, 6));
        // All corners are square: the edge keeps its length.
        expect(outlineLength(moved, edge.id)).toBeCloseTo(long, 6);
        expect(areaOf(moved) - areaOf(roof)).toBeCloseTo(long * by, 6);
        expect(areaOf(after(document, moved, moveOutlineEdge(moved, edge.id, -by)))).toBeCloseTo(areaOf(roof), 6);
      }),
      { numRuns: 60 },
    );
    expect(made).toBeGreaterThan(40);
  });

  it('is made as long as is asked, and its plane and the roof stay whole', () => {
    let made = 0;
    fc.assert(
      fc.property(outlines, fc.nat(7), near(0.2, 2), ({ document, roof }, k, more) => {
        const edge = roof.edges[k % roof.edges.length]!;
        const wanted = outlineLength(roof, edge.id) + more;
        const outcome = lengthenOutlineEdge(roof, edge.id, wanted);
        // A neighbour may be used up.
        if ('reason' in outcome) return expect(outcome.mend).toBeTruthy();
        made += 1;
        const longer = after(document, roof, outcome);
        expect(outlineLength(longer, edge.id)).toBeCloseTo(wanted, 6);
        waysOf(longer).forEach((way, i) => expect(way).toBeCloseTo(waysOf(roof)[i]!, 6));
        const cut = cutModel({ ...document, elements: { [roof.id]: longer } }).cuts.get(roof.id)!;
        expect([cut.fault, prove(cut.mesh).closed]).toEqual([null, true]);
      }),
      { numRuns: 40 },
    );
    expect(made).toBeGreaterThan(20);
  });

  it('moves no further than leaves something of its neighbours', () => {
    const { roof } = laid(ell(8, 5));
    expect(moveOutlineEdge(roof, 'e3', -5)).toMatchObject({ reason: expect.stringContaining('nothing left') });
    expect(moveOutlineEdge(roof, 'e1', -5)).toMatchObject({ reason: expect.stringContaining('nothing left') });
  });

  it('bends out to an arc and straight again; half a circle adds its segment', () => {
    const { document, roof } = laid(ell(8, 5), 20);
    const bent = after(document, roof, bendOutlineEdge(roof, 'e2', 180));
    expect(outlineSweep(bent, 'e2')).toBeCloseTo(180, 9);
    // Of twelve chords in a half circle about an edge of 5 m.
    expect(areaOf(bent) - areaOf(roof)).toBeCloseTo((12 * 2.5 ** 2 * Math.sin(Math.PI / 12)) / 2, 6);
    const { cuts } = cutModel({ ...document, elements: { [roof.id]: bent } });
    expect(prove(cuts.get(roof.id)!.mesh).closed).toBe(true);
    expect(after(document, bent, bendOutlineEdge(bent, 'e2', 0)).edges).toEqual(roof.edges);
    expect(bendOutlineEdge(roof, 'e2', 300)).toMatchObject({ reason: expect.stringContaining('270') });
  });
});

describe('a corner of a roof’s outline', () => {
  it('goes where it is drawn in plan, however the roof is turned', () => {
    const { document, roof } = laid(ell(8, 5), 33);
    const moved = after(document, roof, moveOutlineCorner(roof, 'e2', [44.5, -2]));
    expect(outlineCorners(moved).find(({ edge }) => edge === 'e2')!.at).toEqual([
      expect.closeTo(44.5, 8),
      expect.closeTo(-2, 8),
    ]);
    expect(moveOutlineCorner(roof, 'e3', outlineCorners(roof)[0]!.at)).toHaveProperty('reason');
  });

  it('is put into an edge, straight or an arc, and taken away again, without a change of shape', () => {
    const { document, roof } = laid(tee(8, 5), 70);
    const more = after(document, roof, addOutlineCorner(roof, 'e1'));
    expect(more.edges).toHaveLength(9);
    expect(new Set(more.edges.map(({ id }) => id)).size).toBe(9);
    expect(areaOf(more)).toBeCloseTo(areaOf(roof), 9);
    expect(after(document, more, removeOutlineCorner(more, 'e9')).edges).toEqual(roof.edges);
    const bent = after(document, roof, bendOutlineEdge(roof, 'e1', 90));
    const halves = after(document, bent, addOutlineCorner(bent, 'e1'));
    expect(areaOf(halves)).toBeCloseTo(areaOf(bent), 7);
    expect(halves.edges.map(({ facets }) => facets)).toEqual(halves.edges.map(() => undefined));
  });

  it('stays where there are but three', () => {
    const { roof } = laid([
      [0, 0],
      [6, 0],
      [0, 6],
    ]);
    expect(removeOutlineCorner(roof, 'e1')).toMatchObject({ mend: expect.stringContaining('Remove the roof') });
  });
});

describe('a courtyard', () => {
  const yard: Place[] = [
    [0, 0],
    [16, 0],
    [16, 14],
    [0, 14],
  ];
  const within = (roof: Roof, places: readonly Place[]) =>
    places.map(([x, y]) => ({ x: roof.start.x + x, y: roof.start.y + y }));

  it('is opened whichever way it is drawn, its edges moved out of the roof make it smaller, and it is closed again', () => {
    const { document, roof } = laid(yard);
    const court: Place[] = [
      [5, 5],
      [11, 5],
      [11, 9],
      [5, 9],
    ];
    for (const drawn of [court, [...court].reverse()]) {
      const open = after(document, roof, openCourt(roof, within(roof, drawn)));
      expect(areaOf(open)).toBeCloseTo(16 * 14 - 6 * 4, 9);
      const { cuts } = cutModel({ ...document, elements: { [roof.id]: open } });
      expect([cuts.get(roof.id)!.fault, prove(cuts.get(roof.id)!.mesh).closed]).toEqual([null, true]);
      const [first] = open.courts![0]!;
      expect([first!.id, 'e1'].map((id) => isCourts(open, id))).toEqual([true, false]);
      const long = outlineLength(open, first!.id);
      const smaller = after(document, open, moveOutlineEdge(open, first!.id, 1));
      expect(areaOf(smaller) - areaOf(open)).toBeCloseTo(long, 6);
      const closed = after(document, open, closeCourt(open, first!.id));
      expect(closed).toEqual(roof);
      expect(edgesOfRoof(open)).toHaveLength(8);
    }
  });

  it('is refused outside of the roof, over its edge and across another', () => {
    const { roof } = laid(yard);
    const box = (x: number, y: number): Place[] => [
      [x, y],
      [x + 3, y],
      [x + 3, y + 3],
      [x, y + 3],
    ];
    expect(openCourt(roof, within(roof, box(20, 2)))).toMatchObject({ reason: expect.stringContaining('outside') });
    expect(openCourt(roof, within(roof, box(14, 2)))).toMatchObject({ reason: expect.stringContaining('crosses') });
    const open = after(laid(yard).document, roof, openCourt(roof, within(roof, box(4, 4))));
    expect(openCourt(open, within(roof, box(5, 5)))).toMatchObject({ reason: expect.stringContaining('crosses') });
  });

  it('is opened along a ring of walls, which reach up under the roof then', () => {
    const { document, roof } = laid(yard);
    const wall = (id: string, x: number, y: number, turn: number, length: number) => ({
      ...kinds.wall.fresh({ id, name: id, start: { x: 31.5 + x, y: y - 7.25, z: 0 }, turn }, 'slate'),
      length,
      height: 4,
    });
    const walls = [wall('a', 5, 5, 90, 4), wall('b', 5, 9, 0, 6), wall('c', 11, 9, 270, 4), wall('d', 11, 5, 180, 6)];
    const whole = {
      ...document,
      elements: { ...document.elements, ...Object.fromEntries(walls.map((w) => [w.id, w])) },
    };
    const outcome = openCourtAlong(whole, roof, walls[0]!);
    const { elements } = applyChangeSet(whole, outcome as ChangeSet).document;
    expect(areaOf(elements[roof.id] as Roof)).toBeCloseTo(16 * 14 - 24, 6);
    for (const id of ['a', 'b', 'c', 'd'])
      expect(elements[id]).toMatchObject({ top: { kind: 'under', roof: roof.id } });
    expect(openCourtAlong({ ...whole, elements: { ...whole.elements, b: walls[0]! } }, roof, walls[2]!)).toHaveProperty(
      'mend',
    );
  });
});

describe('an outline that is drawn', () => {
  it('is refused where it crosses itself, and told while it is drawn', () => {
    const crossing: Place[] = [
      [0, 0],
      [4, 0],
      [0, 3],
      [4, 3],
    ];
    expect(roofOver(emptyDocument('Quay store'), points(crossing), 3)).toMatchObject({
      reason: expect.stringContaining('2.000, 1.500 m'),
    });
    expect(wouldCross(crossing, [0, 0])).toEqual([2, 1.5]);
    expect(wouldCross(crossing.slice(0, 3), [4, 3])).toBeNull();
    expect(wouldCross(ell(6, 4), [0, 0])).toBeNull();
  });
});
