/** The promises of every cut, over random elements, build-ups, profiles, sections and kinds of cut, against an independent oracle. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { type Opening, type Pattern } from '@yard-arch/document';
import fc from 'fast-check';
import { writeFileSync } from 'node:fs';
import type { ManifoldToplevel } from 'manifold-3d';
import { solidLibrary } from '../src/cut/solid.ts';
import { cutModel, mirroredIn, prove } from '../src/index.ts';
import { oracleVolume } from './oracle.ts';
import { anything } from './anything.ts';
import { expectSameMesh, opening, project, wall } from './sample.ts';

// A few of everything each time; PROPERTY_RUNS asks for more.
const numRuns = Number(process.env.PROPERTY_RUNS ?? 120);

/** A longer run that was broken off, or failed and was mended, is gone on with from here. */
const from = Number(process.env.PROPERTY_FROM ?? 0);

/** Shrinking is worth its time only where somebody waits for it. */
const quick = process.env.PROPERTY_SHRINK !== 'yes';

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

describe('whatever is cut', () => {
  it('is closed, clean and at true scale, encloses what the oracle does, and is the same after any edit', () => {
    let [compared, tried] = [0, 0];
    fc.assert(
      fc.property(anything, ({ document }) => {
        tried += 1;
        if (tried <= from) return;
        if (process.env.PROPERTY_KEEP) writeFileSync(process.env.PROPERTY_KEEP, JSON.stringify(document));
        const model = cutModel(document);
        const cut = model.cuts.get('w1')!;
        expect(cut.fault?.trouble).toBeUndefined();
        const proof = prove(cut.mesh);
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
        expect(proof.volume).toBeGreaterThan(0);
        expect(proof).toMatchObject({ collapsed: 0, flaps: 0 });
        // The library of the solid path joins slivers of neighbouring faces, whose texture is then that of one of them.
        if (cut.path === 'sheet') {
          expect(mirroredIn(cut.mesh, () => true)).toBe(0);
          expect(proof.density[0]).toBeGreaterThan(0.99);
          expect(proof.density[1]).toBeLessThan(1.01);
          // A rounded arris on a rounded side bends both ways: its texture is stretched there rather than broken.
          expect(proof.densityOnBent[0]).toBeGreaterThan(0.799);
          expect(proof.densityOnBent[1]).toBeLessThan(1.201);
        }
        for (const status of model.statuses.values()) if (status.state === 'not cut') expect(status.mend).toBeTruthy();
        const element = document.elements.w1!;
        const aimed = Object.values(document.openings).some((o) => o.aim);
        if (!aimed && element.skins !== 'layers') {
          const taken = cut.placed.filter((p) => model.statuses.get(p.id)!.state !== 'not cut');
          const volume = oracleVolume(library, cut.sheet, taken);
          if (volume !== null) {
            compared += 1;
            // What touches in a point is moved by a hair.
            const moved = [...model.statuses.values()].some(({ reason }) => reason?.includes('by a hair'));
            expect(Math.abs(proof.volume - volume)).toBeLessThan(moved ? 1e-3 : 2e-5);
          }
        }
        // The same input gives the same mesh; an edit and its undoing give back the very same figures.
        const again = cutModel(structuredClone(document));
        expectSameMesh(again.cuts.get('w1')!.mesh, cut.mesh);
        const without = { ...document, openings: {} };
        const bare = cutModel(without, model);
        expectSameMesh(bare.cuts.get('w1')!.mesh, cutModel(without).cuts.get('w1')!.mesh);
        expectSameMesh(cutModel(document, bare).cuts.get('w1')!.mesh, cut.mesh);
        const [first] = Object.values(document.openings);
        // Every other time: it takes a third of the whole.
        if (first && tried % 2 === 0) {
          const moved = {
            ...document,
            openings: { ...document.openings, [first.id]: { ...first, up: { from: 'base' as const, distance: 1.37 } } },
          };
          expectSameMesh(cutModel(moved, model).cuts.get('w1')!.mesh, cutModel(moved).cuts.get('w1')!.mesh);
        }
      }),
      { numRuns, endOnFailure: quick },
    );
    // An oracle that never spoke would prove nothing.
    expect(compared).toBeGreaterThan((numRuns - from) / 10);
  });

  it('as layers, without cavities, holds as much as in one skin', () => {
    fc.assert(
      fc.property(anything, ({ document }) => {
        const element = document.elements.w1!;
        const as = (skins: 'one' | 'layers') =>
          cutModel({ ...document, elements: { w1: { ...element, skins, mesh: 'lean' } } }).cuts.get('w1')!;
        const [one, layers] = [as('one'), as('layers')];
        // On bent walls the planes between layers bend too, and a reveal that crosses them is divided otherwise; the solid path's library has a tolerance of its own.
        const bent = element.kind === 'wall' && (element.sweep || element.runs);
        const solid = one.path === 'solid' || layers.path === 'solid';
        expect(Math.abs(prove(one.mesh).volume - prove(layers.mesh).volume)).toBeLessThan(
          bent ? 2e-3 + 2e-3 * prove(one.mesh).volume : solid ? 5e-4 : 2e-5,
        );
      }),
      { numRuns: Math.ceil(numRuns / 4), endOnFailure: quick },
    );
  });
});

