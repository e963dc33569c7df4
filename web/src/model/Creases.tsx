/** Edges in ink, or in brick where what they bound is chosen. */
import { colours } from '../colours.ts';
import type * as THREE from 'three';
import type { Show } from './display.ts';
import { unmet } from './unmet.ts';

interface CreasesProps {
  geometry: THREE.BufferGeometry;
  chosen: boolean;
  show: Show;
  clip: THREE.Plane | null;
}

export function Creases({ geometry, chosen, show, clip }: CreasesProps) {
  if ((show === 'plain' || show === 'clay') && !chosen) return null;
  return (
    <lineSegments geometry={geometry} raycast={unmet}>
      <lineBasicMaterial
        color={chosen ? colours.brick : colours.ink}
        transparent
        opacity={chosen ? 0.95 : 0.55}
        clippingPlanes={clip ? [clip] : null}
      />
    </lineSegments>
  );
}
