/** Roofs: the laws of the planes over an outline, bodies against half-spaces and closed forms, and what is cut out of them. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { kinds, type Element, type Opening, type Roof, type RoofEdge, type RoofForm } from '@yard-arch/document';
import fc from 'fast-check';
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutModel, findingsOf, prove, sheetsOf, type CutMesh, type ElementCut } from '../src/index.ts';
import { roofBody } from '../src/element/roof-sheets.ts';
import { trimMesh } from '../src/model/roof-mesh.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { roofOf } from '../src/roof/roof.ts';
import { NeverMeets, surfaceOf, type Surface } from '../src/roof/surface.ts';
import { opening, project } from './sample.ts';
import { solidIn } from './solid-of.ts';

type Place = [number, number];

const area = (loop: readonly Place[]): number =>
  loop.reduce((sum, [x, y], i) => {
    const [u, v] = loop[(i + 1) % loop.length]!;
    return sum + (x * v - u * y) / 2;
  }, 0);

/** Stars, and unions of squares on a grid with courts in them: what is all parallel and happens all at once. */
const star: fc.Arbitrary<Place[][]> = fc
  .array(fc.tuple(fc.double({ min: 0, max: 0.8, noNaN: true }), fc.double({ min: 3, max: 12, noNaN: true })), {
    minLength: 4,
    maxLength: 24,
  })
  .map((list) => [
    list.map(([turn, reach], i): Place => {
      const angle = (2 * Math.PI * (i + turn)) / list.length;
      return [reach * Math.cos(angle), reach * Math.sin(angle)];
    }),
  ]);
const squares: fc.Arbitrary<Place[][]> = fc
  .array(fc.boolean(), { minLength: 36, maxLength: 36 })
  .map((on) => outlineOfSquares(new Set(on.flatMap((yes, i) => (yes ? [`${i % 6},${Math.floor(i / 6)}`] : [])))))
  .filter((loops) => loops.length > 0);

/** The outlines of the largest patch of squares, without any that touch only in a corner. */
function outlineOfSquares(all: Set<string>): Place[][] {
  const on = largest(all);
  for (let again = true; again;) {
    again = false;
    for (let x = -1; x < 6; x++)
      for (let y = -1; y < 6; y++) {
        const [a, b, c, d] = [`${x},${y}`, `${x + 1},${y}`, `${x},${y + 1}`, `${x + 1},${y + 1}`] as const;
        if (on.has(a) && on.has(d) && !on.has(b) && !on.has(c)) again = !!on.add(b);
        if (on.has(b) && on.has(c) && !on.has(a) && !on.has(d)) again = !!on.add(a);
      }
  }
  const next = new Map<string, string>();
  for (const key of on) {
    const [x, y] = key.split(',').map(Number) as Place;
    if (!on.has(`${x},${y - 1}`)) next.set(`${x},${y}`, `${x + 1},${y}`);
    if (!on.has(`${x + 1},${y}`)) next.set(`${x + 1},${y}`, `${x + 1},${y + 1}`);
    if (!on.has(`${x},${y + 1}`)) next.set(`${x + 1},${y + 1}`, `${x},${y + 1}`);
    if (!on.has(`${x - 1},${y}`)) next.set(`${x},${y + 1}`, `${x},${y}`);
  }
  const loops: Place[][] = [];
  const seen = new Set<string>();
  for (const first of next.keys()) {
    const loop: Place[] = [];
    for (let at = first; !seen.has(at); at = next.get(at)!) {
      seen.add(at);
      loop.push(at.split(',').map(Number) as Place);
    }
    const corners = loop.filter(([x, y], i) => {
      const [[ax, ay], [bx, by]] = [loop[(i + loop.length - 1) % loop.length]!, loop[(i + 1) % loop.length]!];
      return (x - ax) * (by - y) !== (y - ay) * (bx - x);
    });
    if (corners.length > 0) loops.push(corners);
  }
  return loops;
}

function largest(all: Set<string>): Set<string> {
  let best = new Set<string>();
  const seen = new Set<string>();
  for (const first of all) {
    if (seen.has(first)) continue;
    const patch = new Set<string>();
    const waiting = [first];
    for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
      if (!all.has(at) || patch.has(at)) continue;
      patch.add(at);
      seen.add(at);
      const [x, y] = at.split(',').map(Number) as Place;
      waiting.push(`${x + 1},${y}`, `${x - 1},${y}`, `${x},${y + 1}`, `${x},${y - 1}`);
    }
    if (patch.size > best.size) best = patch;
  }
  return best;
}

const outline = fc.oneof(star, squares);
const runs = fc.array(
  fc.record({ run: fc.double({ min: 0.3, max: 2.3, noNaN: true }), up: fc.constantFrom(0, 0.5, 1) }),
  {
    minLength: 12,
    maxLength: 12,
  },
);

const surfaceAbout = (loops: readonly Place[][], strips: (i: number) => { from: number; run: number }[]): Surface => {
  let edge = 0;
  return surfaceOf(
    loops.map((loop) => loop.map(([x, y]) => ({ x, y, strips: strips(edge++) }))),
    -1,
  );
};

