/** What of a document does not go into a file, since it could not be made; and a file of nothing is not written. */
import { Refused, type ProjectDocument } from '@yard-arch/document';
import type { Model } from '../model/model.ts';
import { leftOutWords } from './formats.ts';

/** An element that is left out of a file. */
export interface LeftOut {
  /** The element's id and name. */
  element: string;
  name: string;
  /** Why it could not be made, and what would mend it. */
  reason: string;
  mend: string | null;
}

/** The elements that have a fault, in the document's order: there is nothing of them to write. */
export function leftOutOf(document: ProjectDocument, model: Model): LeftOut[] {
  return [...model.cuts.values()].flatMap(({ element, fault }): LeftOut[] =>
    fault ? [{ element, name: document.elements[element]!.name, reason: fault.reason, mend: fault.mend }] : [],
  );
}

/** @throws Refused where a file of a model would hold no triangle. */
export function refuseEmpty(document: ProjectDocument, model: Model): void {
  const cuts = [...model.cuts.values()];
  if (
    cuts.some(
      ({ mesh, parts }) => mesh.triangles.length > 0 || parts.some(({ part }) => part.mesh.triangles.length > 0),
    )
  )
    return;
  const left = leftOutOf(document, model);
  const why = left.length > 0 ? `None of its elements can be made: ${leftOutWords(left)}` : 'It holds no element.';
  throw new Refused(
    `There is nothing to write. ${why}`,
    left.map(({ element, reason }) => ({ path: `elements/${element}`, reason })),
  );
}
