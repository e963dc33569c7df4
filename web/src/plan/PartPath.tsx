/** The path along which an element is being split, and its two sides, of which one or both are kept. */
import type { Point } from '@yard-arch/core';
import type { PlanDesk, PlanState } from './gestures/desk.ts';
import { part } from './gestures/part.ts';
import type { OnBoard } from './Plan.tsx';

export function PartPath({
  state: { corners, pointer, drawn },
  board: { x, y, path },
}: {
  state: PlanState;
  board: OnBoard;
}) {
  const points = pointer && !drawn ? [...corners, pointer.at] : corners;
  if (points.length === 0) return null;
  const sides = drawn ? sidesOf(corners, { x, y }) : [];
  return (
    <>
      <path className="drawing" d={path(points, false)} data-testid="split-path" />
      {corners.map((corner, i) => (
        <circle key={i} className="drawing" cx={x(corner)} cy={y(corner)} r="4" />
      ))}
      {sides.map(([sx, sy], i) => (
        <g key={i} className="split-side">
          <circle cx={sx} cy={sy} r="10" />
          <text x={sx} y={sy} textAnchor="middle" dy="4">
            {'AB'.charAt(i)}
          </text>
        </g>
      ))}
    </>
  );
}

/** Where the marks of both sides stand, pixels: to the left of the path's longest line, and to its right. */
function sidesOf(corners: readonly Point[], { x, y }: Pick<OnBoard, 'x' | 'y'>): (readonly [number, number])[] {
  let longest: readonly [number, number, number, number] = [0, 0, 0, 0];
  corners.slice(1).forEach((to, i) => {
    const from = corners[i]!;
    const line = [x(from), y(from), x(to) - x(from), y(to) - y(from)] as const;
    if (Math.hypot(line[2], line[3]) > Math.hypot(longest[2], longest[3])) longest = line;
  });
  const [ax, ay, dx, dy] = longest;
  const size = Math.hypot(dx, dy) || 1;
  const [mx, my] = [ax + dx / 2, ay + dy / 2];
  // Up is less on the page: to the left of the way.
  const [px, py] = [(dy / size) * 22, (-dx / size) * 22];
  return [
    [mx + px, my + py],
    [mx - px, my - py],
  ];
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
  const { corners } = desk.state;
  const last = corners.at(-1)!;
  const take = (keep: Parameters<typeof part>[1]) => () => {
    part(desk, keep);
    focus();
  };
  return (
    <div
      className="split-ask"
      role="group"
      aria-label="What is kept"
      style={{ left: Math.max(8, Math.min(width - 240, x(last) + 14)), top: Math.max(44, y(last) - 14) }}
    >
      <span>Keep</span>
      <button autoFocus onClick={take('this')}>
        side A
      </button>
      <button onClick={take('other')}>side B</button>
      <button onClick={take('both')}>both, as two</button>
    </div>
  );
}