/** Areas in plan of planes that rise, the farthest that a node is off its planes, and edges that no other plane goes on from. */
function told(surface: Surface): { areas: number[]; off: number; open: number } {
  const edges = new Set<string>();
  let off = 0;
  const areas = surface.planes.map(({ rings, nx, ny, reach, run }, p) =>
    rings.reduce((sum, { nodes, beyond }) => {
      nodes.forEach((node, i) => {
        const [x, y, z] = surface.nodes[node]!;
        off = Math.max(off, Math.abs(nx * x + ny * y - reach - run * z));
        edges.add(`${p} ${node} ${nodes[(i + 1) % nodes.length]!} ${beyond[i]!}`);
      });
      return run === 0 ? sum : sum + area(nodes.map((n): Place => [surface.nodes[n]![0], surface.nodes[n]![1]]));
    }, 0),
  );
  const open = [...edges].filter((edge) => {
    const [p, a, b, q] = edge.split(' ') as [string, string, string, string];
    return q !== '-1' && !edges.has(`${q} ${b} ${a} ${p}`);
  });
  return { areas, off, open: open.length };
}
/** Whether all edges run along x or y, so that some may come to lie in one line. */
const isSquare = (loops: readonly Place[][]): boolean =>
  loops.every((loop) => loop.every(([x, y]) => Number.isInteger(x) && Number.isInteger(y)));
const rounds = Number(process.env.ROOF_ROUNDS ?? 120);

describe('planes over an outline', () => {
  it('cover it exactly, lie flat, and meet each other along whole edges', () => {
    fc.assert(
      fc.property(outline, runs, fc.boolean(), (loops, figures, alike) => {
        let surface: Surface;
        try {
          surface = surfaceAbout(loops, (i) => [
            alike ? { from: 0, run: 1 } : { from: figures[i % 12]!.up, run: figures[i % 12]!.run },
          ]);
        } catch (error) {
          // Steps between edges in one line that rise unlike may shut in a place over which nothing rises; alike they never do.
          if (alike || !(error instanceof NeverMeets) || !isSquare(loops)) throw error;
          return;
        }
        const { areas, off, open } = told(surface);
        expect(open).toBe(0);
        expect(off).toBeLessThan(3e-6);
        expect(areas.reduce((sum, one) => sum + one, 0)).toBeCloseTo(
          loops.reduce((sum, loop) => sum + area(loop), 0),
          4,
        );
      }),
      { numRuns: rounds },
    );
  });

  it('are the same turned and mirrored when the outline is', () => {
    fc.assert(
      fc.property(outline, runs, fc.integer({ min: 1, max: 359 }), (loops, figures, degrees) => {
        const strips = (i: number): { from: number; run: number }[] => [{ from: 0, run: figures[i % 12]!.run }];
        const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
        let plain: number[];
        try {
          plain = told(surfaceAbout(loops, strips)).areas;
        } catch (error) {
          if (error instanceof NeverMeets && isSquare(loops)) return;
          throw error;
        }
        const turned = told(
          surfaceAbout(
            loops.map((loop) => loop.map(([x, y]): Place => [x * cos - y * sin, x * sin + y * cos])),
            strips,
          ),
        ).areas;
        plain.forEach((one, p) => expect(turned[p] ?? 0).toBeCloseTo(one, 3));
        // Mirrored it runs the other way: the edge that was the first begins the loop again.
        let first = 0;
        const order: number[] = [];
        const mirrored = loops.map((loop) => {
          const n = loop.length;
          const at = first;
          first += n;
          return loop.map((_, i): Place => {
            order.push(at + ((2 * n - 1 - i) % n));
            const [x, y] = loop[(n - i) % n]!;
            return [-x, y];
          });
        });
        const other = told(surfaceAbout(mirrored, (i) => strips(order[i]!))).areas;
        // Two planes an edge: below it, and its own.
        order.forEach((was, i) => expect(other[2 * i + 1]!).toBeCloseTo(plain[2 * was + 1]!, 3));
      }),
      { numRuns: rounds / 3 },
    );
  });

  it('never lie lower than every edge asks over a convex outline', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.2, max: 1, noNaN: true }), { minLength: 4, maxLength: 12 }),
        runs,
        (steps, figures) => {
          const all = steps.reduce((sum, one) => sum + one, 0);
          let turn = 0;
          const loop = steps.map((step): Place => [
            6 * Math.cos((turn += (2 * Math.PI * step) / all)),
            6 * Math.sin(turn),
          ]);
          const surface = surfaceAbout([loop], (i) => [{ from: 0, run: figures[i % 12]!.run }]);
          const rising = surface.planes.filter(({ run }) => run > 0);
          for (const [x, y, z] of surface.nodes.filter((node) => node[2] > -0.5)) {
            const least = Math.min(...rising.map(({ nx, ny, reach, run }) => (nx * x + ny * y - reach) / run));
            expect(z).toBeCloseTo(Math.max(0, least), 4);
          }
        },
      ),
      { numRuns: rounds / 3 },
    );
  });
});

const rectangle: Place[] = [
  [0, 0],
  [10, 0],
  [10, 6],
  [0, 6],
];
const eaves = (pitch: number, more: object = {}): object => ({ is: 'eaves', pitch, over: 0.35, ...more });
const verge = { is: 'verge', over: 0.2 };

