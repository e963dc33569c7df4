/** Tubes of openings that stand clear: made once for all of one size in one build-up, and moved to their places. */
import type { Sheet } from '../element/sheet.ts';
import { makeTube, type Tube } from '../reveal/tube.ts';
import type { Placed } from '../setout/placed.ts';
import { loopsOfOpening } from './group.ts';
import type { Skin } from './setting.ts';

const tubes = new WeakMap<Placed['outline'], Map<string, { sections: Placed['sections']; tube: Tube }>>();

/** The tube of an opening that stands clear: made once for all of its size in one build-up, and moved to its place. */
export function tubeOf(opening: Placed, range: readonly [number, number], sheet: Sheet, skin: Skin): Tube {
  const { outline, sections, s, t, drift } = opening;
  if (drift)
    return makeTube(loopsOfOpening(opening, 1, s, t), { from: range[0], to: range[1] }, sheet.boundaries, skin.whole);
  const key = `${opening.kind} ${range[0]} ${range[1]} ${skin.from} ${skin.to} ${keyOf(sheet)}`;
  let byKey = tubes.get(outline);
  if (!byKey) tubes.set(outline, (byKey = new Map()));
  let known = byKey.get(key);
  if (known?.sections !== sections)
    byKey.set(
      key,
      (known = {
        sections,
        tube: makeTube(
          loopsOfOpening(opening, 1, 0, 0),
          { from: range[0], to: range[1] },
          sheet.boundaries,
          skin.whole,
        ),
      }),
    );
  const { tube } = known!;
  return { ...tube, x: moved(tube.x, s), y: moved(tube.y, t) };
}

function moved(values: readonly number[], by: number): number[] {
  const out = new Array<number>(values.length);
  for (let i = 0; i < values.length; i++) out[i] = values[i]! + by;
  return out;
}

const sheetKeys = new WeakMap<Sheet, string>();

/** What templates depend on of a sheet: its build-up, and whose it is. */
export function keyOf(sheet: Sheet): string {
  let key = sheetKeys.get(sheet);
  if (key === undefined)
    sheetKeys.set(
      sheet,
      (key = `${sheet.element} ${sheet.boundaries.join(' ')} ${sheet.layers.map((layer) => layer.material).join(' ')}`),
    );
  return key;
}
