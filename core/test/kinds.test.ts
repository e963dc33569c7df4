/** Element kinds: each makes a sound body; a barrel vault lies where its springings are, and is cut like a wall. */
import {
  checkDocument,
  emptyDocument,
  extentOf,
  kindNames,
  kinds,
  type Element,
  type ProjectDocument,
  type Vault,
} from '@yard-arch/document';
import { cutModel, elementsAlong, inPlan, pointAt, prove, resolveOpening, sightOn, type Placed } from '../src/index.ts';
import { opening, patterns, sheetOf } from './sample.ts';

const vault = (over: Partial<Vault> = {}): Vault => ({
  id: 'w1',
  kind: 'vault',
  name: 'Cellar barrel',
  start: { x: 2, y: 3, z: 1 },
  turn: 30,
  span: 4,
  rise: 2,
  length: 6,
  layers: [
    { thickness: 0.2, material: 'brick' },
    { thickness: 0.1, material: 'brick' },
  ],
  ...over,
});

const documentOf = (element: Element, ...openings: ReturnType<typeof opening>[]): ProjectDocument => ({
  ...emptyDocument('Vaults'),
  chord: 0.0005,
  materials: Object.fromEntries(
    ['brick', 'stone'].map((id) => [id, { id, name: id, colour: '#b97a5c', roughness: 0.9 }]),
  ),
  elements: { [element.id]: element },
  patterns,
  openings: Object.fromEntries(openings.map((one) => [one.id, one])),
});

/** Volume by the divergence theorem, of whatever encloses it. */
const proofOf = (document: ProjectDocument) => {
  const { cuts, statuses } = cutModel(document);
  const cut = cuts.get('w1')!;
  return { ...prove(cut.mesh), cut, statuses };
};

test.each(kindNames)('a new %s is a closed body', (kind) => {
  const element = kinds[kind].fresh({ id: 'w1', name: 'New', start: { x: 1, y: 2, z: 3 }, turn: 40 }, 'brick');
  expect(kinds[kind].schema.safeParse(element).error).toBeUndefined();
  const { closed, volume } = proofOf(documentOf(element));
  expect(closed).toBe(true);
  expect(volume).toBeGreaterThan(0.5);
  expect(extentOf(element).length).toBeGreaterThan(1);
});

describe('a barrel of another profile', () => {
  const t = 0.3;
  /** The area between a soffit and its back by numbers: heights of both over x, from the middle. */
  const between = (half: number, soffit: (x: number) => number, back: (x: number) => number, reach: number): number => {
    const n = 200_000;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const x = ((i + 0.5) / n) * reach;
      sum += back(x) - (x < half ? soffit(x) : 0);
    }
    return (2 * sum * reach) / n;
  };
  /** The area of a strip of even thickness outside a curve: its length, and how much it turns. */
  const strip = (points: (share: number) => readonly [number, number], turns: number): number => {
    let long = 0;
    let [x, y] = points(0);
    for (let i = 1; i <= 100_000; i++) {
      const [u, v] = points(i / 100_000);
      long += Math.hypot(u - x, v - y);
      [x, y] = [u, v];
    }
    return t * long + (t * t * turns) / 2;
  };

  it.each<[Vault['profile'], number, () => number]>([
    [
      'pointed',
      3.4,
      () => {
        const k = (3.4 ** 2 - 2.5 ** 2) / 5;
        const at = (r: number) => (x: number) => Math.sqrt(Math.max(0, r * r - (x + k) ** 2));
        return between(2.5, at(2.5 + k), at(2.5 + k + t), 2.5 + t);
      },
    ],
    ['ellipse', 1.6, () => strip((s) => [2.5 * Math.cos(Math.PI * s), 1.6 * Math.sin(Math.PI * s)], Math.PI)],
    [
      'catenary',
      3,
      () => {
        // c·(cosh(2.5/c) − 1) = 3, solved by halving.
        let [low, high] = [0.5, 20];
        for (let i = 0; i < 100; i++) {
          const c = (low + high) / 2;
          if (c * (Math.cosh(2.5 / c) - 1) > 3) low = c;
          else high = c;
        }
        return strip((s) => [5 * s - 2.5, low * Math.cosh((5 * s - 2.5) / low)], 2 * Math.atan(Math.sinh(2.5 / low)));
      },
    ],
  ])('%s is closed, as large as its profile says, and cut like any', (profile, rise, area) => {
    const one = vault({ profile, rise, span: 5, layers: [{ thickness: t, material: 'brick' }] });
    const { closed, volume } = proofOf(documentOf(one));
    expect(closed).toBe(true);
    expect(Math.abs(volume / one.length / area() - 1)).toBeLessThan(2e-3);
    const middle = extentOf(one).length / 2;
    const cut = proofOf(documentOf(one, opening('a', 'window', middle - 2, 2)));
    expect(cut.closed).toBe(true);
    expect(cut.statuses.get('a')!.state).toBe('cut');
  });

  it('is refused where it would spring inward', () => {
    expect(() => checkDocument(documentOf(vault({ profile: 'pointed', span: 5, rise: 2 })))).toThrow(
      /more than half the span/,
    );
  });
});

