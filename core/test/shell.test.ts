/** Vaulted bays and domes: closed whole and in layers, as large as solid booleans of barrels and closed forms say, textured at true scale, cut from above and square to their backs. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import {
  elementSchema,
  kinds,
  type Bay,
  type Dome,
  type Element,
  type Infill,
  type Pattern,
  type ProjectDocument,
  type Vault,
} from '@yard-arch/document';
import fc from 'fast-check';
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutModel, mirroredIn, prove, seenFromAbove, sheetsOf, type CutMesh, type Placed } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { solidIn } from './solid-of.ts';
import { meshIn } from '../src/element/placed-mesh.ts';
import { outlineArea } from '../src/profile/flatten.ts';
import { domeSoffit, halfSoffit, movedOut, type Spot } from '../src/shell/line.ts';

let kernel: ManifoldToplevel;
const solidOf = (mesh: CutMesh): Manifold => solidIn(kernel, mesh);
beforeAll(async () => {
  kernel = await solidLibrary();
});

const chord = 0.004;
const base = { id: 'e', name: 'Vault', start: { x: 0, y: 0, z: 0 }, turn: 0 };
const layers = [
  { thickness: 0.08, material: 'a' },
  { thickness: 0.14, material: 'b' },
];
const thickness = 0.22;

function documentOf(element: Element): ProjectDocument {
  const empty = granary();
  const material = Object.values(empty.materials)[0]!;
  return {
    ...empty,
    chord,
    materials: { a: { ...material, id: 'a' }, b: { ...material, id: 'b' } },
    patterns: {},
    openings: {},
    axes: {},
    datums: {},
    elements: { e: elementSchema.parse(element) },
  };
}

const cut = (element: Element) => cutModel(documentOf(element)).cuts.get('e')!;
const volume = (element: Element): number => {
  const { mesh, fault } = cut(element);
  expect(fault).toBeNull();
  const proof = prove(mesh);
  expect({ closed: proof.closed, flaps: proof.flaps, collapsed: proof.collapsed }).toEqual({
    closed: true,
    flaps: 0,
    collapsed: 0,
  });
  return proof.volume;
};

const bay = (over: Partial<Bay>): Bay => ({
  ...base,
  kind: 'bay',
  layers,
  rise: 2,
  corners: [
    { x: 0, y: 0 },
    { x: 5, y: 0 },
    { x: 5, y: 4 },
    { x: 0, y: 4 },
  ],
  ...over,
});

/** A barrel over a rectangle of 5 by 4, its half profile drawn over so wide a half span: along y (its span along x), or along x. */
function barrel(half: readonly Spot[], reach: number, way: 'x' | 'y'): Manifold {
  const [span, length] = way === 'x' ? [5, 4] : [4, 5];
  const scale = span / 2 / reach;
  const left = half.map(([x, z]): [number, number] => [x * scale, z]);
  const profile: [number, number][] = [
    [0, -1],
    [span, -1],
    ...left.map(([x, z]): [number, number] => [span - x, z]),
    ...left.slice(0, -1).reverse(),
  ];
  const prism = kernel.Manifold.extrude([profile], length);
  // Upright: its profile's height becomes z, its length y.
  const upright = prism.rotate([90, 0, 0]).translate([0, length, 0]);
  return way === 'x' ? upright : upright.rotate([0, 0, 90]).translate([5, 0, 0]);
}

