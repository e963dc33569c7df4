/** The board on which an outline is drawn by hand: a grid, what is drawn, and the edge that would come next. */
import { bulgeTo, onGrid } from '@yard-arch/core/drawing';
import { formatLength, type Units } from '@yard-arch/document';
import { useEffect, useRef, type PointerEvent } from 'react';
import { pathOf } from './DrawnRings.tsx';
import type { Hand, View } from './hand.ts';

const size = { width: 660, height: 380 };
/** So near to the first point a click closes the outline, pixels. */
const near = 9;

interface BoardProps {
  work: Hand;
  units: Units;
  crossing: readonly [number, number] | null;
}

export function DrawingBoard({ work, units, crossing }: BoardProps) {
  const { points, closed, view, pointer } = work;
  const frame = useRef<SVGSVGElement>(null);
  const at = (x: number, y: number): [number, number] => [
    (x - view.left) * view.scale,
    size.height - (y - view.low) * view.scale,
  ];
  const spot = (event: { clientX: number; clientY: number }) => {
    const bounds = frame.current!.getBoundingClientRect();
    return {
      x: view.left + (((event.clientX - bounds.left) / bounds.width) * size.width) / view.scale,
      y: view.low + (size.height - ((event.clientY - bounds.top) / bounds.height) * size.height) / view.scale,
    };
  };
  useWheel(frame, (event) => {
    const { x, y } = spot(event);
    const scale = Math.min(40_000, Math.max(8, view.scale * Math.exp(-event.deltaY / 400)));
    const share = view.scale / scale;
    work.setView({ left: x - (x - view.left) * share, low: y - (y - view.low) * share, scale });
  });
  const placed = (event: PointerEvent) =>
    event.altKey ? spot(event) : onGrid(points, spot(event), 6 / view.scale, work.scale === 'moulding' ? 0.001 : 0.01);
  const isFirst = (place: { x: number; y: number }): boolean =>
    points.length > 1 && Math.hypot(place.x - points[0]!.x, place.y - points[0]!.y) * view.scale < near;
  // A button that can do no more gives up the focus: the keys stay with the board.
  useEffect(() => {
    const held = document.activeElement;
    if (held === document.body || (held instanceof HTMLButtonElement && held.disabled)) frame.current?.focus();
  }, [closed, points.length]);
  const last = points.at(-1);
  const next =
    !closed && last && pointer ? [{ ...last, bulge: work.arc ? bulgeTo(points, pointer) : 0 }, pointer] : null;
  return (
    <svg
      ref={frame}
      className="rings board"
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="application"
      tabIndex={0}
      aria-label="Drawing board: click for a point, A for arcs, Escape takes back"
      data-testid="hand"
      data-scale={view.scale}
      data-left={view.left}
      data-low={view.low}
      onPointerMove={(event) => work.setPointer(placed(event))}
      onPointerLeave={() => work.setPointer(null)}
      onClick={(event) => {
        const place = placed(event as unknown as PointerEvent);
        if (isFirst(spot(event))) work.close();
        else work.to(place);
      }}
    >
      <Grid view={view} />
      {points.length > 0 && (
        <path
          className={closed ? 'outline' : 'hand'}
          d={pathOf(closed?.outline ?? points, closed !== null, at, view.scale)}
        />
      )}
      {next && <path className="next" d={pathOf(next, false, at, view.scale)} />}
      {points.map(({ x, y }, i) => (
        <circle
          key={i}
          className={i === 0 ? 'first' : undefined}
          cx={at(x, y)[0]}
          cy={at(x, y)[1]}
          r={i === 0 ? 5 : 3}
        />
      ))}
      {next && last && pointer && <Measure from={last} to={pointer} at={at} units={units} />}
      {crossing && closed && <circle className="crossing" cx={at(...crossing)[0]} cy={at(...crossing)[1]} r={9} />}
    </svg>
  );
}

/** Wheels over the board zoom it; the page beneath stays. */
function useWheel(frame: React.RefObject<SVGSVGElement | null>, zoom: (event: WheelEvent) => void): void {
  const latest = useRef(zoom);
  useEffect(() => {
    latest.current = zoom;
  });
  useEffect(() => {
    const board = frame.current!;
    const turned = (event: WheelEvent): void => {
      event.preventDefault();
      latest.current(event);
    };
    board.addEventListener('wheel', turned, { passive: false });
    return () => board.removeEventListener('wheel', turned);
  }, [frame]);
}

/** Lines every millimetre, centimetre and so on, as there is room for them; every tenth is stronger. */
function Grid({ view: { left, low, scale } }: { view: View }) {
  const step = [0.001, 0.01, 0.1, 1, 10].find((one) => one * scale >= 9) ?? 100;
  const lines = (from: number, length: number): number[] => {
    const first = Math.ceil(from / step);
    return Array.from({ length: Math.floor((from + length) / step) - first + 1 }, (_, i) => first + i);
  };
  return (
    <g className="grid">
      {lines(left, size.width / scale).map((k) => {
        const x = (k * step - left) * scale;
        return (
          <line key={`x${k}`} className={k % 10 === 0 ? 'strong' : undefined} x1={x} x2={x} y1={0} y2={size.height} />
        );
      })}
      {lines(low, size.height / scale).map((k) => {
        const y = size.height - (k * step - low) * scale;
        return (
          <line key={`y${k}`} className={k % 10 === 0 ? 'strong' : undefined} x1={0} x2={size.width} y1={y} y2={y} />
        );
      })}
    </g>
  );
}

interface MeasureProps {
  from: { x: number; y: number };
  to: { x: number; y: number };
  at: (x: number, y: number) => [number, number];
  units: Units;
}

/** How long the edge is that would come next, and which way it goes. */
function Measure({ from, to, at, units }: MeasureProps) {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  if (length < 1e-6) return null;
  const degrees = Math.round((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI);
  const [x, y] = at(to.x, to.y);
  return (
    // On the side to which it is drawn.
    <text x={to.x < from.x ? x - 12 : x + 12} y={y - 10} textAnchor={to.x < from.x ? 'end' : 'start'}>
      {formatLength(length, units)} · {degrees}°
    </text>
  );
}
