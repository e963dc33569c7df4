/** Where the model is looked at from: all that is to be seen is in view, and no smaller than it must be. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import * as THREE from 'three';
import { aboveOf, aimAt, wholeOf, type Stand } from '../src/model/views.ts';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

const metre = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const boxes = fc
  .record({
    x: metre(-50, 50),
    y: metre(-50, 50),
    z: metre(-5, 30),
    a: metre(1, 80),
    b: metre(1, 80),
    c: metre(0.2, 30),
  })
  .map(({ x, y, z, a, b, c }) =>
    [x, x + a].flatMap((px) => [y, y + b].flatMap((py) => [z, z + c].map((pz) => new THREE.Vector3(px, py, pz)))),
  );
const sizes = fc.record({ width: fc.integer({ min: 200, max: 1600 }), height: fc.integer({ min: 160, max: 1000 }) });
const ways = fc.constantFrom(wholeOf, aboveOf);

/** Where the points that are to be seen come to lie, in shares of half the view from its middle. */
function seen(
  { from, to: towards, all }: Stand,
  camera: THREE.PerspectiveCamera | THREE.OrthographicCamera,
  to: THREE.Vector3,
  distance: number,
): THREE.Vector3[] {
  camera.position.copy(from).sub(towards).setLength(distance).add(to);
  camera.lookAt(to);
  camera.updateMatrixWorld();
  camera.updateProjectionMatrix();
  return all.map((point) => point.clone().project(camera));
}

function check(points: THREE.Vector3[], height: number, parallel: boolean): void {
  const [left, right] = [Math.max(...points.map(({ x }) => -x)), Math.max(...points.map(({ x }) => x))];
  const across = Math.max(left, right);
  const above = Math.max(...points.map(({ y }) => y));
  const below = Math.max(...points.map(({ y }) => -y));
  const foot = Math.max(0.94 - 88 / height, 1 / 3);
  expect(across).toBeLessThan(0.9401);
  expect(above).toBeLessThan(0.9401);
  expect(below).toBeLessThan(foot + 1e-4);
  // It comes as near as that on one side at least.
  expect(Math.max(across / 0.94, above / 0.94, below / foot)).toBeGreaterThan(0.999);
  // Seen in parallel it fills the room from side to side, or from foot to head.
  if (parallel)
    expect(Math.max(Math.min(left, right) / 0.94, Math.min(above / 0.94, below / foot))).toBeGreaterThan(0.999);
}

describe('how far off the model is looked at from', () => {
  it('in perspective', () => {
    fc.assert(
      fc.property(boxes, sizes, ways, (box, size, way) => {
        const stand = way(box);
        const camera = new THREE.PerspectiveCamera(38, size.width / size.height, 0.01, 1e5);
        const { to, distance } = aimAt(stand, size, Math.tan((19 * Math.PI) / 180));
        check(seen(stand, camera, to, distance), size.height, false);
      }),
      { numRuns: 200 },
    );
  });

  it('in parallel', () => {
    fc.assert(
      fc.property(boxes, sizes, ways, (box, size, way) => {
        const stand = way(box);
        const camera = new THREE.OrthographicCamera(
          -size.width / 2,
          size.width / 2,
          size.height / 2,
          -size.height / 2,
          0.1,
          1e5,
        );
        const { to, scale } = aimAt(stand, size, null);
        camera.zoom = scale;
        check(seen(stand, camera, to, 600), size.height, true);
      }),
      { numRuns: 200 },
    );
  });

  it('where there is nothing yet', () => {
    expect(aimAt(wholeOf([]), { width: 400, height: 300 }, 0.34).distance).toBeGreaterThan(5);
    expect(aimAt(aboveOf([]), { width: 400, height: 300 }, 0.34).distance).toBeGreaterThan(5);
  });
});
