/** The model: what is cut, in three dimensions, beside the sheet and following it. */
import { OrbitControls } from '@react-three/drei';
import { Canvas, useThree, type ThreeEvent } from '@react-three/fiber';
import { directionsAt, pointAt, resolveOpening, sheetOf } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { useEffect, useMemo, useRef, type ComponentRef } from 'react';
import * as THREE from 'three';
import { choose, chooseElement, chooseOpening, chosenIds, useEditor } from '../editor/store.ts';
import { CutWall } from './CutWall.tsx';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

type Controls = ComponentRef<typeof OrbitControls>;

/** Where to look from: towards the scene's centre, metres. */
interface Stand {
  from: THREE.Vector3;
  to: THREE.Vector3;
  /** What must be in view about `to`, width and height; the distance is chosen so that it is. */
  frame?: [number, number];
}

export default function ModelView({ document }: { document: ProjectDocument }) {
  const shown = useEditor((state) => state.draft ?? state.document) ?? document;
  const drawn = useEditor((state) => state.drawn);
  const element = useEditor((state) => state.element);
  const hidden = useEditor((state) => state.hidden);
  const controls = useRef<Controls | null>(null);
  const bounds = useMemo(() => boundsOf(document), [document]);
  const floor = Number.isFinite(bounds.min.z) ? bounds.min.z : 0;
  const go = useRef<(stand: Stand) => void>(() => {});

  const whole = (): Stand => {
    const centre = bounds.getCenter(new THREE.Vector3());
    const size = Math.max(4, bounds.getSize(new THREE.Vector3()).length());
    return { to: centre, from: centre.clone().add(new THREE.Vector3(0.34, -0.78, 0.42).normalize().multiplyScalar(size * 1.32)) };
  };
  const faceOn = (): Stand | null => {
    const wall = element ? document.elements[element] : undefined;
    if (!wall) return null;
    const { chart, length, height } = sheetOf(wall);
    const { inward } = directionsAt(chart, length / 2);
    const middle = new THREE.Vector3(...pointAt(chart, length / 2, height / 2, 0));
    return { to: middle, from: middle.clone().addScaledVector(new THREE.Vector3(...inward), -1), frame: [length, height] };
  };

  return (
    <div data-testid="model" data-elements={drawn.size} style={{ position: 'absolute', inset: 0 }}>
      <Canvas
        frameloop="demand"
        shadows
        dpr={[1, 2]}
        camera={{ fov: 38, near: 0.1, far: 4000, up: [0, 0, 1], position: [20, -40, 25] }}
        gl={{ antialias: true, powerPreference: 'high-performance' }}
        onPointerMissed={() => choose({ kind: 'wall' })}
        role="application"
        aria-label="Model of the project. Drag to orbit, right drag to pan, wheel to zoom; click a wall or an opening to choose it."
      >
        <color attach="background" args={['#e3e9e5']} />
        <hemisphereLight args={['#ffffff', '#b8a98d', 1.5]} />
        <Sun bounds={bounds} />
        <mesh position={[0, 0, floor - 0.012]} receiveShadow raycast={() => null}>
          <planeGeometry args={[2000, 2000]} />
          <meshStandardMaterial color="#d3c8b2" roughness={1} />
        </mesh>
        {[...drawn.values()].map((cut) => shown.elements[cut.element] && !hidden.has(cut.element) && <CutWall key={cut.element} cut={cut} document={shown} chosen={cut.element === element} onPick={pick} />)}
        <Apertures document={shown} />
        <OrbitControls ref={controls} makeDefault enableDamping={false} maxPolarAngle={Math.PI * 0.53} minDistance={0.5} maxDistance={1500} />
        <Director controls={controls} whole={whole} ready={drawn.size > 0} take={(fly) => (go.current = fly)} />
        <Redraw on={[drawn, shown, element, hidden]} />
      </Canvas>
      <div className="tools">
        <button onClick={() => go.current(whole())} title="Show the whole model">
          Whole
        </button>
        <button
          disabled={!element}
          onClick={() => {
            const stand = faceOn();
            if (stand) go.current(stand);
          }}
          title="Look square at the chosen wall"
        >
          Face on
        </button>
      </div>
    </div>
  );
}

/** Chooses what was clicked: the opening whose reveal it is, or the wall. A drag that ends on something chooses nothing. */
function pick(event: ThreeEvent<MouseEvent>, element: string, opening: string | null): void {
  if (event.delta > 4) return;
  event.stopPropagation();
  if (opening) return chooseOpening(opening, event.nativeEvent.shiftKey);
  chooseElement(element);
  choose({ kind: 'wall' });
}

function boundsOf(document: ProjectDocument): THREE.Box3 {
  const box = new THREE.Box3();
  for (const wall of Object.values(document.elements)) {
    const { chart, outline, height, thickness } = sheetOf(wall);
    // A bent wall's own ribs tell how far it reaches.
    const alongs = chart.kind === 'bent' ? [...chart.s] : [Math.min(...outline.xs), Math.max(...outline.xs)];
    const ups = [Math.min(0, ...outline.ys), height];
    for (const s of alongs) for (const t of ups) for (const n of [0, thickness]) box.expandByPoint(new THREE.Vector3(...pointAt(chart, s, t, n)));
  }
  return box;
}

