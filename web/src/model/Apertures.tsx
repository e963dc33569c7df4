/** Panes that stand in the openings: unseen, so that the model can be seen through, but there to be clicked and dragged along their wall; the chosen ones are tinted. */
import { useThree, type ThreeEvent } from '@react-three/fiber';
import {
  directionsAt,
  pointAt,
  resolveOpening,
  sheetsOf,
  sightOn,
  snap,
  type Outline,
  type Vector,
} from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { moveAll, openingsOf } from '@yard-arch/edit';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { chooseOpening } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { linesOf, onElement } from '../boards/sheet-data.ts';
import { isAway } from './surfaces.ts';
import { useDisplay } from './display.ts';

interface ApertureProps {
  /** A plane beyond which nothing is shown. */
  clip: THREE.Plane | null;
  document: ProjectDocument;
  onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string) => void;
  /** Told when a drag begins and ends, so that the view is not turned meanwhile. */
  hold: (held: boolean) => void;
}

export function Apertures({ document, clip, onPick, hold }: ApertureProps) {
  // Only what is chosen is shown as the edit that is just being made has it, and anew with each cut, so that the model is drawn once for both.
  const drawn = useEditor((state) => state.drawn);
  const draft = useMemo(() => (drawn.size > 0 ? useEditor.getState().draft : null) ?? document, [drawn, document]);
  const chosen = useEditor((state) => state.chosen);
  const hidden = useEditor((state) => state.hidden);
  const cutters = useDisplay((state) => state.cutters);
  const drag = useDrag(hold);
  const panes = useMemo(() => panesOf(document).filter(({ element }) => !hidden.has(element)), [document, hidden]);
  const ids = chosenIds(chosen);
  // Nothing of it is seen, so it is made when something is first pointed at.
  const all = useMemo(() => onDemand(() => merged(panes, false)), [panes]);
  const blocked = useMemo(
    () =>
      merged(
        panes.filter(({ blockedUp }) => blockedUp),
        false,
      ),
    [panes],
  );
  const lit = useMemo(
    () =>
      merged(
        panesOf(draft, ids).filter(({ element }) => !hidden.has(element)),
        false,
      ),
    [draft, ids, hidden],
  );
  const solids = useMemo(() => (cutters ? merged(panes, true) : null), [panes, cutters]);
  useEffect(() => all.dispose, [all]);
  useDisposed(blocked);
  useDisposed(lit);
  useDisposed(solids);
  const planes = clip ? [clip] : null;
  /** The pane that a ray met. */
  const met = (event: ThreeEvent<MouseEvent>): Pane | undefined =>
    isAway(clip, event) ? undefined : panes[all.get().userData.paneOf[event.faceIndex ?? -1]!];
  return (
    <>
      <mesh
        visible={false}
        raycast={function (this: THREE.Mesh, ...ray) {
          this.geometry = all.get();
          THREE.Mesh.prototype.raycast.apply(this, ray);
        }}
        onClick={(event) => {
          const pane = met(event);
          if (pane) onPick(event, pane.element, pane.id);
        }}
        onPointerUp={(event) => {
          const pane = event.button === 2 ? met(event) : undefined;
          if (pane) onPick(event, pane.element, pane.id);
        }}
        onPointerDown={(event) => {
          const pane = met(event);
          if (pane) drag(event, pane.id);
        }}
      >
        <meshBasicMaterial side={THREE.DoubleSide} />
      </mesh>
      <mesh geometry={blocked} raycast={() => null} renderOrder={2}>
        <meshBasicMaterial
          side={THREE.DoubleSide}
          transparent
          depthWrite={false}
          color="#8a7c66"
          opacity={0.28}
          clippingPlanes={planes}
        />
      </mesh>
      <mesh geometry={lit} raycast={() => null} renderOrder={2}>
        <meshBasicMaterial
          side={THREE.DoubleSide}
          transparent
          depthWrite={false}
          color="#b0442b"
          opacity={0.55}
          clippingPlanes={planes}
        />
      </mesh>
      {solids && (
        <mesh geometry={solids} raycast={() => null} renderOrder={3}>
          <meshBasicMaterial transparent depthWrite={false} color="#5b6670" opacity={0.25} clippingPlanes={planes} />
        </mesh>
      )}
    </>
  );
}