describe('vaulted bays', () => {
  it('are what is left of two barrels, joined for groins and in common for cloisters', () => {
    const end = (at: number) => [{ axis: 0, at: 0 } as const, { axis: 0, at } as const] as const;
    for (const profile of ['segment', 'pointed', 'ellipse', 'catenary'] as const)
      for (const severies of ['groin', 'cloister'] as const) {
        const rise = profile === 'pointed' ? 3 : 1.9;
        const reach = severies === 'groin' ? 2.5 : 2;
        const soffit = halfSoffit(profile, reach, rise, { chord });
        const back = movedOut(soffit, thickness, ...end(reach))!;
        const both = [soffit, back].map((line) => {
          const [a, b] = [barrel(line, reach, 'x'), barrel(line, reach, 'y')];
          return severies === 'groin' ? a.add(b) : a.intersect(b);
        });
        const above = kernel.Manifold.cube([5, 4, 10]).translate([0, 0, 0]);
        const left = both[1]!.intersect(above).subtract(both[0]!);
        expect(volume(bay({ profile, severies, rise }))).toBeCloseTo(left.volume(), 3);
      }
  });

  it('has no rib where one would be as wide as the way to its middle is long', () => {
    // A flat triangle: the middle is nearer to its blunt corner than a rib is wide.
    const flat = [
      { x: 3.191, y: 0 },
      { x: 2.051, y: -1.877 },
      { x: 2.892, y: -1.036 },
    ];
    const plain = bay({ corners: flat, rise: 1.1, profile: 'pointed', severies: 'cloister' });
    const ribbed = bay({ ...plain, ribs: { width: 0.14, depth: 0.1, material: 'a' } });
    expect(volume(ribbed)).toBeGreaterThanOrEqual(volume(plain));
  });

  it('are closed over any bulging polygon, whole and in layers, true to scale; and so are their ribs', () => {
    let made = 0;
    const angles = fc.uniqueArray(fc.integer({ min: 0, max: 71 }), { minLength: 3, maxLength: 12 });
    fc.assert(
      fc.property(
        angles,
        fc.double({ min: 1.5, max: 6, noNaN: true }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        fc.double({ min: 0.35, max: 1.6, noNaN: true }),
        fc.constantFrom('segment', 'pointed', 'ellipse', 'catenary'),
        fc.constantFrom('groin', 'cloister'),
        (at, radius, squeezed, steep, profile, severies) => {
          const corners = [...at]
            .sort((a, b) => a - b)
            .map((k) => ({
              x: radius * Math.cos((k * Math.PI) / 36),
              y: squeezed * radius * Math.sin((k * Math.PI) / 36),
            }));
          const element = bay({
            corners,
            rise: steep * radius,
            profile: profile as Bay['profile'],
            severies: severies as 'groin',
          });
          if (!elementSchema.safeParse(element).success) return;
          const one = cut(element);
          if (one.fault) return expect(one.fault.code).toMatch(/too-thick|no-vault/);
          made += 1;
          const proof = prove(one.mesh);
          expect({ closed: proof.closed, flaps: proof.flaps }).toEqual({ closed: true, flaps: 0 });
          expect(mirroredIn(one.mesh, () => true)).toBe(0);
          expect(proof.density[0]).toBeGreaterThan(0.99);
          expect(proof.density[1]).toBeLessThan(1.01);
          const apart = prove(cut({ ...element, skins: 'layers' }).mesh);
          expect(apart.closed).toBe(true);
          expect(apart.volume).toBeCloseTo(proof.volume, 6);
          const ribs = { width: 0.14, depth: 0.1, material: 'a' };
          const ribbed = prove(cut({ ...element, ribs } as Bay).mesh);
          expect({ closed: ribbed.closed, flaps: ribbed.flaps }).toEqual({ closed: true, flaps: 0 });
          expect(ribbed.volume).toBeGreaterThan(proof.volume - 1e-9);
          const sided = prove(cut({ ...element, ribs: { ...ribs, sides: true } } as Bay).mesh);
          expect({ closed: sided.closed, flaps: sided.flaps }).toEqual({ closed: true, flaps: 0 });
          expect(sided.volume).toBeGreaterThan(ribbed.volume - 1e-9);
        },
      ),
      { numRuns: Number(process.env.SHELL_ROUNDS ?? 25), endOnFailure: true },
    );
    expect(made).toBeGreaterThan(3);
  });

  it('has ribs along its sides as deep as they are asked to be, within the bay', () => {
    const [plain, ribs] = [bay({ profile: 'segment', rise: 2 }), { width: 0.4, depth: 0.25, material: 'a' }];
    const sides = solidOf(cut({ ...plain, ribs: { ...ribs, sides: true } } as Bay).mesh).decompose();
    // The bay, its four ribs, and one along each side.
    expect(sides).toHaveLength(9);
    const [shell, ...carried] = sides.sort((a, b) => b.volume() - a.volume());
    const { min, max } = shell!.boundingBox();
    for (const one of carried) {
      const box = one.boundingBox();
      expect(one.volume()).toBeGreaterThan(0.01);
      for (const axis of [0, 1]) {
        expect(box.min[axis]!).toBeGreaterThan(min[axis]! - 1e-6);
        expect(box.max[axis]!).toBeLessThan(max[axis]! + 1e-6);
      }
      expect(one.intersect(shell!).volume()).toBeLessThan(5e-4);
    }
  });

  it('of a barrel has transverse arches: rings evenly along it, closed, under the soffit', () => {
    const barrel: Vault = { ...base, kind: 'vault', layers, span: 5, rise: 2.5, length: 8 };
    const alone = solidOf(cut(barrel).mesh);
    for (const count of [1, 4]) {
      const arched = cut({ ...barrel, arches: { count, width: 0.4, depth: 0.25, material: 'a' } });
      expect(prove(arched.mesh)).toMatchObject({ closed: true, flaps: 0, collapsed: 0 });
      const own = solidOf(arched.mesh)
        .decompose()
        .filter((one) => one.volume() < 0.5 * alone.volume());
      expect(own).toHaveLength(count);
      // Half a ring, in chords.
      const ring = (Math.PI / 2) * (2.5 ** 2 - 2.25 ** 2) * 0.4;
      for (const one of own) {
        expect(one.volume()).toBeLessThan(ring + 1e-9);
        expect(one.volume()).toBeGreaterThan(0.985 * ring);
        expect(one.intersect(alone).volume()).toBeLessThan(1e-4);
      }
    }
    const tight = { count: 30, width: 0.4, depth: 0.2, material: 'a' };
    expect(cut({ ...barrel, arches: tight }).fault).toMatchObject({ code: 'arches-apart' });
    expect(cut({ ...barrel, arches: { ...tight, count: 2, depth: 2.6 } }).fault).toMatchObject({
      code: 'arches-apart',
    });
  });

  it('refuses corners that do not bulge, and layers thicker than the profile is round', () => {
    const hollow = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 1, y: 1 },
      { x: 0, y: 4 },
    ];
    expect(elementSchema.safeParse(bay({ corners: hollow })).success).toBe(false);
    expect(cut(bay({ rise: 2.8 })).fault).toMatchObject({ code: 'no-vault', reason: /no more than half of its span/ });
    expect(cut(bay({ rise: 2, profile: 'pointed' })).fault).toMatchObject({ code: 'no-vault' });
  });
});

