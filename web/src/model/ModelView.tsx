/** The model: what is cut, in three dimensions, beside the sheet and following it. */
import { modelColours } from '../colours.ts';
import { OrbitControls, OrthographicCamera, PerspectiveCamera } from '@react-three/drei';
import { Canvas, useFrame, useThree, type RootState, type ThreeEvent } from '@react-three/fiber';
import type { ProjectDocument } from '@yard-arch/document';
import { useCallback, useEffect, useMemo, useRef, useState, type ComponentRef } from 'react';
import * as THREE from 'three';
import { choose, chooseElement, chooseOpening, turnOver } from '../state/choice.ts';
import { ModelMenu } from './ModelMenu.tsx';
import { post } from '../state/cutting.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { complain, notify } from '../common/notices.tsx';
import { Apertures } from './Apertures.tsx';
import { LeafGrips } from './LeafGrips.tsx';
import { RoofGrips } from './RoofGrips.tsx';
import { SplitPlanes } from './SplitPlanes.tsx';
import { CutWall } from './CutWall.tsx';
import { rememberedView, rememberView, useDisplay, type View } from './display.ts';
import { BackdropOf } from './Backdrop.tsx';
import { bySoftware, fine, noteSoftware, Pace, type Drawing } from './Pace.tsx';
import { DisplayMenu, SectionBar } from './DisplayMenu.tsx';
import { aboveOf, aimAt, chosenFrom, cornersIn, endOn, faceOn, sectionBefore, wholeOf, type Stand } from './views.ts';
import { useOutgrown } from './outgrown.ts';
import { PromptObserver } from './prompt-observer.ts';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

type Controls = ComponentRef<typeof OrbitControls>;

/** How high the bar of the cutting plane is with the room about it, pixels. */
const sectionBar = 34;

/** How long what was shown first is left as it is where the processor draws it, ms. */
const settled = 700;

/** What our cameras are called. */
const own = 'eye';

/** Says, unseen, how often what is shown has been cut: by itself, so that the view is not made anew for that. */
function Cuts() {
  return <data hidden data-testid="cuts" value={useEditor((state) => state.cuts)} />;
}

