/** Infill: closed solids that together fill just what they are to fill, sections that no size makes wider, one mesh for all alike, and leaves that turn about their hinges. */
import { describe, expect, it } from '@jest/globals';
import {
  firstChoice,
  firstDimensions,
  profileShapes,
  type Divided,
  type Field,
  type Infill,
  type Leaf,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
} from '@yard-arch/document';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import fc from 'fast-check';
import { decode } from 'fast-png';
import { drawPicture, objFiles, writeGlb } from '../src/format/index.ts';
import { cutModel, prove, reportOn, resolveOpening, type PartInstance, type Placed } from '../src/index.ts';
import { areaOf, areaWithin, extentOf, moved } from '../src/infill/area.ts';
import { placesOf } from '../src/infill/divide.ts';
import { infillOf } from '../src/infill/infill.ts';
import { opening, project, wall } from './sample.ts';

const depth = 0.07;
const glass = (thickness = 0.02): Field => ({ kind: 'glass', material: 'stone', thickness });
const plain: Infill = {
  seat: { from: 'outer', depth: 0.1 },
  gap: 0,
  frame: { width: 0.06, depth, material: 'brick' },
  field: glass(),
};
const divided = (over: Partial<Divided> = {}): Divided => ({
  kind: 'divided',
  way: 'mullions',
  bar: { width: 0.05, depth, material: 'brick' },
  lights: { kind: 'equal', count: 3 },
  fields: [glass()],
  ...over,
});
const leaf = (over: Partial<Leaf> = {}): Leaf => ({
  kind: 'leaf',
  frame: { width: 0.05, depth: 0.06, material: 'brick' },
  clearance: 0.004,
  hung: 'left',
  opens: 'inward',
  angle: 0,
  field: glass(),
  ...over,
});

/** A wall with one opening of a shape with an infill. */
function withInfill(
  infill: Infill,
  shape: ProfileShape = 'rectangle',
  dimensions: Record<string, number> = firstDimensions(shape),
  more: Partial<Pattern> = {},
): ProjectDocument {
  const pattern: Pattern = {
    id: 'p',
    name: 'Filled',
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions } },
    reveal: { material: null },
    infill,
    ...more,
  };
  return project([wall({ length: 12, height: 9 })], [opening('a', 'p', 2, 1)], { patterns: { p: pattern } });
}

const placedIn = (document: ProjectDocument): Placed => resolveOpening(document, document.openings.a!) as Placed;
const partsIn = (document: ProjectDocument): readonly PartInstance[] => cutModel(document).cuts.get('w1')!.parts;
const volumeOf = (parts: readonly PartInstance[]): number =>
  parts.reduce((sum, { part }) => sum + prove(part.mesh).volume, 0);
const reasonOf = (document: ProjectDocument): string | null => cutModel(document).statuses.get('a')!.reason;