function roof(points: readonly Place[], edge: (i: number) => object, more: Partial<Roof> = {}): Roof {
  return {
    ...kinds.roof.fresh({ id: 'r', name: 'Roof', start: { x: 3, y: -2, z: 5 }, turn: 25 }, 'brick'),
    edges: points.map(([x, y], i) => ({ id: `e${i}`, x, y, ...edge(i) }) as RoofEdge),
    layers: [
      { thickness: 0.04, material: 'brick' },
      { thickness: 0.16, material: 'brick' },
    ],
    ...more,
  };
}
const cutOf = (of: Roof, openings: Opening[] = []): { cut: ElementCut; states: Record<string, string> } => {
  const model = cutModel(
    project(
      [of],
      openings.map((one) => ({ ...one, element: 'r' })),
    ),
  );
  return {
    cut: model.cuts.get('r')!,
    states: Object.fromEntries([...model.statuses.values()].map(({ opening: id, state }) => [id, state])),
  };
};
const volumeOf = (of: Roof, openings: Opening[] = []): number => {
  const proof = prove(cutOf(of, openings).cut.mesh);
  expect(proof).toMatchObject({ closed: true, openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
  return proof.volume;
};

describe('the body of a roof', () => {
  let library: ManifoldToplevel;
  beforeAll(async () => {
    library = await solidLibrary();
  });

  /** The solid below all planes of a convex roof's surface, by half-spaces. */
  function below(surface: Surface): number {
    const made: Manifold[] = [];
    const keep = (one: Manifold): Manifold => (made.push(one), one);
    const floor = surface.base + 0.5;
    let solid = keep(library.Manifold.cube([60, 60, 60], true).translate([0, 0, 30 + floor]));
    for (const { nx, ny, reach, run, rings, strip, edge } of surface.planes) {
      if (rings.length === 0 || edge < 0) continue;
      if (strip < 0) solid = keep(solid.trimByPlane([nx, ny, 0], reach));
      else solid = keep(solid.trimByPlane([nx, ny, -run], reach / Math.hypot(1, run)));
    }
    const { volume } = { volume: solid.volume() };
    for (const one of made) one.delete();
    return volume;
  }

  it('is as large as half-spaces say, closed, as one skin and as a solid for each layer', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.3, max: 1, noNaN: true }), { minLength: 4, maxLength: 9 }),
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 9, maxLength: 9 }),
        (steps, pitches) => {
          const all = steps.reduce((sum, one) => sum + one, 0);
          let turn = 0;
          const points = steps.map((step): Place => [
            7 * Math.cos((turn += (2 * Math.PI * step) / all)),
            5 * Math.sin(turn),
          ]);
          // One in six is a verge; the first never is, so that something rises.
          const edge = (i: number): object =>
            i > 1 && i % 2 === 0 && pitches[i]! < 10 ? verge : eaves(20 + (pitches[i]! % 45));
          const one = roof(points, edge);
          const made = roofOf(one, [0, 0.04, 0.2]);
          if ('code' in made) return;
          const want = below(made.surfaces[0]!) - below(made.surfaces[2]!);
          const volume = volumeOf(one);
          expect(Math.abs(volume - want)).toBeLessThan(2e-3);
          expect(volumeOf({ ...one, skins: 'layers' })).toBeCloseTo(volume, 6);
          const boxed: Roof = { ...one, ends: 'level' };
          if ('code' in roofOf(boxed, [0, 0.04, 0.2])) return;
          expect(volumeOf(boxed)).toBeGreaterThan(volume);
          expect(volumeOf({ ...boxed, skins: 'layers' })).toBeCloseTo(volumeOf(boxed), 6);
        },
      ),
      { numRuns: rounds / 3 },
    );
  });

  it('has the volume that its form says: hipped, gabled, a pyramid, a lean-to', () => {
    const cos = Math.cos((40 * Math.PI) / 180);
    const plan = (x: number, y: number): number => (10 + 2 * x) * (6 + 2 * y);
    // With one pitch all round it is as thick everywhere, measured plumb.
    expect(volumeOf(roof(rectangle, () => eaves(40)))).toBeCloseTo((plan(0.35, 0.35) * 0.2) / cos, 6);
    expect(volumeOf(roof(rectangle, (i) => (i % 2 ? verge : eaves(40))))).toBeCloseTo((plan(0.2, 0.35) * 0.2) / cos, 6);
    const square: Place[] = rectangle.map(([x, y]) => [Math.min(x, 6), y]);
    expect(volumeOf(roof(square, () => eaves(40)))).toBeCloseTo((6.7 ** 2 * 0.2) / cos, 6);
    const leanTo = roof(rectangle, (i) => (i === 0 ? eaves(40) : i === 2 ? { is: 'abutment' } : verge));
    expect(volumeOf(leanTo)).toBeCloseTo((10.4 * 6.35 * 0.2) / cos, 6);
  });

  it('loses a wedge along each eaves that ends square', () => {
    const edge = (i: number): object => (i % 2 ? verge : eaves(40));
    const lost = volumeOf(roof(rectangle, edge)) - volumeOf(roof(rectangle, edge, { ends: 'square' }));
    // Between plumb and square: a triangle of the thickness and its tangent, along both eaves of 10.4 m.
    expect(lost).toBeCloseTo(2 * 10.4 * ((0.2 * 0.2 * Math.tan((40 * Math.PI) / 180)) / 2), 6);
  });

  it('falls inward from its edges as half-spaces say, closed, as one skin and as a solid for each layer', () => {
    /** The solid above all planes. */
    const above = ({ planes }: Surface): number => {
      let solid = library.Manifold.cube([60, 60, 60], true);
      for (const { nx, ny, reach, run, rings, strip, edge } of planes) {
        if (rings.length === 0 || edge < 0) continue;
        solid =
          strip < 0
            ? solid.trimByPlane([nx, ny, 0], reach)
            : solid.trimByPlane([-nx, -ny, run], -reach / Math.hypot(1, run));
      }
      return solid.volume();
    };
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.3, max: 1, noNaN: true }), { minLength: 4, maxLength: 8 }),
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 8, maxLength: 8 }),
        fc.constantFrom('plumb', 'square', 'level'),
        (steps, pitches, ends) => {
          const all = steps.reduce((sum, one) => sum + one, 0);
          let turn = 0;
          const points = steps.map((step): Place => [
            7 * Math.cos((turn += (2 * Math.PI * step) / all)),
            5 * Math.sin(turn),
          ]);
          const edge = (i: number): object =>
            i > 1 && i % 2 === 0 && pitches[i]! < 10 ? verge : eaves(-3 - (pitches[i]! % 40), { lift: 1 });
          const one = roof(points, edge, { ends });
          const made = roofOf(one, [0, 0.04, 0.2]);
          if ('code' in made) return;
          const volume = volumeOf(one);
          if (ends === 'plumb')
            expect(Math.abs(volume - (above(made.surfaces[2]!) - above(made.surfaces[0]!)))).toBeLessThan(2e-3);
          expect(volumeOf({ ...one, skins: 'layers' })).toBeCloseTo(volume, 6);
        },
      ),
      { numRuns: rounds / 3 },
    );
    const butterfly = roof(rectangle, (i) => (i % 2 ? verge : eaves(-15)));
    expect(volumeOf(butterfly)).toBeCloseTo((10.4 * 6.7 * 0.2) / Math.cos((15 * Math.PI) / 180), 6);
    const mixed = cutOf(roof(rectangle, (i) => (i % 2 ? verge : eaves(i === 0 ? 20 : -20)))).cut;
    expect(mixed.fault).toMatchObject({ code: 'falls-both-ways' });
  });

  it('is boxed in down to a level soffit: a wedge from the drawn edge out along each eaves', () => {
    const edge = (i: number): object => (i % 2 ? verge : eaves(40));
    const gained = volumeOf(roof(rectangle, edge, { ends: 'level' })) - volumeOf(roof(rectangle, edge));
    expect(gained).toBeCloseTo(2 * 10.4 * ((0.35 * 0.35 * Math.tan((40 * Math.PI) / 180)) / 2), 6);
    // Nothing of it is lower than the soffit, and as much of it as is seen from below is level there.
    const { mesh } = cutOf(roof(rectangle, edge, { ends: 'level' })).cut;
    const lowest = Math.min(...Array.from(mesh.points).filter((_, i) => i % 3 === 2));
    expect(lowest).toBeCloseTo(5 - 0.35 * Math.tan((40 * Math.PI) / 180), 9);
  });

  it('is closed where eaves of unlike pitch or overhang meet at an inner corner', () => {
    const ell: Place[] = [
      [0, 0],
      [9, 0],
      [9, 4],
      [4, 4],
      [4, 8],
      [0, 8],
    ];
    for (const ends of ['plumb', 'square', 'level'] as const)
      for (const [over, other, pitch] of [
        [0.46, 0.35, 40],
        [0.35, 0.46, 40],
        [0.35, 0.35, 45],
        [0.35, 0.35, 30],
      ] as const) {
        const own = roof(ell, (i) => eaves(i === 2 ? pitch : 40, { over: i === 2 ? over : i === 3 ? other : 0.35 }), {
          ends,
        });
        const { cut } = cutOf(own);
        const what = [ends, over, other, pitch];
        const { closed, flaps, volume } = prove(cut.mesh);
        expect([...what, cut.fault, closed, flaps]).toEqual([...what, null, true, 0]);
        const layered = prove(cutOf({ ...own, skins: 'layers' }).cut.mesh);
        expect([...what, layered.volume]).toEqual([...what, expect.closeTo(volume, 6)]);
      }
  });

  it('is closed between two inner corners from which lower eaves run on past an edge at both ends', () => {
    const you: Place[] = [
      [0, 0],
      [12, 0],
      [12, 9],
      [8, 9],
      [8, 4],
      [4, 4],
      [4, 9],
      [0, 9],
    ];
    // The court's inmost eaves reach out less than those beside them, and its sides' less than it.
    for (const [inmost, beside] of [
      [0.3, 0.42],
      [0.42, 0.3],
    ] as const) {
      const own = roof(you, (i) => eaves(40, { over: i === 4 ? inmost : i === 3 || i === 5 ? beside : 0.35 }));
      const { cut } = cutOf(own);
      const { closed, flaps } = prove(cut.mesh);
      expect([inmost, cut.fault, closed, flaps]).toEqual([inmost, null, true, 0]);
    }
  });

  it('is closed for every form, courts, arcs and lifted eaves among them', () => {
    const court = [
      rectangle.map(([x, y], i) => ({ id: `c${i}`, x: 6 + 0.8 * x, y: 5 + y, ...eaves(35) })),
    ] as RoofEdge[][];
    const forms: Record<string, Roof> = {
      'square at the eaves': roof(rectangle, () => eaves(40), { ends: 'square' }),
      'level at the eaves': roof(rectangle, () => eaves(40), { ends: 'level' }),
      'level at the eaves, half-hipped': roof(
        rectangle,
        (i) => (i % 2 ? { ...verge, hip: { from: 1.2, pitch: 50 } } : eaves(45)),
        { ends: 'level' },
      ),
      'level at eaves of unlike heights': roof(rectangle, (i) => eaves(25 + 12 * i, { lift: i === 1 ? 0.8 : 0 }), {
        ends: 'level',
      }),
      'level at the eaves of a cone': roof(
        [
          [-3, 0],
          [3, 0],
        ],
        () => eaves(50, { bulge: 1 }),
        { ends: 'level' },
      ),
      'level at the eaves, beside one that does not reach out': roof(
        rectangle,
        (i) => (i === 1 ? eaves(40, { over: 0 }) : i === 3 ? { is: 'abutment' } : eaves(40)),
        { ends: 'level' },
      ),
      'falling to its middle': roof(rectangle, () => eaves(-8), { ends: 'square' }),
      'falling, level at the eaves': roof(rectangle, (i) => (i % 2 ? verge : eaves(-15)), { ends: 'level' }),
      'square at the eaves, gabled': roof(rectangle, (i) => (i % 2 ? verge : eaves(35)), { ends: 'square' }),
      mansard: roof(rectangle, () => eaves(65, { second: { from: 2, pitch: 25 } })),
      'bell-cast': roof(rectangle, () => eaves(30, { second: { from: 0.8, pitch: 50 } })),
      'half-hipped': roof(rectangle, (i) => (i % 2 ? { ...verge, hip: { from: 1.2, pitch: 50 } } : eaves(45))),
      court: roof(
        [
          [0, 0],
          [20, 0],
          [20, 16],
          [0, 16],
        ],
        () => eaves(35),
        { courts: court },
      ),
      cone: roof(
        [
          [-3, 0],
          [3, 0],
        ],
        () => eaves(50, { bulge: 1 }),
      ),
      lifted: roof(rectangle, (i) => eaves(40, i === 1 ? { lift: 0.8 } : {})),
      'of unlike pitches': roof(rectangle, (i) => eaves(25 + 12 * i)),
      'stepped in one line': roof(
        [
          [0, 0],
          [4, 0],
          [10, 0],
          [10, 6],
          [0, 6],
        ],
        (i) => eaves(i === 1 ? 20 : 45),
      ),
      'L-shaped': roof(
        [
          [0, 0],
          [10, 0],
          [10, 4],
          [4, 4],
          [4, 10],
          [0, 10],
        ],
        (i) => (i % 3 === 1 ? verge : eaves(42)),
      ),
    };
    for (const [name, one] of Object.entries(forms)) {
      const { cut } = cutOf(one);
      expect([name, cut.fault?.reason ?? null]).toEqual([name, null]);
      expect([name, prove(cut.mesh).closed]).toEqual([name, true]);
      expect([name, prove(cutOf({ ...one, skins: 'layers' }).cut.mesh).volume]).toEqual([
        name,
        expect.closeTo(prove(cut.mesh).volume, 6),
      ]);
    }
  });

  it('is trimmed by boards and caps that are closed, lie on it, and not in each other', () => {
    const trims = {
      fascia: { height: 0.2, thickness: 0.025, material: 'stone' },
      barge: { height: 0.24, thickness: 0.03, material: 'stone' },
      cap: { width: 0.14, thickness: 0.02, material: 'stone' },
    };
    const solidOf = (mesh: CutMesh): Manifold => solidIn(library, mesh);
    const here = { start: { x: 0, y: 0, z: 0 }, turn: 0 };
    const along = { ...trims, verge: { width: 0.18, thickness: 0.02, material: 'stone' } };
    const forms: [Roof, number, typeof trims?][] = [
      [roof(rectangle, () => eaves(40), here), 4 + 5],
      [roof(rectangle, (i) => (i % 2 ? verge : eaves(40)), here), 2 + 2 + 1],
      [roof(rectangle, (i) => (i % 2 ? verge : eaves(40)), here), 2 + 2 + 1 + 2, along],
      // A half-hip has a piece on either side of it.
      [
        roof(rectangle, (i) => (i % 2 ? { ...verge, hip: { from: 1.2, pitch: 50 } } : eaves(40)), here),
        2 + 2 + 5 + 4,
        along,
      ],
      [
        roof(
          [
            [0, 0],
            [10, 0],
            [10, 4],
            [4, 4],
            [4, 10],
            [0, 10],
          ],
          () => eaves(40),
          here,
        ),
        6 + 7,
      ],
      // Many that meet in one point are cut back, each half way to the next.
      [
        roof(
          Array.from({ length: 8 }, (_, i): Place => [
            3 * Math.cos((i * Math.PI) / 4),
            3 * Math.sin((i * Math.PI) / 4),
          ]),
          () => eaves(40),
          here,
        ),
        8 + 8,
      ],
    ];
    for (const [one, count, has = trims] of forms) {
      const form = kinds.roof.form(one) as RoofForm;
      const body = roofBody(one, form);
      if ('code' in body) throw new Error(body.reason);
      const mesh = trimMesh(body, 'r', has);
      expect(prove(mesh).closed).toBe(true);
      const solids = solidOf(mesh).decompose();
      expect(solids).toHaveLength(count);
      const sum = solids.reduce((all, solid) => all + solid.volume(), 0);
      expect(solids.map((solid) => Math.sign(solid.volume()))).toEqual(solids.map(() => 1));
      // Caps that meet are cut half way between; where a hip comes up beside a ridge a sliver is shared.
      expect(library.Manifold.union(solids).volume()).toBeGreaterThan(sum * 0.998);
      const bare = solidOf(cutOf(one).cut.mesh);
      // Caps lie on the slopes: no more stands above the ridge than their thickness, plumb.
      expect(library.Manifold.union(solids).boundingBox().max[2]).toBeLessThan(
        bare.boundingBox().max[2] + 0.02 / Math.cos((50 * Math.PI) / 180) + 1e-4,
      );
      for (const solid of solids) expect(solid.intersect(bare).volume()).toBeLessThan(1e-5);
      expect(volumeOf({ ...one, trims: has })).toBeCloseTo(volumeOf(one) + sum, 4);
    }
  });

  it('says what keeps it from being made', () => {
    const fault = (one: Roof): string | undefined => cutOf(one).cut.fault?.code;
    expect(
      fault(
        roof(
          [
            [0, 0],
            [10, 6],
            [10, 0],
            [0, 6],
          ],
          () => eaves(40),
        ),
      ),
    ).toBe('crosses-itself');
    expect(fault(roof(rectangle, () => verge))).toBe('never-meets');
    expect(
      fault(
        roof(
          [
            [0, 0],
            [10, 0],
            [10, 6],
            [6, 6],
            [6, 3],
            [5.5, 3],
            [5.5, 6],
            [0, 6],
          ],
          () => eaves(40),
        ),
      ),
    ).toBe('over-too-far');
  });
});

