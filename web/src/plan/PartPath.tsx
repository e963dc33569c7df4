/** The path along which an element is being split, and its two sides, of which one or both are kept. */
import type { Point } from '@yard-arch/core';
import { KeepAsk, KeepSides } from '../boards/KeepAsk.tsx';
import type { PlanDesk, PlanState } from './gestures/desk.ts';
import { part } from './gestures/part.ts';
import type { OnBoard } from './Plan.tsx';

interface PartPathProps {
  state: PlanState;
  board: OnBoard;
}

export function PartPath({ state: { corners, pointer, drawn }, board: { x, y, path } }: PartPathProps) {
  const points = pointer && !drawn ? [...corners, pointer.at] : corners;
  if (points.length === 0) return null;
  const [from, to] = longest(corners);
  return (
    <>
      <path className="drawing" d={path(points, false)} data-testid="split-path" />
      {corners.map((corner, i) => (
        <circle key={i} className="drawing" cx={x(corner)} cy={y(corner)} r="4" />
      ))}
      {drawn && <KeepSides from={[x(from), y(from)]} to={[x(to), y(to)]} />}
    </>
  );
}

/** The longest line of a path: the sides are marked there. */
function longest(corners: readonly Point[]): readonly [Point, Point] {
  let [found, length]: [readonly [Point, Point], number] = [[corners[0] ?? [0, 0], corners[0] ?? [0, 0]], 0];
  corners.slice(1).forEach((to, i) => {
    const from = corners[i]!;
    const own = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (own > length) [found, length] = [[from, to], own];
  });
  return found;
}

interface PartSidesProps {
  desk: PlanDesk;
  board: OnBoard;
  /** Of the board, pixels. */
  width: number;
  focus: () => void;
}

/** What is to be kept, asked beside the path. */
export function PartSides({ desk, board: { x, y }, width, focus }: PartSidesProps) {
  const last = desk.state.corners.at(-1)!;
  return (
    <KeepAsk
      x={x(last)}
      y={y(last)}
      width={width}
      take={(keep) => {
        part(desk, keep);
        focus();
      }}
    />
  );
}
