/** Texture of what is folded or goes aside: at true scale, running on where it did; and what a check sees of parts and layers. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { checkDocument, type ProjectDocument } from '@yard-arch/document';
import { cutModel, prove, reportOn, type CutMesh } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { Facets } from '../src/infill/facets.ts';
import { folded, type Fold } from '../src/mesh/folded.ts';
import { openEdgesByLayer } from '../src/mesh/proof.ts';

beforeAll(() => solidLibrary());

const readCase = (name: string): ProjectDocument =>
  checkDocument(JSON.parse(readFileSync(new URL(`./cases/${name}.json`, import.meta.url), 'utf8')));

/** A box of so many strips along, each face with its texture along it. */
function box(width: number, depth: number, height: number): CutMesh {
  const facets = new Facets('oak');
  const at = (x: number, y: number, z: number) => [x * width - width / 2, y * depth, z * height] as const;
  const face = (corners: readonly (readonly [number, number, number])[], grain: readonly [number, number, number]) =>
    facets.add(
      corners.map(([x, y, z]) => at(x, y, z)),
      grain,
    );
  face([[0, 0, 0], [1, 0, 0], [1, 0, 1], [0, 0, 1]], [1, 0, 0]); // prettier-ignore
  face([[1, 1, 0], [0, 1, 0], [0, 1, 1], [1, 1, 1]], [1, 0, 0]); // prettier-ignore
  face([[0, 1, 0], [0, 0, 0], [0, 0, 1], [0, 1, 1]], [0, 1, 0]); // prettier-ignore
  face([[1, 0, 0], [1, 1, 0], [1, 1, 1], [1, 0, 1]], [0, 1, 0]); // prettier-ignore
  face([[0, 0, 1], [1, 0, 1], [1, 1, 1], [0, 1, 1]], [1, 0, 0]); // prettier-ignore
  face([[0, 1, 0], [1, 1, 0], [1, 0, 0], [0, 0, 0]], [1, 0, 0]); // prettier-ignore
  return facets.finish();
}

/** How far apart the two faces of the front's edges draw what they share, metres, at most. */
function gapOnFront(mesh: CutMesh): number {
  const drawn = new Map<number, [number, number]>();
  let gap = 0;
  for (const corner of mesh.triangles) {
    const vertex = mesh.vertices[corner]!;
    // Only what looks ahead.
    if (mesh.normals[3 * corner + 1]! > -0.5) continue;
    const [u, v] = [mesh.uvs[2 * corner]!, mesh.uvs[2 * corner + 1]!];
    const known = drawn.get(vertex);
    if (known) gap = Math.max(gap, Math.hypot(known[0] - u, known[1] - v));
    else drawn.set(vertex, [u, v]);
  }
  return gap;
}

/** An arc of facets: what is flat at y = 0 lies on a polygon in plan, as a wall of that sweep does. */
function arc(radius: number, step: number, count: number): Fold {
  const along = Array.from({ length: 2 * count + 1 }, (_, i) => (i - count) * step);
  const at = (x: number): [number, number] => {
    const f = Math.max(0, Math.min(2 * count - 1, Math.floor(x / step + count)));
    const [a, b] = [along[f]! / radius, along[f + 1]! / radius];
    const share = (x - along[f]!) / step;
    const mix = (p: number, q: number): number => p + share * (q - p);
    return [radius * mix(Math.sin(a), Math.sin(b)), radius * (1 - mix(Math.cos(a), Math.cos(b)))];
  };
  return {
    at: along.map((x) => ({ along: x, lean: 0 })),
    point: (x, y, z) => {
      const [px, py] = at(x);
      return [px * (1 - y / radius), py + (y * (radius - py)) / radius, z];
    },
    normal: (_, way) => way,
  };
}

