/** Bundles: what is drawn at once is what stands there, each opening with all that it carries. */
import { describe, expect, it } from '@jest/globals';
import { cutModel } from '@yard-arch/core';
import { demos, granary } from '@yard-arch/demo';
import type { ProjectDocument } from '@yard-arch/document';
import * as THREE from 'three';
import { bundlesOf, type Bundle } from '../src/model/bundles.ts';
import type { DrawnInstances, DrawnPart } from '../src/state/cut-messages.ts';
import { drawnInstances, drawnPart } from '../src/state/drawn-parts.ts';

interface Told {
  instances: DrawnInstances[];
  parts: DrawnPart[];
}

function toldOf(document: ProjectDocument): Told[] {
  const known = new Map<string, DrawnPart>();
  return [...cutModel(document).cuts.values()].map((cut) => {
    const instances = drawnInstances(cut, (part) => {
      if (!known.has(part.key)) known.set(part.key, drawnPart(part));
    });
    return { instances, parts: instances.map(({ key }) => known.get(key)!) };
  });
}

/** A mesh by its materials, as what is summed over its triangles in space: six times the volume to the origin, twice the area, and the middles by the area. */
type Sums = Map<string, [volume: number, area: number, x: number, y: number, z: number]>;

interface Pieces {
  positions: ArrayLike<number>;
  normals: ArrayLike<number>;
  triangles: ArrayLike<number>;
  groups: readonly { start: number; count: number; material: string }[];
}

/** Adds what stands in each opening, by opening and material. */
function add(sums: Sums, pieces: Pieces, openings: readonly string[], matrices: Float32Array): void {
  const corners = [0, 1, 2].map(() => new THREE.Vector3());
  const [cross, normal, middle, matrix] = [
    new THREE.Vector3(),
    new THREE.Vector3(),
    new THREE.Vector3(),
    new THREE.Matrix4(),
  ];
  let turned = 1;
  openings.forEach((opening, i) => {
    matrix.fromArray(matrices, 16 * i);
    for (const { start, count, material } of pieces.groups) {
      const key = `${opening} ${material}`;
      const sum = sums.get(key) ?? [0, 0, 0, 0, 0];
      for (let t = start; t < start + count; t += 3) {
        corners.forEach((corner, k) => corner.fromArray(pieces.positions, 3 * pieces.triangles[t + k]!));
        for (const corner of corners) corner.applyMatrix4(matrix);
        const [a, b, c] = corners as [THREE.Vector3, THREE.Vector3, THREE.Vector3];
        sum[0] += a.dot(cross.crossVectors(b, c));
        middle.copy(a).add(b).add(c).divideScalar(3);
        cross.crossVectors(b.sub(a), c.sub(a));
        const area = cross.length();
        // Normals are turned with the rest.
        normal.fromArray(pieces.normals, 3 * pieces.triangles[t]!).transformDirection(matrix);
        if (area > 1e-6) turned = Math.min(turned, normal.dot(cross) / area);
        sum[1] += area;
        middle.toArray().forEach((value, k) => (sum[2 + k]! += area * value));
      }
      sums.set(key, sum);
    }
  });
  expect(turned).toBeGreaterThan(0.3);
}

function apart({ instances, parts }: Told): Sums {
  const sums: Sums = new Map();
  instances.forEach(({ openings, matrices }, i) => {
    const { positions, normals, triangles, runs } = parts[i]!;
    const groups = Array.from(runs.first, (first, k) => ({
      start: 3 * first,
      count: 3 * runs.count[k]!,
      material: runs.materials[runs.material[k]!]!,
    }));
    add(sums, { positions, normals, triangles, groups }, openings, matrices);
  });
  return sums;
}

function together(bundles: readonly Bundle[]): Sums {
  const sums: Sums = new Map();
  for (const { geometry, materials, openings, matrices } of bundles)
    add(
      sums,
      {
        positions: geometry.getAttribute('position').array,
        normals: geometry.getAttribute('normal').array,
        triangles: geometry.index!.array,
        groups: geometry.groups.map(({ start, count, materialIndex }) => ({
          start,
          count,
          material: materials[materialIndex!]!,
        })),
      },
      openings,
      matrices,
    );
  return sums;
}

function expectAlike(one: Sums, other: Sums): void {
  expect([...one.keys()].sort()).toEqual([...other.keys()].sort());
  let far = 0;
  for (const [key, sum] of one)
    other.get(key)!.forEach((value, k) => {
      far = Math.max(far, Math.abs(value - sum[k]!) / (1 + Math.abs(value)));
    });
  expect(far).toBeLessThan(2e-3);
}

describe('parts that are brought together', () => {
  it.each(['granary', 'dormers', 'windows-20'])('are what stands in the openings of the %s', (name) => {
    let [many, few] = [0, 0];
    for (const told of toldOf(demos[name]!())) {
      const bundles = bundlesOf(told.instances, told.parts);
      expectAlike(together(bundles), apart(told));
      many += told.parts.length;
      few += bundles.length;
      for (const { geometry, materials, triangles, creases } of bundles) {
        expect(geometry.groups).toHaveLength(materials.length);
        expect(geometry.index!.count).toBe(3 * triangles);
        expect(creases.length % 6).toBe(0);
      }
    }
    expect(few).toBeLessThan(name === 'granary' ? many / 4 : many);
  });

  it('stay apart where one stands open in one opening alone', () => {
    const document = granary();
    const whole = (of: ProjectDocument): { bundles: Bundle[]; told: Told } => {
      const told = toldOf(of).find(({ instances }) => instances.some(({ openings }) => openings.includes('o10')))!;
      return { bundles: bundlesOf(told.instances, told.parts), told };
    };
    const opened = whole({
      ...document,
      openings: { ...document.openings, o10: { ...document.openings.o10!, open: 40 } },
    });
    expect(opened.bundles.length).toBeGreaterThan(whole(document).bundles.length);
    expectAlike(together(opened.bundles), apart(opened.told));
  });

  it('are not made anew for what is the same', () => {
    const [told] = toldOf(demos['windows-20']!());
    const again = (): THREE.BufferGeometry[] => bundlesOf(told!.instances, told!.parts).map(({ geometry }) => geometry);
    expect(again().length).toBeGreaterThan(0);
    again().forEach((geometry, i) => expect(geometry).toBe(again()[i]));
  });

  it('are without what is not shown', () => {
    const [told] = toldOf(demos['windows-20']!());
    expect(
      bundlesOf(
        told!.instances,
        told!.parts.map(() => null),
      ),
    ).toEqual([]);
  });
});
