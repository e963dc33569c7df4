/** The plane that is cut through a building so that a face within it is seen. */
import { describe, expect, it } from '@jest/globals';
import * as THREE from 'three';
import { sectionBefore, type Stand } from '../src/model/views.ts';

/** A wall of a scene, so thick, at a place. */
function slab(at: [number, number, number], size: [number, number, number], castShadow = true): THREE.Mesh {
  const mesh = new THREE.Mesh(new THREE.BoxGeometry(...size));
  mesh.position.set(...at);
  mesh.castShadow = castShadow;
  mesh.updateMatrixWorld();
  return mesh;
}

/** Face on to a wall in the plane where an axis is nothing, from its positive side or the other. */
function facing(axis: 'x' | 'y' | 'z', way: 1 | -1): Stand {
  const to = new THREE.Vector3();
  const from = to.clone();
  from[axis] = way;
  return { from, to, all: [-4, 4].map((along) => to.clone().setComponent(axis === 'x' ? 1 : 0, along)) };
}

describe('a plane before a face', () => {
  it('stands half way to the nearest wall before it, and takes away what is on that side', () => {
    const scene = new THREE.Scene().add(slab([0, 6.1, 0], [20, 0.2, 20]), slab([0, 9, 0], [20, 0.2, 20]));
    const plane = sectionBefore(scene, facing('y', 1))!;
    expect(plane).toMatchObject({ across: 'y', other: true });
    expect(plane.at).toBeCloseTo(3, 6);
    // From the other side there is nothing in the way.
    expect(sectionBefore(scene, facing('y', -1))).toBeNull();
  });

  it('is of whichever way one looks, and level where one looks down', () => {
    const before = (axis: 'x' | 'y' | 'z', way: 1 | -1) => {
      const at = [0, 0, 0] as [number, number, number];
      at['xyz'.indexOf(axis)] = way * 4;
      const size = [20, 20, 20] as [number, number, number];
      size['xyz'.indexOf(axis)] = 2;
      return sectionBefore(new THREE.Scene().add(slab(at, size)), facing(axis, way));
    };
    expect(before('x', 1)).toMatchObject({ across: 'x', at: 1.5, other: true });
    expect(before('x', -1)).toMatchObject({ across: 'x', at: -1.5, other: false });
    // Of a level plane what is below stays unless the other half is asked for.
    expect(before('z', 1)).toMatchObject({ across: 'z', at: 1.5, other: false });
    expect(before('z', -1)).toMatchObject({ across: 'z', at: -1.5, other: true });
  });

  it('takes no notice of marks and grips, nor of what is planted on the face, and there is none aslant', () => {
    const marks = new THREE.Scene().add(slab([0, 3, 0], [20, 0.2, 20], false));
    expect(sectionBefore(marks, facing('y', 1))).toBeNull();
    const planted = new THREE.Scene().add(slab([0, 0.1, 0], [20, 0.1, 20]));
    expect(sectionBefore(planted, facing('y', 1))).toBeNull();
    const scene = new THREE.Scene().add(slab([0, 6, 0], [50, 0.2, 20]));
    const aslant = { ...facing('y', 1), from: new THREE.Vector3(1, 1, 0) };
    expect(sectionBefore(scene, aslant)).toBeNull();
  });
});
