/** What runs into what: leaves into reveals, by closed forms; parts of neighbours into each other, by solid booleans. */
import { describe, expect, it } from '@jest/globals';
import type { Element, Leaf, Part, Pattern, ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import Module, { type ManifoldToplevel } from 'manifold-3d';
import { demos, granary } from '@yard-arch/demo';
import { shipped, shippedMaterials } from '@yard-arch/edit';
import { cutModel, patternFront, type PartInstance } from '../src/index.ts';
import { withinOpenings } from '../src/infill/clashes.ts';
import { opening, project, wall } from './sample.ts';

const seat = 0.05;
const [width, frame, clearance] = [1, 0.05, 0.002];

/** What runs into what. @param before cut before */
function told(document: ProjectDocument, before?: ProjectDocument): string[] {
  return [...cutModel(document, before && cutModel(before)).statuses.values()].flatMap(({ findings }) =>
    findings.filter(({ code }) => code === 'runs-into').map(({ reason }) => reason),
  );
}

function withLeaf(over: Partial<Leaf>, pattern: Partial<Pattern> = {}): ProjectDocument {
  const p: Pattern = {
    id: 'p',
    name: 'Door',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width, height: 2 } } },
    reveal: { material: null },
    infill: {
      seat: { from: 'outer', depth: seat },
      gap: 0,
      frame: { width: frame, depth: 0.05, material: 'brick' },
      field: {
        kind: 'leaf',
        frame: { width: 0.08, depth: 0.05, material: 'brick' },
        clearance,
        hung: 'left',
        opens: 'inward',
        angle: 0,
        field: { kind: 'empty' },
        ...over,
      },
    },
    ...pattern,
  };
  return project([wall({ length: 6, height: 4 })], [opening('a', 'p', 2, 0.5)], { patterns: { p } });
}

describe('a leaf that stands open', () => {
  it('is told of once it stands in the jamb, and not before', () => {
    // From a right angle on its hinge’s side goes toward the jamb: by its length within the wall, or all of it.
    const thick = 0.4;
    const hinge = frame + clearance;
    const long = Math.min(width - 2 * (frame + clearance), thick - seat - 0.05);
    const most = 90 + (Math.asin(hinge / long) * 180) / Math.PI;
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 175 }), fc.constantFrom('left', 'right'), (angle, hung) => {
        if (Math.abs(angle - most) < 6) return;
        expect([angle, told(withLeaf({ angle, hung })).length]).toEqual([angle, angle > most ? 1 : 0]);
      }),
      { numRuns: 40 },
    );
  });

  it('with a round head runs into it where it opens within the reveal, but not where it stands at the face behind', () => {
    const arched: Partial<Pattern> = {
      profile: { shape: 'semicircular-arch' },
      sizes: { a: { id: 'a', name: '', dimensions: { span: width, height: 2 } } },
    };
    expect(told(withLeaf({ angle: 80 }, arched))).toEqual(['its leaf runs into the reveal as it stands open']);
    const document = withLeaf({ angle: 80 }, arched);
    const { infill } = document.patterns.p!;
    const behind = { ...document.patterns.p!, infill: { ...infill!, seat: { from: 'inner' as const, depth: 0 } } };
    expect(told({ ...document, patterns: { p: behind } })).toEqual([]);
  });

  it('that slides, or is shut, runs into nothing', () => {
    expect(told(withLeaf({ hung: 'slides left', slid: 0.9 }))).toEqual([]);
    expect(told(withLeaf({}))).toEqual([]);
  });
});

/** How much room two parts share where they stand, cubic metres, by solid booleans. */
function shareOf(kernel: ManifoldToplevel, a: PartInstance, b: PartInstance): number {
  const [one, other] = [a, b].map(({ part: { mesh }, placement: { origin, x, y, z } }) => {
    const vertProperties = new Float32Array(mesh.points.length);
    for (let i = 0; i < mesh.points.length; i += 3)
      for (let k = 0; k < 3; k++)
        vertProperties[i + k] =
          origin[k]! + x[k]! * mesh.points[i]! + y[k]! * mesh.points[i + 1]! + z[k]! * mesh.points[i + 2]!;
    const triVerts = mesh.triangles.map((corner) => mesh.vertices[corner]!);
    return new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties, triVerts }));
  }) as [InstanceType<ManifoldToplevel['Manifold']>, InstanceType<ManifoldToplevel['Manifold']>];
  const common = one.intersect(other);
  const volume = common.volume();
  for (const made of [one, other, common]) made.delete();
  return volume;
}

/** One closed solid of a part, with its box; in directions of the opening's own, near its origin, where 32-bit figures are fine. */
interface Solid {
  name: string;
  solid: InstanceType<ManifoldToplevel['Manifold']>;
  low: number[];
  high: number[];
}

