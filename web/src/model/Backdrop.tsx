/** What the model stands in: a sky that pales towards the horizon, and ground that goes over into it. */
import { airColours } from '../colours.ts';
import { useMemo } from 'react';
import * as THREE from 'three';
import { useDisplay, type Backdrop } from './display.ts';
import { unmet } from './unmet.ts';

interface Air {
  zenith: string;
  horizon: string;
  ground: string;
  /** Light from the sky, and thrown back by the ground. */
  above: string;
  below: string;
}

const airs: Record<Backdrop, Air> = airColours;

const far = 1900;

/** A dome about all that there is, its colour by the height above the horizon. */
function domeOf({ zenith, horizon }: Air): THREE.SphereGeometry {
  const dome = new THREE.SphereGeometry(far, 24, 24);
  const { count } = dome.attributes.position!;
  const colours = new Float32Array(3 * count);
  const [top, low] = [new THREE.Color(zenith), new THREE.Color(horizon)];
  const point = new THREE.Vector3();
  for (let i = 0; i < count; i++) {
    point.fromBufferAttribute(dome.attributes.position as THREE.BufferAttribute, i);
    const height = Math.max(0, point.z / far);
    low
      .clone()
      .lerp(top, Math.sqrt(height))
      .toArray(colours, 3 * i);
  }
  dome.setAttribute('color', new THREE.BufferAttribute(colours, 3));
  return dome;
}

export function BackdropOf({ bounds, floor, parallel }: { bounds: THREE.Box3; floor: number; parallel: boolean }) {
  const backdrop = useDisplay((state) => state.backdrop);
  const air = airs[backdrop];
  const dome = useMemo(() => domeOf(air), [air]);
  const reach = bounds.isEmpty() ? 20 : Math.max(20, bounds.getSize(new THREE.Vector3()).length());
  const { x, y } = bounds.isEmpty() ? { x: 0, y: 0 } : bounds.getCenter(new THREE.Vector3());
  return (
    <>
      <color attach="background" args={[air.horizon]} />
      {/* Seen in parallel all is as far as all else: there is no haze. */}
      {!parallel && <fog attach="fog" args={[air.horizon, reach * 3, reach * 16]} />}
      <hemisphereLight args={[air.above, air.below, 1.5]} />
      <mesh geometry={dome} position={[x, y, floor]} raycast={unmet}>
        <meshBasicMaterial vertexColors side={THREE.BackSide} fog={false} depthWrite={false} toneMapped={false} />
      </mesh>
      <mesh position={[x, y, floor - 0.012]} receiveShadow raycast={unmet}>
        <circleGeometry args={[far * 0.98, 64]} />
        <meshLambertMaterial color={air.ground} />
      </mesh>
    </>
  );
}
