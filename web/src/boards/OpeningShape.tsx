/** One opening on the sheet: its outline, how it stands, and its mark. */
import type { Outcome, Outline, Placed } from '@yard-arch/core';
import { formatLength, type Units } from '@yard-arch/document';
import { memo } from 'react';

type Loops = Pick<Outline, 'xs' | 'ys' | 'next' | 'loops'>;

const paths = new WeakMap<Loops, string>();

/** SVG path data of an outline, metres, y up. */
export function pathOf(outline: Loops): string {
  let path = paths.get(outline);
  if (!path) {
    const parts: string[] = [];
    for (const first of outline.loops) {
      let v = first;
      do {
        parts.push(`${v === first ? 'M' : 'L'}${outline.xs[v]!.toFixed(5)} ${outline.ys[v]!.toFixed(5)}`);
        v = outline.next[v]!;
      } while (v !== first);
      parts.push('Z');
    }
    path = parts.join('');
    paths.set(outline, path);
  }
  return path;
}

/** An opening's mark in its middle, where there is room for it. */
export function OpeningMark({ placed, scale, text }: { placed: Placed; scale: number; text: string }) {
  const { s, t, profile } = placed;
  if (profile.width * scale < 26 || profile.height * scale < 16) return null;
  const [x, y] = [s + profile.width / 2, t + profile.height / 2];
  return (
    <text className="mark" y="4" transform={`translate(${x} ${y}) scale(${1 / scale} ${-1 / scale})`}>
      {text}
    </text>
  );
}

interface ShapeProps {
  /** Pixels a metre. It is drawn in metres; only what must not grow with it needs to know. */
  scale: number;
  placed: Placed;
  mark: string;
  pattern: string;
  units: Units;
  status: Outcome | undefined;
  chosen: boolean;
  /** Whether it reaches beyond its element. */
  misfit: boolean;
}

export const OpeningShape = memo(function OpeningShape({
  scale,
  placed,
  mark,
  pattern,
  units,
  status,
  chosen,
  misfit,
}: ShapeProps) {
  const state = placed.blockedUp ? 'blocked' : status?.state === 'not cut' ? 'failed' : '';
  const { s, t, profile } = placed;
  // What does not reach the face that is shown is drawn as what is hidden: in dashes.
  const behind = (placed.from ?? 0) > 1e-9;
  const [right, head] = [s + profile.width, t + profile.height];
  return (
    <g
      className={`opening ${state} ${behind ? 'behind' : ''} ${misfit ? 'misfit' : ''} ${chosen ? 'chosen' : ''}`}
      data-opening={placed.id}
      data-state={status?.state ?? ''}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${mark}, ${pattern}, ${status?.state ?? 'being cut'}, ${formatLength(s, units)} along, ${formatLength(t, units)} up`}
    >
      <path
        className="shape"
        d={pathOf(placed.outline)}
        transform={`translate(${s} ${t})`}
        vectorEffect="non-scaling-stroke"
      />
      {state === 'failed' && (
        <path
          className="cross"
          d={`M${s} ${t}L${right} ${head}M${s} ${head}L${right} ${t}`}
          vectorEffect="non-scaling-stroke"
        />
      )}
      {!placed.pattern.infill && (
        <OpeningMark placed={placed} scale={scale} text={state === 'failed' ? `${mark} !` : mark} />
      )}
    </g>
  );
});