describe('an infill', () => {
  it('of a frame and a pane is as much as they are', () => {
    const parts = partsIn(withInfill(plain, 'rectangle', { width: 1.2, height: 1.5 }));
    expect(parts.map(({ part }) => part.name)).toEqual(['infill']);
    const [w, h] = [1.2 - 0.12, 1.5 - 0.12];
    expect(volumeOf(parts)).toBeCloseTo((1.2 * 1.5 - w * h) * depth + w * h * 0.02, 9);
    expect(prove(parts[0]!.part.mesh)).toMatchObject({ closed: true, collapsed: 0 });
  });

  it('stands at its seat: behind the face, before the face behind, or behind the check', () => {
    const front = (infill: Infill, more: Partial<Pattern> = {}): [number, number] => {
      const [{ part }] = partsIn(withInfill(infill, 'rectangle', { width: 1, height: 1 }, more)) as [PartInstance];
      const ys = Array.from({ length: part.mesh.points.length / 3 }, (_, i) => part.mesh.points[3 * i + 1]!);
      return [Math.min(...ys), Math.max(...ys)];
    };
    const at = (seat: Infill['seat'], more: Partial<Pattern> = {}) =>
      front({ ...plain, field: { kind: 'empty' }, seat }, more).map((y) => Math.round(y * 1e6) / 1e6);
    expect(at({ from: 'outer', depth: 0.1 })).toEqual([0.1, 0.17]);
    expect(at({ from: 'inner', depth: 0.05 })).toEqual([0.28, 0.35]);
    const check = { checks: [{ depth: 0.12, step: 0.03 }] };
    expect(
      at({ from: 'check', depth: 0 }, { sections: { 'jamb-left': check, 'jamb-right': check, head: check } }),
    ).toEqual([0.12, 0.19]);
    const layers = { from: 'layer', depth: 0.01 } as const;
    expect(at(layers)).toEqual([0.01, 0.08]);
    expect(reasonOf(withInfill({ ...plain, seat: { ...layers, layer: 3 } }))).toContain(
      'in layer 3, and its wall has 1',
    );
  });

  it('stands at a layer of its wall, counted from the face that it is set out on', () => {
    const document = withInfill({ ...plain, seat: { from: 'layer', layer: 2, depth: 0 }, field: { kind: 'empty' } });
    const layers = [0.11, 0.1, 0.19].map((thickness) => ({ thickness, material: 'brick' }));
    const front = (face: 'outer' | 'inner'): number => {
      const [{ part }] = partsIn({
        ...document,
        elements: { w1: { ...document.elements.w1!, layers } },
        openings: { a: { ...document.openings.a!, face } },
      }) as [PartInstance];
      return Math.min(...part.mesh.points.filter((_, i) => i % 3 === 1));
    };
    expect([front('outer'), front('inner')].map((y) => Math.round(y * 1e6) / 1e6)).toEqual([0.11, 0.19]);
  });

  it('has single sheets for glass where it is asked to: a face in the middle of each pane, and the rest as it was', () => {
    const double = { kind: 'glass', material: 'stone', thickness: 0.006, panes: 2 } as const;
    const meshOf = (field: Field) => partsIn(withInfill({ ...plain, field }))[0]!.part.mesh;
    const [solid, sheets] = [meshOf(double), meshOf({ ...double, sheet: true })];
    const own = sheets.runs.filter(({ role }) => role === 'sheet');
    expect(own.map(({ count }) => count)).toEqual([4]);
    expect(solid.triangles.length - sheets.triangles.length).toBe(3 * 2 * (12 - 2));
    expect(prove(sheets).openEdges).toBe(8);
    // The check takes no offence at them.
    const document = withInfill({ ...plain, field: { ...double, sheet: true } });
    expect(reportOn(document, cutModel(document))).toMatchObject({
      sound: true,
      elements: [{ parts: { infill: { count: 1, meshes: 1, closed: true } } }],
    });
  });

  it('behind a check is as wide as the reveal is there, and leaves its gap all round', () => {
    const check = { checks: [{ depth: 0.1, step: 0.03 }] };
    const sections = { 'jamb-left': check, 'jamb-right': check, head: check };
    const document = withInfill(
      { ...plain, gap: 0.005, field: { kind: 'empty' } },
      'rectangle',
      { width: 1, height: 1 },
      { sections },
    );
    const [{ part }] = partsIn(document) as [PartInstance];
    const xs = Array.from({ length: part.mesh.points.length / 3 }, (_, i) => part.mesh.points[3 * i]!);
    const zs = Array.from({ length: part.mesh.points.length / 3 }, (_, i) => part.mesh.points[3 * i + 2]!);
    expect([Math.min(...xs), Math.max(...xs)].map((x) => Math.round(x * 1e6) / 1e6)).toEqual([-0.525, 0.525]);
    expect([Math.min(...zs), Math.max(...zs)].map((z) => Math.round(z * 1e6) / 1e6)).toEqual([0.005, 1.025]);
  });

  it.each(Object.keys(profileShapes) as ProfileShape[])('of a %s is closed, or says why there is none', (shape) => {
    const document = withInfill({ ...plain, frame: { ...plain.frame, width: 0.03 } }, shape);
    const parts = partsIn(document);
    if (parts.length === 0) return expect(reasonOf(document)).toMatch(/islands|too small|leaves no room/);
    for (const { part } of parts)
      expect([part.name, prove(part.mesh)]).toEqual([
        'infill',
        expect.objectContaining({ closed: true, collapsed: 0, openEdges: 0 }),
      ]);
  });

  it('whose panes are as deep as its frame fills all that it stands in, however it is divided', () => {
    const shapes = ['rectangle', 'semicircular-arch', 'segmental-arch', 'pointed-arch', 'ellipse'] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...shapes),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 2, max: 4 }),
        fc.double({ min: 0.02, max: 0.05, noNaN: true }),
        fc.constantFrom(...(['mullions', 'transoms'] as const)),
        (shape, count, other, width, way) => {
          const bar = { width, depth, material: 'brick' };
          const across: Field = divided({
            way: way === 'mullions' ? 'transoms' : 'mullions',
            bar,
            lights: { kind: 'equal', count: other },
            fields: [glass(depth)],
          });
          const field = divided({ way, bar, lights: { kind: 'equal', count }, fields: [across, glass(depth)] });
          const document = withInfill({ ...plain, frame: { ...plain.frame, width }, field }, shape);
          const parts = partsIn(document);
          if (parts.length === 0) return expect(reasonOf(document)).toMatch(/no light|comes apart|nothing of it/);
          const whole = areaWithin(areaOf(placedIn(document).outline)!.points) * depth;
          expect(volumeOf(parts)).toBeCloseTo(whole, 7);
          for (const { part } of parts) expect(prove(part.mesh)).toMatchObject({ closed: true });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('keeps its sections whatever its size', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 5, noNaN: true }),
        fc.double({ min: 0.4, max: 4, noNaN: true }),
        (width, height) => {
          const document = withInfill(plain, 'rectangle', { width, height });
          const own = areaOf(placedIn(document).outline)!;
          const within = moved(own, () => -plain.frame.width)!;
          expect(extentOf(within.area, 0)[1] - extentOf(within.area, 0)[0]).toBeCloseTo(width - 0.12, 9);
          expect(within.strips.reduce((sum, { points }) => sum + areaWithin(points), 0)).toBeCloseTo(
            width * height - (width - 0.12) * (height - 0.12),
            9,
          );
        },
      ),
    );
  });

  it('leaves a side without a member, and ends its neighbours there', () => {
    const parts = partsIn(
      withInfill({ ...plain, field: { kind: 'empty' }, frame: { ...plain.frame, without: ['sill'] } }, 'rectangle', {
        width: 1,
        height: 2,
      }),
    );
    expect(prove(parts[0]!.part.mesh)).toMatchObject({ closed: true, collapsed: 0 });
    expect(volumeOf(parts)).toBeCloseTo((1 * 2 - 0.88 * 1.94) * depth, 9);
  });

  it('is one mesh for all that are alike, and another for another size', () => {
    const document = withInfill(plain, 'rectangle', { width: 0.8, height: 1 });
    const pattern = document.patterns.p!;
    const sizes = { ...pattern.sizes, b: { id: 'b', name: '', dimensions: { width: 1, height: 1 } } };
    const openings = Object.fromEntries(
      Array.from({ length: 9 }, (_, i) => [
        `o${i}`,
        opening(`o${i}`, 'p', 0.3 + 1.2 * i, 1, { size: i < 7 ? 'a' : 'b' }),
      ]),
    );
    const parts = partsIn({ ...document, openings, patterns: { p: { ...pattern, sizes } } });
    expect(parts).toHaveLength(9);
    expect(new Set(parts.map(({ part }) => part)).size).toBe(2);
  });

  it.each<[string, Infill, ProfileShape, RegExp]>([
    [
      'too small for its frame',
      { ...plain, frame: { ...plain.frame, width: 0.7 } },
      'rectangle',
      /too small for its frame/,
    ],
    ['deeper than its reveal', { ...plain, seat: { from: 'outer', depth: 0.39 } }, 'rectangle', /depth of its reveal/],
    ['behind a check that there is not', { ...plain, seat: { from: 'check', depth: 0 } }, 'rectangle', /no check/],
    [
      'of lights that leave none',
      { ...plain, field: divided({ lights: { kind: 'equal', count: 40 } }) },
      'rectangle',
      /no light/,
    ],
    [
      'of a leaf that has no room',
      { ...plain, field: leaf({ frame: { width: 0.6, depth, material: 'brick' } }) },
      'rectangle',
      /too small for its leaf/,
    ],
  ])('%s is left out, and says so', (_, infill, shape, reason) => {
    const document = withInfill(infill, shape);
    expect(partsIn(document)).toEqual([]);
    expect(reasonOf(document)).toMatch(reason);
    expect(
      cutModel(document)
        .statuses.get('a')!
        .findings.map(({ code }) => code),
    ).toContain('part-left-out');
  });
});

