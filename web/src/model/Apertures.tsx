/** Panes that stand in the openings: unseen, so that the model can be seen through, but there to be clicked and dragged along their wall; the chosen ones are tinted. */
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { directionsAt, pointAt, resolveOpening, sheetOf, sightOn, snap, type Vector } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { moveAll, openingsOf } from '../editor/many-edits.ts';
import { chooseOpening, chosenIds, commit, preview, useEditor } from '../editor/store.ts';
import { linesOf, onElement } from '../sheet/sheet-data.ts';
import { useDisplay } from './display.ts';

interface Pane {
  id: string;
  element: string;
  geometry: THREE.ShapeGeometry;
  /** The solid that is taken out, a little longer than it cuts. */
  cutter: THREE.ExtrudeGeometry;
  matrix: THREE.Matrix4;
  blockedUp: boolean;
}

export function Apertures({ document, onPick, hold }: { document: ProjectDocument; onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string) => void; hold: (held: boolean) => void }) {
  const chosen = useEditor((state) => state.chosen);
  const hidden = useEditor((state) => state.hidden);
  const cutters = useDisplay((state) => state.cutters);
  const drag = useDrag(hold);
  const panes = useMemo(() => panesOf(document, cutters), [document, cutters]);
  useEffect(
    () => () =>
      panes.forEach((pane) => {
        pane.geometry.dispose();
        pane.cutter.dispose();
      }),
    [panes],
  );
  const ids = chosenIds(chosen);
  return (
    <>
      {panes
        .filter(({ element }) => !hidden.has(element))
        .map(({ id, element, geometry, cutter, matrix, blockedUp }) => {
          const lit = ids.includes(id);
          return (
            <group key={id} matrix={matrix} matrixAutoUpdate={false}>
              <mesh geometry={geometry} onClick={(event) => onPick(event, element, id)} onPointerDown={(event) => drag(event, id)} renderOrder={2}>
                <meshBasicMaterial side={THREE.DoubleSide} transparent depthWrite={false} color={lit ? '#b0442b' : '#8a7c66'} opacity={lit ? 0.55 : blockedUp ? 0.28 : 0} />
              </mesh>
              {cutters && (
                <mesh geometry={cutter} raycast={() => null} renderOrder={3}>
                  <meshBasicMaterial transparent depthWrite={false} color={lit ? '#b0442b' : '#5b6670'} opacity={lit ? 0.4 : 0.22} />
                </mesh>
              )}
            </group>
          );
        })}
    </>
  );
}

function panesOf(document: ProjectDocument, cutters: boolean): Pane[] {
  return Object.values(document.openings).flatMap((opening) => {
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
    const deep = resolved.depth + 0.3;
    const cutter = new THREE.ExtrudeGeometry(cutters ? shapes : [], { depth: deep, bevelEnabled: false });
    // It begins a little before the face, which lies n in front of the pane.
    cutter.translate(0, 0, n + 0.15 - deep);
    return [{ id: opening.id, element: wall.id, geometry: new THREE.ShapeGeometry(shapes), cutter, matrix, blockedUp: opening.blockedUp }];
  });
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
    const { chart } = sheetOf(element);
    const sight = (x: number, y: number): { s: number; t: number } | null => {
      const bounds = gl.domElement.getBoundingClientRect();
      raycaster.setFromCamera(new THREE.Vector2(((x - bounds.left) / bounds.width) * 2 - 1, 1 - ((y - bounds.top) / bounds.height) * 2), camera);
      const { origin, direction } = raycaster.ray;
      return sightOn(chart, origin.toArray() as unknown as Vector, direction.toArray() as unknown as Vector);
    };
    const began = sight(event.clientX, event.clientY);
    if (!began) return;
    const several = chosenIds(chosen);
    const ids = several.includes(id) ? several : [id];
    const openings = openingsOf(document, ids);
    const shown = onElement(document, element, null);
    const box = shown.boxes.find((other) => other.id === id);
    if (!box) return;
    const others = shown.boxes.filter((other) => !ids.includes(other.id));
    const lines = linesOf(document, element);
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
      preview(moveAll(document, openings, ...by));
    };
    const stop = (keep: boolean) => (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key);
      end.current = null;
      hold(false);
      if (!moved) return;
      if (keep && by) {
        if (commit(moveAll(document, openings, ...by)) && ids.length === 1) chooseOpening(id);
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