describe('a barrel vault', () => {
  test.each([
    ['semicircular', 2],
    ['segmental', 0.7],
    ['stilted beyond the half circle', 2.6],
  ])('%s holds what a ring’s segment does', (_, rise) => {
    const { closed, volume } = proofOf(documentOf(vault({ rise })));
    const half = 2 * Math.atan(rise / 2);
    const radius = 2 / Math.sin(half);
    const exact = half * ((radius + 0.3) ** 2 - radius ** 2) * 6;
    expect(closed).toBe(true);
    expect(Math.abs(volume - exact) / exact).toBeLessThan(2e-3);
  });

  test('springs from its start and comes down a span away, its crown up', () => {
    const { chart, length, thickness } = sheetOf(vault());
    const [cos, sin] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const near = (point: number[], wanted: number[]) =>
      point.forEach((value, i) => expect(value).toBeCloseTo(wanted[i]!, 3));
    near(pointAt(chart, 0, 0, thickness), [2, 3, 1]);
    near(pointAt(chart, length, 0, thickness), [2 + 4 * cos, 3 + 4 * sin, 1]);
    near(pointAt(chart, length / 2, 0, thickness), [2 + 2 * cos, 3 + 2 * sin, 3]);
    // It runs on to the left of its span.
    near(pointAt(chart, 0, 6, thickness), [2 - 6 * sin, 3 + 6 * cos, 1]);
  });

  test('is cut by openings whose volumes are those of a wall’s', () => {
    const whole = proofOf(documentOf(vault())).volume;
    const middle = extentOf(vault()).length / 2;
    const { closed, volume, statuses, cut } = proofOf(documentOf(vault(), opening('a', 'window', middle - 0.6, 2)));
    expect(closed).toBe(true);
    expect(statuses.get('a')!.state).toBe('cut');
    // Square to the back at its middle: a prism of the window between two arcs.
    const area = (r: number): number => 0.6 * Math.sqrt(r * r - 0.36) + r * r * Math.asin(0.6 / r);
    expect(whole - volume).toBeCloseTo(1.5 * (area(2.3) - area(2)), 2);
    // Its reveal lies at the crown.
    const run = cut.mesh.runs.find(({ opening }) => opening === 'a')!;
    const corner = 3 * cut.mesh.vertices[cut.mesh.triangles[3 * run.first]!]!;
    expect(cut.mesh.points[corner + 2]!).toBeGreaterThan(2.9);
  });

  test('cutting it in parts or anew gives the same mesh', () => {
    const before = documentOf(vault(), opening('a', 'window', 2, 2), opening('b', 'arch', 4, 1));
    const after = { ...before, openings: { ...before.openings, b: opening('b', 'arch', 4.2, 1.4) } };
    const kept = cutModel(after, cutModel(before)).cuts.get('w1')!.mesh;
    const anew = cutModel(after).cuts.get('w1')!.mesh;
    expect(prove(kept).closed).toBe(true);
    expect([...kept.points]).toEqual([...anew.points]);
    expect([...kept.normals]).toEqual([...anew.normals]);
  });

  test('is seen in plan as what it covers, met by sight from above, and passed through by a slab’s opening', () => {
    const sheet = sheetOf(vault({ turn: 0 }));
    const { body, face } = inPlan(sheet, [], 1.2);
    expect(face).toEqual([]);
    expect(Math.min(...body.map(([x]) => x))).toBeCloseTo(2 - 0.3, 3);
    expect(Math.max(...body.map(([x]) => x))).toBeCloseTo(6.3, 3);
    expect(Math.max(...body.map(([, y]) => y))).toBeCloseTo(9, 6);
    const seen = sightOn(sheet.chart, [4, 5, 20], [0, 0, -1])!;
    expect(seen.s).toBeCloseTo(sheet.length / 2, 4);
    expect(seen.t).toBeCloseTo(2, 9);
    const above: Element = {
      ...kinds.slab.fresh({ id: 's', name: 'Floor', start: { x: 2, y: 3, z: 4 }, turn: 0 }, 'brick'),
    };
    const hole = { ...opening('h', 'window', 1.4, 2), element: 's' };
    const document = { ...documentOf(vault({ turn: 0 })), openings: { h: hole } };
    document.elements = { ...document.elements, s: above };
    const along = elementsAlong(document, hole, resolveOpening(document, hole) as Placed);
    expect(along).toHaveLength(1);
    expect(along[0]!.distance).toBeCloseTo(0.7, 2);
  });
});
