/** One cut element in the model: its surfaces in their materials, and its creases in ink. */
import { colours, modelColours } from '../colours.ts';
import type { ThreeEvent } from '@react-three/fiber';
import type { ProjectDocument } from '@yard-arch/document';
import { memo, useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DrawnElement, DrawnRuns } from '../state/cut-messages.ts';
import { Creases } from './Creases.tsx';
import type { Show } from './display.ts';
import { Parts } from './Parts.tsx';
import { withGroups } from './groups.ts';
import { isAway, surfacesOf } from './surfaces.ts';
import { noteFlats } from './turned-away.ts';
import { unmet } from './unmet.ts';

/** Stripes for faces seen from inside. */
let stripes: THREE.DataTexture | null = null;
function insideStripes(): THREE.DataTexture {
  if (stripes) return stripes;
  const size = 32;
  const dots = new Uint8Array(4 * size * size);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const dark = (x + y) % 16 < 6;
      dots.set(dark ? [122, 38, 22, 255] : [214, 120, 96, 255], 4 * (y * size + x));
    }
  stripes = new THREE.DataTexture(dots, size, size, THREE.RGBAFormat);
  stripes.colorSpace = THREE.SRGBColorSpace;
  stripes.wrapS = stripes.wrapT = THREE.RepeatWrapping;
  stripes.repeat.set(2, 2);
  stripes.magFilter = THREE.LinearFilter;
  stripes.needsUpdate = true;
  return stripes;
}

/** The opening of the run that holds a triangle, or null; and its face where its element has many. */
function runAt(
  { first, count, opening, openings, face, faces }: DrawnRuns,
  triangle: number,
): [opening: string | null, face: string | undefined] {
  const i = first.findIndex((start, k) => triangle >= start && triangle < start + count[k]!);
  return [openings[(opening[i] ?? 0) - 1] ?? null, faces[(face[i] ?? 0) - 1]];
}

interface CutWallProps {
  cut: DrawnElement;
  materials: ProjectDocument['materials'];
  assets: ProjectDocument['assets'];
  chosen: boolean;
  show: Show;
  /** A plane beyond which nothing is shown. */
  clip: THREE.Plane | null;
  onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string | null, face?: string) => void;
}

export const CutWall = memo(function CutWall({ cut, materials, assets, chosen, show, clip, onPick }: CutWallProps) {
  const { positions, normals, uvs, triangles, runs, flats, sphere } = cut;
  const geometry = useMemo(() => {
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(positions, 3));
    made.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
    made.setAttribute('uv', new THREE.BufferAttribute(uvs, 2));
    made.setIndex(new THREE.BufferAttribute(triangles, 1));
    made.boundingSphere = new THREE.Sphere(new THREE.Vector3(sphere[0], sphere[1], sphere[2]), sphere[3]);
    return made;
  }, [positions, normals, uvs, triangles, sphere]);
  const surfaces = useMemo(() => {
    withGroups(geometry, runs, new Set(flats.map(({ first }) => first)));
    noteFlats(geometry, flats);
    return surfacesOf(runs.materials, { materials, assets }, show, clip);
  }, [geometry, runs, flats, materials, assets, show, clip]);
  const creases = useMemo(() => {
    if (!cut.creases) return null;
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(cut.creases, 3));
    made.boundingSphere = geometry.boundingSphere;
    return made;
  }, [cut.creases, geometry]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  useEffect(() => () => creases?.dispose(), [creases]);
  useEffect(() => () => surfaces.forEach((material) => material.dispose()), [surfaces]);

  const met = (event: ThreeEvent<MouseEvent>) => {
    if (isAway(clip, event)) return;
    const triangle = event.faceIndex ?? 0;
    onPick(event, cut.element, ...runAt(runs, triangle));
  };
  return (
    <group position={cut.origin}>
      <mesh
        geometry={geometry}
        material={surfaces}
        castShadow={show !== 'see-through'}
        receiveShadow={show !== 'see-through'}
        onClick={met}
        onPointerUp={(event) => event.button === 2 && met(event)}
      />
      {show === 'sides' && (
        <mesh geometry={geometry} raycast={unmet}>
          <meshBasicMaterial side={THREE.BackSide} map={insideStripes()} clippingPlanes={clip ? [clip] : null} />
        </mesh>
      )}
      {clip && show !== 'sides' && show !== 'see-through' && (
        // Where the plane cuts a closed solid one sees the insides of its faces: drawn flat, they are the cut.
        <mesh geometry={geometry} raycast={unmet}>
          <meshBasicMaterial
            side={THREE.BackSide}
            color={chosen ? colours.brick : modelColours.section}
            clippingPlanes={[clip]}
          />
        </mesh>
      )}
      {creases && <Creases geometry={creases} chosen={chosen} show={show} clip={clip} />}
      {cut.parts.length > 0 && (
        <Parts
          element={cut.element}
          instances={cut.parts}
          lined={cut.lined}
          materials={materials}
          assets={assets}
          show={show}
          clip={clip}
          onPick={onPick}
        />
      )}
    </group>
  );
});
