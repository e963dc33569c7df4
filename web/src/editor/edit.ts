/** Making change sets, and the words that name them. */
import type { Change, ChangeSet, Opening } from '@yard-arch/document';

/** A change set, named as its undo entry reads. */
export const edit = (name: string, ...changes: Change[]): ChangeSet => ({ name: name.slice(0, 200), changes });

/** What openings are called in a name: the mark of one, the number of several. */
export const called = (openings: readonly Pick<Opening, 'mark'>[]): string => (openings.length === 1 ? openings[0]!.mark : `${openings.length} openings`);
