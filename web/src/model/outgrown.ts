/** A model that grows out of view: told when an edit takes some of it there, not when somebody has gone near. */
import { useEffect, useRef, useState } from 'react';
import * as THREE from 'three';

/** Whether all of some points are seen by a camera. */
export function allInView(points: readonly THREE.Vector3[], camera: THREE.Camera): boolean {
  camera.updateMatrixWorld();
  const at = new THREE.Vector3();
  return points.every((point) => {
    at.copy(point).project(camera);
    return Math.abs(at.x) <= 1 && Math.abs(at.y) <= 1 && at.z <= 1;
  });
}

/** @param corners of the model, as an edit leaves them. @returns whether some of it is out of view since an edit, and what takes that back. */
export function useOutgrown(
  corners: readonly THREE.Vector3[],
  camera: () => THREE.Camera | null,
): [boolean, () => void] {
  const [out, setOut] = useState(false);
  const before = useRef(corners);
  useEffect(() => {
    const seen = camera();
    if (seen && before.current !== corners && corners.length > 0) {
      const whole = allInView(corners, seen);
      if (whole) setOut(false);
      else if (before.current.length > 0 && allInView(before.current, seen)) setOut(true);
    }
    before.current = corners;
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [corners]);
  return [out, () => setOut(false)];
}