export default function ModelView({ document }: { document: ProjectDocument }) {
  const count = useEditor((state) => state.drawn.size);
  const element = useEditor((state) => state.element);
  const controls = useRef<Controls | null>(null);
  const { elements, datums } = document;
  // By what elements are made of alone: nothing is looked at or lit otherwise for an edit of openings or patterns.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const corners = useMemo(() => cornersIn(document, Object.values(elements)), [elements, datums]);
  const bounds = useMemo(() => new THREE.Box3().setFromPoints(corners), [corners]);
  const floor = Number.isFinite(bounds.min.z) ? bounds.min.z : 0;
  const go = useRef<(stand: Stand) => void>(() => {});
  const canvas = useRef<RootState | null>(null);
  const held = useRef(false);
  const [target] = useState(() => ({ current: new THREE.Vector3() }));
  const [drawing] = useState<Drawing>(() => ({ rough: false, still: null }));
  const parallel = useDisplay((state) => state.parallel);
  const section = useDisplay((state) => state.section);
  const hold = useCallback((held: boolean) => {
    if (controls.current) controls.current.enabled = !held;
  }, []);

  const clip = useMemo(() => {
    if (!section) return null;
    const way = new THREE.Vector3(
      section.across === 'x' ? 1 : 0,
      section.across === 'y' ? 1 : 0,
      section.across === 'z' ? 1 : 0,
    );
    // Of a level cut what is below stays, of the others what lies beyond.
    const away = (section.across === 'z') !== section.other;
    return new THREE.Plane(away ? way.negate() : way, away ? section.at : -section.at);
  }, [section]);
  const [outgrown, forget] = useOutgrown(corners, () => controls.current?.object ?? null);
  const keep = (): void => {
    const { project } = useEditor.getState();
    const eye = controls.current?.object;
    if (!project || !eye) return;
    const zoom = eye instanceof THREE.OrthographicCamera ? eye.zoom : 1;
    rememberView(project, { from: eye.position.toArray(), to: target.current.toArray(), zoom });
  };
  const wall = element ? document.elements[element] : undefined;
  const fly = (stand: Stand | null): void => {
    forget();
    if (stand) go.current(stand);
    keep();
  };

  return (
    <div data-testid="model" data-elements={count} style={{ position: 'absolute', inset: 0 }}>
      <Cuts />
      <ModelMenu>
        <Canvas
          frameloop="demand"
          resize={{ polyfill: PromptObserver, debounce: 0 }}
          shadows="percentage"
          onCreated={(state) => {
            state.gl.localClippingEnabled = true;
            state.gl.debug.checkShaderErrors = false;
            noteSoftware(state.gl.getContext());
            canvas.current = state;
          }}
          dpr={[1, 2]}
          gl={{ antialias: !bySoftware(), powerPreference: 'high-performance' }}
          onPointerMissed={() => choose({ kind: 'wall' })}
          role="application"
          aria-label="Model of the project. Drag to orbit, right drag to pan, wheel to zoom; click a wall or an opening to choose it."
        >
          <BackdropOf bounds={bounds} floor={floor} parallel={parallel} />
          <Pace drawing={drawing} />
          <Sun bounds={bounds} drawing={drawing} clip={clip} />
          <Walls document={document} clip={clip} />
          <Apertures clip={clip} onPick={pick} hold={hold} />
          <LeafGrips document={document} hold={hold} />
          <SplitPlanes document={document} element={wall} hold={hold} />
          <RoofGrips document={document} element={wall} hold={hold} />
          <OrbitControls
            ref={controls}
            makeDefault
            enableDamping={false}
            maxPolarAngle={Math.PI * 0.53}
            minDistance={0.5}
            maxDistance={1500}
            onStart={() => void (held.current = true)}
            onChange={() => {
              // What is under the pointer is not asked for while the model is turned by it.
              if (held.current) canvas.current?.setEvents({ enabled: false });
              held.current = false;
            }}
            onEnd={() => {
              held.current = false;
              canvas.current?.setEvents({ enabled: true });
              forget();
              if (controls.current) target.current.copy(controls.current.target);
              keep();
            }}
          />
          <Cameras parallel={parallel} controls={controls} target={target.current} />
          <Director
            controls={controls}
            whole={() => wholeOf(corners)}
            ready={count > 0}
            target={target.current}
            take={(fly) => (go.current = fly)}
            head={section ? sectionBar : 0}
          />
          <Told />
          <Redraw on={[clip, parallel]} />
        </Canvas>
      </ModelMenu>
      <canvas className="still" hidden aria-hidden ref={(still) => void (drawing.still = still)} />
      {outgrown && (
        <button className="outgrown" onClick={() => fly(wholeOf(corners))}>
          Some of it is out of view: show the whole
        </button>
      )}
      <DisplayMenu
        bounds={bounds}
        tools={{
          whole: () => fly(wholeOf(corners)),
          chosen: () =>
            controls.current &&
            fly(
              chosenFrom(document, wall, chosenIds(useEditor.getState().chosen), {
                now: controls.current.object.position,
                target: controls.current.target,
              }),
            ),
          outer: wall ? () => fly(faceOn(document, wall, 'outer')) : null,
          inner: wall
            ? () => {
                const stand = faceOn(document, wall, 'inner');
                const before = canvas.current && sectionBefore(canvas.current.scene, stand);
                if (before) useDisplay.setState({ section: before });
                fly(stand);
              }
            : null,
          start: wall ? () => fly(endOn(document, wall, 'start')) : null,
          end: wall ? () => fly(endOn(document, wall, 'end')) : null,
          above: () => fly(aboveOf(corners)),
          copy: () => canvas.current && void copyPicture(canvas.current, document.name),
        }}
      />
      <SectionBar bounds={bounds} units={document.units} />
    </div>
  );
}

