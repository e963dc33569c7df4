/** All findings of a document as it is cut: of its elements, of its openings where they are cut, and of those that reach beyond. */
import type { Element, ProjectDocument } from '@yard-arch/document';
import type { Outcome } from '../cut/status.ts';
import { sheetsOf } from '../element/sheets.ts';
import { isFault, type Fault, type Finding, type Subject, type Told } from '../finding.ts';
import { misfitsOn, type Misfit } from '../setout/fit.ts';
import { worded } from '../setout/placed.ts';
import { gapsTold } from './roof-gaps.ts';
import { throughRoof } from './through-roof.ts';

/** What cutting told, as far as it is known. */
export interface Became {
  statuses: ReadonlyMap<string, Outcome>;
  /** Why an element cannot be made, by its id. */
  faultOf: (element: string) => Told | null | undefined;
}

/** What a misfit is, as a finding. */
export function misfitFinding(document: ProjectDocument, { opening, beyond, by }: Misfit): Finding {
  return {
    code: 'reaches-beyond',
    subject: { table: 'openings', id: opening.id },
    reason: `it is ${worded(by, document.units)} beyond ${beyond}`,
    mend: 'Slide it in, give it a smaller size, or take it away.',
  };
}

const about = (subject: Subject, told: readonly Told[]): Finding[] => told.map((one) => ({ ...one, subject }));

/** Those of one opening: what its cut told, there and in further elements. */
export function findingsOfOpening({ opening, findings, further }: Outcome): Finding[] {
  const subject: Subject = { table: 'openings', id: opening };
  return about(subject, [...findings, ...(further ?? []).flatMap((one) => one.findings)]);
}

/** Those of an element and of the openings on it, faults first. */
export function findingsOn(document: ProjectDocument, element: Element, { statuses, faultOf }: Became): Finding[] {
  const fault = faultOf(element.id);
  const subject: Subject = { table: 'elements', id: element.id };
  const joins = sheetsOf(document).of(element.id)?.joins ?? [];
  const ofOpenings = Object.values(document.openings)
    .filter((opening) => opening.element === element.id)
    .flatMap(({ id }) => {
      const status = statuses.get(id);
      return status ? findingsOfOpening(status) : [];
    });
  // One that is not cut says so itself, and need not be told to reach beyond as well.
  const notCut = (id: string): boolean => statuses.get(id)?.state === 'not cut';
  const misfits = misfitsOn(document, element)
    .filter(({ opening }) => !notCut(opening.id))
    .map((misfit) => misfitFinding(document, misfit));
  const all = [
    ...about(subject, [
      ...(fault ? [fault] : []),
      ...joins,
      ...throughRoof(document, element),
      ...gapsTold(document, element),
    ]),
    ...ofOpenings,
    ...misfits,
  ];
  return [...all.filter(isFault), ...all.filter((one) => !isFault(one))];
}

/** Those of a whole document; openings on no element come last. */
export function findingsOf(document: ProjectDocument, became: Became): Finding[] {
  const elements = Object.values(document.elements).flatMap((element) => findingsOn(document, element, became));
  const astray = Object.values(document.openings)
    .filter(({ element }) => !document.elements[element])
    .flatMap(({ id }) => {
      const status = became.statuses.get(id);
      return status ? findingsOfOpening(status) : [];
    });
  return [...elements, ...astray];
}

/** An element whose mesh is open: it should never be. */
export const notClosed = (edges: number): Fault => ({
  code: 'not-closed',
  reason: `its mesh has ${edges} open edge${edges === 1 ? '' : 's'}`,
  mend: 'Undo what was done to it last. The project file would help to find the fault.',
});
