/** Grips on the leaves of chosen openings: dragged, they stand open as far as they are drawn. */
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { gripAt, leafGripsOf, onOwnFace, resolveOpening, sheetsOf, type LeafGrip, type Vector } from '@yard-arch/core';
import { limits, type ProjectDocument } from '@yard-arch/document';
import { changeOpening } from '@yard-arch/edit';
import { useMemo } from 'react';
import * as THREE from 'three';
import type { Gesture, Spot } from '../boards/gesture.ts';
import { useGestures } from '../boards/use-gestures.ts';
import { colours } from '../colours.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { useDisplay } from './display.ts';

interface GripsProps {
  document: ProjectDocument;
  /** Told when a drag begins and ends, so that the view is not turned meanwhile. */
  hold: (held: boolean) => void;
}

/** So many openings are given grips at most. */
const most = 12;

export function LeafGrips({ document, hold }: GripsProps) {
  const drawn = useEditor((state) => state.drawn);
  const chosen = useEditor((state) => state.chosen);
  const full = useDisplay((state) => state.fill === 'full' || state.fill === 'plain');
  // As the edit that is just being made has them.
  const draft = useMemo(() => (drawn.size > 0 ? useEditor.getState().draft : null) ?? document, [drawn, document]);
  const ids = chosenIds(chosen);
  const grips = useMemo(
    () => (full && ids.length <= most ? ids.flatMap((id) => gripsIn(draft, id)) : []),
    [full, ids, draft],
  );
  const seen = useSeen();
  const { bind } = useGestures<LeafGrip>({
    press: (press, grip) => (press.middle ? null : opening(grip, seen)),
    onGoing: hold,
  });
  const down = (event: ThreeEvent<PointerEvent>, grip: LeafGrip): void => {
    if (event.button !== 0) return;
    event.stopPropagation();
    bind(grip).onPointerDown?.(event as unknown as React.PointerEvent);
  };
  return grips.map((grip, i) => (
    <mesh
      key={i}
      position={gripAt(grip, grip.amount) as [number, number, number]}
      renderOrder={10}
      onPointerDown={(event) => down(event, grip)}
      onClick={(event) => event.stopPropagation()}
      onPointerOver={() => (window.document.body.style.cursor = 'grab')}
      onPointerOut={() => (window.document.body.style.cursor = '')}
    >
      <sphereGeometry args={[0.055, 20, 14]} />
      <meshBasicMaterial color={colours.brick} depthTest={false} transparent opacity={0.9} />
    </mesh>
  ));
}

function gripsIn(document: ProjectDocument, id: string): LeafGrip[] {
  const opening = document.openings[id];
  const sheets = sheetsOf(document);
  // Of two faces the grips are told from the outer one; of many from their own.
  const sheet =
    opening &&
    (opening.face && opening.face !== 'inner' ? sheets.on(opening.element, opening.face) : sheets.of(opening.element));
  const placed = opening && resolveOpening(document, opening);
  if (!sheet || !placed || !('outline' in placed) || opening.blockedUp) return [];
  const own = onOwnFace(sheets.on(opening.element, opening.face) ?? sheet, opening, placed);
  return 'outline' in own ? leafGripsOf(sheet, own) : [];
}

/** Where a point of the model is seen, pixels of the window. */
type Seen = (point: Vector) => { x: number; y: number };

function useSeen(): Seen {
  const { camera, gl } = useThree();
  return (point) => {
    const bounds = gl.domElement.getBoundingClientRect();
    const at = new THREE.Vector3(...point).project(camera);
    return { x: bounds.left + ((at.x + 1) / 2) * bounds.width, y: bounds.top + ((1 - at.y) / 2) * bounds.height };
  };
}

/** Steps to which a leaf is drawn, of all its way; and the finest, where nothing shall pull it. */
const [coarse, fine] = [36, 180];
/** What it has moved already counts for so many pixels of all its way, where two places are seen as near. */
const held = 24;

/** How far open a leaf is seen to be nearest to a place. */
function nearestTo(grip: LeafGrip, seen: Seen, { x, y, free }: Spot, now: number): number {
  const most = grip.kind === 'turn' ? limits.open.most : 1;
  const steps = free ? fine : coarse;
  let [best, least] = [now, Infinity];
  for (let i = 0; i <= steps; i++) {
    const amount = Math.round(((most * i) / steps) * 1000) / 1000;
    const at = seen(gripAt(grip, amount));
    const far = Math.hypot(at.x - x, at.y - y) + (held * Math.abs(amount - now)) / most;
    if (far < least) [best, least] = [amount, far];
  }
  return best;
}

function opening(grip: LeafGrip, seen: Seen): Gesture {
  let to: number | null = null;
  const changed = () => {
    const own = useEditor.getState().document!.openings[grip.opening]!;
    const over = grip.kind === 'turn' ? { open: to! } : { slid: to! };
    return changeOpening(own, over, grip.kind === 'turn' ? 'open the leaves of' : 'slide the leaves of');
  };
  return {
    move: (spot) => {
      to = nearestTo(grip, seen, spot, to ?? grip.amount);
      preview(changed());
    },
    drop: () => {
      if (to === null) return preview(null);
      commit(changed());
    },
    giveUp: () => preview(null),
  };
}