/** A geometry that is made when it is first asked for. */
function onDemand<G extends THREE.BufferGeometry>(make: () => G): { get: () => G; dispose: () => void } {
  let made: G | null = null;
  return { get: () => (made ??= make()), dispose: () => made?.dispose() };
}

function useDisposed(geometry: THREE.BufferGeometry | null): void {
  useEffect(() => () => geometry?.dispose(), [geometry]);
}

/** An opening's outline in its place in space. */
interface Pane {
  id: string;
  element: string;
  outline: Outline;
  /** From metres of the outline, and outward, to space. */
  matrix: THREE.Matrix4;
  /** How far the outer face lies before the pane, and how deep is cut from there. */
  before: number;
  depth: number;
  blockedUp: boolean;
}

function panesOf(document: ProjectDocument, ids: readonly string[] = Object.keys(document.openings)): Pane[] {
  return openingsOf(document, ids).flatMap((opening) => {
    const wall = document.elements[opening.element];
    const resolved = resolveOpening(document, opening);
    if (!wall || !('outline' in resolved)) return [];
    const { chart, thickness } = sheetsOf(document).on(wall.id, opening.face)!;
    const { outline, profile, s, t, kind, depth } = resolved;
    const middle = s + profile.width / 2;
    const { along, up, inward } = directionsAt(chart, middle);
    const before =
      opening.blockedUp || kind === 'imprint' ? -0.004 : kind === 'boss' ? -depth : Math.min(depth, thickness) / 2;
    const matrix = new THREE.Matrix4().makeBasis(
      new THREE.Vector3(...along),
      new THREE.Vector3(...up),
      new THREE.Vector3(...inward).negate(),
    );
    matrix.setPosition(
      new THREE.Vector3(...pointAt(chart, middle, t, before)).addScaledVector(
        new THREE.Vector3(...along),
        -profile.width / 2,
      ),
    );
    return [{ id: opening.id, element: wall.id, outline, matrix, before, depth, blockedUp: opening.blockedUp }];
  });
}

const flat = new WeakMap<Outline, THREE.ShapeGeometry>();
/** An outline's triangles in its own plane; most openings share theirs with others. */
function triangles(outline: Outline): THREE.ShapeGeometry {
  let known = flat.get(outline);
  if (!known) flat.set(outline, (known = new THREE.ShapeGeometry(shapesOf(outline))));
  return known;
}

function shapesOf(outline: Outline): THREE.Shape[] {
  return outline.loops
    .map((first) => {
      const points: THREE.Vector2[] = [];
      let v = first;
      do {
        points.push(new THREE.Vector2(outline.xs[v]!, outline.ys[v]!));
        v = outline.next[v]!;
      } while (v !== first);
      return new THREE.Shape(points);
    })
    .filter((shape) => !THREE.ShapeUtils.isClockWise(shape.getPoints(1)));
}

type Merged = THREE.BufferGeometry & { userData: { paneOf: Uint32Array } };

/** Panes as one geometry, or the solids that are taken out, a little longer than they cut; for each triangle it knows which pane it is of. */
function merged(panes: readonly Pane[], solid: boolean): Merged {
  const parts = panes.map((pane) => {
    if (!solid) return triangles(pane.outline);
    const deep = pane.depth + 0.3;
    return new THREE.ExtrudeGeometry(shapesOf(pane.outline), { depth: deep, bevelEnabled: false }).translate(
      0,
      0,
      pane.before + 0.15 - deep,
    );
  });
  const indexOf = (part: THREE.BufferGeometry, i: number): number => part.index?.getX(i) ?? i;
  const corners = (part: THREE.BufferGeometry): number => part.index?.count ?? part.attributes.position!.count;
  const [points, triangleCorners] = [
    parts.reduce((sum, part) => sum + part.attributes.position!.count, 0),
    parts.reduce((sum, part) => sum + corners(part), 0),
  ];
  const positions = new Float32Array(3 * points);
  const index = new Uint32Array(triangleCorners);
  const paneOf = new Uint32Array(triangleCorners / 3);
  const at = new THREE.Vector3();
  let [p, c] = [0, 0];
  parts.forEach((part, k) => {
    const position = part.attributes.position!;
    for (let i = 0; i < corners(part); i++) {
      if (i % 3 === 0) paneOf[c / 3] = k;
      index[c++] = p + indexOf(part, i);
    }
    for (let i = 0; i < position.count; i++)
      at.fromBufferAttribute(position, i)
        .applyMatrix4(panes[k]!.matrix)
        .toArray(positions, 3 * p++);
    if (solid) part.dispose();
  });
  const geometry = new THREE.BufferGeometry() as Merged;
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setIndex(new THREE.BufferAttribute(index, 1));
  geometry.userData.paneOf = paneOf;
  return geometry;
}

