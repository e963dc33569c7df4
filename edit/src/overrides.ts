/** What single openings have otherwise than their pattern: set, taken back, and made a pattern of their own. */
import {
  newId,
  omit,
  overridden,
  putting,
  type ChangeSet,
  type Opening,
  type Overrides,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { changeOpening } from './placing.ts';
import { freeName } from './patterns.ts';

/** Overrides without what says nothing; undefined where that is all of it. */
function tidied({ without, materials, handle }: Overrides): Overrides | undefined {
  const own = Object.fromEntries(Object.entries(materials ?? {}).filter(([of, to]) => of !== to));
  const next: Overrides = {
    ...(without && without.length > 0 ? { without } : {}),
    ...(Object.keys(own).length > 0 ? { materials: own } : {}),
    ...(handle ? { handle } : {}),
  };
  return Object.keys(next).length > 0 ? next : undefined;
}

/** Gives an opening overrides over those that it has. */
export const override = (opening: Opening, over: Overrides, what: string): ChangeSet =>
  changeOpening(opening, { overrides: tidied({ ...opening.overrides, ...over }) }, what);

/** What of an opening is its own, in words; nothing where it is as its pattern is. */
export function ownIn({ own, open, slid, overrides }: Opening): string[] {
  return [
    ...(own ? ['its dimensions'] : []),
    ...(open !== undefined || slid !== undefined ? ['how far its leaves stand open'] : []),
    ...(overrides?.without ? ['parts that are off'] : []),
    ...(overrides?.materials ? ['materials'] : []),
    ...(overrides?.handle ? ['its handle'] : []),
  ];
}

/** Makes an opening as its pattern is, but for its dimensions, which a size has. */
export const takeBack = (opening: Opening): ChangeSet =>
  changeOpening(opening, { open: undefined, slid: undefined, overrides: undefined }, 'take back the overrides of');

/** The openings of a pattern with the same overrides as one. */
export function overriddenAlike({ openings }: ProjectDocument, { pattern, overrides }: Opening): Opening[] {
  const told = JSON.stringify(overrides);
  return Object.values(openings).filter(
    (other) => other.pattern === pattern && JSON.stringify(other.overrides) === told,
  );
}

/** A pattern of what an opening has otherwise, which it and all that are alike take. */
export function patternOfOverrides(document: ProjectDocument, opening: Opening): { changeSet: ChangeSet; id: string } {
  const from = document.patterns[opening.pattern]!;
  const id = newId('p');
  const plain = omit(overridden(from, opening.overrides), 'shelf');
  const next: Pattern = { ...structuredClone(plain), id, name: freeName(document, from.name) };
  const taking = overriddenAlike(document, opening);
  return {
    id,
    changeSet: edit(
      `make ${next.name} of ${opening.mark}`,
      putting('patterns', next),
      ...taking.map((one) => putting('openings', { ...omit(one, 'overrides'), pattern: id })),
    ),
  };
}
