/** The outline of an opening: its pattern's shape with its dimensions. */
import {
  dimensionNames,
  row,
  type Dimensions,
  type Opening,
  type Pattern,
  type ProfileChoice,
  type ProjectDocument,
  type Units,
} from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import { defaultFineness, finenessKey, flatten, type Fineness, type Outline } from '../profile/flatten.ts';
import type { Impossible, Profile } from '../profile/profile.ts';
import { isImpossible, profileOf } from '../profile/shapes.ts';

/** An opening's dimensions: its own, or those of its size; undefined where its pattern has no such size. */
export function dimensionsOf(pattern: Pattern, opening: Pick<Opening, 'size' | 'own'>): Dimensions | undefined {
  return (
    opening.own ?? (Object.hasOwn(pattern.sizes, opening.size) ? pattern.sizes[opening.size]!.dimensions : undefined)
  );
}

/** The profile of an opening as it is dimensioned, or null when that makes none. */
export function profileOfOpening(
  document: ProjectDocument,
  opening: Pick<Opening, 'pattern' | 'size' | 'own'>,
): Profile | null {
  const pattern = row(document, 'patterns', opening.pattern);
  const dimensions = pattern && dimensionsOf(pattern, opening);
  if (!pattern || !dimensions || !fits(pattern, dimensions)) return null;
  const made = outlineOf(pattern.profile, dimensions, document.units, defaultFineness);
  return 'reason' in made ? null : made.profile;
}

/** Whether dimensions are those that a pattern's shape needs. */
export function fits(pattern: Pattern, dimensions: Dimensions): boolean {
  return dimensionNames(pattern.profile.shape).every((name) => Object.hasOwn(dimensions, name));
}

/** A profile and its outline, or why there is none. */
export type Outlined = { profile: Profile; outline: Outline } | Impossible;
const kept = new LRUCache<string, Outlined>({ max: 4096 });

/** The same by the very choice and dimensions, which all openings of a size share: what is asked last is mostly asked again. */
const lastOutlines = new WeakMap<ProfileChoice, WeakMap<Dimensions, { key: number; units: Units; made: Outlined }>>();

/** Profile and outline of a pattern's choice with dimensions; the same object for the same question, for as long as it is among the last ones asked. */
export function outlineOf(choice: ProfileChoice, dimensions: Dimensions, units: Units, fineness: Fineness): Outlined {
  const fine = finenessKey(fineness);
  let byDimensions = lastOutlines.get(choice);
  if (!byDimensions) lastOutlines.set(choice, (byDimensions = new WeakMap()));
  const last = byDimensions.get(dimensions);
  if (last && last.key === fine && last.units === units) return last.made;
  const made = outlineByText(choice, dimensions, units, fineness);
  byDimensions.set(dimensions, { key: fine, units, made });
  return made;
}

function outlineByText(choice: ProfileChoice, dimensions: Dimensions, units: Units, fineness: Fineness): Outlined {
  const key = JSON.stringify([choice, dimensions, units, fineness]);
  const known = kept.get(key);
  if (known) return known;
  const profile = profileOf(choice, dimensions, units);
  const made = isImpossible(profile) ? profile : { profile, outline: flatten(profile, fineness) };
  kept.set(key, made);
  return made;
}
