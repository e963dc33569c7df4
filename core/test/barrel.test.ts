/** Openings in barrels: radial, or level in the flank; and windows whose heads run into a vault. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { kinds, type Pattern, type Vault } from '@yard-arch/document';
import fc from 'fast-check';
import type { ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, resolveOpening, seenLevel, type CutMesh, type Placed, type Region } from '../src/index.ts';
import { meshIn } from '../src/element/placed-mesh.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { solidIn } from './solid-of.ts';
import { opening, patterns, project, wall } from './sample.ts';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

const barrel: Vault = {
  ...kinds.vault.fresh({ id: 'v1', name: 'Barrel', start: { x: 0, y: 0, z: 2 }, turn: 30 }, 'stone'),
  span: 6,
  rise: 3,
  length: 8,
};
const round = Math.PI * 3.3;

/** Normals of an opening's reveal by its side. */
function normalsOf({ normals, triangles, runs }: CutMesh, role: string): [number, number, number][] {
  return runs
    .filter((run) => run.opening === 'o' && run.role === role)
    .flatMap(({ first, count }) =>
      Array.from({ length: 3 * count }, (_, k) => {
        const at = 3 * triangles[3 * first + k]!;
        return [...normals.subarray(at, at + 3)] as [number, number, number];
      }),
    );
}

const cutWith = (inBarrels: Pattern['inBarrels'], along: number) => {
  const light: Pattern = { ...patterns.window!, ...(inBarrels ? { inBarrels } : {}) };
  const model = cutModel(
    project([barrel], [opening('o', 'window', along, 3, { element: 'v1' })], { patterns: { window: light } }),
  );
  return { cut: model.cuts.get('v1')!, status: model.statuses.get('o')! };
};

