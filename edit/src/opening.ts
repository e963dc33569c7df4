/** Edits of what one opening is: its pattern and size in place, dimensions of its own and back, made to a drawn rectangle. */
import { datumsOn, isImpossible, profileOf, resolveOpening, type Impossible } from '@yard-arch/core';
import {
  dimensionNames,
  newId,
  putting,
  sizeLabel,
  type ChangeSet,
  type Dimensions,
  type Element,
  type FaceName,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type ProfileShape,
  type Size,
  type Up,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { micrometre, millimetre } from '@yard-arch/core';

/** The floor on which something stands that is at a height on an element: the highest floor datum not above it, or the base. */
export function floorBelow(
  document: ProjectDocument,
  element: Element,
  t: number,
): { name: string; t: number; up: Up } {
  const floors = datumsOn(document, element)
    .filter((datum) => datum.kind === 'floor')
    .map((datum) => ({
      name: datum.name,
      t: datum.level - element.start.z,
      up: { from: 'datum', datum: datum.id, distance: 0 } as Up,
    }))
    .filter((floor) => floor.t <= t + micrometre && floor.t >= -micrometre)
    .sort((a, b) => b.t - a.t);
  return floors[0] ?? { name: 'the base of the wall', t: 0, up: { from: 'base', distance: 0 } };
}

/**
 * Gives an opening another pattern, in place. One that stands on the floor drops to the floor below it; what was held to its head or middle is held by its sill then.
 * @returns the change set, and what happened besides that one would want to know.
 */
export function changePatternOf(
  document: ProjectDocument,
  opening: Opening,
  to: string,
): { changeSet: ChangeSet; told: string | null } {
  const pattern = document.patterns[to]!;
  const element = document.elements[opening.element]!;
  const plain: Opening = { ...opening, own: undefined, pattern: to, size: nearestSize(document, pattern, opening) };
  const name = `change ${opening.mark} to ${pattern.name}`;
  const before = resolveOpening(document, opening);
  const wasOnFloor = document.patterns[opening.pattern]?.onFloor;
  if (!pattern.onFloor || wasOnFloor || !('outline' in before))
    return { changeSet: edit(name, putting('openings', plain)), told: null };
  const floor = floorBelow(document, element, before.t + before.profile.height / 2);
  const dropped = { ...plain, up: floor.up, grip: { ...plain.grip, level: 'sill' as const } };
  return {
    changeSet: edit(`${name}, down to ${floor.name}`, putting('openings', dropped)),
    told:
      Math.abs(before.t - floor.t) > micrometre
        ? `${opening.mark} is ${article(pattern.name)} now, and stands on ${floor.name}`
        : null,
  };
}

const article = (name: string): string => (/^[aeiou]/i.test(name) ? `an ${name}` : `a ${name}`);

/** The size of a pattern that is nearest to an opening in width, then in height. */
function nearestSize(document: ProjectDocument, pattern: Pattern, opening: Opening): string {
  const now = resolveOpening(document, opening);
  const sizes = Object.values(pattern.sizes);
  if (!('outline' in now)) return sizes[0]!.id;
  const { width, height } = now.profile;
  const far = (size: Size): number => {
    const profile = profileOf(pattern.profile, size.dimensions, document.units);
    return isImpossible(profile)
      ? Infinity
      : Math.abs(profile.width - width) + millimetre * Math.abs(profile.height - height);
  };
  return sizes.reduce((best, size) => (far(size) < far(best) ? size : best)).id;
}

/** Gives an opening another size of its pattern, or brings it back to one. */
export function changeSizeOf(opening: Opening, pattern: Pattern, size: string, document: ProjectDocument): ChangeSet {
  const { own, ...rest } = opening;
  const label = sizeLabel(pattern, pattern.sizes[size]!, document.units);
  return edit(
    own ? `bring ${opening.mark} back to ${label}` : `make ${opening.mark} ${label}`,
    putting('openings', { ...rest, size }),
  );
}

/** Makes an opening a one-off, with its size's dimensions to begin with. */
export function makeOneOff(opening: Opening, pattern: Pattern): ChangeSet {
  return edit(
    `make ${opening.mark} a one-off`,
    putting('openings', { ...opening, own: { ...pattern.sizes[opening.size]!.dimensions } }),
  );
}

/** Gives a one-off other dimensions. @returns the change set, or why they make no profile. */
export function changeOwn(document: ProjectDocument, opening: Opening, own: Dimensions): ChangeSet | Impossible {
  const pattern = document.patterns[opening.pattern]!;
  const made = profileOf(pattern.profile, own, document.units);
  if (isImpossible(made)) return made;
  return edit(`resize ${opening.mark}`, putting('openings', { ...opening, own: { ...own } }));
}

/** Makes a one-off's dimensions a size of its pattern, which others can have. */
export function keepAsSize(document: ProjectDocument, opening: Opening): ChangeSet {
  const pattern = document.patterns[opening.pattern]!;
  const { own, ...rest } = opening;
  const size: Size = { id: newId('s'), name: '', dimensions: { ...own! } };
  return edit(
    `keep the size of ${opening.mark}`,
    putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [size.id]: size } }),
    putting('openings', { ...rest, size: size.id }),
  );
}