/** Chooses what was clicked: the opening whose reveal it is, or the wall. A drag that ends on something chooses nothing. */
function pick(event: ThreeEvent<MouseEvent>, element: string, opening: string | null, face?: string): void {
  if (event.delta > 4) return;
  event.stopPropagation();
  // What is among the chosen stays so when its menu is asked for.
  if (event.nativeEvent.button === 2 && opening && chosenIds(useEditor.getState().chosen).includes(opening)) return;
  if (opening) return chooseOpening(opening, event.nativeEvent.shiftKey);
  chooseElement(element);
  if (face !== undefined) turnOver(element, face);
  choose({ kind: 'wall' });
}

/** The light that casts shadows. They are cast anew only when what casts them changes, not as one looks round. */
function Sun({ bounds, drawing, clip }: { bounds: THREE.Box3; drawing: Drawing; clip: THREE.Plane | null }) {
  const light = useRef<THREE.DirectionalLight>(null);
  const drawn = useEditor((state) => state.drawn);
  const hidden = useEditor((state) => state.hidden);
  const show = useDisplay((state) => state.show);
  const stale = useRef(false);
  const cast = useRef(false);
  useEffect(() => {
    if (drawn.size > 0) stale.current = true;
  }, [bounds, drawn, hidden, show, clip]);
  useFrame(() => {
    // The first time the model is there to be seen sooner without them, where that takes long.
    if (!stale.current || !light.current || (drawing.rough && !cast.current)) return;
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

/** Moves the camera: to the whole model when it first appears, and to wherever it is sent. */
function Director({
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
function Cameras({
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

/** Puts the view on the clipboard as a picture, or where that is not allowed into a file. */
async function copyPicture({ gl, scene, get }: RootState, name: string): Promise<void> {
  if (bySoftware()) gl.setPixelRatio(fine);
  gl.render(scene, get().camera);
  const picture = await new Promise<Blob | null>((done) => gl.domElement.toBlob(done, 'image/png'));
  if (!picture)
    return complain(
      'The view could not be copied',
      'The browser gave no picture of it. Try again, or enlarge the model first.',
    );
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
    notify('The view is on the clipboard, as PNG');
  } catch {
    const link = window.document.createElement('a');
    link.href = URL.createObjectURL(picture);
    link.download = `${name}.png`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
    notify('The clipboard was not to be had; the view is saved as a PNG file');
  }
}

/** All walls that are shown, as they are cut. */
function Walls({ document, clip }: { document: ProjectDocument; clip: THREE.Plane | null }) {
  const drawn = useEditor((state) => state.drawn);
  const element = useEditor((state) => state.element);
  const hidden = useEditor((state) => state.hidden);
  const show = useDisplay((state) => state.show);
  return [...drawn.values()].map(
    (cut) =>
      document.elements[cut.element] &&
      !hidden.has(cut.element) && (
        <CutWall
          key={cut.element}
          cut={cut}
          materials={document.materials}
          assets={document.assets}
          chosen={cut.element === element}
          show={show}
          clip={clip}
          onPick={pick}
        />
      ),
  );
}

/** Tells the worker when the model has been drawn for the first time. */
function Told() {
  const there = useEditor((state) => state.drawn.size > 0);
  const told = useRef<ReturnType<typeof setTimeout> | null>(null);
  // What was left is not told of.
  useEffect(() => () => clearTimeout(told.current ?? undefined), []);
  useFrame(() => {
    if (!there || told.current !== null) return;
    // Once it is drawn. What comes of it is drawn anew: where that takes long, the model can be turned before.
    told.current = setTimeout(() => post({ kind: 'drawn' }), bySoftware() ? settled : 20);
  });
  return null;
}

/** Asks for a new frame when what is shown changes. */
function Redraw({ on }: { on: unknown[] }) {
  const { invalidate } = useThree();
  const drawn = useEditor((state) => state.drawn);
  // Of the document only what is seen otherwise without anything being cut anew.
  const materials = useEditor((state) => state.document?.materials);
  const assets = useEditor((state) => state.document?.assets);
  const element = useEditor((state) => state.element);
  const chosen = useEditor((state) => state.chosen);
  const hidden = useEditor((state) => state.hidden);
  const display = useDisplay();
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useEffect(() => invalidate(), [...on, drawn, materials, assets, element, chosen, hidden, display]);
  return null;
}
