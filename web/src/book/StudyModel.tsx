/** The model of a pattern's study: a piece of wall with its opening, what stands in it as it stands. */
import { meshIn, originOf, pointAt, type Study, type CutMesh } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { OrbitControls, PerspectiveCamera } from '@react-three/drei';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import * as THREE from 'three';
import { airColours, modelColours } from '../colours.ts';
import { noteSoftware } from '../model/Pace.tsx';
import { bundlesOf } from '../model/bundles.ts';
import { PromptObserver } from '../model/prompt-observer.ts';
import { withGroups } from '../model/groups.ts';
import { surfacesOf } from '../model/surfaces.ts';
import { drawnInstances, drawnPart } from '../state/drawn-parts.ts';
import { drawnTrianglesOf } from '../state/drawn-runs.ts';
import type { DrawnPart } from '../state/cut-messages.ts';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

/** A wall as the model draws it, relative to a point. */
function wallOf(
  { points, vertices, normals, uvs }: CutMesh,
  triangles: Uint32Array,
  [x, y, z]: readonly [number, number, number],
) {
  const made = new THREE.BufferGeometry();
  const positions = new Float32Array(3 * vertices.length);
  vertices.forEach((vertex, c) =>
    positions.set([points[3 * vertex]! - x, points[3 * vertex + 1]! - y, points[3 * vertex + 2]! - z], 3 * c),
  );
  made.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  made.setAttribute('normal', new THREE.BufferAttribute(normals.slice(), 3));
  made.setAttribute('uv', new THREE.BufferAttribute(uvs.slice(), 2));
  made.setIndex(new THREE.BufferAttribute(triangles, 1));
  return made;
}

export function StudyModel({ document, study }: { document: ProjectDocument; study: Study }) {
  const { placed, standing: cut } = study;
  const { middle, far } = useMemo(() => {
    const { chart } = cut.faces?.find(({ face }) => face === placed.face)?.sheet ?? cut.sheet;
    const { s, t, profile } = placed;
    const box = new THREE.Box3();
    for (const [along, up] of [
      [0, 0],
      [profile.width, profile.height],
    ] as const)
      box.expandByPoint(new THREE.Vector3(...pointAt(chart, s + along, t + up, 0)));
    // What stands out of a roof is seen whole.
    if (cut.faces)
      for (const { part, placement } of cut.parts) {
        const { points } = meshIn(placement, part.mesh);
        for (let i = 0; i < points.length; i += 3)
          box.expandByPoint(new THREE.Vector3(points[i], points[i + 1], points[i + 2]));
      }
    const size = box.getSize(new THREE.Vector3());
    return {
      middle: box.getCenter(new THREE.Vector3()),
      far: (cut.faces ? 0.85 : 1.25) * (Math.max(size.x, size.z, profile.height) + 0.9),
    };
  }, [placed, cut]);
  return (
    <Canvas
      frameloop="demand"
      resize={{ polyfill: PromptObserver, debounce: 0 }}
      dpr={[1, 2]}
      shadows="percentage"
      onCreated={({ gl }) => {
        gl.debug.checkShaderErrors = false;
        noteSoftware(gl.getContext());
      }}
      role="img"
      aria-label="Model of the pattern"
    >
      <color attach="background" args={[airColours.light.horizon]} />
      <hemisphereLight args={[airColours.light.above, airColours.light.below, 1.5]} />
      <Sun middle={middle} on={cut} />
      <Cut document={document} study={study} />
      <PerspectiveCamera
        makeDefault
        fov={38}
        near={0.05}
        far={100}
        position={[middle.x + far * 0.62, -far * 1.5, middle.z + far * 0.42]}
      />
      <OrbitControls makeDefault enableDamping={false} target={middle} minDistance={0.3} maxDistance={20} />
      <Redraw on={cut} />
    </Canvas>
  );
}

/** The light; shadows are cast anew only for something else, not as one looks round. */
function Sun({ middle, on }: { middle: THREE.Vector3; on: unknown }) {
  const light = useRef<THREE.DirectionalLight>(null);
  useEffect(() => {
    const { shadow, target } = light.current!;
    target.updateMatrixWorld();
    shadow.needsUpdate = true;
  }, [middle, on]);
  return (
    <directionalLight
      ref={light}
      color={modelColours.sun}
      intensity={2.2}
      position={[middle.x - 3, -4, middle.z + 4.5]}
      target-position={middle}
      castShadow
      shadow-autoUpdate={false}
      shadow-mapSize={[1024, 1024]}
      shadow-bias={-0.0006}
      shadow-camera-left={-4}
      shadow-camera-right={4}
      shadow-camera-top={4}
      shadow-camera-bottom={-4}
    />
  );
}

function Redraw({ on }: { on: unknown }): ReactNode {
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => invalidate(), [on, invalidate]);
  return null;
}

function Cut({
  document: { materials, assets },
  study: { standing: cut },
}: {
  document: ProjectDocument;
  study: Study;
}) {
  const made = useMemo(() => {
    const origin = originOf(cut.sheet.chart);
    const { triangles, runs } = drawnTrianglesOf(cut.mesh);
    const wall = wallOf(cut.mesh, triangles, origin);
    withGroups(wall, runs);
    const parts: DrawnPart[] = [];
    const instances = drawnInstances(cut, (mesh) => parts.push(drawnPart(mesh)));
    return { origin, wall, materials: runs.materials, bundles: bundlesOf(instances, parts) };
  }, [cut]);
  const surfaces = useMemo(() => {
    const of = (ids: readonly string[]) => surfacesOf(ids, { materials, assets }, 'plain', null);
    return { wall: of(made.materials), bundles: made.bundles.map((bundle) => of(bundle.materials)) };
  }, [made, materials, assets]);
  useEffect(() => () => made.wall.dispose(), [made]);
  return (
    <group position={made.origin}>
      <mesh geometry={made.wall} material={surfaces.wall} castShadow receiveShadow />
      {made.bundles.flatMap(({ geometry, matrices, openings }, k) =>
        openings.map((_, i) => (
          <mesh
            key={`${k} ${i}`}
            geometry={geometry}
            material={surfaces.bundles[k]!}
            matrixAutoUpdate={false}
            matrix={new THREE.Matrix4().fromArray(matrices, 16 * i)}
            castShadow
            receiveShadow
          />
        )),
      )}
    </group>
  );
}
