/** An outline as it is drawn by hand: what there is of it, and what is done to it by pointer, keys and figures. */
import { closedRing, drawnTo, placeAt } from '@yard-arch/core/drawing';
import type { OutlinePoint, Units } from '@yard-arch/document';
import { useState } from 'react';
import { typedEdge } from './typed-edge.ts';

interface Place {
  x: number;
  y: number;
}

/** What of the plane is shown: its lower left corner, metres, and pixels a metre. */
export interface View {
  left: number;
  low: number;
  scale: number;
}

/** What has been drawn, and what is done to it. */
export interface Hand {
  /** How large what is drawn is. */
  scale: 'opening' | 'moulding';
  points: readonly OutlinePoint[];
  /** The ring that the points make, once they are closed. */
  closed: ReturnType<typeof closedRing>;
  arc: boolean;
  /** Where the pointer is, as it is snapped; null away from the board. */
  pointer: Place | null;
  view: View;
  setView: (view: View) => void;
  setPointer: (at: Place | null) => void;
  setArc: (arc: boolean) => void;
  /** Draws on to a place. */
  to: (place: Place) => void;
  close: () => void;
  /** Takes back what was done last. */
  back: () => void;
}

/** Where the board begins: a window's size, or that of a moulding. */
const begins: Record<Hand['scale'], View> = {
  opening: { left: -0.4, low: -0.3, scale: 190 },
  moulding: { left: -0.012, low: -0.009, scale: 9000 },
};

export function useHand(scale: Hand['scale'] = 'opening'): Hand {
  const [points, setPoints] = useState<readonly OutlinePoint[]>([]);
  const [closed, setClosed] = useState<Hand['closed']>(null);
  const [arc, setArc] = useState(false);
  const [pointer, setPointer] = useState<Place | null>(null);
  const [view, setView] = useState<View>(begins[scale]);
  return {
    scale,
    points,
    closed,
    arc,
    pointer,
    view,
    setView,
    setPointer,
    setArc,
    to: (place) => {
      if (!closed) setPoints((before) => drawnTo(before, place, arc) ?? before);
    },
    close: () => {
      const ring = closedRing(points, arc);
      if (ring) setClosed(ring);
    },
    back: () => {
      if (closed) return setClosed(null);
      // The last one has no edge any more.
      const rest = points.slice(0, -1);
      setPoints(rest.map((point, i) => (i === rest.length - 1 ? { x: point.x, y: point.y } : point)));
    },
  };
}

/** Draws on as it is typed. @returns why not, or null */
export function drawTyped(text: string, { points, pointer, to }: Hand, units: Units): string | null {
  const last = points.at(-1)!;
  const edge = typedEdge(text, units, pointer ? Math.atan2(pointer.y - last.y, pointer.x - last.x) : 0);
  if (typeof edge === 'string') return edge;
  to(placeAt(points, edge.length, edge.degrees));
  return null;
}
