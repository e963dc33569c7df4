/** Edges that a section eats up: held against the offsets of a polygon library, slice by slice. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Section } from '@yard-arch/document';
import type { ManifoldToplevel } from 'manifold-3d';
import { cornerAt, cutModel, prove } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { offsetAt } from '../src/profile/section.ts';
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
  const document = {
    ...project([wall()], [{ ...opening('a', 'p', 2, 1), size: 's' }]),
    patterns: { ...patterns, p: pattern as never },
  };
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
    for (let k = 0; k < slices; k++)
      if (to > from)
        taken += ((to - from) / slices) * area(offsetAt(line, from + ((k + 0.5) * (to - from)) / slices, 1));
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
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
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
          expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
          expect(proof.volume).toBeCloseTo(wanted, 4);
        }
      });
});

describe('an opening whose section does not fit', () => {
  it('is the one that is refused, and not another beside it', () => {
    const splay = { splayInside: -40 };
    const sections = { 'jamb-left': splay, 'jamb-right': splay, head: splay, sill: splay };
    const narrow = {
      ...patterns.window!,
      id: 'narrow',
      sections,
      sizes: { a: { id: 'a', name: 'a', dimensions: { width: 0.3, height: 0.3 } } },
    };
    const model = cutModel({
      ...project([wall()], [opening('a', 'arch', 0.5, 0), opening('b', 'narrow', 3, 1), opening('c', 'oculus', 4, 2)]),
      patterns: { ...patterns, narrow },
    });
    expect([...model.statuses.values()].map(({ state }) => state)).toEqual(['notched', 'not cut', 'cut']);
    expect(model.statuses.get('b')!.mend).toContain('smaller splay');
  });
});

describe('normals by a set angle', () => {
  it('join the faces of a drum of straight runs, and leave its top and its corners sharp', () => {
    const runs = Array.from({ length: 11 }, () => ({ turn: 30, length: 1 }));
    const faceted = wall({ length: 1, height: 3, runs, layers: [{ thickness: 0.2, material: 'brick' }] });
    const normals = (smooth?: number): number[] => {
      const { mesh } = cutModel(project([smooth === undefined ? faceted : { ...faceted, smooth }], [])).cuts.get('w1')!;
      const run = mesh.runs.find(({ role }) => role === 'outer face')!;
      const turns: number[] = [];
      for (let t = 3 * run.first; t < 3 * (run.first + run.count); t += 3) {
        const [a, b, c] = [0, 1, 2].map((k) => mesh.triangles[t + k]!) as [number, number, number];
        const flat = [0, 1, 2].map((k) => {
          const [i, j] = [(k + 1) % 3, (k + 2) % 3];
          const at = (corner: number, axis: number): number => cornerAt(mesh, corner)[axis]!;
          return (at(b, i) - at(a, i)) * (at(c, j) - at(a, j)) - (at(b, j) - at(a, j)) * (at(c, i) - at(a, i));
        });
        const size = Math.hypot(...flat);
        turns.push(
          (Math.acos(
            Math.min(
              1,
              [0, 1, 2].reduce((sum, k) => sum + (flat[k]! / size) * mesh.normals[3 * a + k]!, 0),
            ),
          ) *
            180) /
            Math.PI,
        );
      }
      return turns;
    };
    expect(Math.max(...normals())).toBeLessThan(0.1);
    expect(Math.max(...normals(20))).toBeLessThan(0.1);
    // Each rib's normals halve the turn of 30° at it, but for the two free ends.
    const smoothed = normals(40);
    expect(smoothed.filter((turn) => Math.abs(turn - 15) < 0.1).length).toBeGreaterThan(18);
    expect(Math.max(...smoothed)).toBeLessThan(15.1);
  });
});

describe('an edge that vanishes and appears again', () => {
  it('has a face before and one behind, and none in between', () => {
    // The last chord of the arch is eaten up between the checks of the jamb and of the head, and comes back with the jamb's inner arris.
    const sections = {
      head: { seat: 0.1, splayInside: 25, checks: [{ depth: 0.14, step: 0.06 }] },
      'jamb-right': {
        splayInside: -3,
        checks: [
          { depth: 0.08, step: 0.05 },
          { depth: 0.09, step: 0.05 },
        ],
        innerArris: { kind: 'chamfered' as const, size: 0.03, segments: 1 },
      },
    };
    const arch = {
      ...patterns.window!,
      id: 'p',
      profile: { shape: 'segmental-arch' as const },
      sections,
      sizes: { a: { id: 'a', name: 'a', dimensions: { span: 0.816, height: 1.224, rise: 0.17 } } },
    };
    for (const mesh of ['lean', 'quads'] as const) {
      const model = cutModel({
        ...project(
          [wall({ layers: [{ thickness: 0.47, material: 'brick' }], mesh })],
          [{ ...opening('o', 'p', 3.08, 1.89), size: 'a' }],
        ),
        patterns: { p: arch },
      });
      const cut = model.cuts.get('w1')!;
      expect(model.statuses.get('o')).toMatchObject({ state: 'cut' });
      expect(cut.path).toBe('sheet');
      expect(prove(cut.mesh)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
    }
  });
});

describe('sections that leave nothing', () => {
  it('are refused, and what is to be kept stays', () => {
    const check = { checks: [{ depth: 0.1, step: 0.06 }] };
    const wide = { 'jamb-left': check, 'jamb-right': check, head: check, sill: check };
    const kept = {
      ...patterns.window!,
      id: 'kept',
      cut: { kind: 'keep inside' as const },
      sizes: { a: { id: 'a', name: 'a', dimensions: { width: 0.7, height: 0.7 } } },
    };
    const taken = {
      ...patterns.oculus!,
      id: 'taken',
      sections: wide,
      sizes: { a: { id: 'a', name: 'a', dimensions: { diameter: 1 } } },
    };
    const model = cutModel({
      ...project([wall()], [opening('k', 'kept', 2, 2), opening('t', 'taken', 1.85, 1.85)]),
      patterns: { kept, taken },
    });
    expect(model.statuses.get('t')).toMatchObject({
      state: 'not cut',
      reason: expect.stringContaining('nothing would be left'),
    });
    expect(prove(model.cuts.get('w1')!.mesh).volume).toBeCloseTo(0.7 * 0.7 * 0.4, 9);
  });
});

describe('sides that pass each other', () => {
  it('are told of where what is between them is gone, though none crosses another', () => {
    const reasonOf = (step: number): string | null => {
      const check = { checks: [{ depth: 0.1, step }] };
      const pattern = {
        ...patterns.window!,
        id: 'p',
        profile: { shape: 'i-section' },
        sections: { 'jamb-left': check, 'jamb-right': check },
        sizes: { s: { id: 's', name: 's', dimensions: { width: 0.4, height: 0.6, web: 0.06, flange: 0.06 } } },
      };
      const document = {
        ...project([wall()], [{ ...opening('a', 'p', 2, 1), size: 's' }]),
        patterns: { ...patterns, p: pattern as never },
      };
      return cutModel(document).statuses.get('a')!.reason;
    };
    expect(reasonOf(-0.02)).toBeNull();
    expect(reasonOf(-0.04)).toContain('would cross another of its sides');
  });
});
