/** Edges that a section eats up: held against the offsets of a polygon library, slice by slice. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Section } from '@yard-arch/document';
import type { ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { offsetAt } from '../src/reveal/tube.ts';
import { opening, patterns, project, wall } from './sample.ts';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

const shapes = {
  trefoil: { profile: { shape: 'trefoil' }, dimensions: { diameter: 1.2 } },
  quatrefoil: { profile: { shape: 'quatrefoil' }, dimensions: { diameter: 1.2 } },
  star: { profile: { shape: 'star', sides: 7 }, dimensions: { diameter: 1.4, inner: 0.7 } },
} as const;

function checked(shape: keyof typeof shapes, section: Section) {
  const { profile, dimensions } = shapes[shape];
  const sections = { 'jamb-left': section, 'jamb-right': section, head: section, sill: section };
  const pattern = { ...patterns.window!, id: 'p', profile, sections, sizes: { s: { id: 's', name: 's', dimensions } } };
  const document = { ...project([wall()], [{ ...opening('a', 'p', 2, 1), size: 's' }]), patterns: { ...patterns, p: pattern as never } };
  const cut = cutModel(document).cuts.get('w1')!;
  const status = cut.statuses[0]!;
  const [placed] = cut.placed;
  const { outline } = placed!;
  const ring = Array.from({ length: outline.count }, (_, i): [number, number] => [outline.xs[i]!, outline.ys[i]!]);
  const area = (offset: number): number => {
    const whole = new library.CrossSection([ring], 'Positive');
    const grown = whole.offset(offset, 'Miter', 1000);
    const found = grown.area();
    whole.delete();
    grown.delete();
    return found;
  };
  // The void between two depths, its area a smooth function between the section's own breaks but where an edge vanishes.
  const line = placed!.sections.head;
  let taken = 0;
  for (let i = 0; i + 1 < line.n.length; i++) {
    const [from, to] = [line.n[i]!, Math.min(0.4, line.n[i + 1]!)];
    const slices = line.offset[i] === line.offset[i + 1] ? 1 : 200;
    for (let k = 0; k < slices; k++) if (to > from) taken += ((to - from) / slices) * area(offsetAt(line, from + ((k + 0.5) * (to - from)) / slices, 1));
  }
  return { proof: prove(cut.mesh), status, cut, wanted: 6 * 4 * 0.4 - taken };
}

describe('an edge that a section eats up', () => {
  for (const shape of Object.keys(shapes) as (keyof typeof shapes)[])
    for (const step of [0.03, 0.12, 0.2])
      it(`vanishes behind a check of ${step * 1000} mm in a ${shape}`, () => {
        const { proof, status, wanted, cut } = checked(shape, { checks: [{ depth: 0.1, step }] });
        expect(status.reason).toBeNull();
        expect(status.state).toBe('cut');
        expect(cut.path).toBe('sheet');
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0, torn: 0 });
        expect(proof.volume).toBeCloseTo(wanted, 6);
      });

  for (const shape of Object.keys(shapes) as (keyof typeof shapes)[])
    for (const angle of [10, 25, 40])
      it(`vanishes along a splay of ${angle}° in a ${shape}, and appears again along one outside`, () => {
        const inside = checked(shape, { seat: 0.1, splayInside: angle });
        const both = checked(shape, { splayOutside: angle, splayInside: angle, seat: 0.2 });
        for (const { proof, status, wanted, cut } of [inside, both]) {
          expect(status.reason).toBeNull();
          expect(cut.path).toBe('sheet');
          expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0, torn: 0 });
          expect(proof.volume).toBeCloseTo(wanted, 4);
        }
      });
});