describe('openings in a roof', () => {
  const gabled = roof(rectangle, (i) => (i % 2 ? verge : eaves(40)));
  const [slope, depth] = [(40 * Math.PI) / 180, 0.2];
  const on = (id: string, face: string | undefined, s: number, t: number, over: Partial<Opening> = {}): Opening =>
    opening(id, 'window', s, t, { ...(face ? { face } : {}), ...over });
  const whole = (): number => volumeOf(gabled);
  const size = (): { width: number; height: number } => project([], []).patterns.window!.sizes.a!.dimensions as never;

  beforeAll(async () => void (await solidLibrary()));

  it('are cut with their heads level and their sills plumb, unless the pattern says otherwise', () => {
    const { width, height } = size();
    const draws = 1 / Math.tan(slope) + Math.tan(slope);
    expect(whole() - volumeOf(gabled, [on('a', 'e0', 2, 1)])).toBeCloseTo(
      width * (height * depth + (depth * depth * draws) / 2),
      6,
    );
    const patterns = project([], []).patterns;
    for (const onSlope of ['square', 'plumb'] as const) {
      const document = project([gabled], [{ ...on('a', 'e0', 2, 1), element: 'r' }]);
      document.patterns.window = { ...patterns.window!, onSlope };
      const proof = prove(cutModel(document).cuts.get('r')!.mesh);
      expect(proof.closed).toBe(true);
      expect(whole() - proof.volume).toBeCloseTo(width * height * depth, 6);
    }
  });

  it('go down plumb through all planes that they lie over when set out from above, and say which', () => {
    const { width, height } = size();
    const made = cutModel(project([gabled], [{ ...on('a', undefined, 4.35, 2.85), element: 'r' }]));
    expect(made.statuses.get('a')).toMatchObject({
      state: 'cut',
      reason: 'it cuts South-east plane and North-west plane',
    });
    const proof = prove(made.cuts.get('r')!.mesh);
    expect(proof.closed).toBe(true);
    expect(whole() - proof.volume).toBeCloseTo((width * height * depth) / Math.cos(slope), 4);
  });

  it('say that what would stand in them is left out where they go down through planes', () => {
    const document = project([gabled], [{ ...on('a', undefined, 4.35, 2.85), element: 'r' }]);
    const infill = {
      seat: { from: 'outer', depth: 0 },
      gap: 0,
      frame: { width: 0.05, depth: 0.05, material: 'stone', joints: 'mitred' },
      field: { kind: 'glass', material: 'stone', thickness: 0.01 },
    };
    document.patterns.window = { ...document.patterns.window!, infill } as never;
    const { cuts, statuses } = cutModel(document);
    expect(cuts.get('r')!.parts).toEqual([]);
    expect(statuses.get('a')!.findings.map(({ code }) => code)).toEqual(['cuts-planes', 'part-left-out']);
    const plane = cutModel({
      ...document,
      openings: { a: { ...document.openings.a!, face: 'e0', up: { from: 'base', distance: 1 } } },
    });
    expect(plane.statuses.get('a')!.findings).toEqual([]);
    expect(plane.cuts.get('r')!.parts.length).toBeGreaterThan(0);
  });

  it('notch the ridge where they run over it, and are kept where their plane is gone', () => {
    const top = sheetsOf(project([gabled])).on('r', 'e0')!.height;
    const { cut, states } = cutOf(gabled, [on('a', 'e0', 4, top - 0.5)]);
    expect(states.a).toBe('notched');
    expect(prove(cut.mesh).closed).toBe(true);
    const turned = roof(rectangle, (i) => (i % 2 ? eaves(40) : verge));
    const model = cutModel(project([turned], [{ ...on('a', 'e0', 4, 1), element: 'r' }]));
    expect(model.statuses.get('a')).toMatchObject({ state: 'not cut', findings: [{ code: 'plane-gone' }] });
  });

  it('say so where their roof cannot be made, and nothing else fails', () => {
    const broken = roof(rectangle, () => verge);
    const { states } = cutOf(broken, [on('a', 'e0', 2, 1), on('b', undefined, 4, 2)]);
    expect(states).toEqual({ a: 'not cut', b: 'not cut' });
    const document = project([broken], [{ ...on('a', 'e0', 2, 1), element: 'r' }]);
    const { statuses, cuts } = cutModel(document);
    const found = findingsOf(document, { statuses, faultOf: (id) => cuts.get(id)?.fault ?? null });
    expect(found.map(({ code }) => code)).toEqual(expect.arrayContaining(['never-meets', 'element-faulty']));
  });

  it('that are taken out leave the roof as it was, vertex for vertex', () => {
    const bare = cutModel(project([gabled]));
    const document = project([gabled], [{ ...on('a', 'e0', 2, 1), element: 'r' }]);
    const back = cutModel(project([gabled]), cutModel(document, bare));
    expect([...back.cuts.get('r')!.mesh.points]).toEqual([...bare.cuts.get('r')!.mesh.points]);
    expect([...back.cuts.get('r')!.mesh.triangles]).toEqual([...bare.cuts.get('r')!.mesh.triangles]);
  });
});

