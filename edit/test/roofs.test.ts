/** Roofs as they are laid and changed: over rings of walls whichever way they run, in every form, by scripts, and taken away again. */
import { describe, expect, it } from '@jest/globals';
import { cutModel, prove } from '@yard-arch/core';
import {
  applyChangeSet,
  checkDocument,
  emptyDocument,
  facesOf,
  kinds,
  type ProjectDocument,
  type Roof,
  type Wall,
} from '@yard-arch/document';
import {
  changeAllEdges,
  doScript,
  edgeAs,
  formed,
  putUnder,
  removeElement,
  ringOf,
  roofForms,
  roofOver,
  roofOverWalls,
  wallsBelow,
  wallsUnder,
} from '@yard-arch/edit';
import fc from 'fast-check';

type Corner = readonly [number, number];

const rectangle: Corner[] = [
  [0, 0],
  [10, 0],
  [10, 6],
  [0, 6],
];

/** A ring of walls over corners; those named run the other way. */
function ring(corners: readonly Corner[], backward: readonly number[] = [], height = 4): ProjectDocument {
  const document = emptyDocument('Ring');
  document.materials.brick = { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9 };
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    const [from, to] = backward.includes(i) ? [b, a] : [a, b];
    document.elements[`w${i}`] = {
      ...kinds.wall.fresh(
        {
          id: `w${i}`,
          name: `Wall ${i}`,
          start: { x: from[0], y: from[1], z: 0 },
          turn: (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI,
        },
        'brick',
      ),
      length: Math.hypot(to[0] - from[0], to[1] - from[1]),
      height: height + (i === 1 ? 0.5 : 0),
    };
  });
  return document;
}
const laid = (document: ProjectDocument, wall = 'w0'): { document: ProjectDocument; roof: Roof } => {
  const made = roofOverWalls(document, document.elements[wall] as Wall);
  if ('reason' in made) throw new Error(made.reason);
  const after = checkDocument(applyChangeSet(document, made.changeSet).document);
  return { document: after, roof: after.elements[made.id] as Roof };
};

describe('a roof over walls', () => {
  it('is laid over their ring whichever way they run, and each is under it', () => {
    fc.assert(
      fc.property(fc.subarray([1, 2, 3]), fc.constantFrom('w0', 'w1', 'w2', 'w3'), (backward, first) => {
        const { document, roof } = laid(ring(rectangle, backward), first);
        const at = (i: number): Corner => [roof.start.x + roof.edges[i]!.x, roof.start.y + roof.edges[i]!.y];
        const corners = roof.edges.map((_, i) =>
          at(i)
            .map((v) => Math.round(v * 1e6) / 1e6)
            .join(),
        );
        expect(new Set(corners)).toEqual(new Set(rectangle.map((corner) => corner.join())));
        // Counter-clockwise, lifted where a wall is higher.
        const area = roof.edges.reduce((sum, a, i) => {
          const b = roof.edges[(i + 1) % 4]!;
          return sum + (a.x * b.y - a.y * b.x) / 2;
        }, 0);
        expect(area).toBeCloseTo(60, 6);
        expect(roof.start.z).toBe(4);
        expect(roof.edges.filter((edge) => edge.is === 'eaves' && edge.lift === 0.5)).toHaveLength(1);
        for (const id of ['w0', 'w1', 'w2', 'w3'])
          expect((document.elements[id] as Wall).top).toEqual({ kind: 'under', roof: roof.id });
      }),
      { numRuns: 12 },
    );
  });

  it('is laid over a wall that is a ring by itself: round its corners, or round', () => {
    const alone = (more: Partial<Wall>): ProjectDocument => {
      const document = ring(rectangle);
      const own = { ...(document.elements.w0 as Wall), ...more };
      return { ...document, elements: { w0: own } };
    };
    const corner = (length: number) => ({ turn: 90, length });
    const square = alone({ length: 10, runs: [corner(6), corner(10), corner(6)] });
    const round = alone({ length: 4 * Math.PI, sweep: 360 });
    for (const [document, edges] of [
      [square, 4],
      [round, 2],
    ] as const) {
      const { document: after, roof } = laid(document);
      expect(roof.edges).toHaveLength(edges);
      const { cuts } = cutModel(after);
      for (const id of ['w0', roof.id]) {
        const cut = cuts.get(id)!;
        expect([id, cut.fault, cut.sheet.joins, prove(cut.mesh).closed]).toEqual([id, null, [], true]);
      }
      expect((after.elements.w0 as Wall).top).toEqual({ kind: 'under', roof: roof.id });
      // It rises within, where the roof does.
      expect(
        cuts
          .get('w0')!
          .mesh.points.filter((_, i) => i % 3 === 2)
          .reduce((a, b) => Math.max(a, b)),
      ).toBeGreaterThan(cuts.get('w0')!.sheet.height + 0.1);
    }
    const open = alone({ length: 10, runs: [corner(6), corner(10)] });
    expect(ringOf(open, open.elements.w0 as Wall)).toBeNull();
  });

  it('says where there is no ring, and walls are level again once it is gone', () => {
    const open = ring(rectangle);
    delete open.elements.w2;
    expect(ringOf(open, open.elements.w0 as Wall)).toBeNull();
    expect(roofOverWalls(open, open.elements.w0 as Wall)).toMatchObject({
      reason: 'Wall 0 is not part of a ring of walls',
    });
    const { document, roof } = laid(ring(rectangle));
    const gone = checkDocument(applyChangeSet(document, removeElement(document, roof)).document);
    expect((gone.elements.w0 as Wall).top).toEqual({ kind: 'level' });
    expect(gone.elements[roof.id]).toBeUndefined();
  });
});

