/** What is kept of an element that is being split: asked beside the line, whose two sides are marked. */
import type { Keep } from '@yard-arch/edit';

interface KeepAskProps {
  /** Where the line ends, and how wide the board is, pixels. */
  x: number;
  y: number;
  width: number;
  take: (keep: Keep) => void;
}

export function KeepAsk({ x, y, width, take }: KeepAskProps) {
  return (
    <div
      className="split-ask"
      role="group"
      aria-label="What is kept"
      style={{ left: Math.max(8, Math.min(width - 240, x + 14)), top: Math.max(44, y - 14) }}
    >
      <span>Keep</span>
      <button autoFocus onClick={() => take('this')}>
        side A
      </button>
      <button onClick={() => take('other')}>side B</button>
      <button onClick={() => take('both')}>both, as two</button>
    </div>
  );
}

/** The marks of both sides of a line, from and to, pixels: A to the left of its way, B to the right. */
export function KeepSides({
  from: [ax, ay],
  to: [bx, by],
}: {
  from: readonly [number, number];
  to: readonly [number, number];
}) {
  const [dx, dy] = [bx - ax, by - ay];
  const size = Math.hypot(dx, dy) || 1;
  const [mx, my] = [ax + dx / 2, ay + dy / 2];
  // Up is less on the page.
  const [px, py] = [(dy / size) * 22, (-dx / size) * 22];
  return (
    [
      ['A', mx + px, my + py],
      ['B', mx - px, my - py],
    ] as const
  ).map(([letter, x, y]) => (
    <g key={letter} className="split-side">
      <circle cx={x} cy={y} r="10" />
      <text x={x} y={y} textAnchor="middle" dy="4">
        {letter}
      </text>
    </g>
  ));
}