function Sun({ bounds }: { bounds: THREE.Box3 }) {
  const light = useRef<THREE.DirectionalLight>(null);
  const empty = bounds.isEmpty();
  const centre = empty ? new THREE.Vector3() : bounds.getCenter(new THREE.Vector3());
  const reach = empty ? 10 : bounds.getSize(new THREE.Vector3()).length() / 2 + 2;
  useEffect(() => {
    const sun = light.current;
    if (!sun) return;
    sun.target.position.copy(centre);
    sun.target.updateMatrixWorld();
    Object.assign(sun.shadow.camera, { left: -reach, right: reach, top: reach, bottom: -reach, near: 0.1, far: reach * 6 });
    sun.shadow.camera.updateProjectionMatrix();
    sun.shadow.needsUpdate = true;
  });
  return (
    <directionalLight
      ref={light}
      castShadow
      intensity={2.6}
      color="#fff4e2"
      position={[centre.x + reach * 1.1, centre.y - reach * 1.9, centre.z + reach * 1.9]}
      shadow-mapSize={[2048, 2048]}
      shadow-bias={-0.0004}
      shadow-normalBias={0.03}
    />
  );
}

/** Panes that stand in the openings: unseen, so that the model can be seen through, but there to be clicked; the chosen one is tinted. */
function Apertures({ document }: { document: ProjectDocument }) {
  const chosen = useEditor((state) => state.chosen);
  const panes = useMemo(
    () =>
      Object.values(document.openings).flatMap((opening) => {
        const wall = document.elements[opening.element];
        const resolved = resolveOpening(document, opening);
        if (!wall || !('outline' in resolved)) return [];
        const { chart, thickness } = sheetOf(wall);
        const { outline, profile } = resolved;
        const middle = resolved.s + profile.width / 2;
        const { along, up, inward } = directionsAt(chart, middle);
        const path = (first: number): THREE.Vector2[] => {
          const points: THREE.Vector2[] = [];
          let v = first;
          do {
            points.push(new THREE.Vector2(outline.xs[v]! - profile.width / 2, outline.ys[v]!));
            v = outline.next[v]!;
          } while (v !== first);
          return points;
        };
        const shapes = outline.loops.map((first) => new THREE.Shape(path(first))).filter((shape) => !THREE.ShapeUtils.isClockWise(shape.getPoints(1)));
        const matrix = new THREE.Matrix4().makeBasis(new THREE.Vector3(...along), new THREE.Vector3(...up), new THREE.Vector3(...inward).negate());
        const n = opening.blockedUp || resolved.kind === 'imprint' ? -0.004 : resolved.kind === 'boss' ? -resolved.depth : Math.min(resolved.depth, thickness) / 2;
        matrix.setPosition(new THREE.Vector3(...pointAt(chart, middle, resolved.t, n)));
        return [{ id: opening.id, element: wall.id, geometry: new THREE.ShapeGeometry(shapes), matrix, blockedUp: opening.blockedUp }];
      }),
    [document],
  );
  useEffect(() => () => panes.forEach((pane) => pane.geometry.dispose()), [panes]);
  return (
    <>
      {panes.map(({ id, element, geometry, matrix, blockedUp }) => {
        const lit = chosenIds(chosen).includes(id);
        return (
          <mesh key={id} geometry={geometry} matrix={matrix} matrixAutoUpdate={false} onClick={(event) => pick(event, element, id)} renderOrder={2}>
            <meshBasicMaterial
              side={THREE.DoubleSide}
              transparent
              depthWrite={false}
              color={lit ? '#b0442b' : '#8a7c66'}
              opacity={lit ? 0.55 : blockedUp ? 0.28 : 0}
            />
          </mesh>
        );
      })}
    </>
  );
}

/** Moves the camera: to the whole model when it first appears, and to wherever it is sent. */
function Director({
  controls,
  whole,
  ready,
  take,
}: {
  controls: React.RefObject<Controls | null>;
  whole: () => Stand;
  ready: boolean;
  take: (fly: (stand: Stand) => void) => void;
}) {
  const { camera, invalidate } = useThree();
  const placed = useRef(false);
  const fly = ({ from, to, frame }: Stand) => {
    camera.position.copy(from);
    if (frame && camera instanceof THREE.PerspectiveCamera) {
      const half = Math.tan((camera.fov * Math.PI) / 360);
      const distance = 1.12 * Math.max(frame[1] / (2 * half), frame[0] / (2 * half * camera.aspect));
      camera.position.sub(to).setLength(distance).add(to);
    }
    controls.current?.target.copy(to);
    controls.current?.update();
    invalidate();
  };
  useEffect(() => {
    take(fly);
    if (!ready || placed.current) return;
    placed.current = true;
    fly(whole());
  });
  return null;
}

/** Asks for a new frame when what is shown changes. */
function Redraw({ on }: { on: unknown[] }) {
  const { invalidate } = useThree();
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useEffect(() => invalidate(), on);
  return null;
}
