/** Grips on a chosen roof: its ridges are raised, its planes pitched, its eaves and verges drawn out. */
import { Html } from '@react-three/drei';
import { useFrame, useThree, type ThreeEvent } from '@react-three/fiber';
import { roofGripsOf, sheetsOf, type RoofGrip, type Vector } from '@yard-arch/core';
import { formatLength, type Element, type ProjectDocument, type Roof } from '@yard-arch/document';
import { drawnBy } from '@yard-arch/edit';
import { useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import type { Gesture, Spot } from '../boards/gesture.ts';
import { useGestures } from '../boards/use-gestures.ts';
import { colours } from '../colours.ts';
import { useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { unmet } from './unmet.ts';

interface GripsProps {
  document: ProjectDocument;
  element: Element | undefined;
  /** Told when a drag begins and ends, so that the view is not turned meanwhile. */
  hold: (held: boolean) => void;
}

/** More would hide the roof. */
const most = 48;

/** To what figures are rounded while they are drawn, and where nothing shall pull them. */
const steps = { coarse: { degrees: 0.5, metres: 0.01 }, fine: { degrees: 0.05, metres: 0.001 } };

export function RoofGrips({ document, element, hold }: GripsProps) {
  const drawn = useEditor((state) => state.drawn);
  const chosen = useEditor((state) => state.chosen);
  const edge = chosen.kind === 'edge' ? chosen.id : null;
  const shown = element?.kind === 'roof' && !element.locked && (chosen.kind === 'wall' || edge !== null);
  // As the edit that is just being made has it.
  const draft = useMemo(() => (drawn.size > 0 ? useEditor.getState().draft : null) ?? document, [drawn, document]);
  const grips = useMemo(() => {
    const body = shown ? sheetsOf(draft).body(element.id) : null;
    const all = body ? roofGripsOf(body) : [];
    return all.filter(({ targets }) => edge === null || targets.some((one) => one.edge === edge));
  }, [shown, draft, element, edge]);
  const along = useAlong();
  const [telling, setTelling] = useState<{ grip: RoofGrip; text: string } | null>(null);
  const { bind } = useGestures<RoofGrip>({
    press: (press, grip) =>
      press.middle || !element ? null : drawing({ roof: element.id, grip, press, along, tell: setTelling }),
    onGoing: (going) => {
      hold(going);
      if (!going) setTelling(null);
    },
  });
  const apart = useMemo(() => nearest(grips), [grips]);
  if (!shown || grips.length > most) return null;
  const down = (event: ThreeEvent<PointerEvent>, grip: RoofGrip): void => {
    // What lies behind something else cannot be taken hold of.
    if (event.button !== 0 || (grip.kind !== 'ridge' && event.intersections[0]?.object !== event.object)) return;
    event.stopPropagation();
    bind(grip).onPointerDown?.(event as unknown as React.PointerEvent);
  };
  return (
    <>
      {grips.map((grip, i) => (
        <Grip key={i} grip={grip} apart={apart} onDown={(event) => down(event, grip)} />
      ))}
      {telling && (
        <Html position={telling.grip.at as [number, number, number]} zIndexRange={[5, 0]} className="grip-figure">
          {telling.text}
        </Html>
      )}
    </>
  );
}

/** The least distance between grips, metres. */
function nearest(grips: readonly RoofGrip[]): number {
  let least = Infinity;
  grips.forEach(({ at: a }, i) => {
    for (const { at: b } of grips.slice(i + 1))
      least = Math.min(least, Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]));
  });
  return least;
}

/** No nearer to each other than so many pixels. */
const closest = 20;

/** Radii in pixels. */
const looks = {
  ridge: { size: 8, colour: colours.brick },
  pitch: { size: 6, colour: colours.ink },
  overhang: { size: 6, colour: colours.ink2 },
};

/** How many metres a pixel is at a place. */
function pixelAt(camera: THREE.Camera, at: THREE.Vector3, height: number): number {
  if (camera instanceof THREE.OrthographicCamera) return (camera.top - camera.bottom) / camera.zoom / height;
  const { fov } = camera as THREE.PerspectiveCamera;
  return (2 * camera.position.distanceTo(at) * Math.tan((fov * Math.PI) / 360)) / height;
}

