/** From a shape and its named dimensions to the exact outline, or why there is none and what would be possible. */
import {
  dimensionLabel,
  formatLength,
  unitsLabel,
  type Dimensions,
  type ProfileChoice,
  type Units,
} from '@yard-arch/document';
import {
  ellipticalArch,
  fourCentredArch,
  haunchRadii,
  horseshoeArch,
  leastThreeCentredRise,
  ogeeArch,
  pointedArch,
  segmentalArch,
  semicircularArch,
  threeCentredArch,
} from './arches.ts';
import { chamferedRectangle, rectangle, roundedRectangle } from './panels.ts';
import type { Impossible, Profile } from './profile.ts';
import { freeProfile, selfCrossing } from './free.ts';
import { angleSection, channelSection, iSection, regularPolygon, star, tSection } from './polygons.ts';
import { ellipse, foils } from './rounds.ts';
import { textProfile } from './text.ts';
import { micrometre, nanometre as slack } from '../tolerances.ts';

/** Whether the outcome of `profileOf` is a refusal. */
export function isImpossible(outcome: Profile | Impossible): outcome is Impossible {
  return 'reason' in outcome;
}

/**
 * The exact outline of a profile with given dimensions (metres).
 * @param units the units in which a refusal is worded.
 * @returns the profile, or why it cannot be made and what would be possible.
 */
