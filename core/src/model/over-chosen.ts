/** What of an outline lies over the planes of a roof that it is to cut. */
import { clip } from '../cut/clip.ts';
import type { RoofBody } from '../element/roof-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from '../setout/resolve.ts';
import { seen, standing } from './planes-under.ts';

/** An opening as far as it lies over the planes that it is to cut; null where that is nowhere. */
export function overChosen(opening: Placed, body: RoofBody, above: Sheet): Placed | null {
  const { planes, outline, s, t } = opening;
  if (!planes) return opening;
  const others = body.planes.filter(({ face }) => !planes.includes(face)).map(({ sheet }) => seen(sheet, above));
  const { loops } = clip(standing(opening), others);
  if (loops.length === 0) return null;
  const made: Outline = {
    count: 0,
    xs: Float64Array.from(loops.flatMap(({ xs }) => xs.map((x) => x - s))),
    ys: Float64Array.from(loops.flatMap(({ ys }) => ys.map((y) => y - t))),
    next: new Uint32Array(loops.reduce((sum, { xs }) => sum + xs.length, 0)),
    loops: [],
    side: [],
    arcs: [],
  };
  for (const { xs, operand, source } of loops) {
    const first = made.count;
    made.loops.push(first);
    xs.forEach((_, i) => {
      const own = operand[i] === 0;
      made.next[first + i] = i + 1 === xs.length ? first : first + i + 1;
      made.side.push(own ? outline.side[source[i]!]! : 'jamb-left');
      made.arcs.push(null);
    });
    made.count += xs.length;
  }
  return { ...opening, outline: made };
}
