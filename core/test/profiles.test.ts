/** Every profile: that its edges join, that it is as large as it says, what it refuses, and what its sides are. */
import { describe, expect, it } from '@jest/globals';
import { dimensionNames, firstChoice, firstDimensions, profileShapes, type ProfileShape } from '@yard-arch/document';
import fc from 'fast-check';
import { haunchRadii } from '../src/profile/arches.ts';
import {
  arcPoint,
  flatten,
  isImpossible,
  outlineArea,
  profileArea,
  profileOf,
  type Profile,
  type ProfileEdge,
} from '../src/index.ts';

const shapes = Object.keys(profileShapes) as ProfileShape[];
const ends = (edge: ProfileEdge): [[number, number], [number, number]] =>
  edge.kind === 'line'
    ? [
        [edge.ax, edge.ay],
        [edge.bx, edge.by],
      ]
    : [arcPoint(edge, edge.from), arcPoint(edge, edge.to)];

function made(shape: ProfileShape, dimensions: Record<string, number>): Profile {
  const profile = profileOf(firstChoice(shape), dimensions);
  if (isImpossible(profile)) throw new Error(`${profile.reason}. ${profile.mend}`);
  return profile;
}

/** Direction in which an edge leaves its first point, or comes to its last. */
function tangent(edge: ProfileEdge, last: boolean): [number, number] {
  if (edge.kind === 'line') {
    const length = Math.hypot(edge.bx - edge.ax, edge.by - edge.ay);
    return [(edge.bx - edge.ax) / length, (edge.by - edge.ay) / length];
  }
  const angle = last ? edge.to : edge.from;
  const sense = Math.sign(edge.to - edge.from);
  const [x, y] = [-edge.rx * Math.sin(angle) * sense, edge.ry * Math.cos(angle) * sense];
  return [x / Math.hypot(x, y), y / Math.hypot(x, y)];
}

describe.each(shapes)('%s', (shape) => {
  const scaled = fc
    .double({ min: 0.2, max: 8, noNaN: true })
    .map((k) => Object.fromEntries(Object.entries(firstDimensions(shape)).map(([name, value]) => [name, value * k])));

  it('is a closed chain of edges, as wide and high as it says, its area exact', () => {
    fc.assert(
      fc.property(scaled, (dimensions) => {
        const profile = made(shape, dimensions);
        const { edges, width, height } = profile;
        edges.forEach((edge, i) => {
          const [, end] = ends(edge);
          const loops = [...(profile.loops ?? [0]), edges.length];
          const [start] = ends(edges[loops.includes(i + 1) ? loops[loops.indexOf(i + 1) - 1]! : i + 1]!);
          expect(Math.hypot(end[0] - start[0], end[1] - start[1])).toBeLessThan(1e-9 * Math.max(width, height));
        });
        const fine = flatten(profile, { segmentsPerHalfCircle: 400 });
        const near = (a: number, b: number, within: number): void =>
          expect(Math.abs(a - b)).toBeLessThan(within * Math.max(width, height));
        near(Math.min(...fine.xs), 0, 1e-4);
        near(Math.min(...fine.ys), 0, 1e-4);
        near(Math.max(...fine.xs), width, 1e-4);
        near(Math.max(...fine.ys), height, 1e-4);
        expect(outlineArea(fine) / profileArea(profile)).toBeCloseTo(1, 4);
      }),
      { numRuns: 30 },
    );
  });

  const lopsided = ['free', 'text', 'channel-section', 'angle-section', 'star'].includes(shape);
  if (!lopsided)
    it('is symmetrical, with a head above, a sill below and jambs between', () => {
      const profile = made(shape, firstDimensions(shape));
      const outline = flatten(profile);
      const ys = Array.from(outline.ys);
      const middles = outline.side.map((side, i) => ({ side, y: (ys[i]! + ys[(i + 1) % outline.count]!) / 2 }));
      const by = (side: string): number[] => middles.filter((m) => m.side === side).map((m) => m.y);
      expect(Math.max(...by('head'))).toBeCloseTo(Math.max(...middles.map((m) => m.y)), 6);
      expect(Math.min(...by('sill'))).toBeCloseTo(Math.min(...middles.map((m) => m.y)), 6);
      expect(by('jamb-left').length).toBe(by('jamb-right').length);
      const mirrored = Array.from(outline.xs, (x) => profile.width - x).sort((a, b) => a - b);
      Array.from(outline.xs)
        .sort((a, b) => a - b)
        .forEach((x, i) => expect(x).toBeCloseTo(mirrored[i]!, 9));
    });

  it('is refused with a size of 0, of nothing, or of what is no number, each with a mend', () => {
    for (const name of dimensionNames(shape))
      for (const value of [0, -1, NaN, Infinity]) {
        const outcome = profileOf(firstChoice(shape), { ...firstDimensions(shape), [name]: value });
        expect(isImpossible(outcome)).toBe(true);
        expect((outcome as { mend: string }).mend).toMatch(/more than 0/);
      }
  });

  it('keeps its chords within a millimetre of its arcs unless told otherwise', () => {
    const profile = made(shape, firstDimensions(shape));
    const outline = flatten(profile);
    const fine = flatten(profile, { chord: 1e-7 });
    // Every point of the fine outline is within a millimetre of the coarse one.
    for (let i = 0; i < fine.count; i += 3) {
      let nearest = Infinity;
      for (let a = 0; a < outline.count; a++) {
        const b = (a + 1) % outline.count;
        const [dx, dy] = [outline.xs[b]! - outline.xs[a]!, outline.ys[b]! - outline.ys[a]!];
        const along = Math.max(
          0,
          Math.min(
            1,
            ((fine.xs[i]! - outline.xs[a]!) * dx + (fine.ys[i]! - outline.ys[a]!) * dy) / (dx * dx + dy * dy),
          ),
        );
        nearest = Math.min(
          nearest,
          Math.hypot(fine.xs[i]! - outline.xs[a]! - along * dx, fine.ys[i]! - outline.ys[a]! - along * dy),
        );
      }
      expect(nearest).toBeLessThan(0.001 + 1e-6);
    }
  });
});

