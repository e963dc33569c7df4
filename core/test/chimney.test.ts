/** Chimneys at random: closed solids that go plumb through their opening and stand clear of the roof, at any slope; or a reason in words. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { kinds, type Chimney, type Pattern, type Roof, type RoofEdge } from '@yard-arch/document';
import fc from 'fast-check';
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, type CutMesh, type ElementCut } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { meshIn } from '../src/element/placed-mesh.ts';
import { opening, project, wall } from './sample.ts';
import { solidIn } from './solid-of.ts';

const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const chimney: fc.Arbitrary<Chimney> = fc.record(
  {
    id: fc.constant('c'),
    kind: fc.constant('chimney' as const),
    material: fc.constant('brick'),
    gap: figure(0, 0.06),
    above: figure(0.1, 2),
    below: figure(0, 2),
    upstand: fc.record({ material: fc.constant('stone'), height: figure(0.05, 0.3), thickness: figure(0.01, 0.2) }),
    cap: fc.record({ material: fc.constant('stone'), over: figure(0, 0.2), thickness: figure(0.03, 0.2) }),
    pots: fc.record({
      material: fc.constant('stone'),
      count: fc.integer({ min: 1, max: 3 }),
      diameter: figure(0.1, 0.3),
      height: figure(0.1, 0.6),
    }),
  },
  { requiredKeys: ['id', 'kind', 'material', 'gap', 'above', 'below'] },
);

/** A lean-to of a pitch with one opening of a pattern in it. */
function cutOf(pitch: number, pattern: Pattern): { cut: ElementCut; told: string[] } {
  const edges: RoofEdge[] = [
    { id: 'e1', x: 0, y: 0, is: 'eaves', pitch, over: 0.3 },
    { id: 'e2', x: 8, y: 0, is: 'verge', over: 0.2 },
    { id: 'e3', x: 8, y: 6, is: 'abutment' },
    { id: 'e4', x: 0, y: 6, is: 'verge', over: 0.2 },
  ];
  const roof: Roof = {
    ...kinds.roof.fresh({ id: 'r', name: 'Roof', start: { x: 3, y: -2, z: 5 }, turn: 25 }, 'brick'),
    edges,
    layers: [
      { thickness: 0.04, material: 'brick' },
      { thickness: 0.16, material: 'brick' },
    ],
  };
  const model = cutModel(
    project([roof], [opening('o', pattern.id, 3, 1.5, { element: 'r', face: 'e1' })], {
      patterns: { [pattern.id]: pattern },
    }),
  );
  return { cut: model.cuts.get('r')!, told: model.statuses.get('o')!.findings.map(({ reason }) => reason) };
}
const patternOf = (part: Chimney, width: number, height: number): Pattern => ({
  id: 'stack',
  name: 'Stack',
  profile: { shape: 'rectangle' },
  sizes: { a: { id: 'a', name: '', dimensions: { width, height } } },
  reveal: { material: null },
  onSlope: 'plumb',
  parts: [part],
});

describe('chimneys', () => {
  let library: ManifoldToplevel;
  beforeAll(async () => {
    library = await solidLibrary();
  });
  const solidOf = (mesh: CutMesh): Manifold => solidIn(library, mesh);

  it('are closed, go plumb through the roof without touching it, and are as large as their figures say', () => {
    let made = 0;
    fc.assert(
      fc.property(chimney, figure(0.4, 1.6), figure(0.4, 1.6), figure(5, 65), (part, width, height, pitch) => {
        const { cut, told } = cutOf(pitch, patternOf(part, width, height));
        const instance = cut.parts.find(({ part: { name } }) => name === 'chimney');
        if (!instance) return expect(told.join()).toMatch(/no room|too small|run into the roof/);
        made += 1;
        expect(prove(instance.part.mesh)).toMatchObject({ closed: true, flaps: 0, collapsed: 0 });
        expect(prove(cut.mesh).closed).toBe(true);
        const stands = solidOf(meshIn(instance.placement, instance.part.mesh));
        // What lies on the roof or in its hole touches it; the library has six figures.
        expect(stands.intersect(solidOf(cut.mesh)).volume()).toBeLessThan(1e-4);
        // The stack and its cap are upright blocks, an upstand a ring of one height, pots rings.
        const slope = (pitch * Math.PI) / 180;
        const [wide, deep] = [width - 2 * part.gap, height * Math.cos(slope) - 2 * part.gap];
        const { upstand, cap, pots, above, below, gap } = part;
        const around = (by: number) => (wide + 2 * by) * (deep + 2 * by);
        const sides = 20;
        const circle = (radius: number) => (sides / 2) * Math.sin((2 * Math.PI) / sides) * radius ** 2;
        const want =
          around(0) * (below + above + height * Math.sin(slope)) +
          (upstand ? (around(gap + upstand.thickness) - around(0)) * upstand.height : 0) +
          (cap ? around(cap.over) * cap.thickness : 0) +
          (pots ? pots.count * pots.height * (circle(pots.diameter / 2) - circle(0.39 * pots.diameter)) : 0);
        expect(prove(instance.part.mesh).volume).toBeCloseTo(want, 6);
      }),
      { numRuns: Number(process.env.CHIMNEY_ROUNDS ?? 60) },
    );
    expect(made).toBeGreaterThan(20);
  });

  it('say why they cannot stand: in a wall, or in a reveal that is square to the slope', () => {
    const part: Chimney = { id: 'c', kind: 'chimney', material: 'brick', gap: 0.02, above: 1, below: 1 };
    const pattern = patternOf(part, 0.6, 0.8);
    expect(cutOf(40, { ...pattern, onSlope: 'square' }).told.join()).toContain('let that be plumb');
    expect(cutOf(40, pattern).told).toEqual([]);
    expect(cutOf(40, { ...pattern, onSlope: undefined }).told).toEqual([]);
    const inWall = cutModel(project([wall()], [opening('o', 'stack', 2, 1)], { patterns: { stack: pattern } }));
    expect(
      inWall.statuses
        .get('o')!
        .findings.map(({ reason }) => reason)
        .join(),
    ).toContain('stands on a plane of a roof');
  });
});
