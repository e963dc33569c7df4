/** Patterns and their sizes: made, changed and removed. */
import { isImpossible, profileOf } from '@yard-arch/core';
import {
  firstChoice,
  firstDimensions,
  newId,
  profileShapes,
  putting,
  removing,
  sizeLabel,
  type ChangeSet,
  type Dimensions,
  type FreeOutline,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Size,
} from '@yard-arch/document';
import { called, edit } from './make.ts';
import { loosened } from './many.ts';

/** A name like another's that no other pattern has. */
export function freeName({ patterns }: ProjectDocument, name: string): string {
  const names = new Set(Object.values(patterns).map((pattern) => pattern.name));
  if (!names.has(name)) return name;
  let n = 2;
  while (names.has(`${name} ${n}`)) n++;
  return `${name} ${n}`;
}

export function addPattern(document: ProjectDocument, shape: ProfileShape): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const name = freeName(document, profileShapes[shape].name);
  const pattern: Pattern = {
    id,
    name,
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
    reveal: { material: null },
  };
  return { id, changeSet: edit(`add pattern ${name}`, putting('patterns', pattern)) };
}

/** An outline with islands, and how wide and high it is drawn, metres. */
export interface Outlined {
  outline: FreeOutline;
  islands: FreeOutline[];
  width: number;
  height: number;
}

const freeOf = ({ outline, islands }: Outlined): Pattern['profile'] => ({
  shape: 'free',
  outline: [...outline],
  ...(islands.length > 0 ? { islands } : {}),
});

/** A pattern with a free outline, in the size in which that is drawn. */
export function patternOf(
  document: ProjectDocument,
  drawn: Outlined,
  wanted: string,
): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const name = freeName(document, wanted);
  const { width, height } = drawn;
  const pattern: Pattern = {
    id,
    name,
    profile: freeOf(drawn),
    sizes: { a: { id: 'a', name: '', dimensions: { width, height } } },
    reveal: { material: null },
  };
  return { id, changeSet: edit(`add pattern ${name}`, putting('patterns', pattern)) };
}

/** Gives a pattern another free outline. Its only size takes the size in which that is drawn; where there are several each keeps its own. */
export function redrawn(pattern: Pattern, drawn: Outlined): ChangeSet {
  const sizes = Object.values(pattern.sizes);
  const { width, height } = drawn;
  const own = sizes.length === 1 ? { [sizes[0]!.id]: { ...sizes[0]!, dimensions: { width, height } } } : pattern.sizes;
  return changePattern(pattern, { profile: freeOf(drawn), sizes: own }, 'redraw');
}

export function changePattern(pattern: Pattern, over: Partial<Pattern>, what: string): ChangeSet {
  return edit(`${what} ${pattern.name}`, putting('patterns', { ...pattern, ...over }));
}

/** A pattern like another, under a name that is free; no opening is of it yet. */
export function copyPattern(document: ProjectDocument, pattern: Pattern): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const name = freeName(document, pattern.name.replace(/ \d+$/, ''));
  const copy = { ...structuredClone(pattern), id, name };
  return { id, changeSet: edit(`copy pattern ${pattern.name}`, putting('patterns', copy)) };
}

/** Removes a pattern with all openings of it; what is measured from those stays where it is. */
export function removePattern(document: ProjectDocument, pattern: Pattern): ChangeSet {
  const going = Object.values(document.openings).filter((opening) => opening.pattern === pattern.id);
  return edit(
    going.length === 0 ? `remove pattern ${pattern.name}` : `remove pattern ${pattern.name} with its ${called(going)}`,
    ...loosened(document, going),
    ...going.map(({ id }) => removing('openings', id)),
    removing('patterns', pattern.id),
  );
}

/** How many openings have a pattern, or one size of it. */
export function uses(document: ProjectDocument, pattern: string, size?: string): number {
  let count = 0;
  for (const opening of Object.values(document.openings))
    if (opening.pattern === pattern && (size === undefined || opening.size === size)) count += 1;
  return count;
}

/** Gives a size other dimensions; all its openings follow. @returns the change set, or why those dimensions make no profile. */
export function resize(
  document: ProjectDocument,
  pattern: Pattern,
  size: Size,
  dimensions: Dimensions,
): ChangeSet | { reason: string; mend: string } {
  const made = profileOf(pattern.profile, dimensions, document.units);
  if (isImpossible(made)) return made;
  const next: Size = { ...size, dimensions: { ...dimensions } };
  const count = uses(document, pattern.id, size.id);
  return edit(
    `resize ${pattern.name} to ${sizeLabel(pattern, next, document.units)}${count > 1 ? ` (${count} openings)` : ''}`,
    putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [size.id]: next } }),
  );
}

export function addSize(pattern: Pattern, from: Size): { changeSet: ChangeSet; id: string } {
  const id = newId('s');
  const size: Size = { ...from, id, name: '' };
  return {
    id,
    changeSet: edit(
      `add a size to ${pattern.name}`,
      putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [id]: size } }),
    ),
  };
}

export function removeSize(pattern: Pattern, size: Size): ChangeSet {
  const sizes = { ...pattern.sizes };
  Reflect.deleteProperty(sizes, size.id);
  return edit(`remove a size of ${pattern.name}`, putting('patterns', { ...pattern, sizes }));
}
