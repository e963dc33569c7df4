/** Element kinds: each makes a sound body; a barrel vault lies where its springings are, and is cut like a wall. */
import {
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
