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

/** What a profile is made of: its choice and its dimensions, metres. */
interface Asked {
  choice: ProfileChoice;
  width: number;
  height: number;
  span: number;
  rise: number;
  take: (dimension: string) => number;
  /** A length as a refusal words it. */
  length: (metres: number) => string;
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
  return makers[shape]({ choice, width, height, span, rise, take, length });
}

/** Refuses a rise outside its range; the head must also fit under the height. */
function risen(
  { span, height, length }: Asked,
  what: string,
  { least, most, rise }: { least: number; most: number; rise: number },
  make: () => Profile | Impossible,
): Profile | Impossible {
  if (rise < least - slack || rise > most + slack)
    return {
      reason: `${what} of span ${length(span)} cannot rise ${length(rise)}`,
      mend:
        most === Infinity
          ? `Give it a rise of at least ${length(least)}.`
          : least <= 0
            ? `Give it a rise of at most ${length(most)}.`
            : `Give it a rise from ${length(least)} to ${length(most)}.`,
    };
  if (height < rise - slack)
    return {
      reason: `${what} that rises ${length(rise)} is higher than its height of ${length(height)}`,
      mend: `Make it at least ${length(rise)} high, or let it rise less.`,
    };
  return make();
}

/** Refuses a web or flanges that leave no room beside them. */
function rolled(
  { width, height, length }: Asked,
  { web, flanges }: { web: number; flanges: number },
  make: () => Profile,
): Profile | Impossible {
  if (web < width - slack && flanges < height - slack) return make();
  return {
    reason: 'its web or flanges are as thick as the section itself',
    mend: `Make the web less than ${length(width)}, and the flanges together less than ${length(height)}.`,
  };
}

/** A rectangle whose corners are taken off. */
function cornered(
  { width, height, length }: Asked,
  what: string,
  cut: number,
  make: (width: number, height: number, cut: number) => Profile,
): Profile | Impossible {
  const most = Math.min(width, height) / 2;
  if (cut <= most + slack) return make(width, height, Math.min(cut, most));
  return {
    reason: `a ${what} of ${length(cut)} is more than half its lesser side`,
    mend: `Give it a ${what} of at most ${length(most)}.`,
  };
}

function starOf({ choice, take, length }: Asked): Profile | Impossible {
  const [outer, inner] = [take('diameter'), take('inner')];
  if (inner < outer - slack) return star(choice.sides ?? 5, outer, inner);
  return {
    reason: `a star of ${length(outer)} cannot have an inner diameter of ${length(inner)}`,
    mend: `Give it an inner diameter of less than ${length(outer)}.`,
  };
}

function lettersOf({ choice, height }: Asked): Profile | Impossible {
  const made = textProfile(choice.text ?? '', height);
  if (isImpossible(made)) return made;
  return selfCrossing(made) ? { reason: 'two of its letters touch', mend: 'Put a space between them.' } : made;
}

/** A rise that is half the span needs no saying; only the height may be too little. */
function halfRound({ span, height, length }: Asked): Profile | Impossible {
  if (height >= span / 2 - slack) return semicircularArch(span, height);
  return {
    reason: `a semicircular arch of span ${length(span)} rises ${length(span / 2)}, more than its height of ${length(height)}`,
    mend: `Make it at least ${length(span / 2)} high, or its span at most ${length(2 * height)}.`,
  };
}

function fourCentred(asked: Asked): Profile | Impossible {
  const { span, height, rise, take, length } = asked;
  const radius = take('radius');
  return risen(asked, 'a four-centred arch', { least: 0, most: Infinity, rise }, () => {
    const made = fourCentredArch(span, height, rise, radius);
    if (made) return made;
    const range = haunchRadii(span, rise);
    return {
      reason: `a four-centred arch of span ${length(span)} that rises ${length(rise)} cannot have a haunch radius of ${length(radius)}`,
      mend: range
        ? `Give it a haunch radius from ${length(range[0])} to ${length(range[1])}.`
        : 'Give it another rise: about a third of its span.',
    };
  });
}

/** An arch of a span, a height and a rise between two limits, which are shares of the span. */
const arch =
  (
    what: string,
    { least, most }: { least: (span: number) => number; most: (span: number) => number },
    make: (span: number, height: number, rise: number) => Profile,
  ) =>
  (asked: Asked): Profile | Impossible => {
    const { span, height, rise } = asked;
    return risen(asked, what, { least: least(span), most: most(span), rise }, () => make(span, height, rise));
  };

const none = (): number => 0;
const any = (): number => Infinity;
const half = (span: number): number => span / 2;
const moreThanHalf = (span: number): number => (span / 2) * 1.001;

const makers: Record<ProfileChoice['shape'], (asked: Asked) => Profile | Impossible> = {
  'regular-polygon': ({ choice, take }) => regularPolygon(choice.sides ?? 6, take('diameter')),
  star: starOf,
  'i-section': (asked) => {
    const [web, flange] = [asked.take('web'), asked.take('flange')];
    return rolled(asked, { web, flanges: 2 * flange }, () => iSection(asked.width, asked.height, web, flange));
  },
  't-section': (asked) => {
    const [web, flange] = [asked.take('web'), asked.take('flange')];
    return rolled(asked, { web, flanges: flange }, () => tSection(asked.width, asked.height, web, flange));
  },
  'channel-section': (asked) => {
    const [web, flange] = [asked.take('web'), asked.take('flange')];
    return rolled(asked, { web, flanges: 2 * flange }, () => channelSection(asked.width, asked.height, web, flange));
  },
  'angle-section': (asked) => {
    const web = asked.take('web');
    return rolled(asked, { web, flanges: web }, () => angleSection(asked.width, asked.height, web));
  },
  free: ({ choice, width, height, length }) =>
    freeProfile(choice.outline ?? [], choice.islands ?? [], { width, height }, length),
  text: lettersOf,
  rectangle: ({ width, height }) => rectangle(width, height),
  'rounded-rectangle': (asked) => cornered(asked, 'radius', asked.take('radius'), roundedRectangle),
  'chamfered-rectangle': (asked) => cornered(asked, 'chamfer', asked.take('chamfer'), chamferedRectangle),
  circle: ({ take }) => ellipse(take('diameter'), take('diameter')),
  ellipse: ({ width, height }) => ellipse(width, height),
  trefoil: ({ take }) => foils(3, take('diameter')),
  quatrefoil: ({ take }) => foils(4, take('diameter')),
  'semicircular-arch': halfRound,
  'segmental-arch': arch('a segmental arch', { least: none, most: half }, segmentalArch),
  'cambered-arch': (asked) => {
    const { span, height, take } = asked;
    const rise = take('camber');
    return risen(asked, 'a flat arch', { least: 0, most: span / 8, rise }, () => segmentalArch(span, height, rise));
  },
  'elliptical-arch': arch('an elliptical arch', { least: none, most: any }, ellipticalArch),
  'three-centred-arch': arch(
    'a three-centred arch',
    { least: (span) => leastThreeCentredRise(span) * 1.001, most: half },
    (span, height, rise) =>
      rise > span / 2 - micrometre ? semicircularArch(span, height) : threeCentredArch(span, height, rise),
  ),
  'pointed-arch': arch('a pointed arch', { least: moreThanHalf, most: any }, pointedArch),
  'four-centred-arch': fourCentred,
  'horseshoe-arch': arch('a horseshoe arch', { least: moreThanHalf, most: any }, horseshoeArch),
  'ogee-arch': arch('an ogee arch', { least: half, most: any }, ogeeArch),
};
