/** Changes made where they need not be checked any more. */
import type { Change } from './change-set.ts';
import { Draft } from './reading.ts';
import type { ProjectDocument } from './schema.ts';

/** A document with changes made to it that are known to fit, having been applied elsewhere. */
export function withChanges(document: ProjectDocument, changes: readonly Change[]): ProjectDocument {
  const draft = new Draft(document);
  for (const change of changes) {
    if (change.op === 'put') draft.put(change.table, change.value);
    else if (change.op === 'remove') draft.remove(change.table, change.id);
    else draft.set(change.value);
  }
  return draft.document;
}
