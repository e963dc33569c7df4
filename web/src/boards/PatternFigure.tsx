/** A profile drawn small, as patterns and shapes are shown to be chosen from. */
import { defaultFineness, outlineOf } from '@yard-arch/core';
import type { Dimensions, ProfileChoice, Units } from '@yard-arch/document';
import { pathOf } from './OpeningShape.tsx';

/** @param most the most pixels that a metre is drawn as, so that small things look small beside others. */
export function PatternFigure({
  profile,
  dimensions,
  units,
  most = 24,
}: {
  profile: ProfileChoice;
  dimensions: Dimensions;
  units: Units;
  most?: number;
}) {
  const made = outlineOf(profile, dimensions, units, defaultFineness);
  if ('reason' in made) return <svg className="figure" width="48" height="44" aria-hidden />;
  const { width, height } = made.profile;
  const scale = Math.min(44 / width, 40 / height, most);
  return (
    <svg className="figure" width="48" height="44" aria-hidden>
      <path
        d={pathOf(made.outline)}
        transform={`translate(${24 - (width * scale) / 2} 43) scale(${scale} ${-scale})`}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
