/** Roofs with inner corners at random, their edges of any pitch, overhang and height and some of them verges: the steps where their planes meet are closed, as one body and as one for each layer. */
import { describe, expect, it } from '@jest/globals';
import { everyDormer } from '@yard-arch/demo';
import { kinds, type Layer, type Roof, type RoofEdge } from '@yard-arch/document';
import fc from 'fast-check';
import { cutModel, findingsOf, prove, type ElementCut } from '../src/index.ts';
import { ell, near, tee, type Place } from './outlines.ts';
import { project } from './sample.ts';

const outline: fc.Arbitrary<Place[]> = fc
  .tuple(fc.constantFrom('L', 'T', 'U'), near(5, 9), near(4, 7))
  .map(([form, wide, deep]): Place[] => {
    if (form === 'L') return ell(wide, deep);
    if (form === 'T') return tee(wide, deep);
    return [
      [0, 0],
      [12, 0],
      [12, deep + 5],
      [8, deep + 5],
      [8, 4],
      [4, 4],
      [4, deep + 5],
      [0, deep + 5],
    ];
  });

const eaves = fc.record(
  {
    is: fc.constant('eaves' as const),
    pitch: near(22, 55),
    over: fc.oneof(fc.constant(0), near(0, 0.5)),
    lift: near(0, 1),
    second: fc.constant({ from: 0.8, pitch: 20 }),
  },
  { requiredKeys: ['is', 'pitch', 'over'] },
);
const verge = fc.constant({ is: 'verge' as const, over: 0.2 });

const layers: fc.Arbitrary<Layer[]> = fc
  .constantFrom([0.2], [0.05, 0.15], [0.03, 0.02, 0.15])
  .map((list) => list.map((thickness, i) => ({ thickness, material: `m${i}` })));

interface Drawn {
  points: Place[];
  edges: (Omit<RoofEdge, 'id' | 'x' | 'y'> & { is: string })[];
  layers: Layer[];
  ends: Roof['ends'];
}

const drawn = (edge: fc.Arbitrary<unknown>): fc.Arbitrary<Drawn> =>
  fc.record({
    points: outline,
    edges: fc.array(edge, { minLength: 8, maxLength: 8 }) as fc.Arbitrary<Drawn['edges']>,
    layers,
    ends: fc.constantFrom('plumb', 'square', 'level'),
  });

function cutOf({ points, edges, layers, ends }: Drawn, skins?: 'layers'): ElementCut {
  const roof = {
    ...kinds.roof.fresh({ id: 'roof', name: 'Roof', start: { x: 0, y: 0, z: 3 }, turn: 20 }, 'm0'),
    edges: points.map(([x, y], i) => ({ id: `e${i}`, x, y, ...edges[i] })),
    layers,
    ends,
    ...(skins ? { skins } : {}),
  } as Roof;
  return cutModel({ ...everyDormer(), patterns: {}, openings: {}, elements: { roof } }).cuts.get('roof')!;
}

/** Asks of a roof what is promised. @returns whether it could be made */
function sound(own: Drawn): boolean {
  const whole = cutOf(own);
  if (whole.fault) {
    expect(['verge-inside', 'comes-through', 'never-meets', 'over-too-far']).toContain(whole.fault.code);
    return false;
  }
  const [one, each] = [prove(whole.mesh), prove(cutOf(own, 'layers').mesh)];
  for (const { closed, flaps, collapsed } of [one, each]) expect([closed, flaps, collapsed]).toEqual([true, 0, 0]);
  expect(each.volume).toBeCloseTo(one.volume, 6);
  return true;
}

const numRuns = Number(process.env.CORNER_ROUNDS ?? 60);
const options = { numRuns, endOnFailure: process.env.PROPERTY_SHRINK !== 'yes' };

describe('roofs with inner corners', () => {
  it('are closed where eaves of any kind meet there, and hardly ever refused', () => {
    let made = 0;
    fc.assert(
      fc.property(drawn(eaves), (own) => {
        if (sound(own)) made += 1;
      }),
      options,
    );
    expect(made).toBeGreaterThan(0.7 * numRuns);
  });

  it('are closed with verges at any edge, or say why not', () => {
    let made = 0;
    fc.assert(
      fc.property(drawn(fc.oneof({ weight: 3, arbitrary: eaves }, { weight: 1, arbitrary: verge })), (own) => {
        if (sound(own)) made += 1;
      }),
      options,
    );
    expect(made).toBeGreaterThan(numRuns / 2);
  });
});

describe('a step within a roof', () => {
  /** An L whose two eaves at its inner corner are so unlike in height that one plane ends over the other. */
  const stepped = (lift: number, thickness: number): string[] => {
    const points = ell(6, 5);
    const roof: Roof = {
      ...kinds.roof.fresh({ id: 'r', name: 'Roof', start: { x: 0, y: 0, z: 3 }, turn: 0 }, 'm0'),
      layers: [{ thickness, material: 'm0' }],
      edges: points.map(([x, y], i): RoofEdge => ({
        id: `e${i}`,
        x,
        y,
        is: 'eaves',
        pitch: 40,
        over: 0,
        ...(i === 3 ? { lift } : {}),
      })),
    };
    const document = { ...project([], []), elements: { r: roof } };
    const model = cutModel(document);
    expect(model.cuts.get('r')!.fault).toBeNull();
    return findingsOf(document, { statuses: model.statuses, faultOf: () => null }).map(({ code }) => code);
  };

  it('is told where it is higher than the roof is thick, and not where it closes it', () => {
    expect(stepped(0, 0.2)).toEqual([]);
    expect(stepped(0.1, 0.2)).toEqual([]);
    expect(stepped(1.5, 0.2)).toContain('open-step');
    expect(stepped(1.5, 2.5)).not.toContain('open-step');
  });
});
