/** Groups of the register, and locks. */
import { putting, type ChangeSet, type Element, type ProjectDocument } from '@yard-arch/document';
import { edit } from './make.ts';

/** Puts elements into a group, or (null) out of theirs. */
export function setGroup(elements: readonly Element[], group: string | null): ChangeSet {
  const called = elements.length === 1 ? elements[0]!.name : `${elements.length} elements`;
  return edit(
    group ? `put ${called} into ${group}` : `take ${called} out of its group`,
    ...elements.map((element) => putting('elements', { ...element, group: group ?? undefined })),
  );
}

/** The names of all groups. */
export function groupsOf(document: ProjectDocument): string[] {
  return [...new Set(Object.values(document.elements).flatMap(({ group }) => group ?? []))].sort();
}

export function setLocked(elements: readonly Element[], locked: boolean): ChangeSet {
  return edit(
    `${locked ? 'lock' : 'unlock'} ${elements.length === 1 ? elements[0]!.name : `${elements.length} elements`}`,
    ...elements.map((element) => putting('elements', { ...element, locked: locked || undefined })),
  );
}