/** A ball on a short line that shows which way it is drawn. */
function Grip({
  grip: { at, way, kind },
  apart,
  onDown,
}: {
  grip: RoofGrip;
  /** How near to each other grips are, metres. */
  apart: number;
  onDown: (event: ThreeEvent<PointerEvent>) => void;
}) {
  const { size, colour } = looks[kind];
  const turn = useMemo(
    () => new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 1, 0), new THREE.Vector3(...way).normalize()),
    [way],
  );
  const [over, setOver] = useState(false);
  const group = useRef<THREE.Group>(null);
  // As large wherever it is.
  useFrame(({ camera, size: { height } }) => {
    const own = group.current;
    if (!own) return;
    const pixel = pixelAt(camera, own.position, height);
    // Where they would lie on each other there are none.
    own.scale.setScalar(apart / pixel < closest ? 1e-9 : pixel);
  });
  return (
    <group ref={group} position={at as [number, number, number]} quaternion={turn}>
      <mesh
        renderOrder={10}
        onPointerDown={onDown}
        onClick={(event) => event.stopPropagation()}
        onPointerOver={() => {
          setOver(true);
          window.document.body.style.cursor = 'grab';
        }}
        onPointerOut={() => {
          setOver(false);
          window.document.body.style.cursor = '';
        }}
      >
        <sphereGeometry args={[over ? size * 1.25 : size, 20, 14]} />
        <meshBasicMaterial color={colour} depthTest={kind !== 'ridge'} transparent opacity={0.92} />
      </mesh>
      <mesh renderOrder={9} raycast={unmet}>
        <cylinderGeometry args={[size * 0.16, size * 0.16, size * 6, 8]} />
        <meshBasicMaterial color={colour} depthTest={kind !== 'ridge'} transparent opacity={0.6} />
      </mesh>
    </group>
  );
}

/** How far along a line one looks past it, in its own lengths. */
type Along = (at: Vector, way: Vector, spot: Pick<Spot, 'x' | 'y'>) => number;

function useAlong(): Along {
  const { camera, gl, raycaster } = useThree();
  return (at, way, { x, y }) => {
    const bounds = gl.domElement.getBoundingClientRect();
    raycaster.setFromCamera(
      new THREE.Vector2(((x - bounds.left) / bounds.width) * 2 - 1, 1 - ((y - bounds.top) / bounds.height) * 2),
      camera,
    );
    const { origin, direction } = raycaster.ray;
    const line = new THREE.Vector3(...way);
    const off = new THREE.Vector3(...at).sub(origin);
    // The nearest points of two lines: both differences are square to the line between them.
    const [a, b, d, e] = [line.dot(line), line.dot(direction), line.dot(off), direction.dot(off)];
    const flat = a - b * b;
    return Math.abs(flat) < 1e-6 ? 0 : (b * e - d) / flat;
  };
}

interface Drawing {
  roof: string;
  grip: RoofGrip;
  press: Spot;
  along: Along;
  tell: (said: { grip: RoofGrip; text: string }) => void;
}

function drawing({ roof: id, grip, press, along, tell }: Drawing): Gesture {
  const from = along(grip.at, grip.way, press);
  let by: { metres: number; free: boolean } | null = null;
  const made = () => {
    const { document } = useEditor.getState();
    const roof = document?.elements[id] as Roof | undefined;
    return roof && by ? drawnBy(roof, grip, by.metres, by.free ? steps.fine : steps.coarse) : null;
  };
  return {
    move: (spot) => {
      by = { metres: along(grip.at, grip.way, spot) - from, free: spot.free };
      const drawn = made();
      if (!drawn) return;
      preview(drawn.changeSet);
      const { units } = useEditor.getState().document!;
      const { figure } = drawn;
      tell({ grip, text: grip.kind === 'overhang' ? formatLength(figure, units) : `${Number(figure.toFixed(2))}°` });
    },
    drop: () => {
      const drawn = made();
      preview(null);
      if (drawn) commit(drawn.changeSet);
    },
    giveUp: () => preview(null),
  };
}
