/** What stands in and about the openings of one element: each mesh is drawn in all its places at once. */
import type { ThreeEvent } from '@react-three/fiber';
import type { ProjectDocument } from '@yard-arch/document';
import { memo, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { useEditor } from '../state/state.ts';
import type { DrawnInstances, DrawnPart } from '../state/cut-messages.ts';
import { Creases } from './Creases.tsx';
import { useDisplay, type Show } from './display.ts';
import { blockOf } from './block.ts';
import { isAway, surfacesOf, withGroups } from './surfaces.ts';

interface PartsProps {
  element: string;
  instances: readonly DrawnInstances[];
  materials: ProjectDocument['materials'];
  assets: ProjectDocument['assets'];
  /** Whether its lines are drawn: at first it is seen without them, as its wall is. */
  lined: boolean;
  show: Show;
  clip: THREE.Plane | null;
  onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string | null) => void;
}

export const Parts = memo(function Parts({ instances, ...rest }: PartsProps) {
  const parts = useEditor((state) => state.parts);
  const fill = useDisplay((state) => state.fill);
  if (fill === 'none') return null;
  return instances.map((one) => {
    const part = parts.get(one.key);
    // Frames, leaves and glass are told by what they stand in.
    if (fill === 'plain' && !part?.within) return null;
    if (fill === 'blocks')
      return part?.name === 'infill' && <Placed key={one.key} part={blockOf(part)} at={one} {...rest} />;
    return part && <Placed key={one.key} part={part} at={one} {...rest} />;
  });
});

const geometries = new WeakMap<DrawnPart, THREE.BufferGeometry>();

/** The geometry of a part, made once however many elements carry it. */
export function geometryOf(part: DrawnPart): THREE.BufferGeometry {
  let made = geometries.get(part);
  if (!made) {
    made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(part.positions, 3));
    made.setAttribute('normal', new THREE.BufferAttribute(part.normals, 3));
    made.setAttribute('uv', new THREE.BufferAttribute(part.uvs, 2));
    made.setIndex(new THREE.BufferAttribute(part.triangles, 1));
    withGroups(made, part.runs);
    geometries.set(part, made);
  }
  return made;
}

function Placed({
  part,
  at,
  element,
  materials,
  assets,
  lined,
  show,
  clip,
  onPick,
}: Omit<PartsProps, 'instances'> & { part: DrawnPart; at: DrawnInstances }) {
  const mesh = useRef<THREE.InstancedMesh>(null);
  const count = at.openings.length;
  const surfaces = useMemo(
    () => surfacesOf(part.runs.materials, { materials, assets }, show, clip),
    [part, materials, assets, show, clip],
  );
  useEffect(() => () => surfaces.forEach((surface) => surface.dispose()), [surfaces]);
  useLayoutEffect(() => {
    const drawn = mesh.current!;
    drawn.instanceMatrix.array.set(at.matrices);
    drawn.instanceMatrix.needsUpdate = true;
    drawn.computeBoundingSphere();
  }, [at, count]);
  const creases = useMemo(() => {
    if (!lined) return null;
    const lines = new Float32Array(part.creases.length * count);
    const [matrix, point] = [new THREE.Matrix4(), new THREE.Vector3()];
    for (let i = 0; i < count; i++) {
      matrix.fromArray(at.matrices, 16 * i);
      for (let p = 0; p < part.creases.length; p += 3)
        point
          .fromArray(part.creases, p)
          .applyMatrix4(matrix)
          .toArray(lines, i * part.creases.length + p);
    }
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(lines, 3));
    return made;
  }, [part, at, count, lined]);
  useEffect(() => () => creases?.dispose(), [creases]);
  const met = (event: ThreeEvent<MouseEvent>): void => {
    if (!isAway(clip, event)) onPick(event, element, at.openings[event.instanceId ?? 0] ?? null);
  };
  return (
    <>
      <instancedMesh
        // Another number of places is another buffer.
        key={count}
        ref={mesh}
        args={[geometryOf(part), undefined, count]}
        material={surfaces}
        castShadow={show !== 'see-through' && count * part.triangles.length < 900_000}
        receiveShadow={show !== 'see-through'}
        onClick={met}
        onPointerUp={(event) => event.button === 2 && met(event)}
      />
      {creases && <Creases geometry={creases} chosen={false} show={show} clip={clip} />}
    </>
  );
}
