/** Very many openings as one figure for each state: they can be chosen where they are clicked, and one by one in the table. */
import type { Outcome, Placed } from '@yard-arch/core';
import { memo } from 'react';

interface CrowdProps {
  placed: readonly Placed[];
  statuses: ReadonlyMap<string, Outcome>;
  /** Whether they are so small that their rectangles do. */
  coarse: boolean;
}

export const Crowd = memo(function Crowd({ placed, statuses, coarse }: CrowdProps) {
  const parts: Record<'open' | 'blocked' | 'failed', string[]> = { open: [], blocked: [], failed: [] };
  for (const item of placed) {
    const state = item.blockedUp ? 'blocked' : statuses.get(item.id)?.state === 'not cut' ? 'failed' : 'open';
    parts[state].push(coarse ? rectangle(item) : outlined(item));
  }
  return (
    <g data-crowd={placed.length}>
      {(['open', 'blocked', 'failed'] as const).map(
        (state) =>
          parts[state].length > 0 && (
            <g key={state} className={`opening ${state}`}>
              <path className="shape" d={parts[state].join('')} vectorEffect="non-scaling-stroke" />
            </g>
          ),
      )}
    </g>
  );
});

const figure = (metres: number): number => Math.round(metres * 1000) / 1000;

function rectangle({ s, t, profile: { width, height } }: Placed): string {
  return `M${figure(s)} ${figure(t)}h${figure(width)}v${figure(height)}h${figure(-width)}Z`;
}

function outlined({ s, t, outline }: Placed): string {
  let path = '';
  for (const first of outline.loops) {
    let v = first;
    do {
      path += `${v === first ? 'M' : 'L'}${figure(s + outline.xs[v]!)} ${figure(t + outline.ys[v]!)}`;
      v = outline.next[v]!;
    } while (v !== first);
    path += 'Z';
  }
  return path;
}
