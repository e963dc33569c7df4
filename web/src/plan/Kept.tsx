/** What splits keep of an element in plan. */
import { keptInPlan, splitInSpace, type Point } from '@yard-arch/core';
import { extentOf, type Element, type Split } from '@yard-arch/document';
import { useId, type ReactNode } from 'react';
import type { OnBoard } from './Plan.tsx';

interface KeptProps {
  element: Element;
  /** Height above its base at which it is seen, metres. */
  cutAt: number;
  board: OnBoard;
}

/** An element's drawing, without what its splits take away. */
export function Kept({ element, cutAt, board, children }: KeptProps & { children: ReactNode }) {
  const id = useId();
  const splits = element.splits ?? [];
  return splits.reduce<ReactNode>((inner, split, i) => {
    const region = keptInPlan(splitInSpace(split, element), element.start.z + cutAt);
    return region ? (
      <g clipPath={`url(#${id}-${i})`}>
        <clipPath id={`${id}-${i}`}>
          <path d={board.path(region)} />
        </clipPath>
        {inner}
      </g>
    ) : (
      inner
    );
  }, children);
}

/** The lines along which the chosen element is split; those of planes go a little beyond it. */
export function SplitLines({ element, cutAt, board }: KeptProps) {
  const far = 0.6 * extentOf(element).length + 1;
  return (element.splits ?? []).map((split, i) => {
    const points = lineInPlan(splitInSpace(split, element), element.start.z + cutAt, far);
    return points && <path key={i} className="split-line" d={board.path(points, false)} />;
  });
}

function lineInPlan(split: Split, level: number, far: number): Point[] | null {
  if ('path' in split) return split.path.map(({ x, y }): Point => [x, y]);
  const region = keptInPlan(split, level);
  if (!region) return null;
  // The two points of the line itself follow the first one, which is far away.
  const [, a, b] = region as [Point, Point, Point];
  const [mx, my] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const [dx, dy] = [(b[0] - a[0]) / 2, (b[1] - a[1]) / 2];
  return [
    [mx - far * dx, my - far * dy],
    [mx + far * dx, my + far * dy],
  ];
}
