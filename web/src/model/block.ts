/** A block in the place of an infill: as large as it, of the first of its materials. */
import * as THREE from 'three';
import type { DrawnPart } from '../state/cut-messages.ts';

const blocks = new WeakMap<DrawnPart, DrawnPart>();

export function blockOf(part: DrawnPart): DrawnPart {
  let made = blocks.get(part);
  if (!made) blocks.set(part, (made = blockAbout(part)));
  return made;
}

function blockAbout(part: DrawnPart): DrawnPart {
  const box = new THREE.Box3().setFromArray(part.positions);
  const [size, middle] = [box.getSize(new THREE.Vector3()), box.getCenter(new THREE.Vector3())];
  const shape = new THREE.BoxGeometry(size.x, size.y, size.z).translate(middle.x, middle.y, middle.z);
  const array = (name: string): Float32Array => new Float32Array(shape.getAttribute(name).array);
  const triangles = Uint32Array.from(shape.index!.array);
  const edges = new THREE.EdgesGeometry(shape);
  return {
    ...part,
    positions: array('position'),
    normals: array('normal'),
    uvs: array('uv'),
    triangles,
    creases: new Float32Array(edges.getAttribute('position').array),
    runs: {
      first: Uint32Array.of(0),
      count: Uint32Array.of(triangles.length / 3),
      material: Uint32Array.of(0),
      materials: part.runs.materials.slice(0, 1),
      opening: Uint32Array.of(0),
      openings: [],
      face: Uint32Array.of(0),
      faces: [],
    },
  };
}
