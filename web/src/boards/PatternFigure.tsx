/** A pattern drawn small in one of its sizes, with what stands in it; as patterns, shapes and infills are shown to be chosen from. */
import { defaultFineness, outlineOf } from '@yard-arch/core';
import type { Dimensions, Pattern, ProjectDocument, Units } from '@yard-arch/document';
import { useMemo } from 'react';
import { boundsOf } from './front-bounds.ts';
import { Fronts } from './Fronts.tsx';
import { pathOf } from './OpeningShape.tsx';
import { usePatternFront } from './use-front.ts';

interface FigureProps {
  pattern: Pick<Pattern, 'profile' | 'infill' | 'parts' | 'sections'>;
  dimensions: Dimensions;
  units: Units;
  /** Of the drawing, pixels. */
  width?: number;
  height?: number;
  /** Materials in whose colours it is drawn. */
  materials?: ProjectDocument['materials'];
  /** The most pixels that a metre is drawn as, so that small things look small beside others. */
  most?: number;
  /** What is known to be wrong with it besides what cannot be drawn. */
  wrong?: string | null;
}

export function PatternFigure({
  pattern,
  dimensions,
  units,
  width = 56,
  height = 52,
  most = 1000,
  materials,
  wrong = null,
}: FigureProps) {
  const made = useMemo(
    () => outlineOf(pattern.profile, dimensions, units, defaultFineness),
    [pattern.profile, dimensions, units],
  );
  const { front, reason: undrawn } = usePatternFront(pattern, dimensions, units);
  const reason = undrawn ?? wrong;
  if ('reason' in made) return <svg className="figure" width={width} height={height} aria-hidden />;
  const { width: wide, height: high } = made.profile;
  const [left, low, right, top] = boundsOf(front, [-wide / 2, 0, wide / 2, high]);
  const scale = Math.min((width - 4) / (right - left), (height - 4) / (top - low), most);
  const [x, y] = [width / 2 - (scale * (left + right)) / 2, height - 1 + scale * Math.min(0, low)];
  return (
    <svg
      className={`figure filled${scale < fine ? ' fine' : ''}${reason ? ' fails' : ''}`}
      width={width}
      height={height}
      aria-hidden
    >
      {reason && <title>{reason}</title>}
      <g transform={`translate(${x} ${y}) scale(${scale} ${-scale})`}>
        <path d={pathOf(made.outline)} transform={`translate(${-wide / 2} 0)`} vectorEffect="non-scaling-stroke" />
        <Fronts fronts={front} materials={materials} />
      </g>
    </svg>
  );
}

/** Drawn smaller than so many pixels a metre, its lines are thinner: they would run together. */
const fine = 60;
