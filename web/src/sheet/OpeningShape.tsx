/** One opening on the sheet: its outline, how it stands, and its mark. */
import type { OpeningStatus, Outline, Placed } from '@yard-arch/core';
import { memo } from 'react';
import { xOf, yOf, type Viewport } from './viewport.ts';

const paths = new WeakMap<Outline, string>();

/** SVG path data of an outline, metres, y up. */
export function pathOf(outline: Outline): string {
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

interface ShapeProps {
  view: Viewport;
  placed: Placed;
  mark: string;
  label: string;
  status: OpeningStatus | undefined;
  chosen: boolean;
  /** Whether it reaches beyond its element. */
  misfit: boolean;
}

export const OpeningShape = memo(function OpeningShape({ view, placed, mark, label, status, chosen, misfit }: ShapeProps) {
  const state = placed.blockedUp ? 'blocked' : status?.state === 'not cut' ? 'failed' : '';
  const { s, t, profile } = placed;
  const [left, right, base, head] = [xOf(view, s), xOf(view, s + profile.width), yOf(view, t), yOf(view, t + profile.height)];
  return (
    <g
      className={`opening ${state} ${misfit ? 'misfit' : ''} ${chosen ? 'chosen' : ''}`}
      data-opening={placed.id}
      data-state={status?.state ?? ''}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={label}
    >
      <path
        className="shape"
        d={pathOf(placed.outline)}
        transform={`translate(${left} ${base}) scale(${view.scale} ${-view.scale})`}
        vectorEffect="non-scaling-stroke"
      />
      {state === 'failed' && <path className="cross" d={`M${left} ${base}L${right} ${head}M${left} ${head}L${right} ${base}`} />}
      {right - left > 26 && base - head > 16 && (
        <text className="mark" x={(left + right) / 2} y={(base + head) / 2 + 4}>
          {state === 'failed' ? `${mark} !` : mark}
        </text>
      )}
    </g>
  );
});
