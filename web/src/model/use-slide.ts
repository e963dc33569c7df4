/** Sliding an opening, or all that are chosen with it, along its own wall's face in the model: square and level, whatever the wall's course. */
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { sheetsOf, sightOn, snap, type Vector } from '@yard-arch/core';
import { moveAll, openingsOf } from '@yard-arch/edit';
import { Vector2 } from 'three';
import type { Gesture, Press } from '../boards/gesture.ts';
import { linesOf, onElement } from '../boards/sheet-data.ts';
import { useGestures } from '../boards/use-gestures.ts';
import { chooseOpening } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';

type Sight = (chart: Parameters<typeof sightOn>[0], at: { x: number; y: number }) => { s: number; t: number } | null;

/** Where on a face one looks through a place of the window. */
function useSight(): Sight {
  const { camera, gl, raycaster } = useThree();
  return (chart, { x, y }) => {
    const bounds = gl.domElement.getBoundingClientRect();
    raycaster.setFromCamera(
      new Vector2(((x - bounds.left) / bounds.width) * 2 - 1, 1 - ((y - bounds.top) / bounds.height) * 2),
      camera,
    );
    const { origin, direction } = raycaster.ray;
    return sightOn(chart, origin.toArray() as unknown as Vector, direction.toArray() as unknown as Vector);
  };
}

/**
 * @param hold told when a drag begins and ends, so that the view is not turned meanwhile.
 * @returns what takes a press on an opening's pane.
 */
export function useSlide(hold: (held: boolean) => void): (event: ThreeEvent<PointerEvent>, id: string) => void {
  const sight = useSight();
  const { bind } = useGestures<string>({
    press: (press, id) => (press.shift || press.middle ? null : sliding(sight, press, id)),
    onGoing: hold,
  });
  return (event, id) => {
    if (event.button !== 0 || event.nativeEvent.shiftKey) return;
    event.stopPropagation();
    bind(id).onPointerDown?.(event as unknown as React.PointerEvent);
  };
}

function sliding(sight: Sight, press: Press, id: string): Gesture | null {
  const { document, chosen } = useEditor.getState();
  const opening = document?.openings[id];
  const element = opening && document.elements[opening.element];
  const face = opening?.face ?? 'outer';
  const box = element && onElement(document, element, face, null).boxes.find((other) => other.id === id);
  if (!document || !element || !box) return null;
  const { chart } = sheetsOf(document).on(element.id, face)!;
  const began = sight(chart, press);
  if (!began) return null;
  const several = chosenIds(chosen);
  const ids = several.includes(id) ? several : [id];
  const others = onElement(document, element, face, null).boxes.filter((other) => !ids.includes(other.id));
  const lines = linesOf(document, element, face);
  let by: [number, number] | null = null;
  const moved = (along: number, up: number) => {
    const now = useEditor.getState().document!;
    return moveAll(now, openingsOf(now, ids), { ds: along, dt: up, what: 'move', face });
  };
  return {
    move: (spot) => {
      const at = sight(chart, spot);
      if (!at) return;
      const near = sight(chart, { x: spot.x + 6, y: spot.y });
      const reach = near ? Math.min(0.3, Math.hypot(near.s - at.s, near.t - at.t)) : 0.05;
      const put = { ...box, s: box.s + at.s - began.s, t: box.t + at.t - began.t };
      const snapped = spot.free ? put : snap(put, others, lines, reach);
      by = [Math.round((snapped.s - box.s) * 1e4) / 1e4, Math.round((snapped.t - box.t) * 1e4) / 1e4];
      preview(moved(...by));
    },
    drop: () => {
      if (!by) return preview(null);
      if (commit(moved(...by)) && ids.length === 1) chooseOpening(id);
    },
    giveUp: () => preview(null),
  };
}
