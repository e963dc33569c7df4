/** Where the model is looked at from: all that is to be seen is in view, and no smaller than it must be. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import * as THREE from 'three';
import { aboveOf, reachOf, wholeOf, type Stand } from '../src/model/views.ts';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

const metre = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const boxes = fc
  .record({ x: metre(-50, 50), y: metre(-50, 50), z: metre(-5, 30), a: metre(1, 80), b: metre(1, 80), c: metre(0.2, 30) })
  .map(({ x, y, z, a, b, c }) => new THREE.Box3(new THREE.Vector3(x, y, z), new THREE.Vector3(x + a, y + b, z + c)));
const sizes = fc.record({ width: fc.integer({ min: 200, max: 1600 }), height: fc.integer({ min: 160, max: 1000 }) });
const ways = fc.constantFrom(wholeOf, aboveOf);

/** Where the points that are to be seen come to lie, in shares of half the view from its middle. */
function seen({ from, to, all }: Stand, camera: THREE.PerspectiveCamera | THREE.OrthographicCamera, distance: number): THREE.Vector3[] {
  camera.position.copy(from).sub(to).setLength(distance).add(to);
  camera.lookAt(to);
  camera.updateMatrixWorld();
  camera.updateProjectionMatrix();
  return all.map((point) => point.clone().project(camera));
}

function check(points: THREE.Vector3[], height: number): void {
  const across = Math.max(...points.map(({ x }) => Math.abs(x)));
  const above = Math.max(...points.map(({ y }) => y));
  const below = Math.max(...points.map(({ y }) => -y));
  const foot = Math.max(0.94 - 88 / height, 1 / 3);
  expect(across).toBeLessThan(0.9401);
  expect(above).toBeLessThan(0.9401);
  expect(below).toBeLessThan(foot + 1e-4);
  expect(Math.max(across / 0.94, above / 0.94, below / foot)).toBeGreaterThan(0.999);
}

describe('how far off the model is looked at from', () => {
  it('in perspective', () => {
    fc.assert(
      fc.property(boxes, sizes, ways, (box, size, way) => {
        const stand = way(box);
        const camera = new THREE.PerspectiveCamera(38, size.width / size.height, 0.01, 1e5);
        check(seen(stand, camera, reachOf(stand, size, Math.tan((19 * Math.PI) / 180))), size.height);
      }),
      { numRuns: 200 },
    );
  });

  it('in parallel', () => {
    fc.assert(
      fc.property(boxes, sizes, ways, (box, size, way) => {
        const stand = way(box);
        const camera = new THREE.OrthographicCamera(-size.width / 2, size.width / 2, size.height / 2, -size.height / 2, 0.1, 1e5);
        camera.zoom = reachOf(stand, size, null);
        check(seen(stand, camera, 600), size.height);
      }),
      { numRuns: 200 },
    );
  });

  it('where there is nothing yet', () => {
    expect(reachOf(wholeOf(new THREE.Box3()), { width: 400, height: 300 }, 0.34)).toBeGreaterThan(5);
    expect(reachOf(aboveOf(new THREE.Box3()), { width: 400, height: 300 }, 0.34)).toBeGreaterThan(5);
  });
});
