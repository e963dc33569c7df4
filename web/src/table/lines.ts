/** The lines of the table: what it tells of each opening. */
import { misfitsOn, resolveOpening, type Outcome } from '@yard-arch/core';
import { faceLabel, sizeLabel, type Opening, type ProjectDocument } from '@yard-arch/document';

export interface Line {
  opening: Opening;
  wall: string;
  face: string;
  pattern: string;
  size: string;
  /** Where its lower left corner is, metres; null where it has no place. */
  s: number | null;
  t: number | null;
  state: string;
  reason: string;
  /** Whether it is not as it should be. */
  bad: boolean;
}

/** @param on the element whose openings they are; null for all. */
export function linesOf(document: ProjectDocument, statuses: ReadonlyMap<string, Outcome>, on: string | null): Line[] {
  const misfits = new Map(
    Object.values(document.elements).flatMap((wall) =>
      misfitsOn(document, wall).map((misfit) => [misfit.opening.id, misfit.beyond]),
    ),
  );
  return Object.values(document.openings)
    .filter(({ element }) => on === null || element === on)
    .map((opening) => lineOf(document, opening, statuses.get(opening.id), misfits.get(opening.id)));
}

function lineOf(
  document: ProjectDocument,
  opening: Opening,
  status: Outcome | undefined,
  beyond: string | undefined,
): Line {
  const placed = resolveOpening(document, opening);
  const place = 'outline' in placed ? placed : { s: null, t: null };
  const element = document.elements[opening.element];
  const pattern = document.patterns[opening.pattern];
  return {
    opening,
    wall: element?.name ?? '',
    face: element ? faceLabel(element, opening.face) : '',
    pattern: pattern?.name ?? '',
    size: sizeOf(document, opening),
    s: place.s,
    t: place.t,
    state: status?.state ?? 'being cut',
    reason: [status?.reason, status?.mend, beyond && `reaches beyond ${beyond}`].filter(Boolean).join('. '),
    bad: status?.state === 'not cut' || beyond !== undefined,
  };
}

function sizeOf({ patterns, units }: ProjectDocument, { pattern: id, size: of, own }: Opening): string {
  const pattern = patterns[id];
  const size = pattern?.sizes[of];
  if (!pattern || !size) return '';
  return sizeLabel(pattern, own ? { id: '', name: '', dimensions: own } : size, units);
}
