/** Door swings in plan: from the hinge, as far as the leaf is wide, to the side to which it opens. */
import { describe, expect, it } from '@jest/globals';
import type { Leaf, Pattern, ProjectDocument } from '@yard-arch/document';
import { resolveOpening, sheetsOf, swingsOf, type Placed, type Swing } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const leaf = (over: Partial<Leaf>): Leaf => ({
  kind: 'leaf',
  frame: { width: 0.05, depth: 0.05, material: 'brick' },
  clearance: 0,
  hung: 'left',
  opens: 'inward',
  angle: 0,
  field: { kind: 'empty' },
  ...over,
});

function swings(over: Partial<Leaf>, face?: 'inner'): readonly Swing[] {
  const p: Pattern = {
    id: 'p',
    name: 'Door',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width: 1.1, height: 2 } } },
    reveal: { material: null },
    infill: {
      seat: { from: 'outer', depth: 0.1 },
      gap: 0,
      frame: { width: 0.05, depth: 0.05, material: 'brick' },
      field: leaf(over),
    },
  };
  const document: ProjectDocument = project(
    [wall({ length: 6, height: 4 })],
    [{ ...opening('a', 'p', 2, 0), ...(face ? { face } : {}) }],
    { patterns: { p } },
  );
  const sheets = sheetsOf(document);
  return swingsOf(sheets.of('w1')!, resolveOpening(document, document.openings.a!) as Placed);
}

describe('a swing', () => {
  it('begins at the hinge, stands at a right angle, and ends where the leaf is shut', () => {
    const [{ points }] = swings({}) as [Swing];
    const [hinge, open] = points as [readonly [number, number], readonly [number, number]];
    const shut = points.at(-1)!;
    // The leaf is a metre wide; the wall runs along x, into it is y.
    expect(shut[0] - hinge[0]).toBeCloseTo(1, 6);
    expect(shut[1]).toBeCloseTo(hinge[1], 6);
    expect(open[0]).toBeCloseTo(hinge[0], 6);
    expect(open[1] - hinge[1]).toBeCloseTo(1, 6);
    for (const point of points.slice(1)) expect(Math.hypot(point[0] - hinge[0], point[1] - hinge[1])).toBeCloseTo(1, 6);
  });

  it('goes to the side to which it opens, from the side on which it is hung', () => {
    const reach = (over: Partial<Leaf>, face?: 'inner') => {
      const [{ points }] = swings(over, face) as [Swing];
      const [hinge, open] = points as [readonly [number, number], readonly [number, number]];
      return [Math.round(points.at(-1)![0] - hinge[0]), Math.round(open[1] - hinge[1])];
    };
    expect(reach({ hung: 'right' })).toEqual([-1, 1]);
    expect(reach({ opens: 'outward' })).toEqual([1, -1]);
    expect(reach({ hung: 'right', opens: 'outward' })).toEqual([-1, -1]);
    // Set out from within it is all the other way round.
    expect(reach({}, 'inner')).toEqual([-1, -1]);
  });

  it('is drawn of no leaf that turns otherwise', () => {
    for (const hung of ['top', 'bottom', 'pivoted upright', 'slides left', 'fixed'] as const)
      expect([hung, swings({ hung })]).toEqual([hung, []]);
  });
});