const dome = (over: Partial<Dome>): Dome => ({ ...base, kind: 'dome', layers, span: 6, rise: 3, ...over });

/** The volume under a chain of (distance from the axis, height) turned about the axis. */
function turned(line: readonly Spot[], radius: number): number {
  let sum = 0;
  for (let i = 0; i + 1 < line.length; i++) {
    const [[xa, za], [xb, zb]] = [line[i]!, line[i + 1]!];
    const [ra, rb] = [radius - xa, radius - xb];
    sum += ((zb - za) * Math.PI * (ra * ra + ra * rb + rb * rb)) / 3;
  }
  return sum;
}

describe('domes', () => {
  it('are as large as their profiles turned, of as many facets', () => {
    for (const profile of ['segment', 'pointed', 'onion'] as const)
      for (const [crown, drum] of [
        [0, 0],
        [1.2, 0],
        [0, 1.5],
        [0.8, 2],
      ] as const) {
        const rise = profile === 'segment' ? 2.4 : 5.4;
        const element = dome({ profile, rise, ...(crown ? { crown } : {}), ...(drum ? { drum } : {}) });
        const curve = domeSoffit(profile, 3, rise, { chord });
        const soffit: Spot[] = drum ? [[0, -drum], ...curve] : curve;
        const foot = { axis: 1, at: 0 - drum } as const;
        const to = (r: number) => ({ axis: 0, at: 3 - r }) as const;
        const inner = movedOut(soffit, 0, foot, to(crown / 2))!;
        // The point of an onion is ended in a finial.
        const pointed = profile === 'onion' && crown === 0;
        const back = movedOut(soffit, thickness, foot, to(pointed ? thickness : crown / 2))!;
        if (pointed) back.push([3, rise + 3 * thickness]);
        const facets = cut(element).sheet.outline.xs.length;
        const share = ((facets / 2) * Math.sin((2 * Math.PI) / facets)) / Math.PI;
        expect(mirroredIn(cut(element).mesh, () => true)).toBe(0);
        expect(volume(element)).toBeCloseTo(share * turned([...back, ...inner.reverse()], 3), 6);
      }
  });

  it('are cut square to their backs wherever an opening stands, or straight down where it says so', () => {
    const document = documentOf(dome({ drum: 1 }));
    const pattern = {
      id: 'p',
      name: 'Oculus',
      profile: { shape: 'circle' as const },
      sizes: { s: { id: 's', dimensions: { diameter: 0.8 } } },
      reveal: { material: null },
    };
    const opening = (id: string, x: number, y: number) => ({
      id,
      mark: id,
      element: 'e',
      pattern: 'p',
      size: 's',
      along: { from: 'start' as const, distance: x },
      up: { from: 'base' as const, distance: y },
      grip: { across: 'centre' as const, level: 'middle' as const },
      blockedUp: false,
    });
    const of = (onSlope?: 'plumb') => {
      const all: ProjectDocument = {
        ...document,
        patterns: { p: { ...pattern, ...(onSlope ? { onSlope } : {}) } as never },
        openings: { o1: opening('o1', 3.22 + 2, 3.22), o2: opening('o2', 3.22 - 1.2, 3.22 - 1.2) },
      };
      const model = cutModel(all);
      expect([...model.statuses.values()].map(({ state, reason }) => [state, reason])).toEqual([
        ['cut', null],
        ['cut', null],
      ]);
      const proof = prove(model.cuts.get('e')!.mesh);
      expect(proof.closed).toBe(true);
      return proof.volume;
    };
    const whole = volume(dome({ drum: 1 }));
    const [square, plumb] = [of(), of('plumb')];
    const round = Math.PI * 0.4 ** 2 * thickness;
    // Square holes are round cores, straight ones longer the steeper the dome.
    expect(whole - square).toBeGreaterThan(1.96 * round);
    expect(whole - square).toBeLessThan(2.1 * round);
    expect(whole - plumb).toBeGreaterThan(2.2 * round);
  });
});

