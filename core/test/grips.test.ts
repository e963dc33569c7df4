/** Leaves taken hold of: where a grip goes as its leaf does. */
import { expect, it } from '@jest/globals';
import type { Leaf, Pattern } from '@yard-arch/document';
import fc from 'fast-check';
import { cutModel, gripAt, leafGripsOf, resolveOpening, sheetsOf, type Placed } from '../src/index.ts';
import { minus } from '../src/vector.ts';
import { opening, project, wall } from './sample.ts';

const hangings = ['left', 'right', 'top', 'bottom', 'pivoted upright', 'slides left', 'slides up'] as const;

it('a grip lies on its leaf as that stands', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...hangings),
      fc.constantFrom<Leaf['opens']>('inward', 'outward'),
      fc.constantFrom<'outer' | 'inner'>('outer', 'inner'),
      fc.integer({ min: 5, max: 85 }),
      fc.integer({ min: 0, max: 359 }),
      (hung, opens, face, amount, turn) => {
        const slides = hung.startsWith('slides');
        const stood = slides ? { slid: amount / 100 } : { open: amount };
        const field: Leaf = {
          kind: 'leaf',
          frame: { width: 0.05, depth: 0.05, material: 'brick' },
          clearance: 0.002,
          hung,
          opens,
          angle: 0,
          field: { kind: 'glass', material: 'brick', thickness: 0.02 },
        };
        const p: Pattern = {
          id: 'p',
          name: 'Light',
          profile: { shape: 'rectangle' },
          sizes: { a: { id: 'a', name: '', dimensions: { width: 0.9, height: 1.3 } } },
          reveal: { material: null },
          infill: {
            seat: { from: 'outer', depth: 0.1 },
            gap: 0,
            frame: { width: 0.05, depth: 0.06, material: 'brick' },
            field,
          },
        };
        const document = project(
          [wall({ length: 6, height: 4, turn })],
          [{ ...opening('a', 'p', 2, 1), ...stood, face }],
          { patterns: { p } },
        );
        const [grip] = leafGripsOf(
          sheetsOf(document).of('w1')!,
          resolveOpening(document, document.openings.a!) as Placed,
        );
        const at = gripAt(grip!, grip!.amount);
        // It lies within the leaf's box, in the directions in which that stands.
        const { part, placement } = cutModel(document)
          .cuts.get('w1')!
          .parts.find(({ id }) => id === 'leaf 1')!;
        ([placement.x, placement.y, placement.z] as const).forEach((axis, k) => {
          const values = part.mesh.points.filter((_, i) => i % 3 === k);
          const own = minus(at, placement.origin).reduce((sum, value, i) => sum + value * axis[i]!, 0);
          expect(own).toBeGreaterThan(Math.min(...values) - 1e-6);
          expect(own).toBeLessThan(Math.max(...values) + 1e-6);
        });
      },
    ),
    { numRuns: 80 },
  );
});