/** The closed solids of which a part's mesh is made, but for what is a sheet. */
function solidsOf(kernel: ManifoldToplevel, { part, id, placement }: PartInstance): Solid[] {
  const { points, vertices, triangles, runs, vertexCount } = part.mesh;
  const parent = Uint32Array.from({ length: vertexCount }, (_, i) => i);
  const root = (v: number): number => {
    while (parent[v] !== v) v = parent[v] = parent[parent[v]!]!;
    return v;
  };
  const solid = runs
    .filter(({ role }) => role !== 'sheet')
    .flatMap(({ first, count }) => Array.from({ length: count }, (_, i) => first + i));
  const cornersOf = (t: number): number[] => [0, 1, 2].map((k) => vertices[triangles[3 * t + k]!]!);
  for (const t of solid) {
    const [a, b, c] = cornersOf(t).map(root) as [number, number, number];
    parent[b] = a;
    parent[root(c)] = a;
  }
  const groups = new Map<number, number[]>();
  for (const t of solid) groups.set(root(cornersOf(t)[0]!), [...(groups.get(root(cornersOf(t)[0]!)) ?? []), t]);
  const { origin, x, y, z } = placement;
  const middle = [3.5, 0, 1];
  return [...groups.values()].map((group) => {
    const places = new Map<number, number>();
    const vertProperties: number[] = [];
    const triVerts = group.flatMap(cornersOf).map((v) => {
      let place = places.get(v);
      if (place === undefined) {
        places.set(v, (place = places.size));
        for (let k = 0; k < 3; k++)
          vertProperties.push(
            origin[k]! - middle[k]! + x[k]! * points[3 * v]! + y[k]! * points[3 * v + 1]! + z[k]! * points[3 * v + 2]!,
          );
      }
      return place;
    });
    const along = (k: number): number[] => vertProperties.filter((_, i) => i % 3 === k);
    return {
      name: `${part.name} (${id}) of ${runs.find(({ first, count }) => group[0]! >= first && group[0]! < first + count)!.material}`,
      solid: new kernel.Manifold(
        new kernel.Mesh({
          numProp: 3,
          vertProperties: Float32Array.from(vertProperties),
          triVerts: Uint32Array.from(triVerts),
        }),
      ),
      low: [0, 1, 2].map((k) => Math.min(...along(k))),
      high: [0, 1, 2].map((k) => Math.max(...along(k))),
    };
  });
}

/** How deep one solid is in another, metres: what they share, over half of its surface. */
function depthOf(a: Solid, b: Solid): number {
  if ([0, 1, 2].some((k) => a.low[k]! > b.high[k]! - 1e-4 || b.low[k]! > a.high[k]! - 1e-4)) return 0;
  const common = a.solid.intersect(b.solid);
  const [volume, area] = [common.volume(), common.surfaceArea()];
  common.delete();
  return area > 0 ? (2 * volume) / area : 0;
}

const band: Part = {
  id: 'b',
  kind: 'surround',
  material: 'brick',
  width: 0.15,
  thickness: 0.03,
  sides: ['jamb-left', 'jamb-right', 'head'],
};