describe('walls below a roof', () => {
  it('are those that it covers, and reach up to it together', () => {
    const base = ring(rectangle);
    const outline = rectangle.map(([x, y]) => ({ x, y }));
    const made = roofOver(base, outline, 4);
    if ('reason' in made) throw new Error(made.reason);
    const document = applyChangeSet(base, made.changeSet).document;
    document.elements.far = { ...(document.elements.w0 as Wall), id: 'far', start: { x: 0, y: 9, z: 0 } };
    const roof = document.elements[made.id] as Roof;
    expect(wallsBelow(document, roof).map(({ id }) => id)).toEqual(['w0', 'w1', 'w2', 'w3']);
    const after = applyChangeSet(document, putUnder(roof, wallsBelow(document, roof))).document;
    expect(wallsBelow(after, roof)).toEqual([]);
    expect(wallsUnder(after, roof).map(({ id }) => id)).toEqual(['w0', 'w1', 'w2', 'w3']);
  });
});

describe('the form of a roof', () => {
  const outlines: Corner[][] = [
    rectangle,
    [
      [0, 0],
      [9, 0],
      [9, 4],
      [4, 4],
      [4, 8],
      [0, 8],
    ],
    [
      [0, 0],
      [9, 0],
      [9, 4],
      [6.5, 4],
      [6.5, 8],
      [2.5, 8],
      [2.5, 4],
      [0, 4],
    ],
  ];

  it.each(roofForms)('%s makes a closed body of every outline, or says why it cannot', (form) => {
    for (const outline of outlines) {
      const base = ring(rectangle);
      const made = roofOver(
        base,
        outline.map(([x, y]) => ({ x, y })),
        4,
        form,
      );
      if ('reason' in made) throw new Error(made.reason);
      const document = checkDocument(applyChangeSet(base, made.changeSet).document);
      const cut = cutModel(document).cuts.get(made.id)!;
      if (cut.fault) expect(cut.fault.code).toBe('never-meets');
      else expect(prove(cut.mesh).closed).toBe(true);
      // Asked for again it is the same.
      const roof = document.elements[made.id] as Roof;
      expect(formed(roof, form)).toEqual(roof);
    }
  });

  it('is gabled at the ends of wings', () => {
    const made = roofOver(
      ring(rectangle),
      outlines[2]!.map(([x, y]) => ({ x, y })),
      4,
      'gabled',
    );
    if ('reason' in made) throw new Error(made.reason);
    const roof = (made.changeSet.changes.at(-1) as { value: Roof }).value;
    expect(roof.edges.map(({ is }) => is)).toEqual([
      'eaves',
      'verge',
      'eaves',
      'eaves',
      'verge',
      'eaves',
      'eaves',
      'verge',
    ]);
  });

  it('keeps what an edge had when it becomes another kind, and names planes by where they look', () => {
    const { roof } = laid(ring(rectangle));
    const verge = edgeAs(roof, roof.edges[0]!, 'verge');
    expect(verge).toMatchObject({ id: 'e1', is: 'verge', over: 0.35 });
    expect(edgeAs(roof, verge, 'eaves')).toMatchObject({ pitch: 40, over: 0.35 });
    expect(facesOf(roof).map(({ label }) => label)).toEqual([
      'view from above',
      'South plane',
      'East plane',
      'North plane',
      'West plane',
    ]);
    const steep = (changeAllEdges(roof, { pitch: 50 }, 'pitch').changes[0] as { value: Roof }).value;
    expect(steep.edges.every((edge) => edge.is === 'eaves' && edge.pitch === 50)).toBe(true);
  });
});

