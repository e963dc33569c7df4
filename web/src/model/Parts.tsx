/** What stands in and about the openings of one element: what is alike is drawn in all its places at once. */
import type { ThreeEvent } from '@react-three/fiber';
import type { ProjectDocument } from '@yard-arch/document';
import { memo, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { useShallow } from 'zustand/react/shallow';
import { useEditor } from '../state/state.ts';
import type { DrawnInstances, DrawnPart } from '../state/cut-messages.ts';
import { Creases } from './Creases.tsx';
import { useDisplay, type Fill, type Show } from './display.ts';
import { blockOf } from './block.ts';
import { bundlesOf, type Bundle } from './bundles.ts';
import { isAway, surfacesOf } from './surfaces.ts';

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

/** What has more triangles in all its places casts no shadows. */
const mostCast = 600_000;

export const Parts = memo(function Parts({ instances, ...rest }: PartsProps) {
  // By their meshes, so that others' parts make nothing anew.
  const parts = useEditor(useShallow((state) => instances.map(({ key }) => state.parts.get(key))));
  const fill = useDisplay((state) => state.fill);
  const bundles = useMemo(
    () =>
      bundlesOf(
        instances,
        parts.map((part) => part && shownAs(part, fill)),
      ),
    [instances, parts, fill],
  );
  return bundles.map((bundle, i) => <Placed key={i} bundle={bundle} {...rest} />);
});

/** A part as it is shown; null where it is not. */
function shownAs(part: DrawnPart, fill: Fill): DrawnPart | null {
  if (fill === 'none') return null;
  if (fill === 'blocks') return part.name === 'infill' ? blockOf(part) : null;
  // Frames, leaves and glass are told by what they stand in.
  return fill === 'plain' && !part.within ? null : part;
}

function Placed({
  bundle,
  element,
  materials,
  assets,
  lined,
  show,
  clip,
  onPick,
}: Omit<PartsProps, 'instances'> & { bundle: Bundle }) {
  const { geometry, openings, matrices } = bundle;
  const mesh = useRef<THREE.InstancedMesh>(null);
  const count = openings.length;
  const surfaces = useMemo(
    () => surfacesOf(bundle.materials, { materials, assets }, show, clip),
    [bundle, materials, assets, show, clip],
  );
  useEffect(() => () => surfaces.forEach((surface) => surface.dispose()), [surfaces]);
  useLayoutEffect(() => {
    const drawn = mesh.current!;
    drawn.instanceMatrix.array.set(matrices);
    drawn.instanceMatrix.needsUpdate = true;
    drawn.computeBoundingSphere();
  }, [matrices, count, geometry]);
  const creases = useMemo(() => (lined ? linesOf(bundle) : null), [bundle, lined]);
  useEffect(() => () => creases?.dispose(), [creases]);
  const met = (event: ThreeEvent<MouseEvent>): void => {
    if (!isAway(clip, event)) onPick(event, element, openings[event.instanceId ?? 0] ?? null);
  };
  return (
    <>
      <instancedMesh
        // Another number of places is another buffer.
        key={count}
        ref={mesh}
        args={[undefined, undefined, count]}
        geometry={geometry}
        material={surfaces}
        castShadow={show !== 'see-through' && count * bundle.triangles < mostCast}
        receiveShadow={show !== 'see-through'}
        onClick={met}
        onPointerUp={(event) => event.button === 2 && met(event)}
      />
      {creases && <Creases geometry={creases} chosen={false} show={show} clip={clip} />}
    </>
  );
}

/** The lines of a bundle in all its places. */
function linesOf({ creases, matrices, openings }: Bundle): THREE.BufferGeometry {
  const lines = new Float32Array(creases.length * openings.length);
  const [matrix, point] = [new THREE.Matrix4(), new THREE.Vector3()];
  for (let i = 0; i < openings.length; i++) {
    matrix.fromArray(matrices, 16 * i);
    for (let p = 0; p < creases.length; p += 3)
      point
        .fromArray(creases, p)
        .applyMatrix4(matrix)
        .toArray(lines, i * creases.length + p);
  }
  const made = new THREE.BufferGeometry();
  made.setAttribute('position', new THREE.BufferAttribute(lines, 3));
  return made;
}