describe('parts of neighbours', () => {
  it('are told of just where they share room', async () => {
    const kernel = await Module();
    kernel.setup();
    const sill = (horns: number): Part => ({
      id: 's',
      kind: 'sill board',
      material: 'brick',
      thickness: 0.05,
      nosing: 0.06,
      horns,
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: -300, max: 300 }),
        (gap, horns, up) => {
          const pattern = (id: string, part: Part): Pattern => ({
            id,
            name: id,
            profile: { shape: 'rectangle' },
            sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1 } } },
            reveal: { material: null },
            parts: [part],
          });
          const document = project(
            [wall({ length: 6, height: 4 })],
            [opening('a', 'p', 1, 1), opening('b', 'q', 1.8 + gap / 1000, 1 + up / 1000)],
            { patterns: { p: pattern('p', sill(horns / 1000)), q: pattern('q', band) } },
          );
          const parts = cutModel(document).cuts.get('w1')!.parts;
          const shared = shareOf(kernel, parts[0]!, parts[1]!);
          // What only touches, or shares a hair, may be told or not.
          if (shared > 0 && shared < 1e-5) return;
          expect([gap, horns, up, told(document).length]).toEqual([gap, horns, up, shared > 0 ? 1 : 0]);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('parts of one opening', () => {
  it('are told of just where they share room, each pair once', async () => {
    const kernel = await Module();
    kernel.setup();
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 10, max: 300 }),
        fc.integer({ min: 0, max: 90 }),
        (horns, reach, angle) => {
          const board: Part = {
            id: 's',
            kind: 'sill board',
            material: 'brick',
            thickness: 0.06,
            nosing: 0.05,
            horns: horns / 1000,
            reach: reach / 1000,
          };
          const document = withLeaf({ angle, opens: 'outward' }, { parts: [board, band] });
          const parts = cutModel(document).cuts.get('w1')!.parts;
          const own = ({ id }: PartInstance): string => (id.startsWith('leaf') ? 'infill' : id);
          const pairs = parts.flatMap((a, i) => parts.slice(i + 1).map((b) => [a, b] as const));
          const shared = pairs
            .filter(([a, b]) => own(a) !== own(b))
            .map(([a, b]) => [`its ${a.part.name} runs into its ${b.part.name}`, shareOf(kernel, a, b)] as const);
          if (shared.some(([, volume]) => volume > 0 && volume < 1e-5)) return;
          const words = told(document).filter((reason) => !reason.includes('reveal'));
          expect([horns, reach, angle, words.join('; ')]).toEqual([
            horns,
            reach,
            angle,
            shared.flatMap(([reason, volume]) => (volume > 0 ? [reason] : [])).join('; '),
          ]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('that ship lie in nothing of one another, in any of their sizes, shut and open', async () => {
    const kernel = await Module();
    kernel.setup();
    let looked = 0;
    for (const pattern of shipped)
      for (const [size, { dimensions }] of Object.entries(pattern.sizes))
        for (const open of [undefined, 0]) {
          const document: ProjectDocument = {
            ...project([wall({ length: 12, height: 8 })], [], { patterns: { p: pattern } }),
            materials: { ...project([], []).materials, ...shippedMaterials },
          };
          const own = { ...opening('a', 'p', 3, 0), size, ...(open === undefined ? {} : { open }) };
          const cut = cutModel({ ...document, openings: { a: own } }).cuts.get('w1')!;
          const solids = cut.parts.flatMap((part) => solidsOf(kernel, part));
          for (const [i, a] of solids.entries())
            for (const b of solids.slice(i + 1)) {
              looked += 1;
              const deep = depthOf(a, b);
              if (deep > 2e-4)
                throw new Error(`${pattern.name} ${size} ${open ?? ''}: ${a.name} ${deep} m in ${b.name}`);
            }
          for (const { solid } of solids) solid.delete();
          expect([pattern.name, patternFront(pattern, dimensions, 'mm').reason]).toEqual([pattern.name, null]);
        }
    expect(looked).toBeGreaterThan(10_000);
  });
});

describe('what stands in openings, and other elements', () => {
  const board: Part = { id: 's', kind: 'sill board', material: 'brick', thickness: 0.05, nosing: 0.06, horns: 0.1 };
  const pattern: Pattern = {
    id: 'p',
    name: 'p',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width: 0.8, height: 1 } } },
    reveal: { material: null },
    parts: [board],
  };

  it('are told of just where they share room', async () => {
    const kernel = await Module();
    kernel.setup();
    fc.assert(
      fc.property(
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: -90, max: 90 }),
        (x, before, turn) => {
          // Another wall before the first, turned about its start.
          const other = wall({
            id: 'w2',
            name: 'Quay wall',
            length: 1.3,
            height: 3,
            turn,
            start: { x: 2 + x / 100, y: -before / 100, z: 0 },
          });
          const document = project([wall(), other], [opening('a', 'p', 2, 1)], { patterns: { p: pattern } });
          const model = cutModel(document);
          const mesh = model.cuts.get('w2')!.mesh;
          const asPart = {
            part: { key: '', name: '', mesh },
            placement: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] },
          } as unknown as PartInstance;
          const shared = shareOf(kernel, model.cuts.get('w1')!.parts[0]!, asPart);
          if (shared > 0 && shared < 1e-5) return;
          const expected = shared > 0 ? ['its sill board runs into “Quay wall”'] : [];
          expect([x, before, turn, told(document)]).toEqual([x, before, turn, expected]);
        },
      ),
      { numRuns: 120 },
    );
  });

  it('of the granary stand clear of its undercroft, which is told where it is lowered into them', () => {
    const document = granary();
    expect(told(document)).toEqual([]);
    const lower = Object.fromEntries(
      Object.values(document.elements).map((one): [string, Element] => [
        one.id,
        one.group === 'Undercroft' ? { ...one, start: { ...one.start, z: 1.05 } } : one,
      ]),
    );
    const lowered = { ...document, elements: lower };
    const found = told(lowered);
    expect(found).toContain('its surround runs into “Undercroft 1”');
    // After an edit as from nothing, and back.
    expect(told(lowered, document)).toEqual(found);
    expect(told(document, lowered)).toEqual([]);
  });
});

describe('a dormer and its window', () => {
  it('stand clear of one another on any slope, and are told of where they do not', async () => {
    const kernel = await Module();
    kernel.setup();
    const document = demos.dormers!();
    let windows = 0;
    for (const { parts } of cutModel(document).cuts.values()) {
      const own = parts.filter(({ id }) => id.includes(' window '));
      for (const window of own) {
        const dormer = parts.find(({ opening, part }) => opening === window.opening && part.name === 'dormer')!;
        windows += 1;
        expect([window.opening, shareOf(kernel, dormer, window) < 1e-6]).toEqual([window.opening, true]);
        expect(withinOpenings([dormer, window])).toEqual([]);
        const { origin } = window.placement;
        const sunk = {
          ...window,
          placement: { ...window.placement, origin: [origin[0], origin[1], origin[2] - 0.02] as const },
        };
        if (window.part.name === 'infill') expect(withinOpenings([dormer, sunk]).length).toBe(1);
      }
    }
    expect(windows).toBeGreaterThan(5);
  });
});
