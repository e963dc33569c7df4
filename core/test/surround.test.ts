/** Surrounds: bands on the face, as much as they are, closed, and on the face that they are to be on. */
import { describe, expect, it } from '@jest/globals';
import {
  firstChoice,
  firstDimensions,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Surround,
} from '@yard-arch/document';
import { cutModel, prove, type PartInstance } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const band: Surround = {
  id: 'q',
  kind: 'surround',
  material: 'stone',
  width: 0.15,
  thickness: 0.03,
  sides: ['jamb-left', 'jamb-right', 'head'],
};

function about(
  over: Partial<Surround>,
  shape: ProfileShape = 'rectangle',
  dimensions = firstDimensions(shape),
  more: Partial<Pattern> = {},
  sweep?: number,
): ProjectDocument {
  const pattern: Pattern = {
    id: 'p',
    name: 'Dressed',
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions } },
    reveal: { material: null },
    parts: [{ ...band, ...over }],
    ...more,
  };
  const walls = [wall({ length: 12, height: 9, ...(sweep ? { sweep } : {}) })];
  return project(walls, [opening('a', 'p', 2, 1)], { patterns: { p: pattern } });
}
const partsOf = (document: ProjectDocument): readonly PartInstance[] => cutModel(document).cuts.get('w1')!.parts;
const only = (document: ProjectDocument): PartInstance => {
  const [one, ...more] = partsOf(document);
  expect(more).toEqual([]);
  return one!;
};

describe('a surround', () => {
  it('of a window is two jambs and a head, ending at the sill', () => {
    const { part } = only(about({}, 'rectangle', { width: 1.2, height: 1.5 }));
    const proof = prove(part.mesh);
    expect(proof).toMatchObject({ closed: true, collapsed: 0 });
    expect(proof.volume).toBeCloseTo((2 * 0.15 * 1.5 + (1.2 + 0.3) * 0.15) * 0.03, 9);
  });

  it('all round is mitred at each corner', () => {
    const sides: Surround['sides'] = ['jamb-left', 'jamb-right', 'head', 'sill'];
    const { part } = only(about({ sides }, 'rectangle', { width: 1.2, height: 1.5 }));
    expect(prove(part.mesh).volume).toBeCloseTo((1.5 * 1.8 - 1.2 * 1.5) * 0.03, 9);
  });

  it('goes round an arch with it, shaded round within and without', () => {
    const { part } = only(about({}, 'semicircular-arch', { span: 2, height: 3 }));
    const proof = prove(part.mesh);
    expect(proof).toMatchObject({ closed: true, collapsed: 0 });
    // Chords within a millimetre of the arc are as good as it.
    const half = (Math.PI / 2) * (1.15 ** 2 - 1);
    expect(proof.volume).toBeCloseTo((half + 2 * 2 * 0.15) * 0.03, 3);
    const { normals, vertices, points } = part.mesh;
    let round = 0;
    for (let c = 0; c < vertices.length; c++) {
      const [x, z] = [points[3 * vertices[c]!]!, points[3 * vertices[c]! + 2]! - 2];
      if (Math.abs(normals[3 * c + 1]!) > 0.5 || z < 0.1) continue;
      const size = Math.hypot(x, z);
      const along = (x * normals[3 * c]! + z * normals[3 * c + 2]!) / size;
      expect(Math.abs(along)).toBeGreaterThan(1 - 1e-4);
      // Inward on the inner edge, outward on the outer one.
      expect(Math.sign(along)).toBe(size > 1.07 ? 1 : -1);
      round += 1;
    }
    expect(round).toBeGreaterThan(40);
  });

  it('begins where an arris leaves the face', () => {
    const arris = { arris: { kind: 'chamfered' as const, size: 0.02 } };
    const sections = { 'jamb-left': arris, 'jamb-right': arris, head: arris };
    const { part } = only(about({}, 'rectangle', { width: 1, height: 1 }, { sections }));
    const xs = Array.from({ length: part.mesh.points.length / 3 }, (_, i) => part.mesh.points[3 * i]!);
    expect([...new Set(xs.map((x) => Math.round(Math.abs(x) * 1e6)))].sort()).toEqual([520_000, 670_000]);
  });

  it('stands before its own face, or on the face behind', () => {
    const place = ({ placement: { origin, y } }: PartInstance) =>
      [origin[1], y[1]].map((value) => Math.round(value * 1e6) / 1e6);
    expect(place(only(about({})))).toEqual([0, 1]);
    const behind = only(about({ behind: true }));
    expect(place(behind)).toEqual([0.4, -1]);
    expect(behind.face).toBe('inner');
  });

  it.each<[string, ProjectDocument, RegExp]>([
    [
      'behind a niche',
      about({ behind: true }, 'rectangle', { width: 1, height: 1 }, { cut: { kind: 'niche', depth: 0.1 } }),
      /does not go through/,
    ],
  ])('%s is left out, and says so', (_, document, reason) => {
    expect(partsOf(document)).toEqual([]);
    expect(cutModel(document).statuses.get('a')!.reason).toMatch(reason);
  });
});