describe('what stands in a shell', () => {
  const infill: Infill = {
    seat: { from: 'outer', depth: 0.05 },
    gap: 0,
    frame: { width: 0.06, depth: 0.06, material: 'a', joints: 'mitred' },
    field: { kind: 'glass', material: 'a', thickness: 0.01 },
  };
  const cutWith = (element: Element, onSlope: 'plumb' | 'square' | undefined, x: number, y: number) => {
    const pattern: Pattern = {
      id: 'p',
      name: 'Light',
      profile: { shape: 'rectangle' },
      sizes: { s: { id: 's', name: '', dimensions: { width: 0.5, height: 0.4 } } },
      reveal: { material: null },
      infill,
      ...(onSlope ? { onSlope } : {}),
    };
    const model = cutModel({
      ...documentOf(element),
      patterns: { p: pattern },
      openings: {
        o: {
          id: 'o',
          mark: 'O',
          element: 'e',
          pattern: 'p',
          size: 's',
          along: { from: 'start', distance: x },
          up: { from: 'base', distance: y },
          grip: { across: 'centre', level: 'middle' },
          blockedUp: false,
        },
      },
    });
    const cut = model.cuts.get('e')!;
    expect(prove(cut.mesh).closed).toBe(true);
    return { cut, status: model.statuses.get('o')! };
  };

  it.each([
    ['a dome', dome({ drum: 1 }), undefined, 5.0, 3.9],
    ['a bay', bay({}), 'square', 2.4, 1.2],
  ] as const)(
    'is put square to the back of %s, in its opening and nowhere in what is left',
    (_, element, onSlope, x, y) => {
      const { cut: own, status } = cutWith(element, onSlope, x, y);
      expect([status.state, status.reason]).toEqual(['cut', null]);
      expect(own.parts.length).toBeGreaterThan(0);
      const left = solidOf(own.mesh);
      for (const { part, placement } of own.parts) {
        expect(prove(part.mesh).closed).toBe(true);
        expect(solidOf(meshIn(placement, part.mesh)).intersect(left).volume()).toBeLessThan(1e-5);
        // It leans as the back does there: level across, and up the slope.
        expect(placement.x[2]).toBeCloseTo(0, 9);
        expect(placement.z[2]).toBeGreaterThan(0.01);
        expect(placement.z[2]).toBeLessThan(0.999);
      }
    },
  );

  it('is drawn on the sheet as it lies: turned to the slope, the shorter the steeper, its middle where it was set out', () => {
    const element = dome({ drum: 1 });
    const { cut: own } = cutWith(element, undefined, 5.0, 3.9);
    const [placed] = own.placed;
    const body = sheetsOf(documentOf(element)).shell('e')!;
    const seen = seenFromAbove(element, body, placed!);
    expect(seenFromAbove(element, body, placed!).outline).toBe(seen.outline);
    const [ax, ay, bx, by] = seen.leans!;
    // Level across, so as wide as it is; up the slope it is foreshortened, and towards the axis.
    expect(Math.hypot(ax, ay)).toBeCloseTo(1, 9);
    const steep = Math.hypot(bx, by);
    expect(steep).toBeLessThan(0.95);
    expect(ax * bx + ay * by).toBeCloseTo(0, 9);
    expect(outlineArea(seen.outline)).toBeCloseTo(0.5 * 0.4 * steep, 9);
    const middle = (one: Placed): [number, number] => [one.s + one.profile.width / 2, one.t + one.profile.height / 2];
    expect(Math.hypot(middle(seen)[0] - middle(placed!)[0], middle(seen)[1] - middle(placed!)[1])).toBeLessThan(1e-9);
    const plumb = cutWith(element, 'plumb', 5.0, 3.9).cut.placed[0]!;
    expect(seenFromAbove(element, body, plumb)).toBe(plumb);
  });

  it('is told as left out where it goes straight down', () => {
    const { cut: own, status } = cutWith(dome({ drum: 1 }), 'plumb', 5.0, 3.9);
    expect(own.parts).toEqual([]);
    expect(status.reason).toContain('left out');
  });
});