describe('walls under a roof', () => {
  const ends = { start: 'mitred', end: 'mitred' } as const;
  const wall = (id: string, x: number, y: number, turn: number, length: number): Element => ({
    ...kinds.wall.fresh({ id, name: id, start: { x, y, z: 0 }, turn }, 'brick'),
    length,
    height: 5,
    ends,
    top: { kind: 'under', roof: 'r' },
  });
  const walls = [
    wall('south', 0, 0, 0, 10),
    wall('east', 10, 0, 90, 6),
    wall('north', 10, 6, 180, 10),
    wall('west', 0, 6, 270, 6),
  ];
  const under = (edge: (i: number) => object, z = 5): Roof =>
    roof(rectangle, edge, { start: { x: 0, y: 0, z }, turn: 0 });
  let library: ManifoldToplevel;
  beforeAll(async () => {
    library = await solidLibrary();
  });
  const solid = ({ mesh }: ElementCut): Manifold =>
    new library.Manifold(
      new library.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(mesh.points),
        triVerts: Uint32Array.from(mesh.triangles, (c) => mesh.vertices[c]!),
      }),
    );

  it.each<[string, (i: number) => object, number]>([
    ['gabled', (i) => (i % 2 ? verge : eaves(40)), 5],
    ['gabled, lower', (i) => (i % 2 ? verge : eaves(40)), 3],
    ['hipped', () => eaves(40), 5],
    ['half-hipped', (i) => (i % 2 ? { ...verge, hip: { from: 1.2, pitch: 50 } } : eaves(45)), 5],
    ['mansard', () => eaves(65, { second: { from: 2, pitch: 25 } }), 5],
    ['lean-to', (i) => (i === 0 ? eaves(25) : i === 2 ? { is: 'abutment' } : verge), 3],
  ])('reach up to its underside and not into it: %s', (_, edge, z) => {
    const { cuts } = cutModel(project([...walls, under(edge, z)]));
    const over = solid(cuts.get('r')!);
    for (const { id } of walls) {
      const cut = cuts.get(id)!;
      expect([id, cut.fault, prove(cut.mesh).closed]).toEqual([id, null, true]);
      const own = solid(cut);
      // No part of it in the roof; lifted by a millimetre, its whole top is.
      expect(Math.abs(own.intersect(over).volume())).toBeLessThan(1e-6);
      const lifted = own.translate([0, 0, 0.001]).intersect(over).volume();
      expect(lifted).toBeGreaterThan(0.001 * 0.4 * (cut.sheet.length - 0.4) * 0.999);
      // Mitred, walls fill their corners and meet there.
      const beside = solid(cuts.get(walls[(walls.findIndex((wall) => wall.id === id) + 1) % 4]!.id)!);
      expect(Math.abs(own.intersect(beside).volume())).toBeLessThan(1e-6);
    }
  });

  it('reach up to it as they bend: round corners, along arcs, set back or out from its eaves', () => {
    const bent = (first: object, runs: readonly object[], x: number, y: number, turn = 0): Element =>
      ({
        ...kinds.wall.fresh({ id: 'bent', name: 'bent', start: { x, y, z: 0 }, turn }, 'brick'),
        height: 5,
        top: { kind: 'under', roof: 'r' },
        ...first,
        runs,
      }) as Element;
    const corner = (length: number) => ({ length, turn: 90 });
    const shapes: [string, Element][] = [
      ['a ring of four', bent({ length: 10 }, [corner(6), corner(10), corner(6)], 0, 0)],
      ['three sides', bent({ length: 8 }, [corner(4), corner(8)], 1, 1)],
      [
        'an apse',
        bent(
          { length: 4 },
          [
            { turn: 0, length: 2 * Math.PI, sweep: 180 },
            { turn: 0, length: 4 },
          ],
          4,
          1,
        ),
      ],
      ['a wavy one', bent({ length: 3, sweep: 70 }, [{ turn: 0, length: 4, sweep: -110 }], 2, 2, 10)],
    ];
    const roofs: [string, Element][] = [
      ['gabled', under((i) => (i % 2 ? verge : eaves(40)))],
      ['hipped', under(() => eaves(35))],
      ['mansard', under(() => eaves(65, { second: { from: 1, pitch: 25 } }))],
    ];
    for (const [shape, own] of shapes)
      for (const [form, over] of roofs) {
        const what = `${shape}, ${form}`;
        const { cuts } = cutModel(project([own, over]));
        const cut = cuts.get('bent')!;
        expect([what, cut.fault, cut.sheet.joins, prove(cut.mesh).closed]).toEqual([what, null, [], true]);
        const level = cutModel(project([{ ...own, height: 1, top: { kind: 'level' } } as Element]));
        const plan = solid(level.cuts.get('bent')!).volume();
        const [stands, roofed] = [solid(cut), solid(cuts.get('r')!)];
        expect([what, Math.abs(stands.intersect(roofed).volume()) < 1e-4]).toEqual([what, true]);
        const lifted = stands.translate([0, 0, 0.001]).intersect(roofed).volume();
        expect([what, lifted / (0.001 * plan)]).toEqual([what, expect.closeTo(1, 2)]);
      }
  });

  it('reach up to it whichever way they run, in any number of layers, with a door in them', () => {
    const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    let made = 0;
    fc.assert(
      fc.property(
        fc.tuple(figure(0.5, 9.5), figure(0.5, 5.5), figure(0, 360)),
        fc.array(
          fc.record({ turn: figure(-60, 60), sweep: figure(-60, 60), length: figure(0.8, 2.5), round: fc.boolean() }),
          {
            minLength: 1,
            maxLength: 3,
          },
        ),
        fc.constantFrom<[string, (i: number) => object]>(
          ['gabled', (i) => (i % 2 ? verge : eaves(40))],
          ['hipped', (i) => eaves(30 + 5 * i)],
          ['mansard', () => eaves(65, { second: { from: 1, pitch: 25 } })],
        ),
        fc.boolean(),
        ([x, y, turn], runs, [, edge], layered) => {
          const parts = runs.map(({ round, ...run }) => ({
            ...run,
            sweep: round && Math.abs(run.sweep) > 1 ? run.sweep : 0,
          }));
          const [first, ...rest] = parts.map(({ sweep, turn: by, length }) => ({
            turn: by,
            length,
            ...(sweep ? { sweep } : {}),
          }));
          const own = {
            ...kinds.wall.fresh({ id: 'bent', name: 'bent', start: { x, y, z: 0 }, turn }, 'brick'),
            height: 5,
            top: { kind: 'under', roof: 'r' },
            length: first!.length,
            ...(first!.sweep ? { sweep: first!.sweep } : {}),
            ...(rest.length > 0 ? { runs: rest } : {}),
            layers: (layered ? [0.1, 0.3] : [0.4]).map((thickness) => ({ thickness, material: 'brick' })),
          } as Element;
          const level = { ...own, height: 1, top: { kind: 'level' } } as Element;
          const plan = cutModel(project([level])).cuts.get('bent')!;
          const within = (at: number, size: number): boolean =>
            plan.mesh.points.every((value, i) => i % 3 !== at || (value > 0 && value < size));
          if (plan.fault || !within(0, 10) || !within(1, 6)) return;
          made += 1;
          const { cuts } = cutModel(
            project([own, under(edge)], [{ ...opening('d', 'window', 0.7, 0), element: 'bent' }]),
          );
          const cut = cuts.get('bent')!;
          expect([cut.fault, prove(cut.mesh).closed]).toEqual([null, true]);
          const [stands, roofed] = [solid(cut), solid(cuts.get('r')!)];
          expect(Math.abs(stands.intersect(roofed).volume())).toBeLessThan(1e-3);
          const lifted = stands.translate([0, 0, 0.001]).intersect(roofed).volume();
          expect(lifted / (0.001 * solid(plan).volume())).toBeGreaterThan(0.97);
        },
      ),
      { numRuns: Number(process.env.UNDER_ROUNDS ?? 60) },
    );
    expect(made).toBeGreaterThan(5);
  });

  it('are level where it is split away, and go on under the part that it was split from', () => {
    const whole = under((i) => (i % 2 ? verge : eaves(40)));
    const split = {
      path: [
        { x: 4, y: 6 },
        { x: 4, y: 0 },
      ],
    };
    const half: Roof = { ...whole, splits: [split] };
    const other: Roof = { ...half, id: 'r2', splits: [{ path: [...split.path].reverse() }] };
    const south = (elements: Element[]) => cutModel(project(elements)).cuts.get('south')!;
    const high = ({ sheet }: ElementCut, s: number): number => {
      const { xs, ys, names, next } = sheet.outline;
      const e = names.findIndex((name, i) => name === 'top' && xs[i]! > s && xs[next[i]!]! <= s);
      const share = (s - xs[e]!) / (xs[next[e]!]! - xs[e]!);
      return ys[e]! + share * (ys[next[e]!]! - ys[e]!);
    };
    const raised = { ...walls[0]!, start: { x: 0, y: 2, z: 0 } } as Element;
    const [all, one, both] = [south([raised, whole]), south([raised, half]), south([raised, half, other])];
    const roofed = 5 + 2 * Math.tan((40 * Math.PI) / 180);
    expect([2, 6].map((s) => high(all, s))).toEqual([expect.closeTo(roofed, 9), expect.closeTo(roofed, 9)]);
    expect([2, 6].map((s) => high(both, s))).toEqual([expect.closeTo(roofed, 9), expect.closeTo(roofed, 9)]);
    const [left, right] = [2, 6].map((s) => high(one, s));
    // One side of the line is kept, and the wall steps there.
    expect(Math.max(left!, right!)).toBeCloseTo(roofed, 9);
    expect(Math.min(left!, right!)).toBe(5);
    for (const cut of [all, one, both]) expect([cut.fault, prove(cut.mesh).closed]).toEqual([null, true]);
    // By a plane that leans, what is below it goes.
    const leaning: Roof = { ...whole, splits: [{ at: { x: 5, y: 0, z: 0 }, turn: 0, tilt: 30 }] };
    const aslant = south([raised, leaning]);
    expect(prove(aslant.mesh).closed).toBe(true);
    const from = 5 - (roofed - 5) * Math.tan(Math.PI / 6);
    expect([from - 0.1, from + 0.1].map((s) => high(aslant, s))).toEqual([5, expect.closeTo(roofed, 9)]);
  });

  it('follow it when its pitch changes, and say where they cannot', () => {
    const at = (pitch: number): number =>
      cutModel(project([...walls, under((i) => (i % 2 ? verge : eaves(pitch)))])).cuts.get('east')!.sheet.height;
    expect(at(45)).toBeCloseTo(8, 9);
    expect(at(30)).toBeCloseTo(5 + 3 * Math.tan(Math.PI / 6), 9);
    const code = (elements: Element[]): string[] =>
      cutModel(project(elements))
        .cuts.get('south')!
        .sheet.joins.map((note) => note.code);
    expect(code(walls)).toContain('not-under');
    expect(code([...walls, under(() => verge)])).toContain('not-under');
    const low = cutModel(project([...walls, under((i) => (i % 2 ? verge : eaves(40)), -1)]));
    expect(low.cuts.get('south')!.fault?.code).toBe('roof-below');
  });
});