export function profileOf(choice: ProfileChoice, dimensions: Dimensions, units: Units = 'mm'): Profile | Impossible {
  const { shape } = choice;
  const length = (metres: number): string =>
    `${formatLength(metres, units)}${units === 'ft-in' ? '' : ` ${unitsLabel(units)}`}`;
  const take = (name: string): number => dimensions[name] ?? NaN;
  for (const [name, value] of Object.entries(dimensions))
    if (!(Number.isFinite(value) && value > 0))
      return {
        reason: `its ${dimensionLabel(shape, name).toLowerCase()} is ${Number.isFinite(value) ? length(value) : 'not a number'}`,
        mend: `Give it a ${dimensionLabel(shape, name).toLowerCase()} of more than 0.`,
      };

  const [width, height, span, rise] = [take('width'), take('height'), take('span'), take('rise')];
  /** Refuses a rise outside its range; the head must also fit under the height. */
  const risen = (
    what: string,
    { least, most }: { least: number; most: number },
    f: number,
    make: () => Profile,
  ): Profile | Impossible => {
    if (f < least - slack || f > most + slack)
      return {
        reason: `${what} of span ${length(span)} cannot rise ${length(f)}`,
        mend:
          most === Infinity
            ? `Give it a rise of at least ${length(least)}.`
            : least <= 0
              ? `Give it a rise of at most ${length(most)}.`
              : `Give it a rise from ${length(least)} to ${length(most)}.`,
      };
    if (height < f - slack)
      return {
        reason: `${what} that rises ${length(f)} is higher than its height of ${length(height)}`,
        mend: `Make it at least ${length(f)} high, or let it rise less.`,
      };
    return make();
  };
  const half = span / 2;
  /** Refuses a web or flanges that leave no room beside them. */
  const rolled = (web: number, flanges: number, make: () => Profile): Profile | Impossible =>
    web >= width - slack || flanges >= height - slack
      ? {
          reason: 'its web or flanges are as thick as the section itself',
          mend: `Make the web less than ${length(width)}, and the flanges together less than ${length(height)}.`,
        }
      : make();
  switch (shape) {
    case 'regular-polygon':
      return regularPolygon(choice.sides ?? 6, take('diameter'));
    case 'star':
      return take('inner') >= take('diameter') - slack
        ? {
            reason: `a star of ${length(take('diameter'))} cannot have an inner diameter of ${length(take('inner'))}`,
            mend: `Give it an inner diameter of less than ${length(take('diameter'))}.`,
          }
        : star(choice.sides ?? 5, take('diameter'), take('inner'));
    case 'i-section':
      return rolled(take('web'), 2 * take('flange'), () => iSection(width, height, take('web'), take('flange')));
    case 't-section':
      return rolled(take('web'), take('flange'), () => tSection(width, height, take('web'), take('flange')));
    case 'channel-section':
      return rolled(take('web'), 2 * take('flange'), () => channelSection(width, height, take('web'), take('flange')));
    case 'angle-section':
      return rolled(take('web'), take('web'), () => angleSection(width, height, take('web')));
    case 'free':
      return freeProfile(choice.outline ?? [], choice.islands ?? [], { width, height }, length);
    case 'text': {
      const made = textProfile(choice.text ?? '', height);
      if (isImpossible(made)) return made;
      return selfCrossing(made) ? { reason: 'two of its letters touch', mend: 'Put a space between them.' } : made;
    }
    case 'rectangle':
      return rectangle(width, height);
    case 'rounded-rectangle':
    case 'chamfered-rectangle': {
      const [what, cut] = shape === 'rounded-rectangle' ? ['radius', take('radius')] : ['chamfer', take('chamfer')];
      const most = Math.min(width, height) / 2;
      if ((cut as number) > most + slack)
        return {
          reason: `a ${what} of ${length(cut as number)} is more than half its lesser side`,
          mend: `Give it a ${what} of at most ${length(most)}.`,
        };
      return (shape === 'rounded-rectangle' ? roundedRectangle : chamferedRectangle)(
        width,
        height,
        Math.min(cut as number, most),
      );
    }
    case 'circle':
      return ellipse(take('diameter'), take('diameter'));
    case 'ellipse':
      return ellipse(width, height);
    case 'trefoil':
      return foils(3, take('diameter'));
    case 'quatrefoil':
      return foils(4, take('diameter'));
    case 'semicircular-arch':
      // A rise that is half the span needs no saying; only the height may be too little.
      if (height < half - slack)
        return {
          reason: `a semicircular arch of span ${length(span)} rises ${length(half)}, more than its height of ${length(height)}`,
          mend: `Make it at least ${length(half)} high, or its span at most ${length(2 * height)}.`,
        };
      return semicircularArch(span, height);
    case 'segmental-arch':
      return risen('a segmental arch', { least: 0, most: half }, rise, () => segmentalArch(span, height, rise));
    case 'cambered-arch': {
      const camber = take('camber');
      return risen('a flat arch', { least: 0, most: span / 8 }, camber, () => segmentalArch(span, height, camber));
    }
    case 'elliptical-arch':
      return risen('an elliptical arch', { least: 0, most: Infinity }, rise, () => ellipticalArch(span, height, rise));
    case 'three-centred-arch':
      return risen('a three-centred arch', { least: leastThreeCentredRise(span) * 1.001, most: half }, rise, () =>
        rise > half - micrometre ? semicircularArch(span, height) : threeCentredArch(span, height, rise),
      );
    case 'pointed-arch':
      return risen('a pointed arch', { least: half * 1.001, most: Infinity }, rise, () =>
        pointedArch(span, height, rise),
      );
    case 'four-centred-arch': {
      const radius = take('radius');
      return (
        risen(
          'a four-centred arch',
          { least: 0, most: Infinity },
          rise,
          () => fourCentredArch(span, height, rise, radius) as Profile,
        ) ?? noHaunch(radius)
      );
    }
    case 'horseshoe-arch':
      return risen('a horseshoe arch', { least: half * 1.001, most: Infinity }, rise, () =>
        horseshoeArch(span, height, rise),
      );
    case 'ogee-arch':
      return risen('an ogee arch', { least: half, most: Infinity }, rise, () => ogeeArch(span, height, rise));
  }

  function noHaunch(radius: number): Impossible {
    const range = haunchRadii(span, rise);
    return {
      reason: `a four-centred arch of span ${length(span)} that rises ${length(rise)} cannot have a haunch radius of ${length(radius)}`,
      mend: range
        ? `Give it a haunch radius from ${length(range[0])} to ${length(range[1])}.`
        : 'Give it another rise: about a third of its span.',
    };
  }
}
