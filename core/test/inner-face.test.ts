/** The inner face: what is set out on it is what the same wall built the other way round would have on its outer one. */
import { describe, expect, it } from '@jest/globals';
import { type Element, type Opening, type ProjectDocument, type Wall } from '@yard-arch/document';
import fc from 'fast-check';
import {
  across,
  cutModel,
  pointAt,
  prove,
  resolveOpening,
  reversedWall,
  sheetsOf,
  turnedOver,
  type Placed,
} from '../src/index.ts';
import { anything } from './anything.ts';
import { expectSameMesh, opening, patterns, project, wall } from './sample.ts';

const numRuns = Number(process.env.PROPERTY_RUNS ?? 70);

/** The same document with the wall built the other way round, and every opening on the face opposite to the one that it was on. */
function otherWay(document: ProjectDocument): ProjectDocument | null {
  const element = document.elements.w1!;
  if (element.kind !== 'wall') return null;
  const over = reversedWall(element);
  if ('reason' in over) return null;
  const openings = Object.fromEntries(
    Object.entries(document.openings).map(([id, one]): [string, Opening] => [
      id,
      { ...one, face: one.face === 'inner' ? 'outer' : 'inner' },
    ]),
  );
  return { ...document, elements: { w1: { ...over, layers: [...element.layers].reverse() } }, openings };
}

const isBent = ({ elements }: ProjectDocument): boolean => {
  const { sweep, runs } = elements.w1 as Wall;
  return Boolean(sweep ?? runs);
};

/** Aimed through a curve a cylinder may meet the one face where it does not meet the other; radially a section is drawn out along the face alone. */
const comparable = (document: ProjectDocument): boolean =>
  !isBent(document) ||
  Object.values(document.openings).every(({ aim, pattern }) => {
    const { jambs, sections } = document.patterns[pattern]!;
    return !aim && !(jambs && sections);
  });

const leftToSolids = ({ statuses }: ReturnType<typeof cutModel>): boolean =>
  [...statuses.values()].some(({ reason }) => reason?.includes('could not be divided'));

const cutOf = (document: ProjectDocument) => {
  const model = cutModel(document);
  const cut = model.cuts.get('w1')!;
  return { model, cut, proof: prove(cut.mesh) };
};

