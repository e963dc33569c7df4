/** Texture on reveals: the right way round, and unrolled without a break but the seam; and what a check calls sound. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { demos } from '@yard-arch/demo';
import { checkDocument, firstChoice, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { readdirSync, readFileSync } from 'node:fs';
import { cutModel, mirroredIn, prove, reportOn, type CutMesh } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';
import { opening, project, wall } from './sample.ts';

beforeAll(() => solidLibrary());

const folder = new URL('./cases/', import.meta.url);
const cases = readdirSync(folder).filter((name) => name.endsWith('.json'));
const readCase = (name: string): ProjectDocument =>
  checkDocument(JSON.parse(readFileSync(new URL(name, folder), 'utf8')));

/** Edges within one role of an opening at which the surface is smooth: how many, and at how many the texture of the two faces is farther apart than a tenth of a millimetre. */
function breaks(
  { vertices, triangles, uvs, normals, runs }: CutMesh,
  role: string,
): { smooth: number; broken: number } {
  const edges = new Map<string, { a: number; b: number; opening: string | null }>();
  for (const run of runs)
    if (run.role === role && run.opening !== null)
      for (let i = run.first; i < run.first + run.count; i++)
        for (let k = 0; k < 3; k++) {
          const [a, b] = [triangles[3 * i + k]!, triangles[3 * i + ((k + 1) % 3)]!];
          edges.set(`${vertices[a]} ${vertices[b]}`, { a, b, opening: run.opening });
        }
  const alike = (p: number, q: number): boolean =>
    normals[3 * p]! * normals[3 * q]! +
      normals[3 * p + 1]! * normals[3 * q + 1]! +
      normals[3 * p + 2]! * normals[3 * q + 2]! >
    0.9999;
  const gap = (p: number, q: number): number =>
    Math.hypot(uvs[2 * p]! - uvs[2 * q]!, uvs[2 * p + 1]! - uvs[2 * q + 1]!);
  let [smooth, broken] = [0, 0];
  for (const [key, { a, b, opening }] of edges) {
    const [v, w] = key.split(' ');
    const other = edges.get(`${w} ${v}`);
    if (!other || Number(v) > Number(w) || other.opening !== opening || !alike(a, other.b) || !alike(b, other.a))
      continue;
    smooth += 1;
    if (Math.max(gap(a, other.b), gap(b, other.a)) > 1e-4) broken += 1;
  }
  return { smooth, broken };
}

describe('texture on reveals', () => {
  it.each([...cases, 'granary', 'curved', 'profiles'])('is nowhere mirrored: %s', (name) => {
    const document = demos[name]?.() ?? readCase(name);
    for (const cut of cutModel(document).cuts.values()) expect(mirroredIn(cut.mesh, () => true)).toBe(0);
  });

  it.each(['granary', 'curved', 'mirror-radial-arch.json', 'mirror-curved-splay.json', 'far-10km-quads.json'])(
    'runs on over every smooth edge of a head: %s',
    (name) => {
      let smooth = 0;
      for (const cut of cutModel(demos[name]?.() ?? readCase(name)).cuts.values()) {
        const found = breaks(cut.mesh, 'head');
        smooth += found.smooth;
        expect(found.broken).toBe(0);
      }
      expect(smooth).toBeGreaterThan(40);
    },
  );
});

describe('a rounded arris on an arch', () => {
  const shapes = [
    ['semicircular-arch', { span: 0.9, height: 2 }],
    ['segmental-arch', { span: 1.4, height: 1.8, rise: 0.3 }],
    ['pointed-arch', { span: 1, height: 2.2, rise: 0.9 }],
    ['elliptical-arch', { span: 1.6, height: 2, rise: 0.6 }],
    ['circle', { diameter: 0.8 }],
  ] as const;
  it.each(
    shapes.flatMap(([shape, dimensions]) =>
      [0.02, 0.04, 0.07].flatMap((size) => [0, 50].map((sweep) => [shape, size, sweep, dimensions] as const)),
    ),
  )(
    'of a %s, %f m, in a wall that sweeps %d°, carries its texture on from the soffit',
    (shape, size, sweep, dimensions) => {
      const arris = { kind: 'rounded' as const, size, segments: 4 };
      const pattern: Pattern = {
        id: 'p',
        name: 'Rounded',
        profile: firstChoice(shape),
        sizes: { a: { id: 'a', name: '', dimensions } },
        reveal: { material: null },
        sections: Object.fromEntries(['sill', 'head', 'jamb-left', 'jamb-right'].map((side) => [side, { arris }])),
      };
      const document = project([wall({ length: 6, height: 4, sweep })], [opening('a', 'p', 2, 1)], {
        patterns: { p: pattern },
      });
      const [cut] = [...cutModel(document).cuts.values()];
      expect(cut!.path).toBe('sheet');
      // Sills of arches are straight: a wall that curves divides them at its facets.
      const found = (shape === 'circle' ? ['head', 'sill'] : ['head']).map((role) => breaks(cut!.mesh, role));
      expect(found.reduce((sum, { smooth }) => sum + smooth, 0)).toBeGreaterThan(20);
      expect(found.filter(({ broken }) => broken > 0)).toEqual([]);
      const { density, densityOnBent } = prove(cut!.mesh);
      expect(density[0]).toBeGreaterThan(0.99);
      expect(density[1]).toBeLessThan(1.01);
      // No more than it must: its outer edge is longer than the soffit by its share of the least radius.
      expect(densityOnBent[0]).toBeGreaterThan(0.8);
      expect(densityOnBent[1]).toBeLessThan(1.05);
      expect(reportOn(document, cutModel(document)).sound).toBe(true);
    },
  );
});

describe('a check', () => {
  it.each(cases)('finds %s sound, without flaps or stretched texture', (name) => {
    const document = readCase(name);
    const report = reportOn(document, cutModel(document));
    for (const element of report.elements)
      expect(element).toMatchObject({ closed: true, flaps: 0, mirroredTriangles: 0 });
    expect(report.sound).toBe(true);
  });

  it('does not call sound what has flaps', () => {
    // Two triangles back to back between the halves of a closed box make no hole, and no solid either.
    const [cut] = [...cutModel(readCase('flap-check-sill-rebate.json')).cuts.values()];
    const { mesh } = cut!;
    const [a, b, c] = [mesh.triangles[0]!, mesh.triangles[1]!, mesh.triangles[2]!];
    const folded = { ...mesh, points: mesh.points.slice() };
    const p = 3 * mesh.vertices[a]!;
    // A corner moved into the line of its neighbours’ plane on the other side folds its faces over.
    const [q, r] = [3 * mesh.vertices[b]!, 3 * mesh.vertices[c]!];
    for (let k = 0; k < 3; k++)
      folded.points[p + k] = mesh.points[q + k]! + (mesh.points[r + k]! - mesh.points[p + k]!);
    expect(prove(mesh).flaps).toBe(0);
    expect(prove(folded).flaps).toBeGreaterThan(0);
  });
});
