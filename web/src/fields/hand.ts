/** An outline as it is drawn by hand: what there is of it, and what is done to it by pointer, keys and figures. */
import { closedRing, drawnTo, placeAt } from '@yard-arch/core/drawing';
import { parseLength, type OutlinePoint, type Units } from '@yard-arch/document';
import { useState } from 'react';

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

export function useHand(): Hand {
  const [points, setPoints] = useState<readonly OutlinePoint[]>([]);
  const [closed, setClosed] = useState<Hand['closed']>(null);
  const [arc, setArc] = useState(false);
  const [pointer, setPointer] = useState<Place | null>(null);
  const [view, setView] = useState<View>({ left: -0.4, low: -0.3, scale: 190 });
  return {
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
  const [first = '', second] = text.split(';').map((part) => part.trim());
  const length = parseLength(first, units);
  if (length === null || length <= 0) return 'Type a length, such as 1400 or 1.4 m.';
  const last = points.at(-1)!;
  const towards = pointer ? Math.atan2(pointer.y - last.y, pointer.x - last.x) : 0;
  const degrees =
    second === undefined
      ? Math.round((towards * 180) / Math.PI / 15) * 15
      : Number(second.replace('°', '').replace('−', '-').replace(',', '.'));
  if (!Number.isFinite(degrees)) return 'After the semicolon stands a direction in degrees, such as 90.';
  to(placeAt(points, length, degrees));
  return null;
}
