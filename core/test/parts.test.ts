/** Parts: closed meshes, one for all that are alike, standing where their openings are, and carried by every format. */
import { describe, expect, it } from '@jest/globals';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import type { Opening, Pattern, ProjectDocument, SillBoard, Wall } from '@yard-arch/document';
import fc from 'fast-check';
import { cutModel, meshIn, prove, reportOn, type Model } from '../src/index.ts';
import { drawPicture, objFiles, writeGlb } from '../src/format/index.ts';
import { opening, patterns, project, wall } from './sample.ts';

const board: SillBoard = {
  id: 'sill',
  kind: 'sill board',
  material: 'stone',
  thickness: 0.06,
  nosing: 0.05,
  horns: 0.08,
};

const documentOf = (over: Partial<Wall>, pattern: Partial<Pattern>, ...openings: Opening[]): ProjectDocument => ({
  ...project([wall(over)], openings),
  patterns: { ...patterns, window: { ...patterns.window!, parts: [board], ...pattern } },
});

const partsOf = (model: Model) => [...model.cuts.values()].flatMap((cut) => cut.parts);

/** Corners of a part in its place, least and greatest. */
function boundsOf(model: Model, k = 0): [number[], number[]] {
  const { part, placement } = partsOf(model)[k]!;
  const { points } = meshIn(placement, part.mesh);
  const of = (axis: number): number[] => Array.from(points).filter((_, i) => i % 3 === axis);
  return [[0, 1, 2].map((axis) => Math.min(...of(axis))), [0, 1, 2].map((axis) => Math.max(...of(axis)))];
}

const near = (a: readonly number[], b: readonly number[]): void =>
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i]!, 9));

