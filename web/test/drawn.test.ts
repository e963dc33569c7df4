/** Elements as the worker tells of them: the same figures in another order, told in 32 bits near their own origin. */
import { describe, expect, it } from '@jest/globals';
import { cutModel, meshIn, originOf, type CutMesh, type ElementCut, type PartMesh } from '@yard-arch/core';
import { demos } from '@yard-arch/demo';
import type { DrawnRuns } from '../src/state/cut-messages.ts';
import { drawnElement, pathOf } from '../src/state/drawn-elements.ts';
import { drawnInstances, drawnPart } from '../src/state/drawn-parts.ts';
import { drawnTrianglesOf } from '../src/state/drawn-runs.ts';

const names = ['granary', 'cellar', 'curved', 'dormers'];
const cutsOf = (name: string): ElementCut[] => [...cutModel(demos[name]!()).cuts.values()];
const nothing = (): void => {};

/** Runs read back from their columns, each with its triangles. */
const runsFrom = (runs: DrawnRuns, triangles: Uint32Array): unknown[] =>
  Array.from(runs.first, (first, i) => ({
    triangles: [...triangles.subarray(3 * first, 3 * (first + runs.count[i]!))],
    material: runs.materials[runs.material[i]!],
    opening: runs.opening[i] === 0 ? null : runs.openings[runs.opening[i]! - 1],
    face: runs.face[i] === 0 ? undefined : runs.faces[runs.face[i]! - 1],
  }));

/** Loops of a path, and what they enclose, square metres. */
function areaOf(path: string): number {
  let area = 0;
  for (const loop of path.split('Z').filter(Boolean)) {
    const points = loop
      .slice(1)
      .split('L')
      .map((point) => point.split(' ').map(Number) as [number, number]);
    points.forEach(([x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      area += (x * ny - nx * y) / 2;
    });
  }
  return area;
}

const at = ({ points, vertices }: CutMesh, corner: number): number[] =>
  [0, 1, 2].map((k) => points[3 * vertices[corner]! + k]!);

describe.each(names)('what is drawn of the %s', (name) => {
  const cuts = cutsOf(name);

  it('stands where it was cut, to a hundredth of a millimetre, within its sphere', () => {
    for (const cut of cuts) {
      const { origin, positions, sphere, triangles, normals, uvs } = drawnElement(cut, false, nothing);
      expect(origin).toEqual([...originOf(cut.sheet.chart)]);
      const [x, y, z, radius] = sphere;
      let [far, outside] = [0, 0];
      for (let c = 0; c < cut.mesh.vertices.length; c++) {
        const real = at(cut.mesh, c);
        const told = [0, 1, 2].map((k) => positions[3 * c + k]!);
        for (let k = 0; k < 3; k++) far = Math.max(far, Math.abs(told[k]! + origin[k]! - real[k]!));
        outside = Math.max(outside, Math.hypot(told[0]! - x, told[1]! - y, told[2]! - z) - radius);
      }
      expect(far).toBeLessThan(1e-5);
      expect(outside).toBeLessThan(1e-4);
      expect(normals).toEqual(cut.mesh.normals);
      expect(uvs).toEqual(cut.mesh.uvs);
      // They are sent away: what was cut has its own.
      expect(triangles.buffer).not.toBe(cut.mesh.triangles.buffer);
    }
  });

  it('has its runs as columns, one material after the other, and every run its own triangles', () => {
    for (const { mesh } of cuts) {
      const { runs, triangles } = drawnTrianglesOf(mesh);
      const told = runsFrom(runs, triangles);
      const materials = [...new Set(mesh.runs.map(({ material }) => material))];
      const real = materials.flatMap((name) => mesh.runs.filter(({ material }) => material === name));
      expect(told).toEqual(
        real.map(({ first, count, material, opening, face }) => ({
          triangles: [...mesh.triangles.subarray(3 * first, 3 * (first + count))],
          material,
          opening,
          face,
        })),
      );
      expect(triangles).toHaveLength(mesh.triangles.length);
      for (const list of [runs.materials, runs.openings, runs.faces]) expect(new Set(list).size).toBe(list.length);
    }
  });

  it('has on its sheet what is left of its face', () => {
    for (const cut of cuts) {
      const { face, faces, faceArea, states } = drawnElement(cut, false, nothing);
      if (!cut.faces && cut.sheet.chart.kind === 'flat') expect(areaOf(face!)).toBeCloseTo(faceArea, 2);
      for (const one of cut.faces ?? []) expect(faces[one.face]).toBe(pathOf(one.region));
      const counted = Object.values(states).reduce((sum, count) => sum + count, 0);
      expect(counted).toBe(cut.statuses.length);
    }
  });

  it('has each part where it stands, of one mesh for all that are alike', () => {
    for (const cut of cuts) {
      const meshes = new Map<string, PartMesh>();
      const instances = drawnInstances(cut, (part) => meshes.set(part.key, part));
      const origin = originOf(cut.sheet.chart);
      expect(instances.reduce((sum, { openings }) => sum + openings.length, 0)).toBe(cut.parts.length);
      expect(meshes.size).toBe(instances.length);
      for (const { key, openings, faces, matrices } of instances) {
        const { positions } = drawnPart(meshes.get(key)!);
        const alike = cut.parts.filter(({ part }) => part.key === key);
        expect(openings).toEqual(alike.map(({ opening }) => opening));
        expect(faces).toEqual(alike.map(({ face }) => face));
        alike.forEach(({ part, placement }, i) => {
          const m = matrices.subarray(16 * i, 16 * i + 16);
          const placed = meshIn(placement, part.mesh);
          for (let c = 0; c < part.mesh.vertices.length; c += 7) {
            const [x, y, z] = [positions[3 * c]!, positions[3 * c + 1]!, positions[3 * c + 2]!];
            const real = at(placed, c);
            for (let k = 0; k < 3; k++)
              expect(
                Math.abs(m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]! + origin[k]! - real[k]!),
              ).toBeLessThan(1e-4);
          }
        });
      }
    }
  });
});

describe('lines of what is drawn', () => {
  it('are told at once only where they are asked for', () => {
    const [cut] = cutsOf('cellar');
    expect(drawnElement(cut!, false, nothing)).toMatchObject({ creases: null, lined: false });
    const { creases, lined } = drawnElement(cut!, true, nothing);
    expect(creases!.length).toBeGreaterThan(0);
    expect(lined).toBe(true);
  });

  it('of an element with very many openings are left out of its inner face, which is drawn whole', () => {
    const [cut] = cutsOf('windows-2000');
    const { innerFace, face } = drawnElement(cut!, false, nothing);
    expect(innerFace).toBe('');
    // It is told of that after.
    expect(face).toBeNull();
  });
});
