/** The model: every element of a document as cut, and after an edit only what the edit touches cut again. */
import type { Element, Opening, ProjectDocument } from '@yard-arch/document';
import type { OpeningStatus } from '../cut/status.ts';
import { joinsOf } from '../element/joins.ts';
import { sheetOf, type Sheet } from '../element/sheet.ts';
import type { Fineness } from '../profile/flatten.ts';
import { finenessOf, resolveOpening, type Placed, type Unplaced } from '../setout/resolve.ts';
import { notCut } from '../cut/status.ts';
import { cutElement, type ElementCut } from './cut-element.ts';

/** What an element's cut depends on. */
interface Inputs {
  element: Element;
  resolved: readonly (Placed | Unplaced)[];
  units: ProjectDocument['units'];
  sheet: Sheet;
}

export interface Model {
  /** By element's id, in the document's order. */
  cuts: ReadonlyMap<string, ElementCut>;
  /** By opening's id; every opening of the document has one. */
  statuses: ReadonlyMap<string, OpeningStatus>;
  /** Inputs of each cut, by which the next model knows what it may keep. */
  inputs: ReadonlyMap<string, Inputs>;
}

/**
 * Cuts a document.
 * @param before the model of the document before an edit; cuts that the edit does not touch are the very same objects in the result.
 */
export function cutModel(document: ProjectDocument, before?: Model, fineness: Fineness = finenessOf(document)): Model {
  const byElement = new Map<string, Opening[]>();
  const statuses = new Map<string, OpeningStatus>();
  for (const opening of Object.values(document.openings)) {
    const list = byElement.get(opening.element);
    if (list) list.push(opening);
    else byElement.set(opening.element, [opening]);
  }
  const cuts = new Map<string, ElementCut>();
  const inputs = new Map<string, Inputs>();
  for (const element of Object.values(document.elements)) {
    const resolved = (byElement.get(element.id) ?? []).map((opening) => resolveOpening(document, opening, fineness));
    byElement.delete(element.id);
    const known = before?.inputs.get(element.id);
    const wanted: Inputs = { element, resolved, units: document.units, sheet: sheetIn(document, element, fineness, known?.sheet) };
    const kept = known && alike(known, wanted) ? before?.cuts.get(element.id) : undefined;
    const cut = kept ?? cutElement(element, wanted.sheet, resolved, document.units, before?.cuts.get(element.id));
    cuts.set(element.id, cut);
    inputs.set(element.id, wanted);
    for (const status of cut.statuses) statuses.set(status.opening, status);
  }
  for (const orphans of byElement.values())
    for (const opening of orphans) {
      const refusal = resolveOpening(document, opening, fineness) as Unplaced;
      statuses.set(opening.id, notCut(opening.id, refusal.reason, refusal.mend));
    }
  return { cuts, statuses, inputs };
}

function alike(a: Inputs, b: Inputs): boolean {
  if (a.units !== b.units || a.sheet !== b.sheet || !sameElement(a.element, b.element) || a.resolved.length !== b.resolved.length) return false;
  return a.resolved.every((x, i) => {
    const y = b.resolved[i]!;
    if ('outline' in x && 'outline' in y)
      return (
        x.id === y.id &&
        x.s === y.s &&
        x.t === y.t &&
        x.outline === y.outline &&
        (x.pattern === y.pattern || JSON.stringify({ ...x.pattern, name: '', sizes: {} }) === JSON.stringify({ ...y.pattern, name: '', sizes: {} })) &&
        x.blockedUp === y.blockedUp
      );
    return !('outline' in x) && !('outline' in y) && x.id === y.id && x.reason === y.reason && x.mend === y.mend;
  });
}

/** Whether two elements are cut alike: everything but the name. */
function sameElement(a: Element, b: Element): boolean {
  return a === b || JSON.stringify({ ...a, name: '' }) === JSON.stringify({ ...b, name: '' });
}

/** The sheet of an element among the others of its document, as its ends are joined; the one that there was where nothing about it has changed. */
export function sheetIn(document: ProjectDocument, element: Element, fineness: Fineness = finenessOf(document), before?: Sheet): Sheet {
  const ends = element.kind === 'wall' ? joinsOf(document, element) : undefined;
  const sheet = sheetOf(element, ends, fineness);
  return before && JSON.stringify({ ...before, element: '' }) === JSON.stringify({ ...sheet, element: '' }) ? before : sheet;
}
