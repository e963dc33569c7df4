/** One cut element in the model: its surfaces in their materials, and its creases in ink. */
import type { ThreeEvent } from '@react-three/fiber';
import type { ProjectDocument } from '@yard-arch/document';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DrawnElement } from '../editor/cut-messages.ts';

interface CutWallProps {
  cut: DrawnElement;
  document: ProjectDocument;
  chosen: boolean;
  onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string | null) => void;
}

export function CutWall({ cut, document, chosen, onPick }: CutWallProps) {
  const { materials } = document;
  const geometry = useMemo(() => {
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(cut.positions, 3));
    made.setAttribute('normal', new THREE.BufferAttribute(cut.normals, 3));
    made.setIndex(new THREE.BufferAttribute(cut.triangles, 1));
    return made;
  }, [cut]);
  const surfaces = useMemo(() => {
    geometry.clearGroups();
    const ids: string[] = [];
    for (const run of cut.runs) {
      let at = ids.indexOf(run.material);
      if (at < 0) at = ids.push(run.material) - 1;
      const last = geometry.groups.at(-1);
      if (last && last.materialIndex === at && last.start + last.count === 3 * run.first) last.count += 3 * run.count;
      else geometry.addGroup(3 * run.first, 3 * run.count, at);
    }
    return ids.map((id) => new THREE.MeshStandardMaterial({ color: materials[id]?.colour ?? '#999999', roughness: materials[id]?.roughness ?? 1 }));
  }, [geometry, cut, materials]);
  const creases = useMemo(() => {
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(cut.creases, 3));
    return made;
  }, [cut]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  useEffect(() => () => creases.dispose(), [creases]);
  useEffect(() => () => surfaces.forEach((material) => material.dispose()), [surfaces]);

  const onClick = (event: ThreeEvent<MouseEvent>) => {
    const triangle = event.faceIndex ?? 0;
    const run = cut.runs.find(({ first, count }) => triangle >= first && triangle < first + count);
    onPick(event, cut.element, run?.opening ?? null);
  };
  return (
    <group position={cut.origin}>
      <mesh geometry={geometry} material={surfaces} castShadow receiveShadow onClick={onClick} />
      <lineSegments geometry={creases} raycast={() => null}>
        <lineBasicMaterial color={chosen ? '#b0442b' : '#1e2a33'} transparent opacity={chosen ? 0.95 : 0.55} />
      </lineSegments>
    </group>
  );
}
