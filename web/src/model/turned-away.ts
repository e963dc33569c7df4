/** Leaves out of a drawing what is turned away from the eye: half of a wall's triangles. Graphics cards do that by themselves, and in no time; a processor in their place takes most of it before it knows. */
import * as THREE from 'three';
import type { DrawnElement, DrawnFlat } from '../state/cut-messages.ts';

type Group = THREE.BufferGeometry['groups'][number];

/** By geometry: which of its groups are flat. */
const flatGroups = new WeakMap<THREE.BufferGeometry, ReadonlyMap<Group, DrawnFlat>>();

/** Tells a geometry which of its groups are flat: those that begin where a flat does. */
export function noteFlats(geometry: THREE.BufferGeometry, flats: DrawnElement['flats']): void {
  const found = new Map<Group, DrawnFlat>();
  for (const flat of flats) {
    const group = geometry.groups.find(({ start }) => start === 3 * flat.first);
    if (group) found.set(group, flat);
  }
  if (found.size > 0) flatGroups.set(geometry, found);
}

/** Whether each surface shows one side alone. */
const isOneSided = (material: THREE.Material | THREE.Material[]): boolean =>
  Array.isArray(material) && material.every(({ side }) => side === THREE.FrontSide);

const [eye, look] = [new THREE.Vector3(), new THREE.Vector3()];

/** Whether all of a flat is turned away from where it is looked from. @param camera that sees along lines from one point, or along parallel lines @param mesh of which it is */
function isAway({ normal: [x, y, z], least }: DrawnFlat, camera: THREE.Camera, mesh: THREE.Object3D): boolean {
  if (camera instanceof THREE.OrthographicCamera) {
    camera.getWorldDirection(look);
    return x * look.x + y * look.y + z * look.z > 0;
  }
  eye.setFromMatrixPosition(camera.matrixWorld).sub(look.setFromMatrixPosition(mesh.matrixWorld));
  return x * eye.x + y * eye.y + z * eye.z < least;
}

/** Draws a scene without what is turned away; what is told by its groups, as by a ray, finds them as they were. */
export function withoutTurnedAway(scene: THREE.Object3D, camera: THREE.Camera, draw: () => void): void {
  const whole: [THREE.BufferGeometry, Group[]][] = [];
  scene.traverseVisible((mesh) => {
    if (!(mesh instanceof THREE.Mesh)) return;
    const geometry = mesh.geometry as THREE.BufferGeometry;
    const flats = flatGroups.get(geometry);
    if (!flats || !isOneSided(mesh.material as THREE.Material | THREE.Material[])) return;
    whole.push([geometry, geometry.groups]);
    geometry.groups = geometry.groups.filter((group) => {
      const flat = flats.get(group);
      return !flat || !isAway(flat, camera, mesh);
    });
  });
  try {
    draw();
  } finally {
    for (const [geometry, groups] of whole) geometry.groups = groups;
  }
}
