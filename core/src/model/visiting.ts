/** Openings that are to cut further elements than their own. */
import { row, type Opening } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import { fault } from '../finding.ts';
import { squareSections } from '../profile/section.ts';
import { aimOf, projectOnto } from '../setout/project.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import { guardedPlace } from './guard.ts';
import type { Scene } from './scene.ts';

/** Openings that are to cut further elements, as they land there, by element. */
export function visitingOf(scene: Scene): Map<string, (Placed | Unplaced)[]> {
  const { document, sheets } = scene;
  const found = new Map<string, (Placed | Unplaced)[]>();
  for (const [id, openings] of scene.opened())
    for (const opening of openings) {
      const own = sheets.of(id);
      if (!opening.further?.length || !own || opening.blockedUp) continue;
      const resolved = guardedPlace(opening, () => scene.resolved(opening));
      if (!('outline' in resolved)) continue;
      for (const further of new Set(opening.further)) {
        const sheet = row(document, 'elements', further) && sheets.of(further);
        if (!sheet || further === id) continue;
        const landed = landedOn(further, sheet, { own, opening, resolved });
        const list = found.get(further);
        if (list) list.push(landed);
        else found.set(further, [landed]);
      }
    }
  return found;
}

/** An opening where it comes out on a further element. */
function landedOn(
  further: string,
  sheet: Sheet,
  { own, opening, resolved }: { own: Sheet; opening: Opening; resolved: Placed },
): Placed | Unplaced {
  if (resolved.kind !== 'through')
    return {
      id: opening.id,
      element: further,
      ...fault(
        'not-further',
        'only what cuts right through its own element can cut further ones',
        'Let its pattern cut through, or take the element from its list.',
      ),
    };
  const from = resolved.face === 'inner' ? turnedOver(own).sheet : own;
  return guardedPlace({ id: opening.id, element: further }, () =>
    projectOnto(sheet, throughAll(resolved, sheet), aimOf(from, opening, resolved)),
  );
}

/** The same outline square through another thickness: what departs from square belongs to the opening's own element. */
function throughAll(placed: Placed, { thickness }: Sheet): Placed {
  return { ...placed, depth: thickness, sections: squareSections(thickness) };
}