describe('a shaft', () => {
  it('goes from a roof down through a slab, a bay and a barrel in one step', () => {
    const whole = granary();
    const roof = Object.values(whole.elements).find(({ name }) => name === 'Main roof')!;
    const well = Object.values(whole.openings).find(({ element, face }) => element === roof.id && face === undefined)!;
    const square = [
      { x: 0, y: 0 },
      { x: 7, y: 0 },
      { x: 7, y: 7 },
      { x: 0, y: 7 },
    ];
    const at = (id: string, z: number) => ({ id, name: id, start: { x: 6.5, y: 1.5, z }, turn: 0 });
    const under: Element[] = [
      { ...kinds.slab.fresh(at('slab', 6), 'brick'), outline: square },
      { ...kinds.bay.fresh(at('bay', 2), 'brick'), corners: square, rise: 3 },
      { ...kinds.vault.fresh(at('vault', -2), 'brick'), span: 7, rise: 2, length: 7 },
    ];
    const document: ProjectDocument = {
      ...whole,
      elements: Object.fromEntries([roof, ...under].map((element) => [element.id, element])),
      openings: { [well.id]: { ...well, further: under.map(({ id }) => id) } },
    };
    const [cutOut, bare] = [cutModel(document), cutModel({ ...document, openings: {} })];
    const { state, further, area } = cutOut.statuses.get(well.id)!;
    expect([state, ...further!.map((one) => one.state)]).toEqual(['cut', 'cut', 'cut', 'cut']);
    const lost = (id: string): number =>
      prove(bare.cuts.get(id)!.mesh).volume - prove(cutOut.cuts.get(id)!.mesh).volume;
    expect(lost('slab')).toBeCloseTo(area * 0.25, 6);
    expect(lost('bay')).toBeGreaterThan(area * 0.2);
    expect(lost('vault')).toBeGreaterThan(area * 0.3);
    for (const { mesh } of cutOut.cuts.values()) expect(prove(mesh).closed).toBe(true);
  });
});
