/** The promises of every cut, over random walls and openings, against a solid-boolean library. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ManifoldToplevel } from 'manifold-3d';
import { cutSolid, solidLibrary } from '../src/cut/solid.ts';
import { cornerAt, cutModel, prove, type CutMesh } from '../src/index.ts';
import { anyProject, expectSameMesh } from './sample.ts';

const numRuns = Number(process.env.PROPERTY_RUNS ?? 400);

let library: ManifoldToplevel;
beforeAll(async () => {
  library = await solidLibrary();
});

describe('every cut', () => {
  it('is closed, clean, and encloses what the solid path does', () => {
    fc.assert(
      fc.property(anyProject, (document) => {
        const model = cutModel(document);
        const cut = model.cuts.get('w1')!;
        expect(cut.fault?.trouble).toBeUndefined();
        const proof = prove(cut.mesh);
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
        const taken = cut.placed.filter((p) => ['cut', 'notched'].includes(model.statuses.get(p.id)!.state));
        const solid = cutSolid(library, cut.sheet, taken);
        // What touches in a point is moved by a hair.
        const moved = [...model.statuses.values()].some(({ reason }) => reason?.includes('by a hair'));
        expect(Math.abs(proof.volume - solid.volume)).toBeLessThan(moved ? 1e-3 : 2e-5);
        expect(Math.abs(proof.volume - cut.faceArea * cut.sheet.thickness)).toBeLessThan(1e-6);
        expect(noVertexOnAnEdge(cut.mesh)).toBe(true);
        expect(textureAtTrueScale(cut.mesh)).toBeLessThan(0.01);
        expect(normalsAgree(cut.mesh)).toBe(true);
        expect(model.statuses.size).toBe(Object.keys(document.openings).length);
      }),
      { numRuns },
    );
  });

  it('is the same for the same input, and gone when its openings are', () => {
    fc.assert(
      fc.property(anyProject, (document) => {
        const once = cutModel(document).cuts.get('w1')!;
        const again = cutModel(structuredClone(document)).cuts.get('w1')!;
        expectSameMesh(again.mesh, once.mesh);
        const without = { ...document, openings: {} };
        const plain = cutModel(without).cuts.get('w1')!;
        const restored = cutModel(without, cutModel(document)).cuts.get('w1')!;
        expectSameMesh(restored.mesh, plain.mesh);
        const edges = plain.sheet.outline.xs.length;
        expect(prove(plain.mesh).triangles).toBe(2 * (edges - 2) + 2 * edges * document.elements.w1!.layers.length);
      }),
      { numRuns: Math.ceil(numRuns / 4) },
    );
  });
});

/** No vertex lies within another triangle's edge: no T-junction. Edges are looked at on each face and along each depth. */
function noVertexOnAnEdge(mesh: CutMesh): boolean {
  const place = new Map<number, [number, number, number]>();
  mesh.vertices.forEach((v, c) => place.set(v, cornerAt(mesh, c)));
  const points = [...place.entries()];
  for (let i = 0; i < mesh.triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const va = mesh.vertices[mesh.triangles[i + k]!]!;
      const vb = mesh.vertices[mesh.triangles[i + ((k + 1) % 3)]!]!;
      const a = place.get(va)!;
      const b = place.get(vb)!;
      const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
      const squared = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
      for (const [v, p] of points) {
        if (v === va || v === vb) continue;
        const e = [p[0] - a[0], p[1] - a[1], p[2] - a[2]] as const;
        const along = (e[0] * d[0] + e[1] * d[1] + e[2] * d[2]) / squared;
        if (along <= 1e-9 || along >= 1 - 1e-9) continue;
        const off = Math.hypot(e[0] - along * d[0], e[1] - along * d[1], e[2] - along * d[2]);
        if (off < 1e-9) return false;
      }
    }
  return true;
}

/** The greatest departure of any triangle's texel density from one metre of texture a metre of surface. */
function textureAtTrueScale(mesh: CutMesh): number {
  let worst = 0;
  for (let i = 0; i < mesh.triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const a = mesh.triangles[i + k]!;
      const b = mesh.triangles[i + ((k + 1) % 3)]!;
      const [p, q] = [cornerAt(mesh, a), cornerAt(mesh, b)];
      const real = Math.hypot(...[0, 1, 2].map((x) => q[x]! - p[x]!));
      const drawn = Math.hypot(mesh.uvs[2 * b]! - mesh.uvs[2 * a]!, mesh.uvs[2 * b + 1]! - mesh.uvs[2 * a + 1]!);
      // Shorter edges say nothing: their texture is told in 32-bit figures.
      if (real > 1e-3) worst = Math.max(worst, Math.abs(drawn / real - 1));
    }
  return worst;
}

/** Every corner's normal is of unit length and on the outer side of its triangle. */
function normalsAgree(mesh: CutMesh): boolean {
  const at = (c: number): [number, number, number] => cornerAt(mesh, c);
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = [at(mesh.triangles[i]!), at(mesh.triangles[i + 1]!), at(mesh.triangles[i + 2]!)];
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
    const size = Math.hypot(...n);
    if (size < 1e-8) continue;
    for (let k = 0; k < 3; k++) {
      const q = 3 * mesh.triangles[i + k]!;
      const m = [mesh.normals[q]!, mesh.normals[q + 1]!, mesh.normals[q + 2]!] as const;
      if (Math.abs(Math.hypot(...m) - 1) > 1e-5) return false;
      if ((n[0] * m[0] + n[1] * m[1] + n[2] * m[2]) / size < 0.5) return false;
    }
  }
  return true;
}