describe('lights', () => {
  it('are equal, or as many as keep each small enough', () => {
    const lightsOf = (places: readonly number[], room: number, bar: number): number[] => {
      const ends = [0, ...places.flatMap((place) => [place - bar / 2, place + bar / 2]), room];
      return Array.from({ length: ends.length / 2 }, (_, i) => ends[2 * i + 1]! - ends[2 * i]!);
    };
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 6, noNaN: true }),
        fc.double({ min: 0.02, max: 0.08, noNaN: true }),
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        (room, bar, size) => {
          const most = lightsOf(placesOf({ kind: 'at most', size }, room, bar), room, bar);
          expect(Math.max(...most)).toBeLessThanOrEqual(size + 1e-9);
          expect(Math.max(...most) - Math.min(...most)).toBeLessThan(1e-9);
          // One fewer would be too large.
          const fewer = (room - (most.length - 2) * bar) / (most.length - 1);
          if (most.length > 1) expect(fewer).toBeGreaterThan(size - 1e-9);
        },
      ),
    );
    expect(lightsOf(placesOf({ kind: 'equal', count: 4 }, 2, 0.08), 2, 0.08).map((x) => Math.round(x * 1e6))).toEqual(
      Array.from({ length: 4 }, () => 440_000),
    );
  });

  it('stand at kept distances and shares, which a larger field leaves as they are', () => {
    const lights = {
      kind: 'at' as const,
      places: [
        { from: 'end' as const, value: 0.5 },
        { from: 'start' as const, value: 0.3 },
        { from: 'share' as const, value: 0.5 },
      ],
    };
    expect(placesOf(lights, 2, 0.05)).toEqual([0.3, 1, 1.5]);
    expect(placesOf(lights, 4, 0.05)).toEqual([0.3, 2, 3.5]);
  });
});

