/** Creases: the edges that are drawn in ink are those that a draughtsman would draw. */
import { describe, expect, it } from '@jest/globals';
import type { Opening, Pattern, ProjectDocument, Wall } from '@yard-arch/document';
import { creasesOf, cutModel } from '../src/index.ts';
import { opening, patterns, project, wall } from './sample.ts';

type Segment = [number, number, number, number, number, number];

function inked(
  one: Wall,
  openings: readonly Opening[] = [],
  made: Record<string, Partial<Pattern>> = {},
  origin: readonly [number, number, number] = [0, 0, 0],
): Segment[] {
  const own = { ...patterns };
  for (const [id, over] of Object.entries(made)) own[id] = { ...patterns.window!, id, ...over };
  const document: ProjectDocument = { ...project([one], openings), patterns: own };
  const lines = creasesOf(cutModel(document).cuts.get(one.id)!.mesh, origin);
  return Array.from({ length: lines.length / 6 }, (_, i) => [...lines.slice(6 * i, 6 * i + 6)] as Segment);
}
const lengthOf = ([ax, ay, az, bx, by, bz]: Segment): number => Math.hypot(bx - ax, by - ay, bz - az);
const total = (lines: readonly Segment[]): number => lines.reduce((sum, line) => sum + lengthOf(line), 0);

describe('creases', () => {
  const box = wall({ length: 6, height: 4, layers: [{ thickness: 0.4, material: 'brick' }] });

  it('of a plain wall are its twelve edges', () => {
    expect(total(inked(box))).toBeCloseTo(4 * (6 + 4 + 0.4), 5);
  });

  it('go round a window on both faces and through the wall at its corners', () => {
    const size = { width: 1, height: 1.5 };
    const lines = inked(box, [opening('a', 'p', 2, 1)], {
      p: { profile: { shape: 'rectangle' }, sizes: { a: { id: 'a', name: '', dimensions: size } } },
    });
    expect(total(lines)).toBeCloseTo(4 * (6 + 4 + 0.4) + 2 * 2 * (1 + 1.5) + 4 * 0.4, 5);
  });

  it('do not line a round reveal, but for its rims', () => {
    const lines = inked(box, [opening('a', 'p', 2, 1)], {
      p: { profile: { shape: 'circle' }, sizes: { a: { id: 'a', name: '', dimensions: { diameter: 1 } } } },
    });
    const deep = lines.filter(([, ay, , , by]) => Math.abs(ay - by) > 0.1);
    expect(deep).toHaveLength(4);
    expect(total(lines) - 4 * (6 + 4 + 0.4)).toBeCloseTo(2 * Math.PI, 1);
  });

  it('go about an imprint, whose face is no other', () => {
    const lines = inked(box, [opening('a', 'p', 2, 1)], {
      p: {
        cut: { kind: 'imprint', material: null },
        profile: { shape: 'rectangle' },
        sizes: { a: { id: 'a', name: '', dimensions: { width: 1, height: 1 } } },
      },
    });
    expect(total(lines)).toBeCloseTo(4 * (6 + 4 + 0.4) + 4, 5);
  });

  it('do not stand along a curved face', () => {
    const lines = inked(wall({ length: 6, sweep: 90, height: 4 }));
    const upright = lines.filter(([ax, ay, , bx, by]) => Math.hypot(ax - bx, ay - by) < 1e-6);
    expect(upright).toHaveLength(4);
  });

  it('are told from an origin, and exact kilometres away', () => {
    const far: [number, number, number] = [81_234, -45_321, 12];
    const [near, away] = [
      inked(box),
      inked(
        { ...box, start: { x: far[0] + box.start.x, y: far[1] + box.start.y, z: far[2] + box.start.z } },
        [],
        {},
        far,
      ),
    ];
    expect(away).toHaveLength(near.length);
    near.forEach((line, i) => line.forEach((value, k) => expect(away[i]![k]).toBeCloseTo(value, 5)));
  });
});
