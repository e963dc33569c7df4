/** Walls under vaults: they reach up to the soffit, whichever way they run under it, and not into it. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { kinds, type Bay, type Element, type Vault, type Wall } from '@yard-arch/document';
import fc from 'fast-check';
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, type CutMesh } from '../src/index.ts';
import { pointAt } from '../src/element/chart.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { project, wall } from './sample.ts';
import { solidIn } from './solid-of.ts';

const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const thick = 0.3;

describe('a wall under a vault', () => {
  let library: ManifoldToplevel;
  beforeAll(async () => {
    library = await solidLibrary();
  });
  const solidOf = (mesh: CutMesh): Manifold => solidIn(library, mesh);
  const cutOf = (...elements: Element[]) => {
    const { cuts } = cutModel(project(elements));
    return elements.map(({ id }) => cuts.get(id)!);
  };
  const under = (from: readonly [number, number], to: readonly [number, number], foot: number): Wall =>
    wall({
      id: 'w1',
      start: { x: from[0], y: from[1], z: foot },
      turn: (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI,
      length: Math.hypot(to[0] - from[0], to[1] - from[1]),
      height: 0.5,
      top: { kind: 'under', roof: 'v1' },
      layers: [{ thickness: thick, material: 'brick' }],
    });

  it('fills what is below the soffit along its course: a barrel of any profile', () => {
    let made = 0;
    fc.assert(
      fc.property(
        fc.constantFrom('segment', 'pointed', 'ellipse', 'catenary'),
        figure(2.5, 7),
        figure(0.35, 0.5),
        // Across it from springing to springing at a distance along, aslant.
        figure(0.02, 0.7),
        figure(-0.06, 0.06),
        (profile, span, share, at, aslant) => {
          const vault: Vault = {
            ...kinds.vault.fresh({ id: 'v1', name: 'Barrel', start: { x: 0, y: 0, z: 2.4 }, turn: 0 }, 'stone'),
            span,
            rise: span * (profile === 'pointed' ? share + 0.2 : share),
            length: 8,
            profile,
          };
          const y = (x: number): number => 1 + 8 * at * 0.7 + aslant * x;
          // Clear of the springing, where a round soffit stands upright.
          const [a, b] = [0.04 * span, 0.96 * span];
          const [own, over] = cutOf(under([a, y(a)], [b, y(b)], 0), vault);
          if (over!.fault) return;
          expect(own!.fault).toBeNull();
          made += 1;
          expect(prove(own!.mesh).closed).toBe(true);
          const stands = solidOf(own!.mesh);
          const vaulted = solidOf(over!.mesh);
          // What is below a soffit that bulges is the hull of its points and of the floor.
          const { chart, thickness, height } = over!.sheet;
          if (chart.kind !== 'bent') throw new Error('a barrel is bent');
          const soffit = [...chart.s].flatMap((s) => [0, height].map((t) => pointAt(chart, s, t, thickness)));
          const below = library.Manifold.hull([
            ...soffit,
            ...soffit.map(([x, yy]) => [x, yy, 0] as [number, number, number]),
          ]);
          const [length, turn] = [Math.hypot(b - a, y(b) - y(a)), Math.atan2(y(b) - y(a), b - a)];
          const block = library.Manifold.cube([length, thick, 12])
            .rotate([0, 0, (turn * 180) / Math.PI])
            .translate([a, y(a), 0]);
          const want = block.intersect(below).volume();
          // Aslant, each facet is followed as far through the wall as it is over its outer face.
          expect(stands.intersect(vaulted).volume()).toBeLessThan(2e-3);
          expect(Math.abs(stands.volume() - want)).toBeLessThan(2e-4 * want);
        },
      ),
      { numRuns: Number(process.env.UNDER_ROUNDS ?? 40) },
    );
    expect(made).toBeGreaterThan(15);
  });

  it('closes an end flush with it, and the arch of a groin vault', () => {
    const vault: Vault = {
      ...kinds.vault.fresh({ id: 'v1', name: 'Barrel', start: { x: 0, y: 0, z: 2 }, turn: 0 }, 'stone'),
      span: 5,
      rise: 2.5,
      length: 8,
    };
    const [own] = cutOf(under([0, 0], [5, 0], 0), vault);
    expect(own!.fault).toBeNull();
    const { volume } = prove(own!.mesh);
    // Chords lie within the circle by no more than their sagitta.
    expect(volume).toBeLessThan((5 * 2 + (Math.PI * 2.5 ** 2) / 2) * thick);
    expect(volume).toBeGreaterThan((5 * 2 + (Math.PI * 2.5 ** 2) / 2) * thick - 0.01);

    const bay: Bay = {
      ...kinds.bay.fresh({ id: 'v1', name: 'Bay', start: { x: 0, y: 0, z: 2 }, turn: 0 }, 'stone'),
      corners: [
        { x: 0, y: 0 },
        { x: 4, y: 0 },
        { x: 4, y: 4 },
        { x: 0, y: 4 },
      ],
      rise: 2,
    };
    const [arch, over] = cutOf(under([0, 0], [4, 0], 0), bay);
    expect(arch!.fault).toBeNull();
    expect(prove(arch!.mesh).closed).toBe(true);
    expect(solidOf(arch!.mesh).intersect(solidOf(over!.mesh)).volume()).toBeLessThan(1e-3);
    expect(prove(arch!.mesh).volume).toBeGreaterThan((4 * 2 + (Math.PI * 2 ** 2) / 2) * thick - 0.25);
  });

  it('does not begin with what would take too long, and says so', () => {
    const vault: Vault = {
      ...kinds.vault.fresh({ id: 'v1', name: 'Barrel', start: { x: 0, y: 0, z: 2 }, turn: 0 }, 'stone'),
      span: 5,
      rise: 2.5,
      length: 8,
    };
    // Of 100 km in all, divided to a tenth of a millimetre.
    const own = {
      ...under([0, 0], [9e4, 0], 0),
      sweep: 1.7,
      runs: Array.from({ length: 199 }, () => ({ turn: 0, length: 9e4, sweep: 1.7 })),
    };
    const { cuts } = cutModel({ ...project([own, vault]), chord: 1e-4 });
    expect(cuts.get('w1')!.fault?.code).toBe('too-fine');
    const arc = { turn: 0, length: 1e4, sweep: 6 };
    const fine = { ...under([0, 0], [1e4, 0], 0), ...arc, runs: Array.from({ length: 11 }, () => arc), turn: 0 };
    const { sheet } = cutModel({ ...project([fine, { ...vault, span: 4e3, rise: 2e3 }]), chord: 1e-4 }).cuts.get('w1')!;
    expect(sheet.joins.map(({ code }) => code)).toContain('not-under');
  });
});