describe('leaves that fold', () => {
  it('vary together, so that they stay on one another', () => {
    const folding = leaf({ hung: 'folds left', folds: 3, angle: 40, vary: 30 });
    const parts = partsIn(withInfill({ ...plain, field: folding }, 'rectangle', { width: 2.4, height: 2 }));
    const turns = parts
      .filter(({ part }) => part.name === 'leaf')
      .map(({ placement: { x } }) => Math.round((Math.atan2(x[1], x[0]) * 180) / Math.PI));
    expect(turns).toHaveLength(3);
    // To and fro by as much: the first and the third stand alike, the second the other way.
    expect(turns[1]).toBe(-turns[0]!);
    expect(turns[2]).toBe(turns[0]);
    expect(Math.abs(turns[0]!)).toBeGreaterThan(9);
  });
});

describe('a leaf', () => {
  const cornersOf = ({ part: { mesh }, placement: { origin, x, y, z } }: PartInstance): [number, number, number][] =>
    Array.from({ length: mesh.points.length / 3 }, (_, i) => {
      const [a, b, c] = [mesh.points[3 * i]!, mesh.points[3 * i + 1]!, mesh.points[3 * i + 2]!];
      return [0, 1, 2].map((k) => origin[k]! + x[k]! * a + y[k]! * b + z[k]! * c) as [number, number, number];
    });
  const leafIn = (over: Partial<Leaf>): PartInstance =>
    partsIn(withInfill({ ...plain, field: leaf(over) }, 'rectangle', { width: 1, height: 2 })).find(
      ({ part }) => part.name === 'leaf',
    )!;

  it('is a mesh of its own that turns, and the same one at every angle', () => {
    const [shut, open] = [leafIn({ angle: 0 }), leafIn({ angle: 75 })];
    expect(prove(shut.part.mesh)).toMatchObject({ closed: true, collapsed: 0 });
    expect(open.part).toBe(shut.part);
    expect(leafIn({ hung: 'fixed' })).toBeUndefined();
  });

  it.each([
    ['left', 'inward', 0, 1],
    ['right', 'inward', 0, 1],
    ['left', 'outward', 0, -1],
    ['top', 'outward', 2, -1],
    ['bottom', 'inward', 2, 1],
  ] as const)(
    'hung on the %s and opened %s by a right angle reaches that way by its own width or height',
    (hung, opens, axis, way) => {
      const [shut, open] = [leafIn({ hung, opens, angle: 0 }), leafIn({ hung, opens, angle: 90 })];
      const reach = (corners: [number, number, number][], k: number): [number, number] => [
        Math.min(...corners.map((corner) => corner[k]!)),
        Math.max(...corners.map((corner) => corner[k]!)),
      ];
      // The wall's inside is at larger y.
      const [before, after] = [reach(cornersOf(shut), 1), reach(cornersOf(open), 1)];
      const size = reach(cornersOf(shut), axis);
      if (way > 0) expect(after[1] - before[1]).toBeCloseTo(size[1] - size[0], 6);
      else expect(before[0] - after[0]).toBeCloseTo(size[1] - size[0], 6);
      // The hinge stays where it is.
      const sorted = reach(cornersOf(open), axis);
      const hinge = hung === 'left' || hung === 'bottom' ? 0 : 1;
      expect(sorted[hinge]).toBeCloseTo(size[hinge]!, 6);
      expect(prove(open.part.mesh).closed).toBe(true);
    },
  );

  it('stands as its opening says, on the same mesh, and anew when that changes', () => {
    const at = (open: number | undefined, before?: ReturnType<typeof cutModel>) => {
      const document = withInfill({ ...plain, field: leaf({ angle: 20 }) }, 'rectangle', { width: 1, height: 2 });
      const own = open === undefined ? document.openings.a! : { ...document.openings.a!, open };
      const model = cutModel({ ...document, openings: { a: own } }, before);
      return { model, one: model.cuts.get('w1')!.parts.find(({ part }) => part.name === 'leaf')! };
    };
    const [usual, own] = [at(undefined), at(90)];
    expect(own.one.part).toBe(usual.one.part);
    expect(own.one.placement.x[0]).toBeCloseTo(0, 12);
    expect(usual.one.placement.x[0]).toBeCloseTo(Math.cos(Math.PI / 9), 12);
    expect(at(20).one.placement).toEqual(usual.one.placement);
    expect(at(0).one.placement.x).toEqual([1, 0, 0]);
    expect(at(45, usual.model).one.placement.x[0]).toBeCloseTo(Math.SQRT1_2, 12);
  });

  it('hung in another turns with it, and by itself; what the opening says is said of the outer one', () => {
    const vent = leaf({
      hung: 'top',
      opens: 'outward',
      angle: 30,
      frame: { width: 0.03, depth: 0.04, material: 'brick' },
    });
    const at = (angle: number, open?: number) => {
      const field = leaf({
        angle,
        field: divided({ way: 'transoms', lights: { kind: 'equal', count: 2 }, fields: [glass(), vent] }),
      });
      const document = withInfill({ ...plain, field }, 'rectangle', { width: 1, height: 2 });
      const own = { ...document.openings.a!, ...(open === undefined ? {} : { open }) };
      return partsIn({ ...document, openings: { a: own } }).filter(({ part }) => part.name === 'leaf');
    };
    const [shutDoor, shutVent] = at(0);
    const [door, within] = at(90);
    expect(within!.part).toBe(shutVent!.part);
    // Seen from the door, the vent stands as it stood.
    const seen = (outer: PartInstance, inner: PartInstance): number[] =>
      [outer.placement.x, outer.placement.y, outer.placement.z].flatMap((axis) =>
        [inner.placement.x, inner.placement.y, inner.placement.z].map((other) =>
          axis.reduce((sum, value, k) => sum + value * other[k]!, 0),
        ),
      );
    seen(door!, within!).forEach((value, i) => expect(value).toBeCloseTo(seen(shutDoor!, shutVent!)[i]!, 12));
    // The top edge, about which it turns, is where the door has it.
    const hinge = cornersOf(within!).filter(
      ([, , z]) => z > Math.max(...cornersOf(within!).map((corner) => corner[2])) - 0.05,
    );
    const doorPlane = cornersOf(door!).map(([x]) => x);
    for (const [x] of hinge) {
      expect(x).toBeGreaterThan(Math.min(...doorPlane) - 0.06);
      expect(x).toBeLessThan(Math.max(...doorPlane) + 0.06);
    }
    expect(at(0, 90).map(({ placement }) => placement)).toEqual(at(90).map(({ placement }) => placement));
  });

  it('varies from opening to opening within what was said, and is the same every time', () => {
    const document = withInfill({ ...plain, field: leaf({ angle: 30, vary: 20 }) }, 'rectangle', {
      width: 0.8,
      height: 1,
    });
    const openings = Object.fromEntries(
      Array.from({ length: 9 }, (_, i) => [
        `o${i}`,
        opening(`o${i}`, 'p', 0.3 + 1.2 * i, 1, i === 4 ? { open: 30 } : {}),
      ]),
    );
    const angles = (): number[] =>
      partsIn({ ...document, openings })
        .filter(({ part }) => part.name === 'leaf')
        .map(({ placement: { x } }) => (Math.atan2(x[1], x[0]) * 180) / Math.PI);
    const found = angles();
    expect(new Set(found.map((angle) => angle.toFixed(3))).size).toBe(9);
    expect(Math.min(...found)).toBeGreaterThanOrEqual(10);
    expect(Math.max(...found)).toBeLessThanOrEqual(50);
    expect(found[4]).toBeCloseTo(30, 9);
    expect(angles()).toEqual(found);
  });

  it('holds leaves and lights of its own, clear of its frame', () => {
    const pair = divided({
      bar: { width: 0.05, depth: 0.06, material: 'brick' },
      lights: { kind: 'equal', count: 2 },
      fields: [leaf(), leaf({ hung: 'right' })],
    });
    const parts = partsIn(withInfill({ ...plain, field: pair }, 'semicircular-arch'));
    expect(parts.map(({ id }) => id)).toEqual(['infill', 'leaf 1', 'leaf 2']);
    const [, left, right] = parts;
    const xs = (one: PartInstance): number[] => cornersOf(one).map(([x]) => x);
    expect(Math.min(...xs(right!)) - Math.max(...xs(left!))).toBeCloseTo(0.05 + 2 * 0.004, 6);
  });
});

