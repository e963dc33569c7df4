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
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Size,
} from '@yard-arch/document';
import { edit } from './make.ts';

export function addPattern(document: ProjectDocument, shape: ProfileShape): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const names = new Set(Object.values(document.patterns).map((pattern) => pattern.name));
  const plain: string = profileShapes[shape].name;
  let name = plain;
  for (let n = 2; names.has(name); n++) name = `${plain} ${n}`;
  const pattern: Pattern = {
    id,
    name,
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
    reveal: { material: null },
  };
  return { id, changeSet: edit(`add pattern ${name}`, putting('patterns', pattern)) };
}

export function changePattern(pattern: Pattern, over: Partial<Pattern>, what: string): ChangeSet {
  return edit(`${what} ${pattern.name}`, putting('patterns', { ...pattern, ...over }));
}

export function removePattern(pattern: Pattern): ChangeSet {
  return edit(`remove pattern ${pattern.name}`, removing('patterns', pattern.id));
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
