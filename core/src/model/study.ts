/** A study of a pattern: one opening of it in a piece of wall of its own, cut as it would be anywhere, to be drawn as a detail. */
import type { Element, Opening, Pattern, ProjectDocument, Size } from '@yard-arch/document';
import type { ElementCut } from './cut-element.ts';
import { cutModel, type Model } from './model.ts';
import { isImpossible, profileOf } from '../profile/shapes.ts';
import { resolveOpening, type Placed } from '../setout/resolve.ts';
import { laidOut, type Laid } from '../infill/infill.ts';
import { tidy } from '../tidy.ts';

export interface Study {
  cut: ElementCut;
  /** The opening in its place; its lower left corner is (s, t) on the face. */
  placed: Placed;
  /** Why it, or something of it, could not be made; null where all was. */
  reason: string | null;
  /** What of its infill is where as it is seen, outermost first. */
  laid: readonly Laid[];
  /** By which the next study cuts again only what is otherwise. */
  model: Model;
}

/** How much wall there is about it, metres. */
export const about = { beside: 0.7, below: 0.6, above: 0.8 };

/** Studies a pattern in one of its sizes. @param layers of the wall in which it is studied. @param before one of the same wall. @returns why it cannot be drawn at all */
export function studyOf(
  document: ProjectDocument,
  pattern: Pattern,
  size: Size,
  layers: Element['layers'],
  over: Partial<Opening> = {},
  before?: Study,
): Study | { reason: string } {
  const profile = profileOf(pattern.profile, size.dimensions, document.units);
  if (isImpossible(profile)) return { reason: profile.reason };
  const { width, height } = profile;
  const foot = pattern.onFloor ? 0 : about.below;
  const wall: Element = {
    id: 'study',
    kind: 'wall',
    name: 'Study',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: tidy(width + 2 * about.beside),
    height: tidy(foot + height + about.above),
    top: { kind: 'level' },
    layers,
  };
  const opening: Opening = {
    id: 'one',
    mark: pattern.name.slice(0, 60),
    element: wall.id,
    pattern: pattern.id,
    size: size.id,
    along: { from: 'start', distance: tidy(wall.length / 2) },
    up: { from: 'base', distance: foot },
    grip: { across: 'centre', level: 'sill' },
    blockedUp: false,
    ...over,
  };
  const alone: ProjectDocument = {
    ...document,
    elements: { study: wall },
    openings: { one: opening },
    patterns: { [pattern.id]: pattern },
    datums: {},
    axes: {},
  };
  const model = cutModel(alone, before?.model);
  const placed = resolveOpening(alone, opening);
  if (!('outline' in placed)) return { reason: placed.reason };
  const laid = pattern.infill ? laidOut(pattern.infill, placed) : [];
  const status = model.statuses.get('one')!;
  // That a door stands on the floor is as it should be.
  const told = status.findings.filter(({ code }) => code !== 'over-edge').map((found) => found.reason);
  return { cut: model.cuts.get(wall.id)!, placed, reason: told.length > 0 ? told.join('; ') : null, laid, model };
}