describe('an opening set out from inside', () => {
  it('is cut as from outside in the wall built the other way round, whatever it is', () => {
    let compared = 0;
    fc.assert(
      fc.property(anything, fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }), ({ document: plain }, inside) => {
        const openings = Object.fromEntries(
          Object.entries(plain.openings)
            .filter(([, one]) => !['boss', 'imprint'].includes(plain.patterns[one.pattern]!.cut!.kind))
            .map(([id, one], i): [string, Opening] => [id, { ...one, face: inside[i] ? 'inner' : 'outer' }]),
        );
        // So fine that it does not matter on which face a curve is divided.
        const document = { ...plain, openings, chord: 1e-4 };
        const { cut, model, proof } = cutOf(document);
        expect(cut.fault?.trouble).toBeUndefined();
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
        expect(proof.volume).toBeGreaterThan(0);
        const other = otherWay(document);
        if (!other || !comparable(document)) return;
        const there = cutOf(other);
        // What the sheet path leaves to the solid path may be so from the one side only.
        if ([model, there.model].some(leftToSolids)) return;
        compared += 1;
        for (const [id, { state }] of model.statuses)
          expect([id, there.model.statuses.get(id)!.state]).toEqual([id, state]);
        const bare = cutOf({ ...document, openings: {} }).proof.volume - cutOf({ ...other, openings: {} }).proof.volume;
        expect(Math.abs(proof.volume - there.proof.volume - bare)).toBeLessThan(isBent(document) ? 1e-3 : 2e-5);
      }),
      { numRuns, endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(numRuns / 6);
  });

  it('is measured from the inner corner, along from the end, and lies where that is in space', () => {
    const a = wall({ length: 6, ends: { start: 'mitred', end: 'mitred' } });
    const b = wall({ id: 'w2', start: { x: 6, y: 0, z: 0 }, turn: 90, ends: { start: 'mitred', end: 'square' } });
    const c = wall({
      id: 'w3',
      start: { x: 0, y: 5, z: 0 },
      turn: -90,
      length: 5,
      ends: { start: 'square', end: 'mitred' },
    });
    const one = opening('a', 'window', 1, 0.9, { face: 'inner' });
    const document = project([a, b, c], [one]);
    const sheets = sheetsOf(document);
    // Two mitres of 400 mm: 5.2 m from corner to corner within.
    expect(sheets.on('w1', 'inner')!.length).toBeCloseTo(5.2, 9);
    const placed = resolveOpening(document, one) as Placed;
    expect([placed.s, placed.t, placed.face]).toEqual([1, 0.9, 'inner']);
    expect(pointAt(sheets.on('w1', 'inner')!.chart, 1, 0.9, 0)).toEqual([4.6, 0.4, 0.9]);
    const outer = across(sheets.of('w1')!, placed);
    expect(outer.s).toBeCloseTo(5.6 - 1 - 1.2, 9);
    const { cut, proof } = cutOf(document);
    expect(proof.closed).toBe(true);
    const reveal = cut.mesh.runs.find((run) => run.role === 'sill')!;
    const xs = Array.from(
      cut.mesh.triangles.subarray(3 * reveal.first, 3 * (reveal.first + reveal.count)),
      (corner) => cut.mesh.points[3 * cut.mesh.vertices[corner]!]!,
    );
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([3.4, 4.6].map((x) => expect.closeTo(x, 9)));
  });

  it.each([
    ['straight', {}],
    ['curved', { sweep: 70 }],
    ['hollow', { sweep: -70 }],
    [
      'bent',
      {
        length: 3,
        runs: [
          { turn: 40, length: 1.5 },
          { turn: 0, length: 1.5, sweep: 30 },
        ],
      },
    ],
    ['gabled', { top: { kind: 'gabled', apex: 5, at: 0.3 } }],
  ] as [string, Partial<Wall>][])(
    'a %s wall turned over twice is itself, and both faces lie on one another',
    (_, over) => {
      const sheet = sheetsOf(project([wall(over)], [])).of('w1')!;
      const { sheet: inner, toInner, toOuter } = turnedOver(sheet);
      const back = turnedOver(inner).sheet;
      expect(back.length).toBeCloseTo(sheet.length, 9);
      for (const s of [0, 0.7, 2.9, sheet.length]) {
        expect(toOuter(toInner(s))).toBeCloseTo(s, 9);
        const [p, q] = [pointAt(sheet.chart, s, 1.3, 0.4), pointAt(inner.chart, toInner(s), 1.3, 0)];
        const r = pointAt(back.chart, s, 1.3, 0);
        p.forEach((value, k) => expect(q[k]).toBeCloseTo(value, 9));
        pointAt(sheet.chart, s, 1.3, 0).forEach((value, k) => expect(r[k]).toBeCloseTo(value, 9));
      }
      [...back.outline.xs].forEach((x, i) =>
        expect(
          [...sheet.outline.xs].some(
            (y, k) => Math.abs(x - y) < 1e-9 && Math.abs(back.outline.ys[i]! - sheet.outline.ys[k]!) < 1e-9,
          ),
        ).toBe(true),
      );
    },
  );

  it('a niche from within leaves the outer face whole, counts layers from within, and says so of cavities', () => {
    const element: Element = wall({
      layers: [
        { thickness: 0.1, material: 'brick' },
        { thickness: 0.05, material: 'stone', cavity: true },
        { thickness: 0.15, material: 'stone' },
      ],
    });
    const niche = (cut: { kind: 'niche'; depth: number } | { kind: 'niche to layer'; layers: number }) => ({
      ...project([element as Wall], [opening('a', 'window', 1, 1, { face: 'inner' })]),
      patterns: { window: { ...patterns.window!, cut } },
    });
    const { cut, model, proof } = cutOf(niche({ kind: 'niche', depth: 0.1 }));
    expect(proof.closed).toBe(true);
    expect(model.statuses.get('a')).toMatchObject({ state: 'niche', reason: null });
    const area = (role: string): number => prove(cut.mesh).areaByRole[role as 'outer face'] ?? 0;
    expect(area('outer face')).toBeCloseTo(24, 9);
    expect(area('inner face')).toBeCloseTo(24 - 1.8, 9);
    // Its back is of the layer that it ends in.
    expect(cut.mesh.runs.find(({ role }) => role === 'back')!.layer).toBe(2);
    const layered = cutOf(niche({ kind: 'niche to layer', layers: 1 }));
    expect(layered.model.statuses.get('a')!.reason).toContain('opens the cavity behind layer 1');
    expect(24 * 0.3 - layered.proof.volume).toBeCloseTo(1.8 * 0.15, 9);
  });

  it('is held to openings, axes and ends as they are seen from there', () => {
    const outside = opening('a', 'window', 1, 1);
    const from = (along: Opening['along']) => {
      const b = opening('b', 'window', 0, 0, { face: 'inner', along });
      const document = {
        ...project([wall()], [outside, b]),
        axes: { x: { id: 'x', name: 'A', element: 'w1', along: 1.5 } },
      };
      return (resolveOpening(document, b) as Placed).s;
    };
    // Seen from within, the window from 1 to 2.2 stands from 3.8 to 5.
    expect(from({ from: 'neighbour', opening: 'a', edge: 'left', distance: 0 })).toBeCloseTo(3.8, 9);
    expect(from({ from: 'neighbour', opening: 'a', edge: 'right', distance: 0.1 })).toBeCloseTo(5.1, 9);
    expect(from({ from: 'axis', axis: 'x', distance: 0 })).toBeCloseTo(4.5, 9);
    expect(from({ from: 'end', distance: 0.5 })).toBeCloseTo(5.5, 9);
    expect(from({ from: 'between', left: null, right: 'a', distance: 0 })).toBeCloseTo(1.9, 9);
  });

  it('is refused where it is a boss, with what to do', () => {
    const document = project([wall()], [opening('a', 'window', 1, 1, { face: 'inner' })]);
    document.patterns = { window: { ...patterns.window!, cut: { kind: 'boss', height: 0.1 } } };
    expect(cutModel(document).statuses.get('a')).toMatchObject({
      state: 'not cut',
      reason: 'a boss stands on the outer face only',
      mend: expect.stringContaining('Set it out on the outer face'),
    });
  });

  it('keeps what an edit elsewhere leaves alone', () => {
    const openings = [opening('a', 'arch', 1, 0, { face: 'inner' }), opening('b', 'window', 1, 1)];
    const document = project([wall({ sweep: 40 })], openings);
    const before = cutModel(document);
    const moved = { ...document, openings: { ...document.openings, b: opening('b', 'window', 1.2, 1) } };
    expectSameMesh(cutModel(moved, before).cuts.get('w1')!.mesh, cutModel(moved).cuts.get('w1')!.mesh);
    expect(cutModel({ ...document }, before).cuts.get('w1')).toBe(before.cuts.get('w1'));
  });
});
