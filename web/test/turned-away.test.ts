/** What is left out of a drawing: only what is turned away, and only while it is drawn. */
import { describe, expect, it } from '@jest/globals';
import { cutModel } from '@yard-arch/core';
import { curvedFacade, facade as facadeOf } from '@yard-arch/demo';
import type { ProjectDocument } from '@yard-arch/document';
import * as THREE from 'three';
import { withGroups } from '../src/model/groups.ts';
import { noteFlats, withoutTurnedAway } from '../src/model/turned-away.ts';
import type { DrawnElement } from '../src/state/cut-messages.ts';
import { drawnElement } from '../src/state/drawn-elements.ts';

const drawnOf = (document: ProjectDocument): DrawnElement[] =>
  [...cutModel(document).cuts.values()].map((cut) => drawnElement(cut, false, () => {}));
const facade = drawnOf(facadeOf(40))[0]!;

function meshOf({ positions, normals, triangles, runs, flats, origin }: DrawnElement): THREE.Mesh {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
  geometry.setIndex(new THREE.BufferAttribute(triangles, 1));
  withGroups(geometry, runs, new Set(flats.map(({ first }) => first)));
  noteFlats(geometry, flats);
  const mesh = new THREE.Mesh(
    geometry,
    runs.materials.map(() => new THREE.MeshBasicMaterial()),
  );
  mesh.position.set(...origin);
  mesh.updateMatrixWorld();
  return mesh;
}

/** The triangles that are drawn, by their numbers. */
function drawnFrom(mesh: THREE.Mesh, camera: THREE.Camera): Set<number> {
  camera.updateMatrixWorld();
  const drawn = new Set<number>();
  withoutTurnedAway(mesh, camera, () => {
    for (const { start, count } of mesh.geometry.groups)
      for (let t = start / 3; t < (start + count) / 3; t++) drawn.add(t);
  });
  return drawn;
}

/** Triangles that a camera sees the front of, by their own corners. */
function facing(mesh: THREE.Mesh, camera: THREE.Camera): number[] {
  const { position } = mesh.geometry.attributes;
  const index = mesh.geometry.index!;
  const [a, b, c] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];
  const look = camera.getWorldDirection(new THREE.Vector3());
  const found: number[] = [];
  for (let t = 0; t < index.count / 3; t++) {
    [a, b, c].forEach((corner, k) => corner.fromBufferAttribute(position!, index.getX(3 * t + k)).add(mesh.position));
    const front = new THREE.Vector3().crossVectors(b.clone().sub(a), c.clone().sub(a));
    const to = camera instanceof THREE.OrthographicCamera ? look : a.sub(camera.position);
    if (front.dot(to) < 0) found.push(t);
  }
  return found;
}

const perspective = (x: number, y: number, z: number): THREE.Camera => {
  const camera = new THREE.PerspectiveCamera();
  camera.position.set(x, y, z);
  return camera;
};

describe('what is turned away', () => {
  const mesh = meshOf(facade);
  const all = facade.triangles.length / 3;

  it.each([
    ['before it', perspective(10, -40, 5)],
    ['behind it', perspective(10, 40, 5)],
    ['far aside', perspective(-200, -1, 90)],
  ])('is left out seen from %s, and nothing whose front is seen', (_, camera) => {
    const drawn = drawnFrom(mesh, camera);
    expect(drawn.size).toBeLessThan(0.8 * all);
    for (const triangle of facing(mesh, camera)) expect(drawn.has(triangle)).toBe(true);
  });

  it('is left out seen along parallel lines too', () => {
    for (const y of [-1, 1]) {
      const camera = new THREE.OrthographicCamera();
      camera.position.set(3, y, 0.4);
      camera.up.set(0, 0, 1);
      camera.lookAt(3.2, 0, 0.3);
      const drawn = drawnFrom(mesh, camera);
      expect(drawn.size).toBeLessThan(0.8 * all);
      for (const triangle of facing(mesh, camera)) expect(drawn.has(triangle)).toBe(true);
    }
  });

  it('is both of its faces seen from within the wall itself', () => {
    expect(facade.flats).toHaveLength(2);
    const outer = drawnFrom(mesh, perspective(10, -40, 5)).size;
    expect(drawnFrom(mesh, perspective(10, 0.2, 5)).size).toBeLessThan(outer);
  });

  it('is there again when it has been drawn, even where that fails', () => {
    const { groups } = mesh.geometry;
    drawnFrom(mesh, perspective(10, -40, 5));
    expect(mesh.geometry.groups).toBe(groups);
    const failing = (): void =>
      withoutTurnedAway(mesh, perspective(10, -40, 5), () => {
        throw new Error('lost');
      });
    expect(failing).toThrow('lost');
    expect(mesh.geometry.groups).toBe(groups);
    expect(groups.reduce((sum, { count }) => sum + count, 0)).toBe(facade.triangles.length);
  });

  it('is drawn where both sides are seen', () => {
    const both = meshOf(facade);
    for (const material of both.material as THREE.Material[]) material.side = THREE.DoubleSide;
    expect(drawnFrom(both, perspective(10, -40, 5)).size).toBe(all);
  });

  it('is never told of what bends', () => {
    for (const { flats } of drawnOf(curvedFacade(60))) expect(flats).toEqual([]);
  });
});