describe('an opening in a barrel', () => {
  it('is radial unless its pattern says level: then head and sill are level and the jambs upright', () => {
    const whole = prove(cutModel(project([barrel])).cuts.get('v1')!.mesh).volume;
    for (const along of [1.2, round - 2.6]) {
      const radial = cutWith(undefined, along);
      const level = cutWith('level', along);
      for (const { cut, status } of [radial, level]) {
        expect(status.state).toBe('cut');
        expect(prove(cut.mesh)).toMatchObject({ closed: true, openEdges: 0 });
        expect(prove(cut.mesh).volume).toBeLessThan(whole - 0.3);
      }
      const { mesh } = level.cut;
      for (const role of ['head', 'sill']) {
        const found = normalsOf(mesh, role);
        expect(found.length).toBeGreaterThan(0);
        for (const [, , z] of found) expect(Math.abs(z)).toBeCloseTo(1, 6);
      }
      for (const role of ['jamb-left', 'jamb-right'])
        for (const [x, y, z] of normalsOf(mesh, role)) {
          expect(z).toBeCloseTo(0, 6);
          // Square to the axis, which runs 30° and a quarter turn on.
          expect(Math.abs(x * Math.cos((120 * Math.PI) / 180) + y * Math.sin((120 * Math.PI) / 180))).toBeCloseTo(1, 6);
        }
      // Neither is so where it goes in radially.
      expect(normalsOf(radial.cut.mesh, 'head').some(([, , z]) => Math.abs(z) < 0.9)).toBe(true);
    }
  });

  it('says so where it cannot be level: at the crown', () => {
    expect(cutWith('level', round / 2 - 0.6).status).toMatchObject({ state: 'not cut' });
  });

  it('lets a window whose head is above the springing run on into it from the wall beside it', () => {
    const beside = wall({
      id: 'w1',
      start: { x: 3, y: 0, z: 0 },
      turn: 0,
      length: 8,
      height: 4,
      layers: [{ thickness: 0.5, material: 'brick' }],
    });
    const over: Vault = { ...barrel, start: { x: 3, y: 0.5, z: 2 }, turn: 90, span: 5, rise: 2.5 };
    // From the wall's inner face inward: the barrel runs along the wall.
    const vault: Vault = { ...over, start: { x: 11, y: 0.5, z: 2 } };
    const arch = opening('o', 'arch', 3, 1, { element: 'w1', further: ['v1'] });
    const made = cutModel(project([beside, vault], [arch]));
    const bare = cutModel(project([beside, vault]));
    const { state, further } = made.statuses.get('o')!;
    // Its jambs come down past the springing: it is open at the vault's edge.
    expect([state, further!.map((one) => one.state)]).toEqual(['cut', ['notched']]);
    for (const id of ['w1', 'v1']) {
      const [after, before] = [made, bare].map((model) => prove(model.cuts.get(id)!.mesh));
      expect(after!.closed).toBe(true);
      expect(before!.volume - after!.volume).toBeGreaterThan(0.1);
    }
  });

  it('has a web over it that closes against wall and vault, whatever the vault’s profile', () => {
    const beside = wall({
      id: 'w1',
      start: { x: 3, y: 0, z: 0 },
      length: 8,
      height: 5,
      layers: [{ thickness: 0.5, material: 'brick' }],
    });
    let made = 0;
    fc.assert(
      fc.property(
        fc.constantFrom('segment', 'pointed', 'ellipse', 'catenary'),
        fc.double({ min: 3.5, max: 7, noNaN: true }),
        fc.double({ min: 0.75, max: 1.1, noNaN: true }),
        fc.double({ min: 0.02, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 1.2, noNaN: true }),
        fc.constantFrom('arch', 'window', 'oculus'),
        (profile, span, steep, thickness, up, pattern) => {
          const vault: Vault = {
            ...barrel,
            start: { x: 11, y: 0.5, z: 2 },
            turn: 90,
            span,
            rise: (steep * span) / 2 + (profile === 'pointed' ? 0.2 * span : 0),
            profile,
            layers: [{ thickness: 0.2, material: 'stone' }],
          };
          const lunette = { id: 'l', kind: 'lunette' as const, material: 'stone', thickness };
          const with_ = { ...patterns, [pattern]: { ...patterns[pattern]!, parts: [lunette] } };
          const { cuts, statuses } = cutModel(
            project([beside, vault], [opening('o', pattern, 3, 1 + up, { further: ['v1'] })], { patterns: with_ }),
          );
          const [own, over] = [cuts.get('w1')!, cuts.get('v1')!];
          if (over.fault) return;
          const web = own.parts.find(({ part }) => part.name === 'lunette');
          if (!web) return expect(statuses.get('o')!.reason).toMatch(/does not come up|rises above/);
          made += 1;
          expect(prove(web.part.mesh)).toMatchObject({ closed: true, flaps: 0, collapsed: 0 });
          const stands = solidIn(library, meshIn(web.placement, web.part.mesh));
          expect(stands.volume()).toBeGreaterThan(0);
          for (const { mesh } of [own, over])
            expect(stands.intersect(solidIn(library, mesh)).volume()).toBeLessThan(2e-4);
          // Nothing of it is before the wall's inner face.
          expect(stands.boundingBox().min[1]).toBeGreaterThan(0.5 - 1e-4);
        },
      ),
      { numRuns: Number(process.env.LUNETTE_ROUNDS ?? 40) },
    );
    expect(made).toBeGreaterThan(8);
  });

  it('says what its lunette wants where there is no barrel', () => {
    const lunette = { id: 'l', kind: 'lunette' as const, material: 'stone', thickness: 0.15 };
    const { statuses } = cutModel(
      project([wall()], [opening('o', 'arch', 3, 1)], { patterns: { arch: { ...patterns.arch!, parts: [lunette] } } }),
    );
    expect(statuses.get('o')!.reason).toContain('no barrel to run to');
  });
});