describe('the solid path', () => {
  it('leaves out what the sheet path would have refused, and says so', () => {
    const checked: Pattern = {
      id: 'p',
      name: 'Checked',
      profile: { shape: 'rectangle' },
      sizes: { a: { id: 'a', name: '', dimensions: { width: 1.2, height: 1.5 } } },
      reveal: { material: null },
      sections: { 'jamb-left': { checks: [{ depth: 0.1, step: 0.05 }] } },
    };
    const boss: Pattern = { ...checked, id: 'b', name: 'Boss', sections: {}, cut: { kind: 'boss', height: 0.2 } };
    const made = (...openings: Opening[]) =>
      cutModel({ ...project([wall()], openings), patterns: { p: checked, b: boss } });
    // The one by the start is cut by solids; the boss stands over the wall's end.
    const model = made(opening('a', 'p', 0.02, 1), opening('b', 'b', 5.5, 1));
    expect(model.cuts.get('w1')!.path).toBe('solid');
    expect(model.statuses.get('b')).toMatchObject({
      state: 'not cut',
      reason: expect.stringContaining('a boss must stand clear'),
    });
    expect(prove(model.cuts.get('w1')!.mesh).volume).toBeCloseTo(
      prove(made(opening('a', 'p', 0.02, 1)).cuts.get('w1')!.mesh).volume,
      6,
    );
  });
});

describe('an opening that neither path can cut', () => {
  it('takes no other with it', () => {
    const checked: Pattern = {
      id: 'p',
      name: 'Checked',
      profile: { shape: 'rectangle' },
      sizes: { a: { id: 'a', name: '', dimensions: { width: 1.2, height: 1.5 } } },
      reveal: { material: null },
      sections: { 'jamb-left': { checks: [{ depth: 0.1, step: 0.05 }] } },
    };
    const arris = { arris: { kind: 'chamfered', size: 0.04 } } as const;
    const letters: Pattern = {
      ...checked,
      id: 't',
      name: 'Letters',
      profile: { shape: 'text', text: 'Quay 8' },
      sizes: { a: { id: 'a', name: '', dimensions: { height: 0.3 } } },
      cut: { kind: 'niche', depth: 0.1 },
      sections: { head: arris, sill: arris, 'jamb-left': arris, 'jamb-right': arris },
    };
    const model = cutModel({
      ...project([wall()], [opening('a', 'p', 0.02, 1), opening('b', 't', 2, 1)]),
      patterns: { p: checked, t: letters },
    });
    expect(model.cuts.get('w1')!.path).toBe('solid');
    expect(model.statuses.get('a')!.state).toBe('notched');
    expect(model.statuses.get('b')).toMatchObject({
      state: 'not cut',
      reason: expect.stringMatching(/eaten up|cross/),
    });
  });
});

describe('an opening that runs over the edge only behind its profile', () => {
  it('is cut by the solid path, is notched, and says where', () => {
    const pattern: Pattern = {
      id: 'p',
      name: 'Checked',
      profile: { shape: 'rectangle' },
      sizes: { a: { id: 'a', name: '', dimensions: { width: 1.2, height: 1.5 } } },
      reveal: { material: null },
      sections: { 'jamb-left': { checks: [{ depth: 0.1, step: 0.05 }] } },
    };
    const at = (s: number) => {
      const model = cutModel({ ...project([wall()], [opening('a', 'p', s, 1)]), patterns: { p: pattern } });
      return { volume: prove(model.cuts.get('w1')!.mesh).volume, ...model.statuses.get('a')! };
    };
    const over = at(0.02);
    expect(over).toMatchObject({ state: 'notched', reason: 'runs over the start behind its profile' });
    expect(Math.abs(over.volume - (9.6 - 1.2 * 1.5 * 0.1 - 1.22 * 1.5 * 0.3))).toBeLessThan(1e-5);
    expect(at(0.06)).toMatchObject({ state: 'cut', reason: null });
  });
});
