/** The light that casts the model's shadows. */
import { useFrame } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import * as THREE from 'three';
import { modelColours } from '../colours.ts';
import { useEditor } from '../state/state.ts';
import { useDisplay } from './display.ts';
import { bySoftware, type Drawing } from './Pace.tsx';

interface SunProps {
  bounds: THREE.Box3;
  drawing: Drawing;
  clip: THREE.Plane | null;
  /** Whether the graphics card is away; what it cast is gone with it. */
  lost: boolean;
}

/** The light that casts shadows. They are cast anew only when what casts them changes, not as one looks round. */
export function Sun({ bounds, drawing, clip, lost }: SunProps) {
  const light = useRef<THREE.DirectionalLight>(null);
  const drawn = useEditor((state) => state.drawn);
  const hidden = useEditor((state) => state.hidden);
  const show = useDisplay((state) => state.show);
  const finer = useDisplay((state) => state.finer);
  const stale = useRef(false);
  const cast = useRef(false);
  useEffect(() => {
    if (drawn.size > 0) stale.current = true;
  }, [bounds, drawn, hidden, show, clip, lost]);
  useFrame(() => {
    // The first time the model is there to be seen sooner without them; where the processor draws, every time.
    const waits = drawing.rough && (bySoftware() || (finer && !cast.current));
    if (!stale.current || !light.current || waits) return;
    stale.current = false;
    cast.current = true;
    light.current.shadow.needsUpdate = true;
  });
  const empty = bounds.isEmpty();
  const centre = empty ? new THREE.Vector3() : bounds.getCenter(new THREE.Vector3());
  const reach = empty ? 10 : bounds.getSize(new THREE.Vector3()).length() / 2 + 2;
  useEffect(() => {
    const sun = light.current;
    if (!sun) return;
    sun.target.position.copy(centre);
    sun.target.updateMatrixWorld();
    Object.assign(sun.shadow.camera, {
      left: -reach,
      right: reach,
      top: reach,
      bottom: -reach,
      near: 0.1,
      far: reach * 6,
    });
    sun.shadow.camera.updateProjectionMatrix();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [bounds]);
  return (
    <directionalLight
      ref={light}
      castShadow
      intensity={2.6}
      color={modelColours.sun}
      position={[centre.x + reach * 1.1, centre.y - reach * 1.9, centre.z + reach * 1.9]}
      shadow-mapSize={[2048, 2048]}
      shadow-autoUpdate={false}
      shadow-bias={-0.0004}
      shadow-normalBias={0.03}
    />
  );
}