describe('what stands in a level opening of a barrel', () => {
  const glazed: Pattern = {
    ...patterns.window!,
    sizes: { a: { id: 'a', name: '', dimensions: { width: 1.2, height: 0.6 } } },
    inBarrels: 'level',
    infill: {
      seat: { from: 'outer', depth: 0.02 },
      gap: 0,
      frame: { width: 0.05, depth: 0.05, material: 'stone' },
      field: { kind: 'glass', material: 'stone', thickness: 0.006 },
    },
  };
  const thick: Vault = { ...barrel, layers: [{ thickness: 0.6, material: 'stone' }] };
  const alone = (along: number) =>
    project([thick], [opening('o', 'window', along, 3, { element: 'v1' })], { patterns: { window: glazed } });
  const loopsOf = ({ count, xs, ys, next }: Region): [number, number][][] => {
    const seen = new Set<number>();
    return Array.from({ length: count }, (_, first) => {
      const loop: [number, number][] = [];
      for (let v = first; !seen.has(v); v = next[v]!) {
        seen.add(v);
        loop.push([xs[v]!, ys[v]!]);
      }
      return loop;
    }).filter((loop) => loop.length > 0);
  };
  const stood = (along: number, face?: 'inner', vault: Vault = thick) => {
    const document = project(
      [vault],
      [opening('o', 'window', along, 3, { element: 'v1', ...(face ? { face } : {}) })],
      { patterns: { window: glazed } },
    );
    const model = cutModel(document);
    return { cut: model.cuts.get('v1')!, status: model.statuses.get('o')! };
  };

  it.each([
    [1.4, undefined],
    [Math.PI * 3.6 - 2.4, undefined],
    [1.4, 'inner'],
  ] as const)('stands upright within the barrel, from %s m on, set out from %s', (along, face) => {
    const { cut, status } = stood(along, face);
    expect(status.findings.map(({ code, reason }) => [code, reason])).toEqual([]);
    expect(cut.parts.length).toBeGreaterThan(0);
    // What is taken away holds all that stands there: the barrel is no smaller for it, and nothing of it is outside of the hole.
    const whole = cutModel(project([thick])).cuts.get('v1')!.mesh;
    const hole = solidIn(library, whole).subtract(solidIn(library, cut.mesh));
    for (const { part, placement } of cut.parts) {
      const there = solidIn(library, meshIn(placement, part.mesh));
      const outside = there.subtract(hole).volume();
      expect(outside).toBeLessThan(1e-3 * there.volume() + 1e-6);
      expect(Math.abs(placement.z[2])).toBeCloseTo(1, 9);
    }
  });

  it.each([1.4, 2.1, Math.PI * 3.6 - 2.4])('is drawn on the sheet where the hole is, set out from %s m on', (along) => {
    const { cut } = stood(along);
    const [hole] = loopsOf(cut.region).filter((loop) => loop.every(([, y]) => y > 0.01 && y < 7.99));
    const [xs, ys] = [hole!.map(([x]) => x), hole!.map(([, y]) => y)];
    const document = alone(along);
    const placed = resolveOpening(document, document.openings.o!) as Placed;
    const seen = seenLevel(cut.sheet, placed);
    // The face is facets: its outline is drawn straight between head and sill.
    expect(seen.s).toBeCloseTo(Math.min(...xs), 2);
    expect(seen.s + seen.profile.width).toBeCloseTo(Math.max(...xs), 2);
    expect(seen.t).toBeCloseTo(Math.min(...ys), 6);
    expect(seen.t + seen.profile.height).toBeCloseTo(Math.max(...ys), 6);
    // Its sill is at the lower end of the flank, which is at the outside of the barrel.
    const [, , bx, , sx] = seen.leans!;
    expect(bx * (Math.PI * 1.8 - sx)).toBeGreaterThan(0);
    expect(seenLevel(cut.sheet, placed).outline).toBe(seen.outline);
  });

  it('is left out, and says so, where the barrel is too thin for it there', () => {
    const { cut, status } = stood(1.4, undefined, { ...barrel, layers: [{ thickness: 0.05, material: 'stone' }] });
    expect(cut.parts).toEqual([]);
    expect(status.findings.map(({ code }) => code)).toContain('part-left-out');
  });
});
