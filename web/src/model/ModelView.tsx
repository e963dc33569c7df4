/** The model: what is cut, in three dimensions, beside the sheet and following it. */
import { OrbitControls } from '@react-three/drei';
import { Canvas, useFrame, useThree, type RootState, type ThreeEvent } from '@react-three/fiber';
import type { Element, ProjectDocument } from '@yard-arch/document';
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import * as THREE from 'three';
import { choose, chooseElement, chooseOpening, turnOver } from '../state/choice.ts';
import { post } from '../state/cutting.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { Apertures } from './Apertures.tsx';
import { BackdropOf } from './Backdrop.tsx';
import { Cameras, Director, type Controls } from './Cameras.tsx';
import { copyPicture } from './copy-picture.ts';
import { CutWall } from './CutWall.tsx';
import { rememberView, useDisplay, type Section } from './display.ts';
import { DisplayMenu, SectionBar, type ModelTools } from './DisplayMenu.tsx';
import { LeafGrips } from './LeafGrips.tsx';
import { ModelMenu } from './ModelMenu.tsx';
import { useOutgrown } from './outgrown.ts';
import { bySoftware, noteSoftware, Pace, type Drawing } from './Pace.tsx';
import { PromptObserver } from './prompt-observer.ts';
import { RoofGrips } from './RoofGrips.tsx';
import { SplitPlanes } from './SplitPlanes.tsx';
import { Sun } from './Sun.tsx';
import { aboveOf, chosenFrom, cornersIn, endOn, faceOn, sectionBefore, wholeOf, type Stand } from './views.ts';

THREE.Object3D.DEFAULT_UP.set(0, 0, 1);

/** How high the bar of the cutting plane is with the room about it, pixels. */
const sectionBar = 34;

/** How long what was shown first is left as it is where the processor draws it, and what an edit has made without its creases, ms. */
const settled = 700;
const resting = 350;

/** Says, unseen, how often what is shown has been cut: by itself, so that the view is not made anew for that. */
function Cuts() {
  return <data hidden data-testid="cuts" value={useEditor((state) => state.cuts)} />;
}

/** What the view is moved by and asked about, once it is there. */
interface Held {
  controls: RefObject<Controls | null>;
  canvas: RefObject<RootState | null>;
  /** Where it is looked. */
  target: { current: THREE.Vector3 };
}

export default function ModelView({ document }: { document: ProjectDocument }) {
  const count = useEditor((state) => state.drawn.size);
  const element = useEditor((state) => state.element);
  const { elements, datums } = document;
  // By what elements are made of alone: nothing is looked at or lit otherwise for an edit of openings or patterns.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const corners = useMemo(() => cornersIn(document, Object.values(elements)), [elements, datums]);
  const bounds = useMemo(() => new THREE.Box3().setFromPoints(corners), [corners]);
  const floor = Number.isFinite(bounds.min.z) ? bounds.min.z : 0;
  const go = useRef<(stand: Stand) => void>(() => {});
  const controls = useRef<Controls | null>(null);
  const canvas = useRef<RootState | null>(null);
  const [target] = useState(() => ({ current: new THREE.Vector3() }));
  const [drawing] = useState<Drawing>(() => ({ rough: false, still: null }));
  const parallel = useDisplay((state) => state.parallel);
  const section = useDisplay((state) => state.section);
  const hold = useCallback((held: boolean) => {
    if (controls.current) controls.current.enabled = !held;
  }, []);
  const clip = useMemo(() => section && clipOf(section), [section]);
  const [outgrown, forget] = useOutgrown(corners, () => controls.current?.object ?? null);
  const [lost, watch] = useLost();
  const held: Held = { controls, canvas, target };
  const wall = element ? document.elements[element] : undefined;
  const fly = (stand: Stand | null): void => {
    forget();
    if (stand) go.current(stand);
    keepView(held);
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
            watch(state);
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
          <Sun bounds={bounds} drawing={drawing} clip={clip} lost={lost} />
          <Walls document={document} clip={clip} />
          <Apertures clip={clip} onPick={pick} hold={hold} />
          <LeafGrips document={document} hold={hold} />
          <SplitPlanes document={document} element={wall} hold={hold} />
          <RoofGrips document={document} element={wall} hold={hold} />
          <Orbit held={held} onEnd={forget} />
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
          <Redraw on={[clip, parallel, lost]} />
        </Canvas>
      </ModelMenu>
      <canvas className="still" hidden aria-hidden ref={(still) => void (drawing.still = still)} />
      {lost && <Lost />}
      {outgrown && (
        <button className="outgrown" onClick={() => fly(wholeOf(corners))}>
          Some of it is out of view: show the whole
        </button>
      )}
      <DisplayMenu bounds={bounds} tools={toolsOf(document, wall, { held, corners, fly })} />
      <SectionBar bounds={bounds} units={document.units} />
    </div>
  );
}

