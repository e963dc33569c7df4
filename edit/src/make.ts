/** Making change sets, and the words that name them. */
import {
  applyChangeSet,
  rebased,
  type Change,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';

/** A change set, named as its undo entry reads. */
export const edit = (name: string, ...changes: Change[]): ChangeSet => ({ name: name.slice(0, 200), changes });

/** A name that no element has yet: the one that is asked for, or that with a number. */
export function freeElementName({ elements }: ProjectDocument, asked: string): string {
  const names = new Set(Object.values(elements).map(({ name }) => name));
  let [name, n] = [asked, 1];
  while (names.has(name)) name = `${asked} ${++n}`;
  return name;
}

/** What openings are called in a name: the mark of one, the number of several. */
export const called = (openings: readonly Pick<Opening, 'mark'>[]): string =>
  openings.length === 1 ? openings[0]!.mark : `${openings.length} openings`;

/** An edit that was made up on one document, as it is made on what others have made of that meanwhile: what it does not change stays theirs. */
export function refitted(changeSet: ChangeSet, from: ProjectDocument, to: ProjectDocument): ChangeSet {
  return from === to ? changeSet : rebased(changeSet, applyChangeSet(from, changeSet).inverse, to);
}
