/** What stands in and about the openings of a cut element. */
import type { Units } from '@yard-arch/document';
import { withFindings } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Told } from '../finding.ts';
import { partsOf } from '../infill/parts.ts';
import type { Placed } from '../setout/placed.ts';
import type { ElementCut } from './cut-element.ts';
import { withinEdge } from './within-edge.ts';

/** What a cut element is dressed with. */
export interface Dressing {
  openings: readonly Placed[];
  units: Units;
  /** Why parts that are to be let in were not. */
  without: ReadonlyMap<string, string>;
  markOf: (opening: string) => string;
  seatOf: (opening: Placed) => Sheet;
}

/** A cut element with the parts of those of its openings that were cut; what is left out is told with the opening. */
export function withParts(cut: ElementCut, { openings, units, without, markOf, seatOf }: Dressing): ElementCut {
  if (openings.length === 0 || cut.sheet.fault) return cut;
  const carrying = new Set(
    cut.statuses
      .filter(
        ({ state, findings }) =>
          (state === 'cut' || state === 'notched' || state === 'niche') &&
          !findings.some(({ code }) => code === 'across-split'),
      )
      .map((s) => s.opening),
  );
  const over = new Set(
    cut.statuses.flatMap(({ opening, findings }) =>
      findings.some(({ code }) => code === 'over-edge') ? [opening] : [],
    ),
  );
  const bySheet = new Map<Sheet, Placed[]>();
  for (const one of openings) {
    if (!carrying.has(one.id)) continue;
    const sheet = seatOf(one);
    const stands = over.has(one.id) ? withinEdge(sheet, one) : one;
    const list = bySheet.get(sheet);
    if (list) list.push(stands);
    else bySheet.set(sheet, [stands]);
  }
  const made = [...bySheet].map(([sheet, on]) => partsOf(sheet, on, units, { without, markOf }));
  const [instances, leftOut, clashes] = [
    made.flatMap((one) => one.instances),
    made.flatMap((one) => one.leftOut),
    made.flatMap((one) => one.clashes),
  ];
  const reasons = new Map<string, Set<string>>();
  for (const { opening, reason } of leftOut) reasons.set(opening, (reasons.get(opening) ?? new Set()).add(reason));
  return {
    ...cut,
    parts: instances,
    statuses: cut.statuses.map((status) => {
      const more = reasons.get(status.opening);
      return withFindings(status, [
        ...[...(more ?? [])].map((reason): Told => ({
          code: 'part-left-out',
          reason,
          mend: 'Change the figures of what its pattern puts there, or give it another size.',
        })),
        ...clashes
          .filter(({ opening }) => opening === status.opening)
          .map(({ reason, mend }): Told => ({ code: 'runs-into', reason, mend })),
      ]);
    }),
  };
}