describe('what is folded', () => {
  it('keeps its texture at true scale, and on its front without a break', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.double({ min: 0.02, max: 0.3, noNaN: true }),
        fc.double({ min: 1.2, max: 8, noNaN: true }),
        fc.integer({ min: 4, max: 20 }),
        (width, depth, radius, count) => {
          const mesh = folded(box(width, depth, 0.4), arc(radius, width / count, count));
          const { density, closed } = prove(mesh);
          expect(closed).toBe(true);
          expect(density[0]).toBeGreaterThan(0.999);
          expect(density[1]).toBeLessThan(1.001);
          expect(gapOnFront(mesh)).toBeLessThan(1e-4);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('or goes aside has it at true scale too, as it lies then', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        (dx, dz) => {
          const fold: Fold = { at: [], point: (x, y, z) => [x + dx * y, y, z + dz * y], normal: (_, way) => way };
          const { density } = prove(folded(box(1, 0.3, 0.5), fold));
          expect(density[0]).toBeGreaterThan(0.999);
          expect(density[1]).toBeLessThan(1.001);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('leaves texture alone that was at a scale of its own', () => {
    const mesh = box(1, 0.3, 0.5);
    const own = { ...mesh, uvs: mesh.uvs.map((value) => 3 * value) };
    const { density } = prove(folded(own, { at: [], point: (x, y, z) => [x, y, z], normal: (_, way) => way }));
    expect(density).toEqual([expect.closeTo(3, 4), expect.closeTo(3, 4)]);
  });
});

describe('a face whose grain leads out of it', () => {
  it('has its texture at true scale', () => {
    const facets = new Facets('oak');
    facets.add([[0, 0, 0], [1, 0, 0], [1, 1, 1], [0, 1, 1]], [0, 1, 0]); // prettier-ignore
    facets.add([[0, 0, 0], [1, 0, 0], [1, 0, 1], [0, 0, 1]], [0, 1, 0]); // prettier-ignore
    const { density } = prove(facets.finish());
    expect(density).toEqual([expect.closeTo(1, 6), expect.closeTo(1, 6)]);
  });
});

describe('a check', () => {
  it('sees texture and normals of parts that are not what they should be', () => {
    const document = readCase('moulded-surround-normals');
    const model = cutModel(document);
    const [id, cut] = [...model.cuts][0]!;
    const sound = (change: (mesh: CutMesh) => CutMesh): boolean => {
      const parts = cut.parts.map((one) => ({ ...one, part: { ...one.part, mesh: change(one.part.mesh) } }));
      return reportOn(document, { ...model, cuts: new Map([[id, { ...cut, parts }]]) }).sound;
    };
    expect(sound((mesh) => mesh)).toBe(true);
    expect(sound((mesh) => ({ ...mesh, uvs: mesh.uvs.map((value) => 1.05 * value) }))).toBe(false);
    expect(sound((mesh) => ({ ...mesh, normals: mesh.normals.map((_, i) => [0, 0, 1][i % 3]!) }))).toBe(false);
  });

  it('sees layers that are open by themselves, though all together are closed', () => {
    const document = readCase('layers-boss-open');
    const model = cutModel(document);
    const [id, cut] = [...model.cuts][0]!;
    expect(new Set(cut.mesh.runs.map(({ layer }) => layer))).toEqual(new Set([0, 2]));
    expect(openEdgesByLayer(cut.mesh)).toBe(0);
    const runs = cut.mesh.runs.map((run, i) => (i === 0 ? { ...run, layer: 2 } : run));
    const told = reportOn(document, { ...model, cuts: new Map([[id, { ...cut, mesh: { ...cut.mesh, runs } }]]) });
    expect(told.elements[0]).toMatchObject({ closed: true });
    expect(told.elements[0]!.openEdgesInLayers).toBeGreaterThan(0);
    expect(told.sound).toBe(false);
  });
});

describe('a dormer', () => {
  it.each(['dormer-eyebrow-needles', 'dormer-window-in-front'])(
    'has no corners that lie on one another: %s',
    (name) => {
      for (const { parts } of cutModel(readCase(name)).cuts.values())
        for (const { part } of parts) {
          const { points, vertices, triangles } = part.mesh;
          let shortest = Infinity;
          for (let i = 0; i < triangles.length; i++) {
            const [a, b] = [triangles[i]!, triangles[i % 3 === 2 ? i - 2 : i + 1]!].map(
              (corner) => 3 * vertices[corner]!,
            ) as [number, number];
            shortest = Math.min(
              shortest,
              Math.hypot(points[a]! - points[b]!, points[a + 1]! - points[b + 1]!, points[a + 2]! - points[b + 2]!),
            );
          }
          expect([part.name, shortest > 1e-4]).toEqual([part.name, true]);
        }
    },
  );
});