/** Slides an opening, or all that are chosen with it, along its own wall's face: square and level, whatever the wall's course. */
function useDrag(hold: (held: boolean) => void): (event: ThreeEvent<PointerEvent>, id: string) => void {
  const { camera, gl, raycaster } = useThree();
  const end = useRef<(() => void) | null>(null);
  useEffect(() => () => end.current?.(), []);
  return (event, id) => {
    const { document, chosen } = useEditor.getState();
    const opening = document?.openings[id];
    const element = opening && document.elements[opening.element];
    if (!document || !element || event.button !== 0 || event.nativeEvent.shiftKey) return;
    event.stopPropagation();
    const { chart } = sheetsOf(document).on(element.id, opening.face)!;
    const sight = (x: number, y: number): { s: number; t: number } | null => {
      const bounds = gl.domElement.getBoundingClientRect();
      raycaster.setFromCamera(
        new THREE.Vector2(((x - bounds.left) / bounds.width) * 2 - 1, 1 - ((y - bounds.top) / bounds.height) * 2),
        camera,
      );
      const { origin, direction } = raycaster.ray;
      return sightOn(chart, origin.toArray() as unknown as Vector, direction.toArray() as unknown as Vector);
    };
    const began = sight(event.clientX, event.clientY);
    if (!began) return;
    const several = chosenIds(chosen);
    const ids = several.includes(id) ? several : [id];
    const openings = openingsOf(document, ids);
    const shown = onElement(document, element, opening.face ?? 'outer', null);
    const box = shown.boxes.find((other) => other.id === id);
    if (!box) return;
    const others = shown.boxes.filter((other) => !ids.includes(other.id));
    const lines = linesOf(document, element, opening.face ?? 'outer');
    let by: [number, number] | null = null;
    let moved = false;
    const [x0, y0] = [event.clientX, event.clientY];
    hold(true);
    const move = (now: PointerEvent): void => {
      if (!moved && Math.hypot(now.clientX - x0, now.clientY - y0) < 5) return;
      moved = true;
      const at = sight(now.clientX, now.clientY);
      if (!at) return;
      const near = sight(now.clientX + 6, now.clientY);
      const reach = near ? Math.min(0.3, Math.hypot(near.s - at.s, near.t - at.t)) : 0.05;
      const spot = { ...box, s: box.s + at.s - began.s, t: box.t + at.t - began.t };
      const snapped = now.altKey ? spot : snap(spot, others, lines, reach);
      by = [Math.round((snapped.s - box.s) * 1e4) / 1e4, Math.round((snapped.t - box.t) * 1e4) / 1e4];
      preview(moveAll(document, openings, ...by, 'move', opening.face));
    };
    const stop = (keep: boolean) => (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key);
      end.current = null;
      hold(false);
      if (!moved) return;
      if (keep && by) {
        if (commit(moveAll(document, openings, ...by, 'move', opening.face)) && ids.length === 1) chooseOpening(id);
      } else preview(null);
    };
    const up = stop(true);
    const give = stop(false);
    const key = (pressed: KeyboardEvent): void => {
      if (pressed.key === 'Escape') give();
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('keydown', key);
    end.current = give;
  };
}