describe('a sill board', () => {
  it('is one closed mesh, however many openings carry it, and holds what its figures say', () => {
    const many = Array.from({ length: 5 }, (_, i) => opening(`o${i}`, 'window', 0.1 + i * 1.3, 1));
    const model = cutModel(documentOf({ length: 8 }, {}, ...many));
    const parts = partsOf(model);
    expect(parts.map((part) => part.opening)).toEqual(many.map(({ id }) => id));
    expect(new Set(parts.map(({ part }) => part)).size).toBe(1);
    const proof = prove(parts[0]!.part.mesh);
    expect(proof).toMatchObject({ closed: true, collapsed: 0, flaps: 0 });
    expect(proof.volume).toBeCloseTo(0.06 * (1.2 * 0.4 + (1.2 + 0.16) * 0.05), 9);
    expect(proof.density[0]).toBeGreaterThan(0.999);
    expect(proof.density[1]).toBeLessThan(1.001);
  });

  it('lies on the sill, before the face by its nosing, beyond the jambs by its horns', () => {
    const [low, high] = boundsOf(cutModel(documentOf({}, {}, opening('a', 'window', 2, 1))));
    near(low, [2 - 0.08, -0.05, 1]);
    near(high, [3.2 + 0.08, 0.4, 1.06]);
  });

  it('stands within at an opening that is set out within, or behind one that is not', () => {
    const within = cutModel(documentOf({}, {}, opening('a', 'window', 2, 1, { face: 'inner' })));
    near(boundsOf(within)[1], [4 + 0.08, 0.45, 1.06]);
    near(boundsOf(within)[0], [2.8 - 0.08, 0, 1]);
    const behind = cutModel(documentOf({}, { parts: [{ ...board, behind: true }] }, opening('a', 'window', 2, 1)));
    near(boundsOf(behind)[0], [2 - 0.08, 0, 1]);
    near(boundsOf(behind)[1], [3.2 + 0.08, 0.45, 1.06]);
  });

  it('is as wide as the reveal at its narrowest, and is bedded on the sill as that steps', () => {
    const sections: Pattern['sections'] = {
      'jamb-left': { splayInside: 20, seat: 0.35 },
      'jamb-right': { checks: [{ depth: 0.1, step: -0.05 }] },
      sill: { checks: [{ depth: 0.2, step: -0.03 }] },
    };
    const model = cutModel(
      documentOf({}, { sections, parts: [{ ...board, nosing: 0, reach: 0.3 }] }, opening('a', 'window', 2, 1)),
    );
    near(boundsOf(model)[0], [2, 0, 1]);
    near(boundsOf(model)[1], [3.2 - 0.05, 0.3, 1.09]);
    const proof = prove(partsOf(model)[0]!.part.mesh);
    expect(proof).toMatchObject({ closed: true, collapsed: 0, flaps: 0 });
    // 200 mm of 90 mm, then 100 mm of 60.
    expect(proof.volume).toBeCloseTo(1.15 * (0.2 * 0.09 + 0.1 * 0.06), 9);
  });

  it('is closed whatever its figures and the sill’s section, and holds what lies over the sill', () => {
    fc.assert(
      fc.property(
        fc.record({
          nosing: fc.constantFrom(0, 0.03, 0.2),
          horns: fc.constantFrom(0, 0.05),
          reach: fc.constantFrom(undefined, 0.05, 0.2, 0.25, 0.4, 9),
          thickness: fc.constantFrom(0.02, 0.1),
        }),
        fc.record({
          seat: fc.constantFrom(0.15, 0.3),
          splayOutside: fc.constantFrom(0, 8),
          splayInside: fc.constantFrom(0, -4),
          checks: fc.constantFrom<{ depth: number; step: number }[]>(
            [],
            [{ depth: 0.2, step: 0.02 }],
            [
              { depth: 0.1, step: -0.02 },
              { depth: 0.25, step: 0.03 },
            ],
          ),
        }),
        fc.constantFrom<{ splayInside?: number; splayOutside?: number; seat?: number }>(
          {},
          { splayInside: 12, seat: 0.2 },
          { splayOutside: 9, seat: 0.1 },
        ),
        (over, sill, left) => {
          const model = cutModel(
            documentOf(
              {},
              { sections: { sill, 'jamb-left': left }, parts: [{ ...board, ...over } as SillBoard] },
              opening('a', 'window', 2, 1),
            ),
          );
          const [part] = partsOf(model);
          const proof = prove(part!.part.mesh);
          expect(proof).toMatchObject({ closed: true, collapsed: 0, flaps: 0 });
          const tan = (degrees: number): number => Math.tan((degrees * Math.PI) / 180);
          const low = (n: number): number =>
            -Math.max(0, sill.seat - n) * tan(sill.splayOutside) -
            Math.max(0, n - sill.seat) * tan(sill.splayInside) -
            sill.checks.reduce((sum, check) => sum + (n > check.depth ? check.step : 0), 0);
          const back = Math.min(over.reach ?? 0.4, 0.4);
          const [, high] = boundsOf(model);
          const wide = (n: number): number =>
            1.2 +
            Math.max(0, (left.seat ?? 0) - n) * tan(left.splayOutside ?? 0) +
            Math.max(0, n - (left.seat ?? 0)) * tan(left.splayInside ?? 0);
          const steps = 4000;
          let volume = over.nosing * (wide(0) + (over.nosing > 0 ? 2 * over.horns : 0)) * (high[2]! - 1 - low(0));
          for (let i = 0; i < steps; i++) {
            const n = ((i + 0.5) * back) / steps;
            volume += (wide(n) * (high[2]! - 1 - low(n)) * back) / steps;
          }
          expect(Math.abs(proof.volume - volume)).toBeLessThan(2e-5);
        },
      ),
      { numRuns: 150, seed: 706505 },
    );
  });

  it('is left out, and that is told, where there is no level sill; and with what is not cut', () => {
    const model = cutModel({
      ...documentOf(
        {},
        {},
        opening('a', 'oculus', 1, 1),
        opening('b', 'window', 2, 1, { blockedUp: true }),
        opening('c', 'window', 9, 1),
      ),
      patterns: {
        ...patterns,
        oculus: { ...patterns.oculus!, parts: [board] },
        window: { ...patterns.window!, parts: [board] },
      },
    });
    expect(partsOf(model)).toEqual([]);
    expect(model.statuses.get('a')).toMatchObject({
      state: 'cut',
      reason: 'its outline has no level sill for a board',
    });
  });

  it('stands on curved walls and in vaults wherever its opening is, clear of the element', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Partial<Wall>>(
          { sweep: 60 },
          { sweep: -40 },
          { batter: 6 },
          { turn: 33, start: { x: 900, y: -70, z: 3 } },
        ),
        fc.double({ min: 0.2, max: 3.7, noNaN: true }),
        fc.boolean(),
        (over, s, inner) => {
          const model = cutModel(documentOf(over, {}, opening('a', 'window', s, 1, inner ? { face: 'inner' } : {})));
          const [part] = partsOf(model);
          const { x, y, z } = part!.placement;
          // Right-handed, unit, at right angles.
          const cross = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]];
          near(cross, z);
          const before = cutModel(
            documentOf(over, {}, opening('a', 'window', s, 1, inner ? { face: 'inner' } : {})),
            model,
          );
          expect(before.cuts.get('w1')).toBe(model.cuts.get('w1'));
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('formats', () => {
  const openings = Array.from({ length: 3 }, (_, i) => opening(`o${i}`, 'window', 0.2 + i * 1.6, 1));

  it.each([0, 4000])('GLB has one mesh for all, and a node where each stands, %s m from the origin', async (far) => {
    const document = documentOf({ start: { x: far, y: 2, z: 0 }, turn: 20 }, {}, ...openings);
    const model = cutModel(document);
    const gltf = await new WebIO()
      .registerExtensions([KHRTextureTransform])
      .readBinary(await writeGlb(document, model));
    const root = gltf.getRoot();
    expect(root.listMeshes().map((mesh) => mesh.getName())).toEqual(['Courtyard wall', 'sill board']);
    const nodes = root.listNodes().filter((node) => node.getMesh()?.getName() === 'sill board');
    expect(nodes.map((node) => node.getName())).toEqual(
      ['O0', 'O1', 'O2'].map((mark) => `Loft light 1200 × 1500 ${mark} sill board`),
    );
    nodes.forEach((node, k) => {
      const m = node.getWorldMatrix();
      const position = node.getMesh()!.listPrimitives()[0]!.getAttribute('POSITION')!;
      const [low, high] = [
        [Infinity, Infinity, Infinity],
        [-Infinity, -Infinity, -Infinity],
      ];
      for (let i = 0; i < position.getCount(); i++) {
        const [px, py, pz] = position.getElement(i, [0, 0, 0]) as [number, number, number];
        const world = [0, 1, 2].map((a) => m[a]! * px + m[4 + a]! * py + m[8 + a]! * pz + m[12 + a]!);
        // Back from y up.
        [world[0]!, 0 - world[2]!, world[1]!].forEach((value, a) => {
          low[a] = Math.min(low[a]!, value);
          high[a] = Math.max(high[a]!, value);
        });
      }
      const [wantedLow, wantedHigh] = boundsOf(model, k);
      low.forEach((value, a) => expect(value).toBeCloseTo(wantedLow[a]!, 3));
      high.forEach((value, a) => expect(value).toBeCloseTo(wantedHigh[a]!, 3));
    });
  });

  it('GLB of many equal ones is no larger but for nodes', async () => {
    const sized = async (count: number): Promise<number> => {
      const many = Array.from({ length: count }, (_, i) => opening(`o${i}`, 'window', 0.2 + i * 1.6, 1));
      const document = documentOf({ length: 1.6 * count + 1 }, {}, ...many);
      const gltf = await new WebIO()
        .registerExtensions([KHRTextureTransform])
        .readBinary(await writeGlb(document, cutModel(document)));
      return gltf
        .getRoot()
        .listMeshes()
        .filter((mesh) => mesh.getName() === 'sill board')
        .reduce((sum, mesh) => sum + mesh.listPrimitives().reduce((n, p) => n + p.getIndices()!.getCount(), 0), 0);
    };
    expect(await sized(40)).toBe(await sized(4));
  });

  it('OBJ holds each where it stands, with the material told; pictures and reports know them', () => {
    const document = documentOf({}, {}, ...openings);
    const model = cutModel(document);
    const files = objFiles(document, model, 'yard');
    const obj = [...files[0]!.pieces].join('');
    const groups = obj.split('\n').filter((line) => line.startsWith('g ') && line.includes('sill'));
    expect(groups).toHaveLength(3);
    const vertices = obj.split('\n').filter((line) => line.startsWith('v '));
    const highest = Math.max(...[...obj.matchAll(/(\d+)\/\d+\/\d+/g)].map((match) => Number(match[1])));
    expect(highest).toBe(vertices.length);
    expect([...files.find(({ name }) => name.endsWith('.mtl'))!.pieces].join('')).toContain('newmtl Stone');
    const report = reportOn(document, model);
    expect(report.sound).toBe(true);
    expect(report.elements[0]!.parts).toMatchObject({
      'sill board': {
        count: 3,
        meshes: 1,
        closed: true,
        volume: expect.closeTo(3 * 0.06 * (1.2 * 0.4 + 1.36 * 0.05), 9),
      },
    });
    const bare = cutModel({ ...document, patterns });
    expect(drawPicture(document, model, { width: 160, height: 100 })).not.toEqual(
      drawPicture(document, bare, { width: 160, height: 100 }),
    );
  });
});