describe('arches of several centres', () => {
  it.each<[ProfileShape, number[]]>([
    ['three-centred-arch', [1, 2, 3, 4]],
    ['four-centred-arch', [1, 2, 4, 5]],
    ['ogee-arch', [1, 2, 4, 5]],
  ])('%s: arcs run smoothly into each other, from upright jambs', (shape, joints) => {
    const { edges } = made(shape, firstDimensions(shape));
    for (const joint of joints) {
      const [ax, ay] = tangent(edges[joint]!, true);
      const [bx, by] = tangent(edges[joint + 1]!, false);
      expect(ax * bx + ay * by).toBeCloseTo(1, 9);
    }
  });

  it('an equilateral pointed arch has its span for radius', () => {
    const { edges } = made('pointed-arch', { span: 2, height: 4, rise: Math.sqrt(3) });
    const radii = edges.flatMap((edge) => (edge.kind === 'arc' ? [edge.rx, edge.ry] : []));
    expect(radii).toEqual(Array(4).fill(expect.closeTo(2, 12)));
  });

  it('a segmental arch of half the span is semicircular', () => {
    expect(profileArea(made('segmental-arch', { span: 2, height: 3, rise: 1 }))).toBeCloseTo(
      profileArea(made('semicircular-arch', { span: 2, height: 3 })),
      9,
    );
  });

  it('a trefoil and a quatrefoil have the areas of the figure of centres and cusps and of the sectors about it', () => {
    const r = 0.25;
    expect(profileArea(made('quatrefoil', { diameter: 1 }))).toBeCloseTo(4 * r * r + 2 * Math.PI * r * r, 12);
    expect(profileArea(made('trefoil', { diameter: 1 }))).toBeCloseTo(
      ((3 * Math.sqrt(3)) / 2) * r * r + 2 * Math.PI * r * r,
      12,
    );
    expect(made('trefoil', { diameter: 1 }).height).toBeCloseTo(3.5 * r, 9);
    expect(made('quatrefoil', { diameter: 1 }).width).toBeCloseTo(1, 9);
  });
});

describe('dimensions that make no profile', () => {
  it.each<[ProfileShape, Record<string, number>, RegExp]>([
    ['rounded-rectangle', { width: 1, height: 2, radius: 0.6 }, /radius of at most 500 mm/],
    ['segmental-arch', { span: 2, height: 3, rise: 1.2 }, /rise of at most 1.000 mm/],
    ['segmental-arch', { span: 2, height: 0.5, rise: 0.9 }, /at least 900 mm high/],
    ['three-centred-arch', { span: 2, height: 3, rise: 0.2 }, /rise from 268\.2 mm to 1.000 mm/],
    ['pointed-arch', { span: 2, height: 3, rise: 0.9 }, /rise of at least 1.001 mm/],
    ['horseshoe-arch', { span: 2, height: 3, rise: 0.9 }, /rise of at least/],
    ['ogee-arch', { span: 2, height: 3, rise: 0.9 }, /rise of at least 1.000 mm/],
    ['four-centred-arch', { span: 2, height: 3, rise: 0.4, radius: 0.35 }, /haunch radius from/],
    ['cambered-arch', { span: 2, height: 3, camber: 0.5 }, /rise of at most 250 mm/],
  ])('%s %j is refused with what would be possible', (shape, dimensions, mend) => {
    const outcome = profileOf({ shape }, dimensions);
    expect(isImpossible(outcome) && outcome.mend).toMatch(mend);
  });

  it('what is said to be possible is: haunch radii', () => {
    const [least, most] = haunchRadii(2, 0.6)!;
    for (const radius of [least, (least + most) / 2, most])
      made('four-centred-arch', { span: 2, height: 3, rise: 0.6, radius });
  });
});
