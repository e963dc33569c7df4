/** The cameras of the model view, and what moves them. */
import { OrthographicCamera, PerspectiveCamera, type OrbitControls } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect, useRef, type ComponentRef } from 'react';
import * as THREE from 'three';
import { useEditor } from '../state/state.ts';
import { rememberedView, type View } from './display.ts';
import { aimAt, type Stand } from './views.ts';

export type Controls = ComponentRef<typeof OrbitControls>;

/** What our cameras are called. */
const own = 'eye';

/** Moves the camera: to the whole model when it first appears, and to wherever it is sent. */
export function Director({
  controls,
  whole,
  ready,
  target,
  take,
  head,
}: {
  controls: React.RefObject<Controls | null>;
  whole: () => Stand;
  ready: boolean;
  /** Kept where it is looked. */
  target: THREE.Vector3;
  take: (fly: (stand: Stand) => void) => void;
  /** Pixels that are covered at the head of the view. */
  head: number;
}) {
  const { camera, invalidate, size } = useThree();
  const placed = useRef(false);
  /** What it was sent to last, until it is moved by hand: when the view becomes larger or smaller, that is what is to be seen in it still. */
  const last = useRef<Stand | null>(null);
  const fly = (stand: Stand) => {
    last.current = stand;
    const perspective = camera instanceof THREE.PerspectiveCamera;
    const { to, distance, scale } = aimAt(
      stand,
      size,
      perspective ? Math.tan((camera.fov * Math.PI) / 360) : null,
      head,
    );
    camera.position
      .copy(stand.from)
      .sub(stand.to)
      .setLength(perspective ? distance : 600)
      .add(to);
    if (camera instanceof THREE.OrthographicCamera) {
      camera.zoom = scale;
      camera.updateProjectionMatrix();
    }
    target.copy(to);
    controls.current?.target.copy(to);
    controls.current?.update();
    invalidate();
  };
  /** To where the project was looked at last. */
  const goBack = ({ from, to, zoom }: View): void => {
    camera.position.set(...from);
    if (camera instanceof THREE.OrthographicCamera) {
      camera.zoom = zoom;
      camera.updateProjectionMatrix();
    }
    target.set(...to);
    controls.current?.target.copy(target);
    controls.current?.update();
    invalidate();
  };
  useEffect(() => {
    take(fly);
    // The canvas begins with a camera of its own, which ours replace a moment later.
    if (!ready || placed.current || camera.name !== own) return;
    placed.current = true;
    const kept = rememberedView(useEditor.getState().project ?? '');
    if (kept) goBack(kept);
    else fly(whole());
  });
  useEffect(() => {
    if (last.current) fly(last.current);
    // Only another room for what is seen asks for it, not every drawing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [size.width, size.height, head]);
  useEffect(() => {
    const held = controls.current;
    const moved = (): void => {
      last.current = null;
    };
    held?.addEventListener('start', moved);
    return () => held?.removeEventListener('start', moved);
  });
  return null;
}

/** The camera in use. On a change from one to the other what is looked at stays as large as it is. */
export function Cameras({
  parallel,
  controls,
  target,
}: {
  parallel: boolean;
  controls: React.RefObject<Controls | null>;
  target: THREE.Vector3;
}) {
  const { size, invalidate } = useThree();
  const perspective = useRef<THREE.PerspectiveCamera>(null);
  const orthographic = useRef<THREE.OrthographicCamera>(null);
  const was = useRef(parallel);
  useEffect(() => {
    const [eye, flat] = [perspective.current, orthographic.current];
    if (was.current === parallel || !eye || !flat) return;
    was.current = parallel;
    const half = Math.tan((eye.fov * Math.PI) / 360);
    if (parallel) {
      const distance = eye.position.distanceTo(target);
      flat.position.copy(eye.position).sub(target).setLength(600).add(target);
      flat.zoom = size.height / (2 * half * distance);
      flat.updateProjectionMatrix();
      flat.lookAt(target);
    } else {
      eye.position
        .copy(flat.position)
        .sub(target)
        .setLength(size.height / (2 * half * flat.zoom))
        .add(target);
      eye.lookAt(target);
    }
    // The controls are made anew for the other camera, and look at the origin until they are told.
    controls.current?.target.copy(target);
    controls.current?.update();
    invalidate();
  }, [parallel, size.height, controls, target, invalidate]);
  return (
    <>
      <PerspectiveCamera
        ref={perspective}
        name={own}
        makeDefault={!parallel}
        fov={38}
        near={0.1}
        far={4000}
        up={[0, 0, 1]}
        position={[20, -40, 25]}
      />
      <OrthographicCamera
        ref={orthographic}
        name={own}
        makeDefault={parallel}
        near={0.1}
        far={4000}
        up={[0, 0, 1]}
        position={[200, -400, 250]}
      />
    </>
  );
}