const across = new Set(['width', 'span', 'diameter']);

/**
 * Dimensions that fill a rectangle of a width and height (metres): those that run across and up are set, and others (rises, radii) keep their share of the width.
 */
export function dimensionsFor(shape: ProfileShape, from: Dimensions, width: number, height: number): Dimensions {
  const old = from.width ?? from.span ?? from.diameter ?? from.height ?? 1;
  const share = old > 0 ? width / old : 1;
  const names = dimensionNames(shape);
  const round = names.includes('diameter');
  return Object.fromEntries(
    names.map((name) => [
      name,
      whole(
        round && name === 'diameter'
          ? Math.min(width, height)
          : across.has(name)
            ? width
            : name === 'height'
              ? height
              : from[name]! * share,
      ),
    ]),
  );
}

const whole = (metres: number): number => Math.max(0.001, Math.round(metres * 1000) / 1000);

/**
 * The size of a pattern for a rectangle that was drawn out: the nearest that there is, where it agrees within a reach, or a new one to the centimetre.
 * @param reach metres by which width and height may differ.
 */
export function sizeForRectangle(
  document: ProjectDocument,
  pattern: Pattern,
  from: string,
  { width, height, reach }: { width: number; height: number; reach: number },
): { size: string; made: Size | null } | Impossible {
  let best: { id: string; far: number } | null = null;
  for (const size of Object.values(pattern.sizes)) {
    const profile = profileOf(pattern.profile, size.dimensions, document.units);
    if (isImpossible(profile)) continue;
    const far = Math.max(Math.abs(profile.width - width), Math.abs(profile.height - height));
    if (far <= reach && (!best || far < best.far)) best = { id: size.id, far };
  }
  if (best) return { size: best.id, made: null };
  const centimetres = (metres: number): number => Math.max(0.01, Math.round(metres * 100) / 100);
  const dimensions = dimensionsFor(
    pattern.profile.shape,
    pattern.sizes[from]!.dimensions,
    centimetres(width),
    centimetres(height),
  );
  const profile = profileOf(pattern.profile, dimensions, document.units);
  if (isImpossible(profile)) return profile;
  const made: Size = { id: newId('s'), name: '', dimensions };
  return { size: made.id, made };
}

/** An opening of a size as it would stand with its lower left corner at the element's own, or why it cannot. */
export function wouldBe(
  document: ProjectDocument,
  element: Element,
  { pattern, size }: { pattern: string; size: string },
  face?: FaceName,
): ReturnType<typeof resolveOpening> {
  return resolveOpening(document, {
    id: '',
    mark: '',
    element: element.id,
    ...(face && face !== 'outer' ? { face } : {}),
    pattern,
    size,
    along: { from: 'start', distance: 0 },
    up: { from: 'base', distance: 0 },
    grip: { across: 'left', level: 'sill' },
    blockedUp: false,
  });
}