describe('an area', () => {
  it('moved in and out again is where it was', () => {
    const area = areaOf(placedIn(withInfill(plain, 'segmental-arch')).outline)!;
    const back = moved(moved(area, () => -0.01)!.area, () => 0.01)!.area;
    expect(areaWithin(back.points)).toBeCloseTo(areaWithin(area.points), 9);
    expect(moved(area, () => -5)).toBeNull();
  });

  it('is none of an outline with islands', () => {
    const placed = placedIn(withInfill(plain, 'rectangle'));
    const doubled = { ...placed.outline, loops: [0, 0] };
    expect(areaOf(doubled)).toBeNull();
    expect(infillOf(plain, { ...placed, outline: doubled })).toMatch(/islands/);
  });
});

describe('files', () => {
  const document: ProjectDocument = {
    ...withInfill({ ...plain, field: { kind: 'glass', material: 'pane', thickness: 0.02 } }),
  };
  const glazed: ProjectDocument = {
    ...document,
    materials: {
      ...document.materials,
      pane: { id: 'pane', name: 'Glass', colour: '#a9c0c4', roughness: 0.1, opacity: 0.25 },
    },
  };

  it('let glass be seen through', async () => {
    const model = cutModel(glazed);
    const gltf = await new WebIO().registerExtensions([KHRTextureTransform]).readBinary(await writeGlb(glazed, model));
    const pane = gltf
      .getRoot()
      .listMaterials()
      .find((one) => one.getName() === 'Glass')!;
    expect([pane.getAlphaMode(), pane.getAlpha()]).toEqual(['BLEND', 0.25]);
    expect(
      gltf
        .getRoot()
        .listMaterials()
        .filter((one) => one !== pane)
        .every((one) => one.getAlphaMode() === 'OPAQUE'),
    ).toBe(true);
    const files = await objFiles(glazed, model, 'wall');
    const text = (name: RegExp): string => {
      const bytes = files.find((file) => name.test(file.name))!.pieces as Iterable<Uint8Array | string>;
      return [...bytes].map((piece) => (typeof piece === 'string' ? piece : new TextDecoder().decode(piece))).join('');
    };
    expect(text(/\.mtl$/)).toMatch(/newmtl Glass[\s\S]*?\nd 0\.25\n/);
  });

  it('draw what stands behind glass in the picture', () => {
    const shot = (opacity?: number): Uint8Array => {
      const { pane } = glazed.materials;
      const shown = {
        ...glazed,
        materials: {
          ...glazed.materials,
          pane: { ...pane!, ...(opacity === undefined ? { opacity: 1 } : { opacity }) },
        },
      };
      return decode(drawPicture(shown, cutModel(shown), { width: 200, height: 140 })).data as Uint8Array;
    };
    const [clear, dim, solid] = [shot(0.05), shot(0.6), shot()];
    const unlike = (a: Uint8Array, b: Uint8Array): number =>
      a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0);
    expect(unlike(clear, dim)).toBeGreaterThan(0);
    expect(unlike(dim, solid)).toBeGreaterThan(0);
  });
});