function clipOf({ across, at, other }: Section): THREE.Plane {
  const way = new THREE.Vector3(across === 'x' ? 1 : 0, across === 'y' ? 1 : 0, across === 'z' ? 1 : 0);
  // Of a level cut what is below stays, of the others what lies beyond.
  const away = (across === 'z') !== other;
  return new THREE.Plane(away ? way.negate() : way, away ? at : -at);
}

/** Keeps for this project from where it is looked at. */
function keepView({ controls, target }: Held): void {
  const { project } = useEditor.getState();
  const eye = controls.current?.object;
  if (!project || !eye) return;
  const zoom = eye instanceof THREE.OrthographicCamera ? eye.zoom : 1;
  rememberView(project, { from: eye.position.toArray(), to: target.current.toArray(), zoom });
}

/** What the buttons under the view do. */
function toolsOf(
  document: ProjectDocument,
  wall: Element | undefined,
  { held, corners, fly }: { held: Held; corners: THREE.Vector3[]; fly: (stand: Stand | null) => void },
): ModelTools {
  const { controls, canvas } = held;
  const chosen = (): void => {
    if (!controls.current) return;
    const { object, target } = controls.current;
    fly(chosenFrom(document, wall, chosenIds(useEditor.getState().chosen), { now: object.position, target }));
  };
  const fromInside = (wall: Element): void => {
    const stand = faceOn(document, wall, 'inner');
    const before = canvas.current && sectionBefore(canvas.current.scene, stand);
    if (before) useDisplay.setState({ section: before });
    fly(stand);
  };
  return {
    whole: () => fly(wholeOf(corners)),
    chosen,
    outer: wall ? () => fly(faceOn(document, wall, 'outer')) : null,
    inner: wall ? () => fromInside(wall) : null,
    start: wall ? () => fly(endOn(document, wall, 'start')) : null,
    end: wall ? () => fly(endOn(document, wall, 'end')) : null,
    above: () => fly(aboveOf(corners)),
    copy: () => canvas.current && void copyPicture(canvas.current, document.name),
  };
}

/** Whether the graphics card has been taken away from the view, as when it is reset; it is drawn anew when it is back. */
function useLost(): [lost: boolean, watch: (state: RootState) => void] {
  const [lost, setLost] = useState(false);
  const watch = useCallback(({ gl, invalidate }: RootState): void => {
    gl.domElement.addEventListener('webglcontextlost', () => setLost(true));
    gl.domElement.addEventListener('webglcontextrestored', () => {
      setLost(false);
      invalidate();
    });
  }, []);
  return [lost, watch];
}

function Lost() {
  return (
    <div className="lost" role="status">
      The graphics card has been taken away from the model, as happens when it is reset. The model is drawn again when
      it is back; all else goes on. If it stays away, load the page again: nothing is lost.
    </div>
  );
}

/** What turns, shifts and draws near the model. */
function Orbit({ held, onEnd }: { held: Held; onEnd: () => void }) {
  const { controls, canvas, target } = held;
  const begun = useRef(false);
  return (
    <OrbitControls
      ref={controls}
      makeDefault
      enableDamping={false}
      maxPolarAngle={Math.PI * 0.53}
      minDistance={0.5}
      maxDistance={1500}
      onStart={() => void (begun.current = true)}
      onChange={() => {
        // What is under the pointer is not asked for while the model is turned by it.
        if (begun.current) canvas.current?.setEvents({ enabled: false });
        begun.current = false;
      }}
      onEnd={() => {
        begun.current = false;
        canvas.current?.setEvents({ enabled: true });
        onEnd();
        if (controls.current) target.current.copy(controls.current.target);
        keepView(held);
      }}
    />
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

/** Tells the worker when what lacks its creases has been drawn. */
function Told() {
  const drawn = useEditor((state) => state.drawn);
  const bare = useMemo(() => [...drawn.values()].some(({ creases }) => creases === null), [drawn]);
  const told = useRef<typeof drawn | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  // What was left is not told of.
  useEffect(() => () => clearTimeout(timer.current), []);
  useFrame(() => {
    if (!bare || told.current === drawn) return;
    // What comes of it is drawn anew: where that takes long, the model can be turned before; and while edits follow each other they are not held up by it.
    const lined = [...drawn.values()].some((cut) => cut.lined);
    const wait = lined ? resting : bySoftware() ? settled : 20;
    told.current = drawn;
    clearTimeout(timer.current);
    timer.current = setTimeout(() => post({ kind: 'drawn' }), wait);
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