describe('a script', () => {
  it('lays a roof, gables it and sets a window in it', () => {
    const base = ring(rectangle);
    base.patterns.light = {
      id: 'light',
      name: 'Roof window',
      profile: { shape: 'rectangle' },
      sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1.2 } } },
      reveal: { material: null },
    };
    const { document } = doScript(base, {
      do: [
        { do: 'lay roof', wall: 'Wall 0' },
        { do: 'change edge', element: 'Roof', edge: 'East edge', is: 'verge' },
        { do: 'change edge', element: 'Roof', edge: 'West edge', is: 'verge', hip: { from: 1, pitch: 55 } },
        { do: 'change edge', element: 'Roof', edge: 'e1', pitch: 35 },
        { do: 'redraw edge', element: 'Roof', edge: 'East edge', by: 0.5 },
        { do: 'redraw edge', element: 'Roof', edge: 'North edge', length: 12 },
        { do: 'redraw edge', element: 'Roof', edge: 'West edge', curve: 60 },
        { do: 'redraw edge', element: 'Roof', edge: 'West edge', curve: 0 },
        { do: 'lay vault', element: 'Wall 0', to: 'Wall 2' },
        { do: 'place', element: 'Roof', face: 'e1', pattern: 'Roof window', along: 5, up: 1.5 },
      ],
    });
    const roof = Object.values(document.elements).find((element): element is Roof => element.kind === 'roof')!;
    expect(roof.edges.map(({ is }) => is)).toEqual(['eaves', 'verge', 'eaves', 'verge']);
    expect(roof.edges[0]).toMatchObject({ pitch: 35 });
    // Drawn out to 10.5 m along the eaves, then made 12 m long at the other end.
    expect(Math.max(...roof.edges.map(({ x }) => x)) - Math.min(...roof.edges.map(({ x }) => x))).toBeCloseTo(12, 9);
    expect(Object.values(document.elements).some(({ kind }) => kind === 'vault')).toBe(true);
    const open = doScript(document, {
      do: [
        {
          do: 'open courtyard',
          element: 'Roof',
          outline: [
            [3, 2],
            [6, 2],
            [6, 4],
            [3, 4],
          ],
        },
      ],
    }).document;
    expect((open.elements[roof.id] as Roof).courts).toHaveLength(1);
    expect([...cutModel(document).statuses.values()].map(({ state }) => state)).toEqual(['cut']);
    for (const wrong of [
      {
        do: 'open courtyard',
        element: 'Roof',
        outline: [
          [20, 20],
          [22, 20],
          [22, 22],
        ],
      },
      { do: 'open courtyard', element: 'Wall 0', wall: 'Wall 1' },
      { do: 'redraw edge', element: 'Roof', edge: 'East edge', by: -40 },
      { do: 'redraw edge', element: 'Roof', edge: 'East edge', length: -1 },
      { do: 'lay vault', element: 'Wall 0', to: 'Wall 1' },
      { do: 'lay roof', wall: 'Roof' },
      { do: 'change edge', element: 'Roof', edge: 'Up edge' },
      { do: 'change edge', element: 'Roof', edge: 'e1', pitch: 90 },
      { do: 'form roof', element: 'Wall 0', form: 'hipped' },
    ])
      expect(() => doScript(document, { do: [wrong] })).toThrow();
  });
});
