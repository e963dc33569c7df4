/** Locked elements: which edits they keep from being made. */
import type { ChangeSet, ProjectDocument } from '@yard-arch/document';

/** The name of a locked element that a change set would change, or null. Locking and unlocking are changes that a lock does not keep from. */
export function lockedBy(document: ProjectDocument, { changes }: ChangeSet): string | null {
  const lockOf = (id: string | null | undefined): string | null =>
    id && document.elements[id]?.locked ? document.elements[id].name : null;
  for (const change of changes) {
    if (change.op === 'settings') continue;
    const id = change.op === 'put' ? change.value.id : change.id;
    if (change.table === 'elements') {
      const before = document.elements[id];
      if (!before?.locked) continue;
      const rest = (element: object): string => JSON.stringify({ ...element, locked: undefined, group: undefined });
      if (change.op === 'remove' || rest(before) !== rest(change.value)) return before.name;
    } else if (change.table === 'openings') {
      const lock =
        lockOf(document.openings[id]?.element) ??
        lockOf(change.op === 'put' ? (change.value as { element: string }).element : null);
      if (lock) return lock;
    } else if (change.table === 'axes') {
      const lock = lockOf(document.axes[id]?.element);
      if (lock) return lock;
    }
  }
  return null;
}
