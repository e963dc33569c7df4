/** What of an outline lies over the planes of a roof that it is to cut. */
import { clip } from '../cut/clip.ts';
import type { RoofBody } from '../element/roof-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Placed } from '../setout/placed.ts';
import { outlineLeft } from './outline-left.ts';
import { seen, standing } from './planes-under.ts';

/** An opening as far as it lies over the planes that it is to cut; null where that is nowhere. */
export function overChosen(opening: Placed, body: RoofBody, above: Sheet): Placed | null {
  const { planes, outline, s, t } = opening;
  if (!planes) return opening;
  const others = body.planes.filter(({ face }) => !planes.includes(face)).map(({ sheet }) => seen(sheet, above));
  const { loops } = clip(standing(opening), others);
  if (loops.length === 0) return null;
  const made = outlineLeft(loops, { s, t }, (operand, source) => ({
    side: operand === 0 ? outline.side[source]! : 'jamb-left',
    arc: null,
  }));
  return { ...opening, outline: made };
}
